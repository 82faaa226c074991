<script setup lang="ts">
/** An instrument in a job: its result goes into the ledger, and with it the answer that it amounts to, once the set is safe for that step. */
import { findingSentence, instrumentWords, type ShopSettings } from '@veglia/contract';
import {
  boardsFound,
  chargePoints,
  instrumentAnswers,
  instrumentChange,
  instruments,
  liveEntries,
  mayWorkOn,
  parseQuantity,
  ribbonsOf,
  safeVolts,
  type Body,
  type BodyOf,
  type CaseFold,
  type CompiledPack,
  type Entry,
  type InstrumentAnswer,
  type NextStep,
  type Report,
} from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute } from 'vue-router';
import { useNames } from '../../names.ts';
import { practiceJob } from '../../stores/practice.ts';
import { useTypedInstruments } from '../../stores/typedInstruments.ts';
import InstrumentSheet from '../instruments/InstrumentSheet.vue';
import WarmthSheet from '../instruments/WarmthSheet.vue';
import { useStepGate } from './stepGate.ts';

const props = defineProps<{
  fold: CaseFold;
  compiled: CompiledPack;
  entries: readonly Entry[];
  family: string | undefined;
  shop: ShopSettings;
  steps: readonly NextStep[];
  /** The step that is selected: a short on one rail is no answer about another, so that step is chosen first. */
  current: string | undefined;
}>();
const emit = defineEmits<{
  write: [bodies: Body[]];
  change: [change: Partial<BodyOf<'set.changed'>>];
  take: [step: NextStep];
  done: [];
  charge: [volts: Record<string, number>];
}>();
const which = defineModel<string>({ required: true });
const { t } = useI18n();
const route = useRoute();
const gate = useStepGate(props);
const names = useNames(
  () => props.compiled,
  () => props.fold.set.layout,
);
const words = computed(() => instrumentWords.en.instrument);
const chosen = computed(() => instruments.find(({ id }) => id === which.value) ?? instruments[0]);
const store = useTypedInstruments();
/** Goes on from what this job's ledger has of it: a search takes one reading after the other. */
const typed = computed(() =>
  store.of(String(route.params.id), chosen.value?.id ?? '', () => {
    const lastOf = (id: string): BodyOf<'instrument.used'> | undefined => {
      const body = liveEntries(props.entries).findLast((one) => one.body.kind === 'instrument.used' && one.body.instrument === id)?.body;
      return body?.kind === 'instrument.used' ? body : undefined;
    };
    const from = chosen.value?.startsFrom;
    const before = from && lastOf(from.instrument)?.read;
    const taken = Object.entries(from?.fields ?? {}).flatMap(([own, other]) =>
      before?.[other] === undefined ? [] : [[own, before[other]]],
    );
    const ribbons = ribbonsOf(props.compiled.layouts.get(props.fold.set.layout ?? ''), props.compiled.families.get(props.family ?? ''));
    if (chosen.value?.id === 'halves' && ribbons) taken.push(['ribbons', ribbons]);
    return lastOf(chosen.value?.id ?? '')?.read ?? (Object.fromEntries(taken) as Record<string, string>);
  }),
);

/** Boards of this set that the shop has documents of. */
const own = computed(() => boardsFound(props.entries).flatMap(({ board }) => board ?? []));

