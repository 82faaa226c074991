/**
 * What to do next, by one of three orders over the same steps: what leads to the cheapest end, what tells most per minute, or
 * the layout's fixed list.
 */
import { payingTests, refinedMoves, testValues, type Move, type RefineOptions } from '../decision/index.ts';
import type { CompiledPack, Repair } from '../knowledge/index.ts';
import { bookFor } from '../learning/index.ts';
import type { CaseInput, Settings } from '../ledger/index.ts';
import { believe, type Belief } from './belief.ts';
import { readingBefore } from './before.ts';
import { decisionOf, type Decision } from './cost.ts';
import { expectedInformation } from './information.ts';
import { testKey } from './interpretation.ts';
import { offerOf, offersOf, type LeftOutCode, type Offer } from './offers.ts';
import { entropyBits, rounded } from './posterior.ts';
import { blinkStep, cautionsFor, priceOf, proveStep, repairStep, repairSteps, stopStep, type NextStep } from './steps.ts';
import { proofOf } from './proof.ts';
import type { Verdict } from './verdict.ts';

export const policies = ['cost', 'information', 'fixed'] as const;
export type Policy = (typeof policies)[number];

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
/** A proof is asked for before a part is bought while it costs no more than this share of the repair (value of ours). */
const cheapProof = 0.25;
/** A step that was tried and couldn't be told drops behind the others. */
const unclearShare = 0.25;

interface Scored extends Telling {
  readonly step: NextStep;
  readonly minor: number;
}

