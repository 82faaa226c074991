/**
 * Rails with a short, as the searches for it are measured on: capacitors in a row along a track, one of them (or two) short to ground, and a meter that
 * reads from each capacitor to ground. Drawn here and nowhere else, so that every search meets the same rails.
 */

/** A rail with its short or shorts. Ohms. */
export interface ShortedRail {
  /** Between one capacitor and the next. */
  readonly segments: readonly number[];
  /** Index of each short capacitor, and what is left of it. */
  readonly shorts: readonly { readonly at: number; readonly ohms: number }[];
}

/** A meter: share of the reading, and what its leads drift by. */
export interface WalkMeter {
  readonly noise: number;
  readonly driftOhms: number;
}

/** Ranges of the prototypes (findings): segments 5 to 40 mΩ, residual 50 to 300 mΩ, noise 1 to 3 %, leads drift by about 2 mΩ. */
export const railRanges = { segment: [0.005, 0.04], residual: [0.05, 0.3], noise: [0.01, 0.03], drift: 0.002 } as const;

const uniform = ([from, to]: readonly [number, number], random: () => number): number => from + (to - from) * random();
/** Standard normal (Box and Muller). */
export const normal = (random: () => number): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** A rail of so many capacitors; `random` gives numbers from 0 to 1. */
export function drawRail(capacitors: number, shorts: 1 | 2, random: () => number): ShortedRail {
  const first = Math.floor(random() * capacitors);
  const second = (first + 1 + Math.floor(random() * (capacitors - 1))) % capacitors;
  return {
    segments: Array.from({ length: capacitors - 1 }, () => uniform(railRanges.segment, random)),
    shorts: (shorts === 1 ? [first] : [first, second]).map((at) => ({ at, ohms: uniform(railRanges.residual, random) })),
  };
}
/** A meter of the ranges. */
export const drawMeter = (random: () => number): WalkMeter => ({ noise: uniform(railRanges.noise, random), driftOhms: railRanges.drift });

/** Ohms to ground at each capacitor by nodal analysis: a ladder is a tridiagonal system (Thomas). */
export function ohmsAlong({ segments, shorts }: ShortedRail): number[] {
  const n = segments.length + 1;
  const between = segments.map((ohms) => 1 / ohms);
  const diagonal = Array.from({ length: n }, (_, i) => (between[i - 1] ?? 0) + (between[i] ?? 0));
  for (const { at, ohms } of shorts) diagonal[at] = (diagonal[at] ?? 0) + 1 / ohms;
  // One ampere into node i: its volts are the ohms there.
  return Array.from({ length: n }, (_, node) => {
    const upper = new Array<number>(n).fill(0);
    const right = new Array<number>(n).fill(0);
    for (let i = 0; i < n; i += 1) {
      const below = -(between[i - 1] ?? 0);
      const pivot = (diagonal[i] ?? 0) - below * (upper[i - 1] ?? 0);
      upper[i] = -(between[i] ?? 0) / pivot;
      right[i] = ((i === node ? 1 : 0) - below * (right[i - 1] ?? 0)) / pivot;
    }
    let volts = 0;
    let found = 0;
    for (let i = n - 1; i >= 0; i -= 1) {
      volts = (right[i] ?? 0) - (upper[i] ?? 0) * volts;
      if (i === node) found = volts;
    }
    return found;
  });
}

/** What the meter shows of so many ohms. */
export const readWith = (meter: WalkMeter, ohms: number, random: () => number): number =>
  Math.max(0, ohms * (1 + meter.noise * normal(random)) + meter.driftOhms * normal(random));
