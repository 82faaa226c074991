/**
 * What a technician with twenty years expects of several readings taken together; written before the rules, from the trade and electronics
 * (common practice, no source), families' own values aside. Values in volts, ohms where the set is unplugged.
 */
import type { Behaviour } from './judge.ts';

/** A reading: a number, or a number that doesn't stay. */
export type SheetInput = number | { readonly value: number; readonly behaves: Behaviour };

/** One sheet. */
export interface SheetCase {
  readonly name: string;
  readonly layout: string;
  readonly family?: string;
  readonly symptom: string;
  /** State of the set -> point -> reading. */
  readonly readings: Readonly<Record<string, Readonly<Record<string, SheetInput>>>>;
  /** Printed on the board, volts. */
  readonly printed?: Readonly<Record<string, number>>;
  /** Point -> how the reading is called. */
  readonly levels?: Readonly<Record<string, string>>;
  /** Point -> answer of its test; null: the number decides none. */
  readonly outcomes?: Readonly<Record<string, string | null>>;
  /** Point -> deviation in percent, to a tenth. */
  readonly deviations?: Readonly<Record<string, number>>;
  /** Likelier, less likely: pairs of assemblies afterwards. */
  readonly likelier?: readonly (readonly [string, string])[];
  /** These readings alone say as much: what else was read follows from them. */
  readonly sameAs?: Readonly<Record<string, Readonly<Record<string, SheetInput>>>>;
}

const noPicture = 'standby-no-start';
const dark = 'sound-dark';

