/** The way to the step on the screen: how far it is, what waits, and how a result was come by. */
import type { ShopSettings } from '@veglia/contract';
import {
  consentsFor,
  liveEntries,
  objectionsTo,
  progressOf,
  type Body,
  type BodyOf,
  type CaseFold,
  type CompiledPack,
  type Consent,
  type Entry,
  type NextStep,
  type Objection,
  type Progress,
  type TestDefinition,
  type Toward,
  type Wait,
} from '@veglia/core';
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Names } from '../../names.ts';
import { useCoarseNow } from '../../stores/clock.ts';

interface Given {
  readonly step: NextStep;
  readonly fold: CaseFold;
  readonly compiled: CompiledPack;
  readonly shop: ShopSettings;
  readonly entries: readonly Entry[];
  readonly waits: readonly Wait[];
}

export interface WalkNow {
  readonly progress: ComputedRef<Progress | undefined>;
  /** What the step breaks and the customer hasn't agreed to so far. */
  readonly consents: ComputedRef<Consent[]>;
  /** A move is left before the step can be done. */
  readonly walking: ComputedRef<boolean>;
  /** It was done another way, and is about to be recorded as that. */
  readonly anyway: Ref<boolean>;
  readonly objections: ComputedRef<Objection[]>;
  /** The timer of this step, where one runs or rings. */
  readonly wait: ComputedRef<Wait | undefined>;
  readonly ownWait: ComputedRef<number>;
  readonly startWait: (minutes: number) => void;
  readonly walked: (change: BodyOf<'set.changed'>) => void;
  readonly cameBy: () => { walked?: true; anyway?: true };
}

export function useWalk(props: Given, names: Names, write: (bodies: Body[]) => void): WalkNow {
  const { t } = useI18n();
  const test = (): TestDefinition | undefined => (props.step.kind === 'test' ? props.compiled.tests.get(props.step.id) : undefined);
  const now = useCoarseNow();
  const live = computed(() => liveEntries(props.entries));
  const toward = computed((): Toward | undefined =>
    props.step.kind === 'test' || props.step.kind === 'repair'
      ? {
          kind: props.step.kind,
          id: props.step.id,
          ...(props.step.kind === 'test' && props.step.of !== undefined ? { of: props.step.of } : {}),
        }
      : undefined,
  );
  const progress = computed(() => {
    const { layout, family } = props.fold.set;
    if (!toward.value || layout === undefined) return undefined;
    const known = props.compiled.families.get(family ?? '');
    return progressOf(toward.value, live.value, props.compiled, layout, now.value, props.shop.lapseMinutes, known);
  });
  const consents = computed(() => {
    const { layout } = props.fold.set;
    const target = props.step.kind === 'layout' ? { kind: props.step.kind, id: props.step.id } : toward.value;
    return target && layout !== undefined ? consentsFor(target, live.value, props.fold.set, props.compiled, layout) : [];
  });
  const anyway = ref(false);
  watch(
    () => `${props.step.kind} ${props.step.id} ${props.step.of ?? ''}`,
    () => (anyway.value = false),
  );
  const walking = computed(() => progress.value?.next !== undefined || consents.value.length > 0);
  /** What doing it without the rest of the walk would mean. */
  const objections = computed(() => {
    const current = progress.value;
    if (!current) return [];
    const rest: BodyOf<'set.changed'>[] = current.walk.moves.slice(current.done).map(({ change }) => change);
    const moved = rest.filter(
      (change) => change.pulled ?? change.restored ?? change.bridged ?? change.unbridged ?? change.taped ?? change.untaped,
    );
    return moved.flatMap((change) => objectionsTo(change, current.standing, props.compiled, props.fold.set.layout));
  });
  const wait = computed(() => props.waits.find((one) => one.toward?.id === props.step.id && one.toward.of === toward.value?.of));
  /** Minutes the procedure itself waits; a discharge is the walk's, and is something else. */
  const ownWait = computed(() => test()?.do.reduce((sum, one) => sum + ('wait' in one ? one.wait : 0), 0) ?? 0);
  function startWait(minutes: number): void {
    if (!toward.value) return;
    const step = names.step(props.step.kind, props.step.id, toward.value.of);
    const name = progress.value?.next ? t('bench.wait.drain', { step }) : step;
    write([{ kind: 'wait.started', v: 2, name, minutes, toward: toward.value }]);
  }
  /** A discharge that was waited for is over with the look it was for. */
  function walked(change: BodyOf<'set.changed'>): void {
    const drained = wait.value;
    const ended: Body[] = drained
      ? [{ kind: 'wait.ended', v: 2, name: drained.name, wait: drained.id, ...(drained.endsAt > Date.now() ? { early: true } : {}) }]
      : [];
    write([change, ...ended]);
  }
  /** How a result was come by: step by step, in spite of the walk, or with the cover on, where no walk is needed. */
  const cameBy = (): { walked?: true; anyway?: true } =>
    walking.value ? { anyway: true } : progress.value && !progress.value.walk.harmless ? { walked: true } : {};
  return { progress, consents, walking, anyway, objections, wait, ownWait, startWait, walked, cameBy };
}
