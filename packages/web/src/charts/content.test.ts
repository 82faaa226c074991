import { expect, test } from '@jest/globals';
import type { Content } from '@veglia/core';
import { contentOption } from './content.ts';

const content: Content = {
  bytes: 4 * 4096 + 100,
  blockBytes: 4096,
  blocks: [
    { kind: 'data', entropy: 5 },
    { kind: 'data', entropy: 6 },
    { kind: 'erased', entropy: 0 },
    { kind: 'packed', entropy: 7.9 },
    { kind: 'packed', entropy: 7.7 },
  ],
  signatures: [],
  strings: [],
  versions: [],
};
const colours = { ink: '#000', soft: '#444', line: '#ccc', accent: '#066', alarm: '#900', surface: '#fff', wash: '#eee' } as never;

test('each block stands once, in the series of its kind; what has no entropy below the line', () => {
  const words = { title: '', offset: '', entropy: '', kind: (kind: string) => kind, at: String };
  const series = contentOption(colours, content, words).series as { name: string; data: (number | null)[] }[];
  expect(series.map(({ name, data }) => [name, data.filter((one) => one !== null)])).toEqual([
    ['erased', [-0.5]],
    ['zero', []],
    ['text', []],
    ['data', [5, 6]],
    ['packed', [7.9, 7.7]],
  ]);
});
