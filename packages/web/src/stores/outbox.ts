/**
 * Entries on their way, of all jobs. What a technician wrote is in IndexedDB before anything is sent, leaves it only when the server has
 * said that it is stored, and is sent in order.
 */
import type { Appended } from '@veglia/contract';
import { api, NotReached, signedInAs } from '../api.ts';
import { fitTogether } from '../sync/batches.ts';
import { exclusively, later, whenBack } from '../sync/browser.ts';
import { refusalOf } from '../sync/reply.ts';
import { Sync } from '../sync/sync.ts';
import { local, type Waiting } from './local.ts';

export type { Waiting };

/**
 * Until the browser's own store has them they also stand where writing waits for nothing: a page that is left takes a transaction along
 * that is not through yet, and on a busy machine that is long enough to meet.
 */
const journalAt = 'veglia.on-its-way.';
const inJournal = (): string[] => Object.keys(localStorage).filter((key) => key.startsWith(journalAt));

/** All at once, and given to the disk at once. */
export async function put(entries: readonly Waiting[]): Promise<void> {
  const [first] = entries;
  if (!first) return;
  const key = `${journalAt}${first.draft.id}`;
  try {
    localStorage.setItem(key, JSON.stringify(entries));
  } catch {
    // Full, or not allowed: the store itself is asked, and says so where it can't either.
  }
  const transaction = (await local()).transaction('waiting', 'readwrite', { durability: 'strict' });
  const added = entries.map((entry) => transaction.store.add(entry));
  transaction.commit();
  await Promise.all([...added, transaction.done]);
  // Only now: where the store failed, the next opening tries again.
  localStorage.removeItem(key);
}

function journalled(key: string): Waiting[] {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '[]') as Waiting[];
  } catch {
    // Not of ours, or damaged: nothing can be read of it, now or later.
    return [];
  }
}
/** What a page that was left did not get into the store. The server takes an entry once, however often it is sent. */
async function recover(): Promise<void> {
  for (const key of inJournal())
    try {
      const entries = journalled(key);
      const transaction = (await local()).transaction('waiting', 'readwrite', { durability: 'strict' });
      const there = new Set((await transaction.store.getAll()).map(({ draft }) => draft.id));
      for (const entry of entries) if (!there.has(entry.draft.id)) await transaction.store.add(entry);
      await transaction.done;
      localStorage.removeItem(key);
    } catch {
      // It stays for the next opening, and the job opens all the same.
    }
}
let recovering: Promise<void> | undefined;
/** Once for the page, before anything is read of what waits: what it writes itself is not recovered. */
const recovered = (): Promise<void> => (recovering ??= recover());

export async function waitingFor(jobId: string): Promise<Waiting[]> {
  await recovered();
  return (await local()).getAllFromIndex('waiting', 'job', jobId);
}

async function change(entries: readonly Waiting[], to: (entry: Waiting) => Waiting | undefined): Promise<void> {
  const transaction = (await local()).transaction('waiting', 'readwrite');
  for (const entry of entries) {
    const now = to(entry);
    if (now) await transaction.store.put(now);
    else if (entry.turn !== undefined) await transaction.store.delete(entry.turn);
  }
  await transaction.done;
}

export const remove = (entries: readonly Waiting[]): Promise<void> => change(entries, () => undefined);

/** Refused ones are sent once more: what stood against them may have gone. */
export const tryAgain = (entries: readonly Waiting[]): Promise<void> => change(entries, ({ refused: _, ...entry }) => entry);

export interface OutboxListener {
  /** They are stored, and not let go of here yet: what is on the screen never vanishes in between. */
  stored?(batch: readonly Waiting[], sent: Appended): Promise<void>;
  /** After each round. */
  told?(state: { readonly reached: boolean | undefined }): void;
}
const listeners = new Set<OutboxListener>();
export function listenToOutbox(listener: OutboxListener): void {
  listeners.add(listener);
}

export const outbox: Sync<Waiting, Appended> = new Sync<Waiting, Appended>({
  async open() {
    await recovered();
    // Somebody else's wait until they sign in here: nothing is sent under another name.
    return (await (await local()).getAll('waiting')).filter(({ refused, by }) => refused === undefined && by === signedInAs.value);
  },
  // In the order of writing: one request for each run of entries of one job by one person.
  together: (open) =>
    fitTogether(
      open.map(({ draft }) => draft),
      (index) => open[index]?.jobId === open[0]?.jobId && open[index]?.by === open[0]?.by,
    ),
  async send(batch) {
    const [first] = batch;
    if (!first) return { kind: 'wait' };
    const drafts = batch.map(({ draft }) => draft);
    try {
      const reply = await api.append(first.jobId, first.by, drafts);
      return reply.ok
        ? { kind: 'stored', sent: reply.value }
        : refusalOf(
            reply.problem,
            drafts.map(({ id }) => id),
          );
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      return { kind: 'wait', ...(error.afterMs === undefined ? {} : { afterMs: error.afterMs }) };
    }
  },
  async stored(batch, sent) {
    for (const listener of listeners) await listener.stored?.(batch, sent);
    await remove(batch);
  },
  refused: (entry, why) => change([entry], () => ({ ...entry, refused: why })),
  exclusively: exclusively('veglia-outbox'),
  later,
  told(state) {
    for (const listener of listeners) listener.told?.(state);
  },
});

/** Once for the page: what was left here by another day is sent, whichever job is on the bench. */
export function startOutbox(): void {
  whenBack(outbox);
  void outbox.flush();
}
