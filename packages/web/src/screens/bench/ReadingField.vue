<script setup lang="ts">
/** The numbers of a step that reads a meter: what belongs there and how that is known, and which answer they stand for. */
import {
  behaviours,
  expectedAt,
  measurementsOf,
  noWayThroughOhms,
  outcomeOfReadings,
  parseReading,
  pinName,
  pinStates,
  type Behaviour,
  type Body,
  type CompiledPack,
  type PinState,
  type PlaceOnBoard,
  type TestDefinition,
} from '@veglia/core';
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import { parseBetween, withoutCommonStart } from '../../numbers.ts';
import CaptureButton from './CaptureButton.vue';
import MeterButton from '../../parts/MeterButton.vue';
import SpotCrop from '../../parts/SpotCrop.vue';
import UnitInput from '../../parts/UnitInput.vue';
import { textOf } from '../../stores/packs.ts';
import { onBoard, placeOfPoint } from './boardPins.ts';

const props = defineProps<{
  test: TestDefinition;
  of: string | undefined;
  layout: string;
  compiled: CompiledPack;
  family: string | undefined;
  locked: boolean;
  /** Pins and marks of the boards that this set has. */
  places: readonly PlaceOnBoard[];
}>();
const emit = defineEmits<{ read: [outcome: string, raw: string, readings: Body[]] }>();
const { t } = useI18n();
const names = useNames(
  () => props.compiled,
  () => props.layout,
);

const wanted = computed(() => measurementsOf(props.test));
const typed = ref<string[]>([]);
const printed = ref('');
const behaves = ref<Behaviour>('steady');
function clear(): void {
  typed.value = wanted.value.map(() => '');
  printed.value = '';
  behaves.value = 'steady';
}
watch(() => `${props.test.id} ${props.of ?? ''}`, clear, { immediate: true });

/** Most volts that a bench meter reads. */
const most = 1e5;
const print = computed(() => parseBetween(printed.value, { least: 0, most }));
const fields = computed(() =>
  wanted.value.map((measured, index) => {
    const at = measured.at === '$of' ? (props.of ?? '') : measured.at;
    const ohms = measured.measure === 'ohms';
    const place = placeOfPoint(props.places, at);
    const pinState: PinState = pinStates.find((one) => one === measured.in) ?? (ohms ? 'unplugged' : 'on');
    const again = wanted.value.slice(0, index).some((one) => one.at === measured.at);
    const unit = ohms ? 'Ω' : 'V';
    const point = names.place(at);
    const label = wanted.value.length === 1 ? t('bench.reading.value') : again ? t('bench.reading.again', { point }) : point;
    const expected = expectedAt(
      at,
      props.layout,
      props.compiled,
      props.compiled.families.get(props.family ?? ''),
      print.value ?? undefined,
      onBoard(place, pinState, props.compiled),
    );
    const text = typed.value[index] ?? '';
    const read = parseReading(text);
    const fits = read && (read.unit === undefined || (read.unit === 'ohms') === ohms) && Math.abs(read.value) <= noWayThroughOhms;
    return {
      index,
      at,
      place,
      ohms,
      unit,
      label,
      expected,
      text,
      state: measured.in,
      volts: measured.measure,
      read: fits ? read : undefined,
    };
  }),
);
/** Beside each other only the ends tell them apart: what all begin with is left to the title. */
const short = computed(() => withoutCommonStart(fields.value.map(({ label }) => label)));
const first = computed(() => fields.value[0]);
const asksPrint = computed(() =>
  fields.value.some(({ ohms, expected }) => !ohms && !['board', 'family', 'usual'].includes(expected.source)),
);
const outcome = computed(() =>
  outcomeOfReadings(
    props.test,
    fields.value.map(({ at, expected, read }) => read && { at, expected, value: read.value, behaves: behaves.value }),
  ),
);
const belongs = computed(() => {
  if (!first.value || fields.value.length > 1) return '';
  const { volts, source, rail, tolerancePercent, ohms } = first.value.expected;
  if (first.value.ohms) return ohms === undefined ? '' : t('bench.reading.belongs.ohms', { ohms, rail });
  return t(`bench.reading.belongs.${volts === undefined ? 'nothing' : source}`, { volts, rail, tolerance: tolerancePercent });
});
const told = computed(() => {
  const wrong = fields.value.find(({ text, read }) => text.trim() !== '' && !read);
  if (wrong) return t('bench.reading.wrong', { value: wrong.text, unit: wrong.unit });
  if (fields.value.every(({ read }) => !read)) return '';
  const found = props.test.observe.outcomes.find(({ id }) => id === outcome.value);
  if (found) return t('bench.reading.means', { outcome: textOf(found.name) });
  if (asksPrint.value && print.value === undefined) return t('bench.reading.needsPrint');
  return t(fields.value.some(({ read }) => !read) ? 'bench.reading.readOn' : 'bench.reading.decidesNothing');
});

