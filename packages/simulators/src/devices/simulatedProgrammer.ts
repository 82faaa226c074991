/**
 * A chip programmer that isn’t there, with the chip of a simulated set on its clip. A flash memory as they are: erasing sets every bit, writing only clears
 * bits, a weak cell reads wrong now and then, the less the colder.
 */
import type {
  ChipFound,
  ChipImage,
  ChipProgrammer,
  ChipRead,
  ChipVerified,
  ProgrammerReady,
  ProgrammerTrouble,
  ProgrammerWork,
} from '@veglia/core';
import type { Chip } from '../set/chip.ts';
import { randomFrom, type Random } from '../set/random.ts';

/** Bytes done between two looks at the clock. */
const pieceBytes = 64 * 1024;

/** How it works. */
export interface SimulatedProgrammerOptions {
  /** How fast, bytes a second; Infinity takes no time. */
  readonly bytesPerSecond: number;
  readonly pause: (milliseconds: number) => Promise<void>;
  readonly seed: number;
}

/** A fault put in on purpose: this work breaks off after so many bytes. */
export interface Fault {
  readonly work: 'read' | 'erase' | 'program' | 'verify';
  readonly afterBytes: number;
  readonly kind: ProgrammerTrouble['kind'];
}

/** What is under the clip, and what the programmer did to it. */
export interface Clipped {
  readonly chip: Chip;
  content: Uint8Array;
}
/** A chip under the clip, with a content of its own from now on. */
export const clipped = (chip: Chip): Clipped => ({ chip, content: chip.content.slice() });

/** A programmer with a clip. */
export class SimulatedProgrammer implements ChipProgrammer {
  readonly #options: SimulatedProgrammerOptions;
  readonly #random: Random;
  #working = false;
  /** On the cable. */
  connected = true;
  writeProtected = false;
  on: Clipped | undefined;
  fault: Fault | undefined;

  constructor(options: SimulatedProgrammerOptions) {
    this.#options = options;
    this.#random = randomFrom(options.seed);
  }

  probe(work: ProgrammerWork = {}): Promise<ProgrammerReady | ProgrammerTrouble> {
    return this.#alone(work, () => Promise.resolve({ kind: 'ready' } as const));
  }

  identify(work: ProgrammerWork = {}): Promise<ChipFound | ProgrammerTrouble> {
    return this.#withChip(work, ({ chip, content }) =>
      Promise.resolve({ kind: 'found' as const, chip: chip.marking, code: chip.code, bytes: content.length }),
    );
  }

  read(work: ProgrammerWork = {}): Promise<ChipRead | ProgrammerTrouble> {
    return this.#withChip(work, async (on) => {
      const seen = this.#seen(on, work.cold === true);
      const trouble = await this.#pass('read', seen.length, work, () => undefined);
      if (trouble) return trouble;
      return { kind: 'read' as const, bytes: seen.length, content: inPieces(seen) };
    });
  }

  erase(work: ProgrammerWork = {}): Promise<{ readonly kind: 'erased' } | ProgrammerTrouble> {
    return this.#withChip(work, async (on) => {
      if (this.writeProtected) return { kind: 'write-protected', detail: '' };
      const trouble = await this.#pass('erase', on.content.length, work, (from, to) => on.content.fill(0xff, from, to));
      return trouble ?? { kind: 'erased' as const };
    });
  }

  program(image: ChipImage, work: ProgrammerWork = {}): Promise<{ readonly kind: 'programmed' } | ProgrammerTrouble> {
    return this.#withChip(work, async (on) => {
      if (image.bytes !== on.content.length) return { kind: 'size-differs', detail: `${image.bytes} ${on.content.length}` };
      if (this.writeProtected) return { kind: 'write-protected', detail: '' };
      const wanted = await whole(image);
      const trouble = await this.#pass('program', wanted.length, work, (from, to) => {
        for (let at = from; at < to; at += 1) on.content[at] = (on.content[at] ?? 0) & (wanted[at] ?? 0);
      });
      return trouble ?? { kind: 'programmed' as const };
    });
  }

  verify(image: ChipImage, work: ProgrammerWork = {}): Promise<ChipVerified | ProgrammerTrouble> {
    return this.#withChip(work, async (on) => {
      if (image.bytes !== on.content.length) return { kind: 'size-differs', detail: `${image.bytes} ${on.content.length}` };
      const [wanted, seen] = [await whole(image), this.#seen(on, work.cold === true)];
      const trouble = await this.#pass('verify', wanted.length, work, () => undefined);
      if (trouble) return trouble;
      const first = wanted.findIndex((byte, at) => byte !== seen[at]);
      return first < 0 ? { kind: 'equal' as const } : { kind: 'differs' as const, first };
    });
  }

  close(): Promise<void> {
    return Promise.resolve();
  }

  /** One reading of every cell. */
  #seen({ chip, content }: Clipped, cold: boolean): Uint8Array {
    const seen = content.slice();
    for (const weak of chip.weak)
      if (this.#random() < (cold ? weak.cold : weak.warm)) seen[weak.byte] = (seen[weak.byte] ?? 0) ^ (1 << weak.bit);
    return seen;
  }

  async #alone<T>({ signal }: ProgrammerWork, work: () => Promise<T | ProgrammerTrouble>): Promise<T | ProgrammerTrouble> {
    if (this.#working) return { kind: 'not-reached', detail: 'busy' };
    if (signal?.aborted === true) return { kind: 'cancelled', detail: '' };
    if (!this.connected) return { kind: 'not-reached', detail: '' };
    this.#working = true;
    try {
      return await work();
    } finally {
      this.#working = false;
    }
  }

  #withChip<T>(work: ProgrammerWork, does: (on: Clipped) => Promise<T | ProgrammerTrouble>): Promise<T | ProgrammerTrouble> {
    return this.#alone(work, async () => {
      await this.#options.pause(1);
      return this.on?.chip.answers === true ? does(this.on) : { kind: 'not-detected', detail: '' };
    });
  }

  /** Goes over the chip piece by piece; a fault or a person breaks it off where it is. */
  async #pass(
    work: Fault['work'],
    bytes: number,
    { signal, progress }: ProgrammerWork,
    piece: (from: number, to: number) => void,
  ): Promise<ProgrammerTrouble | undefined> {
    for (let at = 0; at < bytes; at += pieceBytes) {
      const to = Math.min(at + pieceBytes, bytes);
      if (signal?.aborted === true) return { kind: 'cancelled', detail: '' };
      if (this.fault?.work === work && this.fault.afterBytes < to) {
        if (this.fault.afterBytes > at) piece(at, this.fault.afterBytes);
        return { kind: this.fault.kind, detail: '' };
      }
      piece(at, to);
      await this.#options.pause(((to - at) / this.#options.bytesPerSecond) * 1000);
      progress?.(to, bytes);
    }
    return undefined;
  }
}

async function* inPieces(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  await Promise.resolve();
  for (let at = 0; at < bytes.length; at += pieceBytes) yield bytes.subarray(at, at + pieceBytes);
}

async function whole(image: ChipImage): Promise<Uint8Array> {
  const bytes = new Uint8Array(image.bytes);
  let at = 0;
  for await (const part of image.content()) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}
