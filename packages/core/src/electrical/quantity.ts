/** Numbers with units as people write them, in SI: "4k7", "10u", "332 mΩ", "3V3", "77 °F". And back, with an engineering prefix. */

/** Units of the bench. */
export const units = ['V', 'A', 'Ω', 'F', 'W', 'J', 's', 'Hz', '°C', '%', ''] as const;
/** One of `units`; the empty one is a bare number. */
export type Unit = (typeof units)[number];

/** SI prefixes (ISO 80000-1) as far as a bench uses them; of letters that differ only in size m is a thousandth, M a million. */
const prefixes: Readonly<Record<string, number>> = { p: 1e-12, n: 1e-9, u: 1e-6, µ: 1e-6, m: 1e-3, '': 1, k: 1e3, K: 1e3, M: 1e6, G: 1e9 };
/** In lower case. */
const spelt: Readonly<Record<Unit, readonly string[]>> = {
  V: ['v', 'volt', 'volts'],
  A: ['a', 'amp', 'amps'],
  Ω: ['ω', 'ohm', 'ohms', 'r'],
  F: ['f'],
  W: ['w', 'watt', 'watts'],
  J: ['j'],
  s: ['s', 'sec', 'seconds'],
  Hz: ['hz'],
  '°C': ['°c', 'c'],
  '%': ['%'],
  '': [],
};

/** What stands before the unit; undefined where the unit is another one. */
function prefixOf(word: string, unit: Unit): string | undefined {
  if (Object.hasOwn(prefixes, word)) return word;
  for (const name of spelt[unit]) {
    const before = word.toLowerCase().endsWith(name) ? word.slice(0, -name.length) : undefined;
    if (before !== undefined && Object.hasOwn(prefixes, before)) return before;
  }
  return undefined;
}

/** Without the dust that binary fractions leave. */
const clean = (value: number): number => Number(value.toPrecision(12));

/** Undefined for what is no number in this unit. Prefixes are for units that take them: not for °C, % and bare numbers. */
export function parseQuantity(typed: string, unit: Unit): number | undefined {
  const text = typed
    .trim()
    .normalize('NFKC')
    .replace(/\u2212/g, '-')
    .replace(/μ/g, 'µ')
    .replace(/\u03a9|\u2126/g, 'Ω');
  const number = /^([+-]?(?:\d{1,12}(?:[.,]\d{1,12})?|[.,]\d{1,12})) ?(.*)$/.exec(text);
  if (unit === '°C') {
    const degrees = /^([+-]?\d{1,4}(?:[.,]\d{1,3})?) ?(?:°? ?([CcFf]))?$/.exec(text);
    if (!degrees) return undefined;
    const value = Number((degrees[1] ?? '').replace(',', '.'));
    return /f/i.test(degrees[2] ?? '') ? clean(((value - 32) * 5) / 9) : value;
  }
  // A letter in the decimal point's place: the prefix, or R and V for none.
  const within = /^(\d{1,9})([pnuµmkKMGRrVv])(\d{1,6}) ?(.*)$/.exec(text);
  if (within) {
    const [, whole = '', letter = '', part = '', word = ''] = within;
    const bare = /[RrVv]/.test(letter);
    if (bare && unit !== (letter.toUpperCase() === 'R' ? 'Ω' : 'V')) return undefined;
    if (word !== '' && !spelt[unit].includes(word.toLowerCase())) return undefined;
    return clean(Number(`${whole}.${part}`) * (bare ? 1 : (prefixes[letter] ?? Number.NaN)));
  }
  const leading = unit === 'Ω' ? /^[Rr](\d{1,6})$/.exec(text) : null;
  if (leading) return clean(Number(`0.${leading[1]}`));
  if (!number) return undefined;
  const value = Number((number[1] ?? '').replace(',', '.'));
  const word = number[2] ?? '';
  if (unit === '' || unit === '%') return word === '' || word === unit ? value : undefined;
  const prefix = prefixOf(word, unit);
  return prefix === undefined || !Number.isFinite(value) ? undefined : clean(value * (prefixes[prefix] ?? Number.NaN));
}

const steps = [
  [1e9, 'G'],
  [1e6, 'M'],
  [1e3, 'k'],
  [1, ''],
  [1e-3, 'm'],
  [1e-6, 'µ'],
  [1e-9, 'n'],
  [1e-12, 'p'],
] as const;

/** "4.7 kΩ", "150 µF", "25 °C"; three figures unless more are asked for. */
export function formatQuantity(value: number, unit: Unit, figures = 3): string {
  const plain = (number: number): string => String(Number(number.toPrecision(figures)));
  if (unit === '' || unit === '%' || unit === '°C') return unit === '' ? plain(value) : `${plain(value)} ${unit}`;
  const size = Math.abs(Number(value.toPrecision(figures)));
  const [scale, prefix] = size === 0 ? ([1, ''] as const) : (steps.find(([one]) => size >= one) ?? ([1e-12, 'p'] as const));
  return `${plain(value / scale)} ${prefix}${unit}`;
}