/** Information per minute, a waiting one counting less. */
const scoreOf = (bits: number, { effort, key }: Offer, { interpretation }: Belief, settings: Settings): number =>
  (bits / (effort.handsOn + effort.wait * settings.waitShare)) * (interpretation.unclear.has(key) ? unclearShare : 1);

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
  const scored = (offer: Offer): Scored => {
    const { test, of, effort, procedure } = offer;
    const { bits, would } = expectedInformation(belief, compiled, test, of);
    return {
      offer,
      step: {
        kind: 'test',
        id: test.id,
        ...(of === undefined ? {} : { of }),
        because: { code: 'most-bits-per-minute', bits, share: openBits > 0 ? bits / openBits : 0 },
        minutes: effort.handsOn,
        waitMinutes: effort.wait,
        cost: priceOf(effort, settings),
        stage: compiled.stageIds[offer.stage] ?? '',
        needs: procedure.needs,
        cautions: cautionsFor(offer.stage, test.cautions, procedure.handled, belief, compiled),
        would,
      },
      bits,
      minor: priceOf(effort, settings).amountMinor,
      score: scoreOf(bits, offer, belief, settings),
    };
  };
  const weighed = new Map(offersOf(belief, compiled, settings, layout.id).map((offer) => [offer.key, scored(offer)]));
  const weigh = (id: string, of: string | undefined): Scored | undefined => {
    const key = testKey(id, of);
    const known = weighed.get(key);
    const test = compiled.tests.get(id);
    if (known || !test || !compiled.fits(test, layout.id)) return known;
    const made = scored(offerOf(test, of, belief, compiled, settings, layout.id));
    weighed.set(key, made);
    return made;
  };

  const next: NextStep[] = [];
  const add = (wanted: NextStep): void => {
    const before = wanted.kind === 'repair' ? readingBefore(wanted.id, interpretation, compiled) : undefined;
    const reading = before === undefined ? undefined : weigh(before, undefined)?.step;
    if (before !== undefined && (!reading || interpretation.impossible.has(before))) return;
    const step: NextStep = reading
      ? { ...reading, because: { code: 'reading-first', ...(wanted.of === undefined ? {} : { of: wanted.of }) } }
      : wanted;
    if (!next.some((one) => one.kind === step.kind && one.id === step.id && one.of === step.of)) next.push(step);
  };
  const addTest = (id: string, of: string | undefined, because: NextStep['because']): void => {
    const found = weigh(id, of);
    if (found && found.offer.left === undefined) add({ ...found.step, because });
  };
  const missingProofs = (worth: (step: NextStep) => boolean = () => true): void => {
    for (const [assembly, verdict] of verdictOf) {
      if (verdict !== 'likely-not-split') continue;
      const proof = proofOf(belief, assembly, compiled);
      for (const missing of !proof || proof.met ? [] : proof.missing) {
        const step = weigh(missing.test, missing.of)?.step;
        if (step && worth(step)) addTest(missing.test, missing.of, { code: 'needed-for-proof', of: assembly });
      }
    }
  };

  const repairs = repairSteps(belief, compiled, layout.id, settings, verdictOf).filter((step) => worthNaming(step, belief, compiled));
  const named = (step: NextStep): boolean => step.kind !== 'repair' || worthNaming(step, belief, compiled);
  if (interpretation.cured) add(proveStep(compiled, settings));
  else if (interpretation.cracked) add(crackQuestion(belief, compiled, layout.id, settings));
  if (codeFirst) add(blinkStep(compiled, settings));
  for (const step of repairs) {
    if (step.because.code !== 'proven' || interpretation.cracked) continue;
    if (isQuestion(step, compiled)) add(panelQuestion(step, compiled, settings));
    else add(step);
  }
  if (policy === 'cost' && next.length === 0) {
    for (const { step } of beforeTheCover([...weighed.values()], belief, settings))
      add({ ...step, because: { ...step.because, code: 'outside-first' } });
  }
  if (policy === 'fixed') {
    layout.fixedList.forEach(({ test, of }, index) => addTest(test, of, { code: 'list-order', position: index + 1 }));
  } else if (policy === 'cost') {
    const cheapest = cheapestSteps([...weighed.values()], belief, compiled, settings, layout.id);
    // Odds over the threshold that rest on an open split are not worth a part while the split costs little beside it.
    const first = cheapest.find((step) => step.kind === 'repair');
    if (first) missingProofs((step) => step.cost.amountMinor <= first.cost.amountMinor * cheapProof);
    // Nobody is asked whether to give up a set that works again.
    let tested = false;
    for (const step of cheapest) {
      if ((step.kind === 'stop' && interpretation.cured) || !named(step)) continue;
      if (step.kind === 'repair' && !tested) {
        const test = beforeBuying(step.cost.amountMinor, ranked(weighed));
        if (test) add({ ...test.step, because: { ...test.step.because, code: 'most-bits-per-minute' } });
      }
      tested = true;
      if (!isQuestion(step, compiled)) add(step);
      else if (!interpretation.cured) add(panelQuestion(step, compiled, settings));
    }
    // The rest may be taken all the same; it comes last and says that it doesn't pay.
    for (const { step, offer } of ranked(weighed)) {
      if (offer.left === undefined && (step.because.bits ?? 0) >= pointlessBits)
        add({ ...step, because: { ...step.because, code: 'does-not-pay' } });
    }
  } else {
    missingProofs();
    for (const { step, offer } of ranked(weighed)) if (offer.left === undefined && (step.because.bits ?? 0) >= pointlessBits) add(step);
  }
  if (policy !== 'cost') for (const step of repairs) add(isQuestion(step, compiled) ? panelQuestion(step, compiled, settings) : step);
  if (next.length === 0) next.push(stopStep(compiled, settings));

  const leftOut = ranked(weighed).flatMap(({ step, offer }): LeftOut[] => {
    const because = { ...step.because, code: 'chosen-anyway' as const };
    if (offer.left !== undefined) return [{ code: offer.left, step: { ...step, because } }];
    const offered = next.some((one) => one.kind === 'test' && one.id === step.id && one.of === step.of);
    return offered ? [] : [{ code: 'pointless', step: { ...step, because } }];
  });
  return { next, leftOut };
}

/** The preference that turns "outside before inside" off, and its option. */
const coverQuestion = 'cover';
/** Hands-on minutes of a step that needs no screw and comes before the cover comes off (value of ours). */
const quickMinutes = 3;
/** And what it must tell of the assembly, bits (value of ours). */
const quickBits = 0.02;

interface Telling {
  readonly offer: Offer;
  readonly bits: number;
  readonly score: number;
}

/** Outside before inside: what is quick, needs no screw and tells something, by information per minute, while the set is closed. */
function beforeTheCover<T extends Telling>(all: readonly T[], belief: Belief, settings: Settings): T[] {
  if (belief.interpretation.state.stage > 0 || settings.schools?.[coverQuestion] === 'open-first') return [];
  return byScore(
    all.filter(
      ({ offer, bits }) => offer.left === undefined && offer.stage === 0 && offer.effort.handsOn <= quickMinutes && bits > quickBits,
    ),
  );
}

