import { describe, expect, test } from '@jest/globals';
import { ckmeans } from 'simple-statistics';
import { litCourse, otsuThreshold, readTrace, Smoother, type LightTrace } from './index.ts';

/** Flashes of half a second, 0.4 s apart, three and a pause of two; and mains light of the given frequency over it. */
const flickering = (hertz: number, fps: number, untilS = 20, size = 40): LightTrace => {
  const timesS = Array.from({ length: untilS * fps }, (_, i) => i / fps);
  const lit = (t: number): boolean => {
    const inCycle = (t + 10) % (3 * 0.9 + 1.6);
    return inCycle < 2.7 && inCycle % 0.9 < 0.5;
  };
  return { timesS, levels: timesS.map((t) => 200 + (lit(t) ? 100 : 0) + size * Math.sin(2 * Math.PI * hertz * t + 0.7)) };
};

/** Where a frequency lands when sampled: its distance from the nearest multiple of the rate (sampling theorem; Shannon, 1949). */
const folded = (hertz: number, fps: number): number => Math.abs(hertz - fps * Math.round(hertz / fps));

describe('mains flicker under a camera', () => {
  test.each([
    [100, 30],
    [120, 25],
    [100, 60],
    [120, 50],
    [100.04, 15],
  ])('%d Hz at %d frames a second is found where the sampling theorem folds it, and the code is read all the same', (hertz, fps) => {
    const trace = flickering(hertz, fps);
    const { flickerHertz, frameS } = litCourse(trace);
    // Of many frames two are taken for one: the rate that folds is the one that was looked at.
    expect([fps, fps / 2]).toContainEqual(expect.closeTo(1 / frameS, 6));
    expect(Math.abs((flickerHertz[0] ?? -1) - folded(hertz, 1 / frameS))).toBeLessThan(0.05);
    const result = readTrace(trace);
    expect('refused' in result ? undefined : result.reading).toMatchObject({ groups: [3], sure: true });
  });
});

describe('the threshold between two heaps', () => {
  // Least variance within two classes is the best of all partitions in two (Wang and Song, 2011, as in the npm package simple-statistics).
  test.each([
    ['one in four is bright', 4, 190],
    ['half are', 2, 150],
    ['one in twelve is', 12, 230],
  ])('splits as the best partition in two does: %s', (_, every, bright) => {
    const levels = Array.from({ length: 480 }, (_, i) => (i % every === 0 ? bright + ((i * 7) % 21) : 60 + ((i * 5) % 31)));
    const [, upper] = ckmeans(levels, 2);
    const threshold = otsuThreshold(levels);
    expect(upper?.length).toBe(480 / every);
    expect(levels.filter((level) => level > threshold)).toHaveLength(upper?.length ?? 0);
  });
});

describe('local lines', () => {
  const times = Float64Array.from([0, 0.1, 0.15, 0.4, 0.5, 0.9, 1.4, 1.5, 2.2]);
  const values = Float64Array.from([3, 1, 4, 1, 5, 9, 2, 6, 5]);

  test('are those of weighted least squares, worked out one by one (normal equations)', () => {
    const smooth = new Smoother(times, 0.5).apply(values);
    times.forEach((at, i) => {
      let [m0, m1, m2, y0, y1] = [0, 0, 0, 0, 0];
      times.forEach((t, k) => {
        const weight = Math.exp(-Math.abs(t - at) / 0.5);
        const u = t - at;
        m0 += weight;
        m1 += weight * u;
        m2 += weight * u * u;
        y0 += weight * (values[k] ?? 0);
        y1 += weight * u * (values[k] ?? 0);
      });
      expect(smooth[i]).toBeCloseTo((m2 * y0 - m1 * y1) / (m0 * m2 - m1 * m1), 9);
    });
  });

  test('leave a straight line as it is, up to its ends', () => {
    const line = times.map((t) => 7 - 3 * t);
    const smooth = new Smoother(times, 0.8).apply(line);
    smooth.forEach((value, i) => expect(value).toBeCloseTo(line[i] ?? 0, 9));
  });
});
