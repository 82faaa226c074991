import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { caseOf, shipped } from '../../testing/shipped.ts';
import { bruteForceProbabilities } from '../../testing/bruteForce.ts';
import { assertBelief, believe, entropyBits, foldCase, logOdds, posterior } from '../index.ts';

describe("Bayes' rule", () => {
  test('meningitis and the stiff neck (Russell and Norvig, Artificial Intelligence: A Modern Approach, 3rd ed., 13.5; values from memory)', () => {
    // P(s|m) = 0.7, P(m) = 1/50000, P(s) = 0.01, so P(s|not m) = (0.01 - 0.7/50000) / (1 - 1/50000); the pack's answer is 0.0014.
    const prior = 1 / 50_000;
    const otherwise = (0.01 - 0.7 * prior) / (1 - prior);
    const [sick] = posterior([prior, 1 - prior], [[Math.log(0.7), Math.log(otherwise)]]);
    expect(sick).toBeCloseTo(0.0014, 6);
  });

  test('the blue cab and the witness (Tversky and Kahneman 1982, in Judgment under Uncertainty; values from memory): 0.41', () => {
    const [blue] = posterior([0.15, 0.85], [[Math.log(0.8), Math.log(0.2)]]);
    expect(blue).toBeCloseTo(0.41, 2);
  });

  test('hundreds of small factors do not underflow', () => {
    const factors = Array.from({ length: 600 }, () => [Math.log(0.001), Math.log(0.002)]);
    const [less, more] = posterior([0.5, 0.5], factors);
    expect(more).toBe(1);
    expect(less).toBeLessThan(1e-150);
  });

  test('entropy of a fair four-way choice is two bits; log-odds stay finite', () => {
    expect(entropyBits([0.25, 0.25, 0.25, 0.25, 0])).toBe(2);
    expect(logOdds(0)).toBeGreaterThan(-30);
    expect(logOdds(1)).toBeLessThan(30);
  });
});

/** Random ledgers over the whole layout: outcomes at random, some unsure, some repeated. */
const answers = (most: number, layout = 'led-tcon') =>
  fc.array(
    fc
      .constantFrom(
        ...shipped()
          .testsOf.get(layout)!
          .filter((one) => one.group === undefined),
      )
      .chain((one) =>
        fc
          .tuple(
            fc.constantFrom(...one.observe.outcomes.map((outcome) => outcome.id)),
            one.of ? fc.constantFrom(...shipped().objectsOf(one, layout)) : fc.constant(undefined),
            fc.boolean(),
          )
          .map(([outcome, of, unsure]) => `${one.id}${of === undefined ? '' : `:${of}`}=${outcome}${unsure ? '?' : ''}`),
      ),
    { maxLength: most },
  );
const symptomIds = shipped().symptomIds;

/** Equal to nine places. An `expect` for each of millions of numbers took most of the time. */
const near = (a = Number.NaN, b = Number.NaN): boolean => Math.abs(a - b) < 5e-10;

/** Any layout, with answers to tests it has, and one of its families or none. */
const settings = fc.constantFrom(...shipped().pack.layouts.map(({ id }) => id)).chain((layout) =>
  fc.tuple(
    fc.constant(layout),
    answers(5, layout),
    fc.constantFrom(
      undefined,
      ...shipped()
        .pack.families.filter((one) => one.layouts.includes(layout))
        .map(({ id }) => id),
    ),
  ),
);

