import { describe, expect, test } from '@jest/globals';
import { rowNumbers } from './index.ts';

const scale = { likelihood: { often: 0.6, even: 0.5, seldom: 0.1, never: 0.004 }, frequency: { common: 1 }, source: 'made up here' };

describe('a row of words as likelihoods', () => {
  test('is normalised to 1', () => {
    const { likelihoods, sum } = rowNumbers(scale, ['a', 'b'], { a: 'often', b: 'even' });
    expect(sum).toBeCloseTo(1.1, 12);
    expect(likelihoods).toEqual([expect.closeTo(0.6 / 1.1, 12), expect.closeTo(0.5 / 1.1, 12)]);
  });

  test('rest takes what the others leave', () => {
    expect(rowNumbers(scale, ['a', 'b'], { a: 'often', b: 'rest' }).likelihoods).toEqual([
      expect.closeTo(0.6, 12),
      expect.closeTo(0.4, 12),
    ]);
  });

  test('rest and outcomes left out are small, never zero', () => {
    const { likelihoods } = rowNumbers(scale, ['a', 'b', 'c', 'd'], { a: 'often', b: 'even', c: 'rest' });
    expect(Math.min(...likelihoods)).toBeGreaterThan(0);
    expect(likelihoods.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12);
  });

  test('an unknown word is named', () => {
    expect(rowNumbers(scale, ['a'], { a: 'perhaps' }).unknownWords).toEqual(['perhaps']);
  });
});
