/**
 * What a bench wants to have seen before a set leaves, by what was wrong and what was done: written before the rules, from the trade (soak times and counts:
 * common practice, values from memory; no source).
 */
import type { Body, BodyOf } from '../ledger/index.ts';

/** A job, and what its proof asks for. */
export interface ProofCase {
  readonly name: string;
  readonly layout: string;
  readonly bodies: readonly Body[];
  /** Among what is asked. */
  readonly asks?: readonly string[];
  /** Not asked. */
  readonly not?: readonly string[];
  readonly starts?: { readonly count: number; readonly cold: number };
  /** Null: none is asked. */
  readonly soakHours?: number | null;
  readonly days?: number | null;
}

const symptom = (...symptoms: string[]): Body => ({ kind: 'symptom.reported', v: 2, symptoms });
const opened = (more: Partial<BodyOf<'job.opened'>> = {}): Body => ({ kind: 'job.opened', v: 3, set: { layout: 'led-tcon' }, ...more });
const cover: Body = { kind: 'set.changed', v: 3, stage: 'back-off' };
const did = (repair: string, result: BodyOf<'repair.done'>['result'] = 'cured'): Body => ({ kind: 'repair.done', v: 2, repair, result });

export const proofCases: readonly ProofCase[] = [
  {
    name: 'a T-con swapped',
    layout: 'led-tcon',
    bodies: [opened(), symptom('half-picture'), cover, did('replace.tcon')],
    asks: ['complaint', 'off-on', 'standby-dark', 'plain-colours', 'moving', 'sound', 'every-input', 'ground-screws', 'starts', 'soak'],
    not: ['lit-before-glass', 'settings', 'insulation', 'touch-current', 'warmth', 'every-key', 'days'],
    starts: { count: 2, cold: 1 },
    soakHours: 2,
  },
  {
    name: 'strips: lit by the set before the glass goes back, four hours at full brightness, five starts',
    layout: 'led-tcon',
    bodies: [opened(), symptom('sound-dark'), cover, { kind: 'set.changed', v: 3, stage: 'panel-open' }, did('replace.strips')],
    asks: ['lit-before-glass', 'plain-colours', 'ground-screws'],
    not: ['insulation', 'settings', 'every-key'],
    starts: { count: 5, cold: 1 },
    soakHours: 4,
  },
  {
    name: 'capacitors of a supply: ten starts, five of them cold, with their delays, a warmth look, the mains side',
    layout: 'led-tcon',
    bodies: [opened(), symptom('slow-start'), cover, did('recap.power')],
    asks: ['delay', 'warmth', 'insulation', 'touch-current', 'ground-screws'],
    not: ['lit-before-glass', 'settings'],
    starts: { count: 10, cold: 5 },
    soakHours: 2,
  },
  {
    name: 'a memory on a new chip: ten starts, five after half an hour unplugged; what settings were is looked at',
    layout: 'led-tcon',
    bodies: [opened(), symptom('restart-loop'), cover, did('rewrite.startup')],
    asks: ['delay', 'settings', 'picture-right'],
    not: ['insulation', 'every-input'],
    starts: { count: 10, cold: 5 },
    soakHours: null,
  },
  {
    name: 'contacts covered: four hours and ten starts, and it is a modification',
    layout: 'led-tcon',
    bodies: [opened(), symptom('single-line'), cover, did('clock.mask')],
    asks: ['plain-colours', 'modification'],
    starts: { count: 10, cold: 1 },
    soakHours: 4,
  },
  {
    name: 'a plug that was cleaned comes back on the third day: a week of daily starts',
    layout: 'led-tcon',
    bodies: [opened(), symptom('half-picture'), cover, did('renew.picture')],
    asks: ['plain-colours', 'ground-screws'],
    days: 7,
    soakHours: null,
  },
  {
    name: 'a main board: every input, every key, sound, settings, the picture the right way round',
    layout: 'led-tcon',
    bodies: [opened(), symptom('standby-no-start'), cover, did('replace.main')],
    asks: ['every-input', 'every-key', 'sound', 'settings', 'picture-right', 'network'],
    not: ['insulation'],
    soakHours: 2,
    days: null,
  },
  {
    name: 'a button board: every key of set and remote',
    layout: 'led-tcon',
    bodies: [opened(), symptom('standby-no-start'), cover, did('replace.keys')],
    asks: ['every-key', 'off-on'],
    not: ['every-input', 'settings'],
    soakHours: null,
  },
  {
    name: 'speakers or the sound stage: sound by itself, at the set’s full volume too',
    layout: 'led-tcon',
    bodies: [opened(), symptom('no-sound'), cover, did('replace.speakers')],
    asks: ['sound', 'sound-loud'],
  },
  {
    name: 'a reset, never opened: what was complained of, off and on, dark in standby, settings; no cover, no soak, no mains',
    layout: 'led-tcon',
    bodies: [opened(), symptom('app-fault'), did('drain.reset')],
    asks: ['complaint', 'off-on', 'standby-dark', 'sound'],
    not: ['ground-screws', 'insulation', 'touch-current', 'lit-before-glass', 'every-input', 'warmth'],
    starts: { count: 2, cold: 1 },
    soakHours: null,
  },
  {
    name: 'a set that was counted: no code comes back',
    layout: 'led-tcon',
    bodies: [opened(), symptom('blinking'), { kind: 'blink.read', v: 3, groups: [3], cycles: 2 }, cover, did('replace.power')],
    asks: ['no-code', 'insulation', 'touch-current', 'warmth'],
    soakHours: 2,
  },
  {
    name: 'after a surge: insulation and touch current, whatever was replaced',
    layout: 'led-tcon',
    bodies: [opened({ condition: ['storm'] }), symptom('half-picture'), cover, did('replace.tcon')],
    asks: ['insulation', 'touch-current'],
  },
  {
    name: 'two repairs: what each asks for, the longer soak, the more starts',
    layout: 'led-tcon',
    bodies: [opened(), symptom('sound-dark'), cover, did('replace.tcon', 'unchanged'), did('replace.strips')],
    asks: ['lit-before-glass', 'every-input'],
    starts: { count: 5, cold: 1 },
    soakHours: 4,
  },
  {
    name: 'a repair that was decided and not done asks for nothing',
    layout: 'led-tcon',
    bodies: [opened(), symptom('sound-dark'), cover, did('replace.strips', 'not-tried'), did('replace.tcon')],
    not: ['lit-before-glass'],
    soakHours: 2,
  },
  {
    name: 'a board fitted without a word of a repair is a board that was swapped',
    layout: 'led-tcon',
    bodies: [
      opened(),
      symptom('sound-dark'),
      cover,
      { kind: 'part.fitted', v: 1, assembly: 'main', number: 'QKM-2250', source: 'pulled', price: { amountMinor: 4000, currency: 'EUR' } },
    ],
    asks: ['every-input', 'settings'],
    soakHours: 2,
  },
  {
    name: 'a sustain board: the warmth of its stage, plain colours, two hours',
    layout: 'plasma',
    bodies: [opened(), symptom('bar-across'), cover, did('replace.scan-sustain')],
    asks: ['warmth', 'plain-colours'],
    soakHours: 2,
  },
];

