import { describe, expect, test } from '@jest/globals';
import { programmerConformance } from '@veglia/core/testing/programmer';
import { compilePack, vote, type ChipImage } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { SimulatedSet, goodContent, ownData, soundChip, type Chip } from '../set/index.ts';
import { clipped, SimulatedProgrammer } from './simulatedProgrammer.ts';

const compiled = compilePack(await readPackFolder(new URL('../../../../knowledge', import.meta.url).pathname));
const setWith = (fault: string, seed: number): SimulatedSet =>
  new SimulatedSet({ layout: compiled.layouts.get('led-tcon')!, faults: [fault], seed });
/** The first set whose memory is as wanted. */
const chipOf = (fault: string, like: (chip: Chip) => boolean): { set: SimulatedSet; chip: Chip } => {
  for (let seed = 1; seed < 60; seed += 1) {
    const set = setWith(fault, seed);
    const chip = set.chip();
    if (like(chip)) return { set, chip };
  }
  throw new Error('no such set');
};
const imageOf = (content: Uint8Array): ChipImage => ({
  bytes: content.length,
  async *content() {
    await Promise.resolve();
    yield content;
  },
});
async function read(programmer: SimulatedProgrammer, cold = false): Promise<Uint8Array> {
  const said = await programmer.read({ cold });
  if (said.kind !== 'read') throw new Error(said.kind);
  const parts: Uint8Array[] = [];
  for await (const part of said.content) parts.push(part);
  return new Uint8Array(Buffer.concat(parts));
}
const unlike = (a: Uint8Array, b: Uint8Array): number => a.reduce((sum, byte, at) => sum + (byte === b[at] ? 0 : 1), 0);

const atOnce = { bytesPerSecond: Infinity, pause: () => Promise.resolve(), seed: 7 };
const on = (chip: Chip): SimulatedProgrammer => {
  const programmer = new SimulatedProgrammer(atOnce);
  programmer.on = clipped(chip);
  return programmer;
};

programmerConformance('the simulated programmer', () => {
  const programmer = on(soundChip());
  return Promise.resolve({
    programmer,
    bytes: 2 ** 20,
    chip: soundChip().marking,
    content: () => Promise.resolve(programmer.on?.content ?? new Uint8Array()),
    fill: (content) => Promise.resolve(void (programmer.on && (programmer.on.content = content.slice()))),
    unplug: (what) => Promise.resolve(what === 'chip' ? void (programmer.on = undefined) : void (programmer.connected = false)),
    protect: () => Promise.resolve(void (programmer.writeProtected = true)),
    close: () => programmer.close(),
  });
});

describe('the chip of a simulated set', () => {
  test('an unsteady memory: two warm reads differ in few bytes; cold it reads steadier; several cold reads give what it held by majority', async () => {
    const { set, chip } = chipOf('main.startup-memory', ({ weak }) => weak.length > 0);
    const programmer = on(chip);
    const [first, second] = [await read(programmer), await read(programmer)];
    expect(unlike(first, second)).toBeGreaterThan(0);
    expect(unlike(first, second)).toBeLessThan(50);
    const cold: Uint8Array[] = [];
    for (let index = 0; index < 5; index += 1) cold.push(await read(programmer, true));
    expect(unlike(cold[0]!, cold[1]!)).toBeLessThan(unlike(first, second));
    const majority = new Uint8Array(chip.content.length);
    vote(cold, majority);
    expect(unlike(majority, chip.content)).toBe(0);
    // The set's own test of this says the same.
    expect(set.perform(compiled.tests.get('memory.read-twice')!).outcome).toBe('differ');
  });
  test('written again, the unsteady memory still is: it can’t be relied on to verify', async () => {
    const { chip } = chipOf('main.startup-memory', ({ weak }) => weak.length > 0);
    const programmer = on(chip);
    const good = goodContent(3);
    await programmer.erase();
    await programmer.program(imageOf(good));
    const results = [];
    for (let index = 0; index < 5; index += 1) results.push((await programmer.verify(imageOf(good))).kind);
    expect(results).toContain('differs');
  });
  test('a dead one answers nothing, whatever it is asked', async () => {
    const { chip } = chipOf('main.startup-memory', ({ answers }) => !answers);
    const programmer = on(chip);
    expect(await programmer.identify()).toEqual({ kind: 'not-detected', detail: '' });
    programmer.on = clipped(soundChip());
    expect((await programmer.identify()).kind).toBe('found');
  });
  test('damaged content reads the same each time, keeps the set’s own data, and is cured by the content of another set of its kind', async () => {
    const { chip } = chipOf('main.flash-content', () => true);
    const programmer = on(chip);
    const dump = await read(programmer);
    expect(unlike(dump, await read(programmer))).toBe(0);
    const other = goodContent(99);
    expect(unlike(dump, other)).toBeGreaterThan(0);
    expect(unlike(dump.slice(ownData.from, ownData.to), other.slice(ownData.from, ownData.to))).toBeGreaterThan(3000);
    await programmer.erase();
    await programmer.program(imageOf(other));
    expect(await programmer.verify(imageOf(other))).toEqual({ kind: 'equal' });
  });
  test('writing only clears bits: without an erase it is neither the old content nor the new', async () => {
    const programmer = on(soundChip(goodContent(1)));
    await programmer.program(imageOf(goodContent(2)));
    expect((await programmer.verify(imageOf(goodContent(2)))).kind).toBe('differs');
  });
});

describe('broken off on purpose', () => {
  test.each(['erase', 'program', 'read', 'verify'] as const)('%s breaks off where it was told to, and says so', async (work) => {
    const programmer = on(soundChip(goodContent(1)));
    programmer.fault = { work, afterBytes: 100_000, kind: 'broken-off' };
    const said = work === 'program' || work === 'verify' ? await programmer[work](imageOf(goodContent(2))) : await programmer[work]();
    expect(said).toEqual({ kind: 'broken-off', detail: '' });
    const content = programmer.on!.content;
    if (work === 'erase')
      expect([content[99_999], content.findIndex((byte, at) => at >= 100_000 && byte !== 0xff) >= 0]).toEqual([0xff, true]);
  });
  test('a person breaks off between two pieces, and is told how far it was', async () => {
    const stop = new AbortController();
    const programmer = on(soundChip(goodContent(1)));
    const said = await programmer.read({ signal: stop.signal, progress: (done) => done >= 200_000 && stop.abort() });
    expect(said).toEqual({ kind: 'cancelled', detail: '' });
  });
});
