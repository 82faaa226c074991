/** What each entry did when it was written: the probabilities as they stood before it and after it. */
import type { CompiledPack } from '../../knowledge/index.ts';
import { bookFor } from '../../learning/index.ts';
import type { CaseInput } from '../../ledger/index.ts';
import { believe } from './belief.ts';
import { rounded } from './posterior.ts';

/** What one entry did when it was written. */
export interface Effect {
  /** Entry id. */
  readonly entry: string;
  /** The assembly it moved most. */
  readonly id: string;
  readonly before: number;
  readonly after: number;
  /** Probabilities of all assemblies after it. */
  readonly assemblies: Readonly<Record<string, number>>;
}

const evidence = new Set([
  'job.opened',
  'symptom.reported',
  'blink.read',
  'test.answered',
  'repair.done',
  'layout.found',
  'entry.retracted',
]);

/** Effects worked out so far, to be gone on from when the ledger has grown. */
export interface EffectsSoFar {
  readonly effects: readonly Effect[];
  /** What the probabilities depend on beside the entries. */
  readonly facts: string;
  /** Entries looked at, in order. */
  readonly entries: readonly string[];
  /** Assembly probabilities after the last entry that can move any; undefined before the first. */
  readonly last: ReadonlyMap<string, number> | undefined;
}

/**
 * In order of seq; entries that can move no probabilities are left out. One belief for each that can: some milliseconds each, so it is asked
 * of a worker. What an entry did when it was written never changes, so a ledger that only grew is gone on with from `sofar`; any other
 * is worked out anew.
 */
export function goOnWithEffects(input: CaseInput, book: CompiledPack, sofar?: EffectsSoFar): EffectsSoFar {
  const compiled = bookFor(input, book);
  const ordered = [...input.entries].sort((a, b) => a.seq - b.seq);
  const entries = ordered.map(({ id, seq, body }) => `${seq} ${id} ${JSON.stringify(body)}`);
  const facts = JSON.stringify([compiled.hash, input.set, input.settings, input.counts?.snapshot]);
  const known = sofar?.facts === facts && sofar.entries.every((one, index) => one === entries[index]) ? sofar : undefined;
  const effects = [...(known?.effects ?? [])];
  let before = known?.last;
  for (const [index, entry] of ordered.entries()) {
    if (index < (known?.entries.length ?? 0) || !evidence.has(entry.body.kind)) continue;
    before ??= believe({ ...input, entries: ordered.slice(0, index) }, compiled).assemblies;
    const after = believe({ ...input, entries: ordered.slice(0, index + 1) }, compiled).assemblies;
    const was = before;
    const most = [...new Set([...was.keys(), ...after.keys()])]
      .map((id) => ({ id, before: was.get(id) ?? 0, after: after.get(id) ?? 0 }))
      .sort((a, b) => rounded(Math.abs(b.after - b.before)) - rounded(Math.abs(a.after - a.before)) || (a.id < b.id ? -1 : 1))[0];
    // What is known of a set when it comes in is evidence only where something happened to it.
    const moved = most && (entry.body.kind !== 'job.opened' || rounded(most.before) !== rounded(most.after));
    if (moved) effects.push({ entry: entry.id, ...most, assemblies: Object.fromEntries(after) });
    before = after;
  }
  return { effects, facts, entries, last: before };
}

/** The same from the start. */
export const effectsOf = (input: CaseInput, book: CompiledPack): readonly Effect[] => goOnWithEffects(input, book).effects;

/** The case as it stood when an entry had just been written. */
export const asOf = (input: CaseInput, seq: number): CaseInput => ({
  ...input,
  entries: input.entries.filter((entry) => entry.seq <= seq),
});
