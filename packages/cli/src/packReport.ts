/** What a sound pack still says of itself: pairs that only a swap tells apart, and tests that no way ever asks for. */
import {
  believe,
  defaultSettings,
  offersOf,
  outcomeTable,
  passedProofs,
  type PassedProof,
  type CaseInput,
  type CompiledPack,
} from '@veglia/core';
import { atOnce, bookOpponent, play } from '@veglia/simulators';

/** A symptom that this fault shows so seldom isn't worth a pair. */
const showsAtAll = 0.1;
/** Two faults are told apart by a test when some outcome is this much likelier for one. */
const toldApart = 0.35;
/** How often each fault is played for the second list: with 2 plays 28 of the shipped tests were never asked for, with 12 it is 12. */
export const usualPlays = 12;

/** What is thin or odd in a pack. */
export interface PackReport {
  readonly onlyASwapTellsApart: readonly {
    readonly layout: string;
    readonly symptom: string;
    readonly faults: readonly [string, string];
  }[];
  readonly neverRecommended: readonly string[];
  /** Proofs that faults elsewhere pass in one set of ten or more: they lack an observation. */
  readonly proofsPassedElsewhere: readonly PassedProof[];
}

/** `only`: these layouts; left out: all. */
export function packReport(compiled: CompiledPack, plays = usualPlays, only?: readonly string[]): PackReport {
  const layouts = compiled.pack.layouts.map(({ id }) => id).filter((id) => only?.includes(id) ?? true);
  return {
    onlyASwapTellsApart: inseparable(compiled, layouts),
    neverRecommended: neverAsked(compiled, plays, layouts),
    proofsPassedElsewhere: passedProofs(compiled, layouts),
  };
}

function inseparable(compiled: CompiledPack, layouts: readonly string[]): PackReport['onlyASwapTellsApart'] {
  const found: PackReport['onlyASwapTellsApart'][number][] = [];
  for (const layout of layouts) {
    for (const symptom of compiled.symptomIds) {
      const place = compiled.symptomIds.indexOf(symptom);
      const shown = (compiled.faultsOf.get(layout) ?? []).filter(
        (fault) => (compiled.symptomLikelihoods(layout, fault.id)[place] ?? 0) >= showsAtAll,
      );
      if (shown.length < 2) continue;
      const belief = believe(complaining(layout, symptom), compiled);
      const { interpretation } = belief;
      const rows = offersOf(belief, compiled, defaultSettings, layout)
        .filter(({ left, test }) => left === undefined && !test.do.some((step) => 'fit' in step))
        .map(({ test, of }) => outcomeTable(interpretation, compiled, test, of, belief.circumstances).truth);
      const at = new Map(interpretation.hypotheses.map(({ fault }, index) => [fault?.id, index]));
      shown.forEach((a, index) => {
        for (const b of shown.slice(index + 1)) {
          if (a.assembly === b.assembly) continue;
          const [left, right] = [at.get(a.id) ?? 0, at.get(b.id) ?? 0];
          const apart = rows.some((outcomes) => outcomes.some((row) => Math.abs((row[left] ?? 0) - (row[right] ?? 0)) >= toldApart));
          if (!apart) found.push({ layout, symptom, faults: [a.id, b.id] });
        }
      });
    }
  }
  return found;
}

function neverAsked(compiled: CompiledPack, plays: number, layouts: readonly string[]): string[] {
  const asked = new Set<string>();
  for (const layout of layouts) {
    const families = [undefined, ...compiled.pack.families.filter((one) => one.layouts.includes(layout)).map(({ id }) => id)];
    for (const fault of compiled.faultsOf.get(layout) ?? []) {
      for (let turn = 0; turn < plays; turn += 1) {
        const familyId = families[turn % families.length];
        const { entries } = play({
          opponent: bookOpponent({ layoutId: layout, familyId, fault, seed: turn + 1 }, compiled, 0),
          way: atOnce,
          compiled,
          set: { layout, ...(familyId === undefined ? {} : { family: familyId }) },
          settings: defaultSettings,
          seed: turn + 1,
        });
        for (const { body } of entries) if (body.kind === 'test.answered') asked.add(body.test);
      }
    }
  }
  return compiled.pack.tests.map(({ id }) => id).filter((id) => !asked.has(id));
}

function complaining(layout: string, symptom: string): CaseInput {
  const at = { id: 'complaint', seq: 1, at: '1970-01-01T00:00:00Z', by: 'report', basedOn: 0 };
  return {
    set: { layout },
    settings: defaultSettings,
    entries: [{ ...at, body: { kind: 'symptom.reported', v: 2, symptoms: [symptom] } }],
  };
}
