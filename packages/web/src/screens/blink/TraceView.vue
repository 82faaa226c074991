<script setup lang="ts">
/** A recording as a line, the flashes found under it; a lamp replays it. */
import type { BlinkResult, LightTrace } from '@veglia/core';
import { curveStepAfter, line } from 'd3-shape';
import { computed, onUnmounted, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';

const props = defineProps<{ trace?: LightTrace | undefined; result?: BlinkResult | undefined; clicks: readonly number[] }>();
const { t } = useI18n();
const width = 640;
const height = 110;
const pulses = computed(() => props.result?.pulses ?? []);
const beginS = computed(() => props.trace?.timesS[0] ?? Math.min(0, pulses.value[0]?.onS ?? 0));
const endS = computed(() => Math.max(props.trace?.timesS.at(-1) ?? (pulses.value.at(-1)?.offS ?? 0) + 1, beginS.value + 1));
const x = (seconds: number): number => ((seconds - beginS.value) / (endS.value - beginS.value)) * width;

const path = computed(() => {
  const trace = props.trace;
  if (!trace) return '';
  const low = trace.levels.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
  const high = trace.levels.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
  const y = (level: number): number => 74 - ((level - low) / Math.max(high - low, 1e-12)) * 66;
  // No finer than it can be seen.
  const every = Math.max(1, Math.floor(trace.levels.length / (2 * width)));
  const points = trace.timesS.map((s, i): [number, number] => [x(s), y(trace.levels[i] ?? low)]).filter((_, i) => i % every === 0);
  return line().curve(curveStepAfter)(points) ?? '';
});
const seconds = computed(() => {
  const step = endS.value - beginS.value > 25 ? 10 : endS.value - beginS.value > 8 ? 5 : 1;
  return Array.from({ length: Math.floor((endS.value - beginS.value) / step) + 1 }, (_, k) => k * step);
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
    <svg :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="t('blink.traceLabel', { n: pulses.length })">
      <path v-if="path" :d="path" class="level" />
      <rect
        v-for="(one, index) in pulses"
        :key="index"
        :x="x(one.onS)"
        y="78"
        :width="Math.max(2.5, x(one.offS) - x(one.onS))"
        height="12"
        rx="1.5"
        class="pulse"
      />
      <line v-for="click in clicks" :key="click" :x1="x(click)" :x2="x(click)" y1="2" y2="90" class="click" />
      <text v-for="s in seconds" :key="s" :x="Math.min(x(beginS + s) + 1, width - 22)" y="106">{{ s }} s</text>
      <line v-if="at !== undefined" :x1="x(at)" :x2="x(at)" y1="0" y2="92" class="cursor" />
    </svg>
    <figcaption>
      <span class="lamp" :class="{ lit }" aria-hidden="true" />
      <button type="button" class="plain" @click="replay">{{ t('blink.replay') }}</button>
      <span class="soft">{{ t('blink.traceHelp') }}</span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
  background: var(--sunk);
  border-radius: var(--radius);
}
.level {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}
.pulse {
  fill: var(--accent);
}
.click {
  stroke: var(--alarm);
  stroke-width: 1.5;
  stroke-dasharray: 4 3;
}
.cursor {
  stroke: var(--ink-soft);
}
text {
  font-size: 11px;
  fill: var(--ink-soft);
}
@media (max-width: 600px) {
  text {
    font-size: 19px;
  }
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
