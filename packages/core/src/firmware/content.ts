/** What a dump holds: erased, zero, text, program or packed data, block by block; what stands where; strings. Read once, in pieces. */

/** What is known by its first bytes. Each from its published layout (values from memory). */
const magics = [
  { kind: 'gzip', bytes: [0x1f, 0x8b, 0x08] },
  { kind: 'xz', bytes: [0xfd, 0x37, 0x7a, 0x58, 0x5a, 0x00] },
  { kind: 'elf', bytes: [0x7f, 0x45, 0x4c, 0x46] },
  { kind: 'squashfs', bytes: [0x68, 0x73, 0x71, 0x73] },
  { kind: 'squashfs', bytes: [0x73, 0x71, 0x73, 0x68] },
  { kind: 'uimage', bytes: [0x27, 0x05, 0x19, 0x56] },
  { kind: 'ubi', bytes: [0x55, 0x42, 0x49, 0x23] },
  { kind: 'android-boot', bytes: [0x41, 0x4e, 0x44, 0x52, 0x4f, 0x49, 0x44, 0x21] },
  { kind: 'device-tree', bytes: [0xd0, 0x0d, 0xfe, 0xed] },
  { kind: 'gpt', bytes: [0x45, 0x46, 0x49, 0x20, 0x50, 0x41, 0x52, 0x54] },
] as const;
/** Something that begins at a byte. */
export interface ContentSignature {
  readonly kind: (typeof magics)[number]['kind'] | 'mbr' | 'ext';
  readonly at: number;
}
/** How a block looks by its bytes; entropy in bits a byte. */
export interface ContentBlock {
  readonly kind: 'erased' | 'zero' | 'text' | 'data' | 'packed';
  readonly entropy: number;
}
/** Text at a byte. */
export interface ContentString {
  readonly at: number;
  readonly text: string;
}
/** What a dump holds. */
export interface Content {
  readonly bytes: number;
  readonly blockBytes: number;
  readonly blocks: readonly ContentBlock[];
  readonly signatures: readonly ContentSignature[];
  /** The first `mostStrings` of eight characters and more. */
  readonly strings: readonly ContentString[];
  /** Of all strings those with a version or a date in them, the first `mostVersions`. */
  readonly versions: readonly ContentString[];
}

/** Blocks of a chart, and what is listed. */
const mostBlocks = 512;
const leastBlock = 4096;
const mostSignatures = 500;
const mostStrings = 300;
const mostVersions = 50;
const leastString = 8;
const longestString = 120;
/** Packed or enciphered data have nearly all of eight bits; a program of any processor stays below (value of ours). */
const packedEntropy = 7.6;
const textShare = 0.9;

const versionLike = /\d+[.]\d+|(?:19|20)\d\d-\d\d-\d\d|\b(?:version|build|rev)\b/i;
const printable = (byte: number): boolean => (byte >= 0x20 && byte < 0x7f) || byte === 0x09;
/** A superblock of ext2, 3 or 4 begins 1024 bytes into the file system; its magic is at 56. */
const extMagicAt = 1080;
/** Longest that has to be seen in one piece. */
const overlap = 2048;

/** Adds up a dump whose size is known before: bytes. */
export class ContentReader {
  readonly #blockBytes: number;
  readonly #blocks: ContentBlock[] = [];
  readonly #signatures: ContentSignature[] = [];
  readonly #strings: ContentString[] = [];
  readonly #versions: ContentString[] = [];
  #counts = new Uint32Array(256);
  #inBlock = 0;
  #at = 0;
  /** The end of what came before, for what reaches over a cut. */
  #tail = new Uint8Array();
  #text = '';
  #textLength = 0;

  constructor(size: number) {
    this.#blockBytes = Math.max(leastBlock, 2 ** Math.ceil(Math.log2(Math.max(1, size / mostBlocks))));
  }

