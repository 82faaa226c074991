/** What a test would tell, before it is done. */
import type { CompiledPack, TestDefinition } from '../knowledge/index.ts';
import { sumByAssembly, type Belief } from './belief.ts';
import { notInBook } from './interpretation.ts';
import { entropyBits, rounded } from './posterior.ts';
import type { OutcomePreview } from './steps.ts';
import { oddsFor } from './units.ts';

/** Expected fall of the entropy over assemblies, bits, and what each answer would leave. */
export function expectedInformation(
  belief: Belief,
  compiled: CompiledPack,
  test: TestDefinition,
  of: string | undefined,
): { bits: number; would: OutcomePreview[] } {
  const { interpretation, odds } = belief;
  const { symptoms, family } = interpretation;
  const outcomes = compiled.outcomeIds(test.id);
  const error = compiled.likelihoodWord(test.error);
  const rows = interpretation.hypotheses.map((hypothesis) =>
    oddsFor(test, hypothesis, of, { symptoms, family, layoutId: hypothesis.layoutId }, compiled),
  );
  const { cleared } = compiled.pack.thresholds;
  let after = 0;
  const would = outcomes.map((outcome, index) => {
    const joint = odds.map((p, h) => {
      const told = rows[h]?.[index] ?? 0;
      return p * ((1 - error) * told + (error * (1 - told)) / (outcomes.length - 1));
    });
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
