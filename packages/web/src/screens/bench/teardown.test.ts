import { expect, test } from '@jest/globals';
import type { Body, Entry } from '@veglia/core';
import { teardownState } from './teardown.ts';

const parts = ['cover', 'bezel'].map((id) => ({ id, name: { en: id }, how: { en: id }, counted: 'screws' as const, source: 'x' }));
const live = (...bodies: Body[]): Entry[] =>
  bodies.map((body, index) => ({ id: `e${index}`, seq: index + 1, at: '2026-01-01T00:00:00Z', by: 'a', basedOn: 0, body }));
const taken = (part: string, screws?: number): Body => ({
  kind: 'teardown.taken',
  v: 1,
  part,
  ...(screws === undefined ? {} : { screws }),
});
const refitted = (part: string, screws?: number): Body => ({
  kind: 'teardown.refitted',
  v: 1,
  part,
  ...(screws === undefined ? {} : { screws }),
});

test.each<[string, Body[], [boolean, number][]]>([
  [
    'nothing off',
    [],
    [
      [false, 0],
      [false, 0],
    ],
  ],
  [
    'off and counted',
    [taken('cover', 14)],
    [
      [true, 0],
      [false, 0],
    ],
  ],
  [
    'two screws missing',
    [taken('cover', 14), refitted('cover', 12)],
    [
      [false, 2],
      [false, 0],
    ],
  ],
  [
    'one too many',
    [taken('cover', 14), refitted('cover', 15)],
    [
      [false, -1],
      [false, 0],
    ],
  ],
  [
    'not counted on return says nothing',
    [taken('cover', 14), refitted('cover')],
    [
      [false, 0],
      [false, 0],
    ],
  ],
  [
    'off again',
    [taken('bezel', 4), refitted('bezel', 3), taken('bezel', 4)],
    [
      [false, 0],
      [true, 0],
    ],
  ],
])('%s', (_, bodies, expected) => {
  expect(teardownState(parts, live(...bodies)).map(({ off, missing }) => [off, missing])).toEqual(expected);
});
