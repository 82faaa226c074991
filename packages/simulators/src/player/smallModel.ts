/** Small models cut out of a pack: few faults of one symptom, few tests, all repairs that cure any of them. */
import { believe, decideFrom, defaultSettings, type CompiledPack, type DecisionModel } from '@veglia/core';
import { randomFrom, seedOf } from '../set/index.ts';

/** A decision model small enough to be solved exactly. */
export interface SmallModel {
  readonly layoutId: string;
  readonly symptom: string;
  readonly faults: readonly string[];
  readonly model: DecisionModel;
  readonly probabilities: Float64Array;
}

/** `faults` likely ones of a symptom drawn at random, with `tests` of the tests that tell most of them apart, drawn too. */
export function smallModel(compiled: CompiledPack, faults: number, tests: number, seed: number): SmallModel | undefined {
  const random = randomFrom(seedOf(seed, 'small model'));
  const layout = compiled.pack.layouts[Math.floor(random() * compiled.pack.layouts.length)];
  const symptom = compiled.symptomIds[Math.floor(random() * compiled.symptomIds.length)];
  if (!layout || symptom === undefined) return undefined;
  const entries = [
    {
      id: 'a',
      seq: 1,
      at: '2026-01-01T00:00:00Z',
      by: 'bench',
      basedOn: 0,
      body: { kind: 'symptom.reported' as const, v: 2 as const, symptoms: [symptom] },
    },
  ];
  const belief = believe({ set: { layout: layout.id }, settings: defaultSettings, entries }, compiled);
  const from = decideFrom(belief, compiled, defaultSettings);
  if (!from) return undefined;
  const { model } = from.decision;
  const kept = belief.probabilities
    .map((p, h) => ({ p, h }))
    .filter(({ h }) => belief.interpretation.hypotheses[h]?.fault !== undefined)
    .sort((a, b) => b.p - a.p)
    .slice(0, 2 * faults)
    .map((one) => ({ ...one, order: random() }))
    .sort((a, b) => a.order - b.order)
    .slice(0, faults);
  if (kept.length < faults) return undefined;
  const total = kept.reduce((sum, { p }) => sum + p, 0);
  const probabilities = Float64Array.from(kept, ({ p }) => p / total);
  const place = new Map(kept.map(({ h }, index) => [h, index]));
  const usable = model.tests
    .map((test) => ({ ...test, outcomes: test.outcomes.map((row) => Float64Array.from(kept, ({ h }) => row[h] ?? 0)) }))
    .map((test) => ({ test, order: random() / (spread(test.outcomes, probabilities) + 1e-6) }))
    .sort((a, b) => a.order - b.order)
    .slice(0, tests)
    .map(({ test }) => test);
  if (usable.length < tests) return undefined;
  const repairs = model.repairs
    .map((repair) => ({
      ...repair,
      cures: repair.cures.flatMap(({ hypothesis, chance }) => {
        const index = place.get(hypothesis);
        return index === undefined ? [] : [{ hypothesis: index, chance }];
      }),
    }))
    .filter(({ cures }) => cures.length > 0);
  if (repairs.length > mostRepairs) return undefined;
  return {
    layoutId: layout.id,
    symptom,
    faults: kept.map(({ h }) => belief.interpretation.hypotheses[h]?.fault?.id ?? ''),
    model: { ...model, tests: usable, repairs },
    probabilities,
  };
}

/** Models with more repairs take minutes to solve; they are passed over, whatever they hold. */
const mostRepairs = 8;

/** How far the outcomes' rows differ between the hypotheses, weighed by their probabilities. */
function spread(outcomes: readonly Float64Array[], probabilities: Float64Array): number {
  return outcomes.reduce((sum, row) => {
    const middle = row.reduce((total, p, h) => total + p * (probabilities[h] ?? 0), 0);
    return sum + row.reduce((total, p, h) => total + (probabilities[h] ?? 0) * (p - middle) ** 2, 0);
  }, 0);
}
