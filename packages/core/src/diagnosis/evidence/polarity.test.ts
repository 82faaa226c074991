/** Command lines of families that don't say at which level they ask. Polarity differs by family: common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped } from '../../testing/shipped.ts';
import { foldCase, type CaseFold } from '../index.ts';

const fold = (answer: string, set: Record<string, unknown>): CaseFold =>
  foldCase(caseOf(['sound-dark'], [answer], set), shipped(), 'cost', 'at-once');
const doubted = (answer: string, set: Record<string, unknown>): boolean =>
  fold(answer, set).doubts.some(({ code }) => code === 'polarity-unknown');
const strange = { layout: 'led-tcon' };
const known = { layout: 'led-tcon', family: 'quorvane.qk3' };

describe('a level on a command line', () => {
  test.each([
    ['bl-on=absent', strange, true],
    ['bl-on=present', strange, true],
    ['dim=absent', strange, true],
    ['bl-on=absent', known, false],
    ['dim=present', known, false],
    // Before and after the key: which way it moves tells by itself.
    ['ps-on=stays', strange, false],
    // Driven without effect it may have been driven the wrong way; driven with effect it wasn't.
    ['forced-start=no-rails', strange, true],
    ['forced-start=rails-come', strange, false],
    ['forced-start=no-rails', known, false],
    ['rail.standby=absent', strange, false],
  ])('%s of %j is doubted for its polarity: %s', (answer, set, expected) => expect(doubted(answer, set)).toBe(expected));

  test('a line that was seen to move on the key is known on the bench', () => {
    const told = ['ps-on=moves', 'forced-start=no-rails'];
    expect(foldCase(caseOf(['dead'], told, strange), shipped(), 'cost', 'at-once').doubts).toEqual([]);
    const stays = foldCase(caseOf(['dead'], ['ps-on=stays', 'forced-start=no-rails'], strange), shipped(), 'cost', 'at-once').doubts;
    expect(stays).toContainEqual(expect.objectContaining({ code: 'polarity-unknown', id: 'forced-start' }));
  });

  test('counts less while the polarity is not known', () => {
    const strips = (set: Record<string, unknown>): number =>
      fold('bl-on=absent', set).assemblies.find(({ id }) => id === 'strips')?.probability ?? 1;
    const families = shipped().families.get('quorvane.qk3')!;
    const { 'bl-on.active-low': _, ...traits } = families.traits;
    const without = { ...shipped(), families: new Map([[families.id, { ...families, traits }]]) };
    const unsaid = foldCase(caseOf(['sound-dark'], ['bl-on=absent'], known), without, 'cost', 'at-once');
    expect(unsaid.assemblies.find(({ id }) => id === 'strips')?.probability ?? 0).toBeGreaterThan(1.5 * strips(known));
  });
});