describe('the belief', () => {
  test('equals brute-force enumeration of every world: each fault, each true outcome of each test', () => {
    fc.assert(
      fc.property(fc.constantFrom(...symptomIds), settings, (symptom, [layout, told, family]) => {
        const input = caseOf([symptom], told, family === undefined ? { layout } : { layout, family });
        const belief = believe(input, shipped());
        // What follows from another reading isn't counted; its own tests say when (follows.test.ts).
        fc.pre(belief.interpretation.unused.every(({ code }) => code !== 'follows'));
        const expected = bruteForceProbabilities(input, shipped().pack);
        const off = belief.interpretation.hypotheses.filter(
          ({ fault }, index) => !near(belief.probabilities[index], expected.get(fault?.id ?? 'not-in-the-book')),
        );
        expect(off).toEqual([]);
      }),
      { seed: 20261124, numRuns: 300 },
    );
  });

  test('does not depend on the order of independent observations', () => {
    fc.assert(
      fc.property(fc.constantFrom(...symptomIds), answers(6), fc.integer({ min: 1, max: 5 }), (symptom, told, turn) => {
        const probabilities = (list: string[]) => believe(caseOf([symptom], list), shipped()).probabilities;
        const one = probabilities(told);
        const other = probabilities([...told.slice(turn), ...told.slice(0, turn)]);
        expect(one.filter((p, index) => !near(p, other[index]))).toEqual([]);
      }),
      { seed: 7, numRuns: 100 },
    );
  });

  test('sums to 1 whatever is told', () => {
    fc.assert(
      fc.property(fc.subarray([...symptomIds], { maxLength: 4 }), answers(14), (symptoms, told) =>
        assertBelief(believe(caseOf(symptoms, told), shipped())),
      ),
      { seed: 11, numRuns: 200 },
    );
  });

  test('never rules the truth out: no word is zero, and one wrong sure answer is outweighed by honest ones', () => {
    const wrong = 'cut.power-main=dark';
    const honest = [
      'torch=faint-picture',
      'bl-on=absent',
      'led.output=none',
      'strings.tester=all-lit',
      'reseat:harness.power-main=unchanged',
      'reseat:harness.light=unchanged',
    ];
    const fold = foldCase(caseOf(['sound-dark'], [wrong, ...honest], { family: 'quorvane.qk3' }), shipped());
    for (const { probability } of fold.faults) expect(probability).toBeGreaterThan(0);
    expect(fold.assemblies.filter((one) => one.id !== 'power')[0]?.id).toBe('main');
    for (const one of shipped().pack.tests) {
      for (const block of one.likelihood) {
        for (const fault of shipped().faultsOf.get('led-tcon')!) {
          expect(Math.min(...shipped().outcomeLikelihoods(one, block, 'led-tcon', fault.id, one.of?.options[0]))).toBeGreaterThan(0);
        }
      }
    }
  });

  test('the same look again is one observation grown more reliable: it never says more than a perfect look would', () => {
    const probability = (times: number): number =>
      foldCase(
        caseOf(
          ['sound-dark'],
          Array.from({ length: times }, () => 'torch=faint-picture'),
        ),
        shipped(),
      ).assemblies.find((one) => one.id === 'strips')!.probability;
    const [once, twice, often] = [probability(1), probability(2), probability(12)];
    expect(twice).toBeGreaterThan(once);
    expect(often - twice).toBeLessThan(twice - once);
  });

  test('"not certain" moves the probabilities the same way, and less', () => {
    const probability = (told: string[]): number =>
      foldCase(caseOf(['sound-dark'], told), shipped()).assemblies.find((one) => one.id === 'main')!.probability;
    const [none, unsure, sure] = [probability([]), probability(['bl-on=absent?']), probability(['bl-on=absent'])];
    expect(unsure).toBeGreaterThan(none);
    expect(sure).toBeGreaterThan(unsure);
  });

  test('an explanation’s weight is exactly what the probabilities move when that entry is taken out of the case', () => {
    const told = ['rail.standby=in-range', 'ps-on=moves', 'rail.main=in-range', 'rail.secondary=one-missing?', 'cut.picture=unchanged'];
    const input = caseOf(['standby-no-start'], told);
    const fold = foldCase(input, shipped());
    const main = fold.assemblies.find((one) => one.id === 'main')!;
    expect(main.because.length).toBeGreaterThan(3);
    for (const { entry, weight } of main.because) {
      const without = foldCase({ ...input, entries: input.entries.filter((one) => one.id !== entry) }, shipped());
      const there = without.assemblies.find((one) => one.id === 'main')!.probability;
      expect(weight).toBeCloseTo(logOdds(main.probability) - logOdds(there), 9);
    }
  });
});
