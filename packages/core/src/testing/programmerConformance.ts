/** The same tests for every chip programmer: what is asked of `ChipProgrammer`, whatever drives it. */
import { afterEach, describe, expect, test } from '@jest/globals';
import type { ChipImage, ChipProgrammer, ProgrammerTrouble } from '../programmer/index.ts';

/** A programmer with a chip that can be changed behind its back. */
export interface ProgrammerRig {
  readonly programmer: ChipProgrammer;
  /** Bytes of its chip, and the name the programmer should have for it. */
  readonly bytes: number;
  readonly chip: string;
  /** What is on the chip, looked at past the programmer. */
  readonly content: () => Promise<Uint8Array>;
  /** Puts something on the chip past the programmer. */
  readonly fill: (content: Uint8Array) => Promise<void>;
  /** Takes the chip out, or the programmer off the cable. */
  readonly unplug: (what: 'chip' | 'programmer') => Promise<void>;
  readonly protect: () => Promise<void>;
  readonly close: () => Promise<void>;
}

const imageOf = (content: Uint8Array): ChipImage => ({
  bytes: content.length,
  async *content() {
    await Promise.resolve();
    for (let at = 0; at < content.length; at += 50_000) yield content.subarray(at, at + 50_000);
  },
});
async function all(content: AsyncIterable<Uint8Array>): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  for await (const part of content) parts.push(part);
  return new Uint8Array(Buffer.concat(parts));
}
/** Bytes that repeat nowhere within the chip. */
const numbered = (bytes: number): Uint8Array => Uint8Array.from({ length: bytes }, (_, at) => ((at * 2_654_435_761) >>> 24) ^ (at & 0xff));
const same = (a: Uint8Array, b: Uint8Array): boolean => Buffer.compare(a, b) === 0;
const troubleOf = (said: { readonly kind: string } | ProgrammerTrouble): string => said.kind;

/** `open` gives a fresh rig: chip in, erased; a chip that can be protected where that is asked for. */
export function programmerConformance(name: string, open: (wanted: { readonly protectable: boolean }) => Promise<ProgrammerRig>): void {
  describe(`${name} does what every programmer does`, () => {
    let rig: ProgrammerRig | undefined;
    const fresh = async (protectable = false): Promise<ProgrammerRig> => (rig = await open({ protectable }));
    afterEach(async () => {
      await rig?.close();
      rig = undefined;
    });

    test('it answers for itself, and names chip and size', async () => {
      const { programmer, chip, bytes } = await fresh();
      expect(await programmer.probe()).toEqual({ kind: 'ready' });
      expect(await programmer.identify()).toMatchObject({ kind: 'found', chip, bytes });
    });
    test('what was written is on the chip, reads back, and is found equal', async () => {
      const { programmer, bytes, content } = await fresh();
      const wanted = numbered(bytes);
      expect(await programmer.program(imageOf(wanted))).toEqual({ kind: 'programmed' });
      expect(same(await content(), wanted)).toBe(true);
      const read = await programmer.read();
      if (read.kind !== 'read') throw new Error(read.kind);
      expect(read.bytes).toBe(bytes);
      expect(same(await all(read.content), wanted)).toBe(true);
      expect(await programmer.verify(imageOf(wanted))).toEqual({ kind: 'equal' });
    });
    test('one bit that flipped is found, at its byte', async () => {
      const { programmer, bytes, fill } = await fresh();
      const wanted = numbered(bytes);
      const flipped = wanted.slice();
      const at = bytes - 4321;
      flipped[at] = (flipped[at] ?? 0) ^ 0x10;
      await fill(flipped);
      expect(await programmer.verify(imageOf(wanted))).toEqual({ kind: 'differs', first: at });
    });
    test('erased is all FF', async () => {
      const { programmer, bytes, content, fill } = await fresh();
      await fill(numbered(bytes));
      expect(await programmer.erase()).toEqual({ kind: 'erased' });
      expect((await content()).every((byte) => byte === 0xff)).toBe(true);
    });
    test('an image of another size is refused, and nothing on the chip changes', async () => {
      const { programmer, bytes, content, fill } = await fresh();
      const before = numbered(bytes);
      await fill(before);
      expect(troubleOf(await programmer.program(imageOf(before.subarray(0, bytes / 2))))).toBe('size-differs');
      expect(same(await content(), before)).toBe(true);
    });
    test.each(['identify', 'read', 'erase'] as const)('%s without a chip: not detected, as a value', async (work) => {
      const { programmer, unplug } = await fresh();
      await unplug('chip');
      expect(troubleOf(await programmer[work]())).toBe('not-detected');
      expect(await programmer.probe()).toEqual({ kind: 'ready' });
    });
    test('without the programmer nothing is reached, as a value', async () => {
      const { programmer, unplug } = await fresh();
      await unplug('programmer');
      expect(troubleOf(await programmer.probe())).toBe('not-reached');
      expect(troubleOf(await programmer.read())).toBe('not-reached');
    });
    test('a protected chip is neither erased nor written', async () => {
      const { programmer, bytes, content, fill, protect } = await fresh(true);
      const before = new Uint8Array(bytes).fill(0x5a);
      await fill(before);
      await protect();
      expect(troubleOf(await programmer.erase())).toBe('write-protected');
      expect(troubleOf(await programmer.program(imageOf(new Uint8Array(bytes).fill(0xa5))))).toBe('write-protected');
      expect(same(await content(), before)).toBe(true);
    });
    test('broken off before it began, it did nothing', async () => {
      const { programmer, bytes, content, fill } = await fresh();
      const before = numbered(bytes);
      await fill(before);
      const stop = new AbortController();
      stop.abort();
      expect(troubleOf(await programmer.erase({ signal: stop.signal }))).toBe('cancelled');
      expect(same(await content(), before)).toBe(true);
    });
    test('one piece of work at a time', async () => {
      const { programmer } = await fresh();
      const first = programmer.identify();
      expect(await programmer.identify()).toEqual({ kind: 'not-reached', detail: 'busy' });
      expect(troubleOf(await first)).toBe('found');
    });
  });
}
