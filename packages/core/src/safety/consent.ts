/** What a step breaks that is the customer's to decide: it is asked for at the step, not only at the counter. */
import { silentOutcomes, stageOfPlace, type CompiledPack } from '../knowledge/index.ts';
import type { consents, Entry, SetState, Toward } from '../ledger/index.ts';

/** A step, or the look inside that tells the layout. */
export type ConsentTarget = Toward | { readonly kind: 'layout'; readonly id: string; readonly of?: undefined };
/** One of `consents`. */
export type Consent = (typeof consents)[number];

const silent: readonly string[] = silentOutcomes;

/**
 * Consents a step still needs. `live` are the entries that count; `state` the set's. A running warranty ends with the first opening; settings
 * and accounts go with a reset, an update, a foreign image. Unknown counts as not agreed. A chip that doesn't answer can't be saved first:
 * that it is written all the same, onto a new chip, is an exception on record.
 */
export function consentsFor(
  target: ConsentTarget,
  live: readonly Entry[],
  state: Pick<SetState, 'stage'>,
  compiled: CompiledPack,
  layoutId: string,
): Consent[] {
  const opened = live.findLast(({ body }) => body.kind === 'job.opened')?.body;
  const facts = opened?.kind === 'job.opened' ? opened : undefined;
  const given = new Set(live.flatMap(({ body }) => (body.kind === 'consent.given' ? [body.to] : [])));
  const needed: Consent[] = [];
  if (facts?.warranty === 'running' && state.stage === 0 && stageOfTarget(target, compiled, layoutId) > 0) needed.push('warranty');
  if (facts?.mayLoseData !== true && losesData(target, compiled)) needed.push('data');
  if (skipsReading(target, live, compiled)) needed.push('dead-chip');
  return needed.filter((one) => !given.has(one));
}

function stageOfTarget(target: ConsentTarget, compiled: CompiledPack, layoutId: string): number {
  if (target.kind === 'layout') return 1;
  if (target.kind === 'repair') {
    const repair = compiled.repairsOf.get(layoutId)?.find(({ id }) => id === target.id);
    return repair ? stageOfPlace(repair.place, layoutId, compiled) : 0;
  }
  const test = compiled.tests.get(target.id);
  return test && compiled.fits(test, layoutId) ? compiled.procedure(test, layoutId, target.of).stage : 0;
}

/** A step that carries a caution about data. */
function losesData(target: ConsentTarget, compiled: CompiledPack): boolean {
  const own = target.kind === 'test' ? compiled.tests.get(target.id) : compiled.pack.repairs.find(({ id }) => id === target.id);
  return compiled.pack.cautions.some(({ id, covers }) => covers?.includes('data') === true && own?.cautions.includes(id) === true);
}

/** A repair that asks for a reading first, done without it because an answer says that it can't be had. */
function skipsReading(target: ConsentTarget, live: readonly Entry[], compiled: CompiledPack): boolean {
  if (target.kind !== 'repair') return false;
  const answered = (test: string, outcomes?: readonly string[]): boolean =>
    live.some(
      ({ body }) =>
        body.kind === 'test.answered' &&
        compiled.currentId(body.test) === test &&
        (outcomes?.includes(body.outcome) ?? !silent.includes(body.outcome)),
    );
  const repair = compiled.pack.repairs.find(({ id }) => id === target.id);
  return (
    repair?.first?.some(({ test, unless }) => unless !== undefined && !answered(test) && answered(unless.test, unless.outcomes)) ?? false
  );
}
