/**
 * The exact optimum of a small model, by dynamic programming over what has been seen and tried, with branch and bound. For
 * measuring the ways of deciding. Time grows with (outcomes + 1) to the tests times 2 to the repairs: 10 hypotheses, 8 tests
 * and 8 repairs take seconds.
 */
import { failed, mass, opening, seen, type DecisionModel, type Standing } from './model.ts';
import { planCost } from './plan.ts';

/** Branches lighter than this are closed with the plan of repairs: the answer is dearer by that share of a new set at most. */
const lightest = 1e-4;

/** Places kept for a test's outcome and for the repairs in a standing's number; 2^53 holds them for 10 tests and 12 repairs. */
const outcomePlaces = 8;
const mostTests = 10;
const mostRepairs = 12;

/** Expected cost of the best way there is. Throws RangeError on a model too large to be numbered. */
export function optimalCost(model: DecisionModel, start: Standing): number {
  const { tests, repairs } = model;
  if (tests.length > mostTests || repairs.length > mostRepairs) throw new RangeError('too large to be solved exactly');
  const hypotheses = start.probabilities.length;
  // Least that each hypothesis costs once it is known, by the repairs not yet tried, from the stage reached.
  const knownCosts = new Map<number, Float64Array>();
  const masks = repairs.map((_, index) => 2 ** index);
  const doneOf = (mask: number): Set<number> => new Set(masks.flatMap((bit, index) => ((mask & bit) !== 0 ? [index] : [])));
  const known = (mask: number, stage: number): Float64Array => {
    const key = mask * model.stageCost.length + stage;
    const found = knownCosts.get(key);
    if (found) return found;
    const done = doneOf(mask);
    const costs = Float64Array.from({ length: hypotheses }, (_, h) => {
      const sure = new Float64Array(hypotheses);
      sure[h] = 1;
      return planCost(model, sure, stage, done);
    });
    knownCosts.set(key, costs);
    return costs;
  };
  const bound = (probabilities: Float64Array, mask: number, stage: number): number => {
    const costs = known(mask, stage);
    let sum = 0;
    for (let h = 0; h < hypotheses; h += 1) sum += (probabilities[h] ?? 0) * (costs[h] ?? 0);
    return sum;
  };
  const places = tests.map((_, index) => outcomePlaces ** index);
  const solved = new Map<number, number>();

  // A standing follows from which outcome each test showed and which repairs failed; the way there doesn't matter.
  const solve = (probabilities: Float64Array, stage: number, shown: number, mask: number): number => {
    const total = mass(probabilities);
    if (total === 0) return 0;
    const key = shown * 2 ** mostRepairs + mask;
    const found = solved.get(key);
    if (found !== undefined) return found;
    let best = planCost(model, probabilities, stage, doneOf(mask));
    if (total > lightest) {
      const moves: {
        least: number;
        cost: number;
        next: { probabilities: Float64Array; stage: number; shown: number; mask: number; least: number }[];
      }[] = [];
      const add = (cost: number, branches: { probabilities: Float64Array; stage: number; shown: number; mask: number }[]): void => {
        const next = branches.map((one) => ({ ...one, least: bound(one.probabilities, one.mask, one.stage) }));
        const least = next.reduce((sum, one) => sum + one.least, cost);
        if (least < best) moves.push({ least, cost, next });
      };
      tests.forEach((test, index) => {
        if (Math.floor(shown / (places[index] ?? 1)) % outcomePlaces !== 0) return;
        const to = Math.max(stage, test.stage);
        add(
          total * (test.cost + opening(model, stage, test.stage)),
          test.outcomes.map((row, outcome) => ({
            probabilities: seen(probabilities, row),
            stage: to,
            shown: shown + (outcome + 1) * (places[index] ?? 1),
            mask,
          })),
        );
      });
      repairs.forEach((repair, index) => {
        const bit = masks[index] ?? 0;
        if ((mask & bit) !== 0) return;
        const left = failed(probabilities, repair);
        const cured = total - mass(left);
        if (cured <= lightest * total) return;
        add(total * (repair.cost + opening(model, stage, repair.stage)) + (total - cured) * repair.nuisance, [
          { probabilities: left, stage: Math.max(stage, repair.stage), shown, mask: mask | bit },
        ]);
      });
      moves.sort((a, b) => a.least - b.least);
      for (const { least, next } of moves) {
        if (least >= best) break;
        let cost = least;
        for (const one of next) {
          cost += solve(one.probabilities, one.stage, one.shown, one.mask) - one.least;
          if (cost >= best) break;
        }
        if (cost < best) best = cost;
      }
    }
    solved.set(key, best);
    return best;
  };
  return solve(start.probabilities, start.stage, 0, 0);
}
