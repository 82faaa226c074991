import { expect, test } from '@jest/globals';
import type { Counts } from '../ledger/index.ts';
import { experienceOfCards } from './index.ts';

const card = (hits: number, fault?: string) => ({
  id: '0192f000-0000-7000-8000-000000000001',
  sign: 'x',
  proof: 'y',
  hits,
  misses: 1,
  ...(fault === undefined ? {} : { fault }),
});
const board = (cards: ReturnType<typeof card>[], families: string[] = ['quorvane.qk3'], retired = false) => ({
  board: { layout: 'led-tcon', families, retired, cards },
  by: 'ada',
});
const jobs = (n: number, family?: string): Counts['jobs'] => [
  { layout: 'led-tcon', ...(family === undefined ? {} : { family }), fault: 'tcon.fuse-open', n },
];
const row = (n: number, family?: string) => ({
  layout: 'led-tcon',
  ...(family === undefined ? {} : { family }),
  fault: 'tcon.fuse-open',
  n,
  by: 'ada',
});

test.each([
  ['hits of a fault the pack knows', [board([card(5, 'tcon.fuse-open')])], [], [row(5, 'quorvane.qk3')]],
  ['no fault named: nothing to count', [board([card(5)])], [], []],
  ['never yet', [board([card(0, 'tcon.fuse-open')])], [], []],
  ['a retired board', [board([card(5, 'tcon.fuse-open')], ['quorvane.qk3'], true)], [], []],
  ['of several families: the layout alone', [board([card(5, 'tcon.fuse-open')], ['a.a', 'b.b'])], [], [row(5)]],
  ['of no family', [board([card(5, 'tcon.fuse-open')], [])], [], [row(5)]],
  ['two of them closed here: those count as jobs', [board([card(5, 'tcon.fuse-open')])], jobs(2, 'quorvane.qk3'), [row(3, 'quorvane.qk3')]],
  ['all closed here', [board([card(5, 'tcon.fuse-open')])], jobs(9, 'quorvane.qk3'), []],
  ['closed jobs of another family', [board([card(5, 'tcon.fuse-open')])], jobs(2, 'pelorane.pt9'), [row(5, 'quorvane.qk3')]],
  ['of no family: every closed job of the layout may be one', [board([card(5, 'tcon.fuse-open')], [])], jobs(2, 'pelorane.pt9'), [row(3)]],
])('known-fault cards: %s', (_, boards, closed, rows) => {
  expect(experienceOfCards(boards, closed)).toEqual(rows);
});
