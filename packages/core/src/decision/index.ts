export { moveAtOnce, moveOf, payingTests, testValues, type TestValue } from './atOnce.ts';
export { after, costOfFollowing, noLimits, type Decide, type FollowLimits } from './follow.ts';
export {
  failed,
  mass,
  opening,
  seen,
  type DecisionModel,
  type DecisionRepair,
  type DecisionTest,
  type Move,
  type Standing,
} from './model.ts';
export { optimalCost } from './optimum.ts';
export { planRepairs, type RepairPlan } from './plan.ts';
export { refinedMove, refinedMoves, usualRefinement, type RefinedMove, type RefineOptions } from './refine.ts';
