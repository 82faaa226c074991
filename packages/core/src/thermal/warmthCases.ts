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
