import { bodySchemas, setFactsSchema } from '@veglia/core';
import { describe, expect, test } from '@jest/globals';
import { z } from 'zod';
import { boundsOf } from './bounds.ts';

describe('bounds of a field', () => {
  test('are those of its schema, optional or not', () => {
    expect(boundsOf(z.number().min(-3).max(7))).toEqual({ least: -3, most: 7 });
    expect(boundsOf(z.number().min(1).optional())).toEqual({ least: 1, most: Infinity });
    expect(boundsOf(z.string().trim().max(4).default(''))).toEqual({ longest: 4 });
    expect(boundsOf(z.string().nullable())).toEqual({});
    expect(() => boundsOf(z.array(z.string()))).toThrow('no bounds of array');
  });

  test('hold what the ledger takes, and one more is refused', () => {
    const { least = NaN, most = NaN } = boundsOf(setFactsSchema.shape.sizeInch);
    const takes = (sizeInch: number): boolean => setFactsSchema.safeParse({ layout: 'oled', sizeInch }).success;
    expect([takes(least), takes(most), takes(least - 1), takes(most + 1)]).toEqual([true, true, false, false]);
    const { longest = NaN } = boundsOf(bodySchemas['part.fitted'].shape.number);
    expect(bodySchemas['part.fitted'].shape.number.safeParse('x'.repeat(longest)).success).toBe(true);
    expect(bodySchemas['part.fitted'].shape.number.safeParse('x'.repeat(longest + 1)).success).toBe(false);
  });
});
