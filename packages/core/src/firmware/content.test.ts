/**
 * What a dump holds, written before the rules. Signatures against what other programs make: gzip by zlib, ELF of the Node that runs this, a superblock by
 * mkfs.ext4 (e2fsprogs 1.47.0), the rest by their published layouts (values from memory where no program is named).
 */
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { describe, expect, test } from '@jest/globals';
import { ContentReader, contentRuns, type Content } from './content.ts';

const kib = 1024;
/** An erased dump with parts at their places. */
function dumpOf(size: number, parts: Readonly<Record<number, Uint8Array | string>> = {}): Uint8Array {
  const bytes = new Uint8Array(size).fill(0xff);
  for (const [at, part] of Object.entries(parts)) bytes.set(typeof part === 'string' ? new TextEncoder().encode(part) : part, Number(at));
  return bytes;
}
function read(bytes: Uint8Array, piece = 10_000): Content {
  const reader = new ContentReader(bytes.length);
  for (let at = 0; at < bytes.length; at += piece) reader.add(bytes.subarray(at, at + piece));
  return reader.end();
}
const noise = (length: number): Uint8Array => {
  let state = 1;
  return Uint8Array.from({ length }, () => {
    state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0;
    return state >>> 24;
  });
};
const kindsOf = ({ blocks }: Content): string[] => blocks.map(({ kind }) => kind);

describe('blocks', () => {
  test('erased, zero, text, program and packed data are told apart by their bytes', () => {
    const program = Uint8Array.from(
      { length: 4 * kib },
      (_, at) => [0x27, 0xbd, 0xff, 0xe0, 0xaf, 0xbf, 0x00, (at >> 3) & 0x1f][at & 7] ?? 0,
    );
    const bytes = dumpOf(20 * kib, {
      [4 * kib]: new Uint8Array(4 * kib),
      [8 * kib]: 'Press the remote key to go on. '.repeat(140).slice(0, 4 * kib),
      [12 * kib]: program,
      [16 * kib]: noise(4 * kib),
    });
    const found = read(bytes);
    expect(found.blockBytes).toBe(4 * kib);
    expect(kindsOf(found)).toEqual(['erased', 'zero', 'text', 'data', 'packed']);
    // Shannon's entropy, bits a byte: none where all are the same, at most eight.
    expect(found.blocks[0]?.entropy).toBe(0);
    expect(found.blocks[4]?.entropy).toBeGreaterThan(7.9);
  });
  test('entropy is Shannon’s: two values as often as each other are one bit, four are two', () => {
    const two = Uint8Array.from({ length: 4096 }, (_, at) => at & 1);
    const four = Uint8Array.from({ length: 4096 }, (_, at) => at & 3);
    expect(read(two).blocks[0]?.entropy).toBeCloseTo(1, 9);
    expect(read(four).blocks[0]?.entropy).toBeCloseTo(2, 9);
  });
  test('however it is cut, it is the same', () => {
    const bytes = dumpOf(70 * kib, { 5000: noise(9000), 30_000: 'version 2.31 built 2026-02-11\0', 40_000: gzipSync(noise(500)) });
    for (const piece of [1000, 4096, 70 * kib]) expect(read(bytes, piece)).toEqual(read(bytes, 777));
  });
  test('neighbours of one kind are one run, which ends where the dump does, with their mean entropy', () => {
    const content: Content = {
      bytes: 4 * 4096 + 100,
      blockBytes: 4096,
      blocks: [
        { kind: 'data', entropy: 5 },
        { kind: 'data', entropy: 6 },
        { kind: 'erased', entropy: 0 },
        { kind: 'packed', entropy: 7.9 },
        { kind: 'packed', entropy: 7.7 },
      ],
      signatures: [],
      strings: [],
      versions: [],
    };
    expect(contentRuns(content)).toEqual([
      { kind: 'data', from: 0, to: 8192, entropy: 5.5 },
      { kind: 'erased', from: 8192, to: 12_288, entropy: 0 },
      { kind: 'packed', from: 12_288, to: 16_484, entropy: expect.closeTo(7.8, 9) },
    ]);
  });
  test('a gigabyte has no more blocks than fit on a chart', () => {
    const reader = new ContentReader(2 ** 30);
    reader.add(new Uint8Array(16));
    expect(reader.end().blockBytes).toBe(2 ** 21);
  });
});

describe('what stands where', () => {
  const superblock = Buffer.from(readFileSync(new URL('fixture-ext4.hex', import.meta.url), 'utf8').trim(), 'hex');
  const gpt = (): Uint8Array => {
    const bytes = new Uint8Array(1024);
    bytes.set([0x55, 0xaa], 510);
    bytes.set(new TextEncoder().encode('EFI PART'), 512);
    return bytes;
  };
  test.each<readonly [string, string, Uint8Array | string, number]>([
    ['gzip', 'gzip', gzipSync(noise(2000)), 0x5000],
    ['xz', 'xz', Uint8Array.from([0xfd, 0x37, 0x7a, 0x58, 0x5a, 0x00, 0x00, 0x04]), 0x6001],
    ['a program of this machine', 'elf', readFileSync(process.execPath).subarray(0, 64), 0x7000],
    ['SquashFS, little-endian', 'squashfs', Uint8Array.from([0x68, 0x73, 0x71, 0x73, 1, 0, 0, 0]), 0x8000],
    ['a U-Boot image', 'uimage', Uint8Array.from([0x27, 0x05, 0x19, 0x56]), 0x9000],
    ['UBI', 'ubi', 'UBI#\u0001\0\0\0', 0xa000],
    ['an Android boot image', 'android-boot', 'ANDROID!', 0xb000],
    ['a device tree', 'device-tree', Uint8Array.from([0xd0, 0x0d, 0xfe, 0xed, 0, 0, 0x10, 0, 0, 0, 0, 0x38]), 0xc000],
  ])('%s is found at its place', (_, kind, part, at) => {
    expect(read(dumpOf(0x1_0000, { [at]: part })).signatures).toEqual([{ kind, at }]);
  });
  test('a file system made by mkfs.ext4 is found where it begins, not where its magic stands', () => {
    expect(read(dumpOf(0x1_0000, { [0x4000 + 1024]: superblock })).signatures).toEqual([{ kind: 'ext', at: 0x4000 }]);
  });
  test('partition tables: a GPT is one, with the record before it', () => {
    expect(read(dumpOf(0x4000, { 0: gpt() })).signatures.map(({ kind }) => kind)).toEqual(['mbr', 'gpt']);
  });
  test('two bytes that happen to look like a magic are no file system', () => {
    const stray = new Uint8Array(2048);
    stray.set([0x53, 0xef], 1080);
    expect(read(dumpOf(0x4000, { 0: stray })).signatures).toEqual([]);
  });
  test('strings of eight and more, with versions and dates picked out', () => {
    const found = read(dumpOf(0x8000, { 0x100: 'VNBT start 2.31 built 2026-02-11\0', 0x4000: 'short\0', 0x5000: 'panel id table\0' }));
    expect(found.strings.map(({ text }) => text)).toEqual(['VNBT start 2.31 built 2026-02-11', 'panel id table']);
    expect(found.versions).toEqual([{ at: 0x100, text: 'VNBT start 2.31 built 2026-02-11' }]);
  });
});
