/** What steps on a memory say of the fault, as a bench expects it: written before the rule. Common practice, no source. */
import type { FlashDid } from '../ledger/index.ts';

/** The last step, with those before it, and what it amounts to: answers "test outcome", a repair "repair result". */
export interface FlashAnswerCase {
  readonly name: string;
  readonly did: readonly FlashDid[];
  readonly answers: readonly string[];
}

const [a, b, c] = ['a'.repeat(64), 'b'.repeat(64), 'c'.repeat(64)];
const image = '0192f000-0000-7000-8000-00000000f1a5';
const open = (plan: Extract<FlashDid, { step: 'opened' }>['plan'], memory: 'spi-nor' | 'emmc' = 'spi-nor'): FlashDid => ({
  step: 'opened',
  memory,
  name: 'U402',
  areas: [memory === 'emmc' ? 'boot-1' : 'whole'],
  why: 'restart-loop',
  plan,
});
const supply: FlashDid = { step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['programmer'] };
const clip: FlashDid = { step: 'entered', way: 'clip', with: 'blue' };
const lifted: FlashDid = { step: 'entered', way: 'lifted', with: 'socket' };
const seen = (result: 'found' | 'not-detected', of: 'this' | 'good-one' = 'this'): FlashDid => ({ step: 'identified', of, result });
const read = (sha256: string, area: 'whole' | 'boot-1' = 'whole'): FlashDid => ({
  step: 'read',
  area,
  sha256,
  bytes: 4096,
  extent: 'whole',
  image,
});
const begun = [open('rewrite'), supply, clip];
const kept = [...begun, seen('found'), read(a), read(a)];
const chosen = (sha256: string, source: 'own-set' | 'own-library'): FlashDid => ({
  step: 'chosen',
  area: 'whole',
  sha256,
  bytes: 4096,
  image,
  source,
  fit: 'fits',
});
const ended = (result: 'starts' | 'no-change' | 'failed'): FlashDid => ({ step: 'started', result });

export const flashAnswerCases: readonly FlashAnswerCase[] = [
  { name: 'the chip answers with what is printed on it', did: [...begun, seen('found')], answers: ['memory.identify found'] },
  { name: 'once silent: a contact, or the chip; that says nothing', did: [...begun, seen('not-detected')], answers: [] },
  {
    name: 'silent on two clips and lifted, and a good one is found: missing',
    did: [
      ...begun,
      seen('not-detected'),
      { step: 'entered', way: 'clip', with: 'pogo' },
      seen('not-detected'),
      lifted,
      seen('not-detected'),
      seen('found', 'good-one'),
    ],
    answers: ['memory.identify missing'],
  },
  { name: 'one read says nothing', did: [...begun, seen('found'), read(a)], answers: [] },
  { name: 'two equal ones', did: kept, answers: ['memory.read-twice equal'] },
  { name: 'two that differ: a contact, or the chip', did: [...begun, seen('found'), read(a), read(b)], answers: [] },
  { name: 'three that differ', did: [...begun, seen('found'), read(a), read(b), read(c)], answers: ['memory.read-twice differ'] },
  { name: 'said once and not again', did: [...begun, seen('found'), read(a), read(b), read(c), read(a)], answers: [] },
  {
    name: 'an eMMC that fails to read the same',
    did: [open('onto-new', 'emmc'), supply, clip, seen('found'), read(a, 'boot-1'), read(b, 'boot-1'), read(c, 'boot-1')],
    answers: ['emmc.health worn'],
  },
  {
    name: 'an eMMC that reads the same twice may be worn all the same',
    did: [open('rewrite', 'emmc'), supply, clip, seen('found'), read(a, 'boot-1'), read(a, 'boot-1')],
    answers: [],
  },
  {
    name: 'another image and it starts: it was the content',
    did: [...kept, chosen(c, 'own-library'), ended('starts')],
    answers: ['rewrite.flash cured'],
  },
  {
    name: 'another image and nothing changed',
    did: [...kept, chosen(c, 'own-library'), ended('no-change')],
    answers: ['rewrite.flash unchanged'],
  },
  {
    name: 'another image, and now it shows something else',
    did: [...kept, chosen(c, 'own-library'), ended('failed')],
    answers: ['rewrite.flash changed'],
  },
  {
    name: 'its own content on a new chip',
    did: [open('onto-new'), supply, clip, seen('found'), read(a), read(a), chosen(a, 'own-set'), ended('starts')],
    answers: ['rewrite.startup cured'],
  },
  {
    name: 'its own content on its own chip is no repair the book knows',
    did: [...kept, chosen(a, 'own-set'), ended('no-change')],
    answers: [],
  },
  {
    name: 'a chip bought ready-written carries other content',
    did: [
      open('ready-written'),
      supply,
      clip,
      seen('found'),
      read(a),
      read(a),
      { step: 'fitted', from: 'dealer', to: 'U402' },
      ended('starts'),
    ],
    answers: ['rewrite.flash cured'],
  },
  {
    name: 'only kept: nothing was repaired',
    did: [open('keep-only'), supply, clip, seen('found'), read(a), read(a), ended('starts')],
    answers: [],
  },
  {
    name: 'warm reads that differ are the answer; cold ones that agree save the content and take nothing of it back',
    did: [
      open('onto-new'),
      supply,
      clip,
      seen('found'),
      read(a),
      read(b),
      read(c),
      { ...read(a), cold: true } as FlashDid,
      { ...read(a), cold: true } as FlashDid,
    ],
    answers: [],
  },
];
