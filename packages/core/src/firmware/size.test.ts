import { expect, test } from '@jest/globals';
import { formatBytes, parseBytes } from './size.ts';

// Sizes of common parts by their data sheets' names (value from memory): 24C32 is 32 Kbit, 25Q32 is 32 Mbit.
test.each([
  ['32 Kbit', 4096],
  ['32Mbit', 4_194_304],
  ['4 MiB', 4_194_304],
  ['4MB', 4_194_304],
  ['4096', 4096],
  ['3.5 GiB', 3_758_096_384],
  ['0,5 KB', 512],
])('%s', (text, bytes) => {
  expect(parseBytes(text)).toBe(bytes);
});
test.each(['', '32M', 'four', '-1', '0', '1.5', '3 bits', '1e3'])('refused: "%s"', (text) => {
  expect(parseBytes(text)).toBeUndefined();
});
test.each([
  [4096, '4 KiB'],
  [4_194_304, '4 MiB'],
  [3_758_096_384, '3584 MiB'],
  [100, '100 B'],
  [4_194_305, '4.0 MiB'],
])('%d bytes', (bytes, text) => {
  expect(formatBytes(bytes)).toBe(text);
});
