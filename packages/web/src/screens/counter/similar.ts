/** Closed jobs like the set at the counter: the server names the likely ones, core ranks them. */
import type { JobCard } from '@veglia/contract';
import { similarJobs, type PastJob, type SimilarJob } from '@veglia/core';
import { useDebounceFn } from '@vueuse/core';
import { computed, shallowRef, watch, type ComputedRef } from 'vue';
import { api, NotReached } from '../../api.ts';

export type PastCard = Omit<JobCard, 'family' | 'layout' | 'code'> & PastJob;

/** Asked once typing rests for so many milliseconds. */
const rest = 200;
const mostShown = 4;

/** Without a server, or without a symptom, nothing is like it. */
export function useSimilar(now: ComputedRef<PastJob>): ComputedRef<readonly SimilarJob<PastCard>[]> {
  const past = shallowRef<readonly JobCard[]>([]);
  const ask = useDebounceFn(async () => {
    const { symptoms, family, layout, code } = now.value;
    if (symptoms.length === 0) return;
    try {
      const reply = await api.similarJobs({ family, layout, code, symptoms: symptoms.join(',') });
      if (reply.ok) past.value = reply.value;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
    }
  }, rest);
  watch(() => JSON.stringify(now.value), ask, { immediate: true });
  return computed(() => {
    const cards = past.value.map((card): PastCard => {
      const { family, layout, code, ...others } = card;
      return { ...others, ...(family ? { family } : {}), ...(layout ? { layout } : {}), ...(code ? { code } : {}) };
    });
    return similarJobs(now.value, cards, mostShown);
  });
}
