/** Whether a test may be answered as the set stands: its make-safe steps done and its cautions acknowledged. */
import { liveEntries, progressOf, type CaseFold, type CompiledPack, type Entry, type NextStep, type Progress } from '@veglia/core';
import type { ShopSettings } from '@veglia/contract';
import { computed } from 'vue';
import { useCoarseNow } from '../../stores/clock.ts';
import { newCautions, stageCautions } from './cautions.ts';

export interface GateProps {
  readonly fold: CaseFold;
  readonly compiled: CompiledPack;
  readonly entries: readonly Entry[];
  readonly family: string | undefined;
  readonly shop: ShopSettings;
  /** All that can be done, left out or not. */
  readonly steps: readonly NextStep[];
}
export interface StepGate {
  readonly stepOf: (test: string) => NextStep | undefined;
  readonly progress: (test: string) => Progress | undefined;
  readonly cautionsLeft: (test: string) => boolean;
  readonly locked: (test: string) => boolean;
  /** Its make-safe steps were recorded one by one, and not taken as read. */
  readonly walked: (test: string) => boolean;
}

export function useStepGate(props: GateProps): StepGate {
  const now = useCoarseNow();
  const live = computed(() => liveEntries(props.entries));
  const known = computed(() => props.compiled.families.get(props.family ?? ''));
  const stepOf = (test: string): NextStep | undefined => props.steps.find(({ kind, id }) => kind === 'test' && id === test);
  const progress = (test: string): Progress | undefined => {
    const { layout } = props.fold.set;
    if (layout === undefined) return undefined;
    return progressOf({ kind: 'test', id: test }, live.value, props.compiled, layout, now.value, props.shop.lapseMinutes, known.value);
  };
  /** Cautions of the step that this job has not recorded as read; those of its stage where the step is no longer on offer. */
  function cautionsLeft(id: string): boolean {
    const step = stepOf(id);
    if (step) return newCautions(step, props.fold, props.compiled).length > 0;
    const test = props.compiled.tests.get(id);
    if (!test || props.fold.set.layout === undefined) return false;
    const stage = props.compiled.stageIds[props.compiled.procedure(test, props.fold.set.layout).stage] ?? '';
    return stageCautions({ stage } as NextStep, props.compiled).some((one) => !props.fold.cautionsRead.includes(one));
  }
  const locked = (test: string): boolean => progress(test)?.next !== undefined || cautionsLeft(test);
  const walked = (test: string): boolean => {
    const way = progress(test);
    return way !== undefined && !way.walk.harmless;
  };
  return { stepOf, progress, cautionsLeft, locked, walked };
}
