/** What the entries say before any is weighed: one small step for each kind of entry that says something of the whole case. */
import type { CompiledPack, Family } from '../../knowledge/index.ts';
import type { Body, BodyOf, Entry } from '../../ledger/index.ts';
import type { Unused } from './interpretation.ts';
import type { BlinkEntry } from './units.ts';

/** A repair as it was written down. */
export interface RepairEntry {
  readonly entry: Entry;
  readonly body: BodyOf<'repair.done'>;
}

/** What the entries say of the whole case. */
export interface Gathered {
  readonly symptoms: Set<string>;
  /** Entries the symptom stands in. */
  readonly symptomEntries: Entry[];
  readonly blinkReadings: BlinkEntry[];
  readonly repairs: RepairEntry[];
  readonly cautionsRead: Set<string>;
  comesAndGoes: boolean;
  closed: boolean;
}

interface Context {
  readonly compiled: CompiledPack;
  readonly family: Family | undefined;
  /** Seq of the repair after which another symptom came. */
  readonly epoch: number;
  /** The bench saw for itself what the set does: what was only told gives way to it. */
  readonly seen: boolean;
  readonly unused: Unused[];
}

type Reducer<K extends Body['kind']> = (so: Gathered, entry: Entry, body: BodyOf<K>, context: Context) => void;

const reducers: { readonly [K in Body['kind']]?: Reducer<K> } = {
  'symptom.reported': (so, entry, body, { compiled, epoch, seen, unused }) => {
    if (entry.seq < epoch) return void unused.push({ entry: entry.id, code: 'earlier-fault' });
    so.comesAndGoes ||= body.often === 'sometimes';
    if (seen && body.seen !== true) return void unused.push({ entry: entry.id, code: 'seen-otherwise' });
    so.symptomEntries.push(entry);
    for (const id of body.symptoms) {
      const current = compiled.currentId(id);
      if (compiled.symptomIds.includes(current)) so.symptoms.add(current);
      else unused.push({ entry: entry.id, code: 'unknown-symptom', id });
    }
  },
  'blink.read': (so, entry, body, { epoch, family, unused }) => {
    const hasDarkRow = family?.blink.some(({ groups }) => groups.length === 0) ?? false;
    const isCode = body.groups.length > 0 || (body.light === 'no-light' && hasDarkRow);
    if (entry.seq < epoch) unused.push({ entry: entry.id, code: 'earlier-fault' });
    // With a board out it tells of that board, by the test that compares; a light that is no code is no row of any table.
    else if (body.out !== undefined) unused.push({ entry: entry.id, code: 'board-was-out', id: body.out });
    else if (!isCode) unused.push({ entry: entry.id, code: 'light-no-code' });
    else so.blinkReadings.push({ entry, body });
  },
  'caution.read': (so, _entry, { cautions }) => {
    for (const id of cautions) so.cautionsRead.add(id);
  },
  'repair.done': (so, entry, body) => void so.repairs.push({ entry, body }),
  'job.closed': (so) => void (so.closed = true),
  'job.reopened': (so) => void (so.closed = false),
};

/** Entries in order of seq; what can't be used is said in `context.unused`. */
export function gather(live: readonly Entry[], context: Context): Gathered {
  const so: Gathered = {
    symptoms: new Set(),
    symptomEntries: [],
    blinkReadings: [],
    repairs: [],
    cautionsRead: new Set(),
    comesAndGoes: false,
    closed: false,
  };
  for (const entry of live) {
    const reducer = reducers[entry.body.kind] as Reducer<Body['kind']> | undefined;
    reducer?.(so, entry, entry.body, context);
  }
  return so;
}

/** The bench's own word on the symptom, since the last repair that changed it. */
export const seenByTheBench = (live: readonly Entry[], epoch: number): boolean =>
  live.some(({ seq, body }) => seq >= epoch && body.kind === 'symptom.reported' && body.seen === true);
