/**
 * How a count that was read bears on the code that was sent.
 *
 * Reading error values are ours: the reader (taps and camera) replaces them by odds of its own for each reading.
 */
import type { BlinkCode, CompiledPack, Family, PlacedFault } from '../knowledge/index.ts';

export interface BlinkReading {
  readonly groups: readonly number[];
  readonly colour?: string | undefined;
  readonly after?: string | undefined;
  /** Equal counts in a row. */
  readonly cycles: number;
}

/** Chance that the count is wrong: read once by eye, and with two or more equal cycles. */
export const misreadOnce = 0.25;
export const misreadTwice = 0.03;

/** Of the wrong counts: off by one, off by two, anything else. */
const offByOne = 0.4;
const offByTwo = 0.08;
const farOff = 0.01;
/** A code that no table knows could be any of about this many. */
const otherCodes = 20;
/** What the table leaves of a fault is mostly no blinking at all; this share of it blinks some other code. */
const blinksAtAll = 0.1;

/** Blinks between two codes; undefined where their groups differ in number, so that they can't be confused by one. */
export function groupDistance(a: readonly number[], b: readonly number[]): number | undefined {
  if (a.length !== b.length) return undefined;
  return a.reduce((sum, count, index) => sum + Math.abs(count - (b[index] ?? 0)), 0);
}

/** P(reading | code sent), up to a factor that is the same for all codes. */
export function readingGivenCode(reading: BlinkReading, code: BlinkCode | undefined): number {
  const misread = reading.cycles >= 2 ? misreadTwice : misreadOnce;
  if (code === undefined) return blinksAtAll / otherCodes;
  const colourFits = reading.colour === undefined || code.colour === undefined || reading.colour === code.colour;
  const distance = groupDistance(reading.groups, code.groups);
  const byCount = distance === 0 ? 1 - misread : misread * (distance === 1 ? offByOne : distance === 2 ? offByTwo : farOff);
  return colourFits ? byCount : byCount * misread;
}

/** P(code | fault) for each of the family's codes, and last what is left for a code the table doesn't know. */
export function codesGivenFault(compiled: CompiledPack, family: Family, fault: Pick<PlacedFault, 'id' | 'assembly' | 'home'>): number[] {
  const listed = family.blink.map((code) => {
    const word = code.suspects[fault.id] ?? code.suspects[fault.home] ?? code.suspects[fault.assembly];
    return word === undefined ? undefined : compiled.likelihoodWord(word);
  });
  const floor = Math.min(...Object.values(compiled.pack.scale.likelihood));
  const weights = listed.map((weight) => weight ?? floor);
  const sum = weights.reduce((a, b) => a + b, 0);
  const scale = sum > 1 - floor ? (1 - floor) / sum : 1;
  const scaled = weights.map((weight) => weight * scale);
  return [...scaled, 1 - scaled.reduce((a, b) => a + b, 0)];
}

/** Codes of the family with their distance from what was read, nearest first; ties by id. */
export function nearestCodes(family: Family, reading: BlinkReading): { code: BlinkCode; distance: number }[] {
  return family.blink
    .map((code) => ({ code, distance: groupDistance(reading.groups, code.groups) ?? Number.POSITIVE_INFINITY }))
    .sort((a, b) => a.distance - b.distance || (a.code.id < b.code.id ? -1 : 1));
}
