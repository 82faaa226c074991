/** A logged rail. What is expected of it was written first: captureCases.ts. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { behaviourOf, judgeCapture, voltsOf } from './index.ts';
import { captureCases } from './captureCases.ts';

describe('a logged rail', () => {
  test.each(captureCases)('$name', ({ log, kind, peak, thereS, mean, pulses }) => {
    const judged = judgeCapture(log.map(([timeS, volts]) => ({ timeS, volts })));
    expect(judged.kind).toBe(kind);
    if (peak !== undefined) expect(judged.peakVolts).toBeCloseTo(peak);
    if (thereS !== undefined) expect(judged.thereS).toBeCloseTo(thereS);
    if (mean !== undefined) expect(judged.meanVolts).toBeCloseTo(mean);
    if (pulses !== undefined) expect(judged.pulses).toBe(pulses);
  });
  test('what was there for an instant is never absent', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -0.2, max: 0.2, noNaN: true }), { minLength: 6, maxLength: 60 }),
        fc.nat(59),
        fc.double({ min: 1, max: 60, noNaN: true }),
        (quiet, where, volts) => {
          const log = quiet.map((one, index) => ({ timeS: index / 10, volts: index === where % quiet.length ? volts : one }));
          const judged = judgeCapture(log);
          expect(judged.kind).not.toBe('absent');
          expect(voltsOf(judged)).toBeCloseTo(volts);
        },
      ),
      { seed: 14, numRuns: 200 },
    );
  });
  test('how it goes on as a reading', () => {
    const of = (...volts: number[]) => judgeCapture(volts.map((one, index) => ({ timeS: index, volts: one })));
    expect([behaviourOf(of(0, 0, 0, 0, 0, 0)), voltsOf(of(0, 0, 0, 0, 0, 0))]).toEqual(['steady', 0]);
    expect([behaviourOf(of(0, 9, 12, 12, 12, 11.9)), voltsOf(of(0, 9, 12, 12, 12, 11.9))]).toEqual(['steady', 11.9]);
    expect(behaviourOf(of(1, 2))).toBeUndefined();
  });
  test('times that run backwards are refused', () => {
    expect(() =>
      judgeCapture([
        { timeS: 1, volts: 0 },
        { timeS: 0, volts: 0 },
      ]),
    ).toThrow(RangeError);
  });
});
