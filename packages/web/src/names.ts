/** Ids into the words of the pack and of the screen. */
import { printMoney } from '@veglia/contract';
import { notInBook, type CompiledPack, type Money } from '@veglia/core';
import { useI18n } from 'vue-i18n';
import { textOf } from './stores/packs.ts';

export interface Names {
  assembly(id: string): string;
  test(id: string, of?: string): string;
  outcome(testId: string, outcomeId: string): string;
  symptom(id: string): string;
  repair(id: string): string;
  fault(id: string): string;
  stage(id: string): string;
  tool(id: string): string;
  step(kind: string, id: string, of?: string): string;
  /** An assembly, a harness, or a point on one, by the layout in question. */
  place(id: string): string;
}

/** `layout` is whose points are named; left out: the first layout that has one of that id. */
export function useNames(compiled: () => CompiledPack | undefined, layout?: () => string | undefined): Names {
  const i18n = useI18n();
  const { t } = i18n;
  const find = <T extends { id: string }>(items: readonly T[] | undefined, id: string): T | undefined =>
    items?.find((item) => item.id === id);
  const names: Names = {
    assembly: (id) => (id === notInBook ? t('bench.unknown') : textOf(find(compiled()?.pack.assemblies, id)?.name) || id),
    test(id, of) {
      const name = textOf(compiled()?.tests.get(id)?.name) || id;
      return of === undefined ? name : `${name} (${names.assembly(of)})`;
    },
    outcome(testId, outcomeId) {
      if (outcomeId === 'cant-tell') return t('bench.cantTell');
      if (outcomeId === 'not-possible') return t('bench.notPossible');
      return textOf(find(compiled()?.tests.get(testId)?.observe.outcomes, outcomeId)?.name) || outcomeId;
    },
    symptom: (id) => textOf(find(compiled()?.pack.symptoms, id)?.name) || id,
    repair: (id) => textOf(find(compiled()?.pack.repairs, id)?.name) || id,
    fault: (id) => (id === notInBook ? t('bench.unknown') : textOf(compiled()?.faults.get(id)?.name) || id),
    tool: (id) => textOf(find(compiled()?.pack.tools, id)?.name) || id,
    stage: (id) => textOf(find(compiled()?.pack.stages, id)?.name) || id,
    place(id) {
      const assembly = find(compiled()?.pack.assemblies, id);
      if (assembly) return textOf(assembly.name);
      const layouts = compiled()?.pack.layouts ?? [];
      const own = layouts.find((one) => one.id === layout?.() && one.points[id]) ?? layouts.find((one) => one.points[id]);
      return textOf(own?.points[id]?.name) || (i18n.te(`place.${id}`) ? t(`place.${id}`) : id.replaceAll(/[.-]/g, ' '));
    },
    step(kind, id, of) {
      if (kind === 'test') return names.test(id, of);
      if (kind === 'repair') return names.repair(id);
      if (kind === 'blink') return t('bench.blinkTitle');
      if (kind === 'layout') return t('bench.layoutStep.title');
      if (id === 'prove-and-close') return t('bench.cured.title');
      return id === 'give-up' ? t('bench.giveUp') : t('bench.stop');
    },
  };
  return names;
}

export const money = (amount: Money): string => printMoney(amount);
/** Without cents where there are none. */
export const roundMoney = (amount: Money): string => printMoney(amount, 'round');

/** Probabilities for people: whole percent, and never a bare 0 or 100 that no fold can stand behind. */
export function percent(probability: number): string {
  if (probability < 0.01) return '< 1 %';
  if (probability > 0.99) return '> 99 %';
  return `${Math.round(probability * 100)} %`;
}
