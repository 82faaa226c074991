/** The pack and the counts a job goes by. */
import type { Entry } from './caseFile.ts';
import { liveEntries } from './live.ts';

/** What a job goes by: as it was opened, then as its ledger moved it. */
export interface Pins {
  readonly hash: string;
  /** Number of the counts; 0 is the pack alone. */
  readonly snapshot: number;
}

/** The pack and the statistics a job goes by now: those it was opened with, moved by its live `pack.pinned` entries. */
export function pinsOf(opened: Pins, entries: readonly Entry[]): Pins {
  return liveEntries(entries).reduce(
    (pins, { body }) => (body.kind === 'pack.pinned' ? { hash: body.hash, snapshot: body.snapshot ?? pins.snapshot } : pins),
    opened,
  );
}