/** A proof under way: what still stands between the set and being closed as repaired. */
export interface ProofCourse {
  readonly name: string;
  readonly bodies: readonly Body[];
  /** Item -> where it is. Items not named are not looked at. */
  readonly state: Readonly<Record<string, 'open' | 'passed' | 'failed' | 'skipped'>>;
  readonly starts?: { readonly good: number; readonly cold: number };
}
const passed = (item: string): Body => ({ kind: 'proof.checked', v: 1, item, result: 'passed' });
const failed = (item: string): Body => ({ kind: 'proof.checked', v: 1, item, result: 'failed' });
const start = (more: Partial<BodyOf<'start.timed'>> = {}): Body => ({
  kind: 'start.timed',
  v: 1,
  started: true,
  seconds: 6,
  cold: false,
  ...more,
});
const times = (count: number, one: Body): Body[] => Array.from({ length: count }, () => one);
const capacitors = [opened(), symptom('slow-start'), cover, did('recap.power')];

export const proofCourses: readonly ProofCourse[] = [
  { name: 'nothing looked at yet', bodies: capacitors, state: { complaint: 'open', starts: 'open', soak: 'open' } },
  { name: 'looked at, and right', bodies: [...capacitors, passed('complaint')], state: { complaint: 'passed', sound: 'open' } },
  {
    name: 'ten starts, five of them cold',
    bodies: [...capacitors, ...times(5, start()), ...times(5, start({ cold: true }))],
    state: { starts: 'passed' },
    starts: { good: 10, cold: 5 },
  },
  {
    name: 'ten starts, four of them cold: one more cold one',
    bodies: [...capacitors, ...times(6, start()), ...times(4, start({ cold: true }))],
    state: { starts: 'open' },
    starts: { good: 10, cold: 4 },
  },
  {
    name: 'one that failed: nine good ones say nothing against it',
    bodies: [...capacitors, ...times(9, start({ cold: true })), { kind: 'start.timed', v: 1, started: false, cold: true }],
    state: { starts: 'failed' },
  },
  {
    name: 'starts before the repair are what it was like then',
    bodies: [opened(), symptom('slow-start'), start({ seconds: 60 }), cover, did('recap.power'), ...times(10, start({ cold: true }))],
    state: { starts: 'passed' },
    starts: { good: 10, cold: 10 },
  },
  {
    name: 'after another repair everything is looked at again: what it was before says nothing of it now',
    bodies: [...capacitors, passed('complaint'), passed('sound'), ...times(10, start({ cold: true })), did('replace.power')],
    state: { complaint: 'open', sound: 'open', starts: 'open' },
  },
  {
    name: 'it came back and the job was opened again: what was seen before it came back says nothing',
    bodies: [
      ...capacitors,
      passed('complaint'),
      ...times(10, start({ cold: true })),
      { kind: 'job.closed', v: 2, outcome: 'repaired', minutes: 60 },
      { kind: 'job.reopened', v: 1, reason: 'slow again after two days' },
    ],
    // What was worked on still says what has to be seen.
    state: { complaint: 'open', starts: 'open', soak: 'open', insulation: 'open' },
  },
  {
    name: 'a fault that shows again: failed, until it is repaired and looked at again',
    bodies: [...capacitors, failed('complaint')],
    state: { complaint: 'failed' },
  },
  {
    name: 'the cover taken off again: its screws are looked at again, the rest stands',
    bodies: [
      ...capacitors,
      passed('sound'),
      { kind: 'set.changed', v: 3, stage: 'closed' },
      passed('ground-screws'),
      { kind: 'set.changed', v: 3, stage: 'back-off' },
    ],
    state: { sound: 'passed', 'ground-screws': 'open' },
  },
  {
    name: 'the soak ran its time',
    bodies: [...capacitors, { kind: 'proof.soaked', v: 1, minutes: 120, result: 'passed' }],
    state: { soak: 'passed' },
  },
  {
    name: 'two soaks of an hour are two warm-ups, and no soak of two hours',
    bodies: [
      ...capacitors,
      { kind: 'proof.soaked', v: 1, minutes: 60, result: 'passed' },
      { kind: 'proof.soaked', v: 1, minutes: 60, result: 'passed' },
    ],
    state: { soak: 'open' },
  },
  {
    name: 'it went dark after an hour and a half: failed, however long it ran',
    bodies: [...capacitors, { kind: 'proof.soaked', v: 1, minutes: 90, result: 'failed' }],
    state: { soak: 'failed' },
  },
  {
    name: 'left out, with the reason',
    bodies: [...capacitors, { kind: 'proof.skipped', v: 1, item: 'sound', reason: 'not-possible-here' }],
    state: { sound: 'skipped' },
  },
  {
    name: 'left out, and then looked at after all',
    bodies: [...capacitors, { kind: 'proof.skipped', v: 1, item: 'sound', reason: 'no-time' }, passed('sound')],
    state: { sound: 'passed' },
  },
  {
    name: 'a check that is safety can’t be left out: only the local rule can say that it isn’t needed',
    bodies: [...capacitors, { kind: 'proof.skipped', v: 1, item: 'insulation', reason: 'no-time' }],
    state: { insulation: 'open' },
  },
  {
    name: 'by the local rule it isn’t needed here',
    bodies: [...capacitors, { kind: 'proof.skipped', v: 1, item: 'insulation', reason: 'local-rule' }],
    state: { insulation: 'skipped' },
  },
  {
    name: 'strips lit before the glass: seen before the glass went back, it stands; the repair was recorded afterwards',
    bodies: [
      opened(),
      symptom('sound-dark'),
      { kind: 'set.changed', v: 3, stage: 'panel-open' },
      passed('lit-before-glass'),
      did('replace.strips'),
    ],
    state: { 'lit-before-glass': 'passed' },
  },
];

