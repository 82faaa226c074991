<script setup lang="ts">
/** One mark: its name, its pins with their labels and what those stand for, what belongs there. */
import { mostPins, parseQuantity, pointOfLabel, readLabel, type CompiledPack, type Mark, type Pin } from '@veglia/core';
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import { textOf } from '../../stores/packs.ts';
import ExpectFields from './ExpectFields.vue';

const props = defineProps<{ mark: Mark; assembly: string; layout: string; compiled: CompiledPack; fresh: boolean }>();
const emit = defineEmits<{ change: [mark: Mark]; remove: []; done: [] }>();
const { t } = useI18n();
const names = useNames(
  () => props.compiled,
  () => props.layout,
);
const name = ref('');
const labels = ref('');
const note = ref('');
const error = ref('');
const first = ref<HTMLElement>();
watch(
  () => props.mark.id,
  () => {
    name.value = props.mark.name.trim() === '' ? '' : props.mark.name;
    labels.value = props.mark.kind === 'connector' ? props.mark.pins.map(({ label }) => label || '-').join(' ') : '';
    if (props.fresh) labels.value = '';
    note.value = props.mark.note ?? '';
    error.value = '';
  },
  { immediate: true },
);
onMounted(() => void nextTick(() => first.value?.querySelector('input')?.focus()));

const words = (text: string): string[] => text.split(/[\s,;]+/).filter((one) => one !== '');
const pins = computed((): readonly Pin[] => (props.mark.kind === 'connector' ? props.mark.pins : []));
/** Plugs and boards of the layout that points are on. */
const places = computed(() => {
  const points = Object.values(props.compiled.layouts.get(props.layout)?.points ?? {});
  return [...new Set(points.map(({ on }) => on))].map((value) => ({ value, label: names.place(value) }));
});
const on = computed(() => (props.mark.kind === 'connector' ? (props.mark.on ?? props.assembly) : props.assembly));
const points = computed(() =>
  Object.keys(props.compiled.layouts.get(props.layout)?.points ?? {}).map((value) => ({ value, label: names.place(value) })),
);
function standsFor({ label, point }: Pin): string {
  const found = point ?? pointOfLabel(label, on.value, props.layout, props.compiled);
  if (found !== undefined) return names.place(found);
  const read = readLabel(label, props.compiled);
  return textOf(read.entry?.name) || (label === '' ? '' : t('boards.isNothing'));
}
/** As typed so far; the labels tell how many pins there are. False where something is missing. */
function apply(asked = false): boolean {
  error.value = '';
  const called = name.value.trim();
  if (called === '') error.value = t('boards.noName');
  const kept = note.value.trim();
  const { note: _, ...bare } = props.mark;
  const common = { ...bare, name: called, ...(kept === '' ? {} : { note: kept }) };
  if (common.kind !== 'connector') {
    if (error.value === '') emit('change', common);
    return error.value === '';
  }
  const list = words(labels.value);
  // While the name is typed the labels are still to come.
  if (list.length === 0 && !asked) {
    error.value = '';
    if (called !== '') emit('change', common);
    return false;
  }
  if (list.length === 0) error.value ||= t('boards.noLabels');
  if (list.length > mostPins) error.value ||= t('boards.tooMany', { n: list.length, most: mostPins });
  if (error.value !== '') return false;
  const before = pins.value;
  const next = list.map((label, index): Pin => {
    const own = label === '-' ? '' : label;
    const known = before[index];
    // Another label at that pin: what was entered for the old one is not its own.
    return known && (props.fresh || known.label === own) ? { ...known, label: own } : { label: own, expects: [] };
  });
  emit('change', { ...common, pins: next });
  return true;
}
const changePin = (index: number, change: Partial<Pin>): void => {
  if (props.mark.kind === 'connector')
    emit('change', { ...props.mark, pins: pins.value.map((pin, at) => (at === index ? { ...pin, ...change } : pin)) });
};
function changePoint(index: number, point: string): void {
  const { point: _, ...pin } = pins.value[index] ?? { label: '', expects: [] };
  if (props.mark.kind === 'connector')
    emit('change', { ...props.mark, pins: pins.value.map((one, at) => (at === index ? (point === '' ? pin : { ...pin, point }) : one)) });
}
function changeOn(place: string): void {
  if (props.mark.kind !== 'connector') return;
  const { on: _, ...rest } = props.mark;
  emit('change', place === '' ? rest : { ...rest, on: place });
}
function changeOwnPoint(point: string): void {
  if (props.mark.kind === 'connector') return;
  const { point: _, ...rest } = props.mark;
  emit('change', point === '' ? rest : { ...rest, point });
}
function changeWarm(event: Event): void {
  if (props.mark.kind === 'connector') return;
  const { warm: _, ...rest } = props.mark;
  const text = (event.target as HTMLInputElement).value.trim();
  const warm = parseQuantity(text, '°C');
  error.value = text !== '' && (warm === undefined || warm < 0.5 || warm > 200) ? t('boards.warmWrong') : '';
  if (error.value === '') emit('change', warm === undefined ? rest : { ...rest, warm });
}
function done(): void {
  if (apply(true)) emit('done');
}
</script>

