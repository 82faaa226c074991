/**
 * What to do next, by one of three orders over the same steps: what tells most per minute, what leads to the cheapest end,
 * or the layout's fixed list.
 */
import type { CompiledPack, TestDefinition } from '../knowledge/index.ts';
import type { Settings } from '../ledger/index.ts';
import type { Belief } from './belief.ts';
import { holds } from './conditions.ts';
import { testKey } from './interpretation.ts';
import { planFor, repairModel, testSaving } from './cost.ts';
import { expectedInformation } from './information.ts';
import { entropyBits, rounded } from './posterior.ts';
import { blinkStep, cautionsFor, effortToReach, priceOf, repairStep, repairSteps, stopStep, type NextStep } from './steps.ts';
import { proofState, type Verdict } from './verdict.ts';

export const policies = ['information', 'cost', 'fixed'] as const;
export type Policy = (typeof policies)[number];

export const leftOutCodes = ['answered', 'not-possible', 'could-not-change', 'other-symptom', 'pointless', 'code-first'] as const;
export type LeftOutCode = (typeof leftOutCodes)[number];

/** A test that isn't recommended, with the reason; it may be taken all the same. */
export interface LeftOut {
  readonly code: LeftOutCode;
  readonly step: NextStep;
}

export interface Recommendation {
  /** Best first. */
  readonly next: readonly NextStep[];
  readonly leftOut: readonly LeftOut[];
}

/** Less information than this isn't worth a walk to the bench, bits (value of ours). */
const pointlessBits = 0.01;
/** A step that was tried and couldn't be told drops behind the others. */
const unclearShare = 0.25;
/** Objects of one test worth weighing (reseat which cable, swap which board). */
const objectsOffered = 3;

interface Scored {
  readonly step: NextStep;
  readonly score: number;
  readonly left: LeftOutCode | undefined;
}

/** `verdictOf` are the verdicts of the same fold. Ties are broken by id. */
export function recommend(
  belief: Belief,
  compiled: CompiledPack,
  settings: Settings,
  verdictOf: ReadonlyMap<string, Verdict>,
  policy: Policy,
): Recommendation {
  const { interpretation } = belief;
  const { layoutId, symptoms } = interpretation;
  const layout = layoutId === undefined ? undefined : compiled.layouts.get(layoutId);
  if (!layout || interpretation.closed) return { next: [], leftOut: [] };
  const codeFirst = symptoms.has('blinking') && !interpretation.blinkRead;

  const openBits = entropyBits([...belief.assemblies.values()]);
  const weighed = new Map<string, Scored>();
  const weigh = (test: TestDefinition, of: string | undefined): Scored => {
    const key = testKey(test.id, of);
    const known = weighed.get(key);
    if (known) return known;
    const procedure = compiled.procedure(test, layout.id, of);
    const reach = effortToReach(procedure, interpretation.state, compiled);
    const effort = { handsOn: test.minutes + reach.handsOn, wait: procedure.waitMinutes + reach.wait };
    const { bits, would } = expectedInformation(belief, compiled, test, of);
    const made: Scored = {
      step: {
        kind: 'test',
        id: test.id,
        ...(of === undefined ? {} : { of }),
        because: { code: 'most-bits-per-minute', bits, share: openBits > 0 ? bits / openBits : 0 },
        minutes: effort.handsOn,
        waitMinutes: effort.wait,
        cost: priceOf(effort, settings),
        stage: compiled.stageIds[procedure.stage] ?? '',
        needs: procedure.needs,
        cautions: cautionsFor(procedure.stage, test.cautions, compiled),
        would,
      },
      score: (bits / (effort.handsOn + effort.wait * settings.waitShare)) * (interpretation.unclear.has(key) ? unclearShare : 1),
      left: whyLeftOut(test, key),
    };
    weighed.set(key, made);
    return made;
  };

  function whyLeftOut(test: TestDefinition, key: string): LeftOutCode | undefined {
    const now = { symptoms, family: interpretation.family, layoutId: layoutId ?? '' };
    if (interpretation.answered.has(key)) return 'answered';
    if (interpretation.impossible.has(key)) return 'not-possible';
    if (test.scope.symptoms && !holds({ symptoms: test.scope.symptoms }, now)) return 'other-symptom';
    if (test.speaksOnlyIf.some(({ needs }) => !holds(needs, now))) return 'could-not-change';
    if (codeFirst && test.disturbsCode) return 'code-first';
    return undefined;
  }

  const next: NextStep[] = [];
  const add = (step: NextStep): void => {
    if (!next.some((one) => one.kind === step.kind && one.id === step.id && one.of === step.of)) next.push(step);
  };
  const addTest = (id: string, of: string | undefined, because: NextStep['because']): void => {
    const test = compiled.tests.get(id);
    const found = test && weigh(test, of);
    if (found && found.left === undefined) add({ ...found.step, because });
  };

  for (const test of compiled.pack.tests) {
    if (!test.scope.layouts.includes(layout.id)) continue;
    for (const of of test.of?.required ? likeliestObjects(test, belief) : [undefined]) weigh(test, of);
  }
  const ranked = [...weighed.values()].sort((a, b) => rounded(b.score) - rounded(a.score) || compareIds(a.step, b.step));

  const repairs = repairSteps(belief, compiled, layout.id, settings, verdictOf);
  if (codeFirst) add(blinkStep(compiled, settings));
  for (const step of repairs) if (step.because.code === 'proven') add(step);
  if (policy === 'fixed') {
    layout.fixedList.forEach(({ test, of }, index) => addTest(test, of, { code: 'list-order', position: index + 1 }));
  } else if (policy === 'cost') {
    for (const step of cheapestSteps(ranked, belief, compiled, settings, layout.id)) add(step);
  } else {
    for (const [assembly, verdict] of verdictOf) {
      if (verdict !== 'likely-not-split') continue;
      const proof = proofState(layout, assembly, interpretation, compiled);
      for (const missing of proof.met ? [] : proof.missing) addTest(missing.test, missing.of, { code: 'needed-for-proof', of: assembly });
    }
    for (const { step, left } of ranked) if (left === undefined && (step.because.bits ?? 0) >= pointlessBits) add(step);
  }
  if (policy !== 'cost') for (const step of repairs) add(step);
  if (next.length === 0) next.push(stopStep(compiled, settings));

  const leftOut = ranked.flatMap(({ step, left }): LeftOut[] => {
    const because = { ...step.because, code: 'chosen-anyway' as const };
    if (left !== undefined) return [{ code: left, step: { ...step, because } }];
    const offered = next.some((one) => one.kind === 'test' && one.id === step.id && one.of === step.of);
    return offered ? [] : [{ code: 'pointless', step: { ...step, because } }];
  });
  return { next, leftOut };
}

