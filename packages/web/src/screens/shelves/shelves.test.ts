import { describe, expect, test } from '@jest/globals';
import type { JobCard } from '@veglia/contract';
import { dueIn, plannedSets } from './dayPlan.ts';
import { jobOfCode, rowsOf, searchCards } from './search.ts';

const id = '0195f3c2-1111-7000-8000-00000000000a';
const card = (change: Partial<JobCard>): JobCard => ({
  jobId: id,
  number: 1,
  title: 'Quorvane QK3-50',
  customerName: 'Petronel Ashby',
  openedAt: '2026-03-02T08:00:00Z',
  state: 'on-the-bench',
  symptoms: ['dead'],
  top: null,
  next: null,
  outcome: null,
  found: null,
  family: 'quorvane.qk3',
  layout: 'led-tcon',
  code: null,
  condition: [],
  closedAt: null,
  entryCount: 3,
  serial: 'Q350-77',
  waits: [],
  ahead: [{ id: 'fuse', hands: 12, wait: 4 }],
  promisedOn: null,
  shelf: 'B 2',
  sizeInch: 50,
  stage: 'closed',
  plugged: false,
  stillOut: [],
  over: { money: false, minutes: false },
  waitsFor: 'hands',
  parts: [],
  partsOn: null,
  trialUntil: null,
  collected: false,
  comebackOf: null,
  ...change,
});

test.each([
  ['an address with the job', `http://127.0.0.1:4390/jobs/${id}`, id],
  ['in capitals, as some scanners type', `HTTP://HOST/JOBS/${id.toUpperCase()}`, id],
  ['a bare id', ` ${id} `, id],
  ['an address of something else', `http://host/photos/${id}`, undefined],
  ['a name', 'Quorvane', undefined],
])('a scanned code: %s', (_, text, expected) => {
  expect(jobOfCode(text)).toBe(expected);
});

describe('search', () => {
  const cards = [card({}), card({ number: 12, title: 'Oltrema C3-40', customerName: null, serial: 'OL-1', family: null, shelf: null })];
  const found = (text: string): number[] => searchCards(cards, text, () => 'QK3 of 2019').map(({ number }) => number);
  test.each([
    ['', [1, 12]],
    ['1', [1]],
    ['12', [12]],
    ['ashby', [1]],
    ['q350', [1]],
    ['2019', [1]],
    ['oltrema c3', [12]],
    ['oltrema ashby', []],
    ['b 2', [1]],
  ])('%p finds %p', (text, expected) => {
    expect(found(text)).toEqual(expected);
  });
});

describe('planned', () => {
  const now = new Date(2026, 2, 2, 9, 0);
  test('by its longest timer, its promise, and only where a hand can do something', () => {
    const waits = [{ id: 'w', name: 'Reset wait', startedAt: 0, endsAt: now.getTime() + 90_000 }];
    expect(plannedSets([card({ waits, waitsFor: 'timer', promisedOn: '2026-03-02' })], now)).toEqual([
      { id, readyIn: 1.5, dueIn: 480, steps: [{ id: 'fuse', hands: 12, wait: 4 }] },
    ]);
    expect(plannedSets([card({ waitsFor: 'customer' }), card({ waitsFor: 'nothing' }), card({ ahead: [] })], now)).toEqual([]);
  });
  test('without a promise there is nothing to be late for', () => {
    expect(dueIn(card({}), now)).toBeUndefined();
    expect(dueIn(card({ promisedOn: '2026-03-01' }), now)).toBeLessThan(0);
  });
});

test('rows: under each shelf its sets, with their number; in the order given', () => {
  const cards = [card({ jobId: 'a', shelf: 'A' }), card({ jobId: 'b', shelf: 'A' }), card({ jobId: 'c', shelf: null })];
  expect(rowsOf(cards, true).map((row) => (row.kind === 'place' ? `${row.place} ${row.n}` : row.key))).toEqual([
    'A 2',
    'a',
    'b',
    ' 1',
    'c',
  ]);
  expect(rowsOf(cards, false).map(({ key }) => key)).toEqual(['a', 'b', 'c']);
  const keys = rowsOf(cards, true).map(({ key }) => key);
  expect(new Set(keys).size).toBe(keys.length);
});
