import { describe, expect, test } from '@jest/globals';
import { foldCase, parseCase } from '../index.ts';
import { setOnArrival, stateAfter, type Body, type Entry, type SetState } from '../ledger/index.ts';
import { shipped } from '../testing/shipped.ts';
import { objectionsTo } from './index.ts';
import { liftedCases, liftedVoids, type LiftedCase } from './liftedCases.ts';

const layout = 'led-tcon';
function bodyOf(event: LiftedCase['events'][number]): Body {
  if ('off' in event)
    return {
      kind: 'set.changed',
      v: 3,
      lifted: [{ name: event.off, what: event.what ?? 'part', ...(event.on === undefined ? {} : { on: event.on }) }],
    };
  if ('back' in event) return { kind: 'set.changed', v: 3, refitted: [event.back] };
  if ('repair' in event) return { kind: 'repair.done', v: 2, repair: event.repair, result: event.result ?? 'unchanged' };
  return { kind: 'test.answered', v: 2, test: event.test, outcome: event.outcome, sure: 'sure' };
}
const stateOf = (bodies: readonly Body[]): SetState =>
  bodies
    .map((body, at): Entry => ({ id: `e${at}`, seq: at + 1, at: '2026-03-01T08:00:00Z', by: 'ada', basedOn: at, body }))
    .reduce((state, entry) => stateAfter(state, entry, shipped(), layout), setOnArrival);

describe('parts taken off a board', () => {
  test.each(liftedCases)('$name', ({ events, off }) => {
    expect(stateOf(events.map(bodyOf)).lifted.map(({ name }) => name)).toEqual(off);
  });
  test('a walked answer takes its part off as well', () => {
    const walked = { ...bodyOf({ test: 'bias.walk', outcome: 'short-stays' }), walked: true } as Body;
    expect(stateOf([walked]).lifted.map(({ name }) => name)).toEqual(['bias-capacitor']);
  });

  const down: SetState = { ...setOnArrival, stage: 1, railsDown: true };
  const off = (on: string): Body & { kind: 'set.changed' } => ({ kind: 'set.changed', v: 3, lifted: [{ name: 'C9', what: 'part', on }] });
  test.each([
    ['under power', off('tcon'), { ...down, plugged: true, railsDown: false }, ['moved-live']],
    ['with the rails up', off('tcon'), { ...down, railsDown: false }, ['moved-rails-up']],
    ['rails down, on the cold side', off('tcon'), down, []],
    ['rails down, on the supply', off('power'), down, ['moved-unverified']],
    ['discharged and measured, on the supply', off('power'), { ...down, verified: true }, []],
  ])('a part comes off a board %s', (_, change, state, codes) => {
    expect(objectionsTo(change, state, shipped(), layout).map(({ code }) => code)).toEqual(codes);
  });
  test('before the plug goes in, what is off is on the list', () => {
    const state = { ...down, lifted: [{ name: 'C9', what: 'part' as const }] };
    const plugged = (stillOut?: string[]) =>
      objectionsTo({ kind: 'set.changed', v: 3, plugged: true, ...(stillOut ? { stillOut } : {}) }, state, shipped(), layout);
    expect(plugged().map(({ code, id }) => [code, id])).toEqual([['list-not-shown', 'part C9']]);
    expect(plugged(['part C9'])).toEqual([]);
  });
});

test.each(liftedVoids)('$name', ({ what, void: isVoid }) => {
  const { input } = parseCase({
    format: 'veglia-case',
    version: 2,
    set: { layout },
    entries: [
      { body: { kind: 'symptom.reported', symptoms: ['standby-no-start'] } },
      { body: { kind: 'set.changed', stage: 'back-off', railsDown: true, lifted: [{ name: 'L7', what, on: 'main' }] } },
      { body: { kind: 'test.answered', test: 'rail.secondary', outcome: 'one-missing', sure: 'sure', walked: true } },
    ],
  });
  const unused = foldCase(input, shipped()).unused.map(({ code }) => code);
  expect(unused.includes('plug-left-out')).toBe(isVoid);
});
