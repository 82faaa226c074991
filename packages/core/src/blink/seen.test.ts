import { describe, expect, test } from '@jest/globals';
import { parseSeen, type Seen } from './index.ts';

describe('what was typed of a light', () => {
  test.each<[string, Seen]>([
    ['4', { groups: [4] }],
    ['3-1', { groups: [3, 1] }],
    ['3 long 2 short', { groups: [3, 2] }],
    ['15 green then dark', { groups: [15], colour: 'green', after: 'dark' }],
    ['red twice, then steady', { groups: [2], colour: 'red', after: 'steady' }],
    ['orange 5x, pause, 2 times, again', { groups: [5, 2], colour: 'amber', after: 'repeats' }],
    ['  6×  ', { groups: [6] }],
    ['steady red', { light: 'steady', colour: 'red' }],
    ['no light', { light: 'no-light' }],
    ['dark', { light: 'no-light' }],
    ['flickering', { light: 'no-pattern' }],
  ])('%s', (text, seen) => {
    expect(parseSeen(text)).toEqual(seen);
  });

  test.each(['', 'blinks', '0', '41', '1-2-3-4-5', '3 maybe 4', 'red 3 green 2', 'steady 3', '-'])('not understood: "%s"', (text) => {
    expect(parseSeen(text)).toBeUndefined();
  });
});
