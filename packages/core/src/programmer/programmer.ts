/** A chip programmer, whatever it is driven by. What can go wrong on the way is a value: none of it is an error of the program. */

/** Why there is no result. `not-detected`: the programmer is there and no chip answers it. */
export const programmerTroubles = [
  'not-reached',
  'not-detected',
  'several-chips',
  'write-protected',
  'size-differs',
  'timed-out',
  'cancelled',
  'broken-off',
  'not-understood',
] as const;
/** Why there is no result; `detail`: what came instead. */
export interface ProgrammerTrouble {
  readonly kind: (typeof programmerTroubles)[number];
  readonly detail: string;
  /** Of several that answer alike: the names of which one has to be picked. */
  readonly chips?: readonly string[];
}

/** The programmer itself answers. */
export interface ProgrammerReady {
  readonly kind: 'ready';
}
/** A chip that answers: its name as the programmer has it, its size in bytes, the code it was known by in hexadecimal. */
export interface ChipFound {
  readonly kind: 'found';
  readonly chip: string;
  readonly maker?: string;
  readonly code?: string;
  readonly bytes: number;
}
/** What was read, from the first byte on; whoever asked reads it once, to its end. */
export interface ChipRead {
  readonly kind: 'read';
  readonly bytes: number;
  readonly content: AsyncIterable<Uint8Array>;
}
/** A comparison of the chip with an image; `first` is a byte counted from the start. */
export type ChipVerified = { readonly kind: 'equal' } | { readonly kind: 'differs'; readonly first: number };

/** Bytes to be written or compared. */
export interface ChipImage {
  readonly bytes: number;
  content(): AsyncIterable<Uint8Array>;
}

/** What tells that work is to be broken off; a web platform’s AbortSignal is one. */
export interface StopSignal {
  readonly aborted: boolean;
  addEventListener(kind: 'abort', heard: () => void, how?: { readonly once?: boolean }): void;
  removeEventListener(kind: 'abort', heard: () => void): void;
}

/** How one piece of work is done. */
export interface ProgrammerWork {
  /** Which of several that answer alike. */
  readonly chip?: string | undefined;
  /** Chilled before it is read. A programmer can’t tell. */
  readonly cold?: boolean | undefined;
  /** Breaks it off. A chip that is being erased or written is left as it is then. */
  readonly signal?: StopSignal | undefined;
  /** Told as it goes on, where the programmer tells it: bytes done, and of how many. */
  readonly progress?: ((done: number, bytes: number) => void) | undefined;
}

/** A programmer. One piece of work at a time; a second is `not-reached` while it lasts. */
export interface ChipProgrammer {
  probe(work?: ProgrammerWork): Promise<ProgrammerReady | ProgrammerTrouble>;
  identify(work?: ProgrammerWork): Promise<ChipFound | ProgrammerTrouble>;
  read(work?: ProgrammerWork): Promise<ChipRead | ProgrammerTrouble>;
  erase(work?: ProgrammerWork): Promise<{ readonly kind: 'erased' } | ProgrammerTrouble>;
  program(image: ChipImage, work?: ProgrammerWork): Promise<{ readonly kind: 'programmed' } | ProgrammerTrouble>;
  verify(image: ChipImage, work?: ProgrammerWork): Promise<ChipVerified | ProgrammerTrouble>;
  close(): Promise<void>;
}
