/**
 * How a count that was read bears on the code that was sent.
 *
 * Reading error values are ours: the reader (taps and camera) replaces them by probabilities of its own for each reading.
 */
import type { BlinkCode, CompiledPack, Family, PlacedFault } from '../knowledge/index.ts';

/** A blink code as it was read, by eye or by a reader. */
export interface BlinkReading {
  readonly groups: readonly number[];
  /** Probability of this count and of others, where a reader gave them. */
  readonly probability?: number | undefined;
  readonly alternatives?: readonly { readonly groups: readonly number[]; readonly probability: number }[] | undefined;
  readonly colour?: string | undefined;
  readonly after?: string | undefined;
  /** Equal counts in a row. */
  readonly cycles: number;
}

/** Chance that the count is wrong, read once by eye. */
export const misreadOnce = 0.25;
/** The same with two or more equal cycles. */
export const misreadTwice = 0.03;
/** And of one cycle that was filmed or tapped: its probability over counts are the reader's, this is what a reader can't know. */
const misreadByReader = 0.1;

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

const same = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((count, index) => count === b[index]);

/** What the reading gives to exactly this count. */
function probabilityOf(reading: BlinkReading, groups: readonly number[]): number {
  if (same(reading.groups, groups)) return reading.probability ?? 1;
  return reading.alternatives?.find((one) => same(one.groups, groups))?.probability ?? 0;
}

/** P(reading | code sent), up to a factor that is the same for all codes. */
export function readingGivenCode(reading: BlinkReading, code: BlinkCode | undefined): number {
  const misread = reading.cycles >= 2 ? misreadTwice : reading.probability === undefined ? misreadOnce : misreadByReader;
  if (code === undefined) return blinksAtAll / otherCodes;
  const colourFits = reading.colour === undefined || code.colour === undefined || reading.colour === code.colour;
  const distance = groupDistance(reading.groups, code.groups);
  const wrong = distance === 0 ? 0 : misread * (distance === 1 ? offByOne : distance === 2 ? offByTwo : farOff);
  const byCount = (1 - misread) * probabilityOf(reading, code.groups) + wrong;
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

/** A row of a family’s table, and the probability that it was what blinked. */
export interface CodeMeant {
  readonly code: BlinkCode;
  /** That this row was sent, given that one of the table's was. */
  readonly probability: number;
  /** Flashes between it and what was read; undefined where groups differ in number. */
  readonly distance: number | undefined;
}

/** What a family's table makes of a reading: rows by probabilities; those that nobody would confuse with it are left out. */
export function codesMeant(family: Family, reading: BlinkReading, least = 0.01): CodeMeant[] {
  const weights = family.blink.map((code) => readingGivenCode(reading, code));
  const sum = weights.reduce((a, b) => a + b, 0);
  if (sum === 0) return [];
  return family.blink
    .map((code, index) => ({ code, probability: (weights[index] ?? 0) / sum, distance: groupDistance(reading.groups, code.groups) }))
    .filter(({ probability }) => probability >= least)
    .sort((a, b) => b.probability - a.probability || (a.code.id < b.code.id ? -1 : 1));
}

/** Rows of other families that share a layout and use this very count: told, and no evidence. */
export function codesElsewhere(
  compiled: CompiledPack,
  reading: BlinkReading,
  layouts: readonly string[],
  except: string | undefined,
): { family: Family; code: BlinkCode }[] {
  return compiled.pack.families
    .filter((family) => family.id !== except && family.layouts.some((id) => layouts.includes(id)))
    .flatMap((family) => family.blink.filter(({ groups }) => same(groups, reading.groups)).map((code) => ({ family, code })));
}
