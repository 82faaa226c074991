import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readTaps, readTrace, type BlinkResult, type LightTrace } from './index.ts';

interface Course {
  readonly groups: readonly number[];
  readonly on?: number;
  readonly off?: number;
  readonly part?: number;
  readonly pause?: number;
  readonly begin?: number;
  readonly cycles?: number;
  /** Of the first group's flashes. */
  readonly longOn?: number;
}

/** Flashes as [on, off] in seconds, written down by hand arithmetic, no randomness. */
function flashesOf({ groups, on = 0.3, off = 0.3, part = 0.9, pause = 2, begin = 1, cycles = 3, longOn }: Course): [number, number][] {
  const flashes: [number, number][] = [];
  let t = begin;
  for (let cycle = 0; cycle < cycles; cycle++) {
    groups.forEach((count, group) => {
      for (let k = 0; k < count; k++) {
        const length = longOn !== undefined && group === 0 ? longOn : on;
        flashes.push([t, t + length]);
        t += length + (k < count - 1 ? off : group < groups.length - 1 ? part : pause);
      }
    });
  }
  return flashes;
}

const filmed = (flashes: readonly [number, number][], untilS: number, fps = 30): LightTrace => {
  const timesS = Array.from({ length: Math.floor(untilS * fps) }, (_, i) => i / fps);
  return { timesS, levels: timesS.map((t) => 20 + (flashes.some(([from, to]) => t >= from && t < to) ? 100 : 0)) };
};
const film = (course: Course, fps = 30): LightTrace => {
  const flashes = flashesOf(course);
  return filmed(flashes, (flashes.at(-1)?.[1] ?? 0) + (course.pause ?? 2), fps);
};
function read(trace: LightTrace): BlinkResult {
  const result = readTrace(trace);
  if ('refused' in result) throw new Error(result.refused);
  return result;
}
const groupsOf = (trace: LightTrace): readonly number[] | undefined => read(trace).reading?.groups;

describe('a filmed light', () => {
  test.each<[string, Course, readonly number[]]>([
    ['a plain count', { groups: [4] }, [4]],
    ['a count of one', { groups: [1], pause: 2.5, cycles: 5 }, [1]],
    ['two groups', { groups: [3, 2] }, [3, 2]],
    ['three groups', { groups: [2, 1, 4] }, [2, 1, 4]],
    ['groups of the same size', { groups: [2, 2] }, [2, 2]],
    ['fifteen', { groups: [15], on: 0.2, off: 0.2 }, [15]],
    ['long and short, no gap between', { groups: [3, 2], longOn: 0.9, part: 0.3 }, [3, 2]],
    ['recorded from the middle of a cycle on', { groups: [5], begin: -1.2, cycles: 4 }, [5]],
  ])('%s', (_, course, groups) => {
    const { kind, reading, cycles, advice } = read(film(course));
    expect({ kind, groups: reading?.groups, sure: reading?.sure, after: reading?.after, advice }).toEqual({
      kind: 'code',
      groups,
      sure: true,
      after: 'repeats',
      advice: 'read',
    });
    expect(cycles).toBeGreaterThanOrEqual(2);
  });

  test('one cycle is a count and no reading yet: it says what would settle it', () => {
    const { reading, cycles, advice } = read(film({ groups: [4], cycles: 1 }));
    expect(reading).toMatchObject({ groups: [4], sure: false });
    expect(cycles).toBe(1);
    expect(advice).toBe('one-more-cycle');
  });

  test('steady, a single flash, flashes that never pause, and a long run and then dark, are told as what they are', () => {
    const still = filmed([], 12);
    expect(read(still).kind).toBe('steady');
    expect(read(still).reading).toBeUndefined();
    expect(read(filmed([[2, 2.4]], 12)).kind).toBe('single-flash');
    const endless = Array.from({ length: 40 }, (_, k): [number, number] => [k * 0.6 - 0.2, k * 0.6 + 0.1]);
    expect(read(filmed(endless, 20))).toMatchObject({ kind: 'no-pause', advice: 'watch-longer' });
    const run = read(film({ groups: [22], on: 0.2, off: 0.2, cycles: 1, pause: 9 }));
    expect(run).toMatchObject({ kind: 'start-attempts', advice: 'maybe-start-attempts' });
  });

  test('what comes after: a light that stands, or none', () => {
    const once = flashesOf({ groups: [5], cycles: 1 });
    const last = once.at(-1)?.[1] ?? 0;
    expect(read(filmed([...once, [last + 1.5, 30]], last + 9)).reading).toMatchObject({ groups: [5], after: 'steady' });
    expect(read(filmed(once, last + 9)).reading).toMatchObject({ groups: [5], after: 'dark' });
  });

  test('a light that shines and winks: the dark is counted', () => {
    const dark = flashesOf({ groups: [3], cycles: 4, pause: 2.4 });
    const { timesS, levels } = filmed(dark, 22);
    expect(groupsOf({ timesS, levels: levels.map((level) => 140 - level) })).toEqual([3]);
  });

  test('two colours: the standby light that goes out meanwhile is not what counts', () => {
    const flashes = flashesOf({ groups: [2, 3] });
    const { timesS } = filmed(flashes, 20);
    const lit = (t: number): boolean => flashes.some(([from, to]) => t >= from && t < to);
    // Both shine alike: only colour tells them apart.
    const trace: LightTrace = { timesS, levels: timesS.map(() => 80), colours: timesS.map((t) => (lit(t) ? 'green' : 'red')) };
    expect(read(trace).reading).toMatchObject({ groups: [2, 3], colour: 'green', sure: true });
  });

  test.each([30, 60])(
    'two colours in turn with dark between are one code: its groups change with the colour (%d frames a second)',
    (fps) => {
      const flashes = flashesOf({ groups: [3, 2], part: 0.3 });
      const { timesS, levels } = filmed(flashes, 20, fps);
      const at = (t: number): number => flashes.findIndex(([from, to]) => t >= from && t < to);
      const colours = timesS.map((t) => (at(t) < 0 ? undefined : at(t) % 5 < 3 ? ('red' as const) : ('green' as const)));
      const { reading } = read({ timesS, levels, colours });
      expect(reading).toMatchObject({ groups: [3, 2], sure: true });
      expect(reading?.colour).toBeUndefined();
    },
  );

  test.each<[string, LightTrace, string]>([
    ['too short', { timesS: [0, 1], levels: [0, 1] }, 'too-short'],
    ['no number', { timesS: Array.from({ length: 9 }, (_, i) => i), levels: [0, 1, 2, Number.NaN, 4, 5, 6, 7, 8] }, 'not-finite'],
    ['a clock that runs back', { timesS: [0, 1, 2, 3, 2, 5, 6, 7, 8], levels: Array<number>(9).fill(1) }, 'time-runs-back'],
    ['levels and times that differ in number', { timesS: [0, 1], levels: [1] }, 'lengths-differ'],
    ['hours of it', { timesS: Array.from({ length: 36_001 }, (_, i) => i / 60), levels: Array<number>(36_001).fill(1) }, 'too-long'],
  ])('refused: %s', (_, trace, refused) => {
    expect(readTrace(trace)).toEqual({ refused });
  });
});

