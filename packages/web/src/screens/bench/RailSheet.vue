<script setup lang="ts">
/** Points read one after the other as the set stands, plug by plug: what belongs there, what each reading is called, and what it answers. */
import type { ShopSettings } from '@veglia/contract';
import {
  behaviours,
  expectedAt,
  judgePin,
  judgeRow,
  liveEntries,
  noWayThroughOhms,
  parseReading,
  pinName,
  sheetBodies,
  sheetRows,
  sheetStates,
  standingAt,
  withGoodReading,
  type Behaviour,
  type Body,
  type CaseFold,
  type CompiledPack,
  type Entry,
  type NextStep,
  type PinState,
  type SheetRow,
  type SheetState,
  type SheetTaken,
} from '@veglia/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import MeterButton from '../../parts/MeterButton.vue';
import UnitInput from '../../parts/UnitInput.vue';
import { NotReached } from '../../api.ts';
import { useCoarseNow } from '../../stores/clock.ts';
import { useBoards } from '../../stores/boards.ts';
import { useSession } from '../../stores/session.ts';
import BoardLine from './BoardLine.vue';
import { onBoard, pinRows, placeOfPoint, pointsApart, type PinRow } from './boardPins.ts';
import { stageCautions } from './cautions.ts';
import { useStepGate } from './stepGate.ts';
import { useJobBoards } from './jobBoards.ts';
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
const boards = useJobBoards(
  () => props.entries,
  () => props.compiled,
);
const state = ref<PinState>(props.fold.set.plugged ? 'standby' : 'unplugged');
/** As typed, by state and point: changing the state loses nothing. */
const typed = reactive<Record<string, string>>({});
const printed = reactive<Record<string, string>>({});
const behaves = reactive<Record<string, Behaviour>>({});
const known = computed(() => props.compiled.families.get(props.family ?? ''));
const live = computed(() => liveEntries(props.entries));
const key = (row: SheetRow): string => `${state.value} ${row.point}`;
/** With a plug pulled, only pins of boards are read: no test of the layout asks for it. */
const states = computed((): readonly PinState[] => (boards.places.value.length === 0 ? sheetStates : [...sheetStates, 'harness-out']));
const packState = computed((): SheetState | undefined => sheetStates.find((one) => one === state.value));

const gate = useStepGate(props);

