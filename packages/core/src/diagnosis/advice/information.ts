/** What a test would tell, before it is done. */
import type { CompiledPack, TestDefinition } from '../../knowledge/index.ts';
import type { Belief } from '../belief/belief.ts';
import { notInBook } from '../evidence/interpretation.ts';
import { entropyBits, rounded } from '../belief/posterior.ts';
import { nextLook } from '../evidence/rows.ts';
import type { OutcomePreview } from './steps.ts';

/** Expected fall of the entropy over assemblies, bits, and what each answer would leave. */
export function expectedInformation(
  belief: Belief,
  compiled: CompiledPack,
  test: TestDefinition,
  of: string | undefined,
): { bits: number; would: OutcomePreview[] } {
  const { probabilities, places } = belief;
  const told = nextLook(belief.interpretation, compiled, test, of, belief.circumstances);
  const { cleared } = compiled.pack.thresholds;
  const sums = new Float64Array(places.ids.length);
  let after = 0;
  const would = compiled.outcomeIds(test.id).map((outcome, index) => {
    const row = told[index];
    sums.fill(0);
    let chance = 0;
    for (let h = 0; h < probabilities.length; h += 1) {
      const joint = (probabilities[h] ?? 0) * (row?.[h] ?? 0);
      const place = places.of[h] ?? 0;
      sums[place] = (sums[place] ?? 0) + joint;
      chance += joint;
    }
    const scale = chance > 0 ? 1 / chance : 0;
    let bits = 0;
    let top = 0;
    const clears: string[] = [];
    places.ids.forEach((id, place) => {
      const p = (sums[place] ?? 0) * scale;
      if (p > 0) bits -= p * Math.log2(p);
      const best = rounded((sums[top] ?? 0) * scale);
      if (rounded(p) > best || (rounded(p) === best && id < (places.ids[top] ?? ''))) top = place;
      if (id !== notInBook && p < cleared && (belief.assemblies.get(id) ?? 0) >= cleared) clears.push(id);
    });
    after += chance * bits;
    return {
      outcome,
      probability: chance,
      top: { id: places.ids[top] ?? notInBook, probability: (sums[top] ?? 0) * scale },
      clears: clears.sort(),
    };
  });
  return { bits: Math.max(0, entropyBits([...belief.assemblies.values()]) - after), would };
}
