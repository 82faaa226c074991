/** What is known of a dump from its bytes, read once from the start, in any pieces. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { PeriodReader } from './period.ts';

/** A dump: size in bytes, SHA-256 in hex. */
export interface DumpFacts {
  readonly sha256: string;
  readonly bytes: number;
  /** Each byte is FF, or each is 00: an empty chip, or none that answers. */
  readonly allSame?: 'ff' | '00';
  /** One content several times over, each so many bytes long: read as larger than it is. */
  readonly repeats?: number;
}

/** Reads a dump: add pieces in order, then `end`. */
export class DumpReader {
  private readonly hash = sha256.create();
  private readonly period = new PeriodReader();
  private bytes = 0;
  /** The one byte seen so far; undefined before the first, null once there are two. */
  private only: number | null | undefined;

  add(piece: Uint8Array): void {
    this.hash.update(piece);
    this.period.add(piece);
    this.bytes += piece.length;
    if (this.only === null || piece.length === 0) return;
    const first = this.only ?? piece[0] ?? 0;
    this.only = piece.every((byte) => byte === first) ? first : null;
  }

  end(): DumpFacts {
    const same = this.only === 0xff ? 'ff' : this.only === 0x00 ? '00' : undefined;
    const repeats = same === undefined ? this.period.end() : undefined;
    return {
      sha256: bytesToHex(this.hash.digest()),
      bytes: this.bytes,
      ...(same === undefined ? {} : { allSame: same }),
      ...(repeats === undefined ? {} : { repeats }),
    };
  }
}

/** What a dump tells against itself, as its step records it. */
export const oddOf = ({ allSame, repeats }: DumpFacts): Pick<DumpFacts, 'allSame' | 'repeats'> => ({
  ...(allSame === undefined ? {} : { allSame }),
  ...(repeats === undefined ? {} : { repeats }),
});
