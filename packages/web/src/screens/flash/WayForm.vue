<script setup lang="ts">
/** How the chip is reached. */
import { waysIn, type FlashDid, type FlashSession } from '@veglia/core';
import { reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { cap } from '../bench/keymap.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import PhotoButton from '../../parts/PhotoButton.vue';
import PhotoThumb from '../../parts/PhotoThumb.vue';
import TextField from '../../parts/TextField.vue';
import PinDrawing from './PinDrawing.vue';

const props = defineProps<{ session: FlashSession }>();
const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t } = useI18n();
const form = reactive<{ way: (typeof waysIn)[number]; with: string; clock: boolean }>({ way: 'clip', with: '', clock: false });
const photo = ref('');
function record(): void {
  const which = form.with.trim();
  emit('did', {
    step: 'entered',
    way: form.way,
    ...(which === '' ? {} : { with: which.slice(0, 80) }),
    ...(form.clock ? { clockStopped: true } : {}),
    ...(photo.value === '' ? {} : { photo: photo.value }),
  });
}
</script>

<template>
  <form class="fields" @submit.prevent="record">
    <ChoiceField
      id="flash-way"
      v-model="form.way"
      :label="t('flash.field.way')"
      :options="waysIn.map((value) => ({ value, label: t(`flash.way.${value}`) }))"
    />
    <TextField id="flash-with" v-model="form.with" :label="t('flash.field.with')" :bounds="{ longest: 80 }" />
    <el-checkbox v-model="form.clock" class="wide" data-test="clock-stopped">{{ t('flash.field.clock') }}</el-checkbox>
    <PinDrawing class="wide" :memory="props.session.opened.memory" />
    <span class="inline wide">
      <PhotoButton :label="t('flash.wayPhoto')" @added="(id) => (photo = id)" />
      <PhotoThumb v-if="photo" :photo="photo" :alt="t('flash.wayPhoto')" />
    </span>
    <button type="submit" class="push full bottom" data-test="record-step">
      <KeyCap :label="cap('confirm')" />{{ t('flash.record') }}
    </button>
  </form>
</template>
