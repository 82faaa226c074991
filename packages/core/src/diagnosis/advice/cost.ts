/** The belief as a decision: what tests and repairs cost from here, and what they would settle or cure. */
import {
  planRepairs,
  type DecisionModel,
  type DecisionRepair,
  type DecisionTest,
  type RepairPlan,
  type Standing,
} from '../../decision/index.ts';
import {
  hazardsOfTest,
  stageOfPlace,
  type CompiledPack,
  type Hazard,
  type PlacedRepair,
  type TestDefinition,
} from '../../knowledge/index.ts';
import type { Settings } from '../../ledger/index.ts';
import type { Belief } from '../belief/belief.ts';
import { curesOf } from '../evidence/cures.ts';
import type { Offer } from './offers.ts';
import { nextLook } from '../evidence/rows.ts';
import { minutesToStage, priceOf } from './steps.ts';

/** The decision model of a belief, and where the job stands in it. */
export interface Decision {
  readonly model: DecisionModel;
  readonly at: Standing;
  readonly plan: RepairPlan;
  /** The repair of each place in the model. */
  readonly repairs: readonly PlacedRepair[];
}

/** How a shop's preferences shift the order: a step weighed below 1 comes earlier, above 1 later. No price ever sees it. */
export function schoolFactor(id: string, settings: Settings, compiled: CompiledPack): number {
  return compiled.pack.schools.reduce((factor, school) => {
    const chosen = settings.schools?.[school.id] ?? school.usual;
    return factor * (school.options.find((option) => option.id === chosen)?.shifts[id] ?? 1);
  }, 1);
}

/** What is weighed as a hazard: live on the hot side, lines driven from outside, an iron on the board (value of ours: each counts once). */
const weighed: readonly Hazard[] = ['live-hot', 'forcing', 'solder'];

/** How many of them a test has on this layout, the glass lifted out for it counting as one. */
export function hazardOf(test: TestDefinition, of: string | undefined, layoutId: string, compiled: CompiledPack): number {
  const layout = compiled.layouts.get(layoutId);
  if (!layout) return 0;
  const own = hazardsOfTest(test, { layout, pack: compiled.pack, of }).filter((one) => weighed.includes(one)).length;
  const glass = compiled.pack.stages.slice(1, compiled.procedure(test, layoutId, of).stage + 1).some(({ verified }) => verified === true);
  return own + (glass ? 1 : 0);
}

/**
 * Repairs not yet done and tests on offer, from the state the set is in. "Not in the pack" is cured by none. Giving up costs a
 * comparable new set; a bought part that doesn't cure costs its nuisance on top.
 */
export function decisionOf(
  belief: Belief,
  compiled: CompiledPack,
  settings: Settings,
  layoutId: string,
  offers: readonly Offer[],
): Decision {
  const { hypotheses, repaired, state } = belief.interpretation;
  const rate = settings.rateMinorPerHour / 60;
  const repairs = (compiled.repairsOf.get(layoutId) ?? []).filter((repair) => !repaired.has(repair.id));
  const decisionRepairs = repairs.map((repair): DecisionRepair => {
    const part = repair.partShare * settings.newSetMinor;
    return {
      id: repair.id,
      stage: stageOfPlace(repair.place, layoutId, compiled),
      // A step that costs nothing at all would be tried for ever.
      cost: Math.max(1, repair.minutes * rate + part),
      preference: schoolFactor(repair.id, settings, compiled),
      nuisance: part > 0 ? settings.wrongPartMinor + settings.wrongPartShare * part : 0,
      cures: hypotheses.flatMap((one, hypothesis) => {
        const chance = curesOf(repair, one, compiled);
        return chance > 0 ? [{ hypothesis, chance }] : [];
      }),
    };
  });
  const tests = offers.map(({ key, test, of, effort, stage }): DecisionTest => ({
    id: key,
    stage,
    cost: Math.max(
      1,
      priceOf({ handsOn: effort.handsOn - minutesToStage(stage, state, compiled), wait: effort.wait }, settings).amountMinor,
    ),
    hazard: hazardOf(test, of, layoutId, compiled) * settings.hazardMinor,
    preference: schoolFactor(test.id, settings, compiled),
    outcomes: nextLook(belief.interpretation, compiled, test, of, belief.circumstances),
  }));
  const model: DecisionModel = {
    tests,
    repairs: decisionRepairs,
    stageCost: compiled.pack.stages.map((_, stage) =>
      compiled.pack.stages.slice(1, stage + 1).reduce((sum, one) => sum + one.minutes * rate, 0),
    ),
    writeOff: settings.newSetMinor,
  };
  const at: Standing = {
    probabilities: Float64Array.from(belief.probabilities),
    stage: state.stage,
    testsDone: new Set(),
    repairsDone: new Set(),
  };
  return { model, at, plan: planRepairs(model, at.probabilities, at.stage), repairs };
}
