/** Talking to the server. A refusal is a value with its problem document; only "can't be reached" and bugs throw. */
import {
  appendedSchema,
  blinkTablesSchema,
  currentPackSchema,
  customersSchema,
  readJobCards,
  jobSchema,
  newestCountsSchema,
  ownHeader,
  peopleSchema,
  photoSchema,
  problemDocumentSchema,
  shopStateSchema,
  toldListSchema,
  type Appended,
  type EntryDraft,
  type Job,
  type JobCards,
  type KnownCustomer,
  type NewJobInput,
  type NewTold,
  type Person,
  type Photo,
  type ProblemDocument,
  type BlinkTables,
  type ChangeBlinkTable,
  type ShopChange,
  type ShopState,
  type Told,
} from '@veglia/contract';
import { countsSchema, parsePack, type Counts, type Pack } from '@veglia/core';
import { ref } from 'vue';
import { z } from 'zod';
import { local } from './stores/local.ts';
import { isNotNow, retryAfterMs } from './sync/reply.ts';

/** No reply, one that can't be read, or the server said that it is in trouble itself: worth another try later. */
export class NotReached extends Error {
  /** As the server asked, milliseconds. */
  readonly afterMs: number | undefined;

  constructor(message: string, afterMs?: number) {
    super(message);
    this.afterMs = afterMs;
  }
}

export type Reply<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: ProblemDocument };

async function call<T>(
  path: string,
  read: (value: unknown) => T,
  send?: { readonly method?: 'POST' | 'PUT' } & ({ readonly body: unknown } | { readonly blob: Blob }),
): Promise<Reply<T>> {
  let response: Response;
  try {
    response = await fetch(path, {
      method: send ? (send.method ?? 'POST') : 'GET',
      ...(send
        ? 'blob' in send
          ? { headers: { [ownHeader]: '1', 'content-type': 'application/octet-stream' }, body: send.blob }
          : { headers: { [ownHeader]: '1', 'content-type': 'application/json' }, body: JSON.stringify(send.body) }
        : {}),
    });
  } catch (error) {
    throw new NotReached(String(error));
  }
  const said: unknown = await response.json().catch(() => undefined);
  // Cut off in the middle: whether it was stored isn't known.
  if (response.ok && said === undefined) throw new NotReached('the reply broke off');
  if (response.ok) return { ok: true, value: read(said) };
  const problem = problemDocumentSchema.safeParse(said);
  if (!problem.success || isNotNow(response.status))
    throw new NotReached(`status ${response.status}`, retryAfterMs(response.headers.get('retry-after'), Date.now()));
  return { ok: false, problem: problem.data };
}

/** Whether the last look at something kept came from the server; screens say so where it didn't. */
export const reachedServer = ref(true);

/**
 * The same for what a bench must be able to look at without a server: each reply is kept, and where the server is away the one kept
 * last is given instead. Throws NotReached where there is none.
 */
async function look<T>(path: string, read: (value: unknown) => T): Promise<Reply<T>> {
  let raw: unknown;
  try {
    const reply = await call(path, (value) => {
      raw = value;
      return read(value);
    });
    reachedServer.value = true;
    if (reply.ok) await (await local()).put('kept', { path, at: new Date().toISOString(), reply: raw });
    return reply;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reachedServer.value = false;
    const kept = await (await local()).get('kept', path);
    if (!kept) throw error;
    return { ok: true, value: read(kept.reply) };
  }
}

/** For what never changes under its path: asked once in a browser's life. */
async function lookOnce<T>(path: string, read: (value: unknown) => T): Promise<Reply<T>> {
  const kept = await (await local()).get('kept', path);
  return kept ? { ok: true, value: read(kept.reply) } : look(path, read);
}

const jobPath = (id: string): string => `/api/jobs/${encodeURIComponent(id)}`;
/** What this browser knows of a job beyond the server's last reply. */
export async function keepJob(job: Job): Promise<void> {
  await (
    await local()
  ).put('kept', { path: jobPath(job.id), at: new Date().toISOString(), reply: JSON.parse(JSON.stringify(job)) as unknown });
}

const readTold = (value: unknown): Told[] => toldListSchema.parse(value).told;

export const api = {
  people: (): Promise<Reply<Person[]>> => look('/api/people', (value) => peopleSchema.parse(value).people),
  currentPack: (): Promise<Reply<string>> => look('/api/packs/current', (value) => z.object({ hash: z.string() }).parse(value).hash),
  pack: (hash: string): Promise<Reply<Pack>> => lookOnce(`/api/packs/${hash}`, parsePack),
  jobs: (): Promise<Reply<JobCards>> => look('/api/jobs', readJobCards),
  job: (id: string): Promise<Reply<Job>> => look(jobPath(id), (value) => jobSchema.parse(value)),
  takeIn: (job: NewJobInput): Promise<Reply<Job>> => call('/api/jobs', (value) => jobSchema.parse(value), { body: job }),
  newestCounts: (): Promise<Reply<number>> => look('/api/counts/newest', (value) => newestCountsSchema.parse(value).number),
  counts: (number: number): Promise<Reply<Counts>> => lookOnce(`/api/counts/${number}`, (value) => countsSchema.parse(value)),
  told: (): Promise<Reply<Told[]>> => look('/api/told', readTold),
  tell: (told: NewTold): Promise<Reply<Told[]>> => call('/api/told', readTold, { body: told }),
  withdrawTold: (id: string): Promise<Reply<Told[]>> => call(`/api/told/${encodeURIComponent(id)}/withdraw`, readTold, { body: {} }),
  addPerson: (person: Person): Promise<Reply<Person[]>> =>
    call('/api/people', (value) => peopleSchema.parse(value).people, { body: person }),
  blinkTables: (): Promise<Reply<BlinkTables>> => look('/api/blink-tables', (value) => blinkTablesSchema.parse(value)),
  changeBlinkTable: (change: ChangeBlinkTable): Promise<Reply<string>> =>
    call('/api/blink-tables', (value) => currentPackSchema.parse(value).hash, { body: change }),
  shop: (): Promise<Reply<ShopState>> => look('/api/shop', (value) => shopStateSchema.parse(value)),
  changeShop: (change: ShopChange): Promise<Reply<ShopState>> =>
    call('/api/shop', (value) => shopStateSchema.parse(value), { method: 'PUT', body: change }),
  searchCustomers: (name: string, contact: string): Promise<Reply<KnownCustomer[]>> =>
    call('/api/customers/search', (value) => customersSchema.parse(value).customers, { body: { name, contact } }),
  /** The picture itself is the body: what it is, the server finds out. */
  async putPhoto(id: string, blob: Blob): Promise<Reply<Photo>> {
    return call(`/api/photos/${encodeURIComponent(id)}`, (value) => photoSchema.parse(value), { method: 'PUT', blob });
  },
  /** What was written behind a seq. */
  entriesAfter: (id: string, after: number): Promise<Reply<Appended>> =>
    call(`${jobPath(id)}/entries?after=${after}`, (value) => appendedSchema.parse(value)),
  append: (id: string, by: string, entries: readonly EntryDraft[]): Promise<Reply<Appended>> =>
    call(`${jobPath(id)}/entries`, (value) => appendedSchema.parse(value), { body: { by, entries } }),
};
