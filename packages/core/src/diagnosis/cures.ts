import type { CompiledPack, Repair } from '../knowledge/index.ts';
import type { Hypothesis } from './interpretation.ts';

/** P(cured | hypothesis): the repair's own word for the fault, for what it belongs to, or for where it sits. */
export function curesOf(repair: Repair, hypothesis: Hypothesis, compiled: CompiledPack): number {
  const { fault } = hypothesis;
  if (!fault) return 0;
  const word = repair.fixes[fault.id] ?? repair.fixes[fault.home] ?? repair.fixes[fault.assembly];
  return word === undefined ? 0 : compiled.likelihoodWord(word);
}
