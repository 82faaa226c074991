import { describe, expect, test } from '@jest/globals';
import { secondsUntil, throughResistor, timeConstantS } from './index.ts';

test('400 V on 150 µF through 2.2 kΩ: 12 J, 73 W at first, 0.63 s to 60 V (common practice, no source)', () => {
  const { joules, watts, secondsToSafe } = throughResistor(400, 150e-6, 2200, 60);
  expect(joules).toBeCloseTo(12, 9);
  expect(watts).toBeCloseTo(73, 0);
  expect(secondsToSafe).toBeCloseTo(0.63, 2);
});

describe('time constant from two readings', () => {
  test('down to 1/e after one time constant (definition)', () => {
    const tau = timeConstantS({ volts: 300, at: 0 }, { volts: 300 / Math.E, at: 90_000 });
    expect(tau).toBeCloseTo(90, 9);
    // Another ln(300/e/60) of it to 60 V.
    expect(secondsUntil(300 / Math.E, 60, tau!)).toBeCloseTo(90 * Math.log(300 / Math.E / 60), 9);
  });
  test.each([
    ['rising', 100, 120, 10_000],
    ['the same', 100, 100, 10_000],
    ['at the same time', 100, 90, 0],
    ['before', 100, 90, -5000],
    ['down to nothing', 100, 0, 10_000],
  ])('%s tells none', (_, first, second, later) => {
    expect(timeConstantS({ volts: first, at: 0 }, { volts: second, at: later })).toBeUndefined();
  });
  test('a negative rail falls the same; below the limit nothing is left to wait', () => {
    expect(timeConstantS({ volts: -200, at: 0 }, { volts: -100, at: 1000 })).toBeCloseTo(1 / Math.LN2, 9);
    expect(secondsUntil(40, 60, 10)).toBe(0);
  });
});
