/**
 * What a technician with twenty years expects of printed pin labels and of readings at the pins of a board; written before the rules, from the
 * trade and electronics (common practice, no source).
 */

/** A printed label, and what it says. */
export interface LabelCase {
  readonly label: string;
  /** The plug or board it stands on; left out: nothing is said of it. */
  readonly on?: string;
  readonly layout?: string;
  /** Point of the layout it is; null: none of them. */
  readonly point: string | null;
  /** Volts that the label itself names. */
  readonly volts?: number;
  readonly ground?: true;
}

const plug = { on: 'harness.power-main', layout: 'led-tcon' } as const;

/** The cases. */
export const labelCases: readonly LabelCase[] = [
  { label: '5VSB', ...plug, point: 'standby', volts: 5 },
  { label: '5V_STB', ...plug, point: 'standby', volts: 5 },
  { label: 'STB 3V3', ...plug, point: 'standby', volts: 3.3 },
  { label: '5.2V-STBY', ...plug, point: 'standby', volts: 5.2 },
  { label: 'stb', ...plug, point: 'standby' },
  // The line that wakes the supply is named after standby too.
  { label: 'STB-ON', ...plug, point: 'ps-on' },
  { label: 'PS-ON', ...plug, point: 'ps-on' },
  { label: 'P_ON', ...plug, point: 'ps-on' },
  { label: 'PW_ON/OFF', ...plug, point: 'ps-on' },
  { label: 'BL-ON', ...plug, point: 'bl-on' },
  { label: 'BKLT_EN', ...plug, point: 'bl-on' },
  { label: 'INV-ON', ...plug, point: 'bl-on' },
  { label: 'P-DIM', ...plug, point: 'dim' },
  { label: 'BRI', ...plug, point: 'dim' },
  { label: 'PWM', ...plug, point: 'dim' },
  { label: 'BL_ERR', ...plug, point: 'bl-err' },
  { label: '12V', ...plug, point: 'main-rail', volts: 12 },
  { label: '+12V', ...plug, point: 'main-rail', volts: 12 },
  { label: '12.3V', ...plug, point: 'main-rail', volts: 12.3 },
  { label: '24V', ...plug, point: 'main-rail', volts: 24 },
  { label: 'GND', ...plug, point: null, ground: true },
  { label: 'SGND', ...plug, point: null, ground: true },
  { label: 'A-GND', ...plug, point: null, ground: true },
  // A sound supply is no main rail, and a temperature sensor is nothing that the layout names.
  { label: 'AMP_18V', ...plug, point: null, volts: 18 },
  { label: 'NTC', ...plug, point: null },
  { label: 'VGH', on: 'tcon', layout: 'led-tcon', point: 'bias' },
  { label: 'AVDD', on: 'tcon', layout: 'led-tcon', point: 'bias' },
  { label: 'VIN 12V', on: 'tcon', layout: 'led-tcon', point: 'tcon-input', volts: 12 },
  // The same letters elsewhere are no point of that place.
  { label: '5VSB', on: 'tcon', layout: 'led-tcon', point: null, volts: 5 },
  { label: 'LED+', on: 'harness.light', layout: 'led-tcon', point: 'led-plug' },
  { label: 'KEY1', on: 'main', layout: 'led-tcon', point: 'key-wire' },
  { label: 'VS', on: 'power', layout: 'plasma', point: 'sustain' },
  { label: 'VA', on: 'power', layout: 'plasma', point: 'address-rail' },
];

/** A pin, what is known of it, and a reading. */
export interface PinCase {
  readonly name: string;
  readonly label: string;
  readonly state: 'unplugged' | 'standby' | 'starting' | 'on' | 'harness-out';
  /** Entered for the board: printed or measured on good ones. */
  readonly expects?: readonly {
    readonly quantity: 'volts' | 'ohms';
    readonly state: string;
    readonly value: number;
    readonly least?: number;
    readonly most?: number;
    readonly source: 'printed' | 'measured';
    readonly n?: number;
  }[];
  readonly value: number;
  readonly level: string;
  /** Percent, to a tenth. */
  readonly deviation?: number;
}

