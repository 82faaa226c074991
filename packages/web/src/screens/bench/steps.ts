/** Which step is on the screen: the one somebody chose, the one the set was changed for, or the one suggested. */
import { openWaits, type Entry, type NextStep, type Toward } from '@veglia/core';
import { computed, ref, type ComputedRef, type Ref } from 'vue';
import { useJob } from '../../stores/job.ts';

const keyOf = (step: NextStep): string => `${step.kind}|${step.id}|${step.of ?? ''}`;

export interface Steps {
  readonly chosenKey: Ref<string>;
  /** Best first. */
  readonly steps: ComputedRef<readonly NextStep[]>;
  /** And behind them what was left out: it may be taken all the same. */
  readonly all: ComputedRef<NextStep[]>;
  readonly step: ComputedRef<NextStep | undefined>;
  /** Nobody chose it: the set was changed for it, or it waits. */
  readonly isBegun: ComputedRef<boolean>;
  readonly choose: (step: NextStep) => void;
  readonly toSuggested: () => void;
  readonly stepOf: (toward: Toward | undefined) => NextStep | undefined;
}

export function useSteps(live: ComputedRef<readonly Entry[]>): Steps {
  const store = useJob();
  const chosenKey = ref('');
  const steps = computed(() => store.fold?.next ?? []);
  const all = computed(() => [...steps.value, ...(store.fold?.leftOut ?? []).map((left) => left.step)]);
  const stepOf = (toward: Toward | undefined): NextStep | undefined =>
    all.value.find((one) => one.kind === toward?.kind && one.id === toward.id && (one.kind === 'repair' || one.of === toward.of));
  /** A step that the set was changed for and that isn't answered stays the one on the screen, whatever the change made cheaper. */
  const begun = computed(() => {
    const last = live.value.findLast(({ body }) => ['set.changed', 'test.answered', 'repair.done'].includes(body.kind))?.body;
    if (last?.kind === 'set.changed' && last.toward) return stepOf(last.toward);
    // And so does one that waits: whatever else is done to the set meanwhile may spoil it.
    return openWaits(live.value)
      .map(({ toward }) => stepOf(toward))
      .find((one) => one !== undefined);
  });
  const step = computed(() => all.value.find((one) => keyOf(one) === chosenKey.value) ?? begun.value ?? steps.value[0]);
  const isBegun = computed(() => begun.value !== undefined && step.value === begun.value);
  return {
    chosenKey,
    isBegun,
    steps,
    all,
    step,
    choose: (one) => (chosenKey.value = keyOf(one)),
    toSuggested: () => (chosenKey.value = steps.value[0] ? keyOf(steps.value[0]) : ''),
    stepOf,
  };
}
