<script setup lang="ts">
/** Points read one after the other as the set stands, plug by plug: what belongs there, what each reading is called, and what it answers. */
import type { ShopSettings } from '@veglia/contract';
import {
  behaviours,
  expectedAt,
  judgeRow,
  liveEntries,
  noWayThroughOhms,
  parseReading,
  progressOf,
  sheetBodies,
  sheetRows,
  sheetStates,
  standingAt,
  type Behaviour,
  type Body,
  type CaseFold,
  type CompiledPack,
  type Entry,
  type NextStep,
  type SheetRow,
  type SheetState,
  type SheetTaken,
} from '@veglia/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import UnitInput from '../../parts/UnitInput.vue';
import { useCoarseNow } from '../../stores/clock.ts';
import { newCautions, stageCautions } from './cautions.ts';
import { pressed } from './keymap.ts';

const props = defineProps<{
  fold: CaseFold;
  compiled: CompiledPack;
  entries: readonly Entry[];
  family: string | undefined;
  shop: ShopSettings;
  steps: readonly NextStep[];
}>();
const emit = defineEmits<{ write: [bodies: Body[]]; take: [step: NextStep] }>();
const { t } = useI18n();
const names = useNames(
  () => props.compiled,
  () => props.fold.set.layout,
);
const now = useCoarseNow();
const state = ref<SheetState>(props.fold.set.plugged ? 'standby' : 'unplugged');
/** As typed, by state and point: changing the state loses nothing. */
const typed = reactive<Record<string, string>>({});
const printed = reactive<Record<string, string>>({});
const behaves = reactive<Record<string, Behaviour>>({});
const known = computed(() => props.compiled.families.get(props.family ?? ''));
const live = computed(() => liveEntries(props.entries));
const key = (row: SheetRow): string => `${state.value} ${row.point}`;

const stepOf = (row: SheetRow): NextStep | undefined => props.steps.find(({ kind, id }) => kind === 'test' && id === row.test);
const progress = (row: SheetRow) =>
  props.fold.set.layout === undefined
    ? undefined
    : progressOf(
        { kind: 'test', id: row.test },
        live.value,
        props.compiled,
        props.fold.set.layout,
        now.value,
        props.shop.lapseMinutes,
        known.value,
      );
/** Cautions of the row's step that this job has not recorded as read; those of its stage where the step is no longer on offer. */
function cautionsLeft(row: SheetRow): boolean {
  const step = stepOf(row);
  if (step) return newCautions(step, props.fold, props.compiled).length > 0;
  const test = props.compiled.tests.get(row.test);
  if (!test || props.fold.set.layout === undefined) return false;
  const stage = props.compiled.stageIds[props.compiled.procedure(test, props.fold.set.layout).stage] ?? '';
  return stageCautions({ stage } as NextStep, props.compiled).some((id) => !props.fold.cautionsRead.includes(id));
}

const rows = computed(() => {
  const { layout } = props.fold.set;
  if (layout === undefined) return [];
  return sheetRows(props.compiled, layout, state.value).map((row, index, all) => {
    const text = (typed[key(row)] ?? '').trim();
    const print = parseReading(printed[row.point] ?? '');
    const expected = expectedAt(row.point, layout, props.compiled, known.value, print?.value);
    const read = parseReading(text);
    const fits = read && (read.unit === undefined || read.unit === row.quantity) && Math.abs(read.value) <= noWayThroughOhms;
    const how = behaves[key(row)] ?? 'steady';
    const judged = fits
      ? judgeRow(row, read.value, how, props.compiled, layout, { family: known.value, printed: print?.value })
      : undefined;
    const before = live.value.findLast(
      ({ body }) => body.kind === 'reading.taken' && body.at === row.point && body.quantity === row.quantity,
    );
    const way = progress(row);
    return {
      row,
      expected,
      judged,
      before: before?.body.kind === 'reading.taken' ? before.body : undefined,
      unit: row.quantity === 'ohms' ? 'Ω' : 'V',
      value: fits ? read.value : undefined,
      wrong: text !== '' && !fits,
      how,
      locked: way?.next !== undefined || cautionsLeft(row),
      walked: way !== undefined && !way.walk.harmless,
      step: stepOf(row),
      firstOfPlace: all[index - 1]?.on !== row.on,
    };
  });
});
const readable = computed(() => rows.value.filter(({ judged, locked }) => judged && !locked));
const answering = computed(() => readable.value.filter(({ judged }) => judged?.outcome !== undefined));

