/** What a bench expects of several reads of a failing chip, before the rule: bits by majority, what is doubtful named, and how many reads are still needed. */
export interface VoteCase {
  readonly name: string;
  /** Reads of the same bytes, hexadecimal. */
  readonly reads: readonly string[];
  readonly bytes: string;
  /** Bytes in which a bit was not read the same each time. */
  readonly unsteady: number;
  /** Bits that more often read 1 and that more often read 0 among the unsteady ones. */
  readonly bits: readonly [ones: number, zeros: number];
}

export const voteCases: readonly VoteCase[] = [
  { name: 'three that agree', reads: ['a55a', 'a55a', 'a55a'], bytes: 'a55a', unsteady: 0, bits: [0, 0] },
  { name: 'two against one', reads: ['a55a', 'a45a', 'a55a'], bytes: 'a55a', unsteady: 1, bits: [1, 0] },
  {
    name: 'each bit for itself: no two reads are alike, and all of it is found',
    reads: ['01', '02', '04'],
    bytes: '00',
    unsteady: 1,
    bits: [0, 3],
  },
  {
    name: 'an even split: a chip that leaks reads 0 as 1 sooner than 1 as 0, but nobody knows which; it counts as the erased state',
    reads: ['ff', 'fe', 'ff', 'fe'],
    bytes: 'ff',
    unsteady: 1,
    bits: [1, 0],
  },
  {
    name: 'one read that failed altogether is outvoted',
    reads: ['1234', 'ffff', '1234', '1234'],
    bytes: '1234',
    unsteady: 2,
    bits: [0, 11],
  },
];

/** One unsteady bit, seen k of n times as the more frequent value: how sure that value is, and the source. */
export const certaintyCases: readonly { readonly seen: number; readonly of: number; readonly sure: number }[] = [
  // Flip rate equally likely anywhere from 0 to one half: the posterior is the binomial tail P(X ≤ k), X ~ B(n + 1, ½) (Bayes, and the identity of
  // the incomplete beta function with the binomial; tails from the table of B(n, ½): 11/16, 15/16 and so on are exact).
  { seen: 2, of: 3, sure: 11 / 16 },
  { seen: 4, of: 5, sure: 57 / 64 },
  { seen: 3, of: 5, sure: 42 / 64 },
  { seen: 6, of: 7, sure: 247 / 256 },
  { seen: 2, of: 4, sure: 0.5 },
];
