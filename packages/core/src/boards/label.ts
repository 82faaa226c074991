/** What is printed at a pin, read with the pack’s list of labels. */
import type { CompiledPack, LabelEntry } from '../knowledge/index.ts';

/** A printed label, read. */
export interface ReadLabel {
  readonly entry?: LabelEntry;
  /** Named by the label itself. */
  readonly volts?: number;
}

/** "5V", "12.3V", "3V3": below ten, digits behind the V are the decimals; above, the number of the rail. */
const named = /[+]?(\d{1,3})(?:[.,](\d{1,2}))?V(\d{0,2})(?![A-Z]*\d*[.,])/;

function split(label: string): { readonly word: string; readonly volts?: number } {
  const text = label.toUpperCase().normalize('NFKC');
  const found = named.exec(text);
  const rest = (found ? text.replace(found[0], ' ') : text).replace(/[^A-Z0-9+]/g, '');
  if (!found) return { word: rest };
  const [, whole = '', decimals = '', behind = ''] = found;
  const part = decimals !== '' ? decimals : Number(whole) < 10 ? behind : '';
  return { word: rest, volts: Number(part === '' ? whole : `${whole}.${part}`) };
}

/** Undefined entry where the list has no such label. */
export function readLabel(label: string, compiled: CompiledPack): ReadLabel {
  const { word, volts } = split(label);
  const list = compiled.pack.labels;
  const without = word.replace(/\d+$/, '');
  const entry =
    word === ''
      ? volts === undefined
        ? undefined
        : list.find(({ bare }) => bare)
      : (list.find(({ labels }) => labels.includes(word)) ?? list.find(({ labels }) => labels.includes(without)));
  return { ...(entry ? { entry } : {}), ...(volts === undefined ? {} : { volts }) };
}

/** The layout’s point that a label on this plug or board stands for. */
export function pointOfLabel(label: string, on: string, layout: string, compiled: CompiledPack): string | undefined {
  const points = compiled.layouts.get(layout)?.points ?? {};
  return readLabel(label, compiled).entry?.points?.find((id) => points[id]?.on === on);
}