const rows = computed(() => {
  const { layout } = props.fold.set;
  if (layout === undefined) return [];
  if (packState.value === undefined) return [];
  return sheetRows(props.compiled, layout, packState.value).map((row, index, all) => {
    const place = placeOfPoint(boards.places.value, row.point);
    const own = onBoard(place, state.value, props.compiled);
    const text = (typed[key(row)] ?? '').trim();
    const print = parseReading(printed[row.point] ?? '');
    const expected = expectedAt(row.point, layout, props.compiled, known.value, print?.value, own);
    const read = parseReading(text);
    const fits = read && (read.unit === undefined || read.unit === row.quantity) && Math.abs(read.value) <= noWayThroughOhms;
    const how = behaves[key(row)] ?? 'steady';
    const judged = fits
      ? judgeRow(row, read.value, how, props.compiled, layout, { family: known.value, printed: print?.value, board: own })
      : undefined;
    const before = live.value.findLast(
      ({ body }) => body.kind === 'reading.taken' && body.at === row.point && body.quantity === row.quantity,
    );
    return {
      row,
      place,
      expected,
      judged,
      before: before?.body.kind === 'reading.taken' ? before.body : undefined,
      unit: row.quantity === 'ohms' ? 'Ω' : 'V',
      value: fits ? read.value : undefined,
      wrong: text !== '' && !fits,
      how,
      locked: gate.locked(row.test),
      walked: gate.walked(row.test),
      step: gate.stepOf(row.test),
      firstOfPlace: all[index - 1]?.on !== row.on,
    };
  });
});
/** Pins of boards that are no point of the layout, or further pins of one. */
const pins = computed(() => {
  const { layout } = props.fold.set;
  if (layout === undefined) return [];
  return pinRows(
    boards.places.value,
    rows.value.map(({ row }) => row),
    state.value,
    props.compiled,
  ).map((pin) => {
    const text = (typed[`${state.value} ${pin.id}`] ?? '').trim();
    const read = parseReading(text);
    const fits = read && (read.unit === undefined || read.unit === pin.quantity) && Math.abs(read.value) <= noWayThroughOhms;
    return {
      pin,
      unit: pin.quantity === 'ohms' ? 'Ω' : 'V',
      value: fits ? read.value : undefined,
      wrong: text !== '' && !fits,
      judged: fits ? judgePin(pin.place, pin.quantity, read.value, state.value, props.compiled) : undefined,
      expected: judgePin(pin.place, pin.quantity, 0, state.value, props.compiled).expected,
      locked: pinLocked(pin),
    };
  });
});
/** As its plug's own points are; where none of them is read in this state, as the stage and the state of the set allow. */
function pinLocked({ on }: PinRow): boolean {
  const sibling = rows.value.find(({ row }) => row.on === on);
  if (sibling) return sibling.locked;
  const { set } = props.fold;
  const layout = props.compiled.layouts.get(set.layout ?? '');
  const stage = layout?.access[on] ?? layout?.access.inside ?? '';
  if (!layout || props.compiled.stageIds.indexOf(stage) > set.stage) return true;
  if (stageCautions({ stage } as NextStep, props.compiled).some((id) => !props.fold.cautionsRead.includes(id))) return true;
  // Live readings on a board with a hot side have a step of their own, with its cautions.
  const hot = layout.hotInside === true || Object.values(layout.points).some((point) => point.on === on && point.hot);
  if (state.value !== 'unplugged') return hot || !set.plugged;
  return set.plugged || !standingAt(set, now.value, props.shop.lapseMinutes).verified;
}
const pinsRead = computed(() => pins.value.filter(({ judged, locked }) => judged && !locked));
/** Rails whose pins don't read alike. */
const apart = computed(() =>
  pointsApart([
    ...rows.value.flatMap(({ row, value, locked }) =>
      value === undefined || locked || row.quantity !== 'volts' ? [] : [{ point: row.point, value }],
    ),
    ...pinsRead.value.flatMap(({ pin, value }) =>
      value === undefined || !pin.twin || pin.quantity !== 'volts' ? [] : [{ point: pin.twin.point, value }],
    ),
  ]),
);
const readable = computed(() => rows.value.filter(({ judged, locked }) => judged && !locked));
const answering = computed(() => readable.value.filter(({ judged, row }) => judged?.outcome !== undefined && !apart.value.has(row.point)));
const toRecord = computed(() => readable.value.length + pinsRead.value.length);

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
  if (apart.value.has(row.point)) return t('sheet.disagree');
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

type PinLine = (typeof pins.value)[number];
function pinBelongs({ expected, pin }: PinLine): string {
  const { value, least, most, ground } = expected;
  if (ground) return t('sheet.ground');
  if (value !== undefined) return pin.quantity === 'ohms' ? t('sheet.ohmsGood', { value }) : t('sheet.source.board', { volts: value });
  return least === undefined ? '' : t('sheet.typical', { least, most });
}
function pinCalled({ judged, wrong, pin }: PinLine): string {
  if (wrong) return t('sheet.wrong');
  if (!judged) return '';
  if (pin.twin && apart.value.has(pin.twin.point)) return t('sheet.disagree');
  const off =
    judged.deviationPercent === undefined ? '' : `${judged.deviationPercent > 0 ? '+' : ''}${judged.deviationPercent.toFixed(1)} %`;
  return [t(`sheet.level.${judged.level}`), off].filter(Boolean).join(' · ');
}
const pinAlarm = ({ judged, wrong }: PinLine): boolean =>
  wrong || (judged !== undefined && judged.level !== 'in' && judged.level !== 'unknown');

const store = useBoards();
const session = useSession();
const good = ref(false);
const learned = ref('');
/** Readings on boards that are known to be good become what belongs there: one more version of each board. */
async function learn(): Promise<void> {
  const by = session.person?.id;
  if (!good.value || by === undefined) return;
  const taken = [
    ...readable.value.flatMap(({ place, row, value }) => (place && value !== undefined ? [{ place, quantity: row.quantity, value }] : [])),
    ...pinsRead.value.flatMap(({ pin, value }) => (value === undefined ? [] : [{ place: pin.place, quantity: pin.quantity, value }])),
  ];
  const at = state.value;
  const said: string[] = [];
  good.value = false;
  for (const { state: kept } of boards.found.value) {
    const own = taken.filter(({ place }) => place.board.id === kept?.board.id);
    if (!kept || own.length === 0) continue;
    const board = own.reduce((before, { place, quantity, value }) => withGoodReading(before, place, quantity, at, value), kept.board);
    try {
      const reply = await store.save({ by, version: kept.version, reason: t('sheet.good'), board });
      said.push(reply.ok ? t('sheet.learned', { number: board.number }) : t('sheet.notLearned', { why: reply.problem.title }));
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      said.push(t('sheet.notLearned', { why: t('common.notReached') }));
    }
  }
  learned.value = said.join(' ');
}