type Row = (typeof rows.value)[number];
function belongs({ row, expected }: Row): string {
  if (row.quantity === 'ohms') return expected.ohms === undefined ? '' : `${expected.ohms} Ω`;
  if (expected.volts === undefined) return '';
  const tolerance = expected.tolerancePercent === undefined ? '' : ` ± ${expected.tolerancePercent} %`;
  return t(`sheet.source.${expected.source}`, { volts: expected.volts, tolerance });
}
function called({ judged, wrong, row }: Row): string {
  if (wrong) return t('sheet.wrong');
  if (!judged) return '';
  if (!row.answers) return t('sheet.kept');
  const level = t(`sheet.level.${judged.level}`);
  const off =
    judged.deviationPercent === undefined ? '' : `${judged.deviationPercent > 0 ? '+' : ''}${judged.deviationPercent.toFixed(1)} %`;
  const outcome = judged.outcome === undefined ? '' : names.outcome(row.test, judged.outcome);
  return [...new Set([level, off, outcome])].filter(Boolean).join(' · ');
}
/** A control line is neither good nor bad by itself: its answer says what it means. */
const alarming = ({ judged, row }: Row): boolean =>
  judged !== undefined && row.answers && !['in', 'asks', 'rests', 'unknown'].includes(judged.level);

function record(): void {
  const taken = readable.value.flatMap(({ row, value, how, judged }): SheetTaken[] =>
    value === undefined || !judged ? [] : [{ row, value, behaves: how, judged }],
  );
  if (taken.length === 0) return;
  const walked = new Set(readable.value.filter((one) => one.walked).map(({ row }) => row.test));
  emit(
    'write',
    sheetBodies(taken, state.value, standingAt(props.fold.set, now.value, props.shop.lapseMinutes).verified).map((body) =>
      body.kind === 'test.answered'
        ? {
            ...body,
            ...(walked.has(body.test) ? { walked: true as const } : {}),
            words: { test: names.test(body.test), outcome: names.outcome(body.test, body.outcome) },
          }
        : body,
    ),
  );
  for (const { row } of taken) typed[key(row)] = '';
}
/** A digit typed beside a field is no answer to the step behind the sheet. */
function keepKeys(event: KeyboardEvent): void {
  if (event.key !== 'Escape' && pressed(event.key)?.command !== 'sheet') event.stopPropagation();
}
/** Enter goes on to the next point, as a probe does; behind the last one it is the button. */
function onward(event: KeyboardEvent): void {
  const form = (event.target as HTMLElement).closest('form');
  const fields = [...(form?.querySelectorAll<HTMLElement>('input[data-reading]:not(:disabled), button[type="submit"]') ?? [])];
  fields[fields.indexOf(event.target as HTMLElement) + 1]?.focus();
}
</script>

