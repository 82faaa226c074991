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
  /** By the pack, since the last answer. */
  let underway = 0;
  let state = setOnArrival;
  for (const entry of liveEntries(input.entries)) {
    const { body } = entry;
    if (body.kind === 'set.changed') underway += minutesOfChange(body, state, compiled);
    if (body.kind === 'test.answered' || body.kind === 'repair.done') {
      if (body.minutes === undefined) byTheBook += underway;
      underway = 0;
      if (body.minutes !== undefined) typed += body.minutes;
      else if (body.kind === 'repair.done') {
        const repair = compiled.repairsOf.get(layoutId ?? '')?.find((one) => one.id === compiled.currentId(body.repair));
        const stage = repair && layoutId !== undefined ? stageOfPlace(repair.place, layoutId, compiled) : 0;
        if (repair && body.result !== 'not-tried') {
          byTheBook += repair.minutes + minutesToStage(stage, state, compiled);
        }
      } else if (body.outcome !== 'not-possible' && layoutId !== undefined) {
        const test = compiled.tests.get(compiled.currentId(body.test));
        if (test && compiled.fits(test, layoutId)) {
          byTheBook += test.minutes + effortToReach(compiled.procedure(test, layoutId, body.of), state, compiled).handsOn;
        }
      }
    }
    state = stateAfter(state, entry, compiled, layoutId);
  }
  byTheBook += underway;
  const minutes = typed + byTheBook;
  const cost = priceOf({ handsOn: minutes, wait: 0 }, input.settings);
  return { minutes, byTheBook, cost, ...withParts(cost, minutes, liveEntries(input.entries)) };
}

function withParts(cost: Spent['cost'], minutes: number, live: readonly Entry[]): Omit<Spent, 'minutes' | 'byTheBook' | 'cost'> {
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
