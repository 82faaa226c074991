/** The search for the next step and the likely bill, off the main thread. A pack is sent once per hash; plain data only. */
import {
  compilePack,
  goOnWithEffects,
  likelyBill,
  ownNamesOnly,
  planDay,
  stepsFor,
  type LikelyBill,
  type CaseInput,
  type CompiledPack,
  type DayPlan,
  type Effect,
  type EffectsSoFar,
  type Pack,
  type PlannedSet,
  type Policy,
  type Recommendation,
  worthOfJob,
  type JobWorth,
  type WorthAsked,
} from '@veglia/core';
import { randomFrom } from '@veglia/simulators/set';
import { expose } from 'comlink';

const packs = new Map<string, CompiledPack>();
/** Of the ledger asked for last. */
let effects: EffectsSoFar | undefined;

const refiner = {
  learn(hash: string, pack: Pack): void {
    packs.set(hash, compilePack(ownNamesOnly(pack), hash));
  },
  /** What to do next, settled by the search over chains; undefined where the pack isn't known. */
  settle(hash: string, input: CaseInput, policy: Policy): Recommendation | undefined {
    const compiled = packs.get(hash);
    return compiled && stepsFor(input, compiled, policy);
  },
  /** Undefined where nothing is known to be wrong. */
  bill(hash: string, input: CaseInput): LikelyBill | undefined {
    const compiled = packs.get(hash);
    return compiled && likelyBill(input, compiled);
  },
  /** What each option leaves the customer; undefined where nothing is known to be wrong. */
  worth(hash: string, input: CaseInput, asked: WorthAsked): JobWorth | undefined {
    const compiled = packs.get(hash);
    return compiled && worthOfJob(input, compiled, asked, randomFrom(1));
  },
  /** What each entry did to the probabilities. */
  effects(hash: string, input: CaseInput): readonly Effect[] {
    const compiled = packs.get(hash);
    if (!compiled) return [];
    effects = goOnWithEffects(input, compiled, effects);
    return effects.effects;
  },
  /** What to do next across benches. */
  plan: (sets: PlannedSet[], technicians: number): DayPlan => planDay(sets, technicians),
};
export type Refiner = typeof refiner;

expose(refiner);
