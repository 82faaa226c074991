/** The log of the strips: every LED and joint with what it did, and what that says of the string. */
import { parseQuantity } from '../electrical/index.ts';
import { emptyOf, waitsFor, type Finding, type Instrument } from './instrument.ts';

const ledStates = ['lit', 'open', 'short', 'dim'] as const;
type LedState = (typeof ledStates)[number];

/** Shares of an LED's own volts: below the first nothing stands across it, above the second all of the string's does (common practice, no source). */
const share = { none: 0.3, weak: 0.75, all: 1.6 };

/** What the log says of every LED and joint; places from 1. */
interface Log {
  readonly leds: ReadonlyMap<string, LedState | number>;
  readonly joints: ReadonlyMap<string, 'good' | 'open'>;
}

/** "all lit; 2.5 open; 1.3 148V; 1-2 open": an entry for a strip, an LED of it, or the joint between two. Throws RangeError, naming the entry. */
function readLog(text: string, strips: number, leds: number): Log {
  const found = new Map<string, LedState | number>();
  const joints = new Map<string, 'good' | 'open'>();
  const entries = text
    .split(/[;\n]+/)
    .map((one) => one.trim())
    .filter((one) => one !== '');
  for (const one of entries) {
    const joint = /^(\d{1,2})\s*-\s*(\d{1,2})\s+(good|open)$/i.exec(one);
    if (joint) {
      const [from, to] = [Number(joint[1]), Number(joint[2])];
      if (from < 1 || to !== from + 1 || to > strips) throw new RangeError(one);
      joints.set(`${from}-${to}`, joint[3]?.toLowerCase() === 'open' ? 'open' : 'good');
      continue;
    }
    const [, where = '', led, said = ''] = /^(all|\d{1,2})(?:\.(\d{1,3}))?\s+(.+)$/i.exec(one) ?? [];
    const word = ledStates.find((state) => state === said.toLowerCase());
    const state = word ?? parseQuantity(said, 'V');
    const strip = where.toLowerCase() === 'all' ? undefined : Number(where);
    const own = led === undefined ? undefined : Number(led);
    const known = strip === undefined ? own === undefined : strip >= 1 && strip <= strips;
    const whole = own === undefined && typeof state === 'number';
    if (state === undefined || !known || whole || (own !== undefined && (own < 1 || own > leds))) throw new RangeError(one);
    for (let s = strip ?? 1; s <= (strip ?? strips); s += 1)
      for (let l = own ?? 1; l <= (own ?? leds); l += 1) found.set(`${s}.${l}`, state);
  }
  return { leds: found, joints };
}

/** What volts across it say of an LED, where the string is fed. */
function byVolts(volts: number, ledVolts: number): LedState | 'none' {
  if (volts < share.none * ledVolts) return 'none';
  if (volts < share.weak * ledVolts) return 'dim';
  return volts <= share.all * ledVolts ? 'lit' : 'open';
}

export const strips: Instrument = {
  id: 'strips',
  measures: true,
  fields: [
    { id: 'strips', kind: 'quantity', unit: '', whole: true, least: 1, most: 60 },
    { id: 'leds', kind: 'quantity', unit: '', whole: true, least: 1, most: 60 },
    { id: 'ledVolts', kind: 'quantity', unit: 'V', usual: '3', least: 1, most: 40 },
    { id: 'tester', kind: 'choice', unit: '', usual: 'hand', choices: ['hand', 'full'] },
    { id: 'log', kind: 'text', unit: '', optional: true },
  ],
  run(values) {
    const { number, text } = values;
    const [count, each] = [number('strips'), number('leds')];
    if (count === undefined || each === undefined) return waitsFor(emptyOf(values, 'strips', 'leds'));
    const { leds, joints } = readLog(text('log'), count, each);
    if (leds.size + joints.size === 0) return waitsFor(['log']);
    const ledVolts = number('ledVolts') ?? 3;
    const read = [...leds].map(([at, state]) => [at, typeof state === 'number' ? byVolts(state, ledVolts) : state] as const);
    const places = (wanted: LedState | 'none'): string[] => read.filter(([, state]) => state === wanted).map(([at]) => at);
    // An open LED stops the current: none of the others has volts, and that says nothing of them.
    const currentFlows = [...leds].some(([, state]) => typeof state === 'number' && byVolts(state, ledVolts) === 'lit');
    const silent = places('none');
    const open = places('open');
    const shorted = [...places('short'), ...(currentFlows ? silent : [])];
    const broken = [...joints].filter(([, state]) => state === 'open').map(([at]) => at);
    const found: Finding[] = [];
    const say = (code: string, tone: Finding['tone'], list: readonly string[]): void => {
      if (list.length > 0) found.push({ code, tone, values: { list: list.join(', ') } });
    };
    say('strips-open', 'bad', open);
    say('strips-joint', 'bad', broken);
    say('strips-short', 'bad', shorted);
    say('strips-dim', 'doubt', places('dim'));
    const bad = found.length > 0;
    if (bad) found.push({ code: 'strips-replace', tone: 'doubt', values: {} });
    if (!bad && silent.length > 0) found.push({ code: 'strips-no-current', tone: 'doubt', values: {} });
    const seen = (strip: number): boolean => Array.from({ length: each }, (_, led) => leds.has(`${strip}.${led + 1}`)).every(Boolean);
    const left = Array.from({ length: count }, (_, index) => index + 1).filter((strip) => !seen(strip));
    say(
      'strips-left',
      'doubt',
      left.map((strip) => String(strip)),
    );
    if (found.length === 0) {
      found.push({ code: 'strips-all-good', tone: 'good', values: {} });
      if (text('tester') === 'hand') found.push({ code: 'strips-hand-tester', tone: 'doubt', values: {} });
    }
    const figures = [
      { id: 'looked', value: leds.size, unit: '' as const },
      { id: 'ofLeds', value: count * each, unit: '' as const },
    ];
    return { figures, findings: found, needs: [] };
  },
};
