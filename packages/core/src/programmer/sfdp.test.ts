import { describe, expect, test } from '@jest/globals';
import { readSfdp } from './sfdp.ts';

/** As flashrom 1.3.0 reads it from the MX25L6436 that it emulates (`-p dummy:emulate=MX25L6436 -c "SFDP-capable chip" -VVV`). */
const recorded = Uint8Array.from(
  Buffer.from(
    '53464450000101ff000001091c0000ffc2000104480000ffffffffffe520c9ffffffff0300ff086b083b00ffeeffffffffff0000ffff00ff' +
      '0c200f5210d800ffffffffffffffffff00360027f44fffffd9c8ffffffffffff',
    'hex',
  ),
);
/** A basic table of so many words, each set by its number. */
function made(words: Readonly<Record<number, number>>, length = 16, revision = [6, 1]): Uint8Array {
  const bytes = new Uint8Array(16 + length * 4).fill(0xff);
  bytes.set([0x53, 0x46, 0x44, 0x50, ...revision, 0, 0xff, 0, ...revision, length, 16, 0, 0, 0xff]);
  const view = new DataView(bytes.buffer);
  view.setUint32(16, 0xff_f1_20_e5 & ~(3 << 17), true);
  view.setUint32(16 + 7 * 4, 0, true);
  view.setUint32(16 + 8 * 4, 0, true);
  for (const [number, value] of Object.entries(words)) view.setUint32(16 + (Number(number) - 1) * 4, value, true);
  return bytes;
}

test('says what flashrom says of the same table', () => {
  // flashrom: "SFDP revision = 1.0", "3-Byte only addressing", "Flash chip size is 8192 kB", erasers 4096 by 0x20, 32768 by 0x52, 65536 by 0xd8.
  expect(readSfdp(recorded)).toEqual({
    revision: '1.0',
    bytes: 8192 * 1024,
    addressBytes: '3',
    erases: [
      { bytes: 4096, opcode: 0x20 },
      { bytes: 32_768, opcode: 0x52 },
      { bytes: 65_536, opcode: 0xd8 },
    ],
    tables: ['00', 'c2'],
  });
});
describe('by the layout (values from memory)', () => {
  test('a size as a power of two, addresses of three or four bytes, pages', () => {
    // 2^32 bits are 512 MiB; page size 2^8.
    const table = made({ 1: (0xff_f1_20_e5 & ~(3 << 17)) | (1 << 17), 2: 0x8000_0020, 11: 0x82 });
    expect(readSfdp(table)).toMatchObject({ bytes: 2 ** 29, addressBytes: '3-or-4', pageBytes: 256, revision: '1.6' });
  });
  test('a table of nine words says nothing of pages', () => {
    expect(readSfdp(made({ 2: 2 ** 25 - 1 }, 9, [0, 1]))).not.toHaveProperty('pageBytes');
  });
});
test.each([
  ['no signature', recorded.with(0, 0xff), 'no-signature'],
  ['all FF: nothing answered', new Uint8Array(256).fill(0xff), 'no-signature'],
  ['empty', new Uint8Array(), 'no-signature'],
  ['the signature and no more', recorded.subarray(0, 8), 'cut-off'],
  ['cut off inside the basic table', recorded.subarray(0, 50), 'cut-off'],
  ['only a table of the maker', recorded.with(8, 0xc2), 'no-basic-table'],
  ['a basic table of three words', recorded.with(11, 3), 'no-basic-table'],
  ['a fourth kind of addresses', made({ 1: 3 << 17, 2: 2 ** 25 - 1 }), 'not-possible'],
  ['a size that is no whole number of bytes', made({ 2: 12 }), 'not-possible'],
  ['a size of 2^200', made({ 2: 0x8000_00c8 }), 'not-possible'],
  ['an erase of 2^200', made({ 2: 2 ** 25 - 1, 8: 0x20c8 }), 'not-possible'],
])('%s', (_, bytes, refused) => {
  expect(readSfdp(bytes)).toEqual({ refused });
});
