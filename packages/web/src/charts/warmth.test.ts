import { expect, test } from '@jest/globals';
import { thinned } from './warmth.ts';

test('of a large picture the highest rise of each block is drawn; where pictures don’t overlap, nothing', () => {
  const [width, height] = [128, 4];
  const rises = new Float32Array(width * height).fill(0.1);
  rises[3 * width + 127] = 9;
  for (const at of [0, 1, width, width + 1]) rises[at] = Number.NaN;
  const { columns, rows, cells } = thinned({ width, height, rises });
  expect([columns, rows, cells.length]).toEqual([64, 2, 127]);
  expect(cells.at(-1)).toEqual([63, 1, 9]);
  expect(cells[0]).toEqual([1, 0, 0.1]);
});
test('a small picture is drawn as it is', () => {
  expect(thinned({ width: 2, height: 2, rises: Float32Array.from([1, 2, 3, 4]) }).cells).toEqual([
    [0, 0, 1],
    [1, 0, 2],
    [0, 1, 3],
    [1, 1, 4],
  ]);
});
