/**
 * Does an image fit the set it is written into, as a bench judges it: written before the rule. Judged against the glass that will be driven, then board and
 * revision, chip and size, region; the same series in another size is unsure and not refused; five pairs are a single link, an HD panel (common practice, no
 * source).
 */
import type { FitAim, FitImage, FitPoint } from './fit.ts';

/** A set, an image, what is said of them together. */
export interface FitCase {
  readonly name: string;
  readonly aim?: Partial<FitAim>;
  readonly image?: Partial<FitImage>;
  readonly fit: 'fits' | 'unsure' | 'does-not-fit';
  /** Every point, in any order. */
  readonly points: readonly FitPoint['code'][];
}

const mega = 2 ** 20;
/** A set that is known whole. */
export const knownAim: FitAim = {
  memory: 'spi-nor',
  area: 'whole',
  bytes: 8 * mega,
  board: 'QKM-2250',
  revision: 'B',
  panel: 'VL43-A2',
  resolution: [1920, 1080],
  pairs: 10,
  region: 'EU',
  companions: [],
};
/** An image of just such a set, from the shop’s own library. */
export const sameImage: FitImage = {
  memory: 'spi-nor',
  area: 'whole',
  bytes: 8 * mega,
  source: 'own-library',
  board: 'QKM-2250',
  revision: 'B',
  panel: 'VL43-A2',
  resolution: [1920, 1080],
  region: 'EU',
  hits: 0,
  misses: 0,
};
const without = <T extends object, K extends keyof T>(from: T, ...keys: readonly K[]): T =>
  Object.fromEntries(Object.entries(from).filter(([key]) => !keys.some((one) => one === key))) as T;

