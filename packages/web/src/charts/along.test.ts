import { expect, test } from '@jest/globals';
import { railWithBranches } from '@veglia/core';
import { runsOf } from './along.ts';

const points = (on: readonly number[]) => on.map((one) => ({ middle: 0, low: 0, high: 0, probability: 0, on: one }));

test('a row is one line; each branch is one more, from what it hangs on', () => {
  expect(runsOf([1, 2, 3].map(() => ({ middle: 0, low: 0, high: 0, probability: 0 })))).toEqual([{ on: -1, own: [0, 1, 2] }]);
  expect(runsOf(points(railWithBranches(8, '2: 4-5; 5: 8')))).toEqual([
    { on: -1, own: [0, 1, 2, 5, 6] },
    { on: 1, own: [3, 4, 7] },
  ]);
  expect(runsOf(points(railWithBranches(7, '2: 4-5; 4: 6')))).toEqual([
    { on: -1, own: [0, 1, 2, 6] },
    { on: 1, own: [3, 4] },
    { on: 3, own: [5] },
  ]);
});
