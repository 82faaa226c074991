/**
 * Whether a dump is one content several times over: a chip read as larger than it is, or with three bytes of address where it takes four.
 *
 * Where a dump of 2^n bytes is a half of it twice, its hash follows from that half's: for a polynomial hash H(ab) = H(a)·B^|b| + H(b), so that H of each
 * power of two is all that has to be kept.
 */

/** Two small moduli instead of a large one: products stay whole numbers. */
const hashes = [
  { modulus: 67_108_859, base: 48_271_003 },
  { modulus: 67_108_837, base: 30_102_451 },
] as const;
/** Memories beyond this are addressed by blocks and do not wrap, bytes. */
const most = 2 ** 26;

interface Mark {
  readonly hash: number;
  /** B to the power of the bytes so far. */
  readonly power: number;
}

/** Add pieces in order, then `end`. */
export class PeriodReader {
  private bytes = 0;
  private readonly now = hashes.map((): { hash: number; power: number } => ({ hash: 0, power: 1 }));
  /** For each hash, after 2^k bytes. */
  private readonly marks: Mark[][] = hashes.map(() => []);

  add(piece: Uint8Array): void {
    if (this.bytes + piece.length > most) {
      this.bytes += piece.length;
      return;
    }
    hashes.forEach(({ modulus, base }, which) => {
      const state = this.now[which] ?? { hash: 0, power: 1 };
      const marks = this.marks[which] ?? [];
      let { hash, power } = state;
      let at = this.bytes;
      for (const byte of piece) {
        // One more than the byte, so that a run of zeros has a length.
        hash = (hash * base + byte + 1) % modulus;
        power = (power * base) % modulus;
        at += 1;
        if ((at & (at - 1)) === 0) marks.push({ hash, power });
      }
      Object.assign(state, { hash, power });
    });
    this.bytes += piece.length;
  }

  /** The smallest power of two, in bytes, after which everything comes again to the end; undefined: it does not, or can't be told of this size. */
  end(): number | undefined {
    const levels = Math.log2(this.bytes);
    if (!Number.isInteger(levels) || this.bytes > most) return undefined;
    let level = levels;
    while (level > 0 && this.twice(level)) level -= 1;
    return level === levels ? undefined : 2 ** level;
  }

  /** Whether the first 2^level bytes are the first half of them twice. */
  private twice(level: number): boolean {
    return hashes.every(({ modulus }, which) => {
      const [half, whole] = [this.marks[which]?.[level - 1], this.marks[which]?.[level]];
      return half !== undefined && whole !== undefined && (half.hash * half.power + half.hash) % modulus === whole.hash;
    });
  }
}
