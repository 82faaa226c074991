<script setup lang="ts">
/** The set runs on a stopgap on purpose: until when, and what came of it. */
import type { Body, Entry } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useCoarseNow } from '../../stores/clock.ts';
import { dayIn } from '../parts/want.ts';

const props = defineProps<{ live: readonly Entry[] }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t, d } = useI18n();
const now = useCoarseNow();
const trial = computed(() => {
  const body = props.live.findLast((entry) => entry.body.kind === 'trial.started' || entry.body.kind === 'trial.ended')?.body;
  return body?.kind === 'trial.started' ? body : undefined;
});
const over = computed(() => trial.value !== undefined && trial.value.until < dayIn(0, new Date(now.value)));
</script>

<template>
  <p v-if="trial" class="trial" :class="{ over }" data-test="trial">
    <strong>{{ t(over ? 'trial.over' : 'trial.runs', { day: d(new Date(`${trial.until}T12:00:00`), 'weekday') }) }}</strong>
    <span class="soft">{{ trial.why }}</span>
    <button type="button" class="plain" data-test="trial-held" @click="emit('write', [{ kind: 'trial.ended', v: 1, result: 'held' }])">
      {{ t('trial.held') }}
    </button>
    <button type="button" class="plain" data-test="trial-failed" @click="emit('write', [{ kind: 'trial.ended', v: 1, result: 'failed' }])">
      {{ t('trial.failed') }}
    </button>
  </p>
</template>

<style scoped>
.trial {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  padding: 0 10px;
  border-left: 6px solid var(--accent);
}
.trial.over {
  border-left-color: var(--alarm);
}
</style>
