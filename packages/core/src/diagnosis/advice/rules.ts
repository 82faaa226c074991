/**
 * Rules of the bench that stand before any arithmetic of costs: outside before inside, a test before a part on a guess, proven both ways,
 * the panel a question, a chip read before it is written.
 */
import type { CompiledPack, Repair } from '../../knowledge/index.ts';
import type { Settings } from '../../ledger/index.ts';
import { withoutKeystone, type Belief } from '../belief/belief.ts';
import { expectedInformation } from './information.ts';
import { byScore, scoreOf, type Scored, type Telling } from './weighing.ts';
import { proofOf } from '../verdict/proof.ts';
import { repairStep, stopStep, type NextStep } from './steps.ts';

/** The preference that turns "outside before inside" off, and its option. */
const coverQuestion = 'cover';
/** Hands-on minutes of a step that needs no screw and comes before the cover comes off (value of ours). */
const quickMinutes = 3;
/** And wait minutes: while it waits for an hour the bench has opened it long since (value of ours). */
const quickWaitMinutes = 5;
/** And what it must tell of the assembly, bits (value of ours). */
const quickBits = 0.02;

/** Outside before inside: what is quick, needs no screw and tells something, by information per minute, while the set is closed. */
export function beforeTheCover<T extends Telling>(all: readonly T[], belief: Belief, settings: Settings): T[] {
  if (belief.interpretation.state.stage > 0 || settings.schools?.[coverQuestion] === 'open-first') return [];
  return byScore(
    all.filter(
      ({ offer: { left, stage, effort }, bits }) =>
        left === undefined && stage === 0 && effort.handsOn <= quickMinutes && effort.wait <= quickWaitMinutes && bits > quickBits,
    ),
  );
}

/** What is cheap beside a part, or beside the set that would be given up: at most this share of its price (value of ours). */
export const cheapShare = 0.25;
/** What a test must tell before a part is bought unproven or a set given up, bits (value of ours). */
const tellsBeforeBuying = 0.03;

/** The most telling test still open that costs no more than so much: a part on a guess is the dearest mistake but one. */
export const tellingTest = (mostMinor: number, all: readonly Scored[]): Scored | undefined =>
  byScore(all.filter(({ offer, bits, minor }) => offer.left === undefined && bits >= tellsBeforeBuying && minor <= mostMinor))[0];

/** From here on a repair cures more likely than not. */
const evenChance = 0.5;

/** Before an unproven repair: a test that costs little beside it, or, where it most likely cures nothing, no more than it. */
export function beforeRepairing({ because, cost }: NextStep, all: readonly Scored[]): Scored | undefined {
  return tellingTest(cost.amountMinor * ((because.chance ?? 1) < evenChance ? 1 : cheapShare), all);
}

/**
 * The same before a set is given up: the value of the set is at stake, and testing it ends once the labour so far has eaten the share of it
 * that one test may cost.
 */
export function beforeGivingUp(all: readonly Scored[], belief: Belief, compiled: CompiledPack, settings: Settings): Scored | undefined {
  // Glass that is proven is a question, and no test's any more.
  const panel = compiled.pack.repairs.find(({ question }) => question)?.assembly;
  if (panel !== undefined && proofOf(belief, panel, compiled)?.met) return undefined;
  const minutes = [...belief.interpretation.readings.values()]
    .flat()
    .reduce((sum, { body }) => sum + (body.minutes ?? compiled.tests.get(body.test)?.minutes ?? 0), 0);
  const spent = (minutes * settings.rateMinorPerHour) / 60;
  return spent < settings.newSetMinor * cheapShare ? tellingTest(settings.newSetMinor * cheapShare, all) : undefined;
}

/** What a test must tell without the answer all hangs on, bits (value of ours). */
const tellsOtherWay = 0.3;

