<script setup lang="ts">
/** A layout in little, as seen from the back: boards and the wires between them, without words. */
import type { Layout } from '@veglia/core';
import { computed } from 'vue';

const props = defineProps<{ layout: Layout }>();
const places = computed(() => Object.entries(props.layout.plan.places));
const wires = computed(() =>
  Object.entries(props.layout.plan.wires).map(([id, points]) => [id, points.map(([x, y]) => `${x},${y}`).join(' ')] as const),
);
</script>

<template>
  <svg :viewBox="`0 0 ${layout.plan.width} ${layout.plan.height}`" aria-hidden="true">
    <polyline v-for="[id, points] in wires" :key="id" :points="points" />
    <rect v-for="[id, at] in places" :key="id" :x="at.x" :y="at.y" :width="at.width" :height="at.height" rx="4" />
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: auto;
  max-height: 84px;
}
rect {
  fill: var(--paper, transparent);
  stroke: var(--ink);
  stroke-width: 3;
}
polyline {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 3;
}
</style>
