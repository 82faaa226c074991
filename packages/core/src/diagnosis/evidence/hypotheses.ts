/** What may be wrong, before anything was seen. */
import type { CompiledPack, Family } from '../../knowledge/index.ts';
import type { CaseInput, Entry } from '../../ledger/index.ts';
import type { Hypothesis, Unused } from './interpretation.ts';

/** Probabilities over layouts: as found on the bench, else as guessed at the counter, else as common as the pack says. Sum to 1. */
export function layoutProbabilitiesOf(
  input: CaseInput,
  live: readonly Entry[],
  compiled: CompiledPack,
  unused: Unused[],
): Record<string, number> {
  const found = live.filter((entry) => entry.body.kind === 'layout.found').at(-1);
  const guess = found?.body.kind === 'layout.found' ? found.body.layout : input.set.layout;
  const wanted = typeof guess === 'string' ? { [guess]: 1 } : guess.probabilities;
  const weights: Record<string, number> = {};
  for (const [id, weight] of Object.entries(wanted)) {
    const current = compiled.currentId(id);
    if (!compiled.layouts.has(current)) unused.push({ entry: found?.id ?? 'set', code: 'unknown-layout', id });
    else if (weight > 0) weights[current] = (weights[current] ?? 0) + weight;
  }
  if (Object.keys(weights).length === 0) {
    for (const layout of compiled.pack.layouts) weights[layout.id] = compiled.pack.scale.frequency[layout.frequency] ?? 1;
  }
  const total = Object.values(weights).reduce((a, b) => a + b, 0);
  return Object.fromEntries(Object.entries(weights).map(([id, weight]) => [id, weight / total]));
}

/** Every single fault of every possible layout, and for each layout "not in the pack"; priors sum to 1. */
export function hypothesesOf(layoutProbabilities: Readonly<Record<string, number>>, compiled: CompiledPack, family?: Family): Hypothesis[] {
  const outsideBook = compiled.pack.thresholds.notInBook;
  return Object.entries(layoutProbabilities).flatMap(([layoutId, share]) => {
    const probabilities = compiled.priorsIn(layoutId, family);
    const single = (compiled.faultsOf.get(layoutId) ?? []).map((fault, index) => ({
      layoutId,
      fault,
      prior: share * (1 - outsideBook) * (probabilities[index] ?? 0),
    }));
    return [...single, { layoutId, fault: undefined, prior: share * outsideBook }];
  });
}
