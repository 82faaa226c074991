/**
 * Rails with a short, as the searches for it are measured on: capacitors in a row along a track, one of them (or two) short to ground, and a meter that
 * reads from each capacitor to ground. Drawn here and nowhere else, so that every search meets the same rails.
 */

/** A rail with its short or shorts. Ohms. */
export interface ShortedRail {
  /** Between one capacitor and the next. */
  readonly segments: readonly number[];
  /** Where it branches: what each capacitor but the first hangs on, each over the segment of the same index. */
  readonly on?: readonly number[];
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

/** Ohms to ground at each capacitor by nodal analysis: conductances between the nodes, eliminated one after the other (Gauss). */
export function ohmsAlong({ segments, shorts, on }: ShortedRail): number[] {
  const n = segments.length + 1;
  const conductance = Array.from({ length: n }, () => new Float64Array(n));
  const add = (row: number, column: number, siemens: number): void => {
    const line = conductance[row];
    if (line) line[column] = (line[column] ?? 0) + siemens;
  };
  for (const [index, ohms] of segments.entries()) {
    const [here, there] = [index + 1, on?.[index] ?? index];
    for (const node of [here, there]) add(node, node, 1 / ohms);
    add(here, there, -1 / ohms);
    add(there, here, -1 / ohms);
  }
  for (const { at, ohms } of shorts) add(at, at, 1 / ohms);
  // One ampere into a node: its volts are the ohms there, and the inverse has them all.
  const inverse = conductance.map((_, row) => Float64Array.from({ length: n }, (_one, column) => (row === column ? 1 : 0)));
  for (let pivot = 0; pivot < n; pivot += 1) {
    const [line, own] = [conductance[pivot], inverse[pivot]];
    const by = line?.[pivot];
    if (!line || !own || !by) throw new RangeError('a rail with no way to ground');
    for (const values of [line, own]) for (let column = 0; column < n; column += 1) values[column] = (values[column] ?? 0) / by;
    for (let row = 0; row < n; row += 1) {
      const factor = conductance[row]?.[pivot] ?? 0;
      if (row === pivot || factor === 0) continue;
      for (const [target, values] of [
        [conductance[row], line],
        [inverse[row], own],
      ] as const)
        if (target) for (let column = 0; column < n; column += 1) target[column] = (target[column] ?? 0) - factor * (values[column] ?? 0);
    }
  }
  return inverse.map((line, node) => line[node] ?? 0);
}

/** What the meter shows of so many ohms. */
export const readWith = (meter: WalkMeter, ohms: number, random: () => number): number =>
  Math.max(0, ohms * (1 + meter.noise * normal(random)) + meter.driftOhms * normal(random));