/** The first answer that belongs to a test of this layout. */
function answerOf(report: Report): InstrumentAnswer | undefined {
  const { layout } = props.fold.set;
  const answers = instrumentAnswers(chosen.value?.id ?? '', report, props.compiled.tests.values());
  return answers.find(({ test }) => {
    const definition = props.compiled.tests.get(test);
    return definition !== undefined && layout !== undefined && props.compiled.fits(definition, layout);
  });
}
/** What has to come before the answer; undefined: it may be recorded. */
function missingFor(test: string): 'notChosen' | 'notSafe' | 'notRead' | undefined {
  if (test !== props.current) return 'notChosen';
  if (gate.progress(test)?.next !== undefined) return 'notSafe';
  return gate.cautionsLeft(test) ? 'notRead' : undefined;
}
function used(report: Report, read: Readonly<Record<string, string>>): BodyOf<'instrument.used'> {
  return {
    kind: 'instrument.used',
    v: 1,
    instrument: chosen.value?.id ?? '',
    read: { ...read },
    figures: report.figures.map(({ id, value, unit }) => ({ id, value, unit })),
    findings: report.findings.map(({ code, values }) => ({ code, values: { ...values } })),
  };
}
function record(report: Report, read: Readonly<Record<string, string>>, answer?: InstrumentAnswer): void {
  const about = chosen.value?.asksDown && board.value !== undefined ? { at: board.value } : {};
  const bodies: Body[] = [{ ...used(report, read), ...about }];
  if (answer) {
    const { test, outcome } = answer;
    const raw = report.findings
      .map((one) => findingSentence(one))
      .join(' ')
      .slice(0, 2000);
    bodies.push({
      kind: 'test.answered',
      v: 2,
      test,
      outcome,
      sure: 'sure',
      raw,
      ...(gate.walked(test) ? { walked: true as const } : {}),
      words: { test: names.test(test), outcome: names.outcome(test, outcome) },
    });
  }
  const change = instrumentChange(report, read, props.fold.set.lifted, board.value);
  if (change) emit('change', change);
  emit('write', bodies);
  emit('done');
}
/** Of the part that is worked on: as chosen, or where the missing one belongs. */
const board = computed(() => where.value || props.fold.set.lifted.find(({ name }) => name === typed.value.chip)?.on);
/** Work on the set itself waits for it to be safe for that board. */
const mayWork = computed(
  () => chosen.value?.asksDown !== true || mayWorkOn(board.value, props.fold.set, props.fold.set.layout, props.compiled),
);

const points = computed(() => chargePoints(props.fold.set.layout, props.compiled));
const point = ref('');
const where = ref('');
/** Which board the pictures are of is what they say: nothing of it is an answer by itself. */
function recordWarmth(report: Report, read: Readonly<Record<string, string>>): void {
  emit('write', [{ ...used(report, read), instrument: 'thermal', ...(where.value === '' ? {} : { at: where.value }) }]);
  emit('done');
}

/** A charge that was read below the limit; the set counts as measured once it is read at every place that holds one. */
function readBelow(report: Report): number | undefined {
  const last = parseQuantity(typed.value.secondVolts ?? '', 'V');
  const safe = chosen.value?.id === 'discharge' && report.findings.some(({ code }) => code === 'already-safe');
  return safe && last !== undefined && Math.abs(last) < safeVolts && !props.fold.set.plugged ? last : undefined;
}
function recordCharge(report: Report, read: Readonly<Record<string, string>>): void {
  const at = point.value || points.value[0];
  const volts = readBelow(report);
  if (at === undefined || volts === undefined) return;
  emit('write', [{ ...used(report, read), at }]);
  emit('charge', { [at]: volts });
  emit('done');
}
/** The practice job's set is read on the instrument; the set itself is loaded only then. */
const practising = computed(() => practiceJob.value !== '' && practiceJob.value === route.params.id);
async function readPractice(): Promise<void> {
  const { fieldsShown } = await import('../practice/set.ts');
  Object.assign(typed.value, fieldsShown(chosen.value?.id ?? '', { ...typed.value }, props.compiled, props.entries));
}
async function practicePictures(): Promise<{ before: string; after: string }> {
  const { fieldsShown } = await import('../practice/set.ts');
  const { before = '', after = '' } = fieldsShown('thermal', {}, props.compiled, props.entries);
  return { before, after };
}
/** A key typed here is no answer to the step behind it. */
function keepKeys(event: KeyboardEvent): void {
  if (event.key !== 'Escape') event.stopPropagation();
}
</script>

