/** The bench's arithmetic. What is expected was written first: instrumentCases.ts. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formatQuantity, oddOneOut, parseQuantity, readMark, units, type Unit } from './index.ts';
import { markCases, quantityCases, siblingCases } from './instrumentCases.ts';

describe('a number as a bench writes it', () => {
  test.each(quantityCases)('"$typed" in $unit', ({ typed, unit, value }) => {
    const read = parseQuantity(typed, unit as Unit);
    if (value === undefined) expect(read).toBeUndefined();
    else expect(read).toBeCloseTo(value, 12);
  });
  test('what is written is read back', () => {
    const unit = fc.constantFrom(...units.filter((one) => one !== '°C' && one !== '%' && one !== ''));
    fc.assert(
      fc.property(unit, fc.double({ min: 1e-11, max: 9e9, noNaN: true }), (own, value) => {
        const read = parseQuantity(formatQuantity(value, own, 6), own);
        expect(Math.abs((read ?? 0) / value - 1)).toBeLessThan(1e-5);
      }),
      { seed: 14, numRuns: 300 },
    );
  });
  test.each([
    [4700, 'Ω', '4.7 kΩ'],
    [150e-6, 'F', '150 µF'],
    [0, 'V', '0 V'],
    [999.9, 'V', '1 kV'],
    [-7, 'V', '-7 V'],
    [25, '°C', '25 °C'],
  ] as const)('%s in %s is %s', (value, unit, text) => expect(formatQuantity(value, unit)).toBe(text));
});

describe('a mark on a part (IEC 60062, from memory)', () => {
  test.each(markCases)('$mark on a $kind', ({ mark, kind, value, tolerance }) => {
    const read = readMark(mark, kind);
    expect(read?.value).toBeCloseTo(value, 15);
    expect(read?.tolerancePercent).toBe(tolerance);
  });
  test.each(['', 'X', '1', 'ABC'])('"%s" is none', (mark) => expect(readMark(mark, 'capacitor')).toBeUndefined());
});

describe('parts that should read alike', () => {
  test.each(siblingCases)('$name', ({ quantity, values, odd, sure = 0 }) => {
    if (odd === 'refused') {
      expect(() => oddOneOut(values, quantity)).toThrow(RangeError);
      return;
    }
    const found = oddOneOut(values, quantity);
    expect(found.verdict === 'odd' ? found.which : found.verdict).toBe(odd === null ? 'alike' : odd);
    if (typeof odd === 'number') expect(found.odd[odd]).toBeGreaterThanOrEqual(sure);
  });
  test('probabilities are probabilities, in any order of the parts', () => {
    const value = fc.double({ min: 0.01, max: 1e7, noNaN: true });
    fc.assert(
      fc.property(fc.array(value, { minLength: 3, maxLength: 7 }), (values) => {
        const found = oddOneOut(values, 'ohms');
        for (const one of [...found.odd, found.alike]) expect(one >= 0 && one <= 1 + 1e-9).toBe(true);
        const turned = oddOneOut([...values].reverse(), 'ohms');
        expect([...turned.odd].reverse()).toEqual(found.odd.map((one) => expect.closeTo(one, 6)));
      }),
      { seed: 14, numRuns: 100 },
    );
  });
});
