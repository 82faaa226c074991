/** Settings after a flash: which one a picture asks for, what was tried, what comes next. */
import { pictureLooks, type FlashDid } from '../ledger/index.ts';

/** What a picture looks like after a start on other content. */
export type PictureLook = (typeof pictureLooks)[number];
/** Settings that a picture asks for, in the order of the work: the panel first, then mapping, then mirror. */
export type PictureSetting = 'panel-id' | 'mapping' | 'mirror' | 'backlight';

const asksFor: Readonly<Record<PictureLook, PictureSetting | undefined>> = {
  right: undefined,
  'upside-down': 'mirror',
  mirrored: 'mirror',
  'wrong-colours': 'mapping',
  striped: 'mapping',
  doubled: 'panel-id',
  'no-picture': 'panel-id',
  'too-dark': 'backlight',
};
/** Undefined: nothing is left to set for the picture. */
export const settingFor = (shows: PictureLook): PictureSetting | undefined => asksFor[shows];

/** Values of a setting that were tried, oldest first, each with what its last look showed. */
export function triedValues(did: readonly FlashDid[], name: string): { readonly to: string; readonly shows?: PictureLook }[] {
  const tried = new Map<string, { to: string; shows?: PictureLook }>();
  for (const one of did) {
    if (one.step !== 'setting' || one.name.toLowerCase() !== name.trim().toLowerCase()) continue;
    tried.delete(one.to.toLowerCase());
    tried.set(one.to.toLowerCase(), { to: one.to, ...(one.shows === undefined ? {} : { shows: one.shows }) });
  }
  return [...tried.values()];
}

const hexadecimal = /^0x[0-9a-f]+$/i;
/** The first whole number from 0 on that is not among them, written as they are; undefined where they are no numbers. */
export function nextValue(tried: readonly string[]): string | undefined {
  const hex = tried.length > 0 && tried.every((one) => hexadecimal.test(one));
  if (!hex && !tried.every((one) => /^\d+$/.test(one))) return undefined;
  const numbers = new Set(tried.map((one) => Number(one)));
  let next = 0;
  while (numbers.has(next)) next += 1;
  return hex ? `0x${next.toString(16).padStart((tried[0]?.length ?? 4) - 2, '0')}` : String(next);
}
