<script setup lang="ts">
import type { JobCard } from '@veglia/contract';
import { jobStates, type JobState } from '@veglia/core';
import { computed, onMounted, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { percent, useNames } from '../../names.ts';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import VerdictMark from '../../parts/VerdictMark.vue';
import { usePacks } from '../../stores/packs.ts';

const { t } = useI18n();
const packs = usePacks();
const names = useNames(() => packs.current);
const jobs = ref<JobCard[]>();
const reached = ref(true);
const day = 24 * 60 * 60 * 1000;
const days = (card: JobCard): number => Math.max(0, Math.floor((Date.now() - new Date(card.openedAt).getTime()) / day));
const shelves = computed(() =>
  jobStates.map((state: JobState) => ({ state, cards: (jobs.value ?? []).filter((card) => card.state === state) })),
);

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    const reply = await api.jobs();
    if (reply.ok) jobs.value = reply.value;
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
  }
}
onMounted(load);
</script>

<template>
  <div class="head">
    <h1>{{ t('shelves.title') }}</h1>
    <RouterLink class="push full" to="/jobs/new">{{ t('app.takeIn') }}</RouterLink>
  </div>
  <NotReachedSheet v-if="!reached" @again="load" />
  <p v-else-if="!jobs" class="soft">{{ t('common.loading') }}</p>
  <section v-else-if="jobs.length === 0" class="sheet empty">
    <h1>{{ t('shelves.empty') }}</h1>
    <p>{{ t('shelves.emptyHelp') }}</p>
  </section>
  <section v-for="shelf in shelves" v-else :key="shelf.state" class="shelf" :data-shelf="shelf.state">
    <h2>
      {{ t(`core.jobState.${shelf.state}`) }} <span class="figure">{{ shelf.cards.length }}</span>
    </h2>
    <p v-if="shelf.cards.length === 0" class="soft">{{ t('shelves.none') }}</p>
    <ul>
      <li v-for="card in shelf.cards" :key="card.jobId">
        <RouterLink :to="`/jobs/${card.jobId}`" class="card" :aria-label="t('shelves.openJob', { n: card.number })" :data-job="card.number">
          <span class="figure number">{{ card.number }}</span>
          <span class="what">
            <strong>{{ card.title || t('common.unknownSet') }}</strong>
            <span class="soft">{{ card.customerName ?? t('common.noCustomer') }}</span>
          </span>
          <span class="symptom">{{ card.symptoms.map((id) => names.symptom(id)).join(', ') }}</span>
          <span class="top">
            <template v-if="card.top">
              <VerdictMark :verdict="card.top.verdict" :odds="card.top.odds" />
              <span>
                <strong>{{ names.assembly(card.top.id) }}</strong>
                {{ ' ' }}<span class="soft">{{ percent(card.top.odds) }}, {{ t(`core.verdict.${card.top.verdict}`) }}</span>
              </span>
            </template>
          </span>
          <span class="next">
            <template v-if="card.outcome">{{ t(`outcome.${card.outcome}`) }}</template>
            <template v-else-if="card.next"
              ><span class="soft">{{ t('shelves.next') }}</span
              >{{ ' ' }}{{ names.step(card.next.kind, card.next.id, card.next.of) }}</template
            >
          </span>
          <span class="soft age">{{ t('shelves.days', days(card)) }}</span>
        </RouterLink>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 12px;
}
.shelf {
  margin-bottom: 18px;
  border-bottom: 6px solid var(--sunk);
  padding-bottom: 6px;
}
.shelf h2 {
  margin-bottom: 6px;
}
.shelf li + li {
  margin-top: 6px;
}
.card {
  display: grid;
  grid-template-columns: 44px minmax(0, 2.2fr) minmax(0, 1.6fr) minmax(0, 2fr) minmax(0, 2fr) 74px;
  gap: 14px;
  align-items: center;
  min-height: 60px;
  padding: 6px 14px;
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
.what,
.next {
  display: block;
  overflow-wrap: anywhere;
}
.what span {
  display: block;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.top {
  display: flex;
  gap: 10px;
  align-items: center;
}
.age {
  text-align: right;
}
.empty {
  padding: 40px;
  text-align: center;
}
@media (max-width: 900px) {
  .card {
    grid-template-columns: 44px minmax(0, 1fr) minmax(0, 1fr);
  }
}
@media (max-width: 600px) {
  .card {
    grid-template-columns: 44px minmax(0, 1fr);
    gap: 2px 10px;
  }
  .symptom,
  .top,
  .next,
  .age {
    grid-column: 2;
    text-align: left;
  }
}
</style>
