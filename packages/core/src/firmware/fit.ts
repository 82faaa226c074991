/** Does an image fit the set it is to be written into: judged on the glass that will be driven, the board, the chip, and what the shop has seen of it. */
import type { FlashDid, MemoryArea } from '../ledger/index.ts';
import { pictureLink } from '../panel/index.ts';

type Did<S extends FlashDid['step']> = Extract<FlashDid, { step: S }>;

/** The set, as far as it is known. Numbers as printed. */
export interface FitAim {
  readonly memory: Did<'opened'>['memory'];
  readonly area: MemoryArea;
  /** Of the chip or area. */
  readonly bytes?: number | undefined;
  readonly board?: string | undefined;
  readonly revision?: string | undefined;
  /** The panel that will be driven. */
  readonly panel?: string | undefined;
  readonly resolution?: readonly [number, number] | undefined;
  /** Signal pairs to it, clocks included: five are one link. */
  readonly pairs?: number | undefined;
  readonly region?: string | undefined;
  /** Memories that are written with this one. */
  readonly companions: readonly string[];
}
/** An image, as far as it is known. */
export interface FitImage {
  readonly memory: Did<'opened'>['memory'];
  readonly area: MemoryArea;
  readonly bytes: number;
  readonly source: Did<'chosen'>['source'];
  readonly board?: string | undefined;
  readonly revision?: string | undefined;
  readonly panel?: string | undefined;
  readonly resolution?: readonly [number, number] | undefined;
  readonly region?: string | undefined;
  readonly companion?: string | undefined;
  /** Combined from several reads that left so many. */
  readonly doubtfulBytes?: number | undefined;
  /** The set’s own content, as it was read. */
  readonly own?: boolean | undefined;
  /** Hash of the dump whose own content was put into it, and of this set’s dump. */
  readonly ownFrom?: string | undefined;
  readonly ownHere?: string | undefined;
  /** Sets of this board and panel that it was written into: those that started, and those that did not. */
  readonly hits: number;
  readonly misses: number;
}

const good = ['own-content', 'own-put-in', 'panel-same', 'board-same', 'revision-same', 'hits'] as const;
/** What an own success outweighs. */
const unproven = [
  'panel-unknown',
  'panel-not-read',
  'board-unknown',
  'revision-other',
  'revision-unknown',
  'size-not-read',
  'untried',
] as const;
const doubtful = ['own-of-other', 'panel-other', 'region-other', 'companion-first', 'reconstructed', 'misses'] as const;
const bad = ['memory-other', 'size-other', 'resolution-other', 'link-other', 'board-other'] as const;
/** Everything that can be said of set and image together. */
export const fitCodes = [...good, ...unproven, ...doubtful, ...bad] as const;
/** One thing that was compared; `ours` and `theirs`: of the set and of the image. */
export interface FitPoint {
  readonly code: (typeof fitCodes)[number];
  readonly speaks: 'for' | 'unsure' | 'against';
  readonly ours?: string;
  readonly theirs?: string;
}
/** The judgement with its points, those against it first. */
export interface Fit {
  readonly fit: Did<'chosen'>['fit'];
  readonly points: readonly FitPoint[];
}

/** As two people write the same number: letters and digits alone. */
const plainNumber = (printed: string | undefined): string | undefined => {
  const plain = printed?.toLowerCase().replaceAll(/[^a-z0-9]/g, '');
  return plain === '' ? undefined : plain;
};
/** Whether two people wrote the same number; one that nobody wrote is like no other. */
export const samePrinted = (a: string | undefined, b: string | undefined): boolean =>
  plainNumber(a) !== undefined && plainNumber(a) === plainNumber(b);
const sizeText = ([width, height]: readonly [number, number]): string => `${width} × ${height}`;

const speaks = (code: FitPoint['code']): FitPoint['speaks'] =>
  good.some((one) => one === code) ? 'for' : bad.some((one) => one === code) ? 'against' : 'unsure';
const point = (code: FitPoint['code'], ours?: string | number, theirs?: string | number): FitPoint => ({
  code,
  speaks: speaks(code),
  ...(ours === undefined ? {} : { ours: String(ours) }),
  ...(theirs === undefined ? {} : { theirs: String(theirs) }),
});

