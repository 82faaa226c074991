/**
 * Content that stands elsewhere in another dump: a header in front, a byte lost on the way, a partition at another place. Windows of bytes are sampled by
 * their own hash, so that both sides sample the same ones wherever they stand; those that were found once on each side tell how far they moved.
 */

/** From `from` to `to` in the first dump, bytes; `by`: so much further on in the second (negative: before). */
export interface Moved {
  readonly by: number;
  readonly from: number;
  readonly to: number;
}

const windowBytes = 32;
const base = 0x01_00_01_93;
/** Windows kept of each side: with more, every other one is let go. */
const mostKept = 2 ** 14;
/** So many windows have to agree on a distance: fewer do so by chance (values of ours). */
const leastWindows = 4;
const mostMoves = 8;
const repeated = -1;

/** B to the power of a window: what its first byte weighs when it leaves. */
let leaving = 1;
for (let index = 0; index < windowBytes; index += 1) leaving = Math.imul(leaving, base);
const first = leaving;

/** Bits of a hash stirred, so that the last ones decide evenly. */
function stirred(hash: number): number {
  let bits = Math.imul(hash ^ (hash >>> 16), 0x85_eb_ca_6b);
  bits = Math.imul(bits ^ (bits >>> 13), 0xc2_b2_ae_35);
  return (bits ^ (bits >>> 16)) >>> 0;
}

/** Samples one side. Add pieces in order. */
export class WindowSampler {
  /** Stirred hash -> where it begins, or `repeated`. */
  readonly found = new Map<number, number>();
  mask = 0;
  private readonly window = new Uint8Array(windowBytes);
  private at = 0;
  private since = 0;
  private hash = 0;
  /** Bytes up to here that were all the same: such a window stands everywhere. */
  private same = 0;
  private before = -1;

  add(piece: Uint8Array): void {
    for (let index = 0; index < piece.length; index += 1) {
      const byte = piece[index] ?? 0;
      const slot = this.at % windowBytes;
      const left = this.since >= windowBytes ? (this.window[slot] ?? 0) : -1;
      this.window[slot] = byte;
      this.hash = (Math.imul(this.hash, base) + byte + 1 - (left < 0 ? 0 : Math.imul(left + 1, first))) | 0;
      this.same = byte === this.before ? this.same + 1 : 1;
      this.before = byte;
      this.at += 1;
      this.since += 1;
      if (this.since >= windowBytes && this.same < windowBytes) this.sample(stirred(this.hash));
    }
  }

  /** Bytes that are not looked at. */
  skip(bytes: number): void {
    this.at += bytes;
    Object.assign(this, { since: 0, hash: 0, same: 0, before: -1 });
  }

  private sample(key: number): void {
    if ((key & this.mask) !== 0) return;
    this.found.set(key, this.found.has(key) ? repeated : this.at - windowBytes);
    if (this.found.size <= mostKept) return;
    this.mask = this.mask * 2 + 1;
    for (const one of this.found.keys()) if ((one & this.mask) !== 0) this.found.delete(one);
  }
}

/** What moved between two sides, the most of it first. */
export function movedBetween(one: WindowSampler, other: WindowSampler): Moved[] {
  const mask = Math.max(one.mask, other.mask);
  const byDistance = new Map<number, { windows: number; from: number; to: number }>();
  for (const [key, from] of one.found) {
    const there = other.found.get(key);
    if (from === repeated || there === undefined || there === repeated || (key & mask) !== 0) continue;
    const known = byDistance.get(there - from) ?? { windows: 0, from, to: from };
    byDistance.set(there - from, {
      windows: known.windows + 1,
      from: Math.min(known.from, from),
      to: Math.max(known.to, from + windowBytes),
    });
  }
  return [...byDistance]
    .filter(([by, { windows }]) => by !== 0 && windows >= leastWindows)
    .toSorted(([, a], [, b]) => b.windows - a.windows || a.from - b.from)
    .slice(0, mostMoves)
    .map(([by, { from, to }]) => ({ by, from, to }));
}
