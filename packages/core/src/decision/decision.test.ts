import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { planRepairs as plan, testValues, type DecisionModel, type Standing } from './index.ts';

interface RepairModel {
  readonly repairs: readonly { readonly id: string; readonly cost: number; readonly fixes: readonly number[] }[];
  readonly writeOff: number;
}

const modelOf = ({ repairs, writeOff }: RepairModel, tests: DecisionModel['tests'] = []): DecisionModel => ({
  tests,
  repairs: repairs.map(({ id, cost, fixes }) => ({
    id,
    cost,
    stage: 0,
    nuisance: 0,
    cures: fixes.flatMap((chance, hypothesis) => (chance > 0 ? [{ hypothesis, chance }] : [])),
  })),
  stageCost: [0],
  writeOff,
});
const planRepairs = (model: RepairModel, probabilities: readonly number[]): { cost: number; sequence: string[] } => {
  const { cost, sequence } = plan(modelOf(model), Float64Array.from(probabilities));
  return { cost, sequence: sequence.map((index) => model.repairs[index]?.id ?? '') };
};
const standing = (probabilities: readonly number[]): Standing => ({
  probabilities: Float64Array.from(probabilities),
  stage: 0,
  testsDone: new Set(),
  repairsDone: new Set(),
});
const grossSaving = (
  model: RepairModel,
  probabilities: readonly number[],
  { outcomes }: { outcomes: readonly (readonly number[])[] },
): number => {
  const made = modelOf(model, [{ id: 't', cost: 1, stage: 0, outcomes: outcomes.map((row) => Float64Array.from(row)) }]);
  const at = standing(probabilities);
  return testValues(made, at, plan(made, at.probabilities))[0]?.saves ?? 0;
};

/** Cost of trying perfect repairs in a given order, one per fault, nothing ever given up. */
const inOrder = (order: readonly number[], probabilities: readonly number[], costs: readonly number[]): number => {
  let left = 1;
  return order.reduce((sum, fault) => {
    const paid = left * (costs[fault] ?? 0);
    left -= probabilities[fault] ?? 0;
    return sum + paid;
  }, 0);
};
const permutations = (items: readonly number[]): number[][] =>
  items.length === 0 ? [[]] : items.flatMap((one) => permutations(items.filter((other) => other !== one)).map((rest) => [one, ...rest]));
const perfect = (costs: readonly number[], writeOff = 1e9): RepairModel => ({
  repairs: costs.map((cost, fault) => ({ id: `r${fault}`, cost, fixes: costs.map((_, other) => (other === fault ? 1 : 0)) })),
  writeOff,
});
const faults = fc
  .array(fc.record({ weight: fc.integer({ min: 1, max: 100 }), cost: fc.integer({ min: 1, max: 500 }) }), { minLength: 2, maxLength: 6 })
  .map((list) => {
    const total = list.reduce((sum, one) => sum + one.weight, 0);
    return { probabilities: list.map((one) => one.weight / total), costs: list.map((one) => one.cost) };
  });

describe('repairs only', () => {
  test('probability over cost is the best of all orders (Kalagnanam and Henrion 1990)', () => {
    fc.assert(
      fc.property(faults, ({ probabilities, costs }) => {
        const best = Math.min(...permutations(costs.map((_, index) => index)).map((order) => inOrder(order, probabilities, costs)));
        expect(planRepairs(perfect(costs), probabilities).cost).toBeCloseTo(best, 6);
      }),
      { seed: 1990, numRuns: 200 },
    );
  });

  test('a worked case: 0.3 at 10 before 0.7 at 40, because 0.03 a unit beats 0.0175', () => {
    // 10 always, then 40 in the 70 cases of a hundred that are left: 10 + 28 = 38; the other way round 40 + 3 = 43.
    expect(planRepairs(perfect([10, 40]), [0.3, 0.7])).toEqual({ cost: 38, sequence: ['r0', 'r1'] });
  });

  test('a set is given up where that is cheaper, at the start or after a cheap try', () => {
    expect(planRepairs(perfect([10, 400], 100), [0.3, 0.7])).toEqual({ cost: 80, sequence: ['r0'] });
    expect(planRepairs(perfect([200, 400], 100), [0.3, 0.7])).toEqual({ cost: 100, sequence: [] });
  });

  test('a repair that may fail is paid once, and what it leaves over is given up', () => {
    const model: RepairModel = { repairs: [{ id: 'clean', cost: 5, fixes: [0.5] }], writeOff: 100 };
    expect(planRepairs(model, [1])).toEqual({ cost: 55, sequence: ['clean'] });
  });

  test('what nothing fixes is given up at once', () => {
    expect(planRepairs({ repairs: [{ id: 'r', cost: 1, fixes: [0, 1] }], writeOff: 50 }, [1, 0])).toEqual({ cost: 50, sequence: [] });
  });
});

describe('the value of a test', () => {
  const row = fc.array(fc.integer({ min: 1, max: 100 }), { minLength: 6, maxLength: 6 });

  test('is never negative where the order of repairs is exact, and never more than knowing the fault', () => {
    fc.assert(
      fc.property(faults, row, ({ probabilities, costs }, weights) => {
        const model = perfect(costs);
        const first = probabilities.map((_, index) => (weights[index] ?? 1) / 101);
        const outcomes = [first, first.map((p) => 1 - p)];
        const before = planRepairs(model, probabilities).cost;
        const after = outcomes.reduce(
          (sum, one) =>
            sum +
            planRepairs(
              model,
              probabilities.map((p, index) => p * (one[index] ?? 0)),
            ).cost,
          0,
        );
        expect(after).toBeLessThanOrEqual(before + 1e-6);
        const known = probabilities.reduce((sum, p, index) => sum + p * (costs[index] ?? 0), 0);
        expect(grossSaving(model, probabilities, { outcomes })).toBeLessThanOrEqual(before - known + 1e-6);
      }),
      { seed: 1995, numRuns: 200 },
    );
  });

  test('telling two faults apart for sure saves what the wrong repair would have cost', () => {
    // Without: 10 + 0.5 x 40 = 30 or more; knowing: 0.5 x 10 + 0.5 x 40 = 25.
    const outcomes = [
      [1, 0],
      [0, 1],
    ];
    expect(grossSaving(perfect([10, 40]), [0.5, 0.5], { outcomes })).toBeCloseTo(5, 9);
  });

  test('a test that says the same of all saves nothing', () => {
    const outcomes = [
      [0.5, 0.5],
      [0.5, 0.5],
    ];
    expect(grossSaving(perfect([10, 40]), [0.5, 0.5], { outcomes })).toBeCloseTo(0, 9);
  });
});
