/**
 * Commands and replies of bench meters (IEEE 488.2 and SCPI-99; from memory), one line each, ended by a line feed.
 *
 *   *IDN?                      maker,model,serial,version
 *   MEAS:VOLT:DC? [range]      a number, volts
 *   MEAS:VOLT:AC? [range]      a number, volts
 *   MEAS:RES? [range]          a number, ohms
 *   MEAS:DIOD?                 a number, volts
 *   MEAS:CONT?                 a number, ohms
 *   9.9E+37 and above          over-range; 9.91E+37 is "not a number"
 *
 * Not supported: triggers, buffers of several readings, binary blocks, units behind a number.
 */
import type { MeterFunction, MeterIdentity, MeterReading, MeterTrouble } from './meter.ts';

/** What SCPI writes for more than the range shows, and for no number at all. */
const infinity = 9.9e37;
const notANumber = 9.91e37;

const headers: Readonly<Record<MeterFunction, string>> = {
  'dc-volts': 'MEAS:VOLT:DC?',
  'ac-volts': 'MEAS:VOLT:AC?',
  ohms: 'MEAS:RES?',
  diode: 'MEAS:DIOD?',
  continuity: 'MEAS:CONT?',
};
/** Diode test and continuity have one range. */
const ranged: readonly MeterFunction[] = ['dc-volts', 'ac-volts', 'ohms'];

/** Who are you? */
export const identityQuery = '*IDN?';

/** The line that asks for a reading. Throws RangeError for a range that is no positive number. */
export function formatQuery(what: MeterFunction, range?: number): string {
  if (range === undefined || !ranged.includes(what)) return headers[what];
  if (!Number.isFinite(range) || range <= 0) throw new RangeError(`a range of ${range}`);
  return `${headers[what]} ${range}`;
}

/** The function a line asks for, and its range; undefined for a line that asks for no reading. Long and short forms, any case. */
export function parseQuery(line: string): { readonly function: MeterFunction; readonly range?: number } | undefined {
  const match = /^:?MEAS(?:URE)?:(VOLT(?:AGE)?(?::(?:DC|AC))?|RES(?:ISTANCE)?|DIOD(?:E)?|CONT(?:INUITY)?)\?(?:\s+([\d.eE+-]+))?$/i.exec(
    line.trim(),
  );
  if (!match) return undefined;
  const word = (match[1] ?? '').toUpperCase();
  const what: MeterFunction = word.endsWith(':AC')
    ? 'ac-volts'
    : word.startsWith('VOLT')
      ? 'dc-volts'
      : word.startsWith('RES')
        ? 'ohms'
        : word.startsWith('DIOD')
          ? 'diode'
          : 'continuity';
  const range = Number(match[2]);
  return { function: what, ...(match[2] !== undefined && Number.isFinite(range) && range > 0 ? { range } : {}) };
}

/** A number as an instrument writes it. */
export const formatNumber = (value: number): string => {
  const [digits = '0', exponent = '0'] = value.toExponential(8).split('e');
  return `${value < 0 ? '' : '+'}${digits}E${Number(exponent) < 0 ? '-' : '+'}${String(Math.abs(Number(exponent))).padStart(2, '0')}`;
};
/** Over-range, as an instrument writes it. */
export const overRangeNumber = '+9.90000000E+37';

/** A reply line, read. */
export function parseReply(what: MeterFunction, line: string): MeterReading | MeterTrouble {
  const text = line.trim();
  if (!/^[+-]?(?:\d+[.]?\d*|[.]\d+)(?:[eE][+-]?\d{1,3})?$/.test(text)) return { kind: 'not-understood', detail: text.slice(0, 80) };
  const value = Number(text);
  if (value === notANumber || Number.isNaN(value)) return { kind: 'not-understood', detail: text };
  if (Math.abs(value) >= infinity) return { kind: 'over-range', function: what };
  return { kind: 'value', function: what, value };
}

/** Four fields; a meter that leaves some empty is still one. */
export function parseIdentity(line: string): MeterIdentity | MeterTrouble {
  const [maker = '', model = '', ...rest] = line
    .trim()
    .split(',')
    .map((part) => part.trim());
  if (rest.length < 1 || maker === '') return { kind: 'not-understood', detail: line.trim().slice(0, 80) };
  return { kind: 'identity', maker: maker.slice(0, 60), model: model.slice(0, 60) };
}
