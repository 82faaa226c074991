/** What a job has taken so far and what may be spent: one sum, wherever it is shown. */
import { stageOfPlace, type CompiledPack } from '../../knowledge/index.ts';
import {
  agreedLast,
  liveEntries,
  setOnArrival,
  stateAfter,
  type BodyOf,
  type CaseInput,
  type Entry,
  type SetState,
} from '../../ledger/index.ts';
import { effortToReach, minutesToStage, powerChangeMinutes, priceOf, type NextStep } from '../advice/steps.ts';

/** Hands-on minutes of a job so far, and what they cost. */
export interface Spent {
  readonly minutes: number;
  /** Minutes nobody typed: taken from the pack, the way to each step included. */
  readonly byTheBook: number;
  /** What each did by the pack, whether or not minutes were typed; by who wrote the answer. */
  readonly byPerson: ReadonlyMap<string, number>;
  /** Of the labour. */
  readonly cost: NextStep['cost'];
  /** Of parts that were fitted, and labour and parts together. */
  readonly parts: NextStep['cost'];
  readonly total: NextStep['cost'];
  /** What was agreed last: a limit, or a quote that was accepted. */
  readonly limit?: NextStep['cost'];
  readonly limitMinutes?: number;
  /** Beyond what was agreed. */
  readonly over: { readonly money: boolean; readonly minutes: boolean };
}

/** What a recorded change took by the pack: opening further, and the plug. What is pulled is in the minutes of the step it is pulled for. */
function minutesOfChange({ stage, plugged }: BodyOf<'set.changed'>, state: SetState, compiled: CompiledPack): number {
  const opened = stage === undefined ? 0 : minutesToStage(compiled.stageIds.indexOf(stage), state, compiled);
  return opened + (plugged !== undefined && plugged !== state.plugged ? powerChangeMinutes : 0);
}

/** Entries that were undone don't count. `layoutId` is the likeliest layout. Minutes typed with an answer hold the way to it. */
export function spentSoFar(input: CaseInput, compiled: CompiledPack, layoutId: string | undefined): Spent {
  let typed = 0;
  let byTheBook = 0;
  const byPerson = new Map<string, number>();
  /** By the pack, since the last answer. */
  let underway = 0;
  let state = setOnArrival;
  for (const entry of liveEntries(input.entries)) {
    const { body } = entry;
    if (body.kind === 'set.changed') underway += minutesOfChange(body, state, compiled);
    if (body.kind === 'test.answered' || body.kind === 'repair.done') {
      const book = underway + minutesOfStep(body, state, layoutId, compiled);
      byPerson.set(entry.by, (byPerson.get(entry.by) ?? 0) + book);
      if (body.minutes === undefined) byTheBook += book;
      else typed += body.minutes;
      underway = 0;
    }
    state = stateAfter(state, entry, compiled, layoutId);
  }
  byTheBook += underway;
  const minutes = typed + byTheBook;
  const cost = priceOf({ handsOn: minutes, wait: 0 }, input.settings);
  return { minutes, byTheBook, byPerson, cost, ...withParts(cost, minutes, liveEntries(input.entries)) };
}

/** By the pack, with the way to it from how the set stands. */
function minutesOfStep(
  body: BodyOf<'test.answered'> | BodyOf<'repair.done'>,
  state: SetState,
  layoutId: string | undefined,
  compiled: CompiledPack,
): number {
  if (body.kind === 'repair.done') {
    const repair = compiled.repairsOf.get(layoutId ?? '')?.find((one) => one.id === compiled.currentId(body.repair));
    if (!repair || body.result === 'not-tried') return 0;
    const stage = layoutId === undefined ? 0 : stageOfPlace(repair.place, layoutId, compiled);
    return repair.minutes + minutesToStage(stage, state, compiled);
  }
  const test = body.outcome === 'not-possible' ? undefined : compiled.tests.get(compiled.currentId(body.test));
  if (!test || layoutId === undefined || !compiled.fits(test, layoutId)) return 0;
  return test.minutes + effortToReach(compiled.procedure(test, layoutId, body.of), state, compiled).handsOn;
}

function withParts(
  cost: Spent['cost'],
  minutes: number,
  live: readonly Entry[],
): Omit<Spent, 'minutes' | 'byTheBook' | 'byPerson' | 'cost'> {
  const { currency } = cost;
  const bodies = live.map(({ body }) => body);
  const parts = bodies.reduce((sum, body) => sum + (body.kind === 'part.fitted' ? body.price.amountMinor : 0), 0);
  const { limit, minutes: limitMinutes } = agreedLast(bodies);
  const total = { amountMinor: cost.amountMinor + parts, currency };
  return {
    parts: { amountMinor: parts, currency },
    total,
    ...(limit === undefined ? {} : { limit }),
    ...(limitMinutes === undefined ? {} : { limitMinutes }),
    over: {
      money: limit !== undefined && total.amountMinor > limit.amountMinor,
      minutes: limitMinutes !== undefined && minutes > limitMinutes,
    },
  };
}
