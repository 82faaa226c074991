/** Hands-on time a job has taken so far, waits apart. */
import type { CompiledPack } from '../knowledge/index.ts';
import { liveEntries, setOnArrival, stateAfter, type CaseInput } from '../ledger/index.ts';
import { effortToReach, minutesToStage, priceOf, type NextStep } from './steps.ts';

export interface Spent {
  readonly minutes: number;
  /** Minutes nobody typed: taken from the book, the way to each step included. */
  readonly byTheBook: number;
  readonly cost: NextStep['cost'];
}

/** Entries that were taken back don't count. `layoutId` is the likeliest layout. */
export function spentSoFar(input: CaseInput, compiled: CompiledPack, layoutId: string | undefined): Spent {
  let typed = 0;
  let byTheBook = 0;
  let state = setOnArrival;
  for (const entry of liveEntries(input.entries)) {
    const { body } = entry;
    if (body.kind === 'test.answered' || body.kind === 'repair.done') {
      if (body.minutes !== undefined) typed += body.minutes;
      else if (body.kind === 'repair.done') {
        const repair = compiled.pack.repairs.find((one) => one.id === compiled.currentId(body.repair));
        const access = layoutId === undefined || !repair ? undefined : compiled.layouts.get(layoutId)?.access[repair.assembly];
        const stage = access === undefined ? 0 : compiled.stageIds.indexOf(access);
        if (repair && body.result !== 'not-tried') {
          byTheBook += repair.minutes + minutesToStage(stage, state, compiled);
          state = { ...state, stage: Math.max(state.stage, stage) };
        }
      } else if (body.outcome !== 'not-possible' && layoutId !== undefined) {
        const test = compiled.tests.get(compiled.currentId(body.test));
        if (test?.scope.layouts.includes(layoutId)) {
          byTheBook += test.minutes + effortToReach(compiled.procedure(test, layoutId, body.of), state, compiled).handsOn;
        }
      }
    }
    state = stateAfter(state, entry, compiled, layoutId);
  }
  return { minutes: typed + byTheBook, byTheBook, cost: priceOf({ handsOn: typed + byTheBook, wait: 0 }, input.settings) };
}
