/** A running warranty and the customer's data are asked for at the step that breaks them. */
import { describe, expect, test } from '@jest/globals';
import type { Body, Entry } from '../ledger/index.ts';
import { shipped } from '../testing/shipped.ts';
import { consentsFor } from './index.ts';

const live = (facts: Record<string, unknown>, ...given: string[]): Entry[] =>
  [{ kind: 'job.opened', v: 2, set: { layout: 'led-tcon' }, ...facts }, ...given.map((to) => ({ kind: 'consent.given', v: 1, to }))].map(
    (body, at) => ({ id: `e${at}`, seq: at + 1, at: '2026-03-01T08:00:00Z', by: 'ada', basedOn: at, body: body as Body }),
  );
const running = { warranty: 'running', mayLoseData: true };
const keep = { warranty: 'over', mayLoseData: false };
const step = (id: string, of?: string) => ({ kind: 'test' as const, id, ...(of === undefined ? {} : { of }) });
const repair = (id: string) => ({ kind: 'repair' as const, id });

describe('a chip whose content can’t be kept', () => {
  const told = (...answers: [string, string][]): Entry[] => [
    ...live({ warranty: 'over', mayLoseData: true }),
    ...answers.map(([test, outcome], at): Entry => ({
      id: `a${at}`,
      seq: at + 10,
      at: '2026-03-01T08:00:00Z',
      by: 'ada',
      basedOn: at,
      body: { kind: 'test.answered', v: 2, test, outcome, sure: 'sure' as const },
    })),
  ];
  const asked = (entries: Entry[]) => consentsFor(repair('rewrite.startup'), entries, { stage: 1 }, shipped(), 'led-tcon');
  test('doesn’t answer: an exception on record, once', () => {
    const dead = told(['memory.identify', 'missing']);
    expect(asked(dead)).toEqual(['dead-chip']);
    expect(asked([...dead, ...live({}, 'dead-chip').slice(1)])).toEqual([]);
  });
  test.each<[string, Entry[]]>([
    ['answers and was read twice', told(['memory.identify', 'equal'], ['memory.read-twice', 'equal'])],
    ['read before it died', told(['memory.read-twice', 'differ'], ['memory.identify', 'missing'])],
    ['not looked at yet: the reading is asked for, no exception', told()],
  ])('%s', (_, entries) => expect(asked(entries)).toEqual([]));
  test('couldn’t be read: no reading', () => {
    expect(asked(told(['memory.identify', 'missing'], ['memory.read-twice', 'cant-tell']))).toEqual(['dead-chip']);
  });
});

describe('consent at the step', () => {
  test.each<[string, ReturnType<typeof step> | ReturnType<typeof repair>, Entry[], number, string[]]>([
    ['first step inside, warranty running', step('look.inside'), live(running), 0, ['warranty']],
    ['repair inside, warranty running', repair('replace.tcon'), live(running), 0, ['warranty']],
    ['a step outside', step('torch'), live(running), 0, []],
    ['already open', step('look.inside'), live(running), 1, []],
    ['agreed', step('look.inside'), live(running, 'warranty'), 0, []],
    ['the other consent is no consent', step('look.inside'), live(running, 'data'), 0, ['warranty']],
    ['warranty over', step('look.inside'), live(keep), 0, []],
    ['a reset, data to be kept', step('update-reset'), live(keep), 0, ['data']],
    ['a reset, never asked', step('update-reset'), live({}), 0, ['data']],
    ['a reset, may be lost', step('update-reset'), live(running), 0, []],
    ['a reset, agreed since', step('update-reset'), live(keep, 'data'), 0, []],
    ['a foreign image', repair('rewrite.flash'), live({ warranty: 'running', mayLoseData: false }), 0, ['warranty', 'data']],
    ['a long press that drains and resets', repair('drain.reset'), live(keep), 0, ['data']],
    ['a reset wait wipes nothing', step('reset-wait'), live(keep), 0, []],
  ])('%s', (_, target, entries, stage, needed) => {
    expect(consentsFor(target, entries, { stage }, shipped(), 'led-tcon')).toEqual(needed);
  });
});
