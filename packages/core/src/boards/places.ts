/** Where a point of the layout is on a board’s pictures, and which boards a job has. */
import { liveEntries, type BodyOf, type Entry } from '../ledger/index.ts';
import type { CompiledPack, PinState } from '../knowledge/index.ts';
import { pointOfLabel } from './label.ts';
import { learnedFrom, pinSpot } from './pins.ts';
import type { Board, Connector, PinExpectation, SpotMark, BoardSpot } from './schema.ts';

/** A pin or a mark of one place, with where it is. */
export interface PlaceOnBoard {
  readonly board: Board;
  /** Index of the picture, and the stored photo. */
  readonly photo: string;
  readonly spot: BoardSpot;
  /** "CN201 pin 3", or the name of the mark. */
  readonly connector?: { readonly mark: Connector; readonly number: number };
  readonly mark?: SpotMark;
  readonly label: string;
  readonly point: string | undefined;
  readonly expects: readonly PinExpectation[];
}

/** Every pin and mark of a board, picture by picture, in the order it was marked; pins by number. */
export function placesOf(board: Board, compiled: CompiledPack): PlaceOnBoard[] {
  return board.pictures.flatMap(({ photo, marks }) =>
    marks.flatMap((mark): PlaceOnBoard[] => {
      if (mark.kind !== 'connector') {
        return [{ board, photo, spot: mark.at, mark, label: mark.name, point: mark.point, expects: mark.expects }];
      }
      return mark.pins.map((pin, index) => ({
        board,
        photo,
        spot: pinSpot(mark, index + 1),
        connector: { mark, number: index + 1 },
        label: pin.label,
        point: pin.point ?? pointOfLabel(pin.label, mark.on ?? board.assembly, board.layout, compiled),
        expects: pin.expects,
      }));
    }),
  );
}

/** The boards that were found in a set: of each assembly the last one that was entered. */
export function boardsFound(entries: readonly Entry[]): BodyOf<'board.found'>[] {
  const last = new Map<string, BodyOf<'board.found'>>();
  for (const { body } of liveEntries(entries)) if (body.kind === 'board.found') last.set(body.assembly, body);
  return [...last.values()];
}

/** "CN201 pin 3, 5VSB" or the name of a mark: as the ledger keeps it. */
export function pinName({ connector, label }: PlaceOnBoard): string {
  if (!connector) return label;
  return `${connector.mark.name} pin ${connector.number}${label === '' ? '' : `, ${label}`}`;
}

/** The board with one more reading of a good one at that place; volts or ohms to chassis. */
export function withGoodReading(
  board: Board,
  place: PlaceOnBoard,
  quantity: PinExpectation['quantity'],
  state: PinState,
  reading: number,
): Board {
  const learn = (expects: readonly PinExpectation[]): PinExpectation[] => {
    const before = expects.find((one) => one.source === 'measured' && one.quantity === quantity && one.state === state);
    return [...expects.filter((one) => one !== before), learnedFrom(before, quantity, state, reading)];
  };
  const wanted = place.connector?.mark.id ?? place.mark?.id;
  return {
    ...board,
    pictures: board.pictures.map((picture) => ({
      ...picture,
      marks: picture.marks.map((mark) => {
        if (mark.id !== wanted) return mark;
        if (mark.kind !== 'connector') return { ...mark, expects: learn(mark.expects) };
        const at = (place.connector?.number ?? 0) - 1;
        return { ...mark, pins: mark.pins.map((pin, index) => (index === at ? { ...pin, expects: learn(pin.expects) } : pin)) };
      }),
    })),
  };
}
