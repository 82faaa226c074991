<script setup lang="ts">
/** The sequence: each step with its state, by shape as well as by colour. */
import type { CourseStep } from '@veglia/core';
import { useI18n } from 'vue-i18n';
import { stepTitle } from './titles.ts';

defineProps<{ course: readonly CourseStep[]; current: number }>();
const emit = defineEmits<{ choose: [index: number] }>();
const { t } = useI18n();
const signs = { done: '✓', due: '▶', 'to-come': '○' } as const;
</script>

<template>
  <ol class="course">
    <li v-for="({ aim, state }, index) in course" :key="index" :class="[state, { chosen: index === current }]" :data-state="state">
      <button type="button" :data-aim="aim.step" :data-area="aim.area" :aria-current="index === current" @click="emit('choose', index)">
        <span class="sign" aria-hidden="true">{{ signs[state] }}</span>
        {{ stepTitle(t, aim) }}
        <span class="visually-hidden">{{ t(`flash.stateOf.${state}`) }}</span>
      </button>
    </li>
  </ol>
</template>

<style scoped>
.course button {
  display: flex;
  gap: 10px;
  align-items: baseline;
  width: 100%;
  min-height: 40px;
  padding: 4px 8px;
  border: 0;
  border-radius: var(--radius);
  background: none;
  text-align: left;
  cursor: pointer;
}
.course .chosen button {
  background: var(--accent-wash);
}
.course .to-come {
  color: var(--ink-soft);
}
.course .due {
  font-weight: 700;
}
.sign {
  flex: none;
  width: 16px;
  text-align: center;
}
</style>
