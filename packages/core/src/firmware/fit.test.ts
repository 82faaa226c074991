import { describe, expect, test } from '@jest/globals';
import { fitCodes, judgeFit } from './fit.ts';
import { fitCases, knownAim, sameImage } from './fitCases.ts';

/** A case names what is changed; a whole set or image stands for itself. */
const taken = <T extends object>(usual: T, change: Partial<T> | undefined): T =>
  change && 'memory' in change && Object.keys(change).length > 4 ? (change as T) : { ...usual, ...change };

describe('does it fit, as a bench judges it', () => {
  test.each(fitCases.map((one) => [one.name, one] as const))('%s', (_, { aim, image, fit, points }) => {
    const found = judgeFit(taken(knownAim, aim), taken(sameImage, image));
    expect([found.fit, found.points.map(({ code }) => code).toSorted()]).toEqual([fit, [...points].toSorted()]);
  });
  test('every code is met by a case, so that none can be taken for another', () => {
    const met = new Set(fitCases.flatMap(({ points }) => points));
    expect(fitCodes.filter((code) => !met.has(code))).toEqual([]);
  });
  test('what speaks against it comes first, with both sides', () => {
    const [first] = judgeFit(knownAim, { ...sameImage, bytes: 4096 }).points;
    expect(first).toEqual({ code: 'size-other', speaks: 'against', ours: String(knownAim.bytes), theirs: '4096' });
  });
});