/** Proven both ways before a part is bought: where all hangs on one answer, the cheap test that would tell most without it. */
export function otherWay(
  wanted: NextStep,
  all: readonly Scored[],
  belief: Belief,
  compiled: CompiledPack,
  settings: Settings,
): NextStep | undefined {
  const repair = repairOf(wanted, compiled);
  if (!repair || repair.partShare === 0) return undefined;
  const without = withoutKeystone(repair.assembly, belief, compiled);
  if (!without) return undefined;
  const [best] = byScore(
    all
      .filter(({ offer, minor }) => offer.left === undefined && minor <= wanted.cost.amountMinor * cheapShare)
      .map((one) => ({ ...one, bits: expectedInformation(without, compiled, one.offer.test, one.offer.of).bits }))
      .filter(({ bits }) => bits >= tellsOtherWay)
      .map((one) => ({ ...one, score: scoreOf(one.bits, one.offer, belief, settings) })),
  );
  return best && { ...best.step, because: { ...best.step.because, code: 'other-way', of: repair.assembly } };
}

/** The pack’s repair behind a step; undefined where it is no repair. */
export const repairOf = (step: NextStep, compiled: CompiledPack): Repair | undefined =>
  step.kind === 'repair' ? compiled.pack.repairs.find(({ id }) => id === step.id) : undefined;

/** Glass with its bonded drivers: priced at most of a new set, so a question with its figure and never an order. */
export const isQuestion = (step: NextStep, compiled: CompiledPack): boolean => repairOf(step, compiled)?.question === true;

/** The step that asks the customer before anything is spent on a panel. */
export const panelQuestion = (step: NextStep, compiled: CompiledPack, settings: Settings): NextStep => ({
  ...stopStep(compiled, settings),
  id: 'give-up',
  because: { code: 'panel-question', toEndMinor: step.cost.amountMinor },
});

/** The panel's own repair, where the panel is likelier than all else together: stopping is then about that, and is put with its figure. */
export function panelRepair(belief: Belief, compiled: CompiledPack, layoutId: string, settings: Settings): NextStep | undefined {
  const panel = compiled.repairsOf.get(layoutId)?.find(({ question }) => question);
  const likely = panel && (belief.assemblies.get(panel.assembly) ?? 0) >= pointedAt;
  return likely ? repairStep(panel.id, belief, compiled, layoutId, settings) : undefined;
}

/** A crack ends the search, with the figure of the only repair there is. */
export function crackQuestion(belief: Belief, compiled: CompiledPack, layoutId: string, settings: Settings): NextStep {
  const panel = compiled.repairsOf.get(layoutId)?.find(({ question }) => question);
  const step = panel && repairStep(panel.id, belief, compiled, layoutId, settings);
  const toEndMinor = step?.cost.amountMinor ?? settings.newSetMinor;
  return { ...stopStep(compiled, settings), id: 'give-up', because: { code: 'crack-ends-repair', toEndMinor } };
}

/** Likelier than all else together (value of ours): what is outside the set is corrected from here on, and stopping is about the panel. */
const pointedAt = 0.5;

/** False for a settings repair of an assembly that nothing points at. */
export function worthNaming(step: NextStep, belief: Belief, compiled: CompiledPack): boolean {
  const repair = repairOf(step, compiled);
  return repair?.kind !== 'put-right' || (belief.assemblies.get(repair.assembly) ?? 0) >= pointedAt;
}

/** A proven assembly's repair leads at once where it cures so surely; a part on it that may be the wrong one waits for a test that pays (value of ours). */
const surelyCures = 0.75;

/**
 * Parts of a proven assembly that are renewed before `leader` renews it whole: where trying one first, and the whole for what that leaves, costs less than the
 * whole at once. A fuse before the board that carries it.
 */
export function partsFirst(leader: NextStep, repairs: readonly NextStep[]): NextStep[] {
  const sure = leader.because.chance ?? 0;
  return repairs.filter((step) => {
    const chance = step.because.chance ?? 0;
    if (step.of !== leader.of || step.id === leader.id || step.because.code !== 'proven') return false;
    return sure > 0 && step.cost.amountMinor < leader.cost.amountMinor * Math.min(1, chance / sure);
  });
}

/** Whether the step renews what is proven already. */
export const leadsProven = (step: NextStep, compiled: CompiledPack): boolean =>
  step.because.code === 'proven' && (step.because.chance ?? 0) >= surelyCures && !isQuestion(step, compiled);