<template>
  <section class="sheet rails" data-test="sheet" @keydown="keepKeys">
    <div class="line">
      <h2>{{ t('sheet.title') }}</h2>
      <div class="switch" role="group" :aria-label="t('sheet.state')">
        <button
          v-for="one in sheetStates"
          :key="one"
          type="button"
          class="plain"
          :aria-pressed="state === one"
          :data-test="`sheet-${one}`"
          @click="state = one"
        >
          {{ t(`sheet.states.${one}`) }}
        </button>
      </div>
    </div>
    <p v-if="rows.length === 0" class="soft">{{ t('sheet.none') }}</p>
    <form v-else @submit.prevent="record">
      <table>
        <thead>
          <tr>
            <th>{{ t('sheet.point') }}</th>
            <th>{{ t('sheet.expected') }}</th>
            <th>{{ t('sheet.reading') }}</th>
            <th>{{ t('sheet.result') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in rows" :key="one.row.point" :class="{ place: one.firstOfPlace }" :data-point="one.row.point">
            <th scope="row">
              {{ names.place(one.row.point) }}
              <span v-if="one.row.many" class="soft">{{ t('sheet.many') }}</span>
              <span v-if="one.before" class="soft before">
                {{ t('sheet.before', { value: one.before.value, unit: one.unit, state: t(`sheet.when.${one.before.state}`) }) }}
              </span>
            </th>
            <td class="figure">
              <template v-if="one.row.quantity === 'volts' && ['unknown', 'at-least', 'printed'].includes(one.expected.source)">
                <input
                  v-model="printed[one.row.point]"
                  class="short"
                  type="text"
                  inputmode="decimal"
                  autocomplete="off"
                  :disabled="one.locked"
                  :placeholder="t('sheet.printed')"
                  :aria-label="`${names.place(one.row.point)}: ${t('sheet.printed')}, V`"
                  data-test="sheet-printed"
                />
              </template>
              <span class="soft">{{ belongs(one) }}</span>
            </td>
            <td>
              <span v-if="one.locked" class="inline">
                <span class="soft">{{ t('sheet.locked') }}</span>
                <button v-if="one.step" type="button" class="plain" @click="emit('take', one.step)">{{ t('sheet.go') }}</button>
              </span>
              <span v-else class="inline">
                <UnitInput
                  v-model="typed[key(one.row)]"
                  :unit="one.unit"
                  data-reading
                  :data-test="`sheet-value-${one.row.point}`"
                  :aria-label="`${names.place(one.row.point)}, ${one.unit}`"
                  @keydown.enter.prevent="onward"
                />
                <select
                  v-if="one.row.unsteady"
                  :value="one.how"
                  :aria-label="`${names.place(one.row.point)}: ${t('bench.reading.behaves')}`"
                  :data-test="`sheet-behaves-${one.row.point}`"
                  @change="behaves[key(one.row)] = ($event.target as HTMLSelectElement).value as Behaviour"
                >
                  <option v-for="how in behaviours" :key="how" :value="how">
                    {{ t(`bench.reading.${how}`) }}
                  </option>
                </select>
              </span>
            </td>
            <td :class="{ alarm: alarming(one) || one.wrong }" :data-level="one.judged?.level">{{ called(one) }}</td>
          </tr>
        </tbody>
      </table>
      <p class="inline">
        <button type="submit" class="push full" :disabled="readable.length === 0" data-test="sheet-record">
          {{ t('sheet.record', { n: readable.length }) }}
        </button>
        <span v-if="readable.length > 0" class="soft">{{ t('sheet.answers', { n: answering.length }) }}</span>
      </p>
      <p class="soft">{{ t('sheet.help') }}</p>
    </form>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 14px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 3px 8px 3px 0;
  text-align: left;
  vertical-align: middle;
  font-weight: 400;
}
thead th {
  font-size: 14px;
  color: var(--ink-soft);
}
tr.place > * {
  border-top: 1.5px solid var(--line);
}
.before {
  display: block;
  font-size: 14px;
}
.inline {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  margin: 0;
}
input,
select {
  min-height: 40px;
  padding: 4px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
input.short {
  display: block;
  width: 84px;
}
select {
  width: 112px;
}
.switch {
  display: flex;
  gap: 4px;
}
.switch .plain {
  min-height: 40px;
  text-decoration: none;
}
.switch [aria-pressed='true'] {
  border-bottom: 3px solid var(--accent);
  font-weight: 700;
}
</style>
