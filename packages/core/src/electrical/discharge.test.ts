import { describe, expect, test } from '@jest/globals';
import { discharge, peakOfMains, poweredFactorVolts, safeVolts } from './index.ts';

describe('the main capacitor', () => {
  test('400 V, 150 µF, 2.2 kΩ: 12 J, 0.63 s to 60 V, 73 W in the first instant (common practice, no source)', () => {
    const found = discharge(400, 150e-6, 2200);
    if ('refused' in found) throw new Error(found.refused);
    expect(found.joules).toBeCloseTo(12, 6);
    expect(found.seconds).toBeCloseTo(0.63, 2);
    expect(found.watts).toBeCloseTo(73, 0);
  });

  test('holds about 1.41 times the mains: 325 V at 230, 170 at 120 (common practice, no source)', () => {
    expect(peakOfMains(230)).toBeCloseTo(325, 0);
    expect(peakOfMains(120)).toBeCloseTo(170, 0);
    expect(peakOfMains(264)).toBeLessThan(poweredFactorVolts);
  });

  test('at the safe voltage there is nothing to wait for; after each time constant 1/e is left', () => {
    expect(discharge(safeVolts, 1e-4, 1000)).toMatchObject({ seconds: 0 });
    expect(discharge(Math.E * 50, 1e-4, 1000, 50)).toMatchObject({ seconds: expect.closeTo(0.1, 9) as unknown });
  });

  test.each([
    [0, 1e-4, 1000],
    [400, -1e-4, 1000],
    [400, 1e-4, 0],
    [Number.NaN, 1e-4, 1000],
    [400, 1e-4, Number.POSITIVE_INFINITY],
  ])('refused: %d V, %d F, %d Ω', (volts, farads, ohms) => {
    expect(discharge(volts, farads, ohms)).toMatchObject({ refused: 'not-positive' });
  });
});
