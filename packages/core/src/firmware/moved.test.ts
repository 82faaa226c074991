import { expect, test } from '@jest/globals';
import { neverRepeating } from '../testing/bytes.ts';
import { DumpComparer } from './compare.ts';

const kib = 1024;
const joined = (...parts: readonly Uint8Array[]): Uint8Array => {
  const all = new Uint8Array(parts.reduce((sum, one) => sum + one.length, 0));
  parts.reduce((at, one) => (all.set(one, at), at + one.length), 0);
  return all;
};
function moved(a: Uint8Array, b: Uint8Array, piece = 5000) {
  const comparer = new DumpComparer();
  for (let at = 0; at < Math.max(a.length, b.length); at += piece) comparer.add(a.subarray(at, at + piece), b.subarray(at, at + piece));
  return comparer.end().moved;
}
const erased = (bytes: number): Uint8Array => new Uint8Array(bytes).fill(0xff);
const a = neverRepeating(256 * kib, 'a');
/** Windows are samples: a place is known to some of them. */
const near = (value: number, within = 700) => ({ asymmetricMatch: (found: unknown) => Math.abs(Number(found) - value) <= within });

test.each([
  ['a header of 512 bytes in front', a, joined(neverRepeating(512, 'head'), a), [{ by: 512, from: near(0), to: near(256 * kib) }]],
  ['read from the 17th byte on', a, a.subarray(16), [{ by: -16, from: near(16), to: near(256 * kib) }]],
  [
    'a byte too many in the middle: from there on one further',
    a,
    joined(a.subarray(0, 128 * kib), Uint8Array.of(7), a.subarray(128 * kib, 256 * kib - 1)),
    [{ by: 1, from: near(128 * kib), to: near(256 * kib) }],
  ],
  [
    'a partition at another place',
    joined(neverRepeating(64 * kib, 'b'), a, erased(192 * kib)),
    joined(neverRepeating(64 * kib, 'b'), erased(192 * kib), a),
    [{ by: 192 * kib, from: near(64 * kib), to: near(320 * kib) }],
  ],
  [
    'a serial memory of 2 KiB, eight bytes on',
    neverRepeating(2 * kib, 'c'),
    joined(erased(8), neverRepeating(2 * kib - 8, 'c')),
    [{ by: 8, from: near(0, 40), to: near(2 * kib, 40) }],
  ],
  ['equal', a, a, []],
  ['nothing in common', a, neverRepeating(256 * kib, 'd'), []],
  ['the same at the same place, and one byte otherwise', a, a.with(1000, (a[1000] ?? 0) ^ 4), []],
  ['erased space that is longer', joined(a, erased(4 * kib)), joined(a, erased(9 * kib)), []],
  [
    'a pattern over and over stands everywhere',
    Uint8Array.from({ length: 8 * kib }, (_, at) => at % 7),
    Uint8Array.from({ length: 8 * kib }, (_, at) => (at + 3) % 7),
    [],
  ],
  [
    'a short text in common is chance',
    joined(a, neverRepeating(40, 'x')),
    joined(neverRepeating(40, 'x'), neverRepeating(256 * kib, 'e')),
    [],
  ],
])('%s', (_, one, other, wanted) => {
  expect(moved(one, other)).toEqual(wanted);
});
test('what was skipped as equal is not looked at, and places go on counting', () => {
  const comparer = new DumpComparer();
  comparer.skip(64 * kib);
  comparer.add(a, joined(neverRepeating(512, 'head'), a.subarray(0, a.length - 512)));
  expect(comparer.end().moved).toEqual([{ by: 512, from: near(64 * kib), to: near(320 * kib) }]);
});
test('however it is cut', () => {
  const other = joined(neverRepeating(512, 'head'), a);
  expect(moved(a, other, 77)).toEqual(moved(a, other, 2 ** 20));
});
