/**
 * What to do next, by one of three orders over the same steps: what leads to the cheapest end, what tells most per minute, or
 * the layout's fixed list.
 */
import type { CompiledPack } from '../../knowledge/index.ts';
import { bookFor } from '../../learning/index.ts';
import type { CaseInput, Settings } from '../../ledger/index.ts';
import { readingBefore } from './before.ts';
import { believe, type Belief } from '../belief/belief.ts';
import { cheapestSteps, type Depth } from './cheapest.ts';
import type { LeftOutCode } from './offers.ts';
import { proofOf } from '../verdict/proof.ts';
import {
  beforeGivingUp,
  beforeRepairing,
  beforeTheCover,
  cheapShare,
  crackQuestion,
  isQuestion,
  leadsProven,
  partsFirst,
  otherWay,
  panelQuestion,
  panelRepair,
  worthNaming,
} from './rules.ts';
import { blinkStep, layoutStep, proveStep, repairSteps, stopStep, type NextStep } from './steps.ts';
import type { Verdict } from '../verdict/verdict.ts';
import { weighing, type Weighing } from './weighing.ts';

/** Orders of steps: lowest expected cost, most information for its minutes, the layout’s fixed list. */
export const policies = ['cost', 'information', 'fixed'] as const;
/** One of `policies`. */
export type Policy = (typeof policies)[number];

/** A test that isn't recommended, with the reason; it may be taken all the same. */
export interface LeftOut {
  readonly code: LeftOutCode;
  readonly step: NextStep;
}

/** What to do next, in order, and what was left out. */
export interface Recommendation {
  /** Best first. */
  readonly next: readonly NextStep[];
  readonly leftOut: readonly LeftOut[];
}

/** Less information than this isn't worth a walk to the bench, bits (value of ours). */
const pointlessBits = 0.01;

/** Steps in the order of precedence; each is named once. Ties are broken by id. */
export function recommend(
  belief: Belief,
  compiled: CompiledPack,
  settings: Settings,
  policy: Policy,
  depth: Depth = 'settled',
): Recommendation {
  const { interpretation } = belief;
  const { layoutId } = interpretation;
  const layout = layoutId === undefined ? undefined : compiled.layouts.get(layoutId);
  if (!layout || interpretation.closed) return { next: [], leftOut: [] };
  const tests = weighing(belief, compiled, settings, layout.id);

  const next: NextStep[] = [];
  const push = (step: NextStep | undefined): void => {
    if (step && !next.some((one) => one.kind === step.kind && one.id === step.id && one.of === step.of)) next.push(step);
  };
  /** A repair that something has to be read before gives way to that; a part that hangs on one answer, to its second proof. */
  const add = (step: NextStep): void => {
    const before = step.kind === 'repair' ? readingBefore(step.id, interpretation, compiled) : undefined;
    if (before === undefined) {
      push(otherWay(step, tests.ranked(), belief, compiled, settings));
      push(step);
    } else if (!interpretation.impossible.has(before)) {
      const reading = tests.weigh(before, undefined)?.step;
      push(reading && { ...reading, because: { code: 'reading-first', ...(step.of === undefined ? {} : { of: step.of }) } });
    }
  };
  const addTest = (id: string, of: string | undefined, because: NextStep['because']): void => {
    const found = tests.weigh(id, of);
    if (found && found.offer.left === undefined) push({ ...found.step, because });
  };
  /** What is missing to the proof of what is likely, where it costs little beside what is at stake. */
  const missingProofs = (stakedMinor: number): void => {
    for (const [assembly, verdict] of verdictsByProof(belief, compiled)) {
      if (verdict !== 'likely-not-split') continue;
      const proof = proofOf(belief, assembly, compiled);
      for (const { test, of } of !proof || proof.met ? [] : proof.missing) {
        const step = tests.weigh(test, of)?.step;
        if (step && step.cost.amountMinor <= stakedMinor * cheapShare) addTest(test, of, { code: 'needed-for-proof', of: assembly });
      }
    }
  };
  const asked = (step: NextStep): NextStep => {
    const panel = step.kind === 'stop' ? panelRepair(belief, compiled, layout.id, settings) : isQuestion(step, compiled) ? step : undefined;
    return panel ? panelQuestion(panel, compiled, settings) : step;
  };

  const repairs = repairSteps(belief, compiled, layout.id, settings, verdictsByProof(belief, compiled)).filter((step) =>
    worthNaming(step, belief, compiled),
  );
  if (interpretation.cured) push(proveStep(compiled, settings));
  else if (interpretation.cracked) push(crackQuestion(belief, compiled, layout.id, settings));
  if (interpretation.symptoms.has('blinking') && !interpretation.blinkRead) push(blinkStep(compiled, settings));
  const settledHere = next.length > 0;
  for (const step of interpretation.cracked ? [] : repairs.filter((one) => leadsProven(one, compiled))) {
    for (const part of partsFirst(step, repairs)) add(part);
    add(step);
  }

  if (policy === 'cost') {
    if (next.length === 0) {
      for (const { step } of beforeTheCover(tests.ranked(), belief, settings))
        push({ ...step, because: { ...step.because, code: 'outside-first' } });
    }
    // What comes after a rule has led is looked at once, not searched.
    const cheapest = cheapestSteps(tests.ranked(), belief, compiled, settings, layout.id, next.length === 0 ? depth : 'at-once');
    const first = cheapest.find((step) => step.kind !== 'test');
    missingProofs(first?.kind === 'stop' ? settings.newSetMinor : (first?.cost.amountMinor ?? 0));
    let tested = false;
    for (const step of cheapest) {
      // Nobody is asked whether to give up a set that works again.
      if ((step.kind === 'stop' || isQuestion(step, compiled)) && interpretation.cured) continue;
      if (step.kind === 'repair' && !worthNaming(step, belief, compiled)) continue;
      if (step.kind !== 'test' && !tested) {
        const test =
          step.kind === 'stop' ? beforeGivingUp(tests.ranked(), belief, compiled, settings) : beforeRepairing(step, tests.ranked());
        push(test && { ...test.step, because: { ...test.step.because, code: 'most-bits-per-minute' } });
      }
      tested = true;
      add(asked(step));
    }
  } else {
    if (policy === 'fixed')
      layout.fixedList.forEach(({ test, of }, index) => addTest(test, of, { code: 'list-order', position: index + 1 }));
    else missingProofs(Number.POSITIVE_INFINITY);
  }
  // The rest may be taken all the same; by cost it comes last and says that it doesn't pay.
  for (const { step, offer } of policy === 'fixed' ? [] : tests.ranked()) {
    if (offer.left !== undefined || (step.because.bits ?? 0) < pointlessBits) continue;
    push(policy === 'cost' ? { ...step, because: { ...step.because, code: 'does-not-pay' } } : step);
  }
  if (policy !== 'cost') for (const step of repairs) push(asked(step));
  if (next.length === 0) push(stopStep(compiled, settings));

  const looks = settledHere ? [] : looksAfter(tests, belief, compiled);
  const rest = next.filter((step) => looks.every((look) => look.id !== step.id));
  const order = settledHere ? next : [...looks, ...layoutFirst(rest, belief, compiled, settings), ...rest];
  const leftOut = tests.ranked().flatMap(({ step, offer }): LeftOut[] => {
    const because = { ...step.because, code: 'chosen-anyway' as const };
    if (offer.left !== undefined) return [{ code: offer.left, step: { ...step, because } }];
    const offered = next.some((one) => one.kind === 'test' && one.id === step.id && one.of === step.of);
    return offered ? [] : [{ code: 'pointless', step: { ...step, because } }];
  });
  return { next: order, leftOut };
}

