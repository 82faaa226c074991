/** Whether an item of the stock, or a board in a donor, is an answer to what a job wants. "Listed as compatible" is a hope until the print matches. */
import { numberKey, type fitHows, type PartWanted, type StockItem, type Strips } from './stock.ts';

/** How well something fits; `listed`: by model or figures only. */
export type PartFitHow = (typeof fitHows)[number] | 'listed';
/** What has to be looked at all the same. */
export type PartFitDoubt = 'other-revision' | 'other-panel' | 'untested' | 'print-unseen' | 'size-unknown';
/** How an item fits. */
export interface PartFit {
  readonly how: PartFitHow;
  readonly doubts: readonly PartFitDoubt[];
  /** Figures of strips that differ. */
  readonly differs?: readonly (keyof Strips)[];
  readonly note?: string;
}

/** Boards whose firmware belongs to one panel, and boards whose picture does. */
const imageOfPanel = new Set(['main', 'combo']);
const drawsForPanel = new Set(['tcon']);
const looseKinds: ReadonlySet<StockItem['what']> = new Set(['part', 'chip', 'consumable']);
/** As far as a rule at a bench reads, millimetres. */
const lengthTolerance = 2;

const same = (a: string | undefined, b: string | undefined): boolean => a !== undefined && b !== undefined && numberKey(a) === numberKey(b);
const differ = (a: string | undefined, b: string | undefined): boolean =>
  a !== undefined && b !== undefined && numberKey(a) !== numberKey(b);

/** Worth a look: neither the reason why the donor is one, nor gone. */
const there = (state: 'good' | 'untested' | 'bad' | 'taken'): boolean => state === 'good' || state === 'untested';

/** Undefined: it is no answer to this. */
export function fitOf(wanted: PartWanted, item: StockItem): PartFit | undefined {
  const row = item.fits.find((one) => named(one, wanted, (how) => how === 'does-not-fit'));
  if (row) return { how: 'does-not-fit', doubts: [], ...(row.note === undefined ? {} : { note: row.note }) };
  if (wanted.chip !== undefined) return chipFit(wanted.chip, item);
  if (item.donor) {
    const board = item.donor.boards.find((one) => one.assembly === wanted.assembly && there(one.state) && same(one.number, wanted.number));
    if (!board) return undefined;
    const fit = sameNumber(wanted, { ...item, assembly: board.assembly, revision: board.revision });
    return board.state === 'untested' ? { ...fit, doubts: [...fit.doubts, 'untested'] } : fit;
  }
  // A capacitor goes on any board; a board goes in one place only.
  if (item.assembly === undefined && looseKinds.has(item.what))
    return same(item.number, wanted.number) ? { how: 'same', doubts: [] } : undefined;
  if (wanted.assembly === undefined || item.assembly !== wanted.assembly) return undefined;
  if (same(item.number, wanted.number)) return sameNumber(wanted, item);
  const listed = item.fits.find((one) => named(one, wanted, (how) => how !== 'does-not-fit'));
  if (listed) {
    const printed = listed.number !== undefined;
    const certain = listed.how === 'same' || listed.how === 'supersedes';
    return {
      how: !printed && certain ? 'listed' : listed.how,
      doubts: printed ? [] : ['print-unseen'],
      ...(listed.note === undefined ? {} : { note: listed.note }),
    };
  }
  return wanted.strips && item.strips ? stripsFit(wanted.strips, item.strips) : undefined;
}

type Row = StockItem['fits'][number];
function named(row: Row, { number, model, panel }: PartWanted, of: (how: Row['how']) => boolean): boolean {
  return (
    of(row.how) &&
    (row.number === undefined || same(row.number, number)) &&
    (row.model === undefined || same(row.model, model)) &&
    (row.panel === undefined || same(row.panel, panel))
  );
}

function sameNumber(wanted: PartWanted, item: Pick<StockItem, 'assembly' | 'revision' | 'panel'>): PartFit {
  const otherPanel = differ(item.panel, wanted.panel);
  const { assembly = '' } = item;
  return {
    how: otherPanel && imageOfPanel.has(assembly) ? 'needs-image' : 'same',
    doubts: [
      ...(differ(item.revision, wanted.revision) ? (['other-revision'] as const) : []),
      ...(otherPanel && (imageOfPanel.has(assembly) || drawsForPanel.has(assembly)) ? (['other-panel'] as const) : []),
    ],
  };
}

function chipFit(marking: string, item: StockItem): PartFit | undefined {
  if (item.what === 'chip') return same(item.number, marking) ? { how: 'same', doubts: [] } : undefined;
  const chip = item.donor?.chips.find((one) => there(one.state) && same(one.marking, marking));
  return chip && { how: 'same', doubts: chip.state === 'untested' ? ['untested'] : [] };
}

function stripsFit(wanted: Partial<Strips>, kit: Strips): PartFit {
  const differs = (['strips', 'leds', 'lengthMm', 'ledVolts', 'connector'] as const).filter((figure) => {
    const [mine, theirs] = [wanted[figure], kit[figure]];
    if (mine === undefined || theirs === undefined) return false;
    if (typeof mine === 'string' || typeof theirs === 'string') return differ(String(mine), String(theirs));
    return Math.abs(mine - theirs) > (figure === 'lengthMm' ? lengthTolerance : figure === 'ledVolts' ? 1 : 0);
  });
  if (differs.length > 0) return { how: 'does-not-fit', doubts: [], differs };
  const unknown = wanted.lengthMm === undefined || kit.lengthMm === undefined || wanted.strips === undefined || wanted.leds === undefined;
  return { how: 'listed', doubts: ['print-unseen', ...(unknown ? (['size-unknown'] as const) : [])] };
}

const order: readonly PartFitHow[] = ['same', 'supersedes', 'needs-setting', 'needs-image', 'listed', 'does-not-fit'];

/** Items that answer to it, the surest first; then those that are known not to fit. Retired ones are left out. */
export function stockFor<T extends StockItem>(wanted: PartWanted, items: readonly T[]): { readonly item: T; readonly fit: PartFit }[] {
  return items
    .flatMap((item) => {
      const fit = item.retired === true ? undefined : fitOf(wanted, item);
      return fit ? [{ item, fit }] : [];
    })
    .sort(
      (a, b) =>
        order.indexOf(a.fit.how) - order.indexOf(b.fit.how) ||
        a.fit.doubts.length - b.fit.doubts.length ||
        (a.item.id < b.item.id ? -1 : 1),
    );
}
