/** How far a walk has come, told from the ledger alone: so it survives a reload, and two screens agree on it. */
import type { CompiledPack, Family } from '../knowledge/index.ts';
import { setOnArrival, stateAfter, type BodyOf, type Entry, type SetState, type Toward } from '../ledger/index.ts';
import { objectionsTo } from './objections.ts';
import { standingAt, type SetStanding } from './standing.ts';
import { walkTo, type WalkMove, type Walk } from './walk.ts';

/** How far a walk to a step has come. */
export interface Progress {
  readonly walk: Walk;
  /** Moves confirmed so far. */
  readonly done: number;
  /** The move to make now; undefined: the step itself can be done. */
  readonly next: WalkMove | undefined;
  /** The state that may be relied on now. */
  readonly standing: SetStanding;
}

/** What a walk's move is compared by: readings and lists shown may differ. */
const compared = [
  'plugged',
  'railsDown',
  'verified',
  'stage',
  'strap',
  'pulled',
  'restored',
  'bridged',
  'unbridged',
  'taped',
  'untaped',
] as const;
const shape = (change: BodyOf<'set.changed'>): string => JSON.stringify(compared.map((key) => change[key] ?? null));
/** Kinds that break a walk that was begun; all others may come between. */
const breaking = new Set(['set.changed', 'test.answered', 'repair.done', 'layout.found']);

const sameTarget = (a: Toward | undefined, b: Toward): boolean => a?.kind === b.kind && a.id === b.id && a.of === b.of;

/**
 * `live` are the entries that still count, in order; `now` in milliseconds. Undefined where the layout doesn't have the step.
 */
export function progressOf(
  target: Toward,
  live: readonly Entry[],
  compiled: CompiledPack,
  layoutId: string,
  now: number,
  lapseMinutes?: number,
  family?: Family,
): Progress | undefined {
  const states: SetState[] = [setOnArrival];
  for (const entry of live) states.push(stateAfter(states.at(-1) ?? setOnArrival, entry, compiled, layoutId));
  const current = states.at(-1) ?? setOnArrival;
  const standing = standingAt(current, now, lapseMinutes);

  // The last changes made on the way to this step, with nothing else between them.
  const run: { readonly change: BodyOf<'set.changed'>; readonly at: number; readonly before: SetState }[] = [];
  for (let index = live.length - 1; index >= 0; index -= 1) {
    const entry = live[index];
    if (!entry || !breaking.has(entry.body.kind)) continue;
    if (entry.body.kind !== 'set.changed' || !sameTarget(entry.body.toward, target)) break;
    run.unshift({ change: entry.body, at: Date.parse(entry.at), before: states[index] ?? setOnArrival });
  }
  // The earliest beginning from which all that was done is just the walk's moves, and from where it can still go on.
  for (const [start, { before, at }] of run.entries()) {
    const walk = walkTo(target, standingAt(before, at, lapseMinutes), compiled, layoutId, family);
    const made = run.slice(start);
    if (!walk || made.length > walk.moves.length) continue;
    if (!made.every((one, index) => shape(one.change) === shape(walk.moves[index]?.change ?? one.change))) continue;
    const next = walk.moves[made.length];
    const goesOn = next ? objectionsTo(withReadings(next), standing, compiled, layoutId).length === 0 : stillIn(walk, standing);
    if (goesOn) return { walk, done: made.length, next, standing };
  }
  const walk = walkTo(target, standing, compiled, layoutId, family);
  return walk && { walk, done: 0, next: walk.moves[0], standing };
}

const stillIn = ({ endsIn }: Walk, standing: SetStanding): boolean =>
  endsIn === 'plugged'
    ? standing.plugged
    : !standing.plugged &&
      (endsIn === 'unplugged' || (endsIn === 'verified' ? standing.verified : standing.railsDown || standing.verified));

/** A measurement that is still to be made is no objection to making it. */
const withReadings = ({ change, acts }: WalkMove): BodyOf<'set.changed'> => {
  const verify = acts.find((act) => act.kind === 'verify');
  return verify ? { ...change, volts: Object.fromEntries(verify.points.map((point) => [point, 0])) } : change;
};
