/** The proof of an assembly, and the way to it that is most likely to be gone to its end for its minutes. */
import type { CompiledPack } from '../../knowledge/index.ts';
import { withoutKeystone, type Belief } from '../belief/belief.ts';
import { notInBook } from '../evidence/interpretation.ts';
import { outcomeTable } from '../evidence/rows.ts';
import { proofState, type MissingStep, type ProofState } from './verdict.ts';

/** How an assembly over the threshold stands with its proof; undefined below the threshold. */
export function proofOf(belief: Belief, id: string, compiled: CompiledPack): ProofState | undefined {
  const { layoutId } = belief.interpretation;
  const layout = layoutId === undefined ? undefined : compiled.layouts.get(layoutId);
  const probability = belief.assemblies.get(id) ?? 0;
  if (!layout || id === notInBook || probability < compiled.pack.thresholds.proven) return undefined;
  const state = proofState(layout, id, belief.interpretation, compiled, (step) => chanceOf(step, id, belief, compiled));
  return state.met && withoutKeystone(id, belief, compiled) ? { met: false, missing: [] } : state;
}

/** Chance that a step comes out as the proof needs it, if it is this assembly. */
function chanceOf({ test, of, outcomes }: MissingStep, assembly: string, belief: Belief, compiled: CompiledPack): number {
  const found = compiled.tests.get(test);
  if (!found) return 0;
  const { interpretation, probabilities, circumstances } = belief;
  const { told } = outcomeTable(interpretation, compiled, found, of, circumstances);
  const ids = compiled.outcomeIds(test);
  let total = 0;
  let chance = 0;
  interpretation.hypotheses.forEach(({ fault }, h) => {
    if (fault?.assembly !== assembly) return;
    total += probabilities[h] ?? 0;
    for (const outcome of outcomes) chance += (probabilities[h] ?? 0) * (told[ids.indexOf(outcome)]?.[h] ?? 0);
  });
  return total > 0 ? chance / total : 0;
}
