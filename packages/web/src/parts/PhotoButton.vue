<script setup lang="ts">
/** One photo, by the camera or from a file; kept here until the server has it. Says why where one is refused. */
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { addPhoto } from '../stores/photos.ts';

defineProps<{ label: string }>();
const emit = defineEmits<{ added: [id: string] }>();
const { t } = useI18n();
const field = ref<HTMLInputElement>();
const busy = ref(false);
const refused = ref('');

async function chosen(): Promise<void> {
  const [file] = field.value?.files ?? [];
  if (!file) return;
  refused.value = '';
  busy.value = true;
  try {
    const added = await addPhoto(file, file.name);
    if ('refused' in added) refused.value = `${file.name}: ${added.refused === 'said' ? added.why : t('counter.photo.tooLarge')}`;
    else emit('added', added.id);
  } finally {
    busy.value = false;
    if (field.value) field.value.value = '';
  }
}
defineExpose({ focus: (): void => field.value?.focus() });
</script>

<template>
  <span class="photo">
    <label class="push" :aria-busy="busy">
      {{ label }}
      <input
        ref="field"
        type="file"
        accept="image/*"
        capture="environment"
        class="visually-hidden"
        data-test="photo-file"
        @change="chosen"
      />
    </label>
    <span v-if="refused" class="alarm" role="alert">{{ refused }}</span>
  </span>
</template>
