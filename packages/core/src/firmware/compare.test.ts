import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compareCases } from './compareCases.ts';
import { DumpComparer, mostPlaces } from './compare.ts';

const bytesOf = (text: string): Uint8Array =>
  Uint8Array.from(
    text.split(' ').flatMap((one) => {
      const [value = '', times = '1'] = one.split('*');
      return Array.from({ length: Number(times) }, () => Number.parseInt(value, 16));
    }),
  );
const compare = (a: Uint8Array, b: Uint8Array, piece = 7) => {
  const comparer = new DumpComparer();
  for (let at = 0; at < Math.max(a.length, b.length); at += piece) comparer.add(a.subarray(at, at + piece), b.subarray(at, at + piece));
  return comparer.end();
};

describe('two dumps', () => {
  test.each(compareCases)('$name', ({ a, b, first, differing, bits, places, says }) => {
    for (const piece of [1, 7, 1000]) {
      const found = compare(bytesOf(a), bytesOf(b), piece);
      expect([found.first, found.differingBytes, [found.rose, found.fell]]).toEqual([first, differing, bits]);
      expect(found.places.map(({ from, to }) => [from, to])).toEqual(places);
      expect(found.findings).toEqual(says);
    }
  });
  test('counted byte by byte and bit by bit it is the same, however it is cut', () => {
    const dump = fc.uint8Array({ minLength: 1, maxLength: 300 });
    fc.assert(
      fc.property(dump, dump, fc.integer({ min: 1, max: 50 }), (a, b, piece) => {
        const found = compare(a, b, piece);
        const shared = Math.min(a.length, b.length);
        const text = (byte: number | undefined): string => (byte ?? 0).toString(2).padStart(8, '0');
        const bits = Array.from({ length: shared }, (_, at) =>
          [...text(a[at])].map((bit, place) => `${bit}${text(b[at])[place] ?? ''}`),
        ).flat();
        expect([found.rose, found.fell]).toEqual([bits.filter((one) => one === '01').length, bits.filter((one) => one === '10').length]);
        const differ = Array.from({ length: Math.max(a.length, b.length) }, (_, at) => a[at] !== b[at]);
        expect(found.differingBytes).toBe(differ.filter(Boolean).length);
        expect(found.places.reduce((sum, { bytes }) => sum + bytes, 0)).toBe(found.differingBytes);
        differ.forEach((is, at) => expect(found.places.some(({ from, to }) => at >= from && at < to) || !is).toBe(true));
      }),
      { seed: 15, numRuns: 60 },
    );
  });
  test('more places than are listed are counted', () => {
    const [a, b] = [new Uint8Array(40 * (mostPlaces + 5)), new Uint8Array(40 * (mostPlaces + 5))];
    for (let at = 0; at < b.length; at += 40) b[at] = 1;
    const found = compare(a, b, 4096);
    expect([found.places.length, found.morePlaces, found.differingBytes]).toEqual([mostPlaces, 5, mostPlaces + 5]);
  });
});

test('equal parts left out: the same places and bits as with all of it read', () => {
  const a = Uint8Array.from({ length: 300 }, (_, at) => (at * 37) & 0xff);
  const b = a.slice();
  b[70] = (b[70] ?? 0) ^ 0x11;
  b[150] = (b[150] ?? 0) ^ 0x80;
  const whole = new DumpComparer();
  whole.add(a, b);
  const parts = new DumpComparer();
  parts.skip(64);
  parts.add(a.subarray(64, 128), b.subarray(64, 128));
  parts.add(a.subarray(128, 192), b.subarray(128, 192));
  parts.skip(108);
  expect(parts.end()).toEqual(whole.end());
});
test('of what was left out nothing is said: two dumps that differ in an erased part are not called erased', () => {
  const parts = new DumpComparer();
  parts.skip(64);
  parts.add(new Uint8Array(8).fill(0xff), new Uint8Array(8).fill(0x0f));
  expect(parts.end().findings).toEqual(['only-fell']);
});
