/** What a bench expects of two or more temperature pictures around power-on; written before the rule. Common practice, no source. */

/** A spot put into a drawn frame: middle and radius in cells, °C above what is around it, by frame. */
export interface DrawnSpot {
  readonly at: readonly [x: number, y: number];
  readonly radius: number;
  readonly celsius: readonly number[];
}
export interface WarmthCase {
  readonly name: string;
  readonly size: readonly [width: number, height: number];
  /** Seconds of each frame. */
  readonly seconds: readonly number[];
  /** Room and camera, °C, by frame. */
  readonly base: readonly number[];
  readonly spots: readonly DrawnSpot[];
  /** Cells that the camera moved by, by frame: right and down. */
  readonly moved?: readonly (readonly [number, number])[];
  /** Single cells that read nonsense in the last frame. */
  readonly dead?: readonly (readonly [number, number, number])[];
  /** Places that are named, the first first; the order beyond that is by how fast they warm. */
  readonly found: readonly (readonly [number, number])[];
}

const two = { size: [64, 48], seconds: [0, 1], base: [24, 24] } as const;
export const warmthCases: readonly WarmthCase[] = [
  { ...two, name: 'nothing warms', spots: [], found: [] },
  { ...two, name: 'one part warms', spots: [{ at: [40, 12], radius: 2, celsius: [0, 8] }], found: [[40, 12]] },
  {
    ...two,
    name: 'the room or the camera drifts by two degrees: not a part',
    base: [24, 26],
    spots: [{ at: [40, 12], radius: 2, celsius: [0, 8] }],
    found: [[40, 12]],
  },
  {
    ...two,
    name: 'hot before and hot after says nothing: compared, not absolute',
    spots: [
      { at: [12, 30], radius: 4, celsius: [25, 25] },
      { at: [40, 12], radius: 2, celsius: [0, 5] },
    ],
    found: [[40, 12]],
  },
  {
    ...two,
    name: 'the camera moved: edges of what was hot anyway are no parts',
    spots: [
      { at: [20, 30], radius: 5, celsius: [25, 25] },
      { at: [44, 40], radius: 3, celsius: [15, 15] },
      { at: [40, 12], radius: 2, celsius: [0, 8] },
    ],
    moved: [
      [0, 0],
      [3, -2],
    ],
    found: [[40, 12]],
  },
  {
    ...two,
    name: 'faster before slower, however large',
    spots: [
      { at: [16, 24], radius: 7, celsius: [0, 3] },
      { at: [48, 24], radius: 2, celsius: [0, 9] },
    ],
    found: [
      [48, 24],
      [16, 24],
    ],
  },
  {
    ...two,
    name: 'a small part that warms beside a large one is one of its own',
    spots: [
      { at: [30, 24], radius: 9, celsius: [0, 4] },
      { at: [52, 24], radius: 1, celsius: [0, 9] },
    ],
    found: [
      [52, 24],
      [30, 24],
    ],
  },
  { ...two, name: 'one cell that reads nonsense is no part', spots: [], dead: [[30, 20, 40]], found: [] },
  {
    size: [64, 48],
    seconds: [0, 1, 10],
    base: [24, 24, 24],
    name: 'three pictures: what warms in the first second comes before what is hotter in the end',
    spots: [
      { at: [16, 24], radius: 3, celsius: [0, 0.3, 20] },
      { at: [48, 24], radius: 2, celsius: [0, 6, 9] },
    ],
    found: [
      [48, 24],
      [16, 24],
    ],
  },
];

/** A matrix as cameras write it; null: refused, naming the line. */
export const frameTexts: readonly {
  readonly name: string;
  readonly text: string;
  readonly cells?: readonly number[][];
  readonly line?: number;
}[] = [
  {
    name: 'commas',
    text: '20,21\n22,23.5\n',
    cells: [
      [20, 21],
      [22, 23.5],
    ],
  },
  {
    name: 'semicolons and decimal commas',
    text: '20,5;21\n22;23,5',
    cells: [
      [20.5, 21],
      [22, 23.5],
    ],
  },
  {
    name: 'tabs',
    text: '20\t21\n22\t23',
    cells: [
      [20, 21],
      [22, 23],
    ],
  },
  {
    name: 'in °F, said in a line of its own',
    text: 'unit,F\n68,77\n50,32',
    cells: [
      [20, 25],
      [10, 0],
    ],
  },
  {
    name: 'lines of words before the numbers',
    text: 'camera,bench 2\nemissivity,0.95\n20,21\n22,23',
    cells: [
      [20, 21],
      [22, 23],
    ],
  },
  { name: 'a line that ends early', text: '20,21,22\n20,21\n', line: 2 },
  { name: 'a word among the numbers', text: '20,21\n20,warm', line: 2 },
  { name: 'colder than anything', text: '20,21\n20,-300', line: 2 },
  { name: 'one cell only', text: '20', line: 1 },
  { name: 'empty', text: '', line: 1 },
];