/** A test worth this share of a repair's price, and telling so much, is done before a part is bought unproven (values of ours). */
const cheapBesidePart = 0.25;
const tellsBeforeBuying = 0.05;

/** The most telling test still open that costs little beside an unproven repair: a part on a guess is the dearest mistake. */
function beforeBuying<T extends Telling>(repairMinor: number, all: readonly (T & { readonly minor: number })[]): T | undefined {
  return byScore(
    all.filter(({ offer, bits, minor }) => offer.left === undefined && bits >= tellsBeforeBuying && minor <= repairMinor * cheapBesidePart),
  )[0];
}

const repairOf = (step: NextStep, compiled: CompiledPack): Repair | undefined =>
  step.kind === 'repair' ? compiled.pack.repairs.find(({ id }) => id === step.id) : undefined;

/** Glass with its bonded drivers: priced at most of a new set, so a question with its figure and never an order. */
const isQuestion = (step: NextStep, compiled: CompiledPack): boolean => repairOf(step, compiled)?.question === true;
const panelQuestion = (step: NextStep, compiled: CompiledPack, settings: Settings): NextStep => ({
  ...stopStep(compiled, settings),
  id: 'give-up',
  because: { code: 'panel-question', toEndMinor: step.cost.amountMinor },
});

/** A crack ends the search, with the figure of the only repair there is. */
function crackQuestion(belief: Belief, compiled: CompiledPack, layoutId: string, settings: Settings): NextStep {
  const panel = compiled.repairsOf.get(layoutId)?.find(({ question }) => question);
  const step = panel && repairStep(panel.id, belief, compiled, layoutId, settings);
  const toEndMinor = step?.cost.amountMinor ?? settings.newSetMinor;
  return { ...stopStep(compiled, settings), id: 'give-up', because: { code: 'crack-ends-repair', toEndMinor } };
}

/** What is outside the set is put right once something points there: likelier than all else together (value of ours). */
const pointedAt = 0.5;

function worthNaming(step: NextStep, belief: Belief, compiled: CompiledPack): boolean {
  const repair = repairOf(step, compiled);
  return repair?.kind !== 'put-right' || (belief.assemblies.get(repair.assembly) ?? 0) >= pointedAt;
}

const byScore = <T extends Telling>(all: readonly T[]): T[] =>
  [...all].sort((a, b) => rounded(b.score) - rounded(a.score) || compareKeys(a.offer.key, b.offer.key));
const ranked = (weighed: ReadonlyMap<string, Scored>): Scored[] => byScore([...weighed.values()]);

/**
 * Steps by expected cost to the end: tests that pay, then the repairs of the cheapest sequence; an unproven repair never stands before a
 * test that pays. When even the sequence costs more than a new set, giving up is put as a question, never taken as a move.
 */
function cheapestSteps(all: readonly Scored[], belief: Belief, compiled: CompiledPack, settings: Settings, layoutId: string): NextStep[] {
  const open = all.filter(({ offer }) => offer.left === undefined).sort((a, b) => compareKeys(a.offer.key, b.offer.key));
  const decision = decisionOf(
    belief,
    compiled,
    settings,
    layoutId,
    open.map(({ offer }) => offer),
  );
  const { model, at, plan } = decision;
  const toEndMinor = Math.round(plan.cost);
  const paying = payingTests(testValues(model, at, plan));
  const worth = paying.flatMap(({ index, saves, cost }): NextStep[] => {
    const step = open[index]?.step;
    const savesMinor = Math.round(saves - cost);
    return step ? [{ ...step, because: { ...step.because, code: 'least-cost', savesMinor, perMinor: saves / cost, toEndMinor } }] : [];
  });
  const repairs = plan.sequence.flatMap((index): NextStep[] => {
    const { id, cures } = model.repairs[index] ?? { id: '', cures: [] };
    const step = repairStep(id, belief, compiled, layoutId, settings);
    const chance = cures.reduce((sum, cure) => sum + (at.odds[cure.hypothesis] ?? 0) * cure.chance, 0);
    return step ? [{ ...step, because: { code: 'cheaper-than-testing', chance, toEndMinor } }] : [];
  });
  return [...worth, ...repairs, ...(plan.sequence.length === 0 ? [giveUpStep(compiled, settings, toEndMinor)] : [])];
}

