import { randomBytes } from 'node:crypto';
import { expect, test } from '@jest/globals';
import { PeriodReader } from './period.ts';

const kib = 1024;
const content = (bytes: number): Uint8Array => new Uint8Array(randomBytes(bytes));
const times = (count: number, one: Uint8Array): Uint8Array =>
  Uint8Array.from({ length: count * one.length }, (_, at) => one[at % one.length] ?? 0);
const halfErased = (): Uint8Array => new Uint8Array(512 * kib).fill(0xff, 256 * kib);
function period(bytes: Uint8Array, piece = 7001): number | undefined {
  const reader = new PeriodReader();
  for (let at = 0; at < bytes.length; at += piece) reader.add(bytes.subarray(at, at + piece));
  return reader.end();
}
const changed = (bytes: Uint8Array, at: number): Uint8Array => bytes.with(at, (bytes[at] ?? 0) ^ 1);

test.each<[string, () => Uint8Array, number | undefined]>([
  ['a flash of 512 KiB read as 1 MiB', () => times(2, content(512 * kib)), 512 * kib],
  ['one of 2 KiB read as 4 KiB: a small serial memory starts again from its beginning', () => times(2, content(2 * kib)), 2 * kib],
  ['four times 256 KiB: the smallest counts', () => times(4, content(256 * kib)), 256 * kib],
  ['each byte the same', () => new Uint8Array(4096).fill(7), 1],
  ['a content once', () => content(256 * kib), undefined],
  ['a content, and an erased half', halfErased, undefined],
  ['twice, and one bit otherwise at the end', () => changed(times(2, content(64 * kib)), 128 * kib - 1), undefined],
  ['twice, and one bit otherwise in the first half', () => changed(times(2, content(64 * kib)), 3), undefined],
  // Two files in one: no chip has that size.
  ['three times 256 KiB', () => times(3, content(256 * kib)), undefined],
  ['nothing', () => new Uint8Array(), undefined],
])('%s', (_, bytes, wanted) => {
  expect(period(bytes())).toBe(wanted);
});
test('however it is cut', () => {
  const bytes = times(2, content(8 * kib));
  expect([1, 4096, 16_384, 99_999].map((piece) => period(bytes, piece))).toEqual([8192, 8192, 8192, 8192]);
});
test('beyond 64 MiB nothing is said', () => {
  const reader = new PeriodReader();
  for (let nth = 0; nth < 128; nth += 1) reader.add(new Uint8Array(2 ** 20));
  expect(reader.end()).toBeUndefined();
});
