/** Warm places on the picture of a board. What is expected was written first: warmthCases.ts. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { alignPlaces, judgeWarmth, type Place } from './places.ts';
import { goodSetCases, placeCases } from './warmthCases.ts';

describe('the same places on two pictures', () => {
  test.each(placeCases)('$name', ({ pairs, at, lies }) => {
    const align = alignPlaces(pairs);
    if (lies === null) expect(align).toBeUndefined();
    else expect(align?.(at)).toEqual(lies.map((one) => expect.closeTo(one, 6) as unknown));
  });
  test('the places that were pressed lie on each other', () => {
    const number = fc.double({ min: -500, max: 500, noNaN: true });
    const place = fc.tuple(number, number);
    fc.assert(
      fc.property(place, place, place, place, place, place, (a, b, c, x, y, z) => {
        const apart = (p: Place, q: Place): number => Math.hypot(p[0] - q[0], p[1] - q[1]);
        fc.pre(apart(a, b) > 20 && apart(a, c) > 20 && apart(b, c) > 20);
        const area = Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]));
        fc.pre(area > 0.2 * apart(a, b) * apart(a, c));
        const align = alignPlaces([
          [a, x],
          [b, y],
          [c, z],
        ]);
        for (const [from, to] of [
          [a, x],
          [b, y],
          [c, z],
        ] as const)
          expect(apart(align?.(from) ?? [Infinity, 0], to)).toBeLessThan(1e-6);
      }),
    );
  });
});

describe('against a good set', () => {
  test.each(goodSetCases)('$name', ({ spots, marks, said, cold }) => {
    const found = judgeWarmth(
      spots.map(([x, y, rise]) => ({ at: [x, y], rise })),
      marks.map(([name, x, y, warm]) => ({ name, at: [x, y], warm: warm ?? undefined })),
    );
    expect(found.spots.map(({ name, against }) => [name ?? null, against])).toEqual(said);
    expect(found.cold).toEqual(cold);
  });
});
