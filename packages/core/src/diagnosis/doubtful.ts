/**
 * Which answers fit worst with all the others. An answer's score is its leave-one-out odds: p is its chance given every other
 * observation, k the outcomes it might have had; (1 - p) / ((k - 1) p) is above 1 where a wrong look explains it better than
 * a true one. For a list on request and when a repair fails, not for an alarm: good evidence has little redundancy.
 */
import type { CompiledPack } from '../knowledge/index.ts';
import type { CaseInput, Entry } from '../ledger/index.ts';
import { believe, oddsWithoutEntry, type Belief } from './belief.ts';
import { rounded } from './posterior.ts';
import { outcomeTable } from './rows.ts';

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
  const { interpretation } = belief;
  const without = oddsWithoutEntry(interpretation, compiled);
  const answers: DoubtfulAnswer[] = [];
  for (const unit of interpretation.units.filter(({ kind }) => kind === 'test')) {
    for (const entry of unit.entries) {
      const { body } = entry;
      if (body.kind !== 'test.answered') continue;
      const test = compiled.tests.get(compiled.currentId(body.test));
      if (!test) continue;
      const odds = without(entry, unit);
      const outcomes = compiled.outcomeIds(test.id);
      const row = outcomeTable(interpretation, compiled, test, body.of, belief.circumstances).truth[outcomes.indexOf(body.outcome)];
      const chance = odds.reduce((sum, p, h) => sum + p * (row?.[h] ?? 0), 0);
      const others = Math.max(1, outcomes.length - 1);
      answers.push({
        entry,
        test: test.id,
        ...(body.of === undefined ? {} : { of: body.of }),
        outcome: body.outcome,
        chance,
        score: (1 - chance) / (others * Math.max(chance, 1e-12)),
      });
    }
  }
  return answers.sort((a, b) => rounded(b.score) - rounded(a.score) || a.entry.seq - b.entry.seq);
}
