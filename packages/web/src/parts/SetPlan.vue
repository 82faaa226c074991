<script setup lang="ts">
/** The layout seen from the back: boxes fill like tanks with their probabilities, cables thicken with theirs. Exports as it is. */
import type { AssemblyView, CompiledPack, Layout } from '@veglia/core';
import { curveBasis, line } from 'd3-shape';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent, useNames } from '../names.ts';

const props = defineProps<{
  layout: Layout;
  assemblies: readonly AssemblyView[];
  compiled: CompiledPack;
  out: readonly string[];
  /** Points taped over, and bridged, by id. */
  taped?: readonly string[];
  bridged?: readonly (readonly [string, string])[];
  /** The node that is looked at. */
  chosen?: string;
}>();
const emit = defineEmits<{ pick: [id: string] }>();
const { t } = useI18n();
const names = useNames(
  () => props.compiled,
  () => props.layout.id,
);
const byId = computed(() => new Map(props.assemblies.map((one) => [one.id, one])));
const draw = line().curve(curveBasis);

interface Box {
  id: string;
  x: number;
  y: number;
  width: number;
  height: number;
  probability: number;
  verdict: string;
  large: boolean;
}
const boxes = computed<Box[]>(() =>
  Object.entries(props.layout.plan.places)
    .map(([id, place]) => ({
      id,
      ...place,
      probability: byId.value.get(id)?.probability ?? 0,
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
      probability: byId.value.get(id)?.probability ?? 0,
      verdict: byId.value.get(id)?.verdict ?? 'suspect',
      out: props.out.includes(id),
    };
  }),
);
/** Width of a letter at the plan's size, about; a name wider than its box is drawn narrower, never over its neighbour. */
const letterWidth = 8.2;
const tooWide = (text: string, width: number): boolean => text.length * letterWidth > width - 16;
const fitted = (text: string, width: number): { textLength?: number; lengthAdjust?: string } =>
  tooWide(text, width) ? { textLength: width - 16, lengthAdjust: 'spacingAndGlyphs' } : {};
/** A name in one line, or in two where it is wider than its box and the box is high enough: broken at the space nearest to its middle. */
function linesOf({ id, width, height }: Box): string[] {
  const name = names.assembly(id);
  if (!tooWide(name, width) || height < 52) return [name];
  const spaces = [...name.matchAll(/ /g)].map(({ index }) => index);
  const middle = spaces.sort((a, b) => Math.abs(a - name.length / 2) - Math.abs(b - name.length / 2))[0];
  return middle === undefined ? [name] : [name.slice(0, middle), name.slice(middle + 1)];
}
const label = (id: string, verdict: string, probability: number): string =>
  `${names.assembly(id)}: ${t(`core.verdict.${verdict}`)}, ${percent(probability)}${props.out.includes(id) ? `, ${t('bench.planOut')}` : ''}`;