function ofPanel(aim: FitAim, image: FitImage): FitPoint[] {
  const found: FitPoint[] = [];
  const [ours, theirs] = [plainNumber(aim.panel), plainNumber(image.panel)];
  if (ours === undefined) found.push(point('panel-not-read', undefined, image.panel));
  else if (theirs === undefined) found.push(point('panel-unknown', aim.panel));
  else found.push(point(ours === theirs ? 'panel-same' : 'panel-other', aim.panel, image.panel));
  // One panel has one resolution, however it was typed.
  if (ours !== undefined && ours === theirs) return found;
  const { resolution } = image;
  if (!resolution) return found;
  if (aim.resolution && (aim.resolution[0] !== resolution[0] || aim.resolution[1] !== resolution[1]))
    found.push(point('resolution-other', sizeText(aim.resolution), sizeText(resolution)));
  else if (!aim.resolution && aim.pairs !== undefined && pairsFor(resolution) > aim.pairs)
    found.push(point('link-other', aim.pairs, sizeText(resolution)));
  return found;
}
/** Pairs that a picture of this size takes, at 60 Hz and 8 bits; none where it goes by another kind of link. */
const pairsFor = ([width, height]: readonly [number, number]): number => pictureLink(width, height, 60, 8).lvds?.pairs ?? 0;

function ofBoard(aim: FitAim, image: FitImage): FitPoint[] {
  const [ours, theirs] = [plainNumber(aim.board), plainNumber(image.board)];
  if (ours === undefined || theirs === undefined) return [point('board-unknown', aim.board, image.board)];
  if (ours !== theirs) return [point('board-other', aim.board, image.board)];
  const [mine, its] = [plainNumber(aim.revision), plainNumber(image.revision)];
  const same = point('board-same', aim.board, image.board);
  if (mine === undefined && its === undefined) return [same];
  const code = mine === undefined || its === undefined ? 'revision-unknown' : mine === its ? 'revision-same' : 'revision-other';
  return [same, point(code, aim.revision, image.revision)];
}

function ofChip(aim: FitAim, image: FitImage): FitPoint[] {
  if (aim.memory !== image.memory || aim.area !== image.area) return [point('memory-other')];
  if (aim.bytes === undefined) return [point('size-not-read', undefined, image.bytes)];
  return aim.bytes === image.bytes ? [] : [point('size-other', aim.bytes, image.bytes)];
}

function ofRest(aim: FitAim, image: FitImage): FitPoint[] {
  const [ours, theirs] = [plainNumber(aim.region), plainNumber(image.region)];
  const companion = plainNumber(image.companion);
  const doubts = image.doubtfulBytes ?? 0;
  return [
    ...(ours !== undefined && theirs !== undefined && ours !== theirs ? [point('region-other', aim.region, image.region)] : []),
    ...(companion !== undefined && !aim.companions.some((one) => plainNumber(one) === companion)
      ? [point('companion-first', undefined, image.companion)]
      : []),
    ...(doubts > 0 ? [point('reconstructed', undefined, doubts)] : []),
    ...(image.ownFrom === undefined ? [] : [point(image.ownFrom === image.ownHere ? 'own-put-in' : 'own-of-other')]),
    ...(image.hits > 0 ? [point('hits', image.hits)] : []),
    ...(image.misses > 0 ? [point('misses', image.misses)] : []),
    ...((image.source === 'web' || image.source === 'dealer') && image.hits === 0 ? [point('untried')] : []),
  ];
}

/** Judges an image. Own content fits whatever is known of the set: it is what the set ran on. */
export function judgeFit(aim: FitAim, image: FitImage): Fit {
  const found =
    image.own === true
      ? [
          point('own-content'),
          ...ofChip(aim, image).filter(({ speaks: how }) => how === 'against'),
          ...ofRest(aim, { ...image, hits: 0, misses: 0, source: 'own-set', ownFrom: undefined }),
        ]
      : [...ofPanel(aim, image), ...ofBoard(aim, image), ...ofChip(aim, image), ...ofRest(aim, image)];
  const order = { against: 0, unsure: 1, for: 2 } as const;
  const points = found.toSorted((a, b) => order[a.speaks] - order[b.speaks]);
  if (points.some((one) => one.speaks === 'against')) return { fit: 'does-not-fit', points };
  // A set of this board and panel that started on it says more than what nobody wrote down.
  const proven = image.hits > 0 && image.hits > image.misses;
  const open = points.filter(
    ({ speaks: how, code }) => how === 'unsure' && !(proven && (code === 'misses' || unproven.some((one) => one === code))),
  );
  return { fit: open.length > 0 ? 'unsure' : 'fits', points };
}
