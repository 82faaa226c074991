import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { planRepairs, testValues, type DecisionModel } from '../decision/index.ts';
import { caseOf, shipped } from '../testing/shipped.ts';
import { repairOrNot, simulatedBills, worthOfJob, worthShare, type WorthFacts } from './index.ts';
import { worthCases } from './worthCases.ts';

/** A linear congruential generator (Numerical Recipes’ constants, value from memory): the figures must not hang on which one is used. */
function randomOf(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

describe('repair or not', () => {
  test.each(worthCases.map((one) => [one.name, one] as const))('%s', (_, { facts, best, expected, breakEven, minutesByBook }) => {
    const worth = repairOrNot(facts, 4800, randomOf(1));
    expect(worth.options[0]?.option).toBe(best);
    const repair = worth.options.find(({ option }) => option === 'repair');
    if (expected)
      expect({ works: repair?.works, cost: repair?.expectedMinor, net: repair?.netMinor }).toEqual({
        works: expect.closeTo(expected.works, 9) as unknown,
        cost: expected.cost,
        net: expected.net,
      });
    if (breakEven !== undefined) expect(worth.breakEvenMinor).toBe(breakEven);
    if (minutesByBook !== undefined) expect(worth.minutesByBook).toBe(minutesByBook);
    for (const { works, withLoss, fails } of worth.options) expect(works + withLoss + fails).toBeCloseTo(1, 12);
  });

  test('the boundary is where the closed form has it: repair leads exactly while its expected bill is below the break-even', () => {
    fc.assert(
      fc.property(
        fc.record({
          chance: fc.double({ min: 0.01, max: 1, noNaN: true }),
          bill: fc.integer({ min: 0, max: 60_000 }),
          age: fc.integer({ min: 0, max: 20 }),
          fee: fc.integer({ min: 0, max: 5000 }),
          donor: fc.integer({ min: 0, max: 8000 }),
        }),
        ({ chance, bill, age, fee, donor }) => {
          const facts: WorthFacts = {
            ends: [
              { probability: chance, minor: bill, parts: 0, end: 'cured' },
              { probability: 1 - chance, minor: bill, parts: 0, end: 'given-up' },
            ],
            spentMinor: 0,
            feeMinor: fee,
            newSetMinor: 40_000,
            ageYears: age,
            donorMinor: donor,
            offers: [],
          };
          const worth = repairOrNot(facts, 4800, randomOf(1));
          // p · (V − D) + fee: what is gained over handing it back.
          const boundary = chance * (40_000 * worthShare(age) - donor) + fee;
          expect(Math.abs(worth.breakEvenMinor - boundary)).toBeLessThanOrEqual(1);
          const expected = chance * bill + (1 - chance) * fee;
          if (Math.abs(expected - boundary) > 2) expect(worth.options[0]?.option).toBe(expected < boundary ? 'repair' : 'hand-back');
        },
      ),
      { seed: 4, numRuns: 300 },
    );
  });

  test('the spread of labour is the lognormal it claims to be, and moves no expected value', () => {
    const facts = { ends: [{ probability: 1, minor: 10_000, parts: 0, end: 'cured' as const }], spentMinor: 0, feeMinor: 0 };
    const bills = simulatedBills(facts, randomOf(7));
    // Quantiles of a lognormal of mean 10,000 and σ 0.3: exp(−σ²/2 ± 1.2816 σ) (tables of the normal distribution).
    const at = (share: number): number => bills[Math.floor(share * bills.length)] ?? 0;
    expect(at(0.1) / 10_000).toBeCloseTo(Math.exp(-0.045 - 1.2816 * 0.3), 1);
    expect(at(0.9) / 10_000).toBeCloseTo(Math.exp(-0.045 + 1.2816 * 0.3), 1);
    expect(bills.reduce((sum, one) => sum + one, 0) / bills.length / 10_000).toBeCloseTo(1, 1);
    expect(Math.abs(bills.reduce((sum, one) => sum + one, 0) / bills.length - 10_000)).toBeLessThan(200);
  });

  test('the price of a part alone stays within its bounds; what was spent is in every bill', () => {
    const bills = simulatedBills(
      { ends: [{ probability: 0.4, minor: 10_000, parts: 10_000, end: 'cured' }], spentMinor: 3000, feeMinor: 0 },
      randomOf(3),
    );
    expect(bills[0]).toBeGreaterThanOrEqual(11_500);
    expect(bills.at(-1)).toBeLessThanOrEqual(14_500);
    expect(simulatedBills({ ends: [], spentMinor: 3000, feeMinor: 0 }, randomOf(3))).toHaveLength(0);
  });
});

test('what one more check is worth: the expected value of what it tells, less its cost', () => {
  // Two faults, one half each; repairs of 100 and 300; giving up 500. Blind: 100 + ½ · 300 = 250. Told: ½ · 100 + ½ · 300 = 200. So 50, for 10.
  const model: DecisionModel = {
    tests: [{ id: 't', cost: 10, stage: 0, outcomes: [Float64Array.from([1, 0]), Float64Array.from([0, 1])] }],
    repairs: [
      { id: 'a', cost: 100, stage: 0, nuisance: 0, cures: [{ hypothesis: 0, chance: 1 }] },
      { id: 'b', cost: 300, stage: 0, nuisance: 0, cures: [{ hypothesis: 1, chance: 1 }] },
    ],
    stageCost: [0],
    writeOff: 500,
  };
  const at = { probabilities: Float64Array.from([0.5, 0.5]), stage: 0, testsDone: new Set<number>(), repairsDone: new Set<number>() };
  expect(testValues(model, at, planRepairs(model, at.probabilities))[0]).toMatchObject({ saves: 50, cost: 10 });
});

describe('of a job', () => {
  const asked = { feeMinor: 2500, newSetMinor: 42_000, ageYears: 4, donorMinor: 1000, offers: [] };
  test('a dead set is worth a repair, a cracked panel is not', () => {
    const dead = worthOfJob(caseOf(['dead'], ['look.glass=clean']), shipped(), asked, randomOf(1));
    expect(dead?.options[0]?.option).toBe('repair');
    const cracked = worthOfJob(caseOf(['half-picture'], ['look.glass=cracked']), shipped(), asked, randomOf(1));
    expect(cracked?.options[0]?.option).toBe('hand-back');
    const repair = dead?.options.find(({ option }) => option === 'repair');
    expect(repair?.lowMinor).toBeLessThanOrEqual(repair?.expectedMinor ?? 0);
    expect(repair?.highMinor).toBeGreaterThanOrEqual(repair?.expectedMinor ?? 0);
  });
  test('dead and cracked: a supply that is put right drives no glass, so the panel’s price decides', () => {
    const dead = worthOfJob(caseOf(['dead'], ['look.glass=cracked']), shipped(), asked, randomOf(1));
    expect(dead?.options[0]?.option).toBe('hand-back');
    // Nine tenths of a new set, and the hour of fitting it.
    expect(dead?.options.find(({ option }) => option === 'repair')?.expectedMinor).toBeGreaterThan(0.9 * 42_000);
  });

  test('a fresh complaint is worth a check before anything is bought; a case of nothing has no answer', () => {
    const fresh = worthOfJob(caseOf(['dead'], []), shipped(), asked, randomOf(1));
    expect(fresh?.check?.worthMinor).toBeGreaterThan(0);
    expect(worthOfJob({ ...caseOf(['dead']), entries: [] }, shipped(), asked, randomOf(1))).toBeUndefined();
    const cured = { kind: 'repair.done', v: 2, repair: 'replace.power', result: 'cured' };
    expect(worthOfJob(caseOf(['dead'], [cured]), shipped(), asked, randomOf(1))).toBeUndefined();
  });
});
