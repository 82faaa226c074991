/** What a bench expects of two dumps laid side by side, before the rule. Bytes in hexadecimal; "xx*n" is xx n times. */
export interface CompareCase {
  readonly name: string;
  readonly a: string;
  readonly b: string;
  readonly first?: number;
  readonly differing: number;
  /** Bits that are 0 in the first and 1 in the second, and the other way round. */
  readonly bits: readonly [rose: number, fell: number];
  /** Places that differ, from and to before which. */
  readonly places: readonly (readonly [from: number, to: number])[];
  readonly says: readonly string[];
}

export const compareCases: readonly CompareCase[] = [
  { name: 'equal', a: '01 02 03', b: '01 02 03', differing: 0, bits: [0, 0], places: [], says: ['equal'] },
  {
    name: 'one bit read 1 instead of 0: a cell that loses its charge',
    a: '00*9',
    b: '00*5 04 00*3',
    first: 5,
    differing: 1,
    bits: [1, 0],
    places: [[5, 6]],
    says: ['only-rose'],
  },
  {
    name: 'bits fell only: programmed on top, without an erase',
    a: '55 ff*8',
    b: '55 ff*4 0f ff*3',
    first: 5,
    differing: 1,
    bits: [0, 4],
    places: [[5, 6]],
    says: ['only-fell'],
  },
  {
    name: 'differences close to each other are one place',
    a: '00*40',
    b: '00 01 00*5 01 00*32',
    first: 1,
    differing: 2,
    bits: [2, 0],
    places: [[1, 8]],
    says: ['only-rose'],
  },
  {
    name: 'far from each other they are two',
    a: '00*100',
    b: '01 00*98 01',
    first: 0,
    differing: 2,
    bits: [2, 0],
    places: [
      [0, 1],
      [99, 100],
    ],
    says: ['only-rose'],
  },
  {
    name: 'both ways: other content',
    a: '0f 00',
    b: 'f0 00',
    first: 0,
    differing: 1,
    bits: [4, 4],
    places: [[0, 1]],
    says: ['other-content'],
  },
  {
    name: 'one is longer: what it has more is a place of its own',
    a: '01 02',
    b: '01 02 03 04',
    first: 2,
    differing: 2,
    bits: [0, 0],
    places: [[2, 4]],
    says: ['sizes-differ'],
  },
  { name: 'one is erased', a: '01 02 03 04', b: 'ff*4', first: 0, differing: 4, bits: [27, 0], places: [[0, 4]], says: ['second-erased'] },
  {
    name: 'one reads nothing but 00: no contact, or no supply',
    a: '01 02 03 04',
    b: '00*4',
    first: 0,
    differing: 4,
    bits: [0, 5],
    places: [[0, 4]],
    says: ['second-zero'],
  },
];
