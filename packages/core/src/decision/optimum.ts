/**
 * The exact optimum of a small model, by dynamic programming over what has been seen and tried, with branch and bound. For
 * measuring the ways of deciding; a model of 10 hypotheses and 8 tests takes a second or less.
 */
import { after } from './follow.ts';
import { mass, type DecisionModel, type Move, type Standing } from './model.ts';
import { planRepairs } from './plan.ts';

/** Below this a branch is cured for every purpose. */
const nothingLeft = 1e-12;

/** Least that each hypothesis costs when it is known: its best repairs in order, or giving up. Openings are left out. */
function knownCosts(model: DecisionModel, hypotheses: number): (at: Standing) => Float64Array {
  const cache = new Map<string, Float64Array>();
  const free: DecisionModel = { ...model, stageCost: model.stageCost.map(() => 0) };
  return (at) => {
    const key = [...at.repairsDone].sort((a, b) => a - b).join(',');
    const known = cache.get(key);
    if (known) return known;
    const costs = Float64Array.from({ length: hypotheses }, (_, h) => {
      const sure = new Float64Array(hypotheses);
      sure[h] = 1;
      return planRepairs(free, sure, 0, at.repairsDone).cost;
    });
    cache.set(key, costs);
    return costs;
  };
}

/** Expected cost of the best way there is. */
export function optimalCost(model: DecisionModel, start: Standing): number {
  const known = knownCosts(model, start.odds.length);
  const solved = new Map<string, number>();
  const bound = (at: Standing): number => {
    const costs = known(at);
    let sum = 0;
    for (let h = 0; h < at.odds.length; h += 1) sum += (at.odds[h] ?? 0) * (costs[h] ?? 0);
    return sum;
  };
  // A standing follows from which outcome each test showed and which repairs failed; the way there doesn't matter.
  const solve = (at: Standing, history: string): number => {
    const total = mass(at.odds);
    if (total <= nothingLeft) return 0;
    const key = history.split(' ').sort().join(' ');
    const done = solved.get(key);
    if (done !== undefined) return done;
    let best = Math.min(total * model.writeOff, planRepairs(model, at.odds, at.stage, at.repairsDone).cost);
    const moves: { move: Move; name: string }[] = [];
    model.tests.forEach((_, index) => {
      if (!at.testsDone.has(index)) moves.push({ move: { kind: 'test', index }, name: `t${index}` });
    });
    model.repairs.forEach(({ cures }, index) => {
      if (!at.repairsDone.has(index) && cures.some(({ hypothesis }) => (at.odds[hypothesis] ?? 0) > nothingLeft)) {
        moves.push({ move: { kind: 'repair', index }, name: `r${index}` });
      }
    });
    const looked = moves
      .map(({ move, name }) => {
        const { paid, next } = after(model, at, move);
        const bounds = next.map(bound);
        return { name, next, bounds, least: bounds.reduce((a, b) => a + b, paid) };
      })
      .sort((a, b) => a.least - b.least);
    for (const { name, next, bounds, least } of looked) {
      if (least >= best) break;
      let cost = least;
      next.forEach((one, index) => {
        if (cost >= best) return;
        cost += solve(one, `${history} ${name}=${index}`) - (bounds[index] ?? 0);
      });
      if (cost < best) best = cost;
    }
    solved.set(key, best);
    return best;
  };
  return solve(start, '');
}