  add(piece: Uint8Array): void {
    for (const byte of piece) {
      this.#counts[byte] = (this.#counts[byte] ?? 0) + 1;
      this.#inBlock += 1;
      if (this.#inBlock === this.#blockBytes) this.#endBlock();
      this.#character(byte);
      this.#at += 1;
    }
    const seen = new Uint8Array(this.#tail.length + piece.length);
    seen.set(this.#tail);
    seen.set(piece, this.#tail.length);
    this.#look(seen, this.#at - seen.length, false);
    this.#tail = seen.slice(Math.max(0, seen.length - overlap));
  }

  end(): Content {
    if (this.#inBlock > 0) this.#endBlock();
    this.#endText();
    this.#look(this.#tail, this.#at - this.#tail.length, true);
    return {
      bytes: this.#at,
      blockBytes: this.#blockBytes,
      blocks: this.#blocks,
      signatures: [...this.#signatures].sort((a, b) => a.at - b.at),
      strings: this.#strings,
      versions: this.#versions,
    };
  }

  #endBlock(): void {
    const total = this.#inBlock;
    let entropy = 0;
    let text = 0;
    this.#counts.forEach((count, byte) => {
      if (count === 0) return;
      entropy -= (count / total) * Math.log2(count / total);
      if (printable(byte) || byte === 0x0a || byte === 0x0d) text += count;
    });
    const kind =
      this.#counts[0xff] === total
        ? 'erased'
        : this.#counts[0] === total
          ? 'zero'
          : entropy > packedEntropy
            ? 'packed'
            : text >= textShare * total
              ? 'text'
              : 'data';
    // All the same is no entropy, and not minus none.
    this.#blocks.push({ kind, entropy: entropy === 0 ? 0 : entropy });
    this.#counts = new Uint32Array(256);
    this.#inBlock = 0;
  }

  #character(byte: number): void {
    if (!printable(byte)) return this.#endText();
    this.#textLength += 1;
    if (this.#text.length < longestString) this.#text += String.fromCharCode(byte);
  }

  #endText(): void {
    if (this.#textLength >= leastString) {
      const found = { at: this.#at - this.#textLength, text: this.#text };
      if (this.#strings.length < mostStrings) this.#strings.push(found);
      if (this.#versions.length < mostVersions && versionLike.test(this.#text)) this.#versions.push(found);
    }
    [this.#text, this.#textLength] = ['', 0];
  }

  /** What begins in `seen`, whose first byte is at `from`. What may still be cut off at its end is left for the next look. */
  #look(seen: Uint8Array, from: number, last: boolean): void {
    const until = last ? seen.length : Math.max(0, seen.length - overlap);
    for (let index = 0; index < until && this.#signatures.length < mostSignatures; index += 1) {
      const first = seen[index] ?? 0;
      for (const { kind, bytes } of magics)
        if (bytes[0] === first && bytes.every((byte, place) => seen[index + place] === byte) && sound(kind, seen.subarray(index)))
          this.#signatures.push({ kind, at: from + index });
      const at = from + index;
      if (at % 1024 === 0 && isExt(seen.subarray(index))) this.#signatures.push({ kind: 'ext', at });
      if (at === 0 && seen[510] === 0x55 && seen[511] === 0xaa) this.#signatures.push({ kind: 'mbr', at });
    }
  }
}

const big = (bytes: Uint8Array, at: number): number =>
  (((bytes[at] ?? 0) << 24) | ((bytes[at + 1] ?? 0) << 16) | ((bytes[at + 2] ?? 0) << 8) | (bytes[at + 3] ?? 0)) >>> 0;

/** Short magics stand in random bytes too: the fields behind them have to be possible. */
function sound(kind: ContentSignature['kind'], bytes: Uint8Array): boolean {
  // Flags of RFC 1952: the upper three bits are reserved.
  if (kind === 'gzip') return ((bytes[3] ?? 0xff) & 0xe0) === 0;
  // Class and byte order of ELF; versions of UBI.
  if (kind === 'elf') return [1, 2].includes(bytes[4] ?? 0) && [1, 2].includes(bytes[5] ?? 0);
  if (kind === 'ubi') return bytes[4] === 1;
  // Its structure begins behind its header of 40 bytes.
  if (kind === 'device-tree') return big(bytes, 4) >= 40 && big(bytes, 8) >= 40 && big(bytes, 8) < big(bytes, 4);
  return true;
}

/** State and block size have to be possible (ext4, disk layout in the Linux kernel's documentation). */
function isExt(bytes: Uint8Array): boolean {
  if (bytes[extMagicAt] !== 0x53 || bytes[extMagicAt + 1] !== 0xef) return false;
  const state = bytes[extMagicAt + 2] ?? 0;
  const blockSize = bytes[1024 + 24] ?? 0xff;
  const inodes = (bytes[1024] ?? 0) | (bytes[1025] ?? 0) | (bytes[1026] ?? 0) | (bytes[1027] ?? 0);
  return state >= 1 && state <= 7 && blockSize <= 6 && inodes !== 0;
}

/** Neighbouring blocks of one kind, from their first byte to behind their last, with their mean entropy. */
export interface ContentRun {
  readonly kind: ContentBlock['kind'];
  readonly from: number;
  readonly to: number;
  readonly entropy: number;
}
/** The blocks of a dump as runs, in order. */
export function contentRuns({ blocks, blockBytes, bytes }: Content): ContentRun[] {
  const runs: { kind: ContentBlock['kind']; from: number; to: number; sum: number; blocks: number }[] = [];
  blocks.forEach(({ kind, entropy }, index) => {
    const [from, to] = [index * blockBytes, Math.min((index + 1) * blockBytes, bytes)];
    const last = runs.at(-1);
    if (last?.kind === kind) Object.assign(last, { to, sum: last.sum + entropy, blocks: last.blocks + 1 });
    else runs.push({ kind, from, to, sum: entropy, blocks: 1 });
  });
  return runs.map(({ sum, blocks: n, ...run }) => ({ ...run, entropy: sum / n }));
}
