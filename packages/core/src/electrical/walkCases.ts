/** What a technician with twenty years reads from a milliohm walk; written before the rules, from the trade (common practice, no source). Ohms. */
export const walkCases: readonly {
  readonly name: string;
  readonly capacitors: number;
  /** Index of a capacitor, from 0, and its reading. */
  readonly readings: readonly (readonly [number, number])[];
  /** The likeliest; null: it can’t be told yet. */
  readonly short: number | null;
  /** At least so sure, or at most. */
  readonly least?: number;
  readonly most?: number;
}[] = [
  {
    name: 'falling, and rising behind it: the turning point',
    capacitors: 7,
    readings: [
      [0, 0.291],
      [1, 0.262],
      [2, 0.218],
      [3, 0.187],
      [4, 0.214],
      [5, 0.246],
      [6, 0.268],
    ],
    short: 3,
    least: 0.8,
  },
  {
    name: 'falling to the end: it is the last one',
    capacitors: 5,
    readings: [
      [0, 0.24],
      [1, 0.21],
      [2, 0.185],
      [3, 0.16],
      [4, 0.13],
    ],
    short: 4,
    least: 0.8,
  },
  { name: 'nothing read', capacitors: 6, readings: [], short: null, most: 0.2 },
  {
    name: 'both ends alike say only that it is between',
    capacitors: 9,
    readings: [
      [0, 0.25],
      [8, 0.25],
    ],
    short: null,
    most: 0.5,
  },
  {
    name: 'two readings that differ by a segment point to a side',
    capacitors: 3,
    readings: [
      [0, 0.3],
      [2, 0.12],
    ],
    short: 2,
    least: 0.5,
  },
  {
    name: 'within the meter’s noise nothing is told between neighbours',
    capacitors: 3,
    readings: [
      [0, 0.2],
      [1, 0.2],
      [2, 0.2],
    ],
    short: null,
    most: 0.75,
  },
];

/**
 * One short or two, as a bench tells them: with one the reading falls and rises once; with two it bulges between them. Readings of all capacitors, Ω, from the
 * ladder solved by hand (two paths to ground side by side), a few milliohms off as a meter is.
 */
export const twoShortCases: readonly {
  readonly name: string;
  readonly capacitors: number;
  /** In order; null: not read. */
  readonly ohms: readonly (number | null)[];
  /** Indices of the two; null: one short explains it. */
  readonly shorts: readonly [number, number] | null;
}[] = [
  {
    name: 'falls and rises once: one',
    capacitors: 9,
    ohms: [0.291, 0.262, 0.241, 0.218, 0.187, 0.214, 0.246, 0.268, 0.291],
    shorts: null,
  },
  {
    // 0.12 Ω at the third and 0.15 Ω at the ninth, 25 mΩ between neighbours: the loop is 0.42 Ω round.
    name: 'falls, bulges, rises again: two',
    capacitors: 11,
    ohms: [0.138, 0.11, 0.0865, 0.0942, 0.102, 0.1038, 0.1057, 0.1014, 0.0972, 0.12, 0.148],
    shorts: [2, 8],
  },
  {
    name: 'one end read only: no word of a second',
    capacitors: 11,
    ohms: [0.136, 0.111, 0.0857, null, null, null, null, null, null, null, null],
    shorts: null,
  },
];

/** Rails that branch, as a technician with twenty years reads them; written before the rules, from the trade (common practice, no source). Ohms. */
export const branchCases: readonly {
  readonly name: string;
  readonly capacitors: number;
  /** "3: 7-9": capacitors 7 to 9 hang one behind the other on capacitor 3. */
  readonly branches: string;
  /** Number of a capacitor, from 1, and its reading. */
  readonly readings: readonly (readonly [number, number])[];
  /** Number of the likeliest; null: it can’t be told yet. */
  readonly short: number | null;
  readonly least?: number;
  readonly most?: number;
  /** One of these is read next. */
  readonly next?: readonly number[];
}[] = [
  {
    name: 'lowest of the main row where a branch leaves it, and lower still along the branch: in the branch',
    capacitors: 9,
    branches: '3: 7-9',
    readings: [
      [1, 0.291],
      [3, 0.247],
      [6, 0.305],
      [7, 0.226],
      [8, 0.205],
      [9, 0.222],
    ],
    short: 8,
    least: 0.8,
  },
  {
    name: 'only the main row read, lowest where the branch leaves: that one or the branch, and the branch is read next',
    capacitors: 9,
    branches: '3: 7-9',
    readings: [
      [1, 0.291],
      [2, 0.268],
      [3, 0.247],
      [4, 0.268],
      [6, 0.305],
    ],
    short: null,
    most: 0.6,
    next: [7, 8, 9],
  },
  {
    name: 'higher out in the branch than where it leaves: not in the branch',
    capacitors: 9,
    branches: '3: 7-9',
    readings: [
      [1, 0.29],
      [3, 0.245],
      [4, 0.222],
      [5, 0.2],
      [6, 0.221],
      [7, 0.267],
      [9, 0.31],
    ],
    short: 5,
    least: 0.8,
  },
  {
    name: 'a branch that branches again',
    capacitors: 9,
    branches: '2: 5-7; 6: 8-9',
    readings: [
      [1, 0.32],
      [2, 0.295],
      [4, 0.34],
      [5, 0.27],
      [6, 0.25],
      [7, 0.272],
      [8, 0.226],
      [9, 0.2],
    ],
    short: 9,
    least: 0.8,
  },
  {
    name: 'two branches from one place that read alike beyond it: the short is before them',
    capacitors: 8,
    branches: '4: 5-6; 4: 7-8',
    readings: [
      [1, 0.24],
      [2, 0.215],
      [3, 0.24],
      [4, 0.262],
      [5, 0.284],
      [6, 0.306],
      [8, 0.305],
    ],
    short: 2,
    least: 0.8,
  },
];

/** What can’t be a rail. */
export const impossibleBranches: readonly { readonly capacitors: number; readonly branches: string }[] = [
  { capacitors: 6, branches: '3: 5-9' },
  { capacitors: 6, branches: '3: 2-5' },
  { capacitors: 6, branches: '7: 5-6' },
  { capacitors: 6, branches: '5: 5-6' },
  { capacitors: 8, branches: '2: 5-7; 3: 6-8' },
  { capacitors: 8, branches: 'at 3' },
];
