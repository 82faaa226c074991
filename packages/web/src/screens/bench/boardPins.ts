/** Pins of the shop's boards beside the points of the layout: which stand for which, what belongs there, and which have a row of their own. */
import {
  pinExpected,
  pinId,
  pinsAgree,
  readLabel,
  type CompiledPack,
  type OnBoard,
  type PinState,
  type PlaceOnBoard,
  type SheetRow,
} from '@veglia/core';

/** A pin that no point of the layout stands for in this state. */
export interface PinRow {
  readonly place: PlaceOnBoard;
  /** As the ledger names it. */
  readonly id: string;
  readonly on: string;
  readonly quantity: 'volts' | 'ohms';
  /** The row of the layout that is the same rail, where there is one. */
  readonly twin?: SheetRow;
}

const onOf = ({ connector, board }: PlaceOnBoard): string => connector?.mark.on ?? board.assembly;

/** The first pin of a point is the point’s; those behind it are read beside it. */
export function placeOfPoint(places: readonly PlaceOnBoard[], point: string): PlaceOnBoard | undefined {
  return places.find((one) => one.point === point);
}

/** What the board’s own document says of that place in this state. */
export function onBoard(place: PlaceOnBoard | undefined, state: PinState, compiled: CompiledPack): OnBoard {
  if (!place) return {};
  const volts = pinExpected(place, 'volts', state, compiled);
  const ohms = pinExpected(place, 'ohms', 'unplugged', compiled);
  return { ...(volts.value === undefined ? {} : { volts: volts.value }), ...(ohms.value === undefined ? {} : { ohms: ohms.value }) };
}

/** Pins, test points and fuses with a row of their own, in the order they were marked. */
export function pinRows(places: readonly PlaceOnBoard[], rows: readonly SheetRow[], state: PinState, compiled: CompiledPack): PinRow[] {
  const taken = new Set<string>();
  const quantity = state === 'unplugged' ? 'ohms' : 'volts';
  return places.flatMap((place): PinRow[] => {
    const kind = place.mark?.kind;
    if (kind !== undefined && kind !== 'test-point' && kind !== 'fuse' && kind !== 'part') return [];
    // A live reading at a ground pin says nothing that the black lead doesn’t.
    if (quantity === 'volts' && readLabel(place.label, compiled).entry?.ground) return [];
    const twin = rows.find(({ point, quantity: of }) => point === place.point && of === quantity);
    // The first pin of a rail is the point’s own row.
    if (twin && !taken.has(twin.point)) {
      taken.add(twin.point);
      return [];
    }
    const id = place.connector ? pinId(place.connector.mark.name, place.connector.number) : pinId(place.label, 1);
    return [{ place, id, on: onOf(place), quantity, ...(twin ? { twin } : {}) }];
  });
}

/** Points whose pins were read and don’t read alike: no answer comes of them. */
export function pointsApart(rows: readonly { readonly point: string; readonly value: number }[]): Set<string> {
  const byPoint = new Map<string, number[]>();
  for (const { point, value } of rows) byPoint.set(point, [...(byPoint.get(point) ?? []), value]);
  return new Set([...byPoint].filter(([, values]) => !pinsAgree(values)).map(([point]) => point));
}
