/** A reading further along the chain that only says the same again; common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped, shippedPack } from '../../testing/shipped.ts';
import { checkPack } from '../../knowledge/index.ts';
import { foldCase, type CaseFold } from '../index.ts';

const fold = (told: string[], symptom = 'standby-no-start'): CaseFold =>
  foldCase(caseOf([symptom], told), shipped(), 'information', 'at-once');
const odds = (one: CaseFold): [string, number][] => one.assemblies.map(({ id, odds: p }) => [id, p]);
const offered = (one: CaseFold, id: string): boolean => one.next.some((step) => step.kind === 'test' && step.id === id);

describe('what follows from a reading', () => {
  test.each([
    ['no standby: the key line can only stay', 'rail.standby=absent', 'key-line=stays'],
    ['a low standby: no click comes', 'rail.standby=low', 'clicks=none'],
    ['no big rail: nothing behind it is fed', 'rail.main=absent', 'rail.secondary=all-missing'],
    ['no T-con supply: no bias', 'tcon.input=none', 'bias.rails=all-missing', 'lit-blank'],
  ])('%s: it moves nothing, in either order, and is not asked for', (_, reading, follower, symptom = 'standby-no-start') => {
    const [id] = follower.split('=');
    const alone = fold([reading], symptom);
    for (const told of [
      [reading, follower],
      [follower, reading],
    ]) {
      const both = fold(told, symptom);
      expect(odds(both)).toEqual(odds(alone));
      expect(both.unused).toContainEqual(expect.objectContaining({ code: 'follows', id }));
    }
    expect(offered(alone, id!)).toBe(false);
    expect(alone.leftOut.find(({ step }) => step.id === id)?.code).toBe('follows');
  });

  test('what contradicts it speaks', () => {
    const both = fold(['rail.standby=absent', 'clicks=clicks']);
    expect(both.unused.map(({ code }) => code)).not.toContain('follows');
    expect(odds(both)).not.toEqual(odds(fold(['rail.standby=absent'])));
  });

  test.each([
    ['a good reading', ['rail.standby=in-range']],
    ['one that isn’t certain', ['rail.standby=absent?']],
    ['two that disagree', ['rail.standby=absent', 'rail.standby=in-range']],
  ])('%s: nothing follows', (_, told) => {
    expect(fold([...told, 'key-line=stays']).unused.map(({ code }) => code)).not.toContain('follows');
  });

  test('a reading before the repair that changed the complaint: nothing follows', () => {
    const after = foldCase(
      caseOf(
        ['dead'],
        [
          'rail.standby=absent',
          { kind: 'repair.done', v: 1, repair: 'replace.power', result: 'changed' },
          { kind: 'symptom.reported', v: 2, symptoms: ['standby-no-start'] },
          'key-line=stays',
        ],
      ),
      shipped(),
      'information',
      'at-once',
    );
    expect(after.unused.map(({ code }) => code)).not.toContain('follows');
  });

  test('the pack check refuses a test or an outcome that isn’t there', () => {
    const pack = shippedPack();
    const [first, ...rest] = pack.consequences;
    const wrong = (change: object) =>
      checkPack({ ...pack, consequences: [{ ...first!, ...change }, ...rest] }).filter(({ where }) => where.startsWith('consequences/'));
    expect(wrong({ then: { 'key-line': 'sings' } })).toEqual([expect.objectContaining({ code: 'unknown-id', value: 'sings' })]);
    expect(wrong({ after: { test: 'no-such', outcomes: ['absent'] } })).toEqual([expect.objectContaining({ value: 'no-such' })]);
    expect(wrong({})).toEqual([]);
  });
});
