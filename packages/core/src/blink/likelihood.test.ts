import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped } from '../testing/shipped.ts';
import { foldCase } from '../diagnosis/index.ts';
import { codesGivenFault, groupDistance, nearestCodes, readingGivenCode } from './index.ts';

const family = shipped().families.get('quorvane.qk3')!;
const fault = (id: string) =>
  shipped()
    .faultsOf.get('led-tcon')!
    .find((one) => one.id === id)!;
const odds = (fold: ReturnType<typeof foldCase>, id: string): number => fold.assemblies.find((one) => one.id === id)?.odds ?? 0;
const read = (groups: number[], cycles = 2) => ({ kind: 'blink.read', groups, cycles });

describe('a count that was read', () => {
  test('codes of a fault and what is left for others sum to 1, for every fault', () => {
    for (const one of shipped().faultsOf.get('led-tcon')!) {
      expect(codesGivenFault(shipped(), family, one).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12);
    }
    expect(codesGivenFault(shipped(), family, fault('main.processor'))[2]).toBeGreaterThan(0.4);
  });

  test('groups of different number are not neighbours', () => {
    expect(groupDistance([3, 1], [4])).toBeUndefined();
    expect(groupDistance([3, 1], [2, 2])).toBe(2);
  });

  test('twice the same is nearly sure, once is odds over neighbours', () => {
    const four = family.blink.find((code) => code.id === 'four')!;
    expect(readingGivenCode({ groups: [4], cycles: 2 }, four)).toBeCloseTo(0.97, 12);
    expect(readingGivenCode({ groups: [5], cycles: 1 }, four)).toBeGreaterThan(10 * readingGivenCode({ groups: [9], cycles: 1 }, four));
    expect(readingGivenCode({ groups: [4], cycles: 2, colour: 'blue' }, four)).toBeLessThan(0.05);
  });

  test('points where the family’s table points', () => {
    const fold = foldCase(caseOf(['blinking'], [read([4])], { family: 'quorvane.qk3' }), shipped());
    expect(fold.assemblies[0]?.id).toBe('strips');
    expect(odds(fold, 'main')).toBeLessThan(0.2);
  });

  test('never weighs more than a table that may not fit this set: under a hundred to one between any two faults', () => {
    const fold = foldCase(caseOf(['standby-no-start'], [read([6]), read([6]), read([6])], { family: 'quorvane.qk3' }), shipped());
    const before = foldCase(caseOf(['standby-no-start'], [], { family: 'quorvane.qk3' }), shipped());
    const gain = (id: string): number => fold.faults.find((one) => one.id === id)!.odds / before.faults.find((one) => one.id === id)!.odds;
    const gains = before.faults.filter((one) => one.id !== 'not-in-the-book').map((one) => gain(one.id));
    expect(Math.max(...gains) / Math.min(...gains)).toBeLessThan(100);
    expect(Math.max(...gains) / Math.min(...gains)).toBeGreaterThan(20);
  });

  test('says nothing for a set of unknown family, and takes nothing from another family', () => {
    const without = foldCase(caseOf(['blinking']), shipped());
    const fold = foldCase(caseOf(['blinking'], [read([4])]), shipped());
    expect(fold.assemblies.map(({ id, odds: p }) => [id, p])).toEqual(without.assemblies.map(({ id, odds: p }) => [id, p]));
    expect(fold.unused).toEqual([expect.objectContaining({ code: 'no-blink-table' })]);
  });

  test('read once moves the odds less than read twice, and is marked as a doubt', () => {
    const once = foldCase(caseOf(['blinking'], [read([6], 1)], { family: 'quorvane.qk3' }), shipped());
    const twice = foldCase(caseOf(['blinking'], [read([6])], { family: 'quorvane.qk3' }), shipped());
    expect(odds(once, 'main')).toBeLessThan(odds(twice, 'main'));
    expect(once.doubts).toContainEqual(expect.objectContaining({ code: 'blink-read-once' }));
    expect(twice.doubts).not.toContainEqual(expect.objectContaining({ code: 'blink-read-once' }));
  });

  test('a count the family does not use is likely a miscount: told, with the nearest', () => {
    const fold = foldCase(caseOf(['blinking'], [read([7])], { family: 'quorvane.qk3' }), shipped());
    expect(fold.doubts).toContainEqual(expect.objectContaining({ code: 'count-not-in-table' }));
    expect(
      nearestCodes(family, { groups: [7], cycles: 2 })
        .slice(0, 2)
        .map(({ code }) => code.id),
    ).toEqual(['eight', 'six']);
  });
});
