/** Closed jobs into counts. */
import type { CompiledPack } from '../knowledge/index.ts';
import { liveEntries, type Counts, type Entry, type SetFacts } from '../ledger/index.ts';

interface ClosedJob {
  readonly set: SetFacts;
  readonly entries: readonly Entry[];
}

/** Counts of closed jobs. A job whose fault was never confirmed, or whose layout isn't certain, counts nothing. */
export function countsOf(jobs: readonly ClosedJob[], compiled: CompiledPack, snapshot: number): Counts {
  const faults = new Map<string, Counts['jobs'][number]>();
  const outcomes = new Map<string, Counts['outcomes'][number]>();
  for (const { set, entries } of jobs) {
    const live = liveEntries(entries);
    const found = live.findLast(({ body }) => body.kind === 'layout.found')?.body;
    const layout = found?.kind === 'layout.found' ? found.layout : set.layout;
    const confirmed = live.findLast(({ body }) => body.kind === 'fault.confirmed')?.body;
    if (typeof layout !== 'string' || confirmed?.kind !== 'fault.confirmed' || confirmed.fault === undefined) continue;
    const fault = compiled.currentId(confirmed.fault);
    const complaint = live.find(({ body }) => body.kind === 'symptom.reported')?.body;
    const symptom = complaint?.kind === 'symptom.reported' ? complaint.symptoms[0] : undefined;
    const key = [layout, set.family ?? '', symptom ?? '', fault].join('|');
    const row = faults.get(key);
    faults.set(key, {
      layout,
      ...(set.family === undefined ? {} : { family: set.family }),
      ...(symptom === undefined ? {} : { symptom }),
      fault,
      n: (row?.n ?? 0) + 1,
    });
    for (const { body } of live) {
      if (body.kind !== 'test.answered' || body.sure !== 'sure' || body.symptomPresent === 'no') continue;
      const at = [layout, body.test, body.of ?? '', fault, body.outcome].join('|');
      outcomes.set(at, {
        layout,
        test: compiled.currentId(body.test),
        ...(body.of === undefined ? {} : { of: body.of }),
        fault,
        outcome: body.outcome,
        n: (outcomes.get(at)?.n ?? 0) + 1,
      });
    }
  }
  return { snapshot, jobs: [...faults.values()], told: [], outcomes: [...outcomes.values()].filter(({ outcome }) => !silent.has(outcome)) };
}

/**
 * Counts of single jobs, and what was told, as one snapshot. Rows come out in the order of their keys: the same jobs give the
 * same document, in whatever order they were closed.
 */
export function mergeCounts(parts: readonly Counts[], told: Counts['told'], snapshot: number): Counts {
  return {
    snapshot,
    jobs: summed(parts.flatMap(({ jobs }) => jobs)),
    told: [...told].sort((a, b) => (keyOf(a) < keyOf(b) ? -1 : 1)),
    outcomes: summed(parts.flatMap(({ outcomes }) => outcomes)),
  };
}

const keyOf = (row: object): string =>
  Object.entries(row)
    .filter(([name]) => name !== 'n')
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, value]) => `${name}=${String(value)}`)
    .join('|');

function summed<T extends { readonly n: number }>(rows: readonly T[]): T[] {
  const byKey = new Map<string, T>();
  for (const row of rows) byKey.set(keyOf(row), { ...row, n: (byKey.get(keyOf(row))?.n ?? 0) + row.n });
  return [...byKey].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, row]) => row);
}

const silent: ReadonlySet<string> = new Set(['cant-tell', 'not-possible']);
