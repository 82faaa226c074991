/** What people type into number fields. Undefined where it isn't one. */
import type { Bounds } from '@veglia/contract';

/** A number between two bounds; with `whole`, no fraction. A minus sign may be the printed one. */
export function parseBetween(typed: string, { least = -Infinity, most = Infinity }: Bounds, whole = false): number | undefined {
  const text = typed.trim().replace(',', '.').replace('\u2212', '-');
  if (!/^-?\d+(\.\d+)?$/.test(text)) return undefined;
  const value = Number(text);
  return value >= least && value <= most && (!whole || Number.isInteger(value)) ? value : undefined;
}

/** Letters beyond what the field takes; 0 where it fits. */
export const lettersTooMany = (typed: string, { longest = Infinity }: Bounds): number => Math.max(0, typed.trim().length - longest);
