import { createHash } from 'node:crypto';
import { expect, test } from '@jest/globals';
import { DumpReader, oddOf } from './dump.ts';

const read = (...pieces: readonly Uint8Array[]) => {
  const reader = new DumpReader();
  for (const piece of pieces) reader.add(piece);
  return reader.end();
};
test('the hash is Node’s own, however the dump is cut', () => {
  const bytes = Uint8Array.from({ length: 5000 }, (_, index) => (index * 31) % 251);
  const wanted = { sha256: createHash('sha256').update(bytes).digest('hex'), bytes: 5000 };
  expect(read(bytes)).toEqual(wanted);
  expect(read(bytes.subarray(0, 1), new Uint8Array(), bytes.subarray(1, 3000), bytes.subarray(3000))).toEqual(wanted);
});
test('one content twice, and what the step records of it', () => {
  const half = Uint8Array.from({ length: 1024 }, (_, index) => (index * index) % 251);
  const twice = read(half, half);
  expect([twice.repeats, oddOf(twice), oddOf(read(half))]).toEqual([1024, { repeats: 1024 }, {}]);
});
test.each([
  ['every byte FF', [new Uint8Array(9).fill(255), new Uint8Array(3).fill(255)], 'ff'],
  ['every byte 00', [new Uint8Array(9)], '00'],
  ['every byte the same, and a value a chip holds', [new Uint8Array(9).fill(7)], undefined],
  ['FF first and 00 then', [new Uint8Array(9).fill(255), new Uint8Array(9)], undefined],
  ['one byte differs, in the last piece', [new Uint8Array(9).fill(255), Uint8Array.of(255, 254)], undefined],
])('%s', (_, pieces, allSame) => {
  const dump = read(...pieces);
  expect(dump.allSame).toBe(allSame);
  // That it is one byte over and over is said once.
  if (allSame !== undefined) expect(dump.repeats).toBeUndefined();
});
