import { describe, expect, test } from '@jest/globals';
import { optimalCost, type DecisionModel, type Standing } from '../decision/index.ts';
import { caseOf, shipped } from '../testing/shipped.ts';
import { billBars, billEnds, billSpread, likelyBill, type BillEnd } from './index.ts';

const start = (probabilities: readonly number[]): Standing => ({
  probabilities: Float64Array.from(probabilities),
  stage: 0,
  testsDone: new Set(),
  repairsDone: new Set(),
});
/** Two faults; a sure test for 10, a repair each, giving up at 500. */
const two: DecisionModel = {
  tests: [{ id: 't', cost: 10, stage: 0, outcomes: [Float64Array.from([1, 0]), Float64Array.from([0, 1])] }],
  repairs: [
    { id: 'a', cost: 100, stage: 0, nuisance: 0, cures: [{ hypothesis: 0, chance: 1 }] },
    { id: 'b', cost: 300, stage: 0, nuisance: 0, cures: [{ hypothesis: 1, chance: 0.8 }] },
  ],
  stageCost: [0],
  writeOff: 500,
};

describe('the bill before a job is begun', () => {
  test('told by hand: test, then the right repair, or what was spent when it is given up', () => {
    // Half a: 10 + 100. Half b: 10 + 300, of which a fifth isn't cured and is given up at the same bill. Arithmetic, no source.
    const ends = billEnds(two, start([0.5, 0.5]));
    const byEnd = (end: string, minor: number): number =>
      ends.filter((one) => one.end === end && one.minor === minor).reduce((sum, { probability }) => sum + probability, 0);
    expect(byEnd('cured', 110)).toBeCloseTo(0.5, 12);
    expect(byEnd('cured', 310)).toBeCloseTo(0.4, 12);
    expect(byEnd('given-up', 310)).toBeCloseTo(0.1, 12);
    expect(billSpread(ends)).toEqual({ low: 110, middle: 110, high: 310, givenUp: expect.closeTo(0.1, 12) as unknown, curedMiddle: 110 });
  });

  test('bill and loss together are what the way costs: the exact optimum where the way is the best one', () => {
    const at = start([0.5, 0.5]);
    const expected = billEnds(two, at).reduce(
      (sum, { probability, minor, end }) => sum + probability * (minor + (end === 'given-up' ? 500 : 0)),
      0,
    );
    expect(expected).toBeCloseTo(optimalCost(two, at), 9);
  });

  test('ends cover everything, however early branches are closed', () => {
    for (const limits of [
      { leastShare: 0, standings: 1000 },
      { leastShare: 0.3, standings: 1000 },
      { leastShare: 0, standings: 1 },
    ]) {
      const ends = billEnds(two, start([0.3, 0.7]), limits);
      expect(ends.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 12);
    }
  });

  test.each<[string, BillEnd[], unknown]>([
    ['nothing', [], undefined],
    ['ends without probabilities', [{ probability: 0, minor: 5, end: 'cured' }], undefined],
    ['one end', [{ probability: 0.2, minor: 5, end: 'given-up' }], { low: 5, middle: 5, high: 5, givenUp: 1 }],
  ])('of %s', (_, ends, spread) => {
    expect(billSpread(ends)).toEqual(spread);
  });

  test('drawn as bars of one round width, in shares, with the empty ones between them', () => {
    const ends: BillEnd[] = [
      { probability: 0.2, minor: 4_900, end: 'cured' },
      { probability: 0.1, minor: 5_000, end: 'given-up' },
      { probability: 0.1, minor: 21_000, end: 'cured' },
      { probability: 0, minor: 900_000, end: 'cured' },
    ];
    const bars = billBars(ends);
    expect(bars.map(({ from, to }) => [from, to])).toEqual(Array.from({ length: 11 }, (_, index) => [index * 2000, index * 2000 + 2000]));
    expect(bars[2]).toEqual({ from: 4000, to: 6000, cured: expect.closeTo(0.5, 12), givenUp: expect.closeTo(0.25, 12) });
    expect(bars[10]).toEqual({ from: 20_000, to: 22_000, cured: expect.closeTo(0.25, 12), givenUp: 0 });
    expect(bars.filter(({ cured, givenUp }) => cured + givenUp > 0)).toHaveLength(2);
    expect(billBars([])).toEqual([]);
    // Whatever the scale, few enough to be told apart; all of them together are everything.
    for (const minor of [0, 1, 999, 14_000, 123_456, 9_999_999]) {
      const one = billBars([...ends.slice(0, 2), { probability: 0.7, minor, end: 'cured' }]);
      expect(one.length).toBeLessThanOrEqual(14);
      expect(one.reduce((sum, { cured, givenUp }) => sum + cured + givenUp, 0)).toBeCloseTo(1, 12);
    }
  });

  test('the bars are of the whole bill: an hour spent already is in every one', () => {
    const fresh = likelyBill(caseOf(['dead'], []), shipped())!;
    const hour = { kind: 'test.answered', v: 2, test: 'look.glass', outcome: 'cant-tell', sure: 'sure', minutes: 60 };
    const later = likelyBill(caseOf(['dead'], [hour]), shipped())!;
    const cheapest = (bill: typeof fresh): number => bill.bars.find(({ cured, givenUp }) => cured + givenUp > 0)!.from;
    expect(later.middle).toBe(fresh.middle);
    expect(cheapest(later) - cheapest(fresh)).toBeGreaterThanOrEqual(4000);
  });

  test('once a repair cleared it, the bill is what was spent: nothing is left to be hoped for or given up', () => {
    const cured = { kind: 'repair.done', v: 2, repair: 'replace.power', result: 'cured', minutes: 30 };
    const bill = likelyBill(caseOf(['dead'], [cured]), shipped())!;
    expect([bill.low, bill.high, bill.givenUp]).toEqual([0, 0, 0]);
    // Half an hour at 48.00.
    expect(bill.bars.find(({ cured: share }) => share > 0)).toMatchObject({ from: 2400, cured: 1, givenUp: 0 });
  });

  test('a crack is dearer to hope for than a dead standby rail, and gives up more often', () => {
    const fuse = likelyBill(caseOf(['dead'], ['look.glass=clean']), shipped())!;
    const crack = likelyBill(caseOf(['half-picture'], ['look.glass=cracked']), shipped())!;
    expect(fuse.low).toBeLessThanOrEqual(fuse.middle);
    expect(fuse.middle).toBeLessThanOrEqual(fuse.high);
    expect(crack.givenUp).toBeGreaterThan(fuse.givenUp + 0.3);
    expect(fuse.givenUp).toBeLessThan(0.3);
    expect(fuse.bars.reduce((sum, { givenUp }) => sum + givenUp, 0)).toBeCloseTo(fuse.givenUp, 9);
  });

  test('where the layout isn’t known, each that is possible counts by its probability; a case of nothing has no bill', () => {
    const spread = (layout: unknown) => likelyBill(caseOf(['dead'], [], { layout }), shipped())!;
    const [one, other] = [spread('led-tcon'), spread('plasma')];
    const mixed = spread({ probabilities: { 'led-tcon': 0.5, plasma: 0.5 } });
    expect(mixed.high).toBeGreaterThanOrEqual(Math.min(one.high, other.high));
    expect(mixed.high).toBeLessThanOrEqual(Math.max(one.high, other.high));
    expect(likelyBill({ ...caseOf(['dead']), entries: [] }, shipped())).toBeUndefined();
  });
});
