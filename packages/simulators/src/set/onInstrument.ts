/**
 * What a simulated set shows on the instruments of the bench: fields as a technician would type them. By its body alone, and the same for the same set and
 * seed; where a search asks for one place after the other, the answer is added to what stands there.
 */
import type { Body } from './body.ts';
import { healthyOhms } from './ohms.ts';
import { pick, randomFrom, seedOf, within, type Random } from './random.ts';

/** What a search asks for. */
export interface Asked {
  /** Index of the capacitor to read, from 0. */
  readonly at?: number;
  /** Index of the capacitor that was taken off. */
  readonly takenOff?: number;
  /** Lines left uncovered, from 1. */
  readonly uncovered?: readonly number[];
  /** Lit by a hand tester (20 to 30 mA), or at the set's own current. */
  readonly tester?: 'hand' | 'full';
}
/** Fields of an instrument, as typed. */
export type Typed = Readonly<Record<string, string>>;

/** What is read, given the body and random numbers that are the set's own for that instrument. */
type Shows = (body: Body, random: () => Random, typed: Typed, asked: Asked) => Record<string, string>;

/** Three digits, never as a power of ten. */
const ohms = (value: number): string => String(Number(value.toPrecision(3)));
const added = (before: string | undefined, one: string): string => [before ?? '', one].filter((part) => part !== '').join('; ');
const panelRails = ['vgh', 'vgl', 'avdd', 'vcom'] as const;

/** Copper from one capacitor to the next, what is left of a shorted one, Ω, and the meter’s error as a share (of the order that benches read; values from memory). */
const milliohms = { segment: [0.006, 0.035], left: [0.06, 0.28], error: 0.015 } as const;

const short: Shows = (body, random, typed, { at, takenOff }) => {
  const own = random();
  const capacitors = 8 + Math.floor(own() * 9);
  const segments = Array.from({ length: capacitors - 1 }, () => within(own, ...milliohms.segment));
  const shorted = Math.floor(own() * capacitors);
  const left = within(own, ...milliohms.left);
  const errors = Array.from({ length: capacitors }, () => 1 + within(own, -milliohms.error, milliohms.error));
  const { at: where } = body.panel.railShort;
  // A short in the panel lies beyond the last capacitor, at the ribbon.
  const guilty = where === 'capacitor' ? shorted : capacitors - 1;
  const first = { capacitors: String(capacitors) };
  if (takenOff !== undefined) return { ...first, takenOff: where === 'capacitor' && takenOff === guilty ? 'gone' : 'stays' };
  if (at === undefined) return first;
  // What is left of the short, and all copper on the way to it.
  const copper = segments.slice(Math.min(at, guilty), Math.max(at, guilty)).reduce((sum, one) => sum + one, 0);
  const reading = ((where === 'none' ? healthyOhms('bias') : left) + copper) * (errors[at] ?? 1);
  return { ...first, along: added(typed.along, `${at + 1} ${ohms(reading)}`) };
};

const mask: Shows = (body, random, typed, { uncovered = [] }) => {
  const lines = 8;
  const guilty = 1 + Math.floor(random()() * lines);
  const first = { lines: String(lines) };
  if (uncovered.length === 0) return first;
  const loops = body.panel.clockShort !== 'none' && uncovered.includes(guilty);
  return { ...first, trials: added(typed.trials, `${uncovered.join(' ')} ${loops ? 'loops' : 'starts'}`) };
};

const bias: Shows = (body, random) => {
  const own = random();
  const all = (how: string): Record<string, string> => Object.fromEntries(panelRails.map((rail) => [rail, how]));
  if (body.tcon.fuseOpen || body.tcon.bias === 'all-missing') return all('missing');
  if (body.tcon.bias === 'one-missing') return { ...all('there'), [pick(own, ['vgh', 'vgl', 'vcom'])]: 'missing' };
  return body.panel.railShort.at === 'none' ? all('there') : { ...all('there'), [pick(own, ['vgh', 'avdd'])]: 'trips' };
};

const halves: Shows = (body) => {
  const { at, side } = body.panel.railShort;
  const alive = (left: boolean, right: boolean): string => {
    const still = (side === 'left' && left) || (side === 'right' && right);
    return at !== 'none' && !still ? 'alive' : 'unchanged';
  };
  return { ribbons: 'each', bothOut: alive(false, false), leftOut: alive(false, true), rightOut: alive(true, false) };
};

const strips: Shows = (body, random, _typed, { tester = 'full' }) => {
  const own = random();
  const [count, each] = [pick(own, [3, 4, 5, 6]), pick(own, [6, 8, 10])];
  const [strip, led] = [1 + Math.floor(own() * count), 1 + Math.floor(own() * each)];
  const { open, shortedShare, failsAtFull } = body.strips;
  const log = ['all lit'];
  if (open === 'led' || (failsAtFull && tester === 'full')) log.push(`${strip}.${led} open`);
  if (open === 'joint') log.push(`${Math.min(strip, count - 1)}-${Math.min(strip, count - 1) + 1} open`);
  const dark = shortedShare === 0 ? 0 : Math.max(1, Math.round(shortedShare * each));
  for (let one = 1; one <= dark; one += 1) log.push(`${strip}.${one} short`);
  return { strips: String(count), leds: String(each), tester, log: log.join('; ') };
};

