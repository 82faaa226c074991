/**
 * What in a dump belongs to this one set: serial number, hardware addresses, keys, adjustment. A foreign image takes it away, so it is found, named and put
 * back. Found is what says what it is; the rest shows only where two sets of one board differ.
 */
import type { DumpComparison } from './compare.ts';
import { samePrinted } from './fit.ts';

/** Kinds of own content. */
export const ownKinds = ['serial', 'address', 'keys', 'calibration', 'boot', 'other'] as const;
/** A place in a dump, bytes from the start; `to` is behind the last. */
export interface OwnPlace {
  readonly from: number;
  readonly to: number;
  readonly kind: (typeof ownKinds)[number];
}
/** As many are named of one dump. */
export const mostOwnPlaces = 64;
/** Dumps beyond this are not searched: their own content stands in files of a file system, bytes. */
const mostSearched = 2 ** 26;
/** A private key in text is shorter, and so is what reaches over a cut. */
const overlap = 8192;
/** A shorter serial number stands in random bytes as well. */
const leastSerial = 5;

const address = /(?<![0-9A-Fa-f:-])(?:[0-9A-Fa-f]{2}[:-]){5}[0-9A-Fa-f]{2}(?![0-9A-Fa-f:-])/g;
const named = [
  {
    kind: 'address',
    pattern: /(?:mac(?:[_-]?addr(?:ess)?)?|ethaddr|wlan_?addr|bd_?addr)["']?\s*[=:]\s*["']?([0-9A-Fa-f]{12})(?![0-9A-Fa-f])/gi,
  },
  { kind: 'serial', pattern: /(?:serial(?:[_-]?n(?:o|umber))?|(?<![a-z])sn)["']?\s*[=:]\s*["']?([A-Za-z0-9][A-Za-z0-9-]{5,40})/gi },
] as const;
const privateKey = /-----BEGIN [A-Z ]{0,20}PRIVATE KEY-----[\s\S]{16,8000}?-----END [A-Z ]{0,20}PRIVATE KEY-----/g;

/** Neither a placeholder nor a group: all digits alike, or counted up. */
function isOneDevices(text: string): boolean {
  const bytes = (text.replaceAll(/[:-]/g, '').match(/../g) ?? []).map((byte) => Number.parseInt(byte, 16));
  const [first = 1, second = 0] = bytes;
  const step = second - first;
  return first % 2 === 0 && bytes.some((byte, index) => index > 0 && byte - (bytes[index - 1] ?? 0) !== step);
}
const looksLikeSerial = (text: string): boolean => text.replaceAll(/\D/g, '').length >= 3;

/** Searches a dump: add pieces in order, then `end`. `serials`: of the set, as printed on it. */
export class OwnFinder {
  private readonly found = new Map<string, OwnPlace>();
  private readonly serials: readonly string[];
  private tail = '';
  private at = 0;

  constructor(serials: readonly string[] = []) {
    this.serials = serials.map((one) => one.trim()).filter((one) => one.length >= leastSerial);
  }

  add(piece: Uint8Array): void {
    if (this.at <= mostSearched && this.found.size < mostOwnPlaces) {
      const text = this.tail + latin(piece);
      this.search(text, this.at - this.tail.length);
      this.tail = text.slice(-overlap);
    }
    this.at += piece.length;
  }

  /** In order of place. */
  end(): OwnPlace[] {
    return [...this.found.values()].toSorted((a, b) => a.from - b.from).slice(0, mostOwnPlaces);
  }

  private search(text: string, from: number): void {
    const note = (kind: OwnPlace['kind'], at: number, length: number): void => {
      const place = { from: from + at, to: from + at + length, kind };
      // Over a cut the same is seen twice, and of a cut one only its end.
      for (const [key, one] of this.found) {
        if (one.from <= place.from && place.to <= one.to) return;
        if (place.from <= one.from && one.to <= place.to) this.found.delete(key);
      }
      this.found.set(`${place.from}`, place);
    };
    for (const one of this.serials)
      for (let at = text.indexOf(one); at >= 0; at = text.indexOf(one, at + one.length)) note('serial', at, one.length);
    for (const found of text.matchAll(address)) if (isOneDevices(found[0])) note('address', found.index, found[0].length);
    for (const found of text.matchAll(privateKey)) note('keys', found.index, found[0].length);
    for (const { kind, pattern } of named)
      for (const found of text.matchAll(pattern)) {
        const value = found[1] ?? '';
        if (kind === 'address' ? isOneDevices(value) : looksLikeSerial(value))
          note(kind, found.index + found[0].length - value.length, value.length);
      }
  }
}
const latin = (bytes: Uint8Array): string => {
  let text = '';
  for (let at = 0; at < bytes.length; at += 4096) text += String.fromCharCode(...bytes.subarray(at, at + 4096));
  return text;
};

/** Two dumps of one board that differ in no more than this share hold one version (value of ours). */
const mostOwnShare = 0.1;
/** Places nearer than this are one, bytes. */
const oneBlock = 256;

/**
 * Where two dumps of one board and version differ: what each has of its own. Nothing where they differ all over, in size, or by an empty one; bits that fell
 * or rose one at a time are errors of a chip and belong to nobody.
 */
export function ownByDifference({ sizes, places, morePlaces, differingBytes, rose, fell, findings }: DumpComparison): OwnPlace[] {
  const differing = places.reduce((sum, { bytes, empty }) => sum + (empty ? 0 : bytes), 0);
  if (findings[0] === 'equal' || sizes[0] !== sizes[1] || morePlaces > 0 || differing > mostOwnShare * sizes[0]) return [];
  if (findings.some((one) => one.endsWith('-erased') || one.endsWith('-zero'))) return [];
  if (rose + fell <= differingBytes) return [];
  const joined: { from: number; to: number; kind: 'other' }[] = [];
  for (const { from, to, empty } of places) {
    // A block that one of them lost is nobody’s own.
    if (empty) continue;
    const before = joined.at(-1);
    if (before && from - before.to < oneBlock) before.to = to;
    else joined.push({ from, to, kind: 'other' });
  }
  return joined.length > mostOwnPlaces ? [] : joined;
}

/** Two lists as one: what overlaps is one place, of the kind that says more. */
export function joinOwn(...lists: readonly (readonly OwnPlace[])[]): OwnPlace[] {
  const joined: OwnPlace[] = [];
  for (const one of lists.flat().toSorted((a, b) => a.from - b.from || b.to - a.to)) {
    const before = joined.at(-1);
    if (!before || one.from >= before.to) joined.push(one);
    else
      joined.splice(-1, 1, { from: before.from, to: Math.max(before.to, one.to), kind: before.kind === 'other' ? one.kind : before.kind });
  }
  return joined;
}

/** What is known of an image for this. */
export interface OwnImage {
  readonly size: number;
  readonly memory: string;
  readonly area: string;
  readonly board?: string | undefined;
  readonly own?: readonly OwnPlace[] | undefined;
}
/** Why own content can’t be put into an image. */
export type OwnRefused = 'nothing-marked' | 'size-differs' | 'memory-differs' | 'board-differs' | 'board-unknown';

/** Undefined: it can. It stands at the same places only where board, memory and size are the same. */
export function ownRefused(into: OwnImage, from: OwnImage): OwnRefused | undefined {
  if ((from.own ?? []).length === 0) return 'nothing-marked';
  if (into.memory !== from.memory || into.area !== from.area) return 'memory-differs';
  if (into.size !== from.size) return 'size-differs';
  if (into.board === undefined || from.board === undefined) return 'board-unknown';
  return samePrinted(into.board, from.board) ? undefined : 'board-differs';
}
