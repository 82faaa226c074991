/** A reading as a bench types it. */

/** What a meter shows that finds no way through, Ω: more than any bench meter reads. */
export const noWayThroughOhms = 1e9;

/** A reading, read. */
export interface TypedReading {
  /** Volts or ohms, without prefix. */
  readonly value: number;
  /** Left out where only a number, or a prefix of both, was typed. */
  readonly unit?: 'volts' | 'ohms';
}

/** What a prefix is worth; of letters that differ only in size a small m is a thousandth, a big one a million. */
const prefixes: Readonly<Record<string, number>> = { '': 1, u: 1e-6, µ: 1e-6, m: 1e-3, k: 1e3, K: 1e3, M: 1e6 };
const units: Readonly<Record<string, 'volts' | 'ohms'>> = {
  v: 'volts',
  volt: 'volts',
  volts: 'volts',
  r: 'ohms',
  ω: 'ohms',
  ohm: 'ohms',
  ohms: 'ohms',
};

/** "5.1", "5,1 V", "420 mV", "4.7k", "2M2", and a letter in the decimal point's place: "4k7", "3V3", "0R22". "OL" is no way through. */
export function parseReading(typed: string): TypedReading | undefined {
  const text = typed.trim().normalize('NFKC');
  if (/^o[.]?l$/i.test(text)) return { value: noWayThroughOhms, unit: 'ohms' };
  const within = /^(\d{1,9})([kKMrRvV])(\d{1,6})$/.exec(text);
  if (within) {
    const [, whole = '', letter = '', part = ''] = within;
    const number = Number(`${whole}.${part}`);
    const unit = units[letter.toLowerCase()];
    return unit ? { value: number, unit } : { value: scaled(number, letter), unit: 'ohms' };
  }
  const match = /^(-?\d{1,12}(?:[.,]\d{1,9})?) ?([uµμmkKM]?)([a-zA-ZΩω]*)$/.exec(text);
  if (!match) return undefined;
  const [, number = '', prefix = '', word = ''] = match;
  const unit = word === '' ? undefined : units[word.toLowerCase()];
  if (word !== '' && unit === undefined) return undefined;
  const value = scaled(Number(number.replace(',', '.')), prefix === 'μ' ? 'µ' : prefix);
  // Ohms are typed with a big prefix alone; a bare k or M is never volts.
  const byPrefix = word === '' && /[kKM]/.test(prefix) ? { unit: 'ohms' as const } : {};
  return { value, ...(unit === undefined ? byPrefix : { unit }) };
}

/** Without the dust that binary fractions leave. */
const scaled = (number: number, prefix: string): number => Number((number * (prefixes[prefix] ?? Number.NaN)).toPrecision(12));
