/** What a test would tell, before it is done. */
import type { CompiledPack, TestDefinition } from '../knowledge/index.ts';
import { sumByAssembly, type Belief } from './belief.ts';
import { notInBook } from './interpretation.ts';
import { entropyBits, rounded } from './posterior.ts';
import type { OutcomePreview } from './steps.ts';
import { oddsFor } from './units.ts';

/** P(answer | hypothesis), an honest answer's own error included: one row an outcome, one entry a hypothesis. */
export function outcomeRows(belief: Belief, compiled: CompiledPack, test: TestDefinition, of: string | undefined): number[][] {
  const { symptoms, family, hypotheses } = belief.interpretation;
  const error = compiled.likelihoodWord(test.error);
  const odds = hypotheses.map((hypothesis) => oddsFor(test, hypothesis, of, { symptoms, family, layoutId: hypothesis.layoutId }, compiled));
  const outcomes = compiled.outcomeIds(test.id);
  return outcomes.map((_, index) =>
    odds.map((row) => {
      const told = row[index] ?? 0;
      return (1 - error) * told + (error * (1 - told)) / (outcomes.length - 1);
    }),
  );
}

/** Expected fall of the entropy over assemblies, bits, and what each answer would leave. */
export function expectedInformation(
  belief: Belief,
  compiled: CompiledPack,
  test: TestDefinition,
  of: string | undefined,
): { bits: number; would: OutcomePreview[] } {
  const { interpretation, odds } = belief;
  const rows = outcomeRows(belief, compiled, test, of);
  const { cleared } = compiled.pack.thresholds;
  let after = 0;
  const would = compiled.outcomeIds(test.id).map((outcome, index) => {
    const joint = odds.map((p, h) => p * (rows[index]?.[h] ?? 0));
    const chance = joint.reduce((a, b) => a + b, 0);
    const assemblies = sumByAssembly(interpretation, chance > 0 ? joint.map((p) => p / chance) : odds);
    after += chance * entropyBits([...assemblies.values()]);
    const [top] = [...assemblies].sort((a, b) => rounded(b[1]) - rounded(a[1]) || (a[0] < b[0] ? -1 : 1));
    const newlyOut = [...assemblies].filter(([id, p]) => id !== notInBook && p < cleared && (belief.assemblies.get(id) ?? 0) >= cleared);
    return {
      outcome,
      odds: chance,
      top: { id: top?.[0] ?? notInBook, odds: top?.[1] ?? 0 },
      clears: newlyOut.map(([id]) => id).sort(),
    };
  });
  return { bits: Math.max(0, entropyBits([...belief.assemblies.values()]) - after), would };
}