/** Pictures with a colour scale, by the name of a public colour map; written before the rule. */
export const scaleCases: readonly {
  readonly name: string;
  readonly map: 'Inferno' | 'Turbo' | 'Greys' | 'Viridis' | 'Rainbow' | 'Sinebow';
  /** Of the scale's ends. */
  readonly celsius: readonly [number, number];
  /** Brightness of each channel moves by as much by chance, of 255: a camera's own compression. */
  readonly noise: number;
  /** Temperatures come back within so many °C in nine of ten cells; null: refused. */
  readonly within: number | null;
}[] = [
  { name: 'dark to bright', map: 'Inferno', celsius: [20, 45], noise: 0, within: 0.15 },
  { name: 'dark to bright, compressed', map: 'Inferno', celsius: [20, 45], noise: 6, within: 0.8 },
  { name: 'through all colours', map: 'Turbo', celsius: [20, 60], noise: 3, within: 0.5 },
  { name: 'white hot', map: 'Greys', celsius: [22, 31], noise: 0, within: 0.08 },
  { name: 'below freezing', map: 'Viridis', celsius: [-12, 4], noise: 2, within: 0.4 },
  { name: 'ends that are the same colour tell nothing', map: 'Rainbow', celsius: [20, 45], noise: 0, within: null },
  { name: 'the same, of another kind', map: 'Sinebow', celsius: [20, 45], noise: 0, within: null },
];

/** The same places on a temperature picture and on a board's, dots of each; written before the rule. */
export const placeCases: readonly {
  readonly name: string;
  readonly pairs: readonly (readonly [from: readonly [number, number], to: readonly [number, number]])[];
  /** A place, and where it lies; null: the pairs tell nothing. */
  readonly at: readonly [number, number];
  readonly lies: readonly [number, number] | null;
}[] = [
  {
    name: 'two places: larger and moved',
    pairs: [
      [
        [10, 10],
        [120, 220],
      ],
      [
        [30, 10],
        [160, 220],
      ],
    ],
    at: [20, 20],
    lies: [140, 240],
  },
  {
    name: 'two places: the board was turned by a quarter',
    pairs: [
      [
        [0, 0],
        [100, 0],
      ],
      [
        [10, 0],
        [100, 10],
      ],
    ],
    at: [10, 5],
    lies: [95, 10],
  },
  {
    name: 'three places: seen at a slant, wider than high',
    pairs: [
      [
        [0, 0],
        [0, 0],
      ],
      [
        [10, 0],
        [30, 0],
      ],
      [
        [0, 10],
        [0, 20],
      ],
    ],
    at: [5, 5],
    lies: [15, 10],
  },
  {
    name: 'three places: the far side, mirrored',
    pairs: [
      [
        [0, 0],
        [100, 0],
      ],
      [
        [10, 0],
        [90, 0],
      ],
      [
        [0, 10],
        [100, 10],
      ],
    ],
    at: [3, 4],
    lies: [97, 4],
  },
  {
    name: 'one place tells nothing',
    pairs: [
      [
        [0, 0],
        [1, 1],
      ],
    ],
    at: [0, 0],
    lies: null,
  },
  {
    name: 'the same place twice tells nothing',
    pairs: [
      [
        [5, 5],
        [1, 1],
      ],
      [
        [5, 5],
        [9, 9],
      ],
    ],
    at: [0, 0],
    lies: null,
  },
  {
    name: 'three places in a line are two',
    pairs: [
      [
        [0, 0],
        [10, 10],
      ],
      [
        [10, 0],
        [30, 10],
      ],
      [
        [20, 0],
        [50, 10],
      ],
    ],
    at: [0, 5],
    lies: [10, 20],
  },
];

/** What is warm against what should be: a good set's rise by mark, °C; places as shares of the board's picture. */
export const goodSetCases: readonly {
  readonly name: string;
  readonly spots: readonly (readonly [x: number, y: number, rise: number])[];
  readonly marks: readonly (readonly [name: string, x: number, y: number, warm: number | null])[];
  /** By spot: its mark, and how it compares. */
  readonly said: readonly (readonly [string | null, 'as-good' | 'warmer' | 'cooler' | 'unknown'])[];
  /** Marks that warm in a good set and don't here. */
  readonly cold: readonly string[];
}[] = [
  { name: 'no mark near it', spots: [[0.5, 0.5, 8]], marks: [['Q1', 0.1, 0.1, null]], said: [[null, 'unknown']], cold: [] },
  {
    name: 'a mark near it, nothing known of a good set',
    spots: [[0.5, 0.5, 8]],
    marks: [['Q1', 0.51, 0.5, null]],
    said: [['Q1', 'unknown']],
    cold: [],
  },
  { name: 'warm in a good set as well', spots: [[0.5, 0.5, 8]], marks: [['Q1', 0.5, 0.51, 9]], said: [['Q1', 'as-good']], cold: [] },
  { name: 'far warmer than in a good set', spots: [[0.5, 0.5, 22]], marks: [['Q1', 0.5, 0.51, 9]], said: [['Q1', 'warmer']], cold: [] },
  { name: 'far cooler', spots: [[0.5, 0.5, 2]], marks: [['Q1', 0.5, 0.51, 9]], said: [['Q1', 'cooler']], cold: [] },
  {
    name: 'what should warm stays cold: its stage does not start',
    spots: [[0.2, 0.2, 6]],
    marks: [
      ['U7', 0.2, 0.21, 6],
      ['Q1', 0.5, 0.5, 9],
    ],
    said: [['U7', 'as-good']],
    cold: ['Q1'],
  },
  {
    name: 'of two marks the nearer one',
    spots: [[0.5, 0.5, 8]],
    marks: [
      ['C9', 0.53, 0.5, null],
      ['Q1', 0.51, 0.5, 8],
    ],
    said: [['Q1', 'as-good']],
    cold: [],
  },
];