const giveUpStep = (compiled: CompiledPack, settings: Settings, toEndMinor: number): NextStep => ({
  ...stopStep(compiled, settings),
  id: 'give-up',
  because: { code: 'give-up-question', toEndMinor },
});

export interface DecidedMove {
  readonly move: Move;
  readonly decision: Decision;
  readonly offers: readonly Offer[];
}

/** The open tests of a belief as a decision; undefined where the layout isn't known. */
export function decideFrom(belief: Belief, compiled: CompiledPack, settings: Settings): Omit<DecidedMove, 'move'> | undefined {
  const { layoutId } = belief.interpretation;
  if (layoutId === undefined || !compiled.layouts.has(layoutId)) return undefined;
  const offers = offersOf(belief, compiled, settings, layoutId)
    .filter(({ left }) => left === undefined)
    .sort((a, b) => compareKeys(a.key, b.key));
  return { decision: decisionOf(belief, compiled, settings, layoutId, offers), offers };
}

/** One move at once, without the reasons and previews a screen shows: the order of `recommend` by cost, proofs and proven parts apart. */
export function decideAtOnce(belief: Belief, compiled: CompiledPack, settings: Settings): DecidedMove | undefined {
  const from = decideFrom(belief, compiled, settings);
  if (!from) return undefined;
  const { model, at, plan } = from.decision;
  const told = (offer: Offer, index: number): Telling & { index: number; minor: number } => {
    const { bits } = expectedInformation(belief, compiled, offer.test, offer.of);
    return { offer, index, bits, minor: priceOf(offer.effort, settings).amountMinor, score: scoreOf(bits, offer, belief, settings) };
  };
  const test = (index: number): DecidedMove => ({ ...from, move: { kind: 'test', index } });
  const closed = from.offers.flatMap((offer, index) =>
    offer.stage === 0 && offer.effort.handsOn <= quickMinutes ? [told(offer, index)] : [],
  );
  const [outside] = beforeTheCover(closed, belief, settings);
  if (outside) return test(outside.index);
  const [paying] = payingTests(testValues(model, at, plan));
  if (paying) return test(paying.index);
  for (const index of plan.sequence) {
    const step = repairStep(model.repairs[index]?.id ?? '', belief, compiled, belief.interpretation.layoutId ?? '', settings);
    if (!step || !worthNaming(step, belief, compiled)) continue;
    const reading = readingBefore(step.id, belief.interpretation, compiled);
    const known = reading === undefined ? -1 : from.offers.findIndex(({ test: { id } }) => id === reading);
    if (reading !== undefined && known < 0) continue;
    if (known >= 0) return test(known);
    const before = beforeBuying(step.cost.amountMinor, from.offers.map(told));
    return before ? test(before.index) : { ...from, move: { kind: 'repair', index } };
  }
  return { ...from, move: { kind: 'give-up' } };
}

export interface RefinedStep {
  readonly kind: 'test' | 'repair' | 'stop';
  readonly id: string;
  readonly of?: string;
  /** Expected cost to the end by this step, minor units. */
  readonly toEndMinor: number;
}

/** The deeper search, for a worker: steps by expected cost to the end, cheapest first. */
export function refine(input: CaseInput, book: CompiledPack, options?: RefineOptions): RefinedStep[] {
  const compiled = bookFor(input, book);
  const from = decideFrom(believe(input, compiled), compiled, input.settings);
  if (!from) return [];
  const { model, at } = from.decision;
  return refinedMoves(model, at, options).map(({ move, cost }): RefinedStep => {
    const toEndMinor = Math.round(cost);
    if (move.kind === 'give-up') return { kind: 'stop', id: 'give-up', toEndMinor };
    if (move.kind === 'repair') return { kind: 'repair', id: model.repairs[move.index]?.id ?? '', toEndMinor };
    const offer = from.offers[move.index];
    return { kind: 'test', id: offer?.test.id ?? '', ...(offer?.of === undefined ? {} : { of: offer.of }), toEndMinor };
  });
}

function compareKeys(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
