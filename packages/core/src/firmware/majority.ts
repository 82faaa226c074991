/** Several reads of a failing chip made one: each bit by majority, with what that is worth. */

/** How often bits of a read flipped, as counts: `seen[n][k]` of n reads, k agreeing with the majority; only bits that were not the same each time. */
export interface Votes {
  readonly reads: number;
  readonly bytes: number;
  /** Bytes with a bit that was not the same each time. */
  readonly unsteadyBytes: number;
  /** Unsteady bits by how many reads agreed with the majority: index is that number. */
  readonly agreeing: readonly number[];
  /** Of the unsteady bits, those that came out 1 and 0. */
  readonly ones: number;
  readonly zeros: number;
}

/** No votes yet. */
export const noVotes = (reads: number): Votes => ({
  reads,
  bytes: 0,
  unsteadyBytes: 0,
  agreeing: Array.from({ length: reads + 1 }, () => 0),
  ones: 0,
  zeros: 0,
});

/**
 * Votes on pieces of equal length, one a read; `out` is filled with the majority. An even split counts as 1, the erased state. Returns the sum with what
 * was voted before. Throws RangeError where lengths differ or there are fewer than three reads.
 */
export function vote(reads: readonly Uint8Array[], out: Uint8Array, before: Votes = noVotes(reads.length)): Votes {
  const n = reads.length;
  if (n < 3 || reads.some(({ length }) => length !== out.length)) throw new RangeError('reads');
  const agreeing = [...before.agreeing];
  let { unsteadyBytes, ones, zeros } = before;
  const [first = out] = reads;
  for (let at = 0; at < out.length; at += 1) {
    const value = first[at] ?? 0;
    let differing = 0;
    for (let read = 1; read < n; read += 1) differing |= (reads[read]?.[at] ?? 0) ^ value;
    if (differing === 0) {
      out[at] = value;
      continue;
    }
    unsteadyBytes += 1;
    let result = value & ~differing;
    for (let bit = 1; bit < 256; bit <<= 1) {
      if ((differing & bit) === 0) continue;
      let set = 0;
      for (const read of reads) if (((read[at] ?? 0) & bit) !== 0) set += 1;
      const one = 2 * set >= n;
      if (one) result |= bit;
      if (one) ones += 1;
      else zeros += 1;
      const agree = one ? set : n - set;
      agreeing[agree] = (agreeing[agree] ?? 0) + 1;
    }
    out[at] = result;
  }
  return { reads: n, bytes: before.bytes + out.length, unsteadyBytes, agreeing, ones, zeros };
}

/**
 * How sure the majority of one unsteady bit is: `agree` of `reads`. Its rate of flips is taken as equally likely anywhere between 0 and one half, which
 * makes it the binomial tail P(X ≤ agree), X of B(reads + 1, ½).
 */
export function bitCertainty(agree: number, reads: number): number {
  // From the largest term down would overflow for hundreds of reads; 99 at most are taken.
  let term = 2 ** -(reads + 1);
  let sum = 0;
  for (let k = 0; k <= agree; k += 1) {
    sum += term;
    term *= (reads + 1 - k) / (k + 1);
  }
  return Math.min(1, sum);
}

/** How sure the whole is: every unsteady bit right. Bits that never flipped are taken as read. */
export function certainty({ reads, agreeing }: Votes): number {
  return Math.exp(agreeing.reduce((sum, bits, agree) => sum + (bits === 0 ? 0 : bits * Math.log(bitCertainty(agree, reads))), 0));
}

/** More reads than this are no longer a way to a dump: value of ours. */
export const mostReads = 99;

/**
 * Reads in all after which the whole should be as sure as `wanted` if each bit goes on flipping as it did; undefined where `mostReads` do not get there.
 */
export function readsNeeded(votes: Votes, wanted: number): number | undefined {
  const shares = votes.agreeing.flatMap((bits, agree) => (bits === 0 ? [] : [{ bits, share: agree / votes.reads }]));
  for (let reads = votes.reads; reads <= mostReads; reads += 1) {
    const sure = shares.reduce((sum, { bits, share }) => sum + bits * Math.log(bitCertainty(Math.floor(share * reads + 1e-9), reads)), 0);
    if (Math.exp(sure) >= wanted) return reads;
  }
  return undefined;
}
