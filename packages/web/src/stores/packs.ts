/** Knowledge packs, fetched by hash and compiled once; the shop's counts beside them, by number. */
import { compilePack, type CompiledPack, type Counts, type Text } from '@veglia/core';
import { defineStore } from 'pinia';
import { markRaw, shallowRef } from 'vue';
import { api, NotReached } from '../api.ts';

export const usePacks = defineStore('packs', () => {
  const compiled = new Map<string, CompiledPack>();
  const counted = new Map<number, Counts>();
  const current = shallowRef<CompiledPack>();

  const underWay = new Map<string, Promise<CompiledPack>>();
  /** Compiled once, however many screens ask at the same time. Throws NotReached. */
  function byHash(hash: string): Promise<CompiledPack> {
    const known = compiled.get(hash);
    if (known) return Promise.resolve(known);
    const asked = underWay.get(hash) ?? fetchAndCompile(hash).finally(() => underWay.delete(hash));
    underWay.set(hash, asked);
    return asked;
  }
  async function fetchAndCompile(hash: string): Promise<CompiledPack> {
    const reply = await api.pack(hash);
    if (!reply.ok) throw new NotReached(reply.problem.title);
    const made = markRaw(compilePack(reply.value, hash));
    compiled.set(hash, made);
    return made;
  }

  async function loadCurrent(): Promise<CompiledPack> {
    const hash = await api.currentPack();
    if (!hash.ok) throw new NotReached(hash.problem.title);
    current.value = await byHash(hash.value);
    return current.value;
  }

  /** Counts by number, for as long as the page lives; undefined for 0, the pack alone. */
  async function countsAt(number: number): Promise<Counts | undefined> {
    if (number === 0) return undefined;
    const known = counted.get(number);
    if (known) return known;
    const reply = await api.counts(number);
    if (!reply.ok) throw new NotReached(reply.problem.title);
    const made = markRaw(reply.value);
    counted.set(number, made);
    return made;
  }

  /** Number of the counts a new job would get. */
  async function newestCounts(): Promise<number> {
    const reply = await api.newestCounts();
    if (!reply.ok) throw new NotReached(reply.problem.title);
    return reply.value;
  }

  return { current, byHash, loadCurrent, countsAt, newestCounts };
});

/** A pack's text in the language of the screen. */
export const textOf = (text: Text | undefined): string => text?.en ?? '';
