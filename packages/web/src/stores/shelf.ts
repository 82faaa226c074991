/**
 * Sets in the workshop as cards: open ones in the order of their shelves, loaded a page at a time and then kept fresh one card at a time by
 * what the server tells; closed ones only as far as somebody looks.
 */
import { mostOnAPage, type JobCard, type UnreadableCard } from '@veglia/contract';
import { defineStore } from 'pinia';
import { computed, onScopeDispose, ref, shallowRef } from 'vue';
import { api, NotReached, reachedServer } from '../api.ts';
import { onLive, onOtherJob, type News } from './live.ts';

/**
 * News within so many milliseconds are looked at together (values of ours): while cards are on the screen, and otherwise, where only their timers matter, which
 * ring wherever one is. In a shop where something is written all the time, cards follow no oftener than every `apart`.
 */
const together = { shown: 250, unseen: 10_000, apart: 3000 };
/** Open sets beyond so many are found by searching: no workshop plans its day over more (value of ours). */
const mostOpen = 1000;
const closedAtOnce = 50;
/** Asked for by their ids at once, as many as the server takes. */
const mostIds = 50;

/** Cards in the order of the shelves, as the server sorts them: nowhere last, "B 2" before "B 10", oldest first. */
export function inShelfOrder(a: JobCard, b: JobCard): number {
  const [one, other] = [a.shelf ?? '', b.shelf ?? ''];
  return (
    Number(one === '') - Number(other === '') ||
    one.localeCompare(other, 'en', { numeric: true }) ||
    a.openedAt.localeCompare(b.openedAt) ||
    a.number - b.number
  );
}

/** The list with these cards in the place of their older selves; what is closed now leaves it. */
export function patched(cards: readonly JobCard[], news: readonly JobCard[]): JobCard[] {
  const fresh = new Map(news.map((card) => [card.jobId, card]));
  return [...cards.filter(({ jobId }) => !fresh.has(jobId)), ...news.filter(({ state }) => state !== 'closed')].sort(inShelfOrder);
}

export const useShelf = defineStore('shelf', () => {
  const cards = shallowRef<JobCard[]>();
  /** All open ones, loaded or not. */
  const total = ref(0);
  const closed = shallowRef<readonly JobCard[]>([]);
  const closedTotal = ref(0);
  const closedMore = ref(false);
  const closedNext = ref<number | null>(null);
  /** Jobs whose card this program can't read: named, and to be opened all the same. */
  const unreadable = shallowRef<readonly UnreadableCard[]>([]);
  const reached = ref(true);
  let soon: { readonly timer: ReturnType<typeof setTimeout>; readonly at: number } | undefined;
  let lookedAt = -Infinity;
  let shown = 0;
  const told = new Map<string, number>();
  let all = false;

  const quietly = async (work: () => Promise<void>): Promise<void> => {
    try {
      await work();
      reached.value = reachedServer.value;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      reached.value = false;
    }
  };

  async function loadOpen(): Promise<void> {
    let loaded: JobCard[] = [];
    let cannot: UnreadableCard[] = [];
    let after: number | undefined;
    do {
      const reply = await api.jobs({ state: 'open', order: 'shelf', limit: mostOnAPage, after });
      if (!reply.ok) return;
      loaded = [...loaded, ...reply.value.jobs];
      cannot = [...cannot, ...reply.value.unreadable];
      // The first page is on the screen while the others come.
      if (after === undefined || reply.value.next === null || loaded.length >= mostOpen) {
        cards.value = loaded;
        unreadable.value = cannot;
        total.value = Math.max(reply.value.total, loaded.length);
      }
      after = reply.value.next ?? undefined;
    } while (after !== undefined && loaded.length < mostOpen);
  }

  /** The next closed ones, newest first; `anew`: from the newest on. */
  async function loadClosed(again = false): Promise<void> {
    await quietly(async () => {
      const after = again ? undefined : (closedNext.value ?? undefined);
      const reply = await api.jobs({ state: 'closed', order: 'newest', limit: closedAtOnce, after });
      if (!reply.ok) return;
      closed.value = again ? reply.value.jobs : [...closed.value, ...reply.value.jobs];
      closedTotal.value = reply.value.total;
      closedMore.value = reply.value.more;
      closedNext.value = reply.value.next;
    });
  }

  let loading: Promise<unknown> | undefined;
  /** Open sets, and beside them how many are closed. Resolves once both are known; asked again meanwhile, it is the same. */
  async function load(): Promise<void> {
    loading ??= Promise.all([quietly(loadOpen), loadClosed(true)]).finally(() => (loading = undefined));
    await loading;
  }

  async function lookAtNews(): Promise<void> {
    // What is being loaded may be older than the news: it comes first, or it would be put over them.
    await loading;
    const known = new Map((cards.value ?? []).map(({ jobId, entryCount }) => [jobId, entryCount]));
    const ids = [...told].filter(([id, seq]) => (known.get(id) ?? 0) < seq).map(([id]) => id);
    const everything = all || ids.length > mostIds;
    told.clear();
    all = false;
    if (everything) await load();
    else if (ids.length > 0)
      await quietly(async () => {
        const reply = await api.jobsNow({ ids: ids.join(','), limit: mostIds });
        if (!reply.ok) return;
        const before = cards.value ?? [];
        cards.value = patched(before, reply.value.jobs);
        total.value += cards.value.length - before.length;
        if (reply.value.jobs.some(({ state }) => state === 'closed')) await loadClosed(true);
      });
  }
  function lookIn(delay: number): void {
    const now = Date.now();
    const at = Math.max(now + delay, lookedAt + together.apart);
    if (soon && soon.at <= at) return;
    clearTimeout(soon?.timer);
    soon = {
      at,
      timer: setTimeout(() => {
        soon = undefined;
        lookedAt = Date.now();
        void lookAtNews();
      }, at - now),
    };
  }
  function heard(message: News): void {
    if ('job' in message) told.set(message.job, Math.max(told.get(message.job) ?? 0, message.seq));
    else all = true;
    lookIn(shown > 0 || all ? together.shown : together.unseen);
  }
  const lookSoon = (): void => {
    if (soon) lookIn(together.shown);
  };
  /** For as long as the component lives that calls it, cards are on the screen and follow what is written. */
  function show(): void {
    shown += 1;
    lookSoon();
    onScopeDispose(() => (shown -= 1));
  }
  onLive(heard);
  // Its own timers rang from its ledger; from now on they ring from its card.
  onOtherJob(lookSoon);

  const timers = computed(() =>
    (cards.value ?? [])
      .flatMap((card) => card.waits.map((wait) => ({ ...wait, jobId: card.jobId, number: card.number, title: card.title })))
      .sort((a, b) => a.endsAt - b.endsAt || (a.id < b.id ? -1 : 1)),
  );
  return { cards, total, closed, closedTotal, closedMore, closedNext, unreadable, reached, timers, load, loadClosed, show };
});
