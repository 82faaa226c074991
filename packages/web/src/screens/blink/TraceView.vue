<script setup lang="ts">
/** A recording as a line, the flashes found under it; a lamp replays it. */
import type { BlinkResult, LightTrace } from '@veglia/core';
import { computed, onUnmounted, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import ChartFrame from '../../charts/ChartFrame.vue';
import { codesOption, lightOption, type CodeProbability } from '../../charts/light.ts';
import { percent } from '../../names.ts';

const props = defineProps<{ trace?: LightTrace | undefined; result?: BlinkResult | undefined; clicks: readonly number[] }>();
const { t } = useI18n();
const pulses = computed(() => props.result?.pulses ?? []);
const beginS = computed(() => props.trace?.timesS[0] ?? Math.min(0, pulses.value[0]?.onS ?? 0));
const endS = computed(() => Math.max(props.trace?.timesS.at(-1) ?? (pulses.value.at(-1)?.offS ?? 0) + 1, beginS.value + 1));
/** The code that was read and what else it may be, likeliest first; one alone needs no chart. */
const codes = computed<CodeProbability[]>(() => {
  const { reading, alternatives } = props.result ?? {};
  if (!reading) return [];
  return [reading, ...(alternatives ?? [])]
    .map(({ groups, probability }) => ({ code: groups.join('-'), probability }))
    .filter(({ probability }) => probability >= 0.005);
});

const at = ref<number>();
const lit = computed(
  () =>
    at.value !== undefined && pulses.value.some(({ onS, offS }) => (at.value ?? 0) >= onS && (at.value ?? 0) < Math.max(offS, onS + 0.15)),
);
let frame = 0;
function replay(): void {
  cancelAnimationFrame(frame);
  const began = performance.now();
  const step = (now: number): void => {
    at.value = beginS.value + (now - began) / 1000;
    if (at.value < endS.value) frame = requestAnimationFrame(step);
    else at.value = undefined;
  };
  frame = requestAnimationFrame(step);
}
watch(
  () => props.trace,
  () => {
    cancelAnimationFrame(frame);
    at.value = undefined;
  },
);
onUnmounted(() => cancelAnimationFrame(frame));
</script>

<template>
  <figure v-if="trace || pulses.length > 0" data-test="trace">
    <ChartFrame
      :title="t('chart.light.title')"
      file="blink-recording"
      :head="[t('chart.light.from'), t('chart.light.to')]"
      :rows="pulses.map(({ onS, offS }) => [onS.toFixed(2), offS.toFixed(2)])"
      :option="
        (colours) =>
          lightOption(colours, trace, pulses, clicks, {
            title: t('blink.traceLabel', { n: pulses.length }),
            time: t('chart.light.time'),
            level: t('chart.light.level'),
          })
      "
    />
    <figcaption>
      <span class="lamp" :class="{ lit }" aria-hidden="true" />
      <button type="button" class="plain" @click="replay">{{ t('blink.replay') }}</button>
      <span class="soft">{{ t('blink.traceHelp') }}</span>
    </figcaption>
    <ChartFrame
      v-if="codes.length > 1"
      class="codes"
      :title="t('chart.light.counts')"
      file="blink-codes"
      :head="[t('chart.light.code'), t('chart.probability')]"
      :rows="codes.map(({ code, probability }) => [code, percent(probability)])"
      :option="
        (colours) =>
          codesOption(colours, codes, {
            title: t('chart.light.counts'),
            code: t('chart.light.code'),
            probability: t('chart.probability'),
          })
      "
    />
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
.codes {
  --chart-height: 200px;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  font-size: 14px;
}
.lamp {
  width: 20px;
  height: 20px;
  border-radius: 50%;
  border: 2px solid var(--ink-soft);
}
.lamp.lit {
  background: var(--accent);
  border-color: var(--accent);
}
</style>
