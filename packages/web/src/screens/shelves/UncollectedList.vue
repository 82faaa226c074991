<script setup lang="ts">
/** Closed jobs whose sets nobody has collected, the longest first. */
import type { JobCard } from '@veglia/contract';
import { computed, onMounted, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { useCoarseNow } from '../../stores/clock.ts';
import { useShopSettings } from '../../stores/shopSettings.ts';

const { t } = useI18n();
const shop = useShopSettings();
const now = useCoarseNow();
const cards = shallowRef<readonly JobCard[]>([]);
const dayMs = 86_400_000;
onMounted(async () => {
  try {
    const reply = await api.jobsNow({ state: 'closed', uncollected: 'true', order: 'oldest', limit: 100 });
    if (reply.ok) cards.value = reply.value.jobs;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
});
const days = (card: JobCard): number => Math.max(0, Math.floor((now.value - new Date(card.closedAt ?? card.openedAt).getTime()) / dayMs));
const sorted = computed(() => cards.value.toSorted((a, b) => days(b) - days(a) || a.number - b.number));
const long = computed(() => sorted.value.filter((card) => days(card) > shop.value.uncollectedDays).length);
</script>

<template>
  <details v-if="cards.length > 0" class="sheet" data-test="uncollected">
    <summary>
      {{ t('uncollected.title', { n: cards.length }) }}
      <span v-if="long > 0" class="alarm">{{ long }} {{ t('uncollected.long', { n: shop.uncollectedDays }) }}</span>
    </summary>
    <ul>
      <li v-for="card in sorted" :key="card.jobId">
        <RouterLink :to="`/jobs/${card.jobId}/handover`">{{ card.number }} {{ card.title }}</RouterLink>
        <span class="soft">{{ card.customerName ?? t('common.noCustomer') }}</span>
        <span :class="{ alarm: days(card) > shop.uncollectedDays }">{{ t('uncollected.days', { n: days(card) }) }}</span>
      </li>
    </ul>
  </details>
</template>

<style scoped>
details {
  margin-top: 14px;
}
summary {
  min-height: 40px;
  line-height: 40px;
  cursor: pointer;
  font-weight: 700;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 2fr) auto;
  gap: 12px;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
</style>
