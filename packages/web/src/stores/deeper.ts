/**
 * What takes too long for a keystroke, asked of a worker: the search for the next step, and the likely bill. Each question has
 * a number; answers to older ones are dropped.
 */
import {
  stepsFor,
  type LikelyBill,
  type CaseInput,
  type CompiledPack,
  type DayPlan,
  type Effect,
  type JobWorth,
  type WorthAsked,
  type PlannedSet,
  type Policy,
  type Recommendation,
} from '@veglia/core';
import { wrap, type Remote } from 'comlink';
import { shallowRef, type ShallowRef } from 'vue';
import type { Refiner } from '../workers/refine.worker.ts';

let worker: Remote<Refiner> | undefined;
const refiner = (): Remote<Refiner> =>
  (worker ??= wrap<Refiner>(new Worker(new URL('../workers/refine.worker.ts', import.meta.url), { type: 'module' })));

/** What the worker has been sent, or is being sent: a pack once, however many ask at the same time. */
const taught = new Map<string, Promise<void>>();
function teach({ hash, pack }: CompiledPack): Promise<void> {
  const known = taught.get(hash);
  if (known) return known;
  const sent = refiner().learn(hash, JSON.parse(JSON.stringify(pack)) as CompiledPack['pack']);
  taught.set(hash, sent);
  // What failed once is tried again by whoever asks next.
  sent.catch(() => taught.delete(hash));
  return sent;
}
/** Its code is fetched and run beside what the page itself still loads; with a pack, that is sent on too. */
export function readyRefiner(compiled?: CompiledPack): void {
  try {
    refiner();
    // Where it can't be sent, whoever needs the answer is told.
    if (compiled) teach(compiled).catch(() => undefined);
  } catch {
    // No worker can be had: who asks for an answer works it out without one.
  }
}

export interface Asked<T> {
  /** Undefined while it is being looked at, and where nothing came of it. */
  readonly answer: ShallowRef<T | undefined>;
  look(input: CaseInput, compiled: CompiledPack): void;
  forget(): void;
}

function useWorker<T>(
  ask: (refiner: Remote<Refiner>, hash: string, input: CaseInput) => Promise<T | undefined>,
  keepWhileAsking: boolean,
): Asked<T> {
  const answer = shallowRef<T>();
  let revision = 0;

  async function run(input: CaseInput, compiled: CompiledPack, mine: number): Promise<void> {
    // A proxy of a store can't be sent: plain data can.
    const plain = JSON.parse(JSON.stringify(input)) as CaseInput;
    await teach(compiled);
    if (mine !== revision) return;
    const found = await ask(refiner(), compiled.hash, plain);
    if (mine === revision) answer.value = found;
  }

  return {
    answer,
    look(input, compiled) {
      revision += 1;
      if (!keepWhileAsking) answer.value = undefined;
      void run(input, compiled, revision);
    },
    forget() {
      revision += 1;
      answer.value = undefined;
    },
  };
}

/**
 * The steps of a case, settled by the worker; where none can be had, settled here. What is asked for while another answer is under way waits
 * its turn; the caller drops what it no longer wants.
 */
export async function settleSteps(input: CaseInput, compiled: CompiledPack, policy: Policy): Promise<Recommendation> {
  const plain = JSON.parse(JSON.stringify(input)) as CaseInput;
  try {
    await teach(compiled);
    const settled = await refiner().settle(compiled.hash, plain, policy);
    if (settled) return settled;
  } catch {
    worker = undefined;
    taught.clear();
  }
  return stepsFor(plain, compiled, policy);
}
/** The last bill stays until the next is there: it changes with every answer, and a gap would jump. */
export const useLikelyBill = (): Asked<LikelyBill> => useWorker((asked, hash, input) => asked.bill(hash, input), true);
/** Before and after of every entry; the last answer stays until the next is there. */
export const useEffects = (): Asked<readonly Effect[]> => useWorker((asked, hash, input) => asked.effects(hash, input), true);

/** The day's plan over all sets; pure, and with many sets too long for the main thread. */
export const askPlan = (sets: readonly PlannedSet[], technicians: number): Promise<DayPlan> =>
  refiner().plan(JSON.parse(JSON.stringify(sets)) as PlannedSet[], technicians);

/** What each option leaves the customer; undefined where nothing is known to be wrong. */
export async function askWorth(input: CaseInput, compiled: CompiledPack, asked: WorthAsked): Promise<JobWorth | undefined> {
  await teach(compiled);
  return refiner().worth(compiled.hash, JSON.parse(JSON.stringify(input)) as CaseInput, asked);
}
