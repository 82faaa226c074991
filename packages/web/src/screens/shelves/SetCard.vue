<script setup lang="ts">
/** One set on its shelf: its silhouette to scale, filled by the probabilities of what is likeliest, and what it waits for. */
import type { JobCard } from '@veglia/contract';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent, type Names } from '../../names.ts';
import VerdictMark from '../../parts/VerdictMark.vue';
import { clockTime, useNow } from '../../stores/clock.ts';
import { dayOf, dueIn } from './dayPlan.ts';

const props = defineProps<{ card: JobCard; names: Names }>();
const { t, d } = useI18n();
const now = useNow();
const day = 24 * 60 * 60 * 1000;
const days = computed(() => Math.max(0, Math.floor((now.value - new Date(props.card.openedAt).getTime()) / day)));
/** Drawn at one scale for all: a 16:9 set of so many inches across the diagonal. */
const inch = 1.6;
const width = computed(() => (props.card.sizeInch ?? 0) * 0.872 * inch);
const height = computed(() => (props.card.sizeInch ?? 0) * 0.49 * inch);
const wait = computed(() => props.card.waits[0]);
const left = computed(() => ((wait.value?.endsAt ?? 0) - now.value) / 1000);
const today = computed(() => dayOf(new Date(now.value)));
const due = computed(() => dueIn(props.card, new Date(now.value)));
/** A promised day without so many working minutes left is told as pressing. */
const pressing = 240;
</script>

<template>
  <RouterLink :to="`/jobs/${card.jobId}`" class="card" :aria-label="t('shelves.openJob', { n: card.number })" :data-job="card.number">
    <span class="figure number">{{ card.number }}</span>
    <svg v-if="card.sizeInch" class="silhouette" :viewBox="`0 0 100 60`" aria-hidden="true">
      <rect :x="(100 - width) / 2" :y="54 - height" :width="width" :height="height" rx="1.5" />
      <path :d="`M${50 - width * 0.3} 58h${width * 0.6}`" />
      <text x="50" :y="54 - height / 2 + 5" text-anchor="middle">{{ card.sizeInch }}″</text>
    </svg>
    <span v-else class="silhouette soft">{{ t('shelves.noSize') }}</span>
    <span class="what">
      <strong>{{ card.title || t('common.unknownSet') }}</strong>
      <span class="soft">{{ card.customerName ?? t('common.noCustomer') }}</span>
      <span>{{ card.symptoms.map((id) => names.symptom(id)).join(', ') }}</span>
    </span>
    <span class="top">
      <template v-if="card.top">
        <VerdictMark :verdict="card.top.verdict" :probability="card.top.probability" />
        <span>
          <strong>{{ names.assembly(card.top.id) }}</strong>
          {{ ' ' }}<span class="soft">{{ percent(card.top.probability) }}, {{ t(`core.verdict.${card.top.verdict}`) }}</span>
        </span>
      </template>
    </span>
    <span class="next">
      <template v-if="card.outcome">{{ t(`outcome.${card.outcome}`) }}</template>
      <template v-else>
        <span v-if="wait" class="timer" :class="{ over: left <= 0 }" data-test="card-timer">
          {{ wait.name }} <span class="reading">{{ left <= 0 ? t('bench.wait.over') : clockTime(left) }}</span>
        </span>
        <span v-else-if="card.waitsFor === 'customer'">{{ t('shelves.waits.customer') }}</span>
        <span v-else-if="card.waitsFor === 'part'" data-test="card-part">
          {{ t('shelves.waits.part', { what: card.parts.map(({ number }) => number).join(', ') }) }}
          <template v-if="card.partsOn">{{ t('parts.expected', { day: d(new Date(`${card.partsOn}T12:00:00`), 'weekday') }) }}</template>
        </span>
        <template v-else-if="card.next"
          ><span class="soft">{{ t('shelves.next') }}</span
          >{{ ' ' }}{{ names.step(card.next.kind, card.next.id, card.next.of) }}</template
        >
        <span v-if="card.stillOut.length > 0" class="alarm">{{ t('shelves.out', { n: card.stillOut.length }) }}</span>
      </template>
    </span>
    <span class="marks">
      <span
        v-if="card.promisedOn"
        :class="{ alarm: due !== undefined && due < 0, pressing: due !== undefined && due >= 0 && due < pressing }"
      >
        {{
          t(due !== undefined && due < 0 ? 'shelves.overdue' : 'shelves.promised', {
            day: d(new Date(`${card.promisedOn}T12:00:00`), 'weekday'),
          })
        }}
      </span>
      <span v-if="card.trialUntil" :class="{ alarm: card.trialUntil < today }" data-test="card-trial">{{
        t(card.trialUntil < today ? 'trial.over' : 'trial.runs', { day: d(new Date(`${card.trialUntil}T12:00:00`), 'weekday') })
      }}</span>
      <span v-if="card.comebackOf !== null">{{ t('shelves.comeback', { n: card.comebackOf }) }}</span>
      <span v-if="card.over.money" class="alarm">{{ t('shelves.over.money') }}</span>
      <span v-if="card.over.minutes" class="alarm">{{ t('shelves.over.minutes') }}</span>
      <span class="soft">{{ t('shelves.days', days) }}</span>
    </span>
  </RouterLink>
</template>

<style scoped>
.card {
  display: grid;
  grid-template-columns: 40px 104px minmax(0, 2fr) minmax(0, 1.7fr) minmax(0, 2fr) 132px;
  gap: 12px;
  align-items: center;
  min-height: 68px;
  padding: 4px 12px;
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  text-decoration: none;
  color: inherit;
}
.card:hover {
  border-color: var(--accent);
}
.number {
  font-size: 22px;
}
.silhouette {
  width: 100px;
  height: 60px;
  font-size: 14px;
  align-self: end;
}
span.silhouette {
  display: grid;
  place-items: center;
  align-self: center;
}
.silhouette rect {
  fill: var(--sunk);
  stroke: var(--ink);
  stroke-width: 1.2;
}
.silhouette path {
  stroke: var(--ink);
  stroke-width: 1.6;
}
.silhouette text {
  font-size: 13px;
  font-weight: 600;
  fill: var(--ink);
}
.what span,
.next > span,
.marks span {
  display: block;
}
.what,
.next {
  overflow-wrap: anywhere;
}
.what span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.next > .soft {
  display: inline;
}
.top {
  display: flex;
  gap: 10px;
  align-items: center;
}
.timer .reading {
  font-size: 18px;
}
.timer.over {
  font-weight: 700;
  border-left: 6px solid var(--accent);
  padding-left: 6px;
}
.marks {
  font-size: 15px;
  text-align: right;
}
.pressing {
  font-weight: 700;
}
@media (max-width: 1000px) {
  .card {
    grid-template-columns: 40px 104px minmax(0, 1fr) minmax(0, 1fr);
  }
}
@media (max-width: 600px) {
  .card {
    grid-template-columns: 40px minmax(0, 1fr);
    gap: 2px 10px;
  }
  .silhouette {
    display: none !important;
  }
  .top,
  .next,
  .marks {
    grid-column: 2;
    text-align: left;
  }
}
</style>
