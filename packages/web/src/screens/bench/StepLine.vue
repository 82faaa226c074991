<script setup lang="ts">
/** A step that could be taken, on one line: its key, what it is, how long; a long shot says so. */
import { isLongShot, type NextStep } from '@veglia/core';
import { useI18n } from 'vue-i18n';
import type { Names } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';

/** `keyLabel`: the key that takes it; left out: it has none. */
defineProps<{ step: NextStep; names: Names; keyLabel?: string | undefined }>();
defineEmits<{ take: [step: NextStep] }>();
const { t } = useI18n();
</script>

<template>
  <button type="button" class="step" :data-step="step.id" :data-of="step.of" @click="$emit('take', step)">
    <KeyCap v-if="keyLabel" :label="keyLabel" />
    <span class="name">{{ names.step(step.kind, step.id, step.kind === 'test' ? step.of : undefined) }}</span>
    <span v-if="isLongShot(step)" class="soft">{{ t('bench.longShot.tag') }}</span>
    <span class="soft figure"
      ><slot>{{ t('common.minutes', { n: Math.round(step.minutes + step.waitMinutes) }) }}</slot></span
    >
  </button>
</template>

<style scoped>
.step {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: 42px;
  padding: 2px 4px;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}
.step:hover {
  background: var(--accent-wash);
}
.name {
  flex: 1;
}
</style>
