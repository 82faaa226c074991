/** All sets of the shop as cards, kept fresh by what the server tells; timers on any of them. */
import type { JobCard, UnreadableCard } from '@veglia/contract';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { api, NotReached, reachedServer } from '../api.ts';
import { onLive } from './live.ts';

/** News within so many milliseconds are looked at together. */
const together = 250;

export const useShelf = defineStore('shelf', () => {
  const cards = shallowRef<JobCard[]>();
  /** Jobs whose card this program can't read: named, and to be opened all the same. */
  const unreadable = shallowRef<readonly UnreadableCard[]>([]);
  const reached = ref(true);
  let soon: ReturnType<typeof setTimeout> | undefined;

  async function load(): Promise<void> {
    try {
      const reply = await api.jobs();
      if (reply.ok) {
        cards.value = reply.value.jobs;
        unreadable.value = reply.value.unreadable;
      }
      reached.value = reachedServer.value;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      reached.value = false;
    }
  }
  onLive(() => {
    soon ??= setTimeout(() => {
      soon = undefined;
      void load();
    }, together);
  });
  const timers = computed(() =>
    (cards.value ?? [])
      .flatMap((card) => card.waits.map((wait) => ({ ...wait, jobId: card.jobId, number: card.number, title: card.title })))
      .sort((a, b) => a.endsAt - b.endsAt || (a.id < b.id ? -1 : 1)),
  );
  return { cards, unreadable, reached, timers, load };
});
