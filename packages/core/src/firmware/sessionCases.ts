/**
 * What a bench expects of work on a memory: written before the rules, from the trade (common practice, no source). After the steps in `did` the next one is
 * `next`, and `may` says of others whether they are open, or by which gate they are not.
 */
import type { FlashDid } from '../ledger/index.ts';

/** A course of steps, and what has to be said after it. */
export interface SessionCase {
  readonly name: string;
  readonly did: readonly FlashDid[];
  /** Step, or step and area. */
  readonly next?: string;
  /** Step -> open, or the gates that are shut. */
  readonly may?: Readonly<Record<string, 'open' | readonly string[]>>;
  /** Findings on the whole, in order. */
  readonly says?: readonly string[];
}

const a = 'a'.repeat(64);
const b = 'b'.repeat(64);
const c = 'c'.repeat(64);
const image = '0192f000-0000-7000-8000-00000000f1a5';
const mega = 2 ** 20;

const open = (more: Partial<Extract<FlashDid, { step: 'opened' }>> = {}): FlashDid => ({
  step: 'opened',
  memory: 'spi-nor',
  name: 'U402',
  marking: 'W25Q32',
  sizes: { whole: 4 * mega },
  areas: ['whole'],
  why: 'restart-loop',
  plan: 'rewrite',
  ...more,
});
const supply: FlashDid = { step: 'supply', ioVolts: 3.28, programmerVolts: 3.3, feeds: ['programmer'] };
const clip: FlashDid = { step: 'entered', way: 'clip', with: 'blue clip' };
const found: FlashDid = { step: 'identified', of: 'this', result: 'found', chip: 'W25Q32', code: 'ef4016', bytes: 4 * mega };
const read = (sha256: string, more: Partial<Extract<FlashDid, { step: 'read' }>> = {}): FlashDid => ({
  step: 'read',
  area: 'whole',
  sha256,
  bytes: 4 * mega,
  extent: 'whole',
  image,
  ...more,
});
const chosen: FlashDid = { step: 'chosen', area: 'whole', sha256: c, bytes: 4 * mega, image, source: 'own-library', fit: 'fits' };
const erased: FlashDid = { step: 'erased', area: 'whole' };
const blank: FlashDid = { step: 'blank', area: 'whole', result: 'blank', extent: 'whole' };
const programmed: FlashDid = { step: 'programmed', area: 'whole', sha256: c };
const verified: FlashDid = { step: 'verified', area: 'whole', result: 'equal', extent: 'whole' };
const kept = [open(), supply, clip, found, read(a), read(a)];
const written = [...kept, chosen, erased, blank, programmed, verified];
const out: FlashDid = { step: 'way-out', checked: ['supply-off', 'clip-off', 'bridges-none'] };

const silent: FlashDid = { step: 'identified', of: 'this', result: 'not-detected' };
const silentOnTwo: readonly FlashDid[] = [open(), supply, clip, silent, { ...clip, with: 'pogo clip' }, silent];
const silentLifted: readonly FlashDid[] = [...silentOnTwo, { step: 'entered', way: 'lifted', with: 'socket' }, silent];

