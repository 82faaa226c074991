/** What must be as it was before a set leaves as repaired. */
import type { BodyOf, SetState } from '../ledger/index.ts';
import { stillOut } from './places.ts';

/** Ends after which the set is used again. */
const usedAgain: readonly BodyOf<'job.closed'>['outcome'][] = ['repaired', 'repaired-with-known-flaw', 'workaround'];

/**
 * Plugs out, bridges and tape that stand between a set and being closed as repaired, named as `stillOut` names them: all that is not
 * recorded as a modification that stays. A set handed back or given up may leave as it is.
 */
export function leftBeforeClosing(
  body: Pick<BodyOf<'job.closed'>, 'outcome' | 'modified'>,
  state: Pick<SetState, 'out' | 'bridged' | 'taped'>,
): string[] {
  if (!usedAgain.includes(body.outcome)) return [];
  return stillOut(state).filter((one) => !body.modified?.includes(one));
}