/** Of everything that may be known. */
export const fitCases: readonly FitCase[] = [
  { name: 'everything the same, from the own library', fit: 'fits', points: ['panel-same', 'board-same', 'revision-same'] },
  {
    name: 'the same number written in another way is the same',
    aim: { panel: 'vl43 a2', board: 'qkm2250' },
    fit: 'fits',
    points: ['panel-same', 'board-same', 'revision-same'],
  },
  { name: 'the set’s own dump', image: { own: true, source: 'own-set' }, fit: 'fits', points: ['own-content'] },
  {
    name: 'the set’s own dump, whatever is known of panel and board',
    aim: without(knownAim, 'panel', 'board', 'revision', 'resolution'),
    image: { ...without(sameImage, 'panel', 'board', 'revision'), own: true },
    fit: 'fits',
    points: ['own-content'],
  },
  {
    name: 'the own dump, combined from reads that left doubtful bytes',
    image: { own: true, doubtfulBytes: 4 },
    fit: 'unsure',
    points: ['own-content', 'reconstructed'],
  },
  {
    name: 'the library’s image with this set’s own content put in',
    image: { ownFrom: 'aa', ownHere: 'aa' },
    fit: 'fits',
    points: ['panel-same', 'board-same', 'revision-same', 'own-put-in'],
  },
  {
    name: 'one with another set’s own content put in: two sets would have one serial number',
    image: { ownFrom: 'bb', ownHere: 'aa' },
    fit: 'unsure',
    points: ['own-of-other', 'panel-same', 'board-same', 'revision-same'],
  },
  {
    name: 'the dump of a set that was written like that before is its own all the same',
    image: { own: true, ownFrom: 'bb', ownHere: 'aa' },
    fit: 'fits',
    points: ['own-content'],
  },
  {
    name: 'another panel of another resolution',
    image: { panel: 'VL43-H', resolution: [1366, 768] },
    fit: 'does-not-fit',
    points: ['panel-other', 'resolution-other', 'board-same', 'revision-same'],
  },
  {
    name: 'another size of the same series: unsure, not refused',
    image: { panel: 'VL50-A2' },
    fit: 'unsure',
    points: ['panel-other', 'board-same', 'revision-same'],
  },
  {
    name: 'the panel of the image is not known',
    image: without(sameImage, 'panel'),
    fit: 'unsure',
    points: ['panel-unknown', 'board-same', 'revision-same'],
  },
  {
    name: 'nobody read the panel’s label yet',
    aim: without(knownAim, 'panel'),
    fit: 'unsure',
    points: ['panel-not-read', 'board-same', 'revision-same'],
  },
  { name: 'another board', image: { board: 'QKM-2190' }, fit: 'does-not-fit', points: ['panel-same', 'board-other'] },
  {
    name: 'the board of the image is not known',
    image: without(sameImage, 'board', 'revision'),
    fit: 'unsure',
    points: ['panel-same', 'board-unknown'],
  },
  {
    name: 'another revision of the board',
    image: { revision: 'C' },
    fit: 'unsure',
    points: ['panel-same', 'board-same', 'revision-other'],
  },
  {
    name: 'a revision that only one of the two has',
    image: without(sameImage, 'revision'),
    fit: 'unsure',
    points: ['panel-same', 'board-same', 'revision-unknown'],
  },
  {
    name: 'a board that has no revision printed, on both',
    aim: without(knownAim, 'revision'),
    image: without(sameImage, 'revision'),
    fit: 'fits',
    points: ['panel-same', 'board-same'],
  },
  {
    name: 'another size of chip',
    image: { bytes: 4 * mega },
    fit: 'does-not-fit',
    points: ['panel-same', 'board-same', 'revision-same', 'size-other'],
  },
  {
    name: 'a chip whose size nobody read',
    aim: without(knownAim, 'bytes'),
    fit: 'unsure',
    points: ['panel-same', 'board-same', 'revision-same', 'size-not-read'],
  },
  {
    name: 'an eMMC’s boot area is no SPI flash',
    image: { memory: 'emmc', area: 'boot-1' },
    fit: 'does-not-fit',
    points: ['panel-same', 'board-same', 'revision-same', 'memory-other'],
  },
  {
    name: 'boot 2 is not boot 1',
    aim: { memory: 'emmc', area: 'boot-1' },
    image: { memory: 'emmc', area: 'boot-2' },
    fit: 'does-not-fit',
    points: ['panel-same', 'board-same', 'revision-same', 'memory-other'],
  },
  {
    name: 'five pairs to the panel carry no full HD, whatever the label says',
    aim: { ...without(knownAim, 'panel', 'resolution'), pairs: 5 },
    fit: 'does-not-fit',
    points: ['panel-not-read', 'link-other', 'board-same', 'revision-same'],
  },
  {
    name: 'five pairs and an HD image go together',
    aim: { ...without(knownAim, 'panel', 'resolution'), pairs: 5 },
    image: { ...without(sameImage, 'panel'), resolution: [1366, 768] },
    fit: 'unsure',
    points: ['panel-not-read', 'board-same', 'revision-same'],
  },
  {
    name: 'another region: menus and tuner change',
    image: { region: 'BR' },
    fit: 'unsure',
    points: ['panel-same', 'board-same', 'revision-same', 'region-other'],
  },
  {
    name: 'an image that goes with a serial memory, which is not written too',
    image: { companion: 'U7 EEPROM' },
    fit: 'unsure',
    points: ['panel-same', 'board-same', 'revision-same', 'companion-first'],
  },
  {
    name: 'the same with the companion named in the session',
    aim: { companions: ['U7 eeprom'] },
    image: { companion: 'U7 EEPROM' },
    fit: 'fits',
    points: ['panel-same', 'board-same', 'revision-same'],
  },
  {
    name: 'from the web, all the same on paper, never tried here',
    image: { source: 'web' },
    fit: 'unsure',
    points: ['panel-same', 'board-same', 'revision-same', 'untried'],
  },
  {
    name: 'from a dealer, and it started a set like this before',
    image: { source: 'dealer', hits: 1 },
    fit: 'fits',
    points: ['panel-same', 'board-same', 'revision-same', 'hits'],
  },
  {
    name: 'its revision is not known, and it started two sets of this board and panel',
    image: { ...without(sameImage, 'revision'), hits: 2 },
    fit: 'fits',
    points: ['panel-same', 'board-same', 'revision-unknown', 'hits'],
  },
  {
    name: 'tried on such a set once, in vain',
    image: { misses: 1 },
    fit: 'unsure',
    points: ['panel-same', 'board-same', 'revision-same', 'misses'],
  },
  {
    name: 'in vain more often than not',
    image: { hits: 1, misses: 2 },
    fit: 'unsure',
    points: ['panel-same', 'board-same', 'revision-same', 'hits', 'misses'],
  },
  {
    name: 'a hit makes no chip larger',
    image: { bytes: 4 * mega, hits: 3 },
    fit: 'does-not-fit',
    points: ['panel-same', 'board-same', 'revision-same', 'size-other', 'hits'],
  },
  {
    name: 'combined from the reads of another set’s failing chip',
    image: { doubtfulBytes: 12 },
    fit: 'unsure',
    points: ['panel-same', 'board-same', 'revision-same', 'reconstructed'],
  },
];
