/**
 * Which answers fit worst with all the others. An answer's score is its leave-one-out odds: p is its chance given every other
 * observation, k the outcomes it might have had; (1 - p) / ((k - 1) p) is above 1 where a wrong look explains it better than
 * a true one. For a list on request and when a repair fails, not for an alarm: good evidence has little redundancy.
 */
import type { CompiledPack } from '../../knowledge/index.ts';
import type { CaseInput, Entry } from '../../ledger/index.ts';
import { answerDoubts, believe, type Belief } from './belief.ts';
import { rounded } from './posterior.ts';

/** An answer that may have come wrong, and how likely that is. */
export interface DoubtfulAnswer {
  readonly entry: Entry;
  readonly test: string;
  readonly of?: string;
  readonly outcome: string;
  /** Chance of this answer, told by all the others. */
  readonly chance: number;
  readonly score: number;
}

/** Most doubtful first. */
export function doubtfulAnswers(input: CaseInput, compiled: CompiledPack, belief: Belief = believe(input, compiled)): DoubtfulAnswer[] {
  const answers = answerDoubts(belief, compiled).flatMap(({ entry, chance, score }): DoubtfulAnswer[] => {
    const { body } = entry;
    if (body.kind !== 'test.answered') return [];
    const of = body.of === undefined ? {} : { of: body.of };
    return [{ entry, test: compiled.currentId(body.test), ...of, outcome: body.outcome, chance, score }];
  });
  return answers.sort((a, b) => rounded(b.score) - rounded(a.score) || a.entry.seq - b.entry.seq);
}
