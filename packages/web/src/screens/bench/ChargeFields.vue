<script setup lang="ts">
/** The charge, read where it may stay. Above the limit nothing is verified nor recorded: two readings here tell the wait. */
import { safeVolts, secondsUntil, throughResistor, timeConstantS, type VoltsAt } from '@veglia/core';
import { computed, nextTick, onMounted, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { clockTime } from '../../stores/clock.ts';

const props = defineProps<{
  points: readonly { readonly id: string; readonly name: string }[];
  /** Volts it may hold. */ most: number;
  /** Read already, by point. */ known?: Readonly<Record<string, number>>;
}>();
const emit = defineEmits<{ read: [volts: Record<string, number>] }>();
const { t } = useI18n();
const typed = reactive<Record<string, string>>(
  Object.fromEntries(Object.entries(props.known ?? {}).map(([id, volts]) => [id, String(volts)])),
);
const wrong = ref('');
const first = ref<HTMLInputElement[]>([]);
/** Readings so far, by point. */
const seen = reactive<Record<string, VoltsAt[]>>({});

const numberOf = (text: string): number | undefined => {
  const value = Number(text.trim().replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(value) || Math.abs(value) > 2000 ? undefined : value;
};
/** The first point that still reads too high, and what can be said of it. */
const high = computed(() => {
  for (const { id, name } of props.points) {
    const readings = seen[id] ?? [];
    const last = readings.at(-1);
    if (!last || Math.abs(last.volts) < safeVolts) continue;
    const before = readings.at(-2);
    const constant = before && timeConstantS(before, last);
    return { name, volts: last.volts, seconds: constant === undefined ? undefined : secondsUntil(last.volts, safeVolts, constant) };
  }
  return undefined;
});
/** A usual main capacitor and a usual resistor; common practice, no source. */
const resistor = { ohms: 2200, farads: 150e-6 };
const discharge = computed(() => throughResistor(props.most, resistor.farads, resistor.ohms, safeVolts));

function record(): void {
  wrong.value = '';
  const volts: Record<string, number> = {};
  for (const { id, name } of props.points) {
    const value = numberOf(typed[id] ?? '');
    if (value === undefined) {
      wrong.value = t('bench.charge.wrong', { where: name, value: typed[id] ?? '' });
      return;
    }
    volts[id] = value;
    seen[id] = [...(seen[id] ?? []), { volts: value, at: Date.now() }];
  }
  if (Object.values(volts).every((value) => Math.abs(value) < safeVolts)) emit('read', volts);
  else for (const { id } of props.points) typed[id] = '';
}
onMounted(async () => {
  await nextTick();
  (first.value.find(({ value }) => value === '') ?? first.value[0])?.focus();
});
</script>

<template>
  <form class="charge" data-test="charge" @submit.prevent="record">
    <label v-for="point in points" :key="point.id">
      <span>{{ point.name }}</span>
      <input ref="first" v-model="typed[point.id]" inputmode="decimal" autocomplete="off" class="reading" :data-point="point.id" />
      <span>V</span>
    </label>
    <button type="submit" class="push full"><KeyCap label="↵" />{{ t('bench.charge.record') }}</button>
    <p v-if="wrong" class="alarm" role="alert">{{ wrong }}</p>
    <p v-else-if="high" class="alarm" role="alert" data-test="still-charged">
      {{ t('bench.charge.high', { where: high.name, volts: high.volts, safe: safeVolts }) }}
      {{ high.seconds === undefined ? t('bench.charge.readAgain') : t('bench.charge.wait', { time: clockTime(high.seconds) }) }}
    </p>
    <details>
      <summary>{{ t('bench.charge.how') }}</summary>
      <p>
        {{
          t('bench.charge.resistor', {
            most: Math.round(most),
            microfarads: Math.round(resistor.farads * 1e6),
            kiloohms: resistor.ohms / 1000,
            seconds: discharge.secondsToSafe.toFixed(1),
            joules: discharge.joules.toFixed(0),
            watts: discharge.watts.toFixed(0),
            safe: safeVolts,
          })
        }}
      </p>
    </details>
  </form>
</template>

<style scoped>
.charge {
  display: grid;
  gap: 6px;
}
label {
  display: grid;
  grid-template-columns: 1fr 110px 20px;
  gap: 8px;
  align-items: center;
}
input {
  min-height: 44px;
  padding: 4px 10px;
  font-size: 20px;
  text-align: right;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: var(--surface);
}
summary {
  cursor: pointer;
  min-height: 24px;
}
</style>
