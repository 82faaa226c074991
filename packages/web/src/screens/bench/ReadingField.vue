<script setup lang="ts">
/** The number of a step that reads a meter: what belongs there and how that is known, and which answer the number stands for. */
import {
  behaviours,
  expectedAt,
  measuredBy,
  outcomeOfReading,
  type Behaviour,
  type Body,
  type CompiledPack,
  type TestDefinition,
} from '@veglia/core';
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { parseBetween } from '../../numbers.ts';
import { textOf } from '../../stores/packs.ts';

const props = defineProps<{
  test: TestDefinition;
  of: string | undefined;
  layout: string;
  compiled: CompiledPack;
  family: string | undefined;
  locked: boolean;
}>();
const emit = defineEmits<{ read: [outcome: string, raw: string, reading: Body] }>();
const { t } = useI18n();
const value = ref('');
const printed = ref('');
const behaves = ref<Behaviour>('steady');
watch(
  () => `${props.test.id} ${props.of ?? ''}`,
  () => {
    value.value = '';
    printed.value = '';
    behaves.value = 'steady';
  },
);

/** Most that a bench meter reads, volts or ohms. */
const most = 1e9;
const measured = computed(() => measuredBy(props.test));
const point = computed(() => (measured.value?.at === '$of' ? (props.of ?? '') : (measured.value?.at ?? '')));
const ohms = computed(() => measured.value?.measure === 'ohms');
const unit = computed(() => (ohms.value ? 'Ω' : 'V'));
const read = computed(() => parseBetween(value.value, 0, most));
const print = computed(() => parseBetween(printed.value, 0, most));
const expected = computed(() =>
  expectedAt(point.value, props.layout, props.compiled, props.compiled.families.get(props.family ?? ''), print.value ?? undefined),
);
const asksPrint = computed(() => !ohms.value && !['family', 'usual'].includes(expected.value.source));
const outcome = computed(() =>
  read.value === undefined ? undefined : outcomeOfReading(props.test, { value: read.value, behaves: behaves.value }, expected.value),
);
const belongs = computed(() => {
  if (ohms.value) return '';
  const { volts, source, rail, tolerancePercent } = expected.value;
  return t(`bench.reading.belongs.${volts === undefined ? 'nothing' : source}`, { volts, rail, tolerance: tolerancePercent });
});
const told = computed(() => {
  if (value.value.trim() === '') return '';
  if (read.value === undefined) return t('bench.reading.wrong', { value: value.value });
  const found = props.test.observe.outcomes.find(({ id }) => id === outcome.value);
  return found
    ? t('bench.reading.means', { outcome: textOf(found.name) })
    : t(asksPrint.value ? 'bench.reading.needsPrint' : 'bench.reading.decidesNothing');
});

function record(): void {
  const number = read.value;
  const state = measured.value?.in;
  if (props.locked || number === undefined || outcome.value === undefined || state === undefined) return;
  const parts = [
    `${number} ${unit.value}`,
    ...(behaves.value === 'steady' ? [] : [behaves.value]),
    ...(print.value === undefined ? [] : [`printed ${print.value} V`]),
  ];
  emit('read', outcome.value, parts.join(', '), {
    kind: 'reading.taken',
    v: 1,
    quantity: ohms.value ? 'ohms' : 'volts',
    at: point.value,
    value: number,
    state,
  });
  value.value = '';
}
</script>

<template>
  <form class="number" data-test="reading" @submit.prevent="record">
    <input
      v-model="value"
      type="text"
      inputmode="decimal"
      autocomplete="off"
      data-test="reading-value"
      :aria-label="t('bench.reading.value', { unit })"
      :placeholder="t('bench.reading.value', { unit })"
    />
    <input
      v-if="asksPrint"
      v-model="printed"
      type="text"
      inputmode="decimal"
      autocomplete="off"
      data-test="reading-printed"
      :aria-label="t('bench.reading.printed')"
      :placeholder="t('bench.reading.printed')"
    />
    <select
      v-if="measured?.measure === 'volts-min-max'"
      v-model="behaves"
      data-test="reading-behaves"
      :aria-label="t('bench.reading.behaves')"
    >
      <option v-for="one in behaviours" :key="one" :value="one">{{ t(`bench.reading.${one}`) }}</option>
    </select>
    <button type="submit" class="push" :disabled="locked || outcome === undefined">{{ t('bench.reading.record') }}</button>
    <p v-if="told || belongs" :class="told ? 'told' : 'soft'" role="status">{{ told || belongs }}</p>
  </form>
</template>

<style scoped>
.number {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 6px;
  margin: 4px 0;
}
.number p {
  flex-basis: 100%;
  margin: 0;
}
.number input,
.number select {
  width: 98px;
  min-height: 40px;
  padding: 4px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
  color: inherit;
  font: inherit;
}
.number select {
  width: 106px;
}
.told {
  font-weight: 600;
}
</style>
