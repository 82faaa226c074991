import { describe, expect, test } from '@jest/globals';
import { shipped } from '../testing/shipped.ts';
import { blinkTableOf, blinkTableProblems, checkPack, hashPack, withBlinkTable } from './index.ts';

const { pack } = shipped();
const row = (change: object = {}): object => ({
  id: 'nine',
  groups: [9],
  meaning: { en: 'Light driver complains' },
  suspects: { strips: 'often' },
  source: 'written on the cover',
  date: '2026-11-01',
  by: 'Ilse Marrow',
  ...change,
});
const table = (...codes: unknown[]): unknown => ({ format: 'veglia-blink-table', version: 1, family: 'quorvane.qk3', codes });
const problems = (document: unknown): [string, string, unknown][] =>
  blinkTableProblems(document, pack).problems.map(({ code, where, value, expected }) => [code, where, value ?? expected]);

describe('a blink table', () => {
  test('checked in makes another version of the pack, sound, with this family alone changed', () => {
    const next = withBlinkTable(pack, table(row()));
    expect(checkPack(next)).toEqual([]);
    expect(hashPack(next)).not.toBe(hashPack(pack));
    expect(next.families.find(({ id }) => id === 'quorvane.qk3')?.blink.map(({ id }) => id)).toEqual(['nine']);
    expect(next.families.filter(({ id }) => id !== 'quorvane.qk3')).toEqual(pack.families.filter(({ id }) => id !== 'quorvane.qk3'));
  });

  // Looked up in a plain object these are functions of the language, and every screen that folds a job would break on them.
  test.each(['constructor', 'valueof', 'tostring', '__proto__', 'has-own-property'])('the word "%s" is as unknown as any other', (word) => {
    const found = problems(table(row({ suspects: { strips: word } })));
    expect(found.map(([code]) => code)).toEqual([word === '__proto__' ? 'schema' : 'word-unknown']);
  });

  test('every family’s own comes out and goes in again unchanged', () => {
    for (const { id } of pack.families) expect(withBlinkTable(pack, blinkTableOf(shipped(), id))).toEqual(pack);
  });

  test('no light is a row', () => {
    expect(problems(table(row({ id: 'none', groups: [] })))).toEqual([]);
  });

  test.each<[string, unknown, [string, string, unknown][]]>([
    ['the same code twice', table(row(), row({ id: 'again' })), [['duplicate-id', 'row 2 (again)', '9||']]],
    ['the same id twice', table(row(), row({ groups: [10] })), [['duplicate-id', 'row 2 (nine)', 'nine']]],
    [
      'a count of none in a group',
      table(row({ groups: [3, 0] })),
      [['schema', 'row 1 (nine), groups, 1', 'Too small: expected number to be >=1']],
    ],
    [
      'a row without a source',
      table(row({ source: '' })),
      [['schema', 'row 1 (nine), source', 'Too small: expected string to have >=3 characters']],
    ],
    ['an unknown suspect', table(row({ suspects: { flux: 'often' } })), [['unknown-id', 'row 1 (nine).suspects', 'flux']]],
    [
      'a word that isn’t in the scale',
      table(row({ suspects: { strips: 'mostly' } })),
      [['word-unknown', 'row 1 (nine).suspects.strips', 'mostly']],
    ],
    ['a first check nobody knows', table(row({ firstCheck: 'lick' })), [['unknown-id', 'row 1 (nine).firstCheck', 'lick']]],
    ['a family nobody knows', { ...(table() as object), family: 'no.one' }, [['unknown-id', 'table.family', 'no.one']]],
  ])('refused: %s', (_, document, expected) => {
    expect(problems(document)).toEqual(expected);
    expect(() => withBlinkTable(pack, document)).toThrow();
  });

  test('every row’s problems are told, not the first one’s only', () => {
    expect(problems(table(row({ source: '' }), row({ id: 'b', groups: [99] }), 7))).toHaveLength(3);
  });
});
