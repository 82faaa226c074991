/** P(answer | hypothesis) of a test, kept per circumstances: the same for every fold of the same kind of case. */
import { knownAs, type CompiledPack, type TestDefinition } from '../knowledge/index.ts';
import { holds, type Circumstances } from './conditions.ts';
import type { Hypothesis, Interpretation } from './interpretation.ts';

export interface OutcomeTable {
  /** For an answer without error: one row an outcome, one entry a hypothesis. */
  readonly truth: readonly Float64Array[];
  /** The same with an honest answer's own error. */
  readonly told: readonly Float64Array[];
}

const tables = new WeakMap<CompiledPack, Map<string, OutcomeTable>>();

/** What the tables depend on beside test and object: layouts (and with them the hypotheses), complaints, family. */
export function circumstancesKey(seen: Pick<Interpretation, 'layoutOdds' | 'symptoms' | 'family'>): string {
  return `${Object.keys(seen.layoutOdds).join(',')}|${[...seen.symptoms].sort().join(',')}|${seen.family?.id ?? ''}`;
}

/** Circumstances as a layout sees them: its own names for complaints added. */
export function circumstancesIn(
  layoutId: string,
  seen: Pick<Interpretation, 'symptoms' | 'family'>,
  compiled: CompiledPack,
): Circumstances {
  return { symptoms: knownAs(seen.symptoms, compiled.layouts.get(layoutId)), family: seen.family, layoutId };
}

/** Hypotheses must be those of the circumstances' layouts, in the pack's order. */
export function outcomeTable(
  seen: Pick<Interpretation, 'layoutOdds' | 'symptoms' | 'family' | 'hypotheses'>,
  compiled: CompiledPack,
  test: TestDefinition,
  of: string | undefined,
  circumstances = circumstancesKey(seen),
): OutcomeTable {
  let own = tables.get(compiled);
  if (!own) tables.set(compiled, (own = new Map<string, OutcomeTable>()));
  const key = `${test.id}|${of ?? ''}|${circumstances}`;
  const known = own.get(key);
  if (known) return known;
  const error = compiled.likelihoodWord(test.error);
  const count = compiled.outcomeIds(test.id).length;
  const perLayout = new Map<string, Circumstances>();
  const truth = Array.from({ length: count }, () => new Float64Array(seen.hypotheses.length));
  seen.hypotheses.forEach((hypothesis, h) => {
    let now = perLayout.get(hypothesis.layoutId);
    if (!now) perLayout.set(hypothesis.layoutId, (now = circumstancesIn(hypothesis.layoutId, seen, compiled)));
    oddsFor(test, hypothesis, of, now, compiled).forEach((p, outcome) => {
      const row = truth[outcome];
      if (row) row[h] = p;
    });
  });
  const made = { truth, told: truth.map((row) => row.map((p) => (1 - error) * p + (error * (1 - p)) / (count - 1))) };
  own.set(key, made);
  return made;
}

/** P(outcome | hypothesis) over a test's outcomes, for an answer without error. Where the test says nothing: uniform. */
export function oddsFor(
  test: TestDefinition,
  hypothesis: Hypothesis,
  of: string | undefined,
  now: Circumstances,
  compiled: CompiledPack,
): readonly number[] {
  const outcomes = compiled.outcomeIds(test.id);
  const block = test.likelihood.find((one) => holds(one.when, now));
  if (!hypothesis.fault || !block || !compiled.fits(test, hypothesis.layoutId)) return outcomes.map(() => 1 / outcomes.length);
  return compiled.outcomeOdds(test, block, hypothesis.layoutId, hypothesis.fault.id, of);
}

/** The answer a set gives where nothing is wrong with what the test looks at: the likeliest of the row for everything else. */
export function plainOutcome(test: TestDefinition, now: Circumstances, compiled: CompiledPack): string | undefined {
  const block = test.likelihood.find((one) => holds(one.when, now));
  const row = block?.rows.find((one) => one.for.includes('*'));
  if (!row) return undefined;
  return compiled
    .rowOdds(test, row.odds)
    .map((p, index) => ({ p, outcome: compiled.outcomeIds(test.id)[index] }))
    .sort((a, b) => b.p - a.p)[0]?.outcome;
}
