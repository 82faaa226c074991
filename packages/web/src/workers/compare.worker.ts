/** Two stored images byte by byte, where their chunks differ: read in ranges, a piece of each in memory at a time. */
import { DumpComparer, type DumpComparison } from '@veglia/core';
import { expose } from 'comlink';
import { rangeOf } from './rangeOf.ts';

/** Bytes read of each at once. */
const pieceBytes = 2 ** 20;
/** More differing bytes than this are not looked at one by one: two images that have nothing in common. */
export const mostRead = 256 * 2 ** 20;

/** What is compared: addresses of the two, their sizes, and where their chunks differ. Bytes from the start, `to` behind the last. */
export interface CompareAsked {
  readonly content: readonly [string, string];
  readonly sizes: readonly [number, number];
  readonly runs: readonly { readonly from: number; readonly to: number }[];
}
/** A comparison; `lookedAt`: up to where, left out where to the end. */
export interface ComparedBytes {
  readonly comparison: DumpComparison;
  readonly lookedAt?: number;
}

const comparer = {
  async compare({ content: [one, other], sizes, runs }: CompareAsked): Promise<ComparedBytes> {
    const found = new DumpComparer();
    let at = 0;
    let read = 0;
    for (const { from, to } of runs) {
      found.skip(from - at);
      for (let piece = from; piece < to; piece += pieceBytes) {
        const end = Math.min(piece + pieceBytes, to);
        const [a, b] = await Promise.all([rangeOf(one, sizes[0], piece, end), rangeOf(other, sizes[1], piece, end)]);
        found.add(a, b);
        read += end - piece;
        if (read >= mostRead) return { comparison: found.end(), lookedAt: end };
      }
      at = to;
    }
    // Behind the last run both are equal, or one has ended.
    found.skip(Math.max(0, Math.min(...sizes) - at));
    return { comparison: found.end() };
  },
};
export type ImageComparer = typeof comparer;

expose(comparer);
