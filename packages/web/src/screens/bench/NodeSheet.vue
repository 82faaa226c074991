<script setup lang="ts">
/** One node of the plan: what is said of it, the steps that are about it, and its plug. */
import type { BodyOf, CaseFold, CompiledPack, NextStep } from '@veglia/core';
import { stageOfPlace } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent, useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import VerdictMark from '../../parts/VerdictMark.vue';
import StepLine from './StepLine.vue';
import LiftedParts from './LiftedParts.vue';
import { cap, type Pressed } from './keymap.ts';

const props = defineProps<{
  id: string;
  fold: CaseFold;
  compiled: CompiledPack;
  steps: readonly NextStep[];
  entryWords: (id: string) => string;
}>();
const emit = defineEmits<{ take: [step: NextStep]; change: [change: Partial<BodyOf<'set.changed'>>]; close: [] }>();
const { t } = useI18n();
const names = useNames(
  () => props.compiled,
  () => props.fold.set.layout,
);
const view = computed(() => props.fold.assemblies.find((one) => one.id === props.id));
const because = computed(() => view.value?.because[0]);
/** A step is about a node when it is its object, goes to it, repairs it, or one of its answers would rule it out or bring it to the top. */
const about = computed(() =>
  props.steps
    .map((step) => ({ step, how: nearness(step) }))
    .filter(({ how }) => how > 0)
    .sort((a, b) => b.how - a.how)
    .slice(0, 6)
    .map(({ step }) => step),
);
function nearness(step: NextStep): number {
  if (step.of === props.id) return 4;
  const layout = props.fold.set.layout;
  const test = step.kind === 'test' ? props.compiled.tests.get(step.id) : undefined;
  if (test && layout !== undefined && props.compiled.fits(test, layout)) {
    const points = props.compiled.layouts.get(layout)?.points ?? {};
    const goes = props.compiled.procedure(test, layout, step.of).pulled.includes(props.id);
    const reads = test.do.some((one) => 'measure' in one && points[one.at]?.on === props.id);
    if (goes || reads) return 3;
  }
  if (step.would.some((one) => one.clears.includes(props.id))) return 2;
  return step.would.some((one) => one.top.id === props.id && one.top.probability > (view.value?.probability ?? 0)) ? 1 : 0;
}
const inside = computed(() => props.fold.set.layout !== undefined && stageOfPlace(props.id, props.fold.set.layout, props.compiled) > 0);
const isOut = computed(() => props.fold.set.out.includes(props.id));
function press({ command, nth }: Pressed): boolean {
  const step = command === 'answer' ? about.value[nth] : undefined;
  if (command === 'back') emit('close');
  else if (command === 'connector' && inside.value) plug();
  else if (step) emit('take', step);
  else return false;
  return true;
}
const plug = (): void => emit('change', isOut.value ? { restored: [props.id] } : { pulled: [props.id] });
defineExpose({ press });
</script>

<template>
  <section class="node" data-test="node" :data-node="id" :aria-label="names.assembly(id)">
    <div class="line">
      <strong class="line">
        <VerdictMark v-if="view" :verdict="view.verdict" :probability="view.probability" />{{ names.assembly(id) }}
        <span v-if="view" class="soft">{{ t(`core.verdict.${view.verdict}`) }}, {{ percent(view.probability) }}</span>
      </strong>
      <button type="button" class="plain" @click="$emit('close')"><KeyCap :label="cap('back')" /> {{ t('bench.node.close') }}</button>
    </div>
    <p v-if="because" class="soft">{{ t('bench.because') }} {{ entryWords(because.entry) }}</p>
    <p v-if="about.length === 0" class="soft">{{ t('bench.node.none') }}</p>
    <ul>
      <li v-for="(step, index) in about" :key="`${step.kind}${step.id}${step.of ?? ''}`">
        <StepLine :step="step" :names="names" :key-label="cap('answer', index)" @take="$emit('take', step)" />
      </li>
    </ul>
    <button v-if="inside && fold.set.stage > 0" type="button" class="push" data-test="node-plug" @click="plug">
      <KeyCap :label="cap('connector')" />{{ isOut ? t('bench.node.restore') : t('bench.node.pull') }}
    </button>
    <LiftedParts
      v-if="inside && fold.set.stage > 0 && view"
      :assembly="id"
      :lifted="fold.set.lifted"
      :compiled="compiled"
      @change="(one) => $emit('change', one)"
    />
  </section>
</template>

<style scoped>
.node {
  display: grid;
  align-content: start;
  gap: 6px;
  max-height: 48%;
  padding: 8px 12px;
  border: 2px solid var(--accent);
  border-radius: var(--radius);
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}
.push {
  justify-self: start;
}
</style>
