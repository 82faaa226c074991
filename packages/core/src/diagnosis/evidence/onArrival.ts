/** What was known of a set as it came in. */
import type { Entry } from '../../ledger/index.ts';

/** Ids of what happened to it: conditions seen, and what others did before. */
export function toldOnArrival(live: readonly Entry[]): readonly string[] {
  const opened = live.find(({ body }) => body.kind === 'job.opened')?.body;
  return opened?.kind === 'job.opened' ? [...(opened.condition ?? []), ...(opened.earlierDid ?? [])] : [];
}
