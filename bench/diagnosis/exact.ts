/** What each way costs on small models beside the exact optimum. */
import { costOfFollowing, moveAtOnce, optimalCost, refinedMove, type FollowLimits, type RefineOptions, type Standing } from '@veglia/core';
import type { SmallModel } from '@veglia/simulators';

export interface ExactRatios {
  readonly atOnce: number;
  readonly refined: number;
  readonly optimum: number;
}

export function ratiosOf({ model, probabilities }: SmallModel, options?: RefineOptions): ExactRatios {
  const start: Standing = { probabilities, stage: 0, testsDone: new Set(), repairsDone: new Set() };
  // The same closing of light branches as the optimum's.
  const limits = (): FollowLimits => ({ leastMass: 1e-4, budget: { left: Number.POSITIVE_INFINITY } });
  const optimum = optimalCost(model, start);
  return {
    optimum,
    atOnce: costOfFollowing(model, start, moveAtOnce, limits()) / optimum,
    refined: costOfFollowing(model, start, (m, at) => refinedMove(m, at, options), limits()) / optimum,
  };
}
