<script setup lang="ts">
/** A photo into the ledger while the set lies open: of what, and what it shows. */
import { photoSubjects, type Body } from '@veglia/core';
import { onMounted, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import ChoiceField from '../../parts/ChoiceField.vue';
import PhotoButton from '../../parts/PhotoButton.vue';
import TextField from '../../parts/TextField.vue';

const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const button = ref<InstanceType<typeof PhotoButton>>();
const form = reactive<{ of: (typeof photoSubjects)[number]; caption: string }>({ of: 'inside', caption: '' });

function added(photo: string): void {
  const caption = form.caption.trim();
  emit('write', [{ kind: 'photo.added', v: 2, photo, of: form.of, ...(caption === '' ? {} : { caption }) }]);
  form.caption = '';
  // Keys belong to the bench again, and Space takes the next one.
  button.value?.focus();
}
// Space or Enter goes on to the camera.
onMounted(() => void button.value?.focus());
</script>

<template>
  <section class="sheet fields" data-test="photo-sheet">
    <h2 class="wide">{{ t('photo.title') }}</h2>
    <ChoiceField
      id="photo-of"
      v-model="form.of"
      :label="t('counter.photo.of')"
      :options="photoSubjects.map((value) => ({ value, label: t(`photoOf.${value}`) }))"
    />
    <TextField id="photo-caption" v-model="form.caption" :label="t('photo.caption')" />
    <PhotoButton ref="button" :label="t('photo.take')" @added="added" />
  </section>
</template>
