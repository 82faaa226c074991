/** The panel's arithmetic. What is expected was written first: panelCases.ts. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { adviseMask, MaskPlanner, pixelClock } from './index.ts';
import { clockCases, maskFigures } from './panelCases.ts';

describe('a pixel clock', () => {
  test.each(clockCases)('$name: $width × $height at $hertz Hz', ({ width, height, hertz, clock }) => {
    expect(pixelClock(width, height, hertz)).toEqual({ hertz: clock, source: 'published' });
  });
  test('of a timing that is not published is estimated, near its neighbours', () => {
    const { hertz, source } = pixelClock(1600, 900, 60);
    expect(source).toBe('estimated');
    expect(hertz / 1e6).toBeGreaterThan(90);
    expect(hertz / 1e6).toBeLessThan(115);
  });
});

describe('covering contacts', () => {
  test.each(maskFigures)('with $lines lines it is no worse than halving, and no better than can be', ({ lines, optimum, split }) => {
    const planner = new MaskPlanner(lines);
    const { expected } = planner.plan(planner.start());
    expect(expected).toBeLessThanOrEqual(split + 0.005);
    expect(expected).toBeGreaterThan(optimum - 0.005);
  });
  test('the plan for the worst case is never worse at worst than the one for the average', () => {
    for (const lines of [3, 5, 8]) {
      const [cautious, usual] = [new MaskPlanner(lines, 'worst'), new MaskPlanner(lines)];
      expect(cautious.plan(cautious.start()).worst).toBeLessThanOrEqual(usual.plan(usual.start()).worst);
    }
  });
  /** Plays a row with these guilty to its end. */
  function play(lines: number, guilty: readonly number[], hits: readonly number[] = []) {
    const trials: { uncovered: number[]; result: 'started' | 'looped' }[] = [];
    for (;;) {
      const advice = adviseMask(lines, trials, { hits });
      if (!advice.uncover) return { trials: trials.length, advice };
      const uncovered = [...advice.uncover, ...advice.innocent];
      trials.push({ uncovered, result: uncovered.some((line) => guilty.includes(line)) ? 'looped' : 'started' });
      if (trials.length > 60) throw new Error('no end');
    }
  }
  test('every set of one to three lines is found, and no more trials than were said to be the worst', () => {
    const subsets = fc
      .integer({ min: 2, max: 12 })
      .chain((lines) => fc.tuple(fc.constant(lines), fc.uniqueArray(fc.integer({ min: 1, max: lines }), { minLength: 1, maxLength: 3 })));
    fc.assert(
      fc.property(subsets, ([lines, guilty]) => {
        const { trials, advice } = play(lines, guilty);
        expect(advice.cover).toEqual([...guilty].sort((a, b) => a - b));
        expect(trials).toBeLessThanOrEqual(adviseMask(lines, []).worstLeft);
      }),
      { seed: 14, numRuns: 40 },
    );
  });
  test('played over every set, the average is what was said', () => {
    const shares = [0.85, 0.12, 0.03];
    const sets: number[][][] = [[], [], []];
    for (let bits = 1; bits < 256; bits += 1) {
      const set = [1, 2, 3, 4, 5, 6, 7, 8].filter((line) => bits & (1 << (line - 1)));
      if (set.length <= 3) sets[set.length - 1]?.push(set);
    }
    const mean = (list: number[][]): number => list.reduce((sum, set) => sum + play(8, set).trials, 0) / list.length;
    const expected = shares.reduce((sum, share, index) => sum + share * mean(sets[index] ?? []), 0);
    expect(expected).toBeCloseTo(adviseMask(8, []).expectedLeft, 6);
  });
  test('a line that was guilty before is likelier, and stays covered longest', () => {
    const hits = [0, 0, 0, 0, 0, 9, 0, 0];
    const advice = adviseMask(8, [], { hits });
    expect(advice.probability[5]).toBeGreaterThan((advice.probability[0] ?? 1) * 2);
    expect(advice.cover).toContain(6);
    expect(play(8, [6], hits).advice.cover).toEqual([6]);
  });
  test('trials that can not all be right are named, and so is none that fits', () => {
    const advice = adviseMask(4, [
      { uncovered: [1, 2], result: 'looped' },
      { uncovered: [1], result: 'started' },
      { uncovered: [2], result: 'started-with-flaw' },
    ]);
    expect(advice.contradiction).toEqual([1, 2, 3]);
    expect(advice.uncover).toBeUndefined();
  });
  test('a line the row has not got is refused', () => {
    expect(() => adviseMask(4, [{ uncovered: [5], result: 'looped' }])).toThrow(RangeError);
    expect(() => new MaskPlanner(0)).toThrow(RangeError);
  });
});
