/** The start-up memory of a simulated set, as a programmer meets it: what its fault did to cells and content. */
import type { Body } from './body.ts';
import { randomFrom, seedOf } from './random.ts';

/** A bit that reads wrong now and then. */
export interface WeakBit {
  readonly byte: number;
  readonly bit: number;
  /** Share of wrong reads at room temperature, and cold. */
  readonly warm: number;
  readonly cold: number;
}
/** A memory chip. */
export interface Chip {
  /** As printed on it. */
  readonly marking: string;
  /** Maker and device, hexadecimal, as it answers. */
  readonly code: string;
  readonly answers: boolean;
  readonly content: Uint8Array;
  readonly weak: readonly WeakBit[];
}

const marking = 'VN25S8';
/** Behind four banks of makers, and in no table here: it is to be taken for nobody’s chip. */
const code = '7f7f7f7ff14014';
const bytes = 2 ** 20;
/** Where the set’s own data stand: serial number, keys, adjustment. */
export const ownData = { from: bytes - 0x1_0000, to: bytes - 0xf000 } as const;
const startText = 'VNBT start 2.31 built 2026-02-11\0';
const mainText = 'VNAP application 7.0.4\0';

/** The content that starts a board: start code, application, space, the set’s own data. The same for every set but the own data, which follow `seed`. */
export function goodContent(seed: number): Uint8Array {
  const content = new Uint8Array(bytes).fill(0xff);
  const put = (at: number, length: number, word: string, from: number): void => {
    const random = randomFrom(seedOf(from, word));
    for (let index = 0; index < length; index += 1) content[at + index] = Math.floor(random() * 256);
  };
  put(0x40, 0x1_4000, 'start', 1);
  content.set(new TextEncoder().encode(startText), 0);
  put(0x2_0040, 0x9_0000, 'application', 1);
  content.set(new TextEncoder().encode(mainText), 0x2_0000);
  put(ownData.from, ownData.to - ownData.from, 'own', seed);
  content.set(new TextEncoder().encode(ownText(seed)), ownData.from);
  return content;
}

/** Serial number and hardware address, locally administered: nobody’s. */
function ownText(seed: number): string {
  const random = randomFrom(seedOf(seed, 'own text'));
  const digits = (count: number, base: number): string =>
    Array.from({ length: count }, () => Math.floor(random() * base).toString(base))
      .join('')
      .toUpperCase();
  const address = ['02', ...Array.from({ length: 5 }, () => digits(2, 16))].join(':');
  return `serialno=VN${digits(6, 10)}\0ethaddr=${address}\0`;
}

/** Weak cells of an unsteady memory: few of a million, each wrong in a quarter of the reads and hardly ever cold (values of ours). */
function weakBits(seed: number): WeakBit[] {
  const random = randomFrom(seedOf(seed, 'weak'));
  return Array.from({ length: 24 }, () => ({
    byte: Math.floor(random() * 0xa_0000),
    bit: Math.floor(random() * 8),
    warm: 0.15 + random() * 0.2,
    cold: 0.004,
  }));
}

/** A chip of the type that the set has, blank or with a content. */
export const soundChip = (content: Uint8Array = new Uint8Array(bytes).fill(0xff)): Chip => ({
  marking,
  code,
  answers: true,
  content,
  weak: [],
});

/** The chip that is in a set with this body. */
export function chipIn({ main }: Body, seed: number): Chip {
  const content = goodContent(seed);
  // A block lost its data: what an interrupted update leaves behind.
  if (main.flash.damaged !== 'no') content.fill(0xff, 0x3_0000, 0x4_0000);
  return {
    ...soundChip(content),
    answers: main.memory.state !== 'dead',
    weak: main.memory.state === 'unsteady' ? weakBits(seed) : [],
  };
}