export const sessionCases: readonly SessionCase[] = [
  // In order: nothing is written that was not kept twice over.
  {
    name: 'begun: the chip’s supply is measured before anything touches it',
    did: [open()],
    next: 'supply',
    may: { identified: ['supply-first', 'way-first'] },
  },
  { name: 'supply known: the way in', did: [open(), supply], next: 'entered' },
  { name: 'way in recorded: identify', did: [open(), supply, clip], next: 'identified', may: { 'read whole': ['identify-first'] } },
  {
    name: 'identified: read',
    did: [open(), supply, clip, found],
    next: 'read whole',
    may: { 'erased whole': ['read-first', 'image-first'] },
  },
  {
    name: 'one read is no backup',
    did: [open(), supply, clip, found, read(a)],
    next: 'read whole',
    may: { 'erased whole': ['read-again-first', 'image-first'] },
  },
  {
    name: 'two equal reads: choose what goes in',
    did: kept,
    next: 'chosen whole',
    may: { 'erased whole': ['image-first'] },
    says: ['reads-equal'],
  },
  {
    name: 'kept and chosen: erase is open',
    did: [...kept, chosen],
    next: 'erased whole',
    may: { 'erased whole': 'open', 'programmed whole': ['erase-first'] },
  },
  {
    name: 'erased: blank check before programming',
    did: [...kept, chosen, erased],
    next: 'blank whole',
    may: { 'programmed whole': ['blank-first'] },
  },
  { name: 'blank: program', did: [...kept, chosen, erased, blank], next: 'programmed whole', may: { 'programmed whole': 'open' } },
  {
    name: 'not blank after an erase: erase again, nothing is programmed over it',
    did: [...kept, chosen, erased, { step: 'blank', area: 'whole', result: 'not-blank', extent: 'whole' }],
    next: 'erased whole',
    may: { 'programmed whole': ['not-blank'] },
    says: ['reads-equal', 'not-blank'],
  },
  {
    name: 'programmed: read back',
    did: [...kept, chosen, erased, blank, programmed],
    next: 'verified whole',
    may: { started: ['verify-first', 'way-out-first'] },
  },
  {
    name: 'what was read back differs: erase and program once more',
    did: [
      ...kept,
      chosen,
      erased,
      blank,
      programmed,
      { step: 'verified', area: 'whole', result: 'differs', extent: 'whole', first: 0x1000 },
    ],
    next: 'erased whole',
    may: { started: ['verify-failed', 'way-out-first'] },
    says: ['reads-equal', 'verify-failed'],
  },
  { name: 'verified: everything comes off before power', did: written, next: 'way-out', may: { started: ['way-out-first'] } },
  {
    name: 'the supply is off and the clip still on: no start',
    did: [...written, { step: 'way-out', checked: ['supply-off', 'bridges-none'] }],
    next: 'way-out',
    may: { started: ['way-out-first'] },
  },
  { name: 'everything off: first start', did: [...written, out], next: 'started', may: { started: 'open' } },
  { name: 'it starts: settings', did: [...written, out, { step: 'started', result: 'starts' }], next: 'setting' },

  {
    name: 'looked at before it was programmed: the clip is on again, and it is looked at again',
    did: [...kept, out, clip, found, chosen, erased, blank, programmed, verified],
    next: 'way-out',
    may: { started: ['way-out-first'] },
  },

  // Supply.
  {
    name: 'a 1.8 V chip and a programmer at 3.3 V: it would be destroyed',
    did: [open(), { step: 'supply', ioVolts: 1.79, programmerVolts: 3.3, feeds: ['programmer'] }, clip],
    next: 'supply',
    may: { identified: ['programmer-too-high'] },
    says: ['programmer-too-high'],
  },
  {
    name: 'a 3.3 V chip and a programmer at 1.8 V: it reads nothing, or wrong',
    did: [open(), { step: 'supply', ioVolts: 3.3, programmerVolts: 1.8, feeds: ['programmer'] }, clip],
    next: 'supply',
    may: { identified: ['programmer-too-low'] },
    says: ['programmer-too-low'],
  },
  {
    name: 'the board and the programmer both feed it',
    did: [open(), { step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['programmer', 'board'] }, clip],
    next: 'supply',
    may: { identified: ['two-supplies'] },
    says: ['two-supplies'],
  },
  {
    name: 'the bench supply feeds the board and its processor runs: it talks to the chip as well',
    did: [
      open({ memory: 'emmc', areas: ['boot-1'], sizes: {} }),
      { step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['bench-supply'] },
      { step: 'entered', way: 'in-place' },
    ],
    next: 'entered',
    may: { identified: ['clock-first'] },
    says: ['clock-first'],
  },
  {
    name: 'a lifted chip needs no stopped clock',
    did: [open(), supply, { step: 'entered', way: 'lifted', with: 'socket' }],
    next: 'identified',
    may: { identified: 'open' },
  },
  {
    name: 'a stopped clock has to run again before the first start',
    did: [
      open(),
      { step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['bench-supply'] },
      { step: 'entered', way: 'in-place', clockStopped: true },
      found,
      read(a),
      read(a),
      chosen,
      erased,
      blank,
      programmed,
      verified,
      { step: 'way-out', checked: ['supply-off', 'wires-off', 'bridges-none'] },
    ],
    next: 'way-out',
    may: { started: ['way-out-first'] },
  },

  // Identification.
  {
    name: 'identified as another chip than is printed on it: a bad contact, a wrong voltage, or a wrong marking',
    did: [open(), supply, clip, { step: 'identified', of: 'this', result: 'other', chip: 'W25Q64', bytes: 8 * mega }],
    next: 'identified',
    may: { 'read whole': ['marking-differs'] },
    says: ['marking-differs'],
  },
  {
    name: 'not detected once: reseat, or another clip; nothing is known of the chip yet',
    did: [open(), supply, clip, { step: 'identified', of: 'this', result: 'not-detected' }],
    next: 'entered',
    may: { 'read whole': ['not-detected'] },
    says: ['detect-other-clip'],
  },
  {
    name: 'not detected on two clips: lift it',
    did: [...silentOnTwo],
    next: 'entered',
    says: ['detect-lift'],
  },
  {
    name: 'the same clip twice is one clip',
    did: [
      open(),
      supply,
      clip,
      { step: 'identified', of: 'this', result: 'not-detected' },
      clip,
      { step: 'identified', of: 'this', result: 'not-detected' },
    ],
    next: 'entered',
    says: ['detect-other-clip'],
  },
  {
    name: 'lifted, and not detected either: is it the programmer? a good chip of the type is tried',
    did: [...silentLifted],
    next: 'identified good-one',
    says: ['detect-good-one'],
  },
  {
    name: 'and the good one is found: this chip is dead',
    did: [...silentLifted, { step: 'identified', of: 'good-one', result: 'found' }],
    says: ['chip-dead'],
    may: { 'read whole': ['not-detected'] },
  },
  {
    name: 'and the good one is not found: the programmer, its settings or its clip; nothing is said of the chip',
    did: [...silentLifted, { step: 'identified', of: 'good-one', result: 'not-detected' }],
    says: ['programmer-suspect'],
  },

  // Reading.
  {
    name: 'two reads differ: contact first, so read once more',
    did: [open(), supply, clip, found, read(a), read(b)],
    next: 'read whole',
    may: { 'erased whole': ['reads-differ', 'image-first'] },
    says: ['reads-differ-contact'],
  },
  {
    name: 'then two equal ones: the contact it was, and it is kept',
    did: [open(), supply, clip, found, read(a), read(b), read(b), chosen],
    next: 'erased whole',
    may: { 'erased whole': 'open' },
    says: ['reads-equal', 'was-unsteady'],
  },
  {
    name: 'three reads, no two alike: the chip fails; cold, several reads, majority, and onto a new chip',
    did: [open(), supply, clip, found, read(a), read(b), read(c), { ...chosen, sha256: 'd'.repeat(64) }],
    next: 'read whole',
    may: { 'erased whole': ['reads-differ', 'chip-failing'] },
    says: ['chip-failing'],
  },
  {
    name: 'rebuilt from several reads: never back onto the failing chip',
    did: [
      open(),
      supply,
      clip,
      found,
      read(a),
      read(b, { cold: true }),
      read(c, { cold: true }),
      { step: 'rebuilt', area: 'whole', sha256: c, bytes: 4 * mega, image, reads: 3, doubtfulBytes: 0 },
      chosen,
    ],
    may: { 'erased whole': ['chip-failing'] },
    says: ['chip-failing'],
  },
  {
    name: 'rebuilt, and a new chip: it is blank-checked, not erased',
    did: [
      open({ plan: 'onto-new' }),
      supply,
      clip,
      found,
      read(a),
      read(b, { cold: true }),
      read(c, { cold: true }),
      { step: 'rebuilt', area: 'whole', sha256: c, bytes: 4 * mega, image, reads: 3, doubtfulBytes: 0 },
      chosen,
      { step: 'identified', of: 'new-one', result: 'found', chip: 'W25Q32', bytes: 4 * mega },
    ],
    next: 'blank whole',
    may: { 'programmed whole': ['blank-first'] },
    says: ['chip-failing'],
  },
  {
    name: 'every byte FF: an empty chip or no contact, and no backup either way',
    did: [open(), supply, clip, found, read(a, { allSame: 'ff' }), read(a, { allSame: 'ff' }), chosen],
    may: { 'erased whole': ['nothing-in-it'] },
    says: ['nothing-in-it'],
  },
  {
    name: 'read as larger than it is: its content stands there twice, and no image of this size is its backup',
    did: [open(), supply, clip, found, read(a, { repeats: 2 * mega }), read(a, { repeats: 2 * mega }), chosen],
    may: { 'erased whole': ['repeats-itself'] },
    says: ['repeats-itself'],
  },
  {
    name: 'a dump of half the chip’s size',
    did: [open(), supply, clip, found, read(a, { bytes: 2 * mega }), read(a, { bytes: 2 * mega }), chosen],
    may: { 'erased whole': ['size-differs'] },
    says: ['size-differs'],
  },
  {
    name: 'read twice and not kept: hashes alone bring no board back',
    did: [
      open(),
      supply,
      clip,
      found,
      { step: 'read', area: 'whole', sha256: a, bytes: 4 * mega, extent: 'whole' },
      { step: 'read', area: 'whole', sha256: a, bytes: 4 * mega, extent: 'whole' },
      chosen,
    ],
    may: { 'erased whole': ['not-kept'] },
    says: ['not-kept'],
  },
  {
    name: 'a sampled second read is none for a small chip',
    did: [
      open(),
      supply,
      clip,
      found,
      read(a),
      { step: 'read', area: 'whole', bytes: 65536, extent: 'sampled', agrees: true, structure: 'sound' },
      chosen,
    ],
    next: 'read whole',
    may: { 'erased whole': ['read-again-first'] },
  },

  {
    name: 'read once more after the erase: that is no read of what was kept, and the backup stays what it was',
    did: [...kept, chosen, erased, read(b, { allSame: 'ff' })],
    next: 'blank whole',
    says: ['reads-equal'],
  },
  {
    name: 'programmed and read by hand: the backup stays what it was',
    did: [...kept, chosen, erased, blank, programmed, read(c)],
    next: 'verified whole',
    says: ['reads-equal'],
  },

  // eMMC: each area for itself.
  {
    name: 'eMMC: boot areas in full twice; the user area once, then sampled with its structure looked at',
    did: [
      open({ memory: 'emmc', areas: ['boot-1', 'user'], sizes: { 'boot-1': 4 * mega, user: 3800 * mega }, marking: 'KLM4G' }),
      supply,
      { step: 'entered', way: 'in-place', clockStopped: true },
      { step: 'identified', of: 'this', result: 'found', chip: 'KLM4G' },
      read(a, { area: 'boot-1' }),
      read(a, { area: 'boot-1' }),
      read(b, { area: 'user', bytes: 3800 * mega }),
      { step: 'read', area: 'user', bytes: 32 * mega, extent: 'sampled', agrees: true, structure: 'sound' },
    ],
    next: 'chosen boot-1',
    says: ['reads-equal'],
  },
  {
    name: 'eMMC: samples agree and nobody looked at the structure',
    did: [
      open({ memory: 'emmc', areas: ['user'], sizes: { user: 3800 * mega }, marking: 'KLM4G' }),
      supply,
      { step: 'entered', way: 'in-place', clockStopped: true },
      { step: 'identified', of: 'this', result: 'found', chip: 'KLM4G' },
      read(b, { area: 'user', bytes: 3800 * mega }),
      { step: 'read', area: 'user', bytes: 32 * mega, extent: 'sampled', agrees: true },
      { ...chosen, area: 'user', bytes: 3800 * mega },
    ],
    next: 'read user',
    may: { 'erased user': ['structure-first'] },
  },
  {
    name: 'eMMC: a boot area is read in full twice, whatever the samples say',
    did: [
      open({ memory: 'emmc', areas: ['boot-1'], sizes: { 'boot-1': 4 * mega }, marking: 'KLM4G' }),
      supply,
      { step: 'entered', way: 'in-place', clockStopped: true },
      { step: 'identified', of: 'this', result: 'found', chip: 'KLM4G' },
      read(a, { area: 'boot-1' }),
      { step: 'read', area: 'boot-1', bytes: 65536, extent: 'sampled', agrees: true, structure: 'sound' },
    ],
    next: 'read boot-1',
  },

  {
    name: 'left as it is, though it was erased: it holds nothing, and the set must not start on it',
    did: [...kept, chosen, erased, { step: 'left-alone', area: 'whole' }],
    next: 'chosen whole',
    may: { started: ['program-first', 'way-out-first'] },
  },
  {
    name: 'rebuilt and left as it is: what was rebuilt is kept',
    did: [
      open({ plan: 'onto-new' }),
      supply,
      clip,
      found,
      read(a),
      read(b),
      read(c),
      { step: 'rebuilt', area: 'whole', sha256: c, bytes: 4 * mega, image, reads: 3, doubtfulBytes: 2 },
      { step: 'left-alone', area: 'whole' },
    ],
    may: { fitted: 'open' },
  },

  // Serial EEPROM: has no identification and no erase; a byte is simply written over.
  {
    name: 'EEPROM: kept and chosen, it is programmed at once',
    did: [
      open({ memory: 'eeprom', marking: '24C32', sizes: { whole: 4096 } }),
      supply,
      clip,
      { step: 'identified', of: 'this', result: 'found' },
      read(a, { bytes: 4096 }),
      read(a, { bytes: 4096 }),
      { ...chosen, bytes: 4096 },
    ],
    next: 'programmed whole',
    may: { 'programmed whole': 'open' },
  },

  // The image.
  {
    name: 'an image that does not fit stops before the erase',
    did: [...kept, { ...chosen, fit: 'does-not-fit' }],
    next: 'chosen whole',
    may: { 'erased whole': ['does-not-fit'] },
    says: ['reads-equal', 'does-not-fit'],
  },
  { name: 'unsure is not refused', did: [...kept, { ...chosen, fit: 'unsure' }], next: 'erased whole', may: { 'erased whole': 'open' } },
  {
    name: 'an image of another size than the chip',
    did: [...kept, { ...chosen, bytes: 8 * mega }],
    next: 'chosen whole',
    may: { 'erased whole': ['image-size'] },
    says: ['reads-equal', 'image-size'],
  },
  {
    name: 'programmed with something else than was chosen',
    did: [...kept, chosen, erased, blank, { ...programmed, sha256: b }],
    next: 'erased whole',
    says: ['reads-equal', 'other-image'],
    may: { started: ['other-image', 'way-out-first'] },
  },

  // Overrides: by a person, with a reason, for that gate and area alone.
  {
    name: 'the chip can’t be read, and that is why it goes: recorded, and on it goes onto a new chip',
    did: [
      open({ plan: 'onto-new' }),
      supply,
      clip,
      found,
      { step: 'overrode', gate: 'read-first', area: 'whole', reason: 'chip-unreadable' },
      chosen,
    ],
    next: 'identified new-one',
    may: { 'programmed whole': ['new-chip-first', 'blank-first'] },
    says: ['went-past'],
  },
  {
    name: 'an override of one gate opens no other',
    did: [open(), supply, clip, found, { step: 'overrode', gate: 'read-first', area: 'whole', reason: 'taken-on' }],
    may: { 'erased whole': ['image-first'], 'programmed whole': ['image-first', 'erase-first'] },
  },

  // A chip bought ready-written is a flash too: the old content is kept first.
  {
    name: 'ready-written: the old one is read first',
    did: [open({ plan: 'ready-written' }), supply, clip, found],
    next: 'read whole',
    may: { fitted: ['read-first'] },
  },
  {
    name: 'ready-written: kept, so it is fitted',
    did: [open({ plan: 'ready-written' }), supply, clip, found, read(a), read(a)],
    next: 'fitted',
    may: { fitted: 'open' },
  },
  {
    name: 'ready-written and fitted: everything off, then start',
    did: [open({ plan: 'ready-written' }), supply, clip, found, read(a), read(a), { step: 'fitted', from: 'dealer', to: 'U402' }],
    next: 'way-out',
    may: { started: ['way-out-first'] },
  },
  {
    name: 'moved from another board: what differs is noted before',
    did: [open({ plan: 'move' }), supply, clip, found, read(a), read(a), { step: 'fitted', from: 'donor board U402', to: 'U402' }],
    next: 'fitted',
    says: ['reads-equal', 'differs-first'],
    may: { started: ['differs-first', 'way-out-first'] },
  },
  {
    name: 'kept only: nothing is written, so everything comes off',
    did: [open({ plan: 'keep-only', why: 'donor' }), supply, clip, found, read(a), read(a)],
    next: 'way-out',
  },
];

