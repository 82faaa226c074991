import { expect, test } from '@jest/globals';
import { mutantsOf } from './mutants.ts';

const changes = (text: string): string[] => mutantsOf('a.ts', text).map(({ was, becomes }) => `${was} -> ${becomes}`);

test('each operator changes what it is for, and only that', () => {
  expect(changes('const a = b < 3 ? 0.25 : 1;')).toEqual(['< -> <=', '3 -> 4.5', '0.25 -> 0.375', '1 -> 2']);
  expect(changes('if (!a && b) c();')).toEqual(['!a -> a', '!a && b -> !(!a && b)', '&& -> ||']);
  expect(changes('const n = list[i] ?? 0;')).toEqual([]);
  expect(changes('const yes = true;')).toEqual(['true -> false']);
  expect(changes("const text = 'a' + b;")).toEqual([]);
  expect(changes("import a from 'x'; type T = 1 | 2; interface I { readonly n: 3 }")).toEqual([]);
});

test('a mutant’s place is where its text stands', () => {
  const text = 'const a = 1;\nconst b = a >= 2;\n';
  for (const { start, end, was } of mutantsOf('a.ts', text)) expect(text.slice(start, end)).toBe(was);
  expect(mutantsOf('a.ts', text).map(({ line }) => line)).toEqual([1, 2, 2]);
});
