import { describe, expect, test } from '@jest/globals';
import { parseBetween } from './numbers.ts';

describe('what people type into number fields', () => {
  test.each([
    ['43', true, 43],
    ['43.5', true, undefined],
    ['43,5', false, 43.5],
    ['4', true, undefined],
    ['201', true, undefined],
    ['', true, undefined],
    ['forty', true, undefined],
  ])('between 5 and 200: %j, whole %j', (typed, whole, expected) => {
    expect(parseBetween(typed, 5, 200, whole)).toBe(expected);
  });
});