/** Middle of a node, box or wire. */
function middle(id: string): { x: number; y: number } {
  const box = boxes.value.find((one) => one.id === id);
  if (box) return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const wire = wires.value.find((one) => one.id === id);
  return { x: wire?.x ?? 0, y: wire?.y ?? 0 };
}
/** Tape and bridges sit on the node that has the point. */
const marks = computed(() => {
  const on = (point: string): string => props.layout.points[point]?.on ?? point;
  return [
    ...(props.taped ?? []).map((point) => ({ kind: 'tape', key: `tape ${point}`, name: names.place(point), at: middle(on(point)) })),
    ...(props.bridged ?? []).map(([from, to]) => ({
      kind: 'bridge',
      key: `bridge ${from} ${to}`,
      name: `${names.place(from)} – ${names.place(to)}`,
      at: middle(on(from)),
    })),
  ];
});
const nodes = computed(() => [...boxes.value.map(({ id }) => id), ...wires.value.map(({ id }) => id)]);
const svg = ref<SVGSVGElement>();
function focusNode(id: string): void {
  svg.value?.querySelector<SVGGElement>(`[data-node="${id}"]`)?.focus();
}
/** Arrow keys go to the nearest node that way. */
function onKey(event: KeyboardEvent, id: string): void {
  const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
  if (event.key === 'Enter' || event.key === ' ') emit('pick', id);
  else if (way) {
    const [dx = 0, dy = 0] = way;
    const here = middle(id);
    const there = nodes.value
      .filter((one) => one !== id)
      .map((one) => {
        const { x, y } = middle(one);
        const along = (x - here.x) * dx + (y - here.y) * dy;
        const aside = Math.abs((x - here.x) * dy) + Math.abs((y - here.y) * dx);
        return { one, along, far: along + 2 * aside };
      })
      .filter(({ along }) => along > 1)
      .sort((a, b) => a.far - b.far)[0];
    if (there) focusNode(there.one);
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
/** A file that shows the same anywhere: what the page's style gives it is written into it. */
function exported(): string {
  if (!svg.value) return '';
  const copy = svg.value.cloneNode(true) as SVGSVGElement;
  const from = [svg.value, ...svg.value.querySelectorAll('*')];
  const kept = [
    'fill',
    'stroke',
    'stroke-width',
    'stroke-dasharray',
    'opacity',
    'font-family',
    'font-size',
    'font-weight',
    'paint-order',
    'stroke-linejoin',
    'stroke-linecap',
    'text-anchor',
  ];
  [copy, ...copy.querySelectorAll('*')].forEach((element, index) => {
    const original = from[index];
    if (!original) return;
    const style = getComputedStyle(original);
    for (const name of kept) element.setAttribute(name, style.getPropertyValue(name));
    for (const name of [...element.attributes].map((one) => one.name))
      if (name === 'tabindex' || name === 'role' || name.startsWith('data-v-')) element.removeAttribute(name);
  });
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(props.layout.plan.width));
  copy.setAttribute('height', String(props.layout.plan.height));
  return new XMLSerializer().serializeToString(copy);
}
defineExpose({ exported, focus: () => focusNode(props.chosen ?? nodes.value[0] ?? '') });
/** What every node of the plan is to keys, readers of the screen and tests. */
const asNode = ({ id, verdict, probability }: { id: string; verdict: string; probability: number }) => ({
  'data-node': id,
  'data-verdict': verdict,
  tabindex: 0,
  role: 'button',
  'aria-pressed': props.chosen === id,
  'aria-label': label(id, verdict, probability),
});
</script>

<template>
  <svg ref="svg" class="plan" :viewBox="`0 0 ${layout.plan.width} ${layout.plan.height}`" role="group" :aria-label="t('bench.plan')">
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
    <g
      v-for="box in large"
      :key="box.id"
      :class="['box', 'large', box.verdict, { chosen: chosen === box.id }]"
      v-bind="asNode(box)"
      @click="$emit('pick', box.id)"
      @keydown="onKey($event, box.id)"
    >
      <title>{{ label(box.id, box.verdict, box.probability) }}</title>
      <rect :x="box.x" :y="box.y" :width="box.width" :height="box.height" rx="4" class="body" />
      <rect
        v-if="box.verdict !== 'cleared'"
        class="tide"
        :x="box.x"
        :y="box.y + box.height * (1 - box.probability)"
        width="10"
        :height="box.height * box.probability"
      />
      <text :x="box.x + 16" :y="box.y + 22">{{ names.assembly(box.id) }}</text>
      <text :x="box.x + 70" :y="box.y + 22" class="probability">{{ box.verdict === 'cleared' ? '–' : percent(box.probability) }}</text>
    </g>
    <g
      v-for="wire in wires"
      :key="wire.id"
      :class="['wire', wire.verdict, { chosen: chosen === wire.id, out: wire.out }]"
      v-bind="asNode(wire)"
      :data-out="wire.out"
      @click="$emit('pick', wire.id)"
      @keydown="onKey($event, wire.id)"
    >
      <title>{{ label(wire.id, wire.verdict, wire.probability) }}</title>
      <path :d="wire.path" class="reach" />
      <path :d="wire.path" class="line" :stroke-width="2 + 8 * wire.probability" :stroke-dasharray="wire.out ? '10 22' : undefined" />
      <g v-if="wire.out" class="plug" :transform="`translate(${wire.x} ${wire.y})`">
        <rect x="-9" y="-9" width="18" height="18" rx="2" />
        <path d="M-5 -5 5 5M5 -5-5 5" />
      </g>
    </g>
    <g
      v-for="box in small"
      :key="box.id"
      :class="['box', box.verdict, { chosen: chosen === box.id, out: out.includes(box.id) }]"
      v-bind="asNode(box)"
      :data-out="out.includes(box.id)"
      @click="$emit('pick', box.id)"
      @keydown="onKey($event, box.id)"
    >
      <title>{{ label(box.id, box.verdict, box.probability) }}</title>
      <rect :x="box.x" :y="box.y" :width="box.width" :height="box.height" rx="4" class="body" />
      <rect
        v-if="box.verdict !== 'cleared'"
        class="tide"
        :x="box.x"
        :y="box.y + box.height * (1 - box.probability)"
        :width="box.width"
        :height="box.height * box.probability"
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
      <text
        v-for="(words, index) in linesOf(box)"
        :key="words"
        :x="box.x + 10"
        :y="box.y + 19 + 15 * index"
        v-bind="fitted(words, box.width)"
      >
        {{ words }}
      </text>
      <text :x="box.x + 10" :y="box.y + 22 + 15 * linesOf(box).length" class="probability">
        {{ box.verdict === 'cleared' ? '–' : percent(box.probability) }}
      </text>
    </g>
    <g v-for="mark in marks" :key="mark.key" :class="['mark', mark.kind]" :data-mark="mark.key">
      <title>{{ mark.name }}</title>
      <path v-if="mark.kind === 'tape'" :d="`M${mark.at.x - 22} ${mark.at.y + 14}h44v12h-44z`" />
      <path v-else :d="`M${mark.at.x - 18} ${mark.at.y + 18}q18 -26 36 0`" />
    </g>
    <g v-for="wire in wires" :key="`${wire.id}-label`" class="wirelabel">
      <text v-if="!wire.out && wire.verdict !== 'cleared' && wire.probability >= 0.03" :x="wire.x" :y="wire.y - 6" text-anchor="middle">
        {{ percent(wire.probability) }}
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
g[role='button'] {
  cursor: pointer;
  outline: none;
}
.box:focus-visible .body,
.chosen .body {
  stroke: var(--accent);
  stroke-width: 4;
}
.out .body {
  stroke-dasharray: 12 6;
  stroke: var(--alarm);
  stroke-width: 3;
}
.wire .reach {
  fill: none;
  stroke: transparent;
  stroke-width: 26;
  pointer-events: stroke;
}
.wire:focus-visible .reach,
.wire.chosen .reach {
  stroke: var(--accent-wash);
  stroke-width: 14;
}
.plug rect {
  fill: var(--surface);
  stroke: var(--alarm);
  stroke-width: 2;
}
.plug path,
.wire .plug path {
  fill: none;
  stroke: var(--alarm);
  stroke-width: 2.5;
}
.mark path {
  fill: none;
  stroke: var(--alarm);
  stroke-width: 3;
}
.mark.tape path {
  fill: var(--alarm-wash);
  stroke-width: 1.6;
}
.wire .line {
  fill: none;
  stroke: var(--ink);
  stroke-linecap: round;
}
.wire.cleared .line {
  stroke: var(--line);
}
.wire.proven .line {
  stroke: var(--accent);
}
.wirelabel text {
  font-size: 14px;
}
</style>