/** Verdicts of what is over the threshold; the others don't decide what comes next. */
function verdictsByProof(belief: Belief, compiled: CompiledPack): Map<string, Verdict> {
  return new Map(
    [...belief.assemblies.keys()].flatMap((id): [string, Verdict][] => {
      const proof = proofOf(belief, id, compiled);
      return proof ? [[id, proof.met ? 'proven' : 'likely-not-split']] : [];
    }),
  );
}

/** After a fall or a spill: what is looked at from outside before anything else, whatever it tells of the symptom. */
function looksAfter(tests: Weighing, belief: Belief, compiled: CompiledPack): NextStep[] {
  const told = compiled.pack.histories.filter(({ id }) => belief.interpretation.histories.includes(id));
  const named = told.flatMap(({ id, first = [] }) => first.map((test) => ({ id, test })));
  return named
    .filter(({ test }, index) => named.findIndex((one) => one.test === test) === index)
    .flatMap(({ id, test }) => {
      const found = tests.weigh(test, undefined);
      return found?.offer.left === undefined && found
        ? [{ ...found.step, because: { ...found.step.because, code: 'history-first' as const, of: id } }]
        : [];
    });
}

/** Likelier than this a layout is as good as known (value of ours). */
const layoutKnown = 0.95;

/** The first thing once the cover is off: which layout is it. Before the cover only where the step that leads goes inside. */
function layoutFirst(next: readonly NextStep[], belief: Belief, compiled: CompiledPack, settings: Settings): NextStep[] {
  const { layoutProbabilities, state } = belief.interpretation;
  const likeliest = Math.max(...Object.values(layoutProbabilities));
  const [first] = next;
  const inside = first !== undefined && compiled.stageIds.indexOf(first.stage) > 0;
  return likeliest < layoutKnown && (state.stage > 0 || inside) ? [layoutStep(belief, compiled, settings)] : [];
}

/** The steps alone, for a worker: believing included. */
export function stepsFor(input: CaseInput, book: CompiledPack, policy: Policy = 'cost', depth: Depth = 'settled'): Recommendation {
  const compiled = bookFor(input, book);
  return recommend(believe(input, compiled), compiled, input.settings, policy, depth);
}