const began = (work: 'erase' | 'program'): FlashDid => ({ step: 'began', area: 'whole', work, programmer: 'Bench clip' });
const eeprom = [
  open({ memory: 'eeprom', sizes: { whole: 4096 } }),
  supply,
  clip,
  found,
  read(a, { bytes: 4096 }),
  read(a, { bytes: 4096 }),
];
const small: FlashDid = { ...chosen, bytes: 4096 };

/** A programmer that stops in the middle of erasing or writing: what is on the chip then is nobody’s content. */
export const brokenOffCases: readonly SessionCase[] = [
  {
    name: 'an erase that broke off is done again, and the set is not started on it',
    did: [...kept, chosen, began('erase'), out],
    next: 'erased whole',
    may: { 'erased whole': 'open', 'blank whole': ['erase-first'], 'programmed whole': ['erase-first'], started: ['unfinished'] },
    says: ['reads-equal', 'unfinished'],
  },
  {
    name: 'a write that broke off leaves half an image: erased again before it is written again',
    did: [...kept, chosen, began('erase'), erased, blank, began('program'), out],
    next: 'erased whole',
    may: { 'programmed whole': ['erase-first'], 'verified whole': ['unfinished'], started: ['unfinished'] },
    says: ['reads-equal', 'unfinished'],
  },
  {
    name: 'erased again after a write that broke off, it goes on with the blank check',
    did: [...kept, chosen, began('erase'), erased, blank, began('program'), began('erase'), erased],
    next: 'blank whole',
    says: ['reads-equal'],
  },
  {
    name: 'a write that came to its end is verified next',
    did: [...kept, chosen, began('erase'), erased, blank, began('program'), programmed],
    next: 'verified whole',
    may: { 'verified whole': 'open' },
    says: ['reads-equal'],
  },
  {
    name: 'what was touched can’t be left alone any more',
    did: [...kept, chosen, began('erase'), { step: 'left-alone', area: 'whole' }, out],
    may: { started: ['unfinished'] },
  },
  {
    name: 'a read after a broken-off erase is no dump of the old content: the two before it still are, and no more is asked for',
    did: [...kept, chosen, began('erase'), read(b)],
    next: 'erased whole',
    says: ['reads-equal', 'unfinished'],
  },
  {
    name: 'a write over a good image that broke off undoes its verification',
    did: [...written, began('program'), out],
    next: 'erased whole',
    may: { started: ['unfinished'] },
  },
  {
    name: 'a serial EEPROM has no erase: a write that broke off is written again',
    did: [...eeprom, small, began('program')],
    next: 'programmed whole',
    may: { 'programmed whole': 'open', 'verified whole': ['unfinished'] },
  },
  {
    name: 'the new chip, half written, is erased by the programmer before it is written again',
    did: [open({ plan: 'onto-new' }), supply, clip, found, read(a), read(a), chosen, { ...found, of: 'new-one' }, blank, began('program')],
    next: 'erased whole',
    may: { 'erased whole': 'open', 'programmed whole': ['erase-first'] },
  },
];

