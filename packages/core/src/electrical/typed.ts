/** A reading as a bench types it. */
import { parseQuantity } from './quantity.ts';

/** What a meter shows that finds no way through, Ω: more than any bench meter reads. */
export const noWayThroughOhms = 1e9;

/** A reading, read. */
export interface TypedReading {
  /** Volts or ohms, without prefix. */
  readonly value: number;
  /** Left out where only a number, or a prefix of both, was typed. */
  readonly unit?: 'volts' | 'ohms';
}

/** "5.1", "5,1 V", "420 mV", "4.7k", "2M2", and a letter in the decimal point's place: "4k7", "3V3", "0R22". "OL" is no way through. */
export function parseReading(typed: string): TypedReading | undefined {
  const text = typed.trim();
  if (/^o[.]?l$/i.test(text)) return { value: noWayThroughOhms, unit: 'ohms' };
  // No bench meter shows so little or so much: a slip of the hand.
  if (/[pnG]/.test(text)) return undefined;
  const [volts, ohms] = [parseQuantity(text, 'V'), parseQuantity(text, 'Ω')];
  if (volts === undefined) return ohms === undefined ? undefined : { value: ohms, unit: 'ohms' };
  if (ohms === undefined) return { value: volts, unit: 'volts' };
  // Either would do. Ohms are typed with a big prefix alone; a bare k or M is never volts.
  return { value: volts, ...(/[kKM]/.test(text) ? { unit: 'ohms' as const } : {}) };
}
