/** What a step is, what it takes to get to it, and the steps that are not tests. */
import { drainMinutes, stageOfPlace, type CompiledPack, type Procedure } from '../../knowledge/index.ts';
import type { Settings, SetState } from '../../ledger/index.ts';
import type { Belief } from '../belief/belief.ts';
import { curesOf } from '../evidence/cures.ts';
import { rounded } from '../belief/posterior.ts';
import type { Verdict } from '../verdict/verdict.ts';

/** Why a step is proposed. */
export const reasonCodes = [
  'code-first',
  'outside-first',
  'history-first',
  'crack-ends-repair',
  'panel-question',
  'needed-for-proof',
  'reading-first',
  'other-way',
  'most-bits-per-minute',
  'list-order',
  'proven',
  'likeliest-left',
  'nothing-tells-more',
  'chosen-anyway',
  'least-cost',
  'chain',
  'layout-first',
  'cheaper-than-testing',
  'give-up-question',
  'does-not-pay',
  'cured',
] as const;
/** One of `reasonCodes`. */
export type ReasonCode = (typeof reasonCodes)[number];

/** What an answer would leave: its probability, and the likeliest assembly after it. */
export interface OutcomePreview {
  readonly outcome: string;
  readonly probability: number;
  readonly top: { readonly id: string; readonly probability: number };
  /** Assemblies this answer would rule out. */
  readonly clears: readonly string[];
}

/** Why a step is proposed, with the figures behind it. */
export interface Reason {
  readonly code: ReasonCode;
  /** Expected information about the assembly, bits. */
  readonly bits?: number;
  /** The same as a share of all that is still open, 0 to 1. */
  readonly share?: number;
  /** Assembly it is needed for. */
  readonly of?: string;
  /** Place on the fixed list, from 1. */
  readonly position?: number;
  /** Expected saving of the step, its own cost taken off, minor units. */
  readonly savesMinor?: number;
  /** What is saved for each unit it costs. */
  readonly perMinor?: number;
  /** P(this repair cures). */
  readonly chance?: number;
  /** Expected cost to the end from here by the best way known, minor units. */
  readonly toEndMinor?: number;
}

/** A step as a screen shows it. */
export interface NextStep {
  readonly kind: 'test' | 'blink' | 'layout' | 'repair' | 'stop';
  readonly id: string;
  readonly of?: string;
  readonly because: Reason;
  /** Hands-on, getting there included. */
  readonly minutes: number;
  readonly waitMinutes: number;
  readonly cost: { readonly amountMinor: number; readonly currency: string };
  /** Stage id the set has to be opened to. */
  readonly stage: string;
  readonly needs: Procedure['needs'];
  readonly cautions: readonly string[];
  readonly would: readonly OutcomePreview[];
}

/** Time a step takes, hands-on and waiting apart. */
export interface Effort {
  /** Minutes. */
  readonly handsOn: number;
  readonly wait: number;
}

/** Plugging or unplugging, with the look round that belongs to it, minutes (value of ours). */
export const powerChangeMinutes = 0.5;
/** Looking at a light through two cycles, minutes. */
const blinkMinutes = 2;

/** Opening to the stage, unplugging, waiting for the rails, before the procedure's own first step. */
export function effortToReach(procedure: Procedure, state: SetState, compiled: CompiledPack): Effort {
  let handsOn = minutesToStage(procedure.stage, state, compiled);
  let wait = 0;
  const opens = procedure.stage > state.stage;
  const mustUnplug = state.plugged && (opens || ['unplugged', 'rails-down', 'verified'].includes(procedure.needs));
  if (mustUnplug) handsOn += powerChangeMinutes;
  if (procedure.needs === 'plugged' && (!state.plugged || mustUnplug)) handsOn += powerChangeMinutes;
  if (procedure.needs === 'rails-down' && (mustUnplug || !state.railsDown)) wait += drainMinutes['rails-down'];
  if (procedure.needs === 'verified' && (mustUnplug || !state.verified)) wait += drainMinutes.verified;
  return { handsOn, wait };
}

/** Hands-on minutes from the set's stage to a later one; 0 where it is open that far. */
export function minutesToStage(stage: number, state: SetState, compiled: CompiledPack): number {
  return compiled.pack.stages.slice(state.stage + 1, stage + 1).reduce((sum, one) => sum + one.minutes, 0);
}

/** A layout less likely than this brings no cautions of its own (value of ours: the strictest of the likely ones hold). */
const leastLikely = 0.02;

/**
 * Cautions of every stage opened on the way, of every likely layout for what is inside, then the step's own and those of what hands go to
 * (`handled`); each once. One that is wrong on a likely layout gives way to what that layout has in its place.
 */
export function cautionsFor(
  stage: number,
  own: readonly string[],
  handled: readonly string[],
  belief: Belief,
  compiled: CompiledPack,
): string[] {
  const likely = Object.entries(belief.interpretation.layoutProbabilities)
    .filter(([, probability]) => probability >= leastLikely)
    .flatMap(([id]) => compiled.layouts.get(id) ?? []);
  const inside = stage > 0 ? likely.flatMap(({ cautions }) => cautions ?? []) : [];
  const opened = compiled.pack.stages.slice(1, stage + 1).flatMap((one) => one.cautions);
  const touched =
    stage > 0 ? compiled.pack.assemblies.filter(({ id }) => handled.includes(id)).flatMap(({ cautions }) => cautions ?? []) : [];
  const instead = (id: string): string => likely.find((layout) => layout.instead?.[id] !== undefined)?.instead?.[id] ?? id;
  return [...new Set([...opened, ...inside, ...[...own, ...touched].map(instead)])];
}

