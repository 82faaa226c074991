import { describe, expect, test } from '@jest/globals';
import { forcingOhms, nearestE12, nextE24 } from './index.ts';

describe('preferred values (E12 of IEC 60063, values from memory)', () => {
  test.each([
    [1000, 1000],
    [1733, 1800],
    [1130, 1200],
    [4000, 3900],
    [950, 1000],
    [8.9, 8.2],
    [9.2, 10],
    [47_000, 47_000],
  ])('%d ohms -> %d', (asked, value) => expect(nearestE12(asked)).toBe(value));

  test.each([0, -1, Number.NaN, Number.POSITIVE_INFINITY])('nothing for %d', (asked) =>
    expect(() => nearestE12(asked)).toThrow(RangeError),
  );
});

describe('resistor for a forced line', () => {
  // 12 V through 1 kilohm is 12 mA into an input made for 3.3 V: too much. About 3 mA is enough for any logic input.
  test.each([
    [3.3, 1000, 1200],
    [5, 1500, 1800],
    [5.2, 1500, 1800],
    [7.5, 2200, 2700],
    [12, 3900, 3900],
    [12.1, 3900, 3900],
  ])('from %d V: %d to %d ohms, 2.5 to 3.6 mA', (volts, least, most) => {
    const ohms = forcingOhms(volts);
    expect([ohms >= least, ohms <= most]).toEqual([true, true]);
    expect(volts / ohms).toBeGreaterThan(0.0025);
    expect(volts / ohms).toBeLessThan(0.0036);
  });
});

describe('the next preferred value up (E24 of IEC 60063, values from memory)', () => {
  test.each([
    [0.6667, 0.68],
    [0.68, 0.68],
    [1600, 1600],
    [9200, 10_000],
    [0.096, 0.1],
    [47_000, 47_000],
  ])('%d ohms -> %d', (asked, value) => expect(nextE24(asked)).toBeCloseTo(value, 9));
  test.each([0, -1, Number.NaN, Number.POSITIVE_INFINITY])('nothing for %d', (asked) => expect(() => nextE24(asked)).toThrow(RangeError));
});
