/** Talking to the server. A refusal is a value with its problem document; only "can't be reached" and bugs throw. */
import {
  appendedSchema,
  jobCardsSchema,
  jobSchema,
  newestCountsSchema,
  peopleSchema,
  problemDocumentSchema,
  toldListSchema,
  type Appended,
  type EntryDraft,
  type Job,
  type JobCard,
  type NewJobInput,
  type NewTold,
  type Person,
  type ProblemDocument,
  type Told,
} from '@veglia/contract';
import { countsSchema, parsePack, type Counts, type Pack } from '@veglia/core';
import { z } from 'zod';

/** No reply, or the server said that it can't reach its database: worth another try later. */
export class NotReached extends Error {}

export type Reply<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: ProblemDocument };

async function call<T>(path: string, read: (value: unknown) => T, body?: unknown): Promise<Reply<T>> {
  let response: Response;
  try {
    response = await fetch(path, {
      method: body === undefined ? 'GET' : 'POST',
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch (error) {
    throw new NotReached(String(error));
  }
  if (response.ok) return { ok: true, value: read(await response.json()) };
  const problem = problemDocumentSchema.safeParse(await response.json().catch(() => undefined));
  if (!problem.success || problem.data.code === 'database-away') throw new NotReached(`status ${response.status}`);
  return { ok: false, problem: problem.data };
}

const readTold = (value: unknown): Told[] => toldListSchema.parse(value).told;

export const api = {
  people: (): Promise<Reply<Person[]>> => call('/api/people', (value) => peopleSchema.parse(value).people),
  currentPack: (): Promise<Reply<string>> => call('/api/packs/current', (value) => z.object({ hash: z.string() }).parse(value).hash),
  pack: (hash: string): Promise<Reply<Pack>> => call(`/api/packs/${hash}`, parsePack),
  jobs: (): Promise<Reply<JobCard[]>> => call('/api/jobs', (value) => jobCardsSchema.parse(value).jobs),
  job: (id: string): Promise<Reply<Job>> => call(`/api/jobs/${encodeURIComponent(id)}`, (value) => jobSchema.parse(value)),
  takeIn: (job: NewJobInput): Promise<Reply<Job>> => call('/api/jobs', (value) => jobSchema.parse(value), job),
  newestCounts: (): Promise<Reply<number>> => call('/api/counts/newest', (value) => newestCountsSchema.parse(value).number),
  counts: (number: number): Promise<Reply<Counts>> => call(`/api/counts/${number}`, (value) => countsSchema.parse(value)),
  told: (): Promise<Reply<Told[]>> => call('/api/told', readTold),
  tell: (told: NewTold): Promise<Reply<Told[]>> => call('/api/told', readTold, told),
  withdrawTold: (id: string): Promise<Reply<Told[]>> => call(`/api/told/${encodeURIComponent(id)}/withdraw`, readTold, {}),
  append: (id: string, by: string, entries: readonly EntryDraft[]): Promise<Reply<Appended>> =>
    call(`/api/jobs/${encodeURIComponent(id)}/entries`, (value) => appendedSchema.parse(value), { by, entries }),
};
