/**
 * Whether a proof proves: for each assembly of each layout, the faults elsewhere that pass the same observations. Of all sets that pass, the
 * share that has such a fault: over one in ten, the proof alone can't carry the assembly over the threshold and lacks an observation.
 */
import type { CompiledPack, ProofItem } from '../../knowledge/index.ts';
import { hypothesesOf } from '../evidence/hypotheses.ts';
import { outcomeTable } from '../evidence/rows.ts';

/** Share of the sets that pass a proof whose fault may lie elsewhere (value of ours: the threshold for proven is .9). */
const mayPass = 0.1;

/** A way to a proof that other faults pass too often. */
export interface PassedProof {
  readonly layout: string;
  readonly assembly: string;
  /** Place of the way in the proof's `anyOf`. */
  readonly way: number;
  /** Of all sets that pass it, those whose fault lies elsewhere; and the likeliest such fault. */
  readonly share: number;
  readonly likeliest: string;
}

/** All ways that others pass, worst first; `only` of these layouts. Observations count as independent given the fault; traits and symptoms asked for are taken as given. */
export function passedProofs(compiled: CompiledPack, only?: readonly string[], most = mayPass): PassedProof[] {
  const found: PassedProof[] = [];
  for (const layout of compiled.pack.layouts.filter(({ id }) => only?.includes(id) ?? true)) {
    const hypotheses = hypothesesOf({ [layout.id]: 1 }, compiled, undefined);
    const chances = new Map<string, Float64Array>();
    /** P(one of these outcomes | fault) under a symptom, for every hypothesis; undefined where the test says nothing. */
    const chanceOf = (item: Extract<ProofItem, { test: string }>, symptom: string): Float64Array | undefined => {
      const test = compiled.tests.get(item.test);
      if (!test || !compiled.fits(test, layout.id)) return undefined;
      const key = `${item.test}|${item.of ?? ''}|${item.outcomes.join(',')}|${symptom}`;
      const known = chances.get(key);
      if (known) return known;
      const seen = { layoutProbabilities: { [layout.id]: 1 }, symptoms: new Set([symptom]), family: undefined, hypotheses };
      const { truth } = outcomeTable(seen, compiled, test, item.of);
      const ids = compiled.outcomeIds(test.id);
      const sum = new Float64Array(hypotheses.length);
      for (const outcome of item.outcomes) truth[ids.indexOf(outcome)]?.forEach((p, h) => (sum[h] = (sum[h] ?? 0) + p));
      chances.set(key, sum);
      return sum;
    };
    for (const [assembly, { anyOf }] of Object.entries(layout.proof)) {
      anyOf.forEach((way, index) => {
        const asked = way.flatMap((item) => ('symptoms' in item ? [item.symptoms] : []));
        const tests = way.flatMap((item) => ('test' in item ? [item] : []));
        const weights = hypotheses.map(({ fault, prior }, h) => {
          if (!fault) return 0;
          const shown = compiled.symptomLikelihoods(layout.id, fault.id);
          return compiled.symptomIds.reduce((sum, symptom, place) => {
            const p = shown[place] ?? 0;
            if (p === 0 || !asked.every((some) => some.includes(symptom))) return sum;
            return sum + prior * p * tests.reduce((product, item) => product * (chanceOf(item, symptom)?.[h] ?? 1), 1);
          }, 0);
        });
        const all = weights.reduce((sum, one) => sum + one, 0);
        const elsewhere = hypotheses.map(({ fault }, h) => (fault && fault.assembly !== assembly ? (weights[h] ?? 0) : 0));
        const share = all > 0 ? elsewhere.reduce((sum, one) => sum + one, 0) / all : 0;
        const likeliest = hypotheses[elsewhere.indexOf(Math.max(...elsewhere))]?.fault?.id ?? '';
        if (share > most) found.push({ layout: layout.id, assembly, way: index, share, likeliest });
      });
    }
  }
  return found.sort((a, b) => b.share - a.share || (`${a.layout} ${a.assembly}` < `${b.layout} ${b.assembly}` ? -1 : 1));
}
