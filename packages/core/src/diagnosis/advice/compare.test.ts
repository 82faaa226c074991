import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped } from '../../testing/shipped.ts';
import { compareSteps, foldCase, type CaseFold, type Policy } from '../index.ts';

const complaints = ['dead', 'sound-dark', 'restart-loop', 'half-picture', 'no-sound', 'lit-blank', 'standby-no-start', 'many-lines'];
const layouts = ['led-tcon', 'one-board', 'oled', 'plasma', 'separate-driver'];
const folds = (policy: Policy): CaseFold[] =>
  layouts.flatMap((layout) => complaints.map((symptom) => foldCase(caseOf([symptom], [], { layout }), shipped(), policy)));

describe('the first step against the second and the third', () => {
  test('by cost: whichever stands first saves more for what it costs, or the other does not pay at all', () => {
    const open = { kind: 'set.changed', stage: 'back-off' };
    const opened = layouts.flatMap((layout) => complaints.map((symptom) => foldCase(caseOf([symptom], [open], { layout }), shipped())));
    const all = opened.flatMap(({ next }) => compareSteps(next));
    expect(all.length).toBeGreaterThan(50);
    const closed = folds('cost').flatMap(({ next }) => compareSteps(next));
    expect(closed.filter(({ code }) => code === 'tells-more-for-its-time').length).toBeGreaterThan(30);
    for (const { code, other } of closed) if (code === 'outside-before-inside') expect(other.because.code).not.toBe('outside-first');
    const saving = all.filter(({ code }) => code === 'saves-more-for-its-price');
    expect(saving.length).toBeGreaterThan(30);
    for (const { first, other } of saving) {
      expect(first.because.perMinor).toBeGreaterThanOrEqual(other.because.perMinor ?? 0);
      expect(other.because.perMinor).toBeGreaterThan(1);
    }
    for (const { code, first } of all) if (code === 'test-before-part') expect(first.because.savesMinor).toBeGreaterThan(0);
  });

  test('by information: more of the doubt for each minute, waits counting less', () => {
    const all = folds('information').flatMap(({ next }) => compareSteps(next));
    const telling = all.filter(({ code }) => code === 'tells-more-for-its-time');
    expect(telling.length).toBeGreaterThan(30);
    for (const { first, other } of telling) {
      const rate = ({ because, minutes, waitMinutes }: typeof first): number => (because.bits ?? 0) / (minutes + 0.2 * waitMinutes);
      expect(rate(first)).toBeGreaterThanOrEqual(rate(other) - 1e-9);
    }
  });

  test('by the list: the earlier number', () => {
    const all = folds('fixed').flatMap(({ next }) => compareSteps(next));
    const listed = all.filter(({ code }) => code === 'earlier-on-list');
    expect(listed.length).toBeGreaterThan(30);
    for (const { first, other } of listed) expect(first.because.position).toBeLessThan(other.because.position ?? 0);
  });

  test('a blink code stands before everything; a list of one has nothing to stand before', () => {
    const { next } = foldCase(caseOf(['blinking'], [], { family: 'quorvane.qk3' }), shipped());
    expect(compareSteps(next).map(({ code }) => code)).toEqual(['code-cant-wait', 'code-cant-wait']);
    expect(compareSteps(next.slice(0, 1))).toEqual([]);
    expect(compareSteps([])).toEqual([]);
  });
});
