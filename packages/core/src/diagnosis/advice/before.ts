/** What has to be on record before a repair is done: a chip is identified and its own content saved before anything is written to it. */
import type { CompiledPack } from '../../knowledge/index.ts';
import type { Interpretation } from '../evidence/interpretation.ts';

/** The test still missing before this repair; undefined where nothing is. */
export function readingBefore(
  repairId: string,
  seen: Pick<Interpretation, 'answered' | 'readings'>,
  compiled: CompiledPack,
): string | undefined {
  const repair = compiled.pack.repairs.find(({ id }) => id === repairId);
  const answeredSo = (test: string, outcomes: readonly string[]): boolean =>
    seen.readings.get(test)?.some(({ body }) => outcomes.includes(body.outcome)) ?? false;
  return repair?.first?.find(({ test, unless }) => !seen.answered.has(test) && !(unless && answeredSo(unless.test, unless.outcomes)))?.test;
}
