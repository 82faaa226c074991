<script setup lang="ts">
/** What to do next across benches: one line of steps for each technician, others' waits filled. */
import type { JobCard } from '@veglia/contract';
import type { DayPlan } from '@veglia/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Names } from '../../names.ts';
import { useCoarseNow } from '../../stores/clock.ts';
import { askPlan } from '../../stores/deeper.ts';
import { plannedSets } from './dayPlan.ts';

const props = defineProps<{ cards: readonly JobCard[]; names: Names; benches: number }>();
const { t, d } = useI18n();
const now = useCoarseNow();
const technicians = ref(Number(localStorage.getItem('veglia.technicians') ?? '') || props.benches);
watch(technicians, (n) => localStorage.setItem('veglia.technicians', String(n)));
const plan = shallowRef<DayPlan>();
let revision = 0;
watch(
  () => [props.cards, now.value, technicians.value] as const,
  async ([cards, at, n]) => {
    const mine = (revision += 1);
    const made = await askPlan(plannedSets(cards, new Date(at)), n);
    if (mine === revision) plan.value = made;
  },
  { immediate: true },
);
const byId = computed(() => new Map(props.cards.map((card) => [card.jobId, card])));
/** So many steps of a line are shown: what comes later changes with every answer. */
const shown = 4;
const lines = computed(() =>
  Array.from({ length: technicians.value }, (_, technician) =>
    (plan.value?.slots ?? [])
      .filter((slot) => slot.technician === technician)
      .slice(0, shown)
      .flatMap((slot) => {
        const card = byId.value.get(slot.set);
        const step = card?.ahead.find(({ id }) => id === slot.step);
        const kind = card?.next?.id === slot.step ? card.next.kind : 'repair';
        return card && step
          ? [
              {
                slot,
                card,
                wait: step.wait,
                name:
                  slot.step === 'proof'
                    ? t('proof.title')
                    : props.names.step(kind, slot.step, card.next?.id === slot.step ? card.next.of : undefined),
              },
            ]
          : [];
      }),
  ).filter((line) => line.length > 0),
);
function when(minutes: number): string {
  if (minutes < 0.5) return t('shelves.across.now');
  const n = Math.round(minutes);
  return n < 90 ? t('shelves.across.in', { n }) : t('shelves.across.inHours', { h: Math.floor(n / 60), n: n % 60 });
}
/** Sets whose parts are on their way, by the day they are expected. */
const forParts = computed(() =>
  props.cards
    .filter(({ waitsFor }) => waitsFor === 'part')
    .map((card) => ({ card, late: card.partsOn !== null && card.promisedOn !== null && card.partsOn > card.promisedOn }))
    .sort((a, b) => (a.card.partsOn ?? '9999').localeCompare(b.card.partsOn ?? '9999') || a.card.number - b.card.number),
);
const waiting = computed(() => plannedSets(props.cards, new Date(now.value)).length);
</script>

<template>
  <section v-if="waiting > 0 || forParts.length > 0" class="sheet across" data-test="across" :aria-label="t('shelves.across.title')">
    <div class="line">
      <h2>{{ t('shelves.across.title') }}</h2>
      <label>
        {{ t('shelves.across.technicians') }}
        <select v-model.number="technicians" data-test="technicians">
          <option v-for="n in 6" :key="n" :value="n">{{ n }}</option>
        </select>
      </label>
    </div>
    <ol v-for="(line, index) in lines" :key="index" class="lane" :data-technician="index + 1">
      <li v-for="{ slot, card, wait, name } in line" :key="`${slot.set}-${slot.step}`">
        <RouterLink :to="`/jobs/${slot.set}`" :data-job="card.number">
          <span class="reading when">{{ when(slot.start) }}</span>
          <span class="which"
            ><span class="figure">{{ card.number }}</span> {{ card.title }}</span
          >
          <strong>{{ name }}</strong>
          <span class="soft">
            {{ t('common.minutes', { n: Math.max(1, Math.round(slot.end - slot.start)) }) }}
            <template v-if="wait > 0">{{ t('common.wait', { n: Math.round(wait) }) }}</template>
          </span>
        </RouterLink>
      </li>
    </ol>
    <p v-if="forParts.length > 0" class="forparts" data-test="for-parts">
      <span class="soft">{{ t('shelves.across.parts') }}</span>
      <RouterLink v-for="{ card, late } in forParts" :key="card.jobId" :to="`/jobs/${card.jobId}/parts`" :class="{ alarm: late }">
        {{ card.number }}
        {{ card.partsOn ? d(new Date(`${card.partsOn}T12:00:00`), 'weekday') : t('shelves.across.noDay') }}
        {{ late ? t('shelves.across.partLate') : '' }}
      </RouterLink>
    </p>
    <p v-if="plan" class="soft">
      {{ plan.late > 0 ? t('shelves.across.late', { n: Math.round(plan.late) }) : t('shelves.across.onTime') }}
    </p>
  </section>
</template>

<style scoped>
.across {
  margin-bottom: 14px;
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}
select {
  min-height: 40px;
  padding: 0 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
}
.lane {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 8px;
  margin: 6px 0;
}
.lane a {
  display: grid;
  align-content: start;
  height: 100%;
  min-height: 76px;
  padding: 6px 10px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  text-decoration: none;
  color: inherit;
}
.lane li:first-child a {
  border: 2px solid var(--accent);
}
.lane a:hover {
  border-color: var(--accent);
}
.when {
  font-size: 18px;
}
.which {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 1000px) {
  .lane {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
@media (max-width: 600px) {
  .lane {
    grid-template-columns: minmax(0, 1fr);
  }
}
.forparts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
</style>