<template>
  <section v-if="chosen" class="sheet" data-test="in-job" @keydown="keepKeys">
    <label class="which">
      <span class="soft">{{ t('bench.instruments.title') }}</span>
      <select v-model="which" data-test="which-instrument">
        <option v-for="one in instruments" :key="one.id" :value="one.id">{{ words[one.id]?.name ?? one.id }}</option>
        <option value="thermal">{{ words.thermal?.name }}</option>
      </select>
    </label>
    <WarmthSheet
      v-if="which === 'thermal'"
      v-bind="{ ...(own.length > 0 ? { boards: own } : {}), ...(practising ? { madeUp: practicePictures } : {}) }"
    >
      <template #done="{ report, read }">
        <p class="row">
          <select v-model="where" :aria-label="t('instruments.about')" data-test="about">
            <option value="">{{ t('instruments.about') }}</option>
            <option v-for="one in fold.assemblies" :key="one.id" :value="one.id">{{ names.assembly(one.id) }}</option>
          </select>
          <button type="button" class="push full" data-test="keep" @click="recordWarmth(report, read)">{{ t('instruments.keep') }}</button>
        </p>
      </template>
    </WarmthSheet>
    <InstrumentSheet v-else :key="chosen.id" :instrument="chosen" :typed="typed" v-bind="own.length > 0 ? { boards: own } : {}">
      <template #done="{ report, read }">
        <p v-if="practising && chosen.measures">
          <button type="button" class="push" data-test="practice-read" @click="readPractice">{{ t('practice.readOn') }}</button>
        </p>
        <template v-if="report.needs.length === 0">
          <template v-for="answer in [answerOf(report)]" :key="answer?.test">
            <p v-if="answer" data-test="answers-step">
              {{ t('instruments.answers', { test: names.test(answer.test), outcome: names.outcome(answer.test, answer.outcome) }) }}
              <span v-if="missingFor(answer.test)" class="alarm">{{ t(`instruments.${missingFor(answer.test)}`) }}</span>
            </p>
            <p class="row">
              <template v-if="answer && missingFor(answer.test)">
                <button
                  v-if="gate.stepOf(answer.test)"
                  type="button"
                  class="push full"
                  data-test="take-step"
                  @click="$emit('take', gate.stepOf(answer.test)!)"
                >
                  {{ t('instruments.take') }}
                </button>
              </template>
              <button v-else-if="answer" type="button" class="push full" data-test="record-answer" @click="record(report, read, answer)">
                {{ t('instruments.recordAnswer') }}
              </button>
              <template v-if="readBelow(report) !== undefined">
                <select v-if="points.length > 1" v-model="point" :aria-label="t('instruments.where')" data-test="charge-point">
                  <option v-for="one in points" :key="one" :value="one === points[0] ? '' : one">{{ names.place(one) }}</option>
                </select>
                <button type="button" class="push full" data-test="record-charge" @click="recordCharge(report, read)">
                  {{ t('instruments.recordCharge') }}
                </button>
              </template>
              <select
                v-if="chosen.asksDown"
                :value="board ?? ''"
                :aria-label="t('instruments.about')"
                data-test="about"
                @change="where = ($event.target as HTMLSelectElement).value"
              >
                <option value="">{{ t('instruments.about') }}</option>
                <option v-for="one in fold.assemblies" :key="one.id" :value="one.id">{{ names.assembly(one.id) }}</option>
              </select>
              <span v-if="!mayWork" class="alarm" data-test="not-down">{{ t('instruments.notDown') }}</span>
              <button v-else type="button" class="push" :class="{ full: !answer }" data-test="keep" @click="record(report, read)">
                {{ t(answer ? 'instruments.keepOnly' : 'instruments.keep') }}
              </button>
            </p>
          </template>
        </template>
      </template>
    </InstrumentSheet>
  </section>
</template>

<style scoped>
.which {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-bottom: 8px;
}
select {
  min-height: 42px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
}
</style>
