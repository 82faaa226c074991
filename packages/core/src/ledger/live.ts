import type { Entry } from './caseFile.ts';

/**
 * Entries that still count, in order of seq. A retraction undoes the entry it names; a retraction that is itself
 * retracted does not, so the last word stands.
 */
export function liveEntries(entries: readonly Entry[]): Entry[] {
  const ordered = [...entries].sort((a, b) => a.seq - b.seq);
  const gone = new Set<string>();
  const byReference = new Map<string | number, Entry>();
  for (const entry of ordered) {
    byReference.set(entry.id, entry);
    byReference.set(entry.seq, entry);
  }
  for (const entry of [...ordered].reverse()) {
    if (entry.body.kind !== 'entry.retracted' || gone.has(entry.id)) continue;
    const target = byReference.get(entry.body.entry);
    if (target && target.seq < entry.seq) gone.add(target.id);
  }
  return ordered.filter((entry) => !gone.has(entry.id));
}
