/** What a serial flash says of itself: the table of JEDEC's JESD216 ("SFDP"), its basic parameters (layout from memory, one chip against flashrom). */

/** How it erases: bytes at once, and the command. */
export interface SfdpErase {
  readonly bytes: number;
  readonly opcode: number;
}
/** What the table says. */
export interface Sfdp {
  readonly revision: string;
  /** Of the chip. */
  readonly bytes: number;
  /** Bytes of an address: over 16 MiB three of them reach only the beginning. */
  readonly addressBytes: '3' | '3-or-4' | '4';
  /** Smallest first. */
  readonly erases: readonly SfdpErase[];
  /** Written at once; only later revisions say it. */
  readonly pageBytes?: number;
  /** Numbers of all its tables, hexadecimal; 00 is the basic one. */
  readonly tables: readonly string[];
}
/** Why there is none. */
export type SfdpRefused = 'no-signature' | 'no-basic-table' | 'cut-off' | 'not-possible';

const signature = [0x53, 0x46, 0x44, 0x50];
const headerBytes = 8;
/** A basic table has nine words of four bytes since the first revision; the eleventh came with the second. */
const leastWords = 9;
const pageWord = 11;
/** Of a chip in bytes; 2^40 bits is more than any serial flash. */
const mostBits = 2 ** 40;
/** Erases at once at most this much, as a power of two. */
const largestErase = 31;

/** Whether bytes begin like such a table. */
export const beginsAsSfdp = (bytes: Uint8Array): boolean => signature.every((byte, index) => bytes[index] === byte);

/** Reads a table from its first byte on, as a programmer reads it from address 0. */
export function readSfdp(bytes: Uint8Array): Sfdp | { readonly refused: SfdpRefused } {
  const at = (place: number): number => bytes[place] ?? 0;
  if (!beginsAsSfdp(bytes)) return { refused: 'no-signature' };
  const headers = Array.from({ length: at(6) + 1 }, (_, index) => headerBytes * (index + 1));
  if (bytes.length < headerBytes * (headers.length + 1)) return { refused: 'cut-off' };
  // Of several basic tables the last is the newest.
  const basic = headers.findLast((place) => at(place) === 0);
  if (basic === undefined) return { refused: 'no-basic-table' };
  const words = at(basic + 3);
  const from = at(basic + 4) | (at(basic + 5) << 8) | (at(basic + 6) << 16);
  if (words < leastWords) return { refused: 'no-basic-table' };
  if (bytes.length < from + words * 4) return { refused: 'cut-off' };
  const word = (number: number): number => {
    const place = from + (number - 1) * 4;
    return (at(place) | (at(place + 1) << 8) | (at(place + 2) << 16) | (at(place + 3) << 24)) >>> 0;
  };
  const density = word(2);
  // Its number less one, or a power of two.
  const bits = density >= 2 ** 31 ? 2 ** (density - 2 ** 31) : density + 1;
  const addressing = (['3', '3-or-4', '4'] as const)[(word(1) >>> 17) & 3];
  if (addressing === undefined || bits % 8 !== 0 || bits > mostBits) return { refused: 'not-possible' };
  const types = [word(8) & 0xffff, word(8) >>> 16, word(9) & 0xffff, word(9) >>> 16];
  const erases = types.map((one) => ({ power: one & 0xff, opcode: one >>> 8 })).filter(({ power }) => power !== 0);
  if (erases.some(({ power }) => power > largestErase)) return { refused: 'not-possible' };
  return {
    revision: `${at(5)}.${at(4)}`,
    bytes: bits / 8,
    addressBytes: addressing,
    erases: erases.map(({ power, opcode }) => ({ bytes: 2 ** power, opcode })).toSorted((a, b) => a.bytes - b.bytes),
    ...(words >= pageWord ? { pageBytes: 2 ** ((word(pageWord) >>> 4) & 15) } : {}),
    tables: headers.map((place) => at(place).toString(16).padStart(2, '0')),
  };
}
