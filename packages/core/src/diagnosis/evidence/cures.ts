import type { CompiledPack, PlacedFault, Repair } from '../../knowledge/index.ts';
import type { Hypothesis } from './interpretation.ts';

const known = new WeakMap<CompiledPack, Map<Repair, Map<PlacedFault, number>>>();

/** P(cured | hypothesis): the repair's own word for the fault, for what it belongs to, or for where it sits. */
export function curesOf(repair: Repair, { fault }: Hypothesis, compiled: CompiledPack): number {
  if (!fault) return 0;
  let own = known.get(compiled);
  if (!own) known.set(compiled, (own = new Map<Repair, Map<PlacedFault, number>>()));
  let ofRepair = own.get(repair);
  if (!ofRepair) own.set(repair, (ofRepair = new Map<PlacedFault, number>()));
  let cures = ofRepair.get(fault);
  if (cures === undefined) {
    const word = repair.fixes[fault.id] ?? repair.fixes[fault.home] ?? repair.fixes[fault.assembly];
    ofRepair.set(fault, (cures = word === undefined ? 0 : compiled.likelihoodWord(word)));
  }
  return cures;
}