<template>
  <form class="mark" data-test="mark" @submit.prevent="done">
    <h2>{{ t(`boards.kind.${mark.kind}`) }}</h2>
    <div ref="first" class="fields">
      <TextField id="mark-name" v-model="name" :label="t('boards.name')" :bounds="{ longest: 40 }" @change="apply()" />
      <ChoiceField
        v-if="mark.kind === 'connector'"
        id="mark-on"
        :model-value="mark.on ?? ''"
        :label="t('boards.place')"
        :options="places"
        :none="t('boards.placeOwn')"
        @update:model-value="changeOn"
      />
      <ChoiceField
        v-else
        id="mark-point"
        :model-value="mark.point ?? ''"
        :label="t('boards.pointOf')"
        :options="points"
        :none="t('boards.isNothing')"
        searched
        @update:model-value="changeOwnPoint"
      />
      <TextField
        v-if="mark.kind === 'connector'"
        id="mark-labels"
        v-model="labels"
        class="wide"
        :label="t('boards.labels')"
        :placeholder="t('boards.labelsHint')"
        @change="apply()"
      />
    </div>
    <p v-if="error" class="alarm" role="alert">{{ error }}</p>
    <div v-if="mark.kind !== 'connector' || !fresh || pins.length > 1 || pins[0]?.label" class="scroll">
      <table>
        <thead>
          <tr>
            <template v-if="mark.kind === 'connector'">
              <th>{{ t('boards.pin') }}</th>
              <th>{{ t('boards.label') }}</th>
              <th>{{ t('boards.is') }}</th>
            </template>
            <th v-for="state in ['unplugged', 'standby', 'starting', 'on', 'harness-out']" :key="state">
              {{ t(`boards.state.${state}`) }}
            </th>
          </tr>
        </thead>
        <tbody v-if="mark.kind === 'connector'">
          <tr v-for="(pin, index) in pins" :key="index" :data-pin="index + 1">
            <th scope="row" class="figure">{{ index + 1 }}</th>
            <td class="reading">{{ pin.label }}</td>
            <td>
              <select
                :value="pin.point ?? ''"
                :aria-label="t('boards.pointOf')"
                @change="changePoint(index, ($event.target as HTMLSelectElement).value)"
              >
                <option value="">{{ standsFor({ label: pin.label, expects: [] }) || t('boards.byLabel') }}</option>
                <option v-for="one in points" :key="one.value" :value="one.value">{{ one.label }}</option>
              </select>
            </td>
            <ExpectFields
              :of="`${mark.id} ${index + 1} ${pin.label}`"
              :expects="pin.expects"
              @change="(expects) => changePin(index, { expects })"
            />
          </tr>
        </tbody>
        <tbody v-else>
          <tr>
            <ExpectFields :of="mark.id" :expects="mark.expects" @change="(expects) => emit('change', { ...mark, expects } as Mark)" />
          </tr>
        </tbody>
      </table>
    </div>
    <label v-if="mark.kind !== 'connector'" class="warm">
      {{ t('boards.warm') }}
      <input :value="mark.warm ?? ''" type="text" inputmode="decimal" data-test="mark-warm" @change="changeWarm" /> °C
    </label>
    <TextField
      id="mark-note"
      v-model="note"
      :label="t('boards.note')"
      :placeholder="t('boards.noteHint')"
      :bounds="{ longest: 400 }"
      @change="apply()"
    />
    <p class="row">
      <button type="submit" class="push full" data-test="mark-done">{{ t('boards.done') }}</button>
      <button type="button" class="plain" data-test="mark-remove" @click="emit('remove')">{{ t('boards.removeMark') }}</button>
    </p>
  </form>
</template>

<style scoped>
.mark {
  display: grid;
  gap: 8px;
  min-width: 0;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  padding: 2px 8px 2px 0;
  text-align: left;
  font-weight: 400;
}
thead th {
  font-size: 14px;
  color: var(--ink-soft);
  vertical-align: bottom;
  line-height: 1.15;
}
select {
  width: 160px;
  min-height: 40px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
.warm input {
  width: 80px;
  min-height: 40px;
  padding: 2px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
  text-align: right;
}
.row {
  display: flex;
  gap: 10px;
}
</style>
