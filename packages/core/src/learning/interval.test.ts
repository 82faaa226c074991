import { describe, expect, test } from '@jest/globals';
import { shareInterval } from './interval.ts';

describe('how far a counted share may be off', () => {
  // Newcombe 1998, Statistics in Medicine 17, 857-872, table I, method 3 (values from memory).
  test.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%d of %d: %d to %d', (k, n, low, high) => {
    const found = shareInterval(k, n);
    expect(found.low).toBeCloseTo(low, 4);
    expect(found.high).toBeCloseTo(high, 4);
  });

  test('all of few is no certainty; nothing counted says nothing', () => {
    expect(shareInterval(3, 3).high).toBe(1);
    expect(shareInterval(3, 3).low).toBeLessThan(0.5);
    expect(shareInterval(0, 0)).toEqual({ low: 0, high: 1 });
    expect(() => shareInterval(4, 3)).toThrow(RangeError);
  });
});
