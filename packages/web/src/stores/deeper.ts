/** A deeper look at the next step, told by a worker. Each question has a number; answers to older ones are dropped. */
import type { CaseInput, CompiledPack, RefinedStep } from '@veglia/core';
import { wrap, type Remote } from 'comlink';
import { shallowRef, type ShallowRef } from 'vue';
import type { Refiner } from '../workers/refine.worker.ts';

let worker: Remote<Refiner> | undefined;
const refiner = (): Remote<Refiner> =>
  (worker ??= wrap<Refiner>(new Worker(new URL('../workers/refine.worker.ts', import.meta.url), { type: 'module' })));

export interface DeeperLook {
  /** Undefined while it is being looked at. */
  readonly steps: ShallowRef<readonly RefinedStep[] | undefined>;
  look(input: CaseInput, compiled: CompiledPack): void;
  forget(): void;
}

export function useDeeperLook(): DeeperLook {
  const steps = shallowRef<readonly RefinedStep[]>();
  let revision = 0;

  async function ask(input: CaseInput, compiled: CompiledPack, mine: number): Promise<void> {
    // A proxy of a store can't be sent: plain data can.
    const plain = JSON.parse(JSON.stringify(input)) as CaseInput;
    if (!(await refiner().knows(compiled.hash)))
      await refiner().learn(compiled.hash, JSON.parse(JSON.stringify(compiled.pack)) as CompiledPack['pack']);
    if (mine !== revision) return;
    const found = await refiner().refine(compiled.hash, plain);
    if (mine === revision) steps.value = found;
  }

  return {
    steps,
    look(input, compiled) {
      revision += 1;
      steps.value = undefined;
      void ask(input, compiled, revision);
    },
    forget() {
      revision += 1;
      steps.value = undefined;
    },
  };
}
