import { describe, expect, test } from '@jest/globals';
import { linesOf } from './course.ts';

const effect = (entry: string, assemblies: Record<string, number>) => ({ entry, id: 'main', before: 0, after: 0, assemblies });

describe('lines over a ledger', () => {
  test('are those that ever were likely, the likeliest at the end first; what came later began at nothing', () => {
    const lines = linesOf([
      effect('a', { main: 0.5, power: 0.44, tcon: 0.04 }),
      effect('b', { main: 0.1, power: 0.6, tcon: 0.03, strips: 0.27 }),
    ]);
    expect(lines).toEqual([
      { id: 'power', points: [0.44, 0.6] },
      { id: 'strips', points: [0, 0.27] },
      { id: 'main', points: [0.5, 0.1] },
    ]);
  });

  test('are six at most, and none of nothing', () => {
    const even = Object.fromEntries([...'abcdefgh'].map((id) => [id, 0.125]));
    expect(linesOf([effect('a', even)]).map(({ id }) => id)).toEqual([...'abcdef']);
    expect(linesOf([])).toEqual([]);
  });
});
