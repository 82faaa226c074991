/** Hands-on time a job has taken so far, waits apart. */
import type { CompiledPack } from '../knowledge/index.ts';
import { liveEntries, setOnArrival, stateAfter, type CaseInput } from '../ledger/index.ts';
import { effortToReach, minutesToStage, priceOf, stageOf, type NextStep } from './steps.ts';

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
        const repair = compiled.repairsOf.get(layoutId ?? '')?.find((one) => one.id === compiled.currentId(body.repair));
        const stage = repair && layoutId !== undefined ? stageOf(repair.assembly, layoutId, compiled) : 0;
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
  return { minutes: typed + byTheBook, byTheBook, cost: priceOf({ handsOn: typed + byTheBook, wait: 0 }, input.settings) };
}
