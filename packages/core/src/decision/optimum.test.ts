import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  after,
  costOfFollowing,
  moveAtOnce,
  optimalCost,
  planRepairs,
  refinedMove,
  testValues,
  type DecisionModel,
  type Standing,
} from './index.ts';

/** For tests only: every way there is, by trying all moves; sharing no code with the solver but what a move does. */
function everyWay(model: DecisionModel, at: Standing): number {
  let best = at.probabilities.reduce((a, b) => a + b, 0) * model.writeOff;
  const moves = [
    ...model.tests.flatMap((_, index) => (at.testsDone.has(index) ? [] : [{ kind: 'test' as const, index }])),
    ...model.repairs.flatMap((_, index) => (at.repairsDone.has(index) ? [] : [{ kind: 'repair' as const, index }])),
  ];
  for (const move of moves) {
    const { paid, next } = after(model, at, move);
    best = Math.min(
      best,
      next.reduce((sum, one) => sum + everyWay(model, one), paid),
    );
  }
  return best;
}

const share = fc.integer({ min: 5, max: 95 }).map((p) => p / 100);
const model = fc
  .record({
    weights: fc.array(fc.integer({ min: 1, max: 50 }), { minLength: 3, maxLength: 3 }),
    tests: fc.array(
      fc.record({
        cost: fc.integer({ min: 1, max: 40 }),
        stage: fc.constantFrom(0, 1),
        row: fc.array(share, { minLength: 3, maxLength: 3 }),
      }),
      { maxLength: 2 },
    ),
    repairs: fc.array(
      fc.record({ cost: fc.integer({ min: 1, max: 200 }), stage: fc.constantFrom(0, 1), chance: fc.constantFrom(0.5, 0.85, 1) }),
      { minLength: 3, maxLength: 3 },
    ),
    open: fc.integer({ min: 0, max: 60 }),
    writeOff: fc.integer({ min: 50, max: 600 }),
  })
  .map(({ weights, tests, repairs, open, writeOff }): { model: DecisionModel; at: Standing } => {
    const total = weights.reduce((a, b) => a + b, 0);
    return {
      model: {
        tests: tests.map(({ cost, stage, row }, index) => ({
          id: `t${index}`,
          cost,
          stage,
          outcomes: [Float64Array.from(row), Float64Array.from(row, (p) => 1 - p)],
        })),
        repairs: repairs.map(({ cost, stage, chance }, index) => ({
          id: `r${index}`,
          cost,
          stage,
          nuisance: 0,
          cures: [{ hypothesis: index, chance }],
        })),
        stageCost: [0, open],
        writeOff,
      },
      at: { probabilities: Float64Array.from(weights, (w) => w / total), stage: 0, testsDone: new Set(), repairsDone: new Set() },
    };
  });

