/** What a way of deciding costs when it is followed to the end, told exactly over the tree of answers and failed repairs. */
import { failed, mass, opening, seen, type DecisionModel, type Move, type Standing } from './model.ts';
import { planCost } from './plan.ts';

/** A way of deciding: the move to make where a job stands. */
export type Decide = (model: DecisionModel, at: Standing) => Move;

/** How far the tree is followed. */
export interface FollowLimits {
  /** Branches lighter than this are closed with the plan of repairs, which is safe: it is a way that can be gone. */
  readonly leastMass: number;
  /** Standings looked at in all before every further branch is closed so. */
  readonly budget: { left: number };
}

/** The whole tree, however large; for small models. */
export const noLimits = (): FollowLimits => ({ leastMass: 0, budget: { left: Number.POSITIVE_INFINITY } });

/** Standings after a move, each with the cost paid on the way there; a cure ends a branch and is not listed. */
export function after(model: DecisionModel, at: Standing, move: Move): { readonly paid: number; readonly next: readonly Standing[] } {
  const total = mass(at.probabilities);
  if (move.kind === 'give-up') return { paid: total * model.writeOff, next: [] };
  if (move.kind === 'test') {
    const test = model.tests[move.index];
    if (!test) return { paid: 0, next: [] };
    const testsDone = new Set(at.testsDone).add(move.index);
    const stage = Math.max(at.stage, test.stage);
    return {
      paid: total * (test.cost + (test.hazard ?? 0) + opening(model, at.stage, test.stage)),
      next: test.outcomes.map((row) => ({ ...at, probabilities: seen(at.probabilities, row), stage, testsDone })),
    };
  }
  const repair = model.repairs[move.index];
  if (!repair) return { paid: 0, next: [] };
  const probabilities = failed(at.probabilities, repair);
  return {
    paid: total * (repair.cost + opening(model, at.stage, repair.stage)) + mass(probabilities) * repair.nuisance,
    next: [{ ...at, probabilities, stage: Math.max(at.stage, repair.stage), repairsDone: new Set(at.repairsDone).add(move.index) }],
  };
}

/** Probabilities so small that they can't carry a figure. */
const nothingLeft = 1e-9;

/** Expected cost of following `decide` from here, weighed by what the probabilities sum to. */
export function costOfFollowing(model: DecisionModel, at: Standing, decide: Decide, limits: FollowLimits = noLimits()): number {
  const total = mass(at.probabilities);
  if (total <= nothingLeft) return 0;
  limits.budget.left -= 1;
  if (total < limits.leastMass || limits.budget.left < 0) return planCost(model, at.probabilities, at.stage, at.repairsDone);
  const { paid, next } = after(model, at, decide(model, at));
  return next.reduce((sum, one) => sum + costOfFollowing(model, one, decide, limits), paid);
}
