<script setup lang="ts">
/** What is printed at a pin or part, state by state; what was measured on good boards stands beside it. */
import { noWayThroughOhms, parseReading, pinStates, type PinExpectation, type PinState } from '@veglia/core';
import { reactive, watch } from 'vue';
import { useI18n } from 'vue-i18n';

const props = defineProps<{ of: string; expects: readonly PinExpectation[] }>();
const emit = defineEmits<{ change: [expects: PinExpectation[]] }>();
const { t } = useI18n();
const quantityIn = (state: PinState): 'volts' | 'ohms' => (state === 'unplugged' ? 'ohms' : 'volts');
const printedIn = (state: PinState): PinExpectation | undefined =>
  props.expects.find((one) => one.source === 'printed' && one.state === state);
const goodIn = (state: PinState): PinExpectation | undefined =>
  props.expects.find((one) => one.source === 'measured' && one.state === state);
const typed = reactive<Partial<Record<PinState, string>>>({});
watch(
  () => props.of,
  () => {
    for (const state of pinStates) typed[state] = printedIn(state)?.value.toString() ?? '';
  },
  { immediate: true },
);
function read(state: PinState): number | undefined {
  const found = parseReading(typed[state] ?? '');
  return found && (found.unit === undefined || found.unit === quantityIn(state)) && Math.abs(found.value) <= noWayThroughOhms
    ? found.value
    : undefined;
}
const wrong = (state: PinState): boolean => (typed[state] ?? '').trim() !== '' && read(state) === undefined;
/** What can’t be read changes nothing, and stays as it was typed. */
function entered(state: PinState): void {
  if (wrong(state)) return;
  const value = read(state);
  const others = props.expects.filter((one) => one.source !== 'printed' || one.state !== state);
  emit('change', [...others, ...(value === undefined ? [] : [{ state, quantity: quantityIn(state), value, source: 'printed' as const }])]);
}
function good({ value, least = value, most = value, n = 1 }: PinExpectation): string {
  return least === most ? t('boards.good', { value, n }) : t('boards.goodRange', { least, most, n });
}
defineExpose({ wrong: (): boolean => pinStates.some(wrong) });
</script>

<template>
  <td v-for="state in pinStates" :key="state">
    <input
      v-model="typed[state]"
      type="text"
      inputmode="decimal"
      autocomplete="off"
      :aria-label="`${of}: ${t(`boards.state.${state}`)}`"
      :aria-invalid="wrong(state)"
      :data-test="`expect-${state}`"
      @change="entered(state)"
    />
    <span v-if="wrong(state)" class="alarm small" role="alert">{{ t('boards.wrongNumber', { value: typed[state] }) }}</span>
    <span v-else-if="goodIn(state)" class="soft small">{{ good(goodIn(state)!) }}</span>
  </td>
</template>

<style scoped>
td {
  padding: 2px 6px 2px 0;
  vertical-align: top;
}
input {
  width: 64px;
  min-height: 40px;
  padding: 4px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
input[aria-invalid='true'] {
  border-color: var(--alarm);
}
.small {
  display: block;
  font-size: 14px;
}
</style>