function record(): void {
  const taken = readable.value.flatMap(({ row, place, value, how, judged }): SheetTaken[] => {
    if (value === undefined || !judged) return [];
    const { outcome: _, ...without } = judged;
    return [{ row, value, behaves: how, judged: apart.value.has(row.point) ? without : judged, pin: place && pinName(place) }];
  });
  const read = pinsRead.value;
  if (toRecord.value === 0) return;
  void learn();
  const { verified } = standingAt(props.fold.set, now.value, props.shop.lapseMinutes);
  const walked = new Set(readable.value.filter((one) => one.walked).map(({ row }) => row.test));
  emit('write', [
    ...sheetBodies(taken, packState.value ?? 'on', verified).map((body) =>
      body.kind === 'test.answered'
        ? {
            ...body,
            ...(walked.has(body.test) ? { walked: true as const } : {}),
            words: { test: names.test(body.test), outcome: names.outcome(body.test, body.outcome) },
          }
        : body,
    ),
    ...read.map(({ pin, value }): Body => ({
      kind: 'reading.taken',
      v: 2,
      quantity: pin.quantity,
      at: pin.twin?.point ?? pin.id,
      value: value ?? 0,
      state: state.value === 'unplugged' && verified ? 'verified' : state.value,
      pin: pinName(pin.place),
    })),
  ]);
  for (const { row } of taken) typed[key(row)] = '';
  for (const { pin } of read) typed[`${state.value} ${pin.id}`] = '';
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
          v-for="one in states"
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
    <BoardLine
      v-if="fold.set.layout !== undefined"
      :compiled="compiled"
      :layout="fold.set.layout"
      :family="family"
      :boards="boards"
      @write="(bodies) => emit('write', bodies)"
    />
    <p v-if="rows.length + pins.length === 0" class="soft">{{ t('sheet.none') }}</p>
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
              <span v-if="one.place" class="soft before">{{ pinName(one.place) }}</span>
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
                  :at="one.row.point"
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
          <tr v-for="one in pins" :key="one.pin.id" :class="{ place: one.pin === pins[0]?.pin }" :data-point="one.pin.id">
            <th scope="row">{{ pinName(one.pin.place) }}</th>
            <td class="figure">
              <span class="soft">{{ pinBelongs(one) }}</span>
            </td>
            <td>
              <span v-if="one.locked" class="soft">{{ t('sheet.locked') }}</span>
              <UnitInput
                v-else
                v-model="typed[`${state} ${one.pin.id}`]"
                :unit="one.unit"
                data-reading
                :data-test="`sheet-value-${one.pin.id}`"
                :aria-label="`${pinName(one.pin.place)}, ${one.unit}`"
                @keydown.enter.prevent="onward"
              />
            </td>
            <td :class="{ alarm: pinAlarm(one) }" :data-level="one.judged?.level">{{ pinCalled(one) }}</td>
          </tr>
        </tbody>
      </table>
      <label v-if="boards.places.value.length > 0" class="inline good">
        <input v-model="good" type="checkbox" data-test="sheet-good" />{{ t('sheet.good') }}
      </label>
      <p v-if="learned" role="status" data-test="sheet-learned">{{ learned }}</p>
      <p class="inline">
        <button type="submit" class="push full" :disabled="toRecord === 0" data-test="sheet-record">
          {{ t('sheet.record', { n: toRecord }) }}
        </button>
        <MeterButton serial />
        <span v-if="toRecord > 0" class="soft">{{ t('sheet.answers', { n: answering.length }) }}</span>
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
input[type='checkbox'] {
  width: 22px;
  min-height: 22px;
}
.good {
  min-height: 40px;
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