const cold = (sha256: string): FlashDid => read(sha256, { cold: true });
const warmDiffer = [open(), supply, clip, found, read(a), read(b), read(c)];

/** Chilled, a weak chip often reads well: that saves its content and clears nobody. */
export const coldCases: readonly SessionCase[] = [
  {
    name: 'three warm reads differ, two cold ones are equal: the content is saved, and the chip is still not written again',
    did: [...warmDiffer, cold(a), cold(a)],
    next: 'opened',
    may: { 'erased whole': ['chip-failing', 'image-first'] },
    says: ['chip-failing'],
  },
  {
    name: 'the same with a new chip planned: the cold read is the dump, an image can be chosen',
    did: [open({ plan: 'onto-new' }), ...warmDiffer.slice(1), cold(a), cold(a)],
    next: 'chosen whole',
    says: ['chip-failing', 'reads-equal'],
  },
  {
    name: 'three warm reads differ and two more, the clip reseated, are equal warm: it was the contact',
    did: [...warmDiffer, clip, found, read(a), read(a)],
    next: 'chosen whole',
    says: ['reads-equal', 'was-unsteady'],
  },
  {
    name: 'cold it differs as well: read on and combine',
    did: [open({ plan: 'onto-new' }), ...warmDiffer.slice(1), cold(a), cold(b)],
    next: 'rebuilt whole',
    says: ['chip-failing'],
  },
  {
    name: 'a read that differs from the dump is no image, though the set gave it: it holds the very errors of the chip',
    did: [open({ plan: 'onto-new' }), ...warmDiffer.slice(1), cold(a), cold(a), { ...chosen, sha256: b, source: 'own-set' }],
    next: 'chosen whole',
    may: { 'programmed whole': ['unsteady-read', 'new-chip-first', 'blank-first'] },
    says: ['chip-failing', 'reads-equal', 'unsteady-read'],
  },
  {
    name: 'the dump itself is one',
    did: [open({ plan: 'onto-new' }), ...warmDiffer.slice(1), cold(a), cold(a), { ...chosen, sha256: a, source: 'own-set' }],
    next: 'identified new-one',
  },
];
