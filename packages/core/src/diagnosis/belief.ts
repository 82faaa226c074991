/** Evidence -> odds over faults and assemblies, and what each entry did to them. */
import type { CompiledPack } from '../knowledge/index.ts';
import type { CaseInput, Entry } from '../ledger/index.ts';
import { interpret } from './evidence.ts';
import { notInBook, type Interpretation } from './interpretation.ts';
import { logOdds, posterior } from './posterior.ts';

export interface Belief {
  readonly interpretation: Interpretation;
  /** One per hypothesis; sums to 1. */
  readonly odds: readonly number[];
  /** Assembly id (and "not-in-the-book") -> odds; sums to 1. */
  readonly assemblies: ReadonlyMap<string, number>;
}

export function believe(input: CaseInput, compiled: CompiledPack): Belief {
  const interpretation = interpret(input, compiled);
  const odds = posterior(
    interpretation.hypotheses.map((hypothesis) => hypothesis.prior),
    interpretation.units.map((unit) => unit.logLikelihood),
  );
  return { interpretation, odds, assemblies: sumByAssembly(interpretation, odds) };
}

export function sumByAssembly(interpretation: Interpretation, odds: readonly number[]): Map<string, number> {
  const assemblies = new Map<string, number>();
  interpretation.hypotheses.forEach(({ fault }, index) => {
    const id = fault?.assembly ?? notInBook;
    assemblies.set(id, (assemblies.get(id) ?? 0) + (odds[index] ?? 0));
  });
  return assemblies;
}

export interface Influence {
  readonly entry: Entry;
  /** Assembly -> natural log-odds gained by this entry: with it, less without it. */
  readonly weights: ReadonlyMap<string, number>;
}

/**
 * What each entry did, by taking it out and believing again: the stated weight is exactly what the odds move when that
 * observation is struck from the case file.
 */
export function influences(input: CaseInput, compiled: CompiledPack, belief: Belief): Influence[] {
  const speaking = belief.interpretation.units.flatMap((unit) => unit.entries);
  return [...new Set(speaking)]
    .sort((a, b) => a.seq - b.seq)
    .map((entry) => {
      const without = believe({ ...input, entries: input.entries.filter((other) => other.id !== entry.id) }, compiled);
      const weights = new Map<string, number>();
      for (const [id, odds] of belief.assemblies) weights.set(id, logOdds(odds) - logOdds(without.assemblies.get(id) ?? 0));
      return { entry, weights };
    });
}

/** What always holds of a belief; run by tests and by the server in development. Throws on a bug of ours. */
export function assertBelief(belief: Belief): void {
  const sum = belief.odds.reduce((a, b) => a + b, 0);
  // Rounding of some hundred additions stays far below this.
  if (Math.abs(sum - 1) > 1e-9) throw new Error(`odds sum to ${sum}`);
  if (belief.odds.some((p) => !(p >= 0 && p <= 1))) throw new Error('odds outside 0..1');
}
