<script setup lang="ts">
/** Beside the practice job: first a look round the Bench, then what the made-up set shows at each step and which key answers it. */
import type { CaseFold, CompiledPack, Entry, NextStep } from '@veglia/core';
import { computed, onMounted, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import { lookedRound, practiceJob } from '../../stores/practice.ts';
import { useMeter } from '../../stores/meter.ts';
import { textOf } from '../../stores/packs.ts';
import { cap } from '../bench/keymap.ts';
import { probesAt, shownBy } from './set.ts';

/** What the step on the screen waits for. */
export type Asks = 'cautions' | 'consent' | 'move' | 'charge' | 'answer';

const props = defineProps<{
  step: NextStep | undefined;
  asks: Asks;
  fold: CaseFold;
  compiled: CompiledPack;
  entries: readonly Entry[];
}>();
const { t } = useI18n();
const names = useNames(
  () => props.compiled,
  () => props.fold.set.layout,
);

/** Volts that a meter reads on a practice set that was discharged. */
const chargeLeft = 0.4;
interface Line {
  readonly text: string;
  /** Cap of the key to press; none: there is something to type or to choose. */
  readonly key?: string;
}
const line = computed((): Line | undefined => {
  const { step, asks } = props;
  if (props.fold.closed) return { text: t('practice.closed') };
  if (!step) return undefined;
  if (step.kind === 'stop') return { text: t(step.id === 'prove-and-close' ? 'practice.works' : 'practice.stops') };
  if (asks === 'cautions') return { text: t('practice.cautions'), key: cap('cautions') };
  if (asks === 'consent') return { text: t('practice.consent') };
  if (asks === 'move') return { text: t('practice.move'), key: cap('confirm') };
  if (asks === 'charge') return { text: t('practice.charge', { volts: chargeLeft }), key: '↵' };
  const shown = shownBy(step, props.compiled, props.entries);
  if (shown.kind === 'outcome' && step.kind === 'test')
    return { text: t('practice.shows', { what: names.outcome(step.id, shown.outcome) }), key: cap('answer', shown.nth) };
  if (shown.kind === 'repair') return { text: t(`practice.repair.${shown.result}`), key: cap('answer', shown.nth) };
  if (shown.kind === 'code') return { text: t('practice.code', { code: shown.groups.join('-') }) };
  if (shown.kind === 'layout') {
    const layout = props.compiled.layouts.get(shown.layout);
    return { text: t('practice.layout', { name: layout ? textOf(layout.name) : shown.layout }) };
  }
  return { text: t('practice.stops') };
});

/** The simulated meter's probes are where the cursor is: its reading is the made-up set's. */
const meter = useMeter();
watch(
  () => (props.step && props.asks === 'answer' ? `${props.step.id} ${meter.target?.at ?? ''}` : ''),
  async () => {
    const at = meter.target?.at;
    if (!props.step || props.asks !== 'answer' || at === undefined) return;
    const probes = probesAt(props.step, at, props.compiled, props.entries);
    if (!probes) return;
    try {
      await api.touchProbes(probes);
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
    }
  },
);

const touring = ref(false);
const stops = [
  ['state', '[data-test="set-state"]'],
  ['next', '[data-test="next"]'],
  ['suspects', '.suspectsheet'],
  ['ledger', '.ledgersheet'],
  ['coach', '[data-test="practice-coach"]'],
] as const;
onMounted(() => (touring.value = lookedRound.value === 'no'));
function toured(): void {
  touring.value = false;
  lookedRound.value = 'yes';
}
/** While somebody looks round, no key reaches the Bench. */
defineExpose({ press: (): boolean => touring.value });
</script>

<template>
  <section class="coach" role="status" data-test="practice-coach">
    <strong>{{ t('practice.label') }}</strong>
    <p v-if="line">{{ line.text }} <KeyCap v-if="line.key" :label="line.key" data-test="practice-key" /></p>
    <button type="button" class="plain" data-test="practice-end" @click="practiceJob = ''">{{ t('practice.end') }}</button>
  </section>
  <el-tour v-model="touring" @close="toured" @finish="toured">
    <el-tour-step
      v-for="[stop, target] in stops"
      :key="stop"
      :target="target"
      :title="t(`practice.round.${stop}.title`)"
      :description="t(`practice.round.${stop}.text`)"
      :next-button-props="{ size: 'large', children: stop === 'coach' ? t('practice.begin') : t('practice.next') }"
      :prev-button-props="{ size: 'large', children: t('practice.back') }"
    />
  </el-tour>
</template>

<style scoped>
.coach {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 14px;
  margin-bottom: 6px;
  padding: 2px 12px;
  border: 1.5px dashed var(--accent);
  border-radius: var(--radius);
  background: var(--accent-wash);
}
.coach p {
  flex: 1 1 300px;
}
.coach .plain {
  min-height: 40px;
}
</style>
