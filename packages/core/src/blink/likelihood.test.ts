import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped } from '../testing/shipped.ts';
import { foldCase } from '../diagnosis/index.ts';
import { codesElsewhere, codesGivenFault, codesMeant, groupDistance, nearestCodes, readingGivenCode } from './index.ts';

const family = shipped().families.get('quorvane.qk3')!;
const fault = (id: string) =>
  shipped()
    .faultsOf.get('led-tcon')!
    .find((one) => one.id === id)!;
const probability = (fold: ReturnType<typeof foldCase>, id: string): number =>
  fold.assemblies.find((one) => one.id === id)?.probability ?? 0;
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

  test('twice the same is nearly sure, once is probabilities over neighbours', () => {
    const four = family.blink.find((code) => code.id === 'four')!;
    expect(readingGivenCode({ groups: [4], cycles: 2 }, four)).toBeCloseTo(0.97, 12);
    expect(readingGivenCode({ groups: [5], cycles: 1 }, four)).toBeGreaterThan(10 * readingGivenCode({ groups: [9], cycles: 1 }, four));
    expect(readingGivenCode({ groups: [4], cycles: 2, colour: 'blue' }, four)).toBeLessThan(0.05);
  });

  test('points where the family’s table points', () => {
    const fold = foldCase(caseOf(['blinking'], [read([4])], { family: 'quorvane.qk3' }), shipped());
    expect(fold.assemblies[0]?.id).toBe('strips');
    expect(probability(fold, 'main')).toBeLessThan(0.2);
  });

  test('never weighs more than a table that may not fit this set: under a hundred to one between any two faults', () => {
    const fold = foldCase(caseOf(['standby-no-start'], [read([6]), read([6]), read([6])], { family: 'quorvane.qk3' }), shipped());
    const before = foldCase(caseOf(['standby-no-start'], [], { family: 'quorvane.qk3' }), shipped());
    const gain = (id: string): number =>
      fold.faults.find((one) => one.id === id)!.probability / before.faults.find((one) => one.id === id)!.probability;
    const gains = before.faults.filter((one) => one.id !== 'not-in-the-book').map((one) => gain(one.id));
    expect(Math.max(...gains) / Math.min(...gains)).toBeLessThan(100);
    expect(Math.max(...gains) / Math.min(...gains)).toBeGreaterThan(20);
  });

  test('says nothing for a set of unknown family, and takes nothing from another family', () => {
    const without = foldCase(caseOf(['blinking']), shipped());
    const fold = foldCase(caseOf(['blinking'], [read([4])]), shipped());
    expect(fold.assemblies.map(({ id, probability: p }) => [id, p])).toEqual(without.assemblies.map(({ id, probability: p }) => [id, p]));
    expect(fold.unused).toEqual([expect.objectContaining({ code: 'no-blink-table' })]);
  });

  test('read once moves the probabilities less than read twice, and is marked as a doubt', () => {
    const once = foldCase(caseOf(['blinking'], [read([6], 1)], { family: 'quorvane.qk3' }), shipped());
    const twice = foldCase(caseOf(['blinking'], [read([6])], { family: 'quorvane.qk3' }), shipped());
    expect(probability(once, 'main')).toBeLessThan(probability(twice, 'main'));
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

  test('probabilities over counts count as they are: a reader’s half for six is half of what a sure six is worth, and the rest goes to five', () => {
    const six = family.blink.find((code) => code.id === 'six')!;
    const eight = family.blink.find((code) => code.id === 'eight')!;
    const reader = { groups: [6], cycles: 1, probability: 0.6, alternatives: [{ groups: [8], probability: 0.4 }] };
    expect(readingGivenCode(reader, six)).toBeCloseTo(0.9 * 0.6, 12);
    // Two off by miscounting, besides the reader's own probabilities.
    expect(readingGivenCode(reader, eight)).toBeCloseTo(0.9 * 0.4 + 0.1 * 0.08, 12);
    const [first, second] = codesMeant(family, reader);
    expect([first?.code.id, second?.code.id]).toEqual(['six', 'eight']);
    expect(first!.probability).toBeGreaterThan(second!.probability);
  });

  test('families of the same layout that use the count are named, and are no evidence', () => {
    const elsewhere = codesElsewhere(shipped(), { groups: [6], cycles: 2 }, ['led-tcon'], 'quorvane.qk3');
    for (const { family: other, code } of elsewhere) {
      expect(other.id).not.toBe('quorvane.qk3');
      expect(other.layouts).toContain('led-tcon');
      expect(code.groups).toEqual([6]);
    }
    expect(codesElsewhere(shipped(), { groups: [6], cycles: 2 }, ['led-tcon'], undefined).map((one) => one.family.id)).toContain(
      'quorvane.qk3',
    );
  });

  test('a code seen with a board out isn’t this set’s; a light that is no code is kept and not used', () => {
    const before = foldCase(caseOf(['blinking'], [], { family: 'quorvane.qk3' }), shipped());
    const fold = foldCase(
      caseOf(
        ['blinking'],
        [
          { ...read([4]), out: 'tcon' },
          { kind: 'blink.read', groups: [], light: 'no-pattern', cycles: 0 },
        ],
        { family: 'quorvane.qk3' },
      ),
      shipped(),
    );
    expect(fold.unused.map(({ code }) => code)).toEqual(['board-was-out', 'light-no-code']);
    expect(probability(fold, 'strips')).toBeCloseTo(probability(before, 'strips'), 12);
  });

  test('another code with a board out says little until the old one is seen again with it back in', () => {
    const [names] = shipped().pack.families.filter(
      (one) => one.traits['code.names-missing-board'] === 'yes' && one.layouts.includes('led-tcon'),
    );
    const facts = { family: names!.id };
    const changed = { kind: 'test.answered', test: 'code-again', of: 'tcon', outcome: 'changed', sure: 'sure' };
    const groups = [...names!.blink[0]!.groups];
    const without = foldCase(caseOf(['blinking'], [read(groups)], facts), shipped());
    const open = foldCase(caseOf(['blinking'], [read(groups), changed], facts), shipped());
    const returned = foldCase(caseOf(['blinking'], [read(groups), changed, read(groups)], facts), shipped());
    const other = foldCase(caseOf(['blinking'], [read(groups), changed, read([groups[0]! + 1])], facts), shipped());
    const moved = (fold: typeof open): number => Math.abs(Math.log(probability(fold, 'tcon') / probability(without, 'tcon')));
    expect(moved(returned)).toBeGreaterThan(moved(open));
    expect(open.doubts).toContainEqual(expect.objectContaining({ code: 'code-not-returned' }));
    expect(returned.doubts).not.toContainEqual(expect.objectContaining({ code: 'code-not-returned' }));
    expect(other.doubts).toContainEqual(expect.objectContaining({ code: 'code-not-returned' }));
  });

  test('a long run and then dark may be attempts to start: a doubt, once', () => {
    const fold = foldCase(
      caseOf(['blinking'], [{ kind: 'blink.read', groups: [17], after: 'dark', cycles: 1 }], { family: 'quorvane.qk3' }),
      shipped(),
    );
    expect(fold.doubts.filter(({ code }) => code === 'maybe-start-attempts')).toEqual([expect.objectContaining({ value: 17 })]);
  });
});
