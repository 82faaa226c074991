/** What was repaired or replaced: what it says of every fault, and which repairs aren't worth doing again. */
import type { CompiledPack } from '../../knowledge/index.ts';
import type { Doubt, EvidenceUnit, Interpretation, Reading, Unused } from './interpretation.ts';
import { circumstancesIn, plainOutcome } from './rows.ts';
import type { RepairEntry } from './gather.ts';
import { handledUnit, repairUnit, type Facts } from './units.ts';

type Case = Facts & Pick<Interpretation, 'layoutId' | 'epoch' | 'readings'> & { readonly unused: Unused[]; readonly doubts: Doubt[] };

/** Repairs done as evidence: a fault survives one with 1 - p(fix). `repaired`: fault ids a repair was tried on. */
export function repairUnits(repairs: readonly RepairEntry[], facts: Case): { units: EvidenceUnit[]; repaired: ReadonlySet<string> } {
  const { compiled, layoutId, epoch, unused, doubts } = facts;
  const units: EvidenceUnit[] = [];
  const tries = new Map<string, number>();
  for (const { entry, body } of repairs) {
    const id = compiled.currentId(body.repair);
    const repair =
      compiled.repairsOf.get(layoutId ?? '')?.find((one) => one.id === id) ?? compiled.pack.repairs.find((one) => one.id === id);
    if (!repair) unused.push({ entry: entry.id, code: 'unknown-repair', id: body.repair });
    else if (body.result === 'not-tried') unused.push({ entry: entry.id, code: 'said-nothing' });
    else {
      tries.set(repair.id, (tries.get(repair.id) ?? 0) + 1);
      if (entry.seq === epoch) {
        doubts.push({ code: 'symptom-changed', entries: [entry.id] });
        units.push(handledUnit(entry, facts));
      }
      // What was replaced is not likely to be what is still wrong, or what went wrong next.
      units.push(repairUnit(repair, entry, body.result === 'cured' && entry.seq >= epoch ? 'cured' : 'unchanged', facts));
    }
  }
  const spent = [...tries].filter(([id, count]) => count >= mostTries(id, compiled) + (readAnew(id, repairs, facts) ? 1 : 0));
  return { units, repaired: new Set(spent.map(([id]) => id)) };
}

/** A cleaning or a part may fail and is worth a second try, no more; a whole board that didn't cure isn't bought again. */
const mostTries = (id: string, compiled: CompiledPack): number =>
  ['reseat', 'part', 'workaround'].includes(compiled.pack.repairs.find((one) => one.id === id)?.kind ?? '') ? 2 : 1;

/** A new part may be bad itself, or badly fitted: bought once more only where a reading after it says the same again. */
function readAnew(id: string, repairs: readonly RepairEntry[], { compiled, layoutId, readings, symptoms, family }: Case): boolean {
  const repair = compiled.pack.repairs.find((one) => one.id === id);
  const tried = repairs.findLast(({ body }) => compiled.currentId(body.repair) === id);
  const layout = compiled.layouts.get(layoutId ?? '');
  if (repair?.kind !== 'replace' || repair.question || !tried || !layout) return false;
  const proof = layout.proof[repair.assembly]?.anyOf.flat() ?? [];
  const now = circumstancesIn(layout.id, { symptoms, family }, compiled);
  const accuses = ({ entry, body }: Reading): boolean => {
    const test = compiled.tests.get(compiled.currentId(body.test));
    return (
      entry.seq > tried.entry.seq &&
      body.sure === 'sure' &&
      proof.some((item) => 'test' in item && item.test === body.test && item.of === body.of && item.outcomes.includes(body.outcome)) &&
      !(test && plainOutcome(test, now, compiled) === body.outcome)
    );
  };
  return [...readings.values()].flat().some(accuses);
}
