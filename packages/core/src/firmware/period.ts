/**
 * Whether a dump is one content several times over: a chip read as larger than it is, or with three bytes of address where it takes four.
 *
 * Where a dump of 2^n bytes is a half of it twice, its hash follows from that half's: for a polynomial hash H(ab) = H(a)·B^|b| + H(b), so that H of each
 * power of two is all that has to be kept.
 */

/** Modulo 2^32; odd, so that no byte is ever shifted out. Two, because one alone is right by chance too often (values of ours). */
const bases = [0x01_00_01_93, 0x9e_37_79_b1] as const;
/** Memories beyond this are addressed by blocks and do not wrap, bytes. */
const most = 2 ** 26;

/** Add pieces in order, then `end`. */
export class PeriodReader {
  private bytes = 0;
  private readonly now = bases.map(() => 0);
  /** For each base, the hash after 2^k bytes. */
  private readonly marks: number[][] = bases.map(() => []);

  add(piece: Uint8Array): void {
    if (this.bytes + piece.length <= most) {
      for (let from = 0; from < piece.length;) {
        const done = this.bytes + from;
        const mark = done === 0 ? 1 : 2 ** (Math.floor(Math.log2(done)) + 1);
        const to = Math.min(piece.length, from + mark - done);
        bases.forEach((base, which) => {
          let hash = this.now[which] ?? 0;
          // One more than the byte, so that a run of zeros has a length.
          for (let at = from; at < to; at += 1) hash = (Math.imul(hash, base) + (piece[at] ?? 0) + 1) | 0;
          this.now[which] = hash;
          if (done + to - from === mark) this.marks[which]?.push(hash);
        });
        from = to;
      }
    }
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
    return bases.every((base, which) => {
      const [half, whole] = [this.marks[which]?.[level - 1], this.marks[which]?.[level]];
      if (half === undefined || whole === undefined) return false;
      let power: number = base;
      for (let squared = 1; squared < level; squared += 1) power = Math.imul(power, power);
      return ((Math.imul(half, power) + half) | 0) === whole;
    });
  }
}
