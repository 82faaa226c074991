/** The job on the bench: its ledger, what waits to be sent, and the fold of both. */
import type { Job } from '@veglia/contract';
import {
  caseOfLedger,
  engine,
  foldCase,
  readBody,
  type Body,
  type CaseFold,
  type CompiledPack,
  type Counts,
  type Entry,
  type Policy,
  type Recommendation,
} from '@veglia/core';
import { defineStore } from 'pinia';
import { v7 as uuidv7 } from 'uuid';
import { computed, markRaw, ref, shallowRef, watch } from 'vue';
import { api, keepJob, NotReached, reachedServer } from '../api.ts';
import { readyRefiner, settleSteps } from './deeper.ts';
import { onLive, watchJob } from './live.ts';
import * as outbox from './outbox.ts';
import { usePacks } from './packs.ts';
import { useSession } from './session.ts';

/** Kinds that were done with a recommendation on the screen: what it said is recorded with them. */
const afterAdvice = new Set<Body['kind']>(['test.answered', 'repair.done', 'part.fitted', 'flash.done', 'job.closed']);
/** Kinds after which another step may come first. */
const changesAdvice = new Set<Body['kind']>([
  'job.opened',
  'symptom.reported',
  'blink.read',
  'layout.found',
  'test.answered',
  'reading.taken',
  'heat.round',
  'stimulus.tried',
  'repair.done',
  'entry.retracted',
  'pack.pinned',
  'job.closed',
  'job.reopened',
]);
/** Between two attempts to send, milliseconds. */
const retryAfter = 3000;

