/** Probabilities -> verdict. Over the threshold is not yet proven: the layout says which observations that takes. */
import type { CompiledPack, Layout, ProofItem } from '../../knowledge/index.ts';
import { holds } from '../evidence/conditions.ts';
import { complaintWeights, type Belief, type Influence } from '../belief/belief.ts';
import { notInBook, testKey, type Interpretation } from '../evidence/interpretation.ts';

/** How an assembly stands. */
export const verdicts = ['cleared', 'suspect', 'likely-not-split', 'proven'] as const;
/** One of `verdicts`. */
export type Verdict = (typeof verdicts)[number];

/** An observation that a proof still lacks, and the outcomes that would do. */
export interface MissingStep {
  readonly test: string;
  readonly of?: string;
  readonly outcomes: readonly string[];
}

/** Natural log-odds that observations must have taken off an assembly before it is called ruled out (value of ours: about 2 to 1). */
const leastAgainst = 0.7;
/** A layout less likely than this has no say in what is ruled out (value of ours). */
const leastLayout = 0.1;

/**
 * Ruled out only by an observation: a symptom, whoever tells it, rules nothing out, and neither do priors. While the layout is
 * not certain, every likely layout that has the assembly must agree. A picture symptom that the bench has looked at itself (a picture was
 * drawn, and it was bad) is an observation. "Not in the pack" never is.
 */
export function ruledOut(
  id: string,
  probability: number,
  threshold: number,
  moved: readonly Influence[],
  seen: Interpretation,
  belief: Pick<Belief, 'interpretation' | 'assemblies' | 'probabilities'>,
): boolean {
  if (id === notInBook || probability >= threshold) return false;
  const observed = moved
    .filter(({ entry }) => entry.body.kind !== 'symptom.reported')
    .reduce((sum, { weights }) => sum + (weights.get(id) ?? 0), 0);
  const against = observed + (seen.pictureSeen ? (complaintWeights(belief).get(id) ?? 0) : 0);
  if (against > -leastAgainst) return false;
  const inLayout = new Map<string, { own: number; all: number }>();
  seen.hypotheses.forEach(({ layoutId, fault }, h) => {
    const sums = inLayout.get(layoutId) ?? { own: 0, all: 0 };
    const p = belief.probabilities[h] ?? 0;
    inLayout.set(layoutId, { own: sums.own + (fault?.assembly === id ? p : 0), all: sums.all + p });
  });
  return [...inLayout.values()].every(({ own, all }) => all < leastLayout || own / all < threshold);
}

/** The observation that weighed most against it; where none did, as when the bench looked at a picture symptom itself, that symptom. */
export function rulingEntry(id: string, moved: readonly Influence[]): string | undefined {
  const against = moved
    .map(({ entry, weights }) => ({ entry, weight: weights.get(id) ?? 0, told: entry.body.kind === 'symptom.reported' }))
    .filter(({ weight }) => weight < 0)
    .sort((a, b) => Number(a.told) - Number(b.told) || a.weight - b.weight || a.entry.seq - b.entry.seq);
  return against[0]?.entry.id;
}

/** Whether a proof is in. */
export type ProofState =
  | { readonly met: true }
  /** `missing` is the best way left to the proof; empty where none is left on this set. */
  | { readonly met: false; readonly missing: readonly MissingStep[] };

function itemMet(item: ProofItem, seen: Interpretation): boolean {
  if ('symptoms' in item) return item.symptoms.some((id) => seen.symptoms.has(id));
  if ('traits' in item)
    return Object.entries(item.traits).every(([trait, values]) => values.some((value) => seen.family?.traits[trait] === value));
  const answers = seen.units
    .flatMap((unit) => unit.answers)
    .filter((one) => one.test === item.test && (item.of === undefined || one.of === item.of));
  // What follows from a reading needs no look of its own; where two looks disagree the observation isn't in.
  const follows = seen.follow.get(item.test)?.outcomes;
  if (answers.length === 0 && follows) return [...follows].every((outcome) => item.outcomes.includes(outcome));
  return answers.some((one) => one.sure) && answers.every((one) => item.outcomes.includes(one.outcome));
}

/** A way to the proof is closed once its test came out otherwise, can't be done or can't speak here, or rests on what the set isn't. */
function itemClosed(item: ProofItem, layoutId: string, seen: Interpretation, compiled: CompiledPack): boolean {
  if (!('test' in item)) return !itemMet(item, seen);
  if (seen.impossible.has(testKey(item.test, item.of))) return true;
  const test = compiled.tests.get(item.test);
  const now = { symptoms: seen.symptoms, family: seen.family, layoutId };
  if (!test || (test.scope.symptoms && !holds({ symptoms: test.scope.symptoms }, now))) return true;
  if (test.speaksOnlyIf.some(({ needs }) => !holds(needs, now))) return true;
  const answers = seen.units
    .flatMap((unit) => unit.answers)
    .filter((one) => one.test === item.test && (item.of === undefined || one.of === item.of));
  const follows = [...(seen.follow.get(item.test)?.outcomes ?? [])];
  if (answers.length === 0 && follows.length > 0) return !follows.every((outcome) => item.outcomes.includes(outcome));
  return answers.some((one) => one.sure && !item.outcomes.includes(one.outcome));
}

/** A step that can hardly come out so is not hopeless, only far. */
const leastChance = 0.001;

/** `chance` of a step coming out as needed; left out: certain. The way with the fewest minutes for its chance is named. */
export function proofState(
  layout: Layout,
  assembly: string,
  seen: Interpretation,
  compiled: CompiledPack,
  chance: (step: MissingStep) => number = () => 1,
): ProofState {
  const ways = layout.proof[assembly]?.anyOf ?? [];
  let best: MissingStep[] | undefined;
  let bestRate = Number.POSITIVE_INFINITY;
  for (const way of ways) {
    const open = way.filter((item) => !itemMet(item, seen));
    if (open.length === 0) return { met: true };
    if (open.some((item) => itemClosed(item, layout.id, seen, compiled))) continue;
    const steps = open.flatMap((item) =>
      'test' in item ? [{ test: item.test, ...(item.of === undefined ? {} : { of: item.of }), outcomes: item.outcomes }] : [],
    );
    const minutes = steps.reduce((sum, step) => sum + (compiled.tests.get(step.test)?.minutes ?? 0), 0);
    const likely = steps.reduce((product, step) => product * Math.max(leastChance, chance(step)), 1);
    if (minutes / likely >= bestRate) continue;
    best = steps;
    bestRate = minutes / likely;
  }
  return { met: false, missing: best ?? [] };
}
