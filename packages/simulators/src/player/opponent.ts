/** What a technician plays against: something with a symptom that answers tests and repairs. */
import type { CompiledPack, PlacedFault, Repair, TestDefinition } from '@veglia/core';
import { curesOf, knownAs, outcomeTable } from '@veglia/core';
import { chance, randomFrom, seedOf, SimulatedSet, type RepairResult } from '../set/index.ts';

/** Whom a way of working is played against. */
export interface Opponent {
  complaint(): string | undefined;
  blink(): { groups: readonly number[]; colour?: string; after?: string } | undefined;
  perform(test: TestDefinition, object: string | undefined): string;
  repair(repair: Repair): RepairResult;
  /** Whether the set stays whole after a step that seemed to cure it: a plug reseated, another outlet, a drain. */
  staysCured(test: TestDefinition, object: string | undefined): boolean;
  /** Whether a good part of this kind would end something that is wrong. */
  wouldCure(repair: Repair): boolean;
}

/** The simulated set, with a share of answers that come out wrong. */
export function simulatedOpponent(set: SimulatedSet, errors: number): Opponent {
  return {
    complaint: () => set.complaint(),
    blink: () => set.blink(),
    perform: (test, object) => set.perform(test, object, errors).outcome,
    repair: (repair) => set.repair(repair),
    wouldCure: (repair) => set.wouldCure(repair),
    staysCured: (_, object) =>
      object === undefined
        ? set.wouldCure({ assembly: 'outside', kind: 'put-right' }) || set.wouldCure({ assembly: 'main', kind: 'drain' })
        : set.wouldCure({ assembly: object, kind: 'reseat' }),
  };
}

/** A part that cures this fault more often than not, or nearly so, is the right one. */
const rightPart = 0.3;

/** A case drawn from a pack. */
export interface BookCase {
  readonly layoutId: string;
  readonly familyId: string | undefined;
  readonly fault: PlacedFault;
  readonly seed: number;
}

/** A set that behaves just as the pack says: symptom, answers and cures are drawn from the pack's own probabilities. */
export function bookOpponent({ layoutId, familyId, fault, seed }: BookCase, compiled: CompiledPack, errors: number): Opponent {
  const draw = (probabilities: readonly number[], word: string): number => {
    let left = randomFrom(seedOf(seed, word))();
    const index = probabilities.findIndex((p) => (left -= p) < 0);
    return index < 0 ? probabilities.length - 1 : index;
  };
  const family = familyId === undefined ? undefined : compiled.families.get(familyId);
  const complaint = compiled.symptomIds[draw(compiled.symptomLikelihoods(layoutId, fault.id, family), 'complaint')];
  const hypotheses = [{ layoutId, fault, prior: 1 }];
  const seen = {
    layoutProbabilities: { [layoutId]: 1 },
    symptoms: new Set(complaint === undefined ? [] : knownAs([complaint], compiled.layouts.get(layoutId))),
    family,
    hypotheses,
  };
  let cured = false;
  let repairs = 0;
  return {
    complaint: () => (cured ? undefined : complaint),
    blink: () => undefined,
    perform(test, object) {
      const table = outcomeTable(seen, compiled, test, object, `book|${layoutId}|${fault.id}|${complaint ?? ''}|${familyId ?? ''}`);
      const outcomes = compiled.outcomeIds(test.id);
      const told = draw(
        table.told.map((row) => row[0] ?? 0),
        `${test.id}|${object ?? ''}`,
      );
      const random = randomFrom(seedOf(seed, `error|${test.id}|${object ?? ''}`));
      if (!chance(random, errors)) return outcomes[told] ?? '';
      const others = outcomes.filter((_, index) => index !== told);
      return others[Math.floor(random() * others.length)] ?? outcomes[told] ?? '';
    },
    staysCured: (_, object) => fault.assembly === (object ?? 'outside') || (object === undefined && fault.id.startsWith('main.hung')),
    wouldCure: (repair) => curesOf(repair, { layoutId, fault, prior: 1 }, compiled) > rightPart,
    repair(repair) {
      const p = curesOf(repair, { layoutId, fault, prior: 1 }, compiled);
      repairs += 1;
      cured ||= chance(randomFrom(seedOf(seed, `repair|${repair.id}|${repairs}`)), p);
      return cured ? 'cured' : 'unchanged';
    },
  };
}
