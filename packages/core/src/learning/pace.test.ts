import { expect, test } from '@jest/globals';
import { cardOf } from '../diagnosis/index.ts';
import { defaultSettings, type Body, type Entry } from '../ledger/index.ts';
import { shipped } from '../testing/shipped.ts';
import { paceOf } from './index.ts';
import { paceCases } from './paceCases.ts';

test.each(paceCases.map((one) => [one.name, one] as const))('%s', (_, { jobs, factor }) => {
  expect(paceOf(jobs)).toEqual({ factor: expect.closeTo(factor, 3) as unknown, jobs: jobs.length });
});

const torch = (minutes?: number): Body => ({
  kind: 'test.answered',
  v: 2,
  test: 'torch',
  outcome: 'faint-picture',
  sure: 'sure',
  ...(minutes === undefined ? {} : { minutes }),
});
const opened: Body[] = [
  { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
  { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] },
];
const open: Body = { kind: 'set.changed', v: 3, stage: 'back-off' };
const closed = (minutes: number): Body => ({ kind: 'job.closed', v: 2, outcome: 'handed-back', minutes });

function timed(...written: readonly (readonly [string, Body])[]) {
  const entries = [...opened.map((body) => ['counter', body] as const), ...written].map(([by, body], index): Entry => ({
    id: `e${index}`,
    seq: index + 1,
    at: '2026-01-01T00:00:00Z',
    by,
    basedOn: index,
    body,
  }));
  return cardOf({ set: { layout: 'led-tcon' }, settings: defaultSettings, entries }, shipped()).timed;
}

test('a job is timed by its doer, with the way to each step in both; not while it is open, nor where the proposed minutes were left', () => {
  const way = timed(['ana', open], ['ana', torch()], ['counter', closed(90)]);
  const book = way?.book ?? 0;
  expect(way).toEqual({ by: 'ana', typed: 90, book: expect.any(Number) as unknown });
  expect(timed(['ana', open], ['ana', torch()])).toBeUndefined();
  expect(timed(['ana', open], ['ana', torch()], ['ana', closed(Math.round(book))])).toBeUndefined();
  // Opening the set is part of the book, and of what was typed.
  const { tests } = shipped();
  expect(book).toBeGreaterThan((tests.get('torch')?.minutes ?? 0) + 5);
  // Minutes typed with the answer are what is proposed at the closing; the book beside them stays the book.
  expect(timed(['ana', open], ['ana', torch(70)], ['ana', closed(70)])).toBeUndefined();
  expect(timed(['ana', open], ['ana', torch(70)], ['ana', closed(80)])).toEqual({ by: 'ana', typed: 80, book });
});
test('where two worked at it, it is nobody’s time; one look of three minutes times nothing', () => {
  expect(timed(['ana', open], ['ana', torch()], ['ana', torch()], ['jo', closed(90)])?.by).toBe('ana');
  expect(timed(['ana', open], ['ana', torch()], ['jo', torch()], ['jo', closed(90)])).toBeUndefined();
  expect(timed(['ana', closed(90)])).toBeUndefined();
});