describe('the exact optimum', () => {
  test('is what trying every way gives', () => {
    fc.assert(
      fc.property(model, ({ model: made, at }) => {
        // Branches lighter than 1e-4 are closed early: at most that share of a new set for each of a few.
        expect(Math.abs(optimalCost(made, at) - everyWay(made, at))).toBeLessThan(made.writeOff * 5e-4);
      }),
      { seed: 1957, numRuns: 150 },
    );
  });

  test('is never above any way of deciding; the deeper look is seldom worse than the first, and both stay near it', () => {
    const first: number[] = [];
    const deeper: number[] = [];
    fc.assert(
      fc.property(model, ({ model: made, at }) => {
        const best = optimalCost(made, at);
        const once = costOfFollowing(made, at, moveAtOnce);
        const refined = costOfFollowing(made, at, refinedMove);
        for (const cost of [once, refined, planRepairs(made, at.probabilities).cost])
          expect(cost).toBeGreaterThan(best - made.writeOff * 5e-4);
        first.push(once / best);
        deeper.push(refined / best);
      }),
      { seed: 1995, numRuns: 150 },
    );
    const mean = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;
    expect(mean(deeper)).toBeLessThanOrEqual(mean(first) + 1e-9);
    expect(mean(first)).toBeLessThan(1.05);
  });

  test('Raiffa’s kind of problem, told by hand: a perfect test is worth what it saves, no more', () => {
    // Two faults, even; repairs 100 each, cured for sure, giving up out of the question. Without a test: 100 + 0.5 x 100 = 150.
    // With a perfect test at 30: 30 + 100 = 130; at 60: 160, so it isn't done. Arithmetic, no source.
    const made = (cost: number): DecisionModel => ({
      tests: [{ id: 't', cost, stage: 0, outcomes: [Float64Array.from([1, 0]), Float64Array.from([0, 1])] }],
      repairs: [0, 1].map((hypothesis) => ({ id: `r${hypothesis}`, cost: 100, stage: 0, nuisance: 0, cures: [{ hypothesis, chance: 1 }] })),
      stageCost: [0],
      writeOff: 1e6,
    });
    const at: Standing = { probabilities: Float64Array.from([0.5, 0.5]), stage: 0, testsDone: new Set(), repairsDone: new Set() };
    expect(optimalCost(made(30), at)).toBeCloseTo(130, 6);
    expect(moveAtOnce(made(30), at)).toEqual({ kind: 'test', index: 0 });
    expect(optimalCost(made(60), at)).toBeCloseTo(150, 6);
    expect(moveAtOnce(made(60), at)).toMatchObject({ kind: 'repair' });
  });
});

describe('a worked example of decision analysis', () => {
  // The oil wildcatter: Raiffa (1968), Decision Analysis, chapter on the value of information (figures from memory). Profits of
  // drilling: dry -70, wet 50, soaking 200, at probabilities .5, .3, .2; a sounding costs 10 and shows no, open or closed structure.
  // Published: drilling unsounded is worth 20; sounding first and drilling unless no structure shows, 22.5.
  // As a job: drilling is a repair of price 10, further 60 where it fails, leaving alone costs 210; a wet well is worth 150 less
  // than a soaking one, which is a cure that fails in 5 of 9 cases (150 / 270). Profit = 210 - cost.
  const wildcatter: DecisionModel = {
    tests: [
      {
        id: 'sounding',
        cost: 10,
        stage: 0,
        outcomes: [
          [0.6, 0.3, 0.1],
          [0.3, 0.4, 0.4],
          [0.1, 0.3, 0.5],
        ].map((row) => Float64Array.from(row)),
      },
    ],
    repairs: [
      {
        id: 'drill',
        cost: 10,
        stage: 0,
        nuisance: 60,
        cures: [
          { hypothesis: 1, chance: 4 / 9 },
          { hypothesis: 2, chance: 1 },
        ],
      },
    ],
    stageCost: [0],
    writeOff: 210,
  };
  const before: Standing = { probabilities: Float64Array.from([0.5, 0.3, 0.2]), stage: 0, testsDone: new Set(), repairsDone: new Set() };

  test('drilling at once is worth 20, sounding first 22.5, and a free sounding 12.5 more than none', () => {
    const plan = planRepairs(wildcatter, before.probabilities);
    expect(210 - plan.cost).toBeCloseTo(20, 9);
    expect(testValues(wildcatter, before, plan)[0]?.saves).toBeCloseTo(12.5, 9);
    expect(210 - optimalCost(wildcatter, before)).toBeCloseTo(22.5, 9);
  });

  test('both looks sound first, leave the well alone where no structure shows, and drill otherwise', () => {
    for (const decide of [moveAtOnce, (model: DecisionModel, at: Standing) => refinedMove(model, at)]) {
      expect(decide(wildcatter, before)).toEqual({ kind: 'test', index: 0 });
      const { next } = after(wildcatter, before, { kind: 'test', index: 0 });
      expect(next.map((at) => decide(wildcatter, at).kind)).toEqual(['give-up', 'repair', 'repair']);
      expect(210 - costOfFollowing(wildcatter, before, decide)).toBeCloseTo(22.5, 9);
    }
  });
});
