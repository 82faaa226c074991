<script setup lang="ts">
/** How the chip is reached. */
import { waysIn, type FlashDid } from '@veglia/core';
import { reactive } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { cap } from '../bench/keymap.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';

const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t } = useI18n();
const form = reactive<{ way: (typeof waysIn)[number]; with: string; clock: boolean }>({ way: 'clip', with: '', clock: false });
function record(): void {
  const which = form.with.trim();
  emit('did', {
    step: 'entered',
    way: form.way,
    ...(which === '' ? {} : { with: which.slice(0, 80) }),
    ...(form.clock ? { clockStopped: true } : {}),
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
    <button type="submit" class="push full" data-test="record-step"><KeyCap :label="cap('confirm')" />{{ t('flash.record') }}</button>
  </form>
</template>
