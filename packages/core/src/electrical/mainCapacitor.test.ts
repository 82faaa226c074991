import { expect, test } from '@jest/globals';
import { peakOfMains, poweredFactorVolts, safeVolts } from './index.ts';

test('the main capacitor holds about 1.41 times the mains: 325 V at 230, 170 at 120 (common practice, no source)', () => {
  expect(peakOfMains(230)).toBeCloseTo(325, 0);
  expect(peakOfMains(120)).toBeCloseTo(170, 0);
  expect(peakOfMains(264)).toBeLessThan(poweredFactorVolts);
  expect(safeVolts).toBeLessThan(peakOfMains(100));
});
