/** The order of expected cost: what pays, what cures, or the question whether to stop. */
import { payingTests, refinedMoves, testValues, type Move } from '../../decision/index.ts';
import type { CompiledPack } from '../../knowledge/index.ts';
import type { Settings } from '../../ledger/index.ts';
import type { Belief } from '../belief/belief.ts';
import { decisionOf, type Decision } from './cost.ts';
import { offersOf, type Offer } from './offers.ts';
import { repairStep, stopStep, type NextStep } from './steps.ts';
import { compareKeys, type Scored } from './weighing.ts';

/** `at-once` looks one test ahead; `settled` searches chains of tests, repairs and giving up, bounded by counted standings. */
export type Depth = 'at-once' | 'settled';

/**
 * Steps by expected cost to the end: tests that pay, then the repairs of the cheapest sequence; an unproven repair never stands before a
 * test that pays. When even the sequence costs more than a new set, giving up is put as a question, never taken as a move. Settled, the
 * move with the cheapest chain behind it leads.
 */
export function cheapestSteps(
  all: readonly Scored[],
  belief: Belief,
  compiled: CompiledPack,
  settings: Settings,
  layoutId: string,
  depth: Depth,
): NextStep[] {
  const open = all.filter(({ offer }) => offer.left === undefined).sort((a, b) => compareKeys(a.offer.key, b.offer.key));
  const offers = open.map(({ offer }) => offer);
  const { model, at, plan } = decisionOf(belief, compiled, settings, layoutId, offers);
  const toEndMinor = Math.round(plan.cost);
  const paying = payingTests(testValues(model, at, plan)).flatMap(({ index, saves, cost }): NextStep[] => {
    const step = open[index]?.step;
    const savesMinor = Math.round(saves - cost);
    return step ? [{ ...step, because: { ...step.because, code: 'least-cost', savesMinor, perMinor: saves / cost, toEndMinor } }] : [];
  });
  const repairs = plan.sequence.flatMap((index): NextStep[] => {
    const { id, cures } = model.repairs[index] ?? { id: '', cures: [] };
    const step = repairStep(id, belief, compiled, layoutId, settings);
    const chance = cures.reduce((sum, cure) => sum + (at.probabilities[cure.hypothesis] ?? 0) * cure.chance, 0);
    return step ? [{ ...step, because: { code: 'cheaper-than-testing', chance, toEndMinor } }] : [];
  });
  const steps = [...paying, ...repairs, ...(plan.sequence.length === 0 ? [giveUpStep(compiled, settings, toEndMinor)] : [])];
  if (depth === 'at-once') return steps;
  const [best] = refinedMoves(model, at);
  const first = best && stepOf(best.move);
  return first ? [first, ...steps.filter((one) => one !== first)] : steps;

  function stepOf(move: Move): NextStep | undefined {
    if (move.kind === 'give-up') return steps.find(({ kind }) => kind === 'stop') ?? giveUpStep(compiled, settings, toEndMinor);
    if (move.kind === 'repair') return repairs.find(({ id }) => id === model.repairs[move.index]?.id);
    const step = open[move.index]?.step;
    // It pays only together with what comes after it.
    return (
      paying.find((one) => one.id === step?.id && one.of === step.of) ??
      (step && { ...step, because: { ...step.because, code: 'chain', toEndMinor } })
    );
  }
}

const giveUpStep = (compiled: CompiledPack, settings: Settings, toEndMinor: number): NextStep => ({
  ...stopStep(compiled, settings),
  id: 'give-up',
  because: { code: 'give-up-question', toEndMinor },
});

/** The open tests of a belief as a decision; undefined where the layout isn't known. */
export function decideFrom(
  belief: Belief,
  compiled: CompiledPack,
  settings: Settings,
): { readonly decision: Decision; readonly offers: readonly Offer[] } | undefined {
  const { layoutId } = belief.interpretation;
  if (layoutId === undefined || !compiled.layouts.has(layoutId)) return undefined;
  const offers = offersOf(belief, compiled, settings, layoutId)
    .filter(({ left }) => left === undefined)
    .sort((a, b) => compareKeys(a.key, b.key));
  return { decision: decisionOf(belief, compiled, settings, layoutId, offers), offers };
}
