import { describe, expect, test } from '@jest/globals';
import { lettersTooMany, parseBetween, withoutCommonStart } from './numbers.ts';

describe('what people type into number fields', () => {
  test.each([
    ['43', true, 43],
    ['43.5', true, undefined],
    ['43,5', false, 43.5],
    ['4', true, undefined],
    ['201', true, undefined],
    ['', true, undefined],
    ['forty', true, undefined],
    ['-6', false, undefined],
    ['1e2', false, undefined],
  ])('between 5 and 200: %j, whole %j', (typed, whole, expected) => {
    expect(parseBetween(typed, { least: 5, most: 200 }, whole)).toBe(expected);
  });
  test('below zero where it may be, with either sign', () => {
    expect(['-20', '\u221220,5', '-61'].map((typed) => parseBetween(typed, { least: -60, most: 120 }))).toEqual([-20, -20.5, undefined]);
  });
  test('letters are counted as they are stored: without the spaces around them', () => {
    expect([' abc ', 'abcdef'].map((typed) => lettersTooMany(typed, { longest: 3 }))).toEqual([0, 3]);
    expect(lettersTooMany('x'.repeat(99_999), {})).toBe(0);
  });
});

describe('labels of fields beside each other', () => {
  test.each([
    [
      ['T-con supply before its fuse', 'T-con supply behind its fuse'],
      ['before its fuse', 'behind its fuse'],
    ],
    [
      ['Main rail', 'Standby rail'],
      ['Main rail', 'Standby rail'],
    ],
    [
      ['Main rail', 'Main rail, second reading'],
      ['Main rail', 'Main rail, second reading'],
    ],
    [
      ['Rail', 'Rail of the main board'],
      ['Rail', 'Rail of the main board'],
    ],
    [['Reading'], ['Reading']],
    [[], []],
  ])('%j', (texts, short) => {
    expect(withoutCommonStart(texts)).toEqual(short);
  });
});
