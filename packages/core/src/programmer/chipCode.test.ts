/**
 * What an identification code says, written before the table. The first four were read from flashrom 1.3.0's emulated chips (`flashrom -V`): maker and size are
 * what it prints beside the code. The rest are maker's numbers of JEP106 and sizes of data sheets, values from memory.
 */
import { describe, expect, test } from '@jest/globals';
import { readChipCode, type ChipCode } from './chipCode.ts';

const mega = 2 ** 20;
describe('the code a chip answers with', () => {
  test.each<readonly [string, string, ChipCode]>([
    ['by flashrom', 'ef4018', { contact: true, maker: 'Winbond', bytes: 16 * mega }],
    ['by flashrom', 'c22017', { contact: true, maker: 'Macronix', bytes: 8 * mega }],
    ['by flashrom: a size that is not in its code by the usual rule', 'bf254a', { contact: true, maker: 'SST' }],
    ['by flashrom', '016018', { contact: true, maker: 'Spansion', bytes: 16 * mega }],
    ['by data sheet', 'c84016', { contact: true, maker: 'GigaDevice', bytes: 4 * mega }],
    ['by data sheet', '20ba18', { contact: true, maker: 'Micron', bytes: 16 * mega }],
    ['a number of the second bank', '7f9d21', { contact: true, maker: 'ISSI' }],
    ['a maker that is not in the table', '0e4018', { contact: true, bytes: 16 * mega }],
    ['two bytes name the maker alone', 'ef17', { contact: true, maker: 'Winbond' }],
    ['every bit high: nothing drives the line', 'ffffff', { contact: false }],
    ['every bit low: held down, or no supply', '000000', { contact: false }],
    [
      'a maker’s number has an odd number of ones: with an even one a bit was lost on the way',
      'ee4018',
      { contact: true, damaged: true, bytes: 16 * mega },
    ],
  ])('%s: %s', (_, code, wanted) => {
    expect(readChipCode(code)).toEqual(wanted);
  });
});