/** The cases. */
export const sheetCases: readonly SheetCase[] = [
  {
    name: 'a standby rail as printed: 5.2 V for 5.2 V',
    layout: 'led-tcon',
    symptom: noPicture,
    printed: { standby: 5.2 },
    readings: { standby: { standby: 5.2 } },
    levels: { standby: 'in' },
    deviations: { standby: 0 },
  },
  {
    name: 'nothing printed, family unknown: 5.2 V is a standby rail, and 3.3 and 7.5 V are too',
    layout: 'led-tcon',
    symptom: noPicture,
    readings: { standby: { standby: 7.5 } },
    levels: { standby: 'in' },
  },
  {
    name: 'nothing printed: 2.4 V is too little for any',
    layout: 'led-tcon',
    symptom: noPicture,
    readings: { standby: { standby: 2.4 } },
    levels: { standby: 'low' },
    outcomes: { standby: 'low' },
  },
  {
    name: 'a main rail of 12.08 V where 12 is printed: half a percent high is as it belongs',
    layout: 'led-tcon',
    symptom: noPicture,
    printed: { 'main-rail': 12 },
    readings: { starting: { 'main-rail': 12.08 } },
    levels: { 'main-rail': 'in' },
    deviations: { 'main-rail': 0.7 },
    outcomes: { 'main-rail': 'in-range' },
  },
  {
    name: '11.3 V for 12 is outside five percent',
    layout: 'led-tcon',
    symptom: noPicture,
    printed: { 'main-rail': 12 },
    readings: { starting: { 'main-rail': 11.3 } },
    levels: { 'main-rail': 'low' },
    deviations: { 'main-rail': -5.8 },
    // Not as it belongs, and not gone either: nobody would call it a good rail or a bad one by this number alone.
    outcomes: { 'main-rail': null },
  },
  {
    name: '13.9 V for 12 is high',
    layout: 'led-tcon',
    symptom: noPicture,
    printed: { 'main-rail': 12 },
    readings: { starting: { 'main-rail': 13.9 } },
    levels: { 'main-rail': 'high' },
  },
  {
    name: 'what pulses isn’t absent, however little a slow meter shows of it',
    layout: 'led-tcon',
    symptom: noPicture,
    readings: { starting: { 'main-rail': { value: 0.3, behaves: 'pulsing' } } },
    levels: { 'main-rail': 'pulsing' },
  },
  {
    name: 'what was there for an instant and trips isn’t absent',
    layout: 'led-tcon',
    symptom: noPicture,
    readings: { starting: { 'main-rail': { value: 0, behaves: 'trips' } } },
    levels: { 'main-rail': 'trips' },
  },
  {
    name: 'a voltage of which nothing is known can’t be called anything',
    layout: 'led-tcon',
    symptom: noPicture,
    readings: { starting: { 'main-rail': 17 } },
    levels: { 'main-rail': 'unknown' },
  },
  {
    name: 'no standby: that everything behind it is missing tells nothing more',
    layout: 'led-tcon',
    symptom: 'dead',
    readings: { standby: { standby: 0 }, starting: { 'ps-on': 0, 'main-rail': 0 }, on: { 'bl-on': 0 } },
    levels: { standby: 'missing', 'main-rail': 'missing' },
    sameAs: { standby: { standby: 0 } },
  },
  {
    name: 'standby there, PS_ON doesn’t ask: main before power',
    layout: 'led-tcon',
    symptom: noPicture,
    readings: { standby: { standby: 5 }, starting: { 'ps-on': 0.1, 'main-rail': 0 } },
    levels: { standby: 'in', 'ps-on': 'rests', 'main-rail': 'missing' },
    likelier: [['main', 'power']],
  },
  {
    name: 'standby there, PS_ON asks, no main rail: power before main',
    layout: 'led-tcon',
    symptom: noPicture,
    readings: { standby: { standby: 5 }, starting: { 'ps-on': 3.1, 'main-rail': 0 } },
    levels: { 'ps-on': 'asks', 'main-rail': 'missing' },
    likelier: [['power', 'main']],
  },
  {
    name: 'sound and no light, BL_ON asks and nothing comes at the backlight plug: the supply side before main',
    layout: 'led-tcon',
    symptom: dark,
    readings: { on: { 'bl-on': 3.2 }, starting: { 'led-plug': 0 } },
    levels: { 'bl-on': 'asks', 'led-plug': 'missing' },
    likelier: [['power', 'main']],
  },
  {
    name: 'sound and no light, BL_ON doesn’t ask: main before the supply side',
    layout: 'led-tcon',
    symptom: dark,
    readings: { on: { 'bl-on': 0.1 } },
    levels: { 'bl-on': 'rests' },
    likelier: [['main', 'power']],
  },
  {
    name: 'a bias rail of 3 Ω to chassis is short, whatever belongs there',
    layout: 'led-tcon',
    symptom: 'lit-blank',
    readings: { unplugged: { bias: 3 } },
    levels: { bias: 'short' },
  },
  {
    name: 'a main capacitor of 295 V: ten percent below the usual 325 V, as mains are',
    layout: 'led-tcon',
    symptom: 'dead',
    readings: { standby: { bulk: 295 } },
    levels: { bulk: 'in' },
    outcomes: { bulk: 'present' },
  },
  {
    name: 'PS_ON before the key: it rests, and that is no fault',
    layout: 'led-tcon',
    symptom: noPicture,
    readings: { standby: { 'ps-on': 0.1 } },
    levels: { 'ps-on': 'unknown' },
  },
  {
    name: 'no way through the line fuse',
    layout: 'led-tcon',
    symptom: 'dead',
    readings: { unplugged: { 'line-fuse': 1e9 } },
    levels: { 'line-fuse': 'high' },
    likelier: [['power', 'main']],
  },
  {
    name: 'a line fuse of 0.2 Ω',
    layout: 'led-tcon',
    symptom: 'dead',
    readings: { unplugged: { 'line-fuse': 0.2 } },
    levels: { 'line-fuse': 'in' },
  },
  {
    name: '600 Ω on a bias rail is no short',
    layout: 'led-tcon',
    symptom: 'lit-blank',
    readings: { unplugged: { bias: 600 } },
    levels: { bias: 'in' },
  },
];
