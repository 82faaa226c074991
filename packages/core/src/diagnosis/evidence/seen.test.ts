/** What counts as a picture, a crack, a cure. */
import { describe, expect, test } from '@jest/globals';
import type { Body, Entry } from '../../ledger/index.ts';
import { caseOf, shipped, type Told } from '../../testing/shipped.ts';
import { isCracked, isCured, showsPicture } from './seen.ts';

const entries = (...told: Told[]): readonly Entry[] => caseOf([], told).entries;
const bodyOf = (told: Told): Body => entries(told)[0]!.body;

describe('a picture was seen', () => {
  test.each<[Told, boolean]>([
    ['menu=menu-clean', true],
    ['menu=menu-bad', true],
    ['menu=no-menu', false],
    ['torch=faint-picture', false],
    ['torch=nothing', false],
    ['menu=menu-clean?', false],
    ['menu=cant-tell', false],
    ['rail.standby=in-range', false],
    [{ kind: 'symptom.reported', v: 2, symptoms: ['half-picture'], seen: true }, true],
    [{ kind: 'symptom.reported', v: 2, symptoms: ['half-picture'] }, false],
    [{ kind: 'symptom.reported', v: 2, symptoms: ['dead'], seen: true }, false],
  ])('%j: %s', (told, expected) => expect(showsPicture(bodyOf(told), shipped())).toBe(expected));
});

describe('a crack', () => {
  const replaced: Told = { kind: 'repair.done', v: 1, repair: 'replace.panel', result: 'unchanged' };
  const crackedAtTheCounter: Told = { kind: 'job.opened', set: { layout: 'led-tcon' }, condition: ['crack'] };
  test.each<[string, Told[], boolean]>([
    ['seen on the bench', ['look.glass=cracked'], true],
    ['seen at the counter', [crackedAtTheCounter], true],
    ['clean', ['look.glass=clean'], false],
    ['the glass was renewed since', ['look.glass=cracked', replaced], false],
    ['renewed, and cracked again', ['look.glass=cracked', replaced, 'look.glass=cracked'], true],
    ['a panel thought of and not fitted', ['look.glass=cracked', { ...(replaced as object), result: 'not-tried' }], true],
    ['another repair', ['look.glass=cracked', { ...(replaced as object), repair: 'replace.tcon' }], true],
  ])('%s', (_, told, expected) => expect(isCracked(entries(...told), shipped())).toBe(expected));
});

describe('cured', () => {
  const done = (result: string): Told => ({ kind: 'repair.done', v: 1, repair: 'replace.tcon', result });
  test.each<[string, Told[], boolean]>([
    ['by a repair', [done('cured')], true],
    ['by none', [done('unchanged')], false],
    ['by a step that leaves the set whole', ['reseat:harness.picture=cured'], true],
    ['by a loan: it goes back to the shelf', ['swap.known-good:tcon=cured'], false],
    ['not certain', ['reseat:harness.picture=cured?'], false],
    ['and then it came again', [done('cured'), { kind: 'symptom.reported', v: 2, symptoms: ['dead'] }], false],
    ['a test after the cure asks on', [done('cured'), 'menu=menu-bad'], false],
  ])('%s', (_, told, expected) => expect(isCured(entries(...told), shipped())).toBe(expected));
});

describe('what nobody was sure of', () => {
  test.each([
    ['a crack', 'look.glass=cracked?', (one: readonly Entry[]) => isCracked(one, shipped())],
    ['a cure', 'outlet=cured?', (one: readonly Entry[]) => isCured(one, shipped())],
  ])('is not %s', (_, told, is) => {
    expect(is(entries(told))).toBe(false);
    expect(is(entries(told.slice(0, -1)))).toBe(true);
  });
});
