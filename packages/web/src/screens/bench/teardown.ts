/** What of a set is off, and what was counted, told from its ledger. */
import type { BodyOf, Entry, Stage } from '@veglia/core';

type Part = NonNullable<Stage['teardown']>[number];

export interface PartState extends Part {
  readonly off: boolean;
  /** How it came off, last. */
  readonly taken: BodyOf<'teardown.taken'> | undefined;
  /** Screws, sheets or clips counted off and not counted back; negative: more came back than came off. */
  readonly missing: number;
}

export function teardownState(parts: readonly Part[], live: readonly Entry[]): PartState[] {
  return parts.map((part) => {
    let off = false;
    let taken: BodyOf<'teardown.taken'> | undefined;
    let missing = 0;
    for (const { body } of live) {
      if (body.kind === 'teardown.taken' && body.part === part.id) {
        off = true;
        taken = body;
        missing = 0;
      } else if (body.kind === 'teardown.refitted' && body.part === part.id) {
        off = false;
        missing = taken?.screws !== undefined && body.screws !== undefined ? taken.screws - body.screws : 0;
      }
    }
    return { ...part, off, taken, missing };
  });
}
