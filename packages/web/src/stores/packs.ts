/** Knowledge packs, fetched by hash and compiled once. */
import { compilePack, type CompiledPack, type Text } from '@veglia/core';
import { defineStore } from 'pinia';
import { markRaw, shallowRef } from 'vue';
import { api, NotReached } from '../api.ts';

export const usePacks = defineStore('packs', () => {
  const compiled = new Map<string, CompiledPack>();
  const current = shallowRef<CompiledPack>();

  async function byHash(hash: string): Promise<CompiledPack> {
    const known = compiled.get(hash);
    if (known) return known;
    const reply = await api.pack(hash);
    if (!reply.ok) throw new NotReached(reply.problem.title);
    const made = markRaw(compilePack(reply.value));
    compiled.set(hash, made);
    return made;
  }

  async function loadCurrent(): Promise<CompiledPack> {
    const hash = await api.currentPack();
    if (!hash.ok) throw new NotReached(hash.problem.title);
    current.value = await byHash(hash.value);
    return current.value;
  }

  return { current, byHash, loadCurrent };
});

/** A pack's text in the language of the screen. */
export const textOf = (text: Text | undefined): string => text?.en ?? '';
