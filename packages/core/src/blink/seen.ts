/** What somebody typed of a light they watched: "4", "3-1", "3 long 2 short", "15 green then dark", "red twice, then steady", "no light". */
import { lightColours, type BlinkAfter, type LightColour, type LightState } from './words.ts';

/** What somebody typed of a light: no light, a steady one, or counts. */
export type Seen =
  | { readonly groups: readonly number[]; readonly colour?: LightColour; readonly after?: BlinkAfter }
  | { readonly light: LightState; readonly colour?: LightColour };

/** As far as anybody counts; beyond that it is a slip of the key. */
const mostCount = 40;
const mostGroups = 4;
const numbers: Readonly<Record<string, number>> = {
  once: 1,
  twice: 2,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
};
const afters: Readonly<Record<string, BlinkAfter>> = {
  dark: 'dark',
  off: 'dark',
  out: 'dark',
  nothing: 'dark',
  steady: 'steady',
  on: 'steady',
  lit: 'steady',
  repeats: 'repeats',
  repeating: 'repeats',
  again: 'repeats',
};
const colours: Readonly<Record<string, LightColour>> = {
  ...Object.fromEntries(lightColours.map((one) => [one, one])),
  orange: 'amber',
  yellow: 'amber',
};
/** Undefined for a word that is no colour of a light. */
export const colourNamed = (word: string): LightColour | undefined => (Object.hasOwn(colours, word) ? colours[word] : undefined);

/** Words that say nothing more. */
const filling = new Set(
  'times time x blink blinks flash flashes long short pause then and a the light led it of goes stays fast slow quick'.split(' '),
);

/** Undefined where any of it isn't understood: half of a code would be another code. */
export function parseSeen(text: string): Seen | undefined {
  const words = text
    .toLowerCase()
    .replace(/(\d)\s*[x×]/g, '$1 ')
    .split(/[\s,;.+/–—-]+/)
    .filter((word) => word !== '');
  if (words.length === 0) return undefined;
  const whole = words.join(' ');
  const groups: number[] = [];
  let colour: LightColour | undefined;
  let after: BlinkAfter | undefined;
  const none = /^(no light|no led|dark|nothing|no blink(ing)?)$/.test(whole);
  if (none) return { light: 'no-light' };
  if (/^(no pattern|flickers?|flickering|irregular)$/.test(whole)) return { light: 'no-pattern' };
  for (const word of words) {
    const count = /^\d+$/.test(word) ? Number(word) : numbers[word];
    if (count !== undefined) {
      // What comes after the end of a code is no part of it.
      if (count < 1 || count > mostCount || after !== undefined) return undefined;
      groups.push(count);
    } else if (colours[word] !== undefined) {
      if (colour !== undefined && colour !== colours[word]) return undefined;
      colour = colours[word];
    } else if (afters[word] !== undefined) after = afters[word];
    else if (!filling.has(word)) return undefined;
  }
  const told = colour === undefined ? {} : { colour };
  if (groups.length === 0) return after === 'steady' ? { light: 'steady', ...told } : undefined;
  return groups.length <= mostGroups ? { groups, ...told, ...(after === undefined ? {} : { after }) } : undefined;
}
