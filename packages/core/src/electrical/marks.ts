/**
 * Marks on small parts: IEC 60062 (from memory of the standard). Digits and a power of ten, picofarads for capacitors and ohms for resistors; a letter
 * in the decimal point's place; a letter behind for the tolerance. Colour bands and date codes are not supported.
 */
import { parseQuantity } from './quantity.ts';

const tolerances: Readonly<Record<string, number>> = { B: 0.1, C: 0.25, D: 0.5, F: 1, G: 2, J: 5, K: 10, M: 20 };

/** Value in farads or ohms; tolerance in percent where it is marked. */
export interface ReadMark {
  readonly value: number;
  readonly tolerancePercent?: number;
}

/** Undefined for what is no such mark. */
export function readMark(mark: string, kind: 'capacitor' | 'resistor'): ReadMark | undefined {
  const text = mark.trim().replace(/\s+/g, '');
  const behind = /^(.*\d[a-zA-Z]?\d*)([BCDFGJKM])$/.exec(text);
  const [bare, letter] =
    behind && !(kind === 'resistor' && /^\d+[kKM]$/.test(text)) && behind[1] ? [behind[1], behind[2]] : [text, undefined];
  const tolerance = letter === undefined ? {} : { tolerancePercent: tolerances[letter] ?? 0 };
  const unit = kind === 'capacitor' ? 'F' : 'Ω';
  const digits = /^(\d{2,3})(\d)$/.exec(bare);
  if (digits && bare.length >= 3) {
    const [, figures = '', power = ''] = digits;
    const value = Number(figures) * 10 ** Number(power) * (kind === 'capacitor' ? 1e-12 : 1);
    return { value: Number(value.toPrecision(6)), ...tolerance };
  }
  if (kind === 'resistor' && /^0+$/.test(bare)) return { value: 0, ...tolerance };
  if (!/[a-zA-Zµ]/.test(bare)) return undefined;
  const value = parseQuantity(bare, unit);
  return value === undefined ? undefined : { value, ...tolerance };
}