export const useJob = defineStore('job', () => {
  const packs = usePacks();
  const session = useSession();
  const job = shallowRef<Job>();
  const compiled = shallowRef<CompiledPack>();
  const counts = shallowRef<Counts>();
  const stored = shallowRef<Entry[]>([]);
  const waiting = shallowRef<outbox.Waiting[]>([]);
  /** Written this instant, and not in the browser's own store yet. */
  const provisional = shallowRef<outbox.Waiting[]>([]);
  const policy = ref<Policy>('cost');
  const missing = ref(false);
  const reached = ref(true);
  let timer: ReturnType<typeof setTimeout> | undefined;

  /** How far the ledger is here without a gap: what somebody writing now has seen. */
  const lastSeq = computed(() => {
    let seq = 0;
    for (const entry of stored.value) if (entry.seq === seq + 1) seq = entry.seq;
    return seq;
  });

  /** Stored entries, and behind them those on their way with the seq they will most likely get. */
  let last: Entry[] = [];
  const entries = computed<Entry[]>(() => {
    const ids = new Set(stored.value.map((entry) => entry.id));
    const kept = new Set(waiting.value.map((one) => one.draft.id));
    const fresh = provisional.value.filter((one) => one.jobId === job.value?.id && !kept.has(one.draft.id));
    const pending = [...waiting.value, ...fresh].filter((one) => one.refused === undefined && !ids.has(one.draft.id));
    const made = [
      ...stored.value,
      ...pending.flatMap((one, index): Entry[] => {
        const read = readBody(one.draft.body, 'waiting');
        if ('problems' in read) return [];
        return [
          {
            id: one.draft.id,
            seq: (stored.value.at(-1)?.seq ?? 0) + index + 1,
            at: one.draft.at,
            by: one.by,
            basedOn: one.draft.basedOn,
            body: read.body,
          },
        ];
      }),
    ];
    // Stored as they were foreseen: the same ledger, and nothing is folded twice for it.
    const same = made.length === last.length && made.every((entry, index) => entry.id === last[index]?.id && entry.seq === last[index].seq);
    if (!same) last = made;
    return last;
  });
  const waitingIds = computed(() => new Set(waiting.value.map((one) => one.draft.id)));
  const refused = computed(() => waiting.value.filter((one) => one.refused !== undefined));

  /** The same object for the same settings: a job read afresh is folded anew only for what is new in it. */
  const settings = computed<Job['settings'] | undefined>((before) => {
    const now = job.value?.settings;
    return JSON.stringify(now) === JSON.stringify(before) ? before : now;
  });
  const input = computed(() => (settings.value ? caseOfLedger(entries.value, settings.value, counts.value) : undefined));
  /** Probabilities at once; what to do next comes from the worker, and nothing is shown of it before it is settled. */
  const believed = computed<CaseFold | undefined>(() => {
    if (!compiled.value || !input.value) return undefined;
    return foldCase(input.value, compiled.value, policy.value, 'at-once');
  });
  /** The last entry that can change what comes next; moving plugs, reading cautions, waiting and notes leave the step on the screen. */
  const asked = computed(
    () => `${entries.value.findLast(({ body }) => changesAdvice.has(body.kind))?.id ?? ''} ${policy.value} ${compiled.value?.hash ?? ''}`,
  );
  const settled = shallowRef<{ readonly asked: string; readonly steps: Recommendation }>();
  watch(
    believed,
    async (of) => {
      if (!of || !input.value || !compiled.value) return;
      const steps = await settleSteps(input.value, compiled.value, policy.value);
      if (believed.value === of) settled.value = { asked: asked.value, steps };
    },
    { immediate: true },
  );
  const settling = computed(() => believed.value !== undefined && settled.value?.asked !== asked.value);
  const fold = computed<CaseFold | undefined>(() => {
    if (!believed.value) return undefined;
    const steps = settled.value?.asked === asked.value ? settled.value.steps : { next: [], leftOut: [] };
    return { ...believed.value, ...steps };
  });

  /** The pack and the counts come first: a fold is never shown with those of another job. */
  async function accept(loaded: Job): Promise<void> {
    const [pack, counted] = await Promise.all([packs.byHash(loaded.packHash), packs.countsAt(loaded.snapshot)]);
    counts.value = counted;
    compiled.value = pack;
    readyRefiner(pack);
    job.value = loaded;
    const erased = new Set(loaded.entries.flatMap(({ body }) => (body.kind === 'text.redacted' ? [body.entry] : [])));
    const known = new Map(stored.value.filter(({ id }) => !erased.has(id)).map((entry) => [entry.id, entry]));
    stored.value = loaded.entries.flatMap((raw): Entry[] => {
      const there = known.get(raw.id);
      if (there?.seq === raw.seq) return [there];
      const read = readBody(raw.body, `entry ${raw.seq}`);
      return 'body' in read ? [markRaw({ ...raw, body: read.body })] : [];
    });
  }

  async function merge(id: string, added: Job['entries']): Promise<void> {
    const current = job.value;
    if (current?.id !== id) return;
    const known = new Set(current.entries.map(({ id }) => id));
    const entries = [...current.entries, ...added.filter(({ id }) => !known.has(id))].sort((a, b) => a.seq - b.seq);
    await keepJob({ ...current, entries });
    await accept({ ...current, entries });
  }

  /** Others' entries, as far as they are lacking here; a pack or counts that the job has moved to come with the whole of it. */
  async function catchUp(): Promise<void> {
    const current = job.value;
    if (!current) return;
    try {
      const reply = await api.entriesAfter(current.id, lastSeq.value);
      if (!reply.ok) return;
      // Another pack, or texts of earlier entries that are erased.
      if (reply.value.entries.some(({ body }) => body.kind === 'pack.pinned' || body.kind === 'text.redacted')) {
        const fresh = await api.job(current.id);
        if (fresh.ok && reachedServer.value && job.value?.id === current.id) await accept(fresh.value);
      } else await merge(current.id, reply.value.entries);
      reached.value = true;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      reached.value = false;
      timer ??= setTimeout(() => {
        timer = undefined;
        void catchUp();
      }, retryAfter);
    }
  }
  watch(
    () => job.value?.id,
    (id) => watchJob(id),
    { flush: 'sync' },
  );
  onLive((message) => {
    const current = job.value;
    if (!current) return;
    if ('resync' in message) void (reached.value ? catchUp() : open(current.id));
    else if (message.job === current.id && message.seq > lastSeq.value) void catchUp();
  });

  /** Loads a job afresh; what was shown of another job is gone at once. */
  async function open(id: string): Promise<void> {
    clearTimeout(timer);
    timer = undefined;
    if (job.value?.id !== id) {
      job.value = undefined;
      stored.value = [];
    }
    missing.value = false;
    waiting.value = await outbox.waitingFor(id);
    try {
      const reply = await api.job(id);
      if (!reply.ok) {
        missing.value = true;
        return;
      }
      await accept(reply.value);
      reached.value = reachedServer.value;
      if (!reached.value) timer = setTimeout(() => void open(id), retryAfter);
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      reached.value = false;
    }
    if (waiting.value.length > 0) await flush();
  }

  /** Writes bodies to the ledger: kept in this browser first, then sent. */
  async function write(...bodies: Body[]): Promise<void> {
    const current = job.value;
    const person = session.person;
    // Screens come once both are there: what is pressed is never dropped in silence.
    if (!current || !person) throw new Error('nothing can be written before the job and who writes are there');
    const shown = fold.value;
    const all: Body[] = [];
    if (shown && bodies.some((body) => afterAdvice.has(body.kind))) {
      const next = shown.next[0];
      all.push({
        kind: 'advice.shown',
        v: 2,
        engine,
        top: shown.assemblies.slice(0, 3).map(({ id, probability, verdict }) => ({ id, probability, verdict })),
        ...(next ? { next: { kind: next.kind, id: next.id, ...(next.of === undefined ? {} : { of: next.of }) } } : {}),
      });
    }
    all.push(...bodies);
    const at = new Date().toISOString();
    const basedOn = lastSeq.value;
    // Plain data: what comes out of a form is often a proxy, which no store keeps.
    const plain = JSON.parse(JSON.stringify(all)) as Body[];
    const written = plain.map((body): outbox.Waiting => ({
      jobId: current.id,
      by: person.id,
      draft: { id: uuidv7(), at, basedOn, body: { ...body } },
    }));
    // On its way to the browser's own store before the screen is worked out anew, which may take longer than somebody stays on it.
    const kept = outbox.put(written);
    // Folded at once: the next key, however quick, meets the state that this one made.
    provisional.value = [...provisional.value, ...written];
    try {
      await kept;
      if (job.value?.id === current.id) waiting.value = await outbox.waitingFor(current.id);
    } finally {
      provisional.value = provisional.value.filter((one) => !written.includes(one));
    }
    await flush();
  }

  /** A job whose ledger holds more than is here, or moved to another pack: read afresh after the sending. */
  let stale = false;
  outbox.listenToOutbox({
    async stored([first, ...more], sent) {
      const id = job.value?.id;
      if (id === undefined || first?.jobId !== id) return;
      await merge(id, sent.entries);
      if (sent.lastSeq > lastSeq.value || [first, ...more].some((one) => one.draft.body.kind === 'pack.pinned')) stale = true;
    },
    told(state) {
      if (state.reached !== undefined) reached.value = state.reached && reachedServer.value;
      void refreshWaiting();
    },
  });

  async function refreshWaiting(): Promise<void> {
    const id = job.value?.id;
    if (id === undefined) return;
    const now = await outbox.waitingFor(id);
    if (now.filter((one) => one.refused !== undefined).length > refused.value.length) stale = true;
    if (job.value?.id === id) waiting.value = now;
    if (stale) await readAfresh(id);
  }

  async function readAfresh(id: string): Promise<void> {
    stale = false;
    try {
      const fresh = await api.job(id);
      if (fresh.ok && reachedServer.value && job.value?.id === id) await accept(fresh.value);
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      reached.value = false;
    }
  }

  /** Sends what waits, of whichever job. */
  async function flush(): Promise<void> {
    await outbox.outbox.flush();
    await refreshWaiting();
  }

  async function dropRefused(entries: readonly outbox.Waiting[] = refused.value): Promise<void> {
    await outbox.remove(entries);
    await refreshWaiting();
  }

  async function sendRefusedAgain(entries: readonly outbox.Waiting[]): Promise<void> {
    await outbox.tryAgain(entries);
    await flush();
  }

  return {
    job,
    compiled,
    counts,
    entries,
    waiting,
    waitingIds,
    refused,
    input,
    fold,
    settling,
    policy,
    missing,
    reached,
    lastSeq,
    open,
    catchUp,
    write,
    flush,
    dropRefused,
    sendRefusedAgain,
  };
});
