/** Pins of a connector: where they are on the picture, what belongs there, what a reading is called. */
import { nothingThere, usualTolerancePercent } from '../reading/index.ts';
import type { CompiledPack, PinState } from '../knowledge/index.ts';
import { readLabel } from './label.ts';
import type { BoardSpot, Connector, PinExpectation } from './schema.ts';

/** A pin with less to chassis that is no ground is short, Ω (common practice, no source). */
const shortOhms = 1;
/** A supply of so few volts may read as low on a good board (common practice, no source). */
const coreVolts = 2;
/** A ground pin reads no more than leads and a plug do, Ω (value of ours). */
const groundOhms = 2;
/** Ohms of good boards spread with the meter and its polarity: half and double are as they belong (value of ours). */
const ohmsSpread = 2;
/** Pins of one rail are one piece of copper: further apart than so, percent, it is a contact (value of ours, above a meter’s own error). */
const apartPercent = 5;

/** How it is known what belongs at a pin. */
export const pinSources = ['printed', 'measured', 'label', 'typical', 'unknown'] as const;
/** One of `pinSources`. */
export type PinSource = (typeof pinSources)[number];

/** A pin, or a mark of one place, as far as what belongs there. */
interface PinLike {
  readonly label: string;
  readonly expects: readonly PinExpectation[];
}

/** What belongs at a pin in one state. */
export interface PinExpected {
  readonly source: PinSource;
  readonly ground: boolean;
  readonly value?: number;
  readonly least?: number;
  readonly most?: number;
  readonly n?: number;
}

/** What a reading at a pin is called. */
export interface PinJudgement {
  readonly level: 'in' | 'low' | 'high' | 'missing' | 'short' | 'unknown';
  readonly expected: PinExpected;
  readonly deviationPercent?: number;
}

/** Place of a pin, numbered from 1 at the marked end. Throws RangeError for a number the connector hasn’t got. */
export function pinSpot({ first, last, across, pins }: Pick<Connector, 'first' | 'last' | 'across' | 'pins'>, number: number): BoardSpot {
  if (!Number.isInteger(number) || number < 1 || number > pins.length) throw new RangeError(`pin ${number} of ${pins.length}`);
  const rows = across ? 2 : 1;
  const inRow = Math.ceil(pins.length / rows);
  const along = inRow === 1 ? 0 : Math.floor((number - 1) / rows) / (inRow - 1);
  const second = across !== undefined && number % 2 === 0;
  const axis = (index: 0 | 1): number => {
    const shift = second ? across[index] - first[index] : 0;
    return Math.min(Math.max(first[index] + (last[index] - first[index]) * along + shift, 0), 1);
  };
  return [axis(0), axis(1)];
}

/** Id of a pin in the ledger, where the layout has no point for it: connector and number. */
export function pinId(connector: string, number: number): string {
  const slug = connector
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return `${/^[a-z]/.test(slug) ? slug : `c${slug}`}.${number}`;
}

/** Printed beside the pin stands above what was measured, that above what the label names, and that above what is typical of it. */
export function pinExpected(pin: PinLike, quantity: 'volts' | 'ohms', state: PinState, compiled: CompiledPack): PinExpected {
  const { entry, volts } = readLabel(pin.label, compiled);
  const ground = entry?.ground === true;
  const known = (source: PinExpectation['source']): PinExpectation | undefined =>
    pin.expects.find((one) => one.source === source && one.quantity === quantity && one.state === state);
  const own = known('printed') ?? known('measured');
  if (own) {
    const { source, value, least, most, n } = own;
    return {
      source,
      ground,
      value,
      ...(least === undefined ? {} : { least }),
      ...(most === undefined ? {} : { most }),
      ...(n === undefined ? {} : { n }),
    };
  }
  if (quantity === 'ohms' || ground) return { source: ground ? 'label' : 'unknown', ground };
  if (volts !== undefined && entry?.states?.includes(state)) return { source: 'label', ground, value: volts };
  const typical = entry?.typical?.find((one) => one.state === state);
  return typical ? { source: 'typical', ground, least: typical.volts[0], most: typical.volts[1] } : { source: 'unknown', ground };
}

/** `value` in volts or ohms to chassis. */
export function judgePin(pin: PinLike, quantity: 'volts' | 'ohms', value: number, state: PinState, compiled: CompiledPack): PinJudgement {
  const expected = pinExpected(pin, quantity, state, compiled);
  if (quantity === 'ohms') return { level: ohmsLevel(value, expected, readLabel(pin.label, compiled).volts), expected };
  if (expected.ground) return { level: Math.abs(value) < nothingThere ? 'in' : 'high', expected };
  const { value: nominal, least = nominal, most = nominal } = expected;
  if (least === undefined || most === undefined) return { level: 'unknown', expected };
  // The edges are of the same sign: nothing there is below both in size, and a rail of the wrong sign is beyond one of them.
  const belongs = Math.min(Math.abs(least), Math.abs(most)) >= nothingThere;
  const slack = nominal === undefined ? 0 : (Math.abs(nominal) * usualTolerancePercent) / 100;
  const level =
    belongs && Math.abs(value) < nothingThere ? 'missing' : value < least - slack ? 'low' : value > most + slack ? 'high' : 'in';
  return { level, expected, ...(nominal === undefined || nominal === 0 ? {} : { deviationPercent: (value / nominal - 1) * 100 }) };
}

function ohmsLevel(
  value: number,
  { ground, value: good, least = good, most = good }: PinExpected,
  volts: number | undefined,
): PinJudgement['level'] {
  if (ground) return value > groundOhms ? 'high' : 'in';
  if (least !== undefined && most !== undefined) {
    if (value * ohmsSpread < least) return value < shortOhms ? 'short' : 'low';
    return value > most * ohmsSpread ? 'high' : 'in';
  }
  return value < shortOhms && (volts === undefined || volts >= coreVolts) ? 'short' : 'unknown';
}

/** Whether readings at pins of one rail are one reading; apart, a joint or a wire is bad and the rail itself is not told by them. */
export function pinsAgree(values: readonly number[]): boolean {
  const most = Math.max(...values.map(Math.abs));
  return most < nothingThere || values.every((value) => (Math.abs(value - (values[0] ?? 0)) / most) * 100 <= apartPercent);
}

/** What belongs there after one more good board was measured: the mean, and from where to where. */
export function learnedFrom(
  before: PinExpectation | undefined,
  quantity: PinExpectation['quantity'],
  state: PinState,
  reading: number,
): PinExpectation {
  const n = (before?.n ?? 0) + 1;
  const value = Number((((before?.value ?? 0) * (n - 1) + reading) / n).toPrecision(9));
  return {
    state,
    quantity,
    value,
    least: Math.min(before?.least ?? reading, reading),
    most: Math.max(before?.most ?? reading, reading),
    source: 'measured',
    n,
  };
}
