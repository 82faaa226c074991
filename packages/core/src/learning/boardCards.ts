/**
 * Hits of known-fault cards as field experience: counted like what somebody brings along. A card's hit and the closed job it came from are one event, and
 * nothing says which hits have a job: as many as the shop has closed jobs of that fault are left out, so that none counts twice.
 */
import type { Board } from '../boards/index.ts';
import type { Counts } from '../ledger/index.ts';

/** A board as it stands, and who wrote that version. */
export interface CountedBoard {
  readonly board: Pick<Board, 'layout' | 'families' | 'retired' | 'cards'>;
  readonly by: string;
}

/** Rows of experience; a card without a fault of the pack, or of a retired board, gives none. One family is named; of several, the layout alone. */
export function experienceOfCards(boards: readonly CountedBoard[], jobs: Counts['jobs']): Counts['told'] {
  return boards.flatMap(({ board: { layout, families, retired, cards }, by }) => {
    const [only, ...others] = families;
    const family = others.length === 0 ? only : undefined;
    return cards.flatMap(({ fault, hits }) => {
      if (retired || fault === undefined) return [];
      const closed = jobs
        .filter((one) => one.layout === layout && one.fault === fault && (family === undefined || one.family === family))
        .reduce((sum, { n }) => sum + n, 0);
      const n = hits - closed;
      return n > 0 ? [{ layout, ...(family === undefined ? {} : { family }), fault, n, by }] : [];
    });
  });
}
