import { describe, expect, test } from '@jest/globals';
import { faultShares } from './faults.ts';

describe('shares of faults', () => {
  const job = (layout: string, fault: string, n: number) => ({ layout, fault, n });
  const counts = {
    snapshot: 1,
    jobs: [
      job('led-tcon', 'strips.led-open', 3),
      { ...job('led-tcon', 'strips.led-open', 1), symptom: 'sound-dark' },
      job('oled', 'main.x', 9),
    ],
    told: [job('led-tcon', 'main.x', 4), job('led-tcon', 'power.fuse-open', 2)].map((one) => ({ ...one, by: 'ilse' })),
    outcomes: [],
  };

  test('count jobs and field experience of one layout alone, most frequent first, ties by name', () => {
    const { of, faults } = faultShares(counts, 'led-tcon');
    expect(of).toBe(10);
    expect(faults.map(({ fault, n, share }) => [fault, n, share])).toEqual([
      ['main.x', 4, 0.4],
      ['strips.led-open', 4, 0.4],
      ['power.fuse-open', 2, 0.2],
    ]);
    // Wilson's interval for 4 of 10, by hand from the formula: 0.1682 to 0.6873.
    expect(faults[0]?.low).toBeCloseTo(0.1682, 4);
    expect(faults[0]?.high).toBeCloseTo(0.6873, 4);
    expect(faultShares(counts, 'plasma')).toEqual({ of: 0, faults: [] });
  });
});
