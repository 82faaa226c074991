/** What an eMMC’s boot registers say, and what a bench expects of them when the chip is replaced: written before the rules (common practice, no source). */
import type { FlashDid } from '../ledger/index.ts';
import type { SessionCase } from './sessionCases.ts';

const a = 'a'.repeat(64);
const image = '0192f000-0000-7000-8000-00000000f1a5';
const mega = 2 ** 20;
const opened = (plan: 'onto-new' | 'rewrite' | 'keep-only'): FlashDid => ({
  step: 'opened',
  memory: 'emmc',
  name: 'U900',
  marking: 'KLM4G',
  areas: ['boot-1'],
  sizes: { 'boot-1': 4 * mega },
  why: 'rails-good-no-start',
  plan,
});
const read: FlashDid = { step: 'read', area: 'boot-1', sha256: a, bytes: 4 * mega, extent: 'whole', image };
const kept = (plan: 'onto-new' | 'rewrite' | 'keep-only'): FlashDid[] => [
  opened(plan),
  { step: 'supply', ioVolts: 1.8, programmerVolts: 1.8, feeds: ['programmer'] },
  { step: 'entered', way: 'in-place' },
  { step: 'identified', of: 'this', result: 'found', chip: 'KLM4G' },
  read,
  read,
];
const old: FlashDid = { step: 'boot-config', of: 'this', partition: '48', bus: '00', reset: '01' };
const own: FlashDid = { step: 'chosen', area: 'boot-1', sha256: a, bytes: 4 * mega, image, source: 'own-set', fit: 'fits' };
const onNew: FlashDid[] = [
  ...kept('onto-new'),
  old,
  own,
  { step: 'identified', of: 'new-one', result: 'found', chip: 'KLM4G' },
  { step: 'blank', area: 'boot-1', result: 'blank', extent: 'whole' },
  { step: 'programmed', area: 'boot-1', sha256: a },
  { step: 'verified', area: 'boot-1', result: 'equal', extent: 'whole' },
];
const out: FlashDid = { step: 'way-out', checked: ['supply-off', 'wires-off', 'chip-fitted', 'bridges-none'] };

export const bootConfigCases: readonly SessionCase[] = [
  { name: 'the old chip’s boot registers are read while it still answers', did: kept('onto-new'), next: 'boot-config' },
  { name: 'then its content is chosen for the new one', did: [...kept('onto-new'), old], next: 'chosen boot-1' },
  {
    name: 'written and verified: the new chip’s registers have to be set, or it does not boot',
    did: onNew,
    next: 'boot-config new-one',
    may: { started: ['boot-config-first', 'way-out-first'] },
  },
  {
    name: 'set otherwise than on the old chip',
    did: [...onNew, { step: 'boot-config', of: 'new-one', partition: '00', bus: '00', reset: '00' }],
    next: 'boot-config new-one',
    may: { started: ['boot-config-differs', 'way-out-first'] },
    says: ['reads-equal', 'boot-config-differs'],
  },
  {
    name: 'set alike: everything off the chip, and it is tried',
    did: [...onNew, { ...old, of: 'new-one' }, out],
    next: 'started',
    may: { started: 'open' },
  },
  {
    name: 'what was looked at before the registers were written says nothing of the wires now',
    did: [...onNew, out, { ...old, of: 'new-one' }],
    next: 'way-out',
  },
  {
    name: 'the old chip’s could not be read: a person goes past it, with the reason',
    did: [
      ...onNew.filter(({ step }) => step !== 'boot-config'),
      { step: 'overrode', gate: 'boot-config-first', reason: 'chip-unreadable' },
      out,
    ],
    next: 'started',
    may: { started: 'open' },
  },
  {
    name: 'a session from before they were asked for, started already: nothing is due of it',
    did: [...onNew.filter(({ step }) => step !== 'boot-config'), out, { step: 'started', result: 'no-change' }],
    says: ['reads-equal'],
    next: 'none',
  },
  { name: 'the same chip keeps its registers: nothing is asked', did: [...kept('rewrite')], next: 'chosen boot-1' },
  { name: 'nor where it is only read', did: [...kept('keep-only')], next: 'way-out' },
];

/** PARTITION_CONFIG, BOOT_BUS_CONDITIONS and RST_n_FUNCTION of JEDEC’s JESD84-B51 (values from memory). */
export const registerCases = [
  ['48', '00', '01', { boots: 'boot-1', acknowledges: true, reset: 'on' }],
  ['08', '00', '00', { boots: 'boot-1', acknowledges: false, reset: 'not-set' }],
  ['10', '02', '02', { boots: 'boot-2', acknowledges: false, reset: 'off' }],
  ['38', '00', '00', { boots: 'user', acknowledges: false, reset: 'not-set' }],
  ['78', '00', '01', { boots: 'user', acknowledges: true, reset: 'on' }],
  ['00', '00', '00', { boots: 'none', acknowledges: false, reset: 'not-set' }],
  // An access left on boot 1 after writing it says nothing of where it boots from.
  ['49', '00', '01', { boots: 'boot-1', acknowledges: true, reset: 'on' }],
  ['20', '00', '03', { boots: 'reserved', acknowledges: false, reset: 'reserved' }],
] as const;
