import { describe, expect, test } from '@jest/globals';
import { foldCase, parseCase } from '../index.ts';
import { setOnArrival, stateAfter, type Entry, type FlashDid, type SetState } from '../ledger/index.ts';
import { leftBeforeClosing, stillOut } from '../safety/index.ts';
import { shipped } from '../testing/shipped.ts';
import { onSetCases } from './onSetCases.ts';

const session = '0192f000-0000-7000-8000-00000000f1a5';
const stateOf = (did: readonly FlashDid[]): SetState =>
  did
    .map((one, at): Entry => ({
      id: `e${at}`,
      seq: at + 1,
      at: '2026-03-01T08:00:00Z',
      by: 'ada',
      basedOn: at,
      body: { kind: 'flash.step', v: 1, session, did: one },
    }))
    .reduce((state, entry) => stateAfter(state, entry, shipped(), 'led-tcon'), setOnArrival);

describe('what work on a memory leaves on the set', () => {
  test.each(onSetCases)('$name', ({ did, left }) => {
    const state = stateOf(did);
    expect(stillOut(state)).toEqual(left);
    expect(leftBeforeClosing({ outcome: 'repaired' }, state)).toEqual(left);
  });

  test.each([
    ['a rail read with the clock stopped says nothing', 'rail.secondary', 'one-missing', true],
    ['the memory itself is read with the clip on', 'memory.read-twice', 'equal', false],
  ])('%s', (_, id, outcome, isVoid) => {
    const step = (did: FlashDid) => ({ body: { kind: 'flash.step', session, did } });
    const { input } = parseCase({
      format: 'veglia-case',
      version: 2,
      set: { layout: 'led-tcon' },
      entries: [
        { body: { kind: 'symptom.reported', symptoms: ['restart-loop'] } },
        step({ step: 'opened', memory: 'spi-nor', name: 'U402', areas: ['whole'], why: 'restart-loop', plan: 'rewrite' }),
        step({ step: 'entered', way: 'clip', clockStopped: true }),
        { body: { kind: 'test.answered', test: id, outcome, sure: 'sure' } },
      ],
    });
    expect(foldCase(input, shipped()).unused.some(({ code }) => code === 'plug-left-out')).toBe(isVoid);
  });
});