/** What an effort (minutes) costs at the shop's rates, in minor units of its currency. */
export function priceOf(effort: Effort, settings: Settings): NextStep['cost'] {
  const minutes = effort.handsOn + effort.wait * settings.waitShare;
  return { amountMinor: Math.round((minutes * settings.rateMinorPerHour) / 60), currency: settings.currency };
}

/** Reading the blink code, as a step. */
export function blinkStep(compiled: CompiledPack, settings: Settings): NextStep {
  const minutes = blinkMinutes;
  return { ...plainStep('blink', 'blink.read', 'code-first', compiled, settings, minutes), needs: 'plugged' };
}

/** Looking at the boards and the wires between them, minutes (value of ours). */
const layoutMinutes = 0.5;

/** Which layout is it: one look inside, one key. */
export function layoutStep(belief: Belief, compiled: CompiledPack, settings: Settings): NextStep {
  const minutes = layoutMinutes + minutesToStage(1, belief.interpretation.state, compiled);
  return {
    ...plainStep('layout', 'layout.found', 'layout-first', compiled, settings, minutes),
    stage: compiled.stageIds[1] ?? '',
    needs: 'unplugged',
    // A look: no hand goes in, so what each layout asks of hands comes with the first step that needs them.
    cautions: compiled.pack.stages[1]?.cautions ?? [],
  };
}

/** "Can't tell yet", as a step. */
export function stopStep(compiled: CompiledPack, settings: Settings): NextStep {
  return plainStep('stop', 'cant-tell-yet', 'nothing-tells-more', compiled, settings, 0);
}

/** After a cure: soak it, try everything, close. Whatever fault is left behind it shows then or stays a suspicion. */
export const proveStep = (compiled: CompiledPack, settings: Settings): NextStep =>
  plainStep('stop', 'prove-and-close', 'cured', compiled, settings, 0);

function plainStep(
  kind: NextStep['kind'],
  id: string,
  code: ReasonCode,
  compiled: CompiledPack,
  settings: Settings,
  minutes: number,
): NextStep {
  const stage = compiled.stageIds[0] ?? '';
  const cost = priceOf({ handsOn: minutes, wait: 0 }, settings);
  return { kind, id, because: { code }, minutes, waitMinutes: 0, cost, stage, needs: 'any', cautions: [], would: [] };
}

/** A repair less likely to cure than this is a long shot: a question for the customer, never sold as a repair (value of ours). */
const longShotBelow = 0.25;

/** Whether a step is a repair that most likely cures nothing. Tests and questions are none. */
export const isLongShot = ({ kind, because }: Pick<NextStep, 'kind' | 'because'>): boolean =>
  kind === 'repair' && because.chance !== undefined && because.chance < longShotBelow;

/** A repair is named once its assembly is proven, or more likely than all others together. */
const likelyEnoughToRepair = 0.5;
/** And only by what would cure at least this share of the ways that assembly fails here (value of ours). */
const curesEnough = 0.3;

/** Repairs the layout has and the belief gives a reason for, each with its chance to clear the fault (0 to 1) and its cost. */
export function repairSteps(
  belief: Belief,
  compiled: CompiledPack,
  layoutId: string,
  settings: Settings,
  verdictOf: ReadonlyMap<string, Verdict>,
): NextStep[] {
  const { repaired, hypotheses } = belief.interpretation;
  return (compiled.repairsOf.get(layoutId) ?? [])
    .filter((repair) => !repaired.has(repair.id))
    .map((repair) => ({
      repair,
      probability: rounded(belief.assemblies.get(repair.assembly) ?? 0),
      cures: hypotheses.reduce((sum, one, h) => sum + (belief.probabilities[h] ?? 0) * curesOf(repair, one, compiled), 0),
      proven: verdictOf.get(repair.assembly) === 'proven',
    }))
    .filter(({ probability, proven, cures }) => (proven || probability >= likelyEnoughToRepair) && cures >= probability * curesEnough)
    .flatMap((one) => {
      const step = repairStep(one.repair.id, belief, compiled, layoutId, settings);
      return step ? [{ ...one, step, rate: one.cures / Math.max(1, step.cost.amountMinor) }] : [];
    })
    .sort((a, b) => b.probability - a.probability || b.rate - a.rate || (a.repair.id < b.repair.id ? -1 : 1))
    .map(({ step, proven, cures }): NextStep => ({ ...step, because: { code: proven ? 'proven' : 'likeliest-left', chance: cures } }));
}

/** One repair with its labour and its part; the caller says why it is named. Undefined where the pack has no such repair. */
export function repairStep(id: string, belief: Belief, compiled: CompiledPack, layoutId: string, settings: Settings): NextStep | undefined {
  const repair = compiled.repairsOf.get(layoutId)?.find((one) => one.id === id);
  if (!repair) return undefined;
  const stage = stageOfPlace(repair.place, layoutId, compiled);
  const minutes = repair.minutes + minutesToStage(stage, belief.interpretation.state, compiled);
  const plain = plainStep('repair', id, 'likeliest-left', compiled, settings, minutes);
  const part = Math.round(repair.partShare * settings.newSetMinor);
  return {
    ...plain,
    cost: { ...plain.cost, amountMinor: plain.cost.amountMinor + part },
    of: repair.assembly,
    stage: compiled.stageIds[stage] ?? '',
    cautions: cautionsFor(stage, repair.cautions, [repair.assembly], belief, compiled),
  };
}
