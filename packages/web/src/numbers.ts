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

/** Texts without the words that all of them begin with, where each still says something; otherwise as they are. */
export function withoutCommonStart(texts: readonly string[]): string[] {
  const words = texts.map((text) => text.split(' '));
  const [first = []] = words;
  let same = 0;
  const bare = (word: string | undefined): string | undefined => word?.replace(/,$/, '');
  while (first.length > same && words.every((one) => bare(one[same]) === bare(first[same]))) same += 1;
  const rest = words.map((one) => one.slice(same).join(' '));
  return texts.length > 1 && rest.every((text) => text !== '') ? rest : [...texts];
}
