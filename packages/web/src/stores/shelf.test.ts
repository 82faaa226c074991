import { describe, expect, test } from '@jest/globals';
import type { JobCard } from '@veglia/contract';
import { inShelfOrder, patched } from './shelf.ts';

const card = (jobId: string, shelf: string | null, number: number, change: Partial<JobCard> = {}): JobCard =>
  ({ jobId, shelf, number, openedAt: `2026-03-0${number}T08:00:00.000Z`, state: 'on-the-bench', entryCount: 2, ...change }) as JobCard;
const names = (cards: readonly JobCard[]): string[] => cards.map(({ jobId }) => jobId);

test('cards stand in the order of their shelves: nowhere last, numbers as numbers, oldest first', () => {
  const cards = [card('nowhere', null, 1), card('ten', 'B 10', 2), card('late', 'B 2', 4), card('early', 'B 2', 3), card('a', 'A', 5)];
  expect(names([...cards].sort(inShelfOrder))).toEqual(['a', 'early', 'late', 'ten', 'nowhere']);
});

describe('news of single cards', () => {
  const before = [card('a', 'A', 1), card('b', 'B', 2), card('c', 'C', 3)];
  test.each<[string, JobCard[], string[]]>([
    ['one that changed stays in its place', [card('b', 'B', 2, { entryCount: 9 })], ['a', 'b', 'c']],
    ['one that moved goes to its shelf', [card('a', 'B 9', 1)], ['b', 'a', 'c']],
    ['a new one comes in', [card('d', 'A', 4)], ['a', 'd', 'b', 'c']],
    ['one that was closed leaves', [card('b', 'B', 2, { state: 'closed' })], ['a', 'c']],
    ['one that was opened again comes back', [card('x', null, 5)], ['a', 'b', 'c', 'x']],
  ])('%s', (_, news, expected) => {
    const after = patched(before, news);
    expect(names(after)).toEqual(expected);
    for (const one of news) if (one.state !== 'closed') expect(after).toContain(one);
  });
});