/** The field that is typed in, or the first that is empty: its spot is shown. */
const focused = ref<number>();
const spot = computed(() => {
  const at =
    fields.value.find(({ index }) => index === focused.value) ?? fields.value.find(({ text }) => text.trim() === '') ?? first.value;
  return at?.place;
});
/** Enter goes on to the next pin; at the last one, or where one number is enough, it records. */
function onward(event: KeyboardEvent): void {
  const all = [...((event.target as HTMLElement).closest('form')?.querySelectorAll<HTMLElement>('input[data-test="reading-value"]') ?? [])];
  const next = all[all.indexOf(event.target as HTMLElement) + 1];
  if (!next) return;
  event.preventDefault();
  next.focus();
}

function captured(volts: number, how: Behaviour): void {
  typed.value[0] = String(Number(volts.toPrecision(4)));
  behaves.value = how;
}

function record(): void {
  const read = fields.value.filter((one) => one.read !== undefined);
  if (props.locked || outcome.value === undefined) return;
  const parts = [
    ...read.map(({ read: number, unit }) => `${number?.value} ${unit}`),
    ...(behaves.value === 'steady' ? [] : [behaves.value]),
    ...(print.value === undefined ? [] : [`printed ${print.value} V`]),
  ];
  const readings = read.map(({ at, place, ohms, state, read: number }): Body => ({
    kind: 'reading.taken',
    v: 2,
    quantity: ohms ? 'ohms' : 'volts',
    at,
    value: number?.value ?? 0,
    state,
    ...(place ? { pin: pinName(place) } : {}),
  }));
  emit('read', outcome.value, parts.join(', '), readings);
  clear();
}
</script>

<template>
  <form class="number" data-test="reading" @submit.prevent="record">
    <UnitInput
      v-for="field in fields"
      :key="field.index"
      v-model="typed[field.index]"
      :unit="field.unit"
      :at="field.at"
      :wide="fields.length > 1"
      data-test="reading-value"
      :aria-label="`${field.label}, ${field.unit}`"
      :placeholder="short[field.index]"
      :title="field.label"
      @focus="focused = field.index"
      @keydown.enter="onward"
    />
    <UnitInput
      v-if="asksPrint"
      v-model="printed"
      unit="V"
      inputmode="decimal"
      data-test="reading-printed"
      :aria-label="`${t('bench.reading.printed')}, V`"
      :placeholder="t('bench.reading.printed')"
    />
    <select
      v-if="fields.length === 1 && first?.volts === 'volts-min-max'"
      v-model="behaves"
      data-test="reading-behaves"
      :aria-label="t('bench.reading.behaves')"
    >
      <option v-for="one in behaviours" :key="one" :value="one">{{ t(`bench.reading.${one}`) }}</option>
    </select>
    <button type="submit" class="push" :disabled="locked || outcome === undefined">{{ t('bench.reading.record') }}</button>
    <MeterButton />
    <CaptureButton v-if="fields.length === 1 && first?.volts === 'volts-min-max'" @captured="captured" />
    <SpotCrop v-if="spot" class="spot" :photo="spot.photo" :spot="spot.spot" :title="pinName(spot)" />
    <p v-if="told || belongs" :class="told ? 'told' : 'soft'" role="status">{{ told || belongs }}</p>
  </form>
</template>

<style scoped>
.number {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 6px;
  margin: 2px 0 3px;
}
.number p {
  flex-basis: 100%;
  margin: 0;
  font-size: 14px;
  line-height: 1.25;
}
.number .push {
  min-height: 40px;
  padding: 2px 10px;
}
.number select {
  width: 106px;
  min-height: 40px;
  padding: 4px 0 4px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
  color: inherit;
  font: inherit;
}
.told {
  font-weight: 600;
}
</style>
