/**
 * The next move, one look ahead. A test pays when it takes more off the expected cost of repair than it costs; among those
 * that pay, the largest saving for its cost goes first, unless a repair is better done before it. When none does, the first
 * repair of the plan, or giving up.
 */
import { failed, mass, opening, type DecisionModel, type Move, type Standing } from './model.ts';
import { planCost, planRepairs, type RepairPlan } from './plan.ts';

/** What a test is worth before a repair is tried. */
export interface TestValue {
  /** Place in the model. */
  readonly index: number;
  /** What the test costs from here, its way included. */
  readonly cost: number;
  /** Cost and hazard together: it pays where it saves more. */
  readonly weight: number;
  /** What it takes off the expected cost to the end, its own cost not counted; at least 0. */
  readonly saves: number;
  /** Saving for its cost, shifted by preference: what pays is ordered by it. */
  readonly rate: number;
}

/** Value of each open test from here; `plan` is that of the standing. All weighed by what the probabilities sum to. */
export function testValues(model: DecisionModel, at: Standing, plan: RepairPlan): TestValue[] {
  const values: TestValue[] = [];
  const total = mass(at.probabilities);
  model.tests.forEach((test, index) => {
    if (at.testsDone.has(index)) return;
    const way = opening(model, at.stage, test.stage);
    const stage = Math.max(at.stage, test.stage);
    let after = 0;
    for (const row of test.outcomes) after += planCost(model, at.probabilities, stage, at.repairsDone, row);
    // An answer may always be ignored, and an opened set only makes what follows cheaper.
    const cost = (test.cost + way) * total;
    const saves = Math.max(0, plan.cost - after);
    const weight = cost + (test.hazard ?? 0) * total;
    values.push({ index, cost, weight, saves, rate: saves / weight / (test.preference ?? 1) });
  });
  return values;
}

/** Tests that pay, best first; ties by place in the model. */
export function payingTests(values: readonly TestValue[]): TestValue[] {
  return values.filter(({ weight, saves }) => saves > weight).sort((a, b) => b.rate - a.rate || a.index - b.index);
}

/** Repairs of the plan tried before the best test. */
const triedFirst = 3;

/**
 * Whether a repair belongs before the best test: the same two things in the other order. Doing the repair first spares the test
 * where it cures; doing the test first spares the repair where it is cleared.
 */
function repairBefore(model: DecisionModel, at: Standing, plan: RepairPlan, best: TestValue): number | undefined {
  const test = model.tests[best.index];
  if (!test) return undefined;
  const testFirst = plan.cost - best.saves + best.cost;
  let cheapest: number | undefined;
  let least = testFirst;
  for (const index of plan.sequence.slice(0, triedFirst)) {
    const repair = model.repairs[index];
    if (!repair) continue;
    const left = failed(at.probabilities, repair);
    const opened = Math.max(at.stage, repair.stage);
    const stage = Math.max(opened, test.stage);
    const done = new Set(at.repairsDone).add(index);
    const leftMass = mass(left);
    let cost = mass(at.probabilities) * (repair.cost + opening(model, at.stage, repair.stage)) + leftMass * repair.nuisance;
    cost += leftMass * (test.cost + opening(model, opened, test.stage));
    for (const row of test.outcomes) cost += planCost(model, left, stage, done, row);
    if (cost < least) {
      least = cost;
      cheapest = index;
    }
  }
  return cheapest;
}

/** The best move by one-step expected cost of repair (Heckerman, Breese and Rommelse 1995), without looking further. */
export function moveAtOnce(model: DecisionModel, at: Standing): Move {
  const plan = planRepairs(model, at.probabilities, at.stage, at.repairsDone);
  return moveOf(model, at, plan, payingTests(testValues(model, at, plan)));
}

/** The same, where plan and paying tests are known already. */
export function moveOf(model: DecisionModel, at: Standing, plan: RepairPlan, [best]: readonly TestValue[]): Move {
  if (best) {
    const first = repairBefore(model, at, plan, best);
    return first === undefined ? { kind: 'test', index: best.index } : { kind: 'repair', index: first };
  }
  const [first] = plan.sequence;
  return first === undefined ? { kind: 'give-up' } : { kind: 'repair', index: first };
}
