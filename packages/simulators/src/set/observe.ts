/** From what was seen and read to the outcome of a procedure, by the pack's `seen` conditions alone. */
import { asksAt, type Seen } from '@veglia/core/knowledge';
import type { Notice, Picture, Scene } from './scene.ts';

/** One measurement: as a share of nominal for volts, in Ω for ohms. */
export interface Reading {
  readonly point: string;
  readonly idle: number;
  readonly value: number;
  readonly peak: number;
  readonly steady: boolean;
  readonly ohms: number | undefined;
  readonly missing: 'none' | 'one' | 'all' | undefined;
}

/** What is seen of a set. */
export interface Observation {
  readonly complaint: string | undefined;
  readonly before: { readonly complaint: string | undefined; readonly notice: Notice | undefined };
  readonly scene: Scene;
  readonly readings: readonly Reading[];
  /** Picture or light answered a tap or a squeeze. */
  readonly changes: boolean;
  readonly glass: 'clean' | 'cracked' | 'liquid';
  readonly signs: readonly ('burnt' | 'bulged' | 'oxide' | 'loose')[];
  readonly lamp: 'lit' | 'dark' | undefined;
  readonly memory: 'missing' | 'unsteady' | 'differs' | 'matches' | 'worn' | undefined;
}

const inRange = (range: readonly [number, number] | undefined, value: number): boolean =>
  range === undefined || (value >= range[0] && value <= range[1]);

function readingHolds(wanted: NonNullable<Seen['reading']>, readings: readonly Reading[]): boolean {
  const index = wanted.n === undefined ? readings.length - 1 : wanted.n - 1;
  const one = readings[index];
  if (!one) return false;
  if (wanted.leaves !== undefined) {
    const again = readings.slice(index + 1).find(({ point }) => point === one.point);
    const left = again !== undefined && inRange(wanted.ohms, one.ohms ?? Number.NaN) && !inRange(wanted.ohms, again.ohms ?? Number.NaN);
    return left === wanted.leaves;
  }
  return (
    inRange(wanted.ratio, one.value) &&
    inRange(wanted.peak, one.peak) &&
    (wanted.ohms === undefined || inRange(wanted.ohms, one.ohms ?? Number.NaN)) &&
    (wanted.steady === undefined || wanted.steady === one.steady) &&
    (wanted.swings === undefined || wanted.swings === Math.abs(one.value - one.idle) > 0.3) &&
    // The simulated set tells a command line by what it asks, whatever the level.
    (wanted.asks === undefined || asksAt(one.value, wanted.asks, 'high')) &&
    (wanted.missing === undefined || wanted.missing === one.missing)
  );
}

function holds(wanted: Seen, seen: Observation): boolean {
  const { scene } = seen;
  const among = <T>(list: readonly T[] | undefined, value: T): boolean => list === undefined || list.includes(value);
  const is = <T>(one: T | undefined, value: T): boolean => one === undefined || one === value;
  const complaintNow = seen.complaint === undefined ? 'gone' : seen.complaint === seen.before.complaint ? 'same' : 'changed';
  const codeNow =
    scene.notice === undefined || scene.indicator !== 'blinking' ? 'gone' : scene.notice === seen.before.notice ? 'same' : 'changed';
  const pictures = wanted.picture as readonly Picture[] | undefined;
  return (
    is(wanted.complaint, complaintNow) &&
    among(wanted.light, scene.light) &&
    is(wanted.sound, scene.sound) &&
    is(wanted.alive, scene.alive) &&
    is(wanted.starts, scene.starts) &&
    is(wanted.restarts, scene.restarts) &&
    is(wanted.clicks, scene.clicks) &&
    among(wanted.indicator, scene.indicator) &&
    is(wanted.reacts?.key, scene.reacts.key) &&
    is(wanted.reacts?.remote, scene.reacts.remote) &&
    among(pictures, scene.picture) &&
    is(wanted.input, scene.input) &&
    is(wanted.network, scene.network) &&
    among(wanted.glass, seen.glass) &&
    (wanted.signs === undefined || wanted.signs.some((sign) => seen.signs.includes(sign))) &&
    is(wanted.fan, scene.fan) &&
    is(wanted.feels, scene.processor) &&
    is(wanted.code, codeNow) &&
    is(wanted.changes, seen.changes) &&
    is(wanted.lamp, seen.lamp) &&
    is(wanted.log, scene.log) &&
    is(wanted.memory, seen.memory) &&
    (wanted.reading === undefined || readingHolds(wanted.reading, seen.readings))
  );
}

/** The first outcome one of whose conditions holds, else the one without conditions. */
export function outcomeOf(outcomes: readonly { id: string; seen?: readonly Seen[] | undefined }[], seen: Observation): string {
  const found = outcomes.find(({ seen: wanted }) => wanted?.some((one) => holds(one, seen)));
  return (found ?? outcomes.find((one) => one.seen === undefined) ?? outcomes[0])?.id ?? 'cant-tell';
}
