/**
 * Whether two faults explain the evidence better than any one. Not hypotheses of their own (a change of symptom starts the
 * case anew, which costs less): a word of doubt with its probability.
 *
 * Two faults together: what is abnormal is explained by the fault that explains it better, what is normal has to be borne by
 * both. So an observation's likelihood is the larger of the two where it is abnormal and the smaller where it is not.
 */
import { historiesTold, type CompiledPack } from '../../knowledge/index.ts';
import { liveEntries, type CaseInput } from '../../ledger/index.ts';
import type { Belief } from './belief.ts';
import type { EvidenceUnit } from '../evidence/interpretation.ts';
import { toldOnArrival } from '../evidence/onArrival.ts';
import { circumstancesIn, plainOutcome } from '../evidence/rows.ts';

// Values of ours until closed jobs tell better ones.
/** Sets with a second fault that bears on the symptom. */
const secondFault = 0.03;

/** Chance of a second fault before anything was measured, by what happened to the set. */
export function secondFaultProbability(input: Pick<CaseInput, 'entries'>, compiled: Pick<CompiledPack, 'pack' | 'likelihoodWord'>): number {
  const told = historiesTold(compiled.pack, toldOnArrival(liveEntries(input.entries)));
  return Math.max(secondFault, ...told.flatMap(({ second }) => (second === undefined ? [] : [compiled.likelihoodWord(second)])));
}

/** Whether what happened to the set makes a second fault likely enough to be said before any price. */
export const mayHideSecond = (...asked: Parameters<typeof secondFaultProbability>): boolean =>
  secondFaultProbability(...asked) > secondFault;

/** Probability that a second fault is there, and the likeliest pair. */
export interface TwoFaults {
  /** Of two against one, both from the pack; what is not in it is another doubt. */
  readonly probability: number;
  /** The likeliest pair. */
  readonly faults: readonly [string, string];
  /** Assembly -> the chance that it is at fault, alone or as one of two. */
  readonly involved: ReadonlyMap<string, number>;
}

/** Undefined where the layout has no two assemblies that could fail together. */
export function twoFaults(input: CaseInput, belief: Belief, compiled: CompiledPack): TwoFaults | undefined {
  const { hypotheses, units } = belief.interpretation;
  const normal = units.map((unit) => isNormal(unit, belief, compiled));
  const count = units.length;
  // One row a hypothesis, flat: thousands of pairs are looked at with every answer.
  const logs = new Float64Array(hypotheses.length * count);
  units.forEach(({ logLikelihood }, u) => logLikelihood.forEach((log, h) => (logs[h * count + u] = log)));
  const second = secondFaultProbability(input, compiled);
  const one = hypotheses.map(({ prior }, h) => Math.log(prior) + units.reduce((sum, unit) => sum + (unit.logLikelihood[h] ?? 0), 0));
  // All against the best single, so that nothing underflows.
  const top = Math.max(...one);
  const single = one.reduce((sum, log, h) => sum + (hypotheses[h]?.fault ? Math.exp(log - top) : 0), 0) * (1 - second);
  let pairs = 0;
  const { ids, of } = belief.places;
  const together = new Float64Array(ids.length);
  let best: { weight: number; faults: readonly [string, string] } | undefined;
  for (let a = 0; a < hypotheses.length; a += 1) {
    const left = hypotheses[a];
    if (!left?.fault) continue;
    for (let b = a + 1; b < hypotheses.length; b += 1) {
      const right = hypotheses[b];
      if (!right?.fault || right.layoutId !== left.layoutId || right.fault.assembly === left.fault.assembly) continue;
      let log = Math.log(2 * left.prior * right.prior);
      for (let u = 0; u < count; u += 1) {
        const first = logs[a * count + u] ?? 0;
        const other = logs[b * count + u] ?? 0;
        log += normal[u] === first < other ? first : other;
      }
      const weight = Math.exp(log - top);
      pairs += weight;
      for (const place of [of[a] ?? 0, of[b] ?? 0]) together[place] = (together[place] ?? 0) + weight;
      if (!best || weight > best.weight) best = { weight, faults: [left.fault.id, right.fault.id] };
    }
  }
  if (!best) return undefined;
  const two = pairs * second;
  const probability = two / (single + two);
  const involved = new Map(
    ids.map((id, place) => [id, (belief.assemblies.get(id) ?? 0) * (1 - probability) + ((together[place] ?? 0) / pairs) * probability]),
  );
  return { probability, faults: best.faults, involved };
}

/** Every look of the unit showed what a set shows where nothing is wrong with what was looked at. */
function isNormal(unit: EvidenceUnit, belief: Belief, compiled: CompiledPack): boolean {
  const { layoutId } = belief.interpretation;
  if (unit.kind !== 'test' || layoutId === undefined) return false;
  const now = circumstancesIn(layoutId, belief.interpretation, compiled);
  return unit.answers.every(({ test, outcome }) => {
    const found = compiled.tests.get(test);
    return found !== undefined && plainOutcome(found, now, compiled) === outcome;
  });
}
