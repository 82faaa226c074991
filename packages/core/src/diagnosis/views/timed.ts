/** What a closed job tells of how long its work takes against the book. */
import { liveEntries, type CaseInput } from '../../ledger/index.ts';
import type { TimedJob } from '../../learning/index.ts';
import type { Spent } from './spent.ts';

/** Whoever did this share of it did the job: value of ours. */
const leastShare = 0.9;
/** Under it a job times nothing: value of ours. */
const leastMinutes = 5;

/** Undefined where the minutes were left as they were proposed, several worked at it, or hardly anything was done. */
export function timedJob(input: CaseInput, { minutes, byPerson }: Pick<Spent, 'minutes' | 'byPerson'>): TimedJob | undefined {
  const close = liveEntries(input.entries).findLast(({ body }) => body.kind === 'job.closed');
  // What was typed is whole minutes; what was proposed, too.
  if (close?.body.kind !== 'job.closed' || close.body.minutes === Math.round(minutes)) return undefined;
  const book = [...byPerson.values()].reduce((sum, one) => sum + one, 0);
  const doer = [...byPerson].find(([, own]) => own >= leastShare * book);
  return book < leastMinutes || !doer ? undefined : { by: doer[0], typed: close.body.minutes, book };
}
