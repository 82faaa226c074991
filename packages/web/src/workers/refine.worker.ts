/** The deeper search, off the main thread. A pack is sent once per hash; plain data only. */
import { compilePack, refine, type CaseInput, type CompiledPack, type Pack, type RefinedStep } from '@veglia/core';
import { expose } from 'comlink';

const packs = new Map<string, CompiledPack>();

const refiner = {
  knows: (hash: string): boolean => packs.has(hash),
  learn(hash: string, pack: Pack): void {
    packs.set(hash, compilePack(pack));
  },
  /** Steps by expected cost to the end, cheapest first; empty where the pack isn't known. */
  refine(hash: string, input: CaseInput): RefinedStep[] {
    const compiled = packs.get(hash);
    return compiled ? refine(input, compiled) : [];
  },
};
export type Refiner = typeof refiner;

expose(refiner);
