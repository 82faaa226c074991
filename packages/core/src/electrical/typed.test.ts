/** How values are written on boards and in workshops: IEC 60062 puts the multiplier in the decimal point's place (value from memory). */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { parseReading } from './index.ts';

describe('a reading as it is typed', () => {
  test.each<[string, number, string | undefined]>([
    ['5.1', 5.1, undefined],
    ['5,1', 5.1, undefined],
    ['5.1 V', 5.1, 'volts'],
    ['3V3', 3.3, 'volts'],
    ['420mV', 0.42, 'volts'],
    ['420 mv', 0.42, 'volts'],
    ['-0.2V', -0.2, 'volts'],
    ['4k7', 4700, 'ohms'],
    ['4.7k', 4700, 'ohms'],
    ['4.7 kΩ', 4700, 'ohms'],
    ['2M2', 2_200_000, 'ohms'],
    ['1M', 1_000_000, 'ohms'],
    ['0R22', 0.22, 'ohms'],
    ['220R', 220, 'ohms'],
    ['47 ohms', 47, 'ohms'],
    ['330 m', 0.33, undefined],
    ['OL', 1e9, 'ohms'],
    ['o.l', 1e9, 'ohms'],
  ])('%s', (typed, value, unit) => expect(parseReading(typed)).toEqual({ value, ...(unit === undefined ? {} : { unit }) }));

  test.each(['', 'V', 'about 5', '5..1', '5.1.2', '4k7k', '5 A', '1e3', '--5', '5 V V', '9'.repeat(30)])('%j is none', (typed) =>
    expect(parseReading(typed)).toBeUndefined(),
  );

  test('whatever is typed, it is a number or nothing', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'0123456789.,kKMmuVRΩ -oL'), maxLength: 12 }), (typed) => {
        const value = parseReading(typed)?.value;
        return value === undefined || Number.isFinite(value);
      }),
      { seed: 1, numRuns: 2000 },
    );
  });
});
