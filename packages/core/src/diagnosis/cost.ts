/** The belief as a decision: what repairs cost and cure here, and what a test would save. */
import { grossSaving, planRepairs, type RepairModel, type RepairPlan } from '../decision/index.ts';
import type { CompiledPack, Repair, TestDefinition } from '../knowledge/index.ts';
import type { Settings } from '../ledger/index.ts';
import type { Belief } from './belief.ts';
import { outcomeRows } from './information.ts';
import { minutesToStage, priceOf } from './steps.ts';

/** Labour, opening the set, and the part, minor units. */
function repairCostMinor(repair: Repair, belief: Belief, compiled: CompiledPack, settings: Settings, layoutId: string): number {
  const stage = Math.max(0, compiled.stageIds.indexOf(compiled.layouts.get(layoutId)?.access[repair.assembly] ?? ''));
  const handsOn = repair.minutes + minutesToStage(stage, belief.interpretation.state, compiled);
  return priceOf({ handsOn, wait: 0 }, settings).amountMinor + repair.partShare * settings.newSetMinor;
}

/** Repairs not yet done, for the layout; giving up costs a comparable new set. "Not in the book" is fixed by none. */
export function repairModel(belief: Belief, compiled: CompiledPack, settings: Settings, layoutId: string): RepairModel {
  const { hypotheses, repaired } = belief.interpretation;
  return {
    writeOff: settings.newSetMinor,
    repairs: compiled.pack.repairs
      .filter((repair) => repair.layouts.includes(layoutId) && !repaired.has(repair.id))
      .map((repair) => {
        const fixes = compiled.likelihoodWord(repair.fixes);
        return {
          id: repair.id,
          // A repair that costs nothing at all would be tried for ever.
          cost: Math.max(1, repairCostMinor(repair, belief, compiled, settings, layoutId)),
          fixes: hypotheses.map(({ fault }) => (fault?.assembly === repair.assembly ? fixes : 0)),
        };
      }),
  };
}

export const planFor = (model: RepairModel, belief: Belief): RepairPlan => planRepairs(model, belief.odds);

/** What a test takes off the expected cost of repair before its own cost, minor units. */
export function testSaving(
  model: RepairModel,
  belief: Belief,
  compiled: CompiledPack,
  test: TestDefinition,
  of: string | undefined,
): number {
  return grossSaving(model, belief.odds, { outcomes: outcomeRows(belief, compiled, test, of) });
}