describe('what must not change a code', () => {
  // A course, and a little noise from a fixed sine so that nothing is exact.
  const courses = fc.record({
    groups: fc.oneof(fc.tuple(fc.integer({ min: 1, max: 15 })), fc.tuple(fc.integer({ min: 2, max: 6 }), fc.integer({ min: 1, max: 6 }))),
    on: fc.double({ min: 0.18, max: 0.45, noNaN: true }),
    pause: fc.double({ min: 1.8, max: 3, noNaN: true }),
    begin: fc.double({ min: -1, max: 1.5, noNaN: true }),
  });
  const noisy = (trace: LightTrace): LightTrace => ({
    ...trace,
    levels: trace.levels.map((level, i) => level + 3 * Math.sin(i * 1.7) + 2 * Math.cos(i * i)),
  });
  const course = ({ groups, on, pause, begin }: { groups: number[]; on: number; pause: number; begin: number }): Course => ({
    groups,
    on,
    off: on,
    part: 2.4 * on,
    pause: Math.max(pause, 5.2 * on),
    begin,
    cycles: 4,
  });

  test('when it began, its unit, its offset, and the frame rate above four frames a flash', () => {
    fc.assert(
      fc.property(
        courses,
        fc.double({ min: -1e4, max: 1e4, noNaN: true }),
        fc.double({ min: 1e-3, max: 1e3, noNaN: true }),
        (made, add, scale) => {
          const told = course(made);
          const trace = noisy(film(told));
          const code = groupsOf(trace);
          expect(code).toEqual(told.groups);
          const { timesS, levels } = trace;
          expect(groupsOf({ timesS: timesS.map((t) => t + add), levels })).toEqual(code);
          expect(groupsOf({ timesS, levels: levels.map((level) => level * scale) })).toEqual(code);
          expect(groupsOf({ timesS, levels: levels.map((level) => level + add) })).toEqual(code);
          expect(groupsOf(noisy(film(told, 23)))).toEqual(code);
        },
      ),
      { numRuns: 25, seed: 20261125 },
    );
  });
});

describe('taps in time with a light', () => {
  const taps = (course: Course, also: (onsets: number[]) => number[] = (same) => same) =>
    readTaps(
      also(flashesOf(course).map(([on], i) => on + 0.05 * Math.sin(i * 2.3))).map((atS) => ({ atS })),
      (flashesOf(course).at(-1)?.[1] ?? 0) + 2,
    );

  test.each<[Course, readonly number[]]>([
    [{ groups: [6], on: 0.35, off: 0.35 }, [6]],
    [{ groups: [3, 2], on: 0.35, off: 0.35, part: 1 }, [3, 2]],
    [{ groups: [1], pause: 2.2, cycles: 5 }, [1]],
  ])('%j', (course, groups) => {
    expect(taps(course).reading).toMatchObject({ groups, sure: true });
  });

  test('one missed in three cycles: the other two decide, and it is less sure of it', () => {
    const missed = taps({ groups: [6], on: 0.35, off: 0.35, cycles: 3 }, (all) => all.filter((_, i) => i !== 8));
    expect(missed.reading?.groups).toEqual([6]);
    expect(missed.cycles).toBeLessThan(3);
  });

  test('a key that bounces is one tap', () => {
    expect(taps({ groups: [4] }, (all) => all.flatMap((t) => [t, t + 0.03])).reading?.groups).toEqual([4]);
  });

  test('none at all is nothing read', () => {
    expect(readTaps([])).toMatchObject({ kind: 'steady', advice: 'nothing-blinks', cycles: 0 });
  });
});