/** Whether a set may leave: what is still in the way. */
export interface ProofGate {
  readonly name: string;
  readonly outcome: BodyOf<'job.closed'>['outcome'];
  readonly bodies: readonly Body[];
  readonly inTheWay: readonly string[];
}
const reset = [opened(), symptom('app-fault'), did('drain.reset')];
const all = ['complaint', 'moving', 'sound', 'off-on', 'standby-dark', 'network', 'settings'].map(passed);
const coldStarts = times(2, start({ cold: true }));
export const proofGates: readonly ProofGate[] = [
  { name: 'everything looked at', outcome: 'repaired', bodies: [...reset, ...all, ...coldStarts], inTheWay: [] },
  { name: 'one thing left', outcome: 'repaired', bodies: [...reset, ...all.slice(1), ...coldStarts], inTheWay: ['complaint'] },
  {
    name: 'what failed is no repair',
    outcome: 'repaired',
    bodies: [...reset, ...all, ...coldStarts, failed('sound')],
    inTheWay: ['sound'],
  },
  {
    name: 'a flaw that is known and agreed may stay',
    outcome: 'repaired-with-known-flaw',
    bodies: [...reset, ...all, ...coldStarts, failed('sound')],
    inTheWay: [],
  },
  {
    name: 'a flaw that hurts somebody may not',
    outcome: 'repaired-with-known-flaw',
    bodies: [
      opened({ condition: ['storm'] }),
      symptom('app-fault'),
      did('drain.reset'),
      ...all,
      ...coldStarts,
      passed('insulation'),
      failed('touch-current'),
    ],
    inTheWay: ['touch-current'],
  },
  { name: 'handed back as it is: nothing is asked', outcome: 'handed-back', bodies: [opened(), symptom('sound-dark')], inTheWay: [] },
  { name: 'not worth it', outcome: 'not-worth-it', bodies: [opened(), symptom('sound-dark'), cover], inTheWay: [] },
];