const string: Shows = (body, random) => {
  const own = random();
  const [count, each] = [pick(own, [3, 4, 5, 6]), pick(own, [6, 8, 10])];
  const volts = count * each * 3;
  const limit = Math.round(volts * 1.3);
  const { open, shortedShare, failsAtFull } = body.strips;
  const reading = !body.driver.gives ? 0 : open !== 'none' || failsAtFull ? limit : volts * (1 - shortedShare) * within(own, 0.995, 1.005);
  return { strips: String(count), leds: String(each), limitVolts: String(limit), reading: reading.toFixed(1) };
};

const plugs: Shows = (body, random) => {
  const own = random();
  const loads: readonly (readonly [string, number])[] = [
    ['speakers', Math.min(body.speakers.shortOhms, healthyOhms('speakers') * 100)],
    ['radio', body.radio.shorted ? 1.5 : healthyOhms('radio')],
    ['T-con', Math.min(body.tcon.supplyShortOhms, healthyOhms('tcon-input'))],
  ];
  const board = Math.min(body.main.audioShortOhms, healthyOhms('main-converters'));
  const through = (left: readonly (readonly [string, number])[]): string =>
    ohms((1 / [board, ...left.map(([, one]) => one)].reduce((sum, one) => sum + 1 / one, 0)) * within(own, 0.99, 1.01));
  const steps = loads.map(([name], index) => `${name} ${through(loads.slice(index + 1))}`);
  return { all: through(loads), off: steps.join('; ') };
};

const siblings: Shows = (body, random) => {
  const own = random();
  const good = within(own, 1.5e6, 3e6);
  const odd = Math.floor(own() * 4);
  const shorted = Number.isFinite(body.main.audioShortOhms);
  const values = Array.from({ length: 4 }, (_, index) =>
    shorted && index === odd ? body.main.audioShortOhms : good * within(own, 0.93, 1.07),
  );
  return { values: values.map(ohms).join(' ') };
};

const junction: Shows = (body, random): Record<string, string> =>
  body.primaryShort
    ? { forward: '0.004', reverse: 'conducts', reverseVolts: '0.004' }
    : { forward: within(random(), 0.48, 0.62).toFixed(3), reverse: 'open' };

const discharge: Shows = (_body, random) => {
  const own = random();
  const [first, seconds, bleed] = [within(own, 290, 330), 20, within(own, 8, 30)];
  return { firstVolts: first.toFixed(0), secondVolts: (first * Math.exp(-seconds / bleed)).toFixed(0), apart: String(seconds) };
};

const bar: Shows = (body, random) => {
  const own = random();
  const drivers = pick(own, [6, 8, 10, 12]);
  const dead = body.panel.film !== 'none' && !body.panel.filmHalf;
  return { drivers: String(drivers), ...(dead ? { barPercent: ((100 / drivers) * within(own, 0.96, 1.04)).toFixed(1) } : {}) };
};

/** Two pictures of the main board, 64 by 48: what works warms, what is shorted warms first, what is off stays cold. CSV, °C. */
const thermal: Shows = (body, random) => {
  const own = random();
  const shorted = Number.isFinite(body.main.audioShortOhms);
  const spots = [
    { at: [44, 16], rise: body.main.processor.heat === 'cold' ? 0 : body.main.processor.heat === 'hot' ? 12 : 5 },
    { at: [14, 36], rise: shorted ? 14 : 0 },
  ];
  const picture = (share: number): string =>
    Array.from({ length: 48 }, (_, y) =>
      Array.from({ length: 64 }, (__, x) => {
        const warm = spots.reduce((sum, { at: [cx = 0, cy = 0], rise }) => sum + rise * Math.exp(-((x - cx) ** 2 + (y - cy) ** 2) / 9), 0);
        return (24 + share * warm + within(own, -0.08, 0.08)).toFixed(2);
      }).join(','),
    ).join('\n');
  return { before: picture(0), after: picture(1) };
};

/** By instrument; what only calculates (a kit, a current, a link) is told nothing by a set. */
const shows: Readonly<Record<string, Shows>> = {
  short,
  mask,
  bias,
  halves,
  strips,
  string,
  plugs,
  siblings,
  junction,
  discharge,
  bar,
  thermal,
};

/** Instruments that a set shows something on. */
export const shownInstruments: readonly string[] = Object.keys(shows);

/** Undefined where the set shows nothing on that instrument. */
export function showOn(instrument: string, body: Body, seed: number, typed: Typed, asked: Asked): Record<string, string> | undefined {
  return shows[instrument]?.(body, () => randomFrom(seedOf(seed, `instrument|${instrument}`)), typed, asked);
}
