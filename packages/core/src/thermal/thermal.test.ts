/** Temperature pictures. What is expected was written first: warmthCases.ts. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { InputRefused } from '../problems.ts';
import { compareFrames, parseFrame, type TimedFrame } from './index.ts';
import { frameTexts, warmthCases, type WarmthCase } from './warmthCases.ts';

/** Any even and reproducible numbers will do (Park and Miller); near normal by the sum of three. */
function noise(seed: number): () => number {
  let state = seed;
  const next = (): number => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
  return () => (next() + next() + next() - 1.5) * 0.16;
}
/** Parts are smooth: warmest in the middle, with a camera's noise of about 0.08 K. */
function drawn({ size: [width, height], seconds, base, spots, moved, dead }: WarmthCase): TimedFrame[] {
  const random = noise(4711);
  return seconds.map((second, index) => {
    const [mx, my] = moved?.[index] ?? [0, 0];
    const celsius = Float32Array.from({ length: width * height }, (_, cell) => {
      const [x, y] = [(cell % width) - mx, Math.floor(cell / width) - my];
      const warm = spots.reduce((sum, { at, radius, celsius: own }) => {
        const far = Math.hypot(x - at[0], y - at[1]) / radius;
        return sum + (own[index] ?? 0) * Math.exp(-far * far);
      }, 0);
      return (base[index] ?? 0) + warm + random();
    });
    if (index === seconds.length - 1) for (const [x, y, value] of dead ?? []) celsius[y * width + x] = value;
    return { width, height, celsius, seconds: second };
  });
}

describe('what warms', () => {
  test.each(warmthCases)('$name', (one) => {
    const { spots } = compareFrames(drawn(one));
    const [width, height] = one.size;
    const places = spots.map(({ x, y }) => [Math.round(x * width - 0.5), Math.round(y * height - 0.5)]);
    expect(places.length).toBe(one.found.length);
    for (const [index, [x, y]] of one.found.entries()) {
      expect(Math.abs((places[index]?.[0] ?? -99) - x)).toBeLessThanOrEqual(1);
      expect(Math.abs((places[index]?.[1] ?? -99) - y)).toBeLessThanOrEqual(1);
    }
  });
  test('rise, rate and time of a part are its own', () => {
    const [spot] = compareFrames(drawn(warmthCases.at(-1)!)).spots;
    expect(spot?.rise).toBeCloseTo(9, 0);
    expect(spot?.rate).toBeCloseTo(6, 0);
    expect(spot?.by).toBe(1);
  });
  test('the camera’s move is found, and where the pictures don’t overlap nothing is said', () => {
    const { moved, rises } = compareFrames(drawn(warmthCases.find((one) => one.moved)!));
    expect(moved).toEqual([
      [0, 0],
      [3, -2],
    ]);
    expect(rises.filter((one) => Number.isNaN(one)).length).toBe(64 * 48 - 61 * 46);
  });
  test('degrees that all cells share change nothing', () => {
    fc.assert(
      fc.property(fc.integer({ min: -30, max: 30 }), (drift) => {
        const frames = drawn(warmthCases[1]!);
        const shifted = frames.map((one, index) => (index === 0 ? one : { ...one, celsius: one.celsius.map((value) => value + drift) }));
        const of = (all: TimedFrame[]) => compareFrames(all).spots.map(({ x, y, rise }) => [x, y, rise].map((value) => value.toFixed(2)));
        expect(of(shifted)).toEqual(of(frames));
      }),
      { numRuns: 20, seed: 1 },
    );
  });
  test.each<[string, (frames: TimedFrame[]) => TimedFrame[]]>([
    ['one picture', (frames) => frames.slice(0, 1)],
    ['sizes that differ', ([a, b]) => [a!, { ...b!, width: 32, height: 96 }]],
    ['times that run back', ([a, b]) => [a!, { ...b!, seconds: 0 }]],
  ])('%s: refused', (_, change) => {
    expect(() => compareFrames(change(drawn(warmthCases[1]!)))).toThrow(RangeError);
  });
});

describe('a temperature picture as text', () => {
  test.each(frameTexts)('$name', ({ text, cells, line }) => {
    if (cells) {
      const { width, height, celsius } = parseFrame(text);
      expect([width, height]).toEqual([cells[0]?.length, cells.length]);
      for (const [index, value] of cells.flat().entries()) expect(celsius[index]).toBeCloseTo(value, 4);
    } else {
      let where = '';
      try {
        parseFrame(text, 'a.csv');
      } catch (error) {
        expect(error).toBeInstanceOf(InputRefused);
        where = (error as InputRefused).problems[0]?.where ?? '';
      }
      expect(where).toBe(`a.csv, line ${line}`);
    }
  });
});