/**
 * Steps by expected cost to the end. A test is worth doing while it saves more than it costs; among those the largest saving
 * for its cost goes first (one look ahead). When none is, the first repair of the cheapest sequence; when even that costs
 * more than a new set, giving up is put as a question, never taken as a move.
 */
function cheapestSteps(
  ranked: readonly Scored[],
  belief: Belief,
  compiled: CompiledPack,
  settings: Settings,
  layoutId: string,
): NextStep[] {
  const model = repairModel(belief, compiled, settings, layoutId);
  const plan = planFor(model, belief);
  const toEndMinor = Math.round(plan.cost);
  const worth = ranked
    .filter(({ left }) => left === undefined)
    .flatMap(({ step }) => {
      const test = compiled.tests.get(step.id);
      const saved = test ? testSaving(model, belief, compiled, test, step.of) : 0;
      // A step that costs nothing still takes a glance.
      const cost = Math.max(1, step.cost.amountMinor);
      return saved > cost ? [{ step, saved, ratio: saved / cost }] : [];
    })
    .sort((a, b) => rounded(b.ratio) - rounded(a.ratio) || compareIds(a.step, b.step))
    .map(({ step, saved }): NextStep => {
      const savesMinor = Math.round(saved - step.cost.amountMinor);
      return { ...step, because: { ...step.because, code: 'least-cost', savesMinor, toEndMinor } };
    });
  const repairs = plan.sequence.flatMap((id): NextStep[] => {
    const step = repairStep(id, belief, compiled, layoutId, settings);
    return step ? [{ ...step, because: { code: 'cheaper-than-testing', toEndMinor } }] : [];
  });
  const giveUp =
    plan.sequence.length === 0
      ? [{ ...stopStep(compiled, settings), id: 'give-up', because: { code: 'give-up-question' as const, toEndMinor } }]
      : [];
  return [...worth, ...repairs, ...giveUp];
}

function compareIds(a: NextStep, b: NextStep): number {
  const left = testKey(a.id, a.of);
  const right = testKey(b.id, b.of);
  return left < right ? -1 : left > right ? 1 : 0;
}

function likeliestObjects(test: TestDefinition, belief: Belief): string[] {
  return (test.of?.options ?? [])
    .map((id) => ({ id, odds: rounded(belief.assemblies.get(id) ?? 0) }))
    .filter((one) => one.odds > 0)
    .sort((a, b) => b.odds - a.odds || (a.id < b.id ? -1 : 1))
    .slice(0, objectsOffered)
    .map((one) => one.id);
}