/** The cases. */
export const pinCases: readonly PinCase[] = [
  { name: 'a ground pin is at 0 Ω: no short', label: 'GND', state: 'unplugged', value: 0.2, level: 'in' },
  { name: 'a ground pin with 40 Ω: its ground is gone', label: 'GND', state: 'unplugged', value: 40, level: 'high' },
  { name: 'a supply pin at 0.4 Ω that is no ground', label: '18V', state: 'unplugged', value: 0.4, level: 'short' },
  { name: 'a core supply reads low on a good board: 6 Ω can not be called', label: '1V0', state: 'unplugged', value: 6, level: 'unknown' },
  { name: 'nothing known of it: kilo-ohms can not be called', label: 'NTC', state: 'unplugged', value: 4700, level: 'unknown' },
  {
    name: 'as low as three good boards read: no short',
    label: '1V0',
    state: 'unplugged',
    expects: [{ quantity: 'ohms', state: 'unplugged', value: 6, least: 5, most: 7, source: 'measured', n: 3 }],
    value: 5.4,
    level: 'in',
  },
  {
    name: 'a tenth of what good boards read, and above any short',
    label: '12V',
    state: 'unplugged',
    expects: [{ quantity: 'ohms', state: 'unplugged', value: 900, least: 850, most: 960, source: 'measured', n: 3 }],
    value: 85,
    level: 'low',
  },
  {
    name: 'ten times what good boards read: something is open',
    label: '12V',
    state: 'unplugged',
    expects: [{ quantity: 'ohms', state: 'unplugged', value: 900, least: 850, most: 960, source: 'measured', n: 3 }],
    value: 9000,
    level: 'high',
  },
  { name: 'the label names the volts: 12.08 V at 12V', label: '12V', state: 'on', value: 12.08, level: 'in', deviation: 0.7 },
  { name: '11.2 V at 12V is under five percent less', label: '12V', state: 'on', value: 11.2, level: 'low', deviation: -6.7 },
  { name: 'nothing at 12V while it runs', label: '12V', state: 'on', value: 0.1, level: 'missing' },
  { name: 'a switched rail has nothing in standby', label: '12V', state: 'standby', value: 0.1, level: 'unknown' },
  { name: 'a standby rail stands in standby', label: '5VSB', state: 'standby', value: 5.1, level: 'in', deviation: 2 },
  { name: 'and with the harness out', label: '5VSB', state: 'harness-out', value: 3.9, level: 'low', deviation: -22 },
  { name: 'typical by its label alone: a gate-high supply of 28 V', label: 'VGH', state: 'on', value: 28, level: 'in' },
  { name: 'gate-high at 6 V is too little for any', label: 'VGH', state: 'on', value: 6, level: 'low' },
  { name: 'gate-low is negative', label: 'VGL', state: 'on', value: -7, level: 'in' },
  { name: 'gate-low at +2 V', label: 'VGL', state: 'on', value: 2, level: 'high' },
  { name: 'gate-low that is not there', label: 'VGL', state: 'on', value: 0.1, level: 'missing' },
  {
    name: 'measured on good boards stands above the label',
    label: '12V',
    state: 'on',
    expects: [{ quantity: 'volts', state: 'on', value: 13, source: 'measured', n: 2 }],
    value: 12.97,
    level: 'in',
    deviation: -0.2,
  },
  {
    name: 'printed beside the pin stands above all',
    label: '12V',
    state: 'on',
    expects: [
      { quantity: 'volts', state: 'on', value: 13, source: 'printed' },
      { quantity: 'volts', state: 'on', value: 12, source: 'measured', n: 2 },
    ],
    value: 12,
    level: 'low',
    deviation: -7.7,
  },
  {
    name: 'a control line in a state nobody noted',
    label: 'NTC',
    state: 'on',
    value: 1.2,
    level: 'unknown',
  },
];

/** Pins of one rail that are read one after the other. */
export const togetherCases: readonly {
  readonly name: string;
  readonly values: readonly number[];
  /** One reading for all of them, or that they disagree. */
  readonly together: 'agree' | 'disagree';
}[] = [
  { name: 'two pins of one rail, 5.2 V on both', values: [5.2, 5.2], together: 'agree' },
  { name: 'a hundredth apart is the meter', values: [12.1, 12.0, 12.08], together: 'agree' },
  { name: 'one pin has nothing: the joint or the wire', values: [5.2, 0.05], together: 'disagree' },
  { name: 'a tenth apart is a bad contact', values: [12.1, 10.8], together: 'disagree' },
  { name: 'nothing on either', values: [0.02, 0.1], together: 'agree' },
];

/** Readings on good boards, one after the other, and what belongs there then. */
export const learnedCases: readonly {
  readonly name: string;
  readonly readings: readonly number[];
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly n: number;
}[] = [
  { name: 'one', readings: [5.2], value: 5.2, least: 5.2, most: 5.2, n: 1 },
  { name: 'three', readings: [5.1, 5.3, 5.2], value: 5.2, least: 5.1, most: 5.3, n: 3 },
];

/** A row of pins on a picture, by its ends, and where one of them is: shares of width and height. */
export const rowCases: readonly {
  readonly name: string;
  readonly first: readonly [number, number];
  readonly last: readonly [number, number];
  readonly across?: readonly [number, number];
  readonly count: number;
  readonly pin: number;
  readonly at: readonly [number, number];
}[] = [
  { name: 'the first', first: [0.1, 0.5], last: [0.5, 0.5], count: 5, pin: 1, at: [0.1, 0.5] },
  { name: 'the third of five is in the middle', first: [0.1, 0.5], last: [0.5, 0.5], count: 5, pin: 3, at: [0.3, 0.5] },
  { name: 'a single pin', first: [0.1, 0.5], last: [0.1, 0.5], count: 1, pin: 1, at: [0.1, 0.5] },
  // Two rows: odd numbers in the first, even ones across from them.
  { name: 'pin 2 is across from pin 1', first: [0.1, 0.5], last: [0.5, 0.5], across: [0.1, 0.6], count: 10, pin: 2, at: [0.1, 0.6] },
  { name: 'pin 9 ends the first row', first: [0.1, 0.5], last: [0.5, 0.5], across: [0.1, 0.6], count: 10, pin: 9, at: [0.5, 0.5] },
  { name: 'pin 10 is across from it', first: [0.1, 0.5], last: [0.5, 0.5], across: [0.1, 0.6], count: 10, pin: 10, at: [0.5, 0.6] },
  {
    name: 'a slanted row of two: the ends',
    first: [0.2, 0.2],
    last: [0.4, 0.3],
    count: 2,
    pin: 2,
    at: [0.4, 0.3],
  },
];
