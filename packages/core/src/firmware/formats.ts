/**
 * Image files. Raw: the bytes as they are. Intel HEX: records 00 (data), 01 (end), 02 and 04 (upper address), 03 and 05 (start, passed over). Motorola S-record:
 * S0 (header, passed over), S1 to S3 (data by 16, 24, 32-bit address), S5 and S6 (count of data records), S7 to S9 (end); a file whose last record is the right
 * count is complete without an end.
 * What no record names reads FF, as an erased chip does. Not supported: records that wrap over 64 KiB, overlapping records.
 */
/** Kinds of image files. */
export const imageFormats = ['raw', 'intel-hex', 's-record'] as const;
/** A file that was read; addresses in bytes. */
export interface ImageFile {
  readonly format: (typeof imageFormats)[number];
  readonly bytes: Uint8Array;
  /** Address of the first byte. */
  readonly from: number;
  /** Places no record names, from and to before which, as addresses. */
  readonly gaps: readonly (readonly [number, number])[];
}
/** Why a file is refused. */
export const fileReasons = ['checksum', 'length', 'type', 'count', 'overlap', 'no-end', 'after-end', 'too-large', 'unreadable'] as const;
/** A file that can’t be read: its first bad line, counted from 1, and why. */
export interface FileRefused {
  readonly line: number;
  readonly reason: (typeof fileReasons)[number];
}

/** From the lowest to the highest address of a text file: larger memories are not kept as text (value of ours). */
export const mostTextSpan = 256 * 2 ** 20;
/** Text files are told from bytes by so many at their beginning. */
const lookBytes = 4096;

type Block = readonly [address: number, bytes: Uint8Array, line: number];

/** By content, never by name. A file that begins like one of the text formats and breaks its rules is refused, not taken for bytes. */
export function readImageFile(file: Uint8Array): ImageFile | FileRefused {
  const head = latin1(file.subarray(0, lookBytes));
  if (/^\s*:[0-9a-f]{10,}\s/i.test(head)) return readIntelHex(latin1(file));
  if (/^\s*s[0-9][0-9a-f]{8,}\s/i.test(head)) return readSRecord(latin1(file));
  return { format: 'raw', bytes: file, from: 0, gaps: [] };
}

function latin1(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let at = 0; at < bytes.length; at += 8192) parts.push(String.fromCharCode(...bytes.subarray(at, at + 8192)));
  return parts.join('');
}

const linesOf = (text: string): string[] => text.trimEnd().split(/\r\n|\r|\n/);
const bytesOf = (hex: string): Uint8Array => Uint8Array.from(hex.match(/../g) ?? [], (two) => Number.parseInt(two, 16));
const sumOf = (bytes: Uint8Array): number => bytes.reduce((sum, byte) => sum + byte, 0) & 0xff;

// The kept library (nrf-intel-hex) takes no address above 2 GiB, where the flash of some processors lies; the tests read with both.
function readIntelHex(text: string): ImageFile | FileRefused {
  const blocks: Block[] = [];
  let [upper, ended] = [0, false];
  const lines = linesOf(text);
  for (const [index, raw] of lines.entries()) {
    const line = index + 1;
    if (raw.trim() === '') continue;
    const [, hex = ''] = /^:((?:[0-9a-f]{2})+)$/i.exec(raw.trim()) ?? [];
    const bytes = bytesOf(hex);
    if (bytes.length < 5) return { line, reason: 'unreadable' };
    if (ended) return { line, reason: 'after-end' };
    const [length = 0, high = 0, low = 0, type = 0] = bytes;
    const data = bytes.subarray(4, -1);
    if (length !== data.length) return { line, reason: 'length' };
    if (sumOf(bytes) !== 0) return { line, reason: 'checksum' };
    const [first = 0, second = 0] = data;
    const offset = high * 256 + low;
    if (type === 0 && offset + length > 0x10000) return { line, reason: 'too-large' };
    if (type === 0) blocks.push([upper + offset, data, line]);
    else if (type === 1) ended = true;
    else if ((type === 2 || type === 4) && length === 2) upper = (first * 256 + second) * (type === 2 ? 16 : 0x10000);
    else if (type > 5 || length !== 4) return { line, reason: type > 5 ? 'type' : 'length' };
  }
  return ended ? joined('intel-hex', blocks) : { line: lines.length, reason: 'no-end' };
}

const addressBytes: Readonly<Record<string, number>> = { 0: 2, 1: 2, 2: 3, 3: 4, 5: 2, 6: 3, 7: 4, 8: 3, 9: 2 };

function readSRecord(text: string): ImageFile | FileRefused {
  const blocks: Block[] = [];
  let [ended, counted] = [false, false];
  const lines = linesOf(text);
  for (const [index, raw] of lines.entries()) {
    const line = index + 1;
    const [, type = '', hex = ''] = /^s([0-9])((?:[0-9a-f]{2})+)$/i.exec(raw.trim()) ?? [];
    if (raw.trim() === '') continue;
    if (hex === '') return { line, reason: 'unreadable' };
    if (ended) return { line, reason: 'after-end' };
    const width = addressBytes[type];
    if (width === undefined) return { line, reason: 'type' };
    const bytes = bytesOf(hex);
    if (bytes[0] !== bytes.length - 1 || bytes.length < width + 2) return { line, reason: 'length' };
    if (sumOf(bytes) !== 0xff) return { line, reason: 'checksum' };
    const address = bytes.subarray(1, 1 + width).reduce((sum, byte) => sum * 256 + byte, 0);
    counted = type === '5' || type === '6';
    if (counted) {
      // A count in two bytes starts again at 65,536.
      if (address !== blocks.length % 256 ** width) return { line, reason: 'count' };
    } else if (type >= '7') ended = true;
    else if (type !== '0') blocks.push([address, bytes.subarray(1 + width, -1), line]);
  }
  return ended || counted ? joined('s-record', blocks) : { line: lines.length, reason: 'no-end' };
}

function joined(format: ImageFile['format'], blocks: readonly Block[]): ImageFile | FileRefused {
  const sorted = blocks.filter(([, { length }]) => length > 0).sort(([a, , first], [b, , second]) => a - b || first - second);
  const [lowest] = sorted;
  if (!lowest) return { line: 1, reason: 'unreadable' };
  const [from] = lowest;
  const end = sorted.reduce((most, [address, { length }]) => Math.max(most, address + length), 0);
  if (end - from > mostTextSpan) return { line: sorted.at(-1)?.[2] ?? 1, reason: 'too-large' };
  const bytes = new Uint8Array(end - from).fill(0xff);
  const gaps: [number, number][] = [];
  let at = from;
  for (const [address, block, line] of sorted) {
    if (address < at) return { line, reason: 'overlap' };
    if (address > at) gaps.push([at, address]);
    bytes.set(block, address - from);
    at = address + block.length;
  }
  return { format, bytes, from, gaps };
}
