import { describe, expect, test } from '@jest/globals';
import { meterConformance, type MeterRig } from '../testing/meterConformance.ts';
import {
  formatNumber,
  formatQuery,
  LineMeter,
  overRangeNumber,
  parseHandLine,
  parseIdentity,
  parseQuery,
  parseReply,
  meterFunctions,
  quantityOf,
  type MeterFunction,
} from './index.ts';

/** Lines as a hand meter sends them, one for each time it is asked. */
function handMeter(format: (what: MeterFunction, value: number) => string, over: string): () => Promise<MeterRig> {
  return () => {
    let line: string | undefined = '';
    let silent = false;
    const rig: MeterRig = {
      meter: new LineMeter(
        {
          name: 'Hand meter',
          next: () => (silent ? new Promise<string>(() => undefined) : Promise.resolve(line)),
          close: () => Promise.resolve(),
        },
        1000,
        // Time passes at once where nothing else comes.
        () => new Promise((resolve) => setImmediate(resolve)),
      ),
      show(what, value) {
        silent = false;
        line = value === 'over-range' ? over : format(what, value);
      },
      silence: () => (silent = true),
      garble: () => (line = 'H3110'),
      cut: () => (line = undefined),
      end: () => rig.meter.close(),
    };
    return Promise.resolve(rig);
  };
}
meterConformance(
  'typed by a person',
  handMeter((_, value) => String(value), 'OL'),
);
meterConformance(
  'a hand meter by serial text',
  handMeter(
    (what, value) =>
      `${what === 'ac-volts' ? 'AC ' : what === 'dc-volts' ? 'DC ' : ''}${value} ${quantityOf(what) === 'volts' ? 'V' : 'Ohm'}`,
    'OL MOhm',
  ),
);

describe('lines of hand meters', () => {
  test.each([
    ['dc-volts', '-0.412 VDC', -0.412],
    ['ac-volts', 'AC 230.1V', 230.1],
    ['ohms', '4.70 kOhm', 4700],
    ['ohms', '332 mΩ', 0.332],
    ['diode', '0.61 V', 0.61],
  ] as const)('%s: %s', (what, line, value) => {
    expect(parseHandLine(what, line)).toEqual({ kind: 'value', function: what, value: expect.closeTo(value, 9) });
  });
  test.each([
    ['ohms', '12.1 V', 'wrong-function'],
    ['dc-volts', 'AC 12 V', 'wrong-function'],
    ['ac-volts', 'DC 12 V', 'wrong-function'],
    ['dc-volts', 'OL MOhm', 'wrong-function'],
    ['dc-volts', '', 'not-understood'],
  ] as const)('%s asked, and "%s" came: %s', (what, line, kind) => expect(parseHandLine(what, line).kind).toBe(kind));
});

describe('lines of bench meters (SCPI-99, from memory)', () => {
  test.each([
    ['dc-volts', undefined, 'MEAS:VOLT:DC?'],
    ['dc-volts', 100, 'MEAS:VOLT:DC? 100'],
    ['ac-volts', 300, 'MEAS:VOLT:AC? 300'],
    ['ohms', 1000, 'MEAS:RES? 1000'],
    ['diode', 10, 'MEAS:DIOD?'],
    ['continuity', undefined, 'MEAS:CONT?'],
  ] as const)('%s up to %s is %s', (what, range, line) => {
    expect(formatQuery(what, range)).toBe(line);
    expect(parseQuery(line)?.function).toBe(what);
  });
  test.each(['measure:voltage:dc?', ':MEASure:VOLTage?', 'meas:volt:dc? 10'])('%s asks for volts dc', (line) =>
    expect(parseQuery(line)?.function).toBe('dc-volts'),
  );
  test.each(['MEAS:CURR?', '*RST', 'MEAS:RES', ''])('%s asks for no reading', (line) => expect(parseQuery(line)).toBeUndefined());
  test('a range that is none is refused', () => expect(() => formatQuery('ohms', 0)).toThrow(RangeError));
  test.each([
    ['+1.23450000E+01', { kind: 'value', value: 12.345 }],
    ['-5.0', { kind: 'value', value: -5 }],
    [overRangeNumber, { kind: 'over-range' }],
    ['9.9E37', { kind: 'over-range' }],
    ['9.91E+37', { kind: 'not-understood' }],
    ['1,234', { kind: 'not-understood' }],
    ['', { kind: 'not-understood' }],
  ])('"%s"', (line, found) => expect(parseReply('ohms', line)).toMatchObject(found));
  test.each([0, 1.5, -0.000123, 4.7e6])('%s is read back as it was written', (value) => {
    expect(formatNumber(value)).toMatch(/^[+-]\d[.]\d{8}E[+-]\d\d$/);
    expect(parseReply('dc-volts', formatNumber(value))).toMatchObject({ value });
  });
  test.each([
    ['Maker,Model 5,123,1.0', 'identity'],
    ['Maker,Model', 'not-understood'],
    ['', 'not-understood'],
  ])('who "%s" is', (line, kind) => expect(parseIdentity(line).kind).toBe(kind));
  test('every function has a query', () =>
    expect(meterFunctions.map((one) => parseQuery(formatQuery(one))?.function)).toEqual([...meterFunctions]));
});
