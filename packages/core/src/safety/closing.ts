/** What must be as it was before a set leaves as repaired. */
import type { CompiledPack } from '../knowledge/index.ts';
import type { BodyOf, closingChecks, Entry, SetState } from '../ledger/index.ts';
import { stillOut, type CanBeLeft } from './places.ts';

/** Ends after which the set is used again. */
export const usedAgain: readonly BodyOf<'job.closed'>['outcome'][] = ['repaired', 'repaired-with-known-flaw', 'workaround'];

/**
 * Plugs out, bridges, tape and parts off that stand between a set and being closed as repaired, named as `stillOut` names them: all that is not
 * recorded as a modification that stays. A set handed back or given up may leave as it is.
 */
export function leftBeforeClosing(body: Pick<BodyOf<'job.closed'>, 'outcome' | 'modified'>, state: CanBeLeft): string[] {
  if (!usedAgain.includes(body.outcome)) return [];
  return stillOut(state).filter((one) => !body.modified?.includes(one));
}

/** One of `closingChecks`. */
export type ClosingCheck = (typeof closingChecks)[number];

/**
 * Checks a set needs before it is used again and that this closing doesn't answer. Ground screws wherever the cover was off; insulation and
 * touch current after a surge or work on the mains side, "passed" or "not required" by the local rule.
 */
export function checksBeforeClosing(
  body: Pick<BodyOf<'job.closed'>, 'outcome' | 'checked'>,
  live: readonly Entry[],
  state: Pick<SetState, 'stage'>,
  compiled: CompiledPack,
): ClosingCheck[] {
  if (!usedAgain.includes(body.outcome)) return [];
  const mains = new Set(compiled.pack.assemblies.filter((one) => one.mains).map(({ id }) => id));
  const repaired = (id: string): boolean => {
    const repair = compiled.pack.repairs.find((one) => one.id === compiled.currentId(id));
    const found = repair?.mainsAfter?.some(({ test, outcomes }) =>
      live.some(({ body: one }) => one.kind === 'test.answered' && compiled.currentId(one.test) === test && outcomes.includes(one.outcome)),
    );
    return repair !== undefined && (mains.has(repair.assembly) || found === true);
  };
  const onMains = live.some(
    ({ body: one }) =>
      (one.kind === 'job.opened' && one.condition?.includes('storm')) ||
      (one.kind === 'repair.done' && one.result !== 'not-tried' && repaired(one.repair)) ||
      (one.kind === 'part.fitted' && mains.has(one.assembly)),
  );
  const needed: ClosingCheck[] = [
    ...(state.stage > 0 ? (['ground-screws'] as const) : []),
    ...(onMains ? (['insulation', 'touch-current'] as const) : []),
  ];
  // A ground screw is in or it isn't: no local rule leaves it out.
  return needed.filter((check) => (check === 'ground-screws' ? body.checked?.[check] !== 'passed' : body.checked?.[check] === undefined));
}
