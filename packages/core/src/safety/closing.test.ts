import { describe, expect, test } from '@jest/globals';
import { outcomesOfAJob, type Body, type Entry } from '../ledger/index.ts';
import { shipped } from '../testing/shipped.ts';
import { checksBeforeClosing, leftBeforeClosing } from './index.ts';

const asDelivered = { out: [], bridged: [], taped: [], lifted: [] };
const opened = {
  out: ['keys'],
  bridged: [['standby', 'ps-on']] as [string, string][],
  taped: ['clock-lines'],
  lifted: [{ name: 'C412', what: 'part' as const }],
};
const all = ['bridge ps-on standby', 'keys', 'part C412', 'tape clock-lines'];

describe('before a set is closed', () => {
  test.each(['repaired', 'repaired-with-known-flaw', 'workaround'] as const)(
    '%s: every plug, bridge, tape and part off is named',
    (outcome) => {
      expect(leftBeforeClosing({ outcome }, opened)).toEqual(all);
      expect(leftBeforeClosing({ outcome }, asDelivered)).toEqual([]);
    },
  );
  test('what is recorded as a modification stays, and only that', () => {
    expect(leftBeforeClosing({ outcome: 'workaround', modified: ['tape clock-lines'] }, opened)).toEqual([
      'bridge ps-on standby',
      'keys',
      'part C412',
    ]);
    expect(leftBeforeClosing({ outcome: 'workaround', modified: all }, opened)).toEqual([]);
  });
  test('a set that is not used again may leave as it is', () => {
    const others = outcomesOfAJob.filter((one) => !['repaired', 'repaired-with-known-flaw', 'workaround'].includes(one));
    expect(others.length).toBeGreaterThan(1);
    for (const outcome of others) expect(leftBeforeClosing({ outcome }, opened)).toEqual([]);
  });
});

describe('checks before a set is used again (after surge or mains-side work, by the local rule)', () => {
  const live = (...bodies: Record<string, unknown>[]): Entry[] =>
    bodies.map((body, at) => ({ id: `e${at}`, seq: at + 1, at: '2026-03-01T08:00:00Z', by: 'ada', basedOn: at, body: body as Body }));
  const opened = (condition: string[] = []) => ({ kind: 'job.opened', v: 2, set: { layout: 'led-tcon' }, condition });
  const did = (repair: string, result = 'cured') => ({ kind: 'repair.done', v: 2, repair, result });
  const answered = (test: string, outcome: string) => ({ kind: 'test.answered', v: 2, test, outcome, sure: 'sure' });
  const all = ['ground-screws', 'insulation', 'touch-current'];
  test.each<[string, Entry[], number, string[]]>([
    ['never opened', live(opened()), 0, []],
    ['opened: the boards’ ground screws', live(opened(), did('replace.tcon')), 1, ['ground-screws']],
    ['a surge, never opened', live(opened(['storm'])), 0, ['insulation', 'touch-current']],
    ['a power board replaced', live(opened(), did('replace.power', 'unchanged')), 1, all],
    ['its capacitors', live(opened(), did('recap.power')), 1, all],
    [
      'a cord found open and renewed',
      live(opened(), answered('cord.ohms', 'open'), did('set-right.outside')),
      0,
      ['insulation', 'touch-current'],
    ],
    ['a loose cord', live(opened(), answered('cord.wiggle', 'flickers'), did('set-right.outside')), 0, ['insulation', 'touch-current']],
    ['another outlet, the cord good', live(opened(), answered('cord.ohms', 'through'), did('set-right.outside')), 0, []],
    ['one thought of, not tried', live(opened(), did('replace.power', 'not-tried')), 1, ['ground-screws']],
    [
      'a power board fitted',
      live({ kind: 'part.fitted', v: 1, assembly: 'power', number: 'P1', source: 'new', price: { amountMinor: 1, currency: 'EUR' } }),
      1,
      all,
    ],
  ])('%s', (_, entries, stage, needed) => {
    for (const outcome of ['repaired', 'repaired-with-known-flaw', 'workaround'] as const)
      expect(checksBeforeClosing({ outcome }, entries, { stage }, shipped())).toEqual(needed);
    for (const outcome of ['not-worth-it', 'handed-back'] as const)
      expect(checksBeforeClosing({ outcome }, entries, { stage }, shipped())).toEqual([]);
  });
  test('the local rule may ask for no touch current; ground screws are in or they are not', () => {
    const entries = live(opened(['storm']));
    const needs = (checked: Record<string, 'passed' | 'not-required'>) =>
      checksBeforeClosing({ outcome: 'repaired', checked }, entries, { stage: 1 }, shipped());
    expect(needs({ 'ground-screws': 'passed', insulation: 'passed', 'touch-current': 'not-required' })).toEqual([]);
    expect(needs({ 'ground-screws': 'not-required', insulation: 'passed', 'touch-current': 'passed' })).toEqual(['ground-screws']);
    expect(needs({ 'ground-screws': 'passed', insulation: 'passed' })).toEqual(['touch-current']);
  });
});
