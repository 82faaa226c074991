/** What each entry did when it was written: the odds as they stood before it and after it. */
import type { CompiledPack } from '../knowledge/index.ts';
import { bookFor } from '../learning/index.ts';
import type { CaseInput } from '../ledger/index.ts';
import { believe } from './belief.ts';
import { rounded } from './posterior.ts';

export interface Effect {
  /** Entry id. */
  readonly entry: string;
  /** The assembly it moved most. */
  readonly id: string;
  readonly before: number;
  readonly after: number;
}

const evidence = new Set(['symptom.reported', 'blink.read', 'test.answered', 'repair.done', 'layout.found', 'entry.retracted']);

/**
 * In order of seq; entries that can move no odds are left out. One belief for each that can: some milliseconds each, so it is asked
 * of a worker.
 */
export function effectsOf(input: CaseInput, book: CompiledPack): Effect[] {
  const compiled = bookFor(input, book);
  const ordered = [...input.entries].sort((a, b) => a.seq - b.seq);
  const effects: Effect[] = [];
  let before: ReadonlyMap<string, number> | undefined;
  for (const [index, entry] of ordered.entries()) {
    if (!evidence.has(entry.body.kind)) continue;
    before ??= believe({ ...input, entries: ordered.slice(0, index) }, compiled).assemblies;
    const after = believe({ ...input, entries: ordered.slice(0, index + 1) }, compiled).assemblies;
    const was = before;
    const most = [...new Set([...was.keys(), ...after.keys()])]
      .map((id) => ({ id, before: was.get(id) ?? 0, after: after.get(id) ?? 0 }))
      .sort((a, b) => rounded(Math.abs(b.after - b.before)) - rounded(Math.abs(a.after - a.before)) || (a.id < b.id ? -1 : 1))[0];
    if (most) effects.push({ entry: entry.id, ...most });
    before = after;
  }
  return effects;
}

/** The case as it stood when an entry had just been written. */
export const asOf = (input: CaseInput, seq: number): CaseInput => ({
  ...input,
  entries: input.entries.filter((entry) => entry.seq <= seq),
});
