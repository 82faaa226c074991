<script setup lang="ts">
/** The layout seen from the back: boxes fill like tanks with their odds, cables thicken with theirs. Exports as it is. */
import type { AssemblyView, CompiledPack, Layout } from '@veglia/core';
import { curveBasis, line } from 'd3-shape';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent, useNames } from '../names.ts';

const props = defineProps<{ layout: Layout; assemblies: readonly AssemblyView[]; compiled: CompiledPack; out: readonly string[] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const byId = computed(() => new Map(props.assemblies.map((one) => [one.id, one])));
const draw = line().curve(curveBasis);

interface Box {
  id: string;
  x: number;
  y: number;
  width: number;
  height: number;
  odds: number;
  verdict: string;
  large: boolean;
}
const boxes = computed<Box[]>(() =>
  Object.entries(props.layout.plan.places)
    .map(([id, place]) => ({
      id,
      ...place,
      odds: byId.value.get(id)?.odds ?? 0,
      verdict: byId.value.get(id)?.verdict ?? 'suspect',
      large: place.width * place.height > props.layout.plan.width * props.layout.plan.height * 0.4,
    }))
    .sort((a, b) => b.width * b.height - a.width * a.height),
);
const large = computed(() => boxes.value.filter((box) => box.large));
const small = computed(() => boxes.value.filter((box) => !box.large));
const wires = computed(() =>
  Object.entries(props.layout.plan.wires).map(([id, points]) => {
    const middle = points[Math.floor(points.length / 2)] ?? [0, 0];
    return {
      id,
      path: draw(points.map(([x, y]): [number, number] => [x, y])) ?? '',
      x: middle[0],
      y: middle[1],
      odds: byId.value.get(id)?.odds ?? 0,
      verdict: byId.value.get(id)?.verdict ?? 'suspect',
      out: props.out.includes(id),
    };
  }),
);
/** Width of a letter at the plan's size, about; a name wider than its box is drawn narrower, never over its neighbour. */
const letterWidth = 8.2;
const fitted = ({ id, width }: Box): { textLength?: number; lengthAdjust?: string } =>
  names.assembly(id).length * letterWidth > width - 16 ? { textLength: width - 16, lengthAdjust: 'spacingAndGlyphs' } : {};
const label = (id: string, verdict: string, odds: number): string =>
  `${names.assembly(id)}: ${t(`core.verdict.${verdict}`)}, ${percent(odds)}`;
</script>

<template>
  <svg class="plan" :viewBox="`0 0 ${layout.plan.width} ${layout.plan.height}`" role="img" :aria-label="t('bench.plan')">
    <defs>
      <pattern id="plan-tide" width="12" height="7" patternUnits="userSpaceOnUse">
        <rect width="12" height="7" class="wash" />
        <path d="M0 4q3-3 6 0t6 0" class="wave" />
      </pattern>
      <pattern id="plan-split" width="16" height="16" patternUnits="userSpaceOnUse" patternTransform="rotate(30)">
        <rect width="16" height="16" class="wash" />
        <rect width="8" height="16" class="strong" />
      </pattern>
    </defs>
    <g v-for="box in large" :key="box.id" :class="['box', 'large', box.verdict]" :data-node="box.id" :data-verdict="box.verdict">
      <title>{{ label(box.id, box.verdict, box.odds) }}</title>
      <rect :x="box.x" :y="box.y" :width="box.width" :height="box.height" rx="4" class="body" />
      <rect
        v-if="box.verdict !== 'cleared'"
        class="tide"
        :x="box.x"
        :y="box.y + box.height * (1 - box.odds)"
        width="10"
        :height="box.height * box.odds"
      />
      <text :x="box.x + 16" :y="box.y + 22">{{ names.assembly(box.id) }}</text>
      <text :x="box.x + 70" :y="box.y + 22" class="odds">{{ box.verdict === 'cleared' ? '–' : percent(box.odds) }}</text>
    </g>
    <g v-for="wire in wires" :key="wire.id" :class="['wire', wire.verdict]" :data-node="wire.id" :data-verdict="wire.verdict">
      <title>{{ label(wire.id, wire.verdict, wire.odds) }}</title>
      <path :d="wire.path" :stroke-width="2 + 8 * wire.odds" :stroke-dasharray="wire.out ? '14 10' : undefined" />
    </g>
    <g v-for="box in small" :key="box.id" :class="['box', box.verdict]" :data-node="box.id" :data-verdict="box.verdict">
      <title>{{ label(box.id, box.verdict, box.odds) }}</title>
      <rect :x="box.x" :y="box.y" :width="box.width" :height="box.height" rx="4" class="body" />
      <rect
        v-if="box.verdict !== 'cleared'"
        class="tide"
        :x="box.x"
        :y="box.y + box.height * (1 - box.odds)"
        :width="box.width"
        :height="box.height * box.odds"
      />
      <rect
        v-if="box.verdict === 'proven'"
        :x="box.x + 4"
        :y="box.y + 4"
        :width="box.width - 8"
        :height="box.height - 8"
        rx="2"
        class="double"
      />
      <text :x="box.x + 10" :y="box.y + 19" v-bind="fitted(box)">{{ names.assembly(box.id) }}</text>
      <text :x="box.x + 10" :y="box.y + 37" class="odds">{{ box.verdict === 'cleared' ? '–' : percent(box.odds) }}</text>
    </g>
    <g v-for="wire in wires" :key="`${wire.id}-label`" class="wirelabel">
      <text v-if="wire.verdict !== 'cleared' && wire.odds >= 0.03" :x="wire.x" :y="wire.y - 6" text-anchor="middle">
        {{ percent(wire.odds) }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.plan {
  display: block;
  width: 100%;
  height: auto;
}
.wash {
  fill: var(--accent-wash);
}
.wave {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.6;
}
.strong {
  fill: var(--accent);
  opacity: 0.75;
}
.body {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.large .body {
  fill: var(--sunk);
}
.tide {
  fill: url(#plan-tide);
}
.likely-not-split .tide {
  fill: url(#plan-split);
}
.proven .tide {
  fill: var(--accent);
}
.proven .body {
  stroke-width: 3;
}
.double {
  fill: none;
  stroke: var(--accent-ink);
  stroke-width: 2;
}
.cleared .body {
  stroke: var(--ink-soft);
  stroke-width: 1.2;
  stroke-dasharray: 4 4;
}
text {
  font-size: 15px;
  font-weight: 600;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--surface);
  stroke-width: 3px;
  stroke-linejoin: round;
}
.large text {
  stroke: var(--sunk);
}
.cleared text {
  fill: var(--ink-soft);
  font-weight: 400;
}
.proven:not(.large) text {
  fill: var(--accent-ink);
  stroke: var(--accent);
}
.wire path {
  fill: none;
  stroke: var(--ink);
  stroke-linecap: round;
}
.wire.cleared path {
  stroke: var(--line);
}
.wire.proven path {
  stroke: var(--accent);
}
.wirelabel text {
  font-size: 14px;
}
</style>
