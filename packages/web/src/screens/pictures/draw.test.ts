import { expect, test } from '@jest/globals';
import { drawPicture, pictureSizes, testPictures, type TestPicture } from './draw.ts';

/** A canvas that only knows rectangles: the last colour of each pixel of a small picture. */
function drawn(which: TestPicture, width = 64, height = 36, seconds = 0): string[][] {
  const pixels = Array.from({ length: height }, () => Array.from({ length: width }, () => ''));
  const canvas = {
    fillStyle: '' as CanvasFillStrokeStyles['fillStyle'],
    strokeStyle: '' as CanvasFillStrokeStyles['strokeStyle'],
    lineWidth: 1,
    fillRect(x: number, y: number, w: number, h: number) {
      for (let row = Math.max(0, y); row < Math.min(height, y + h); row += 1)
        for (let column = Math.max(0, x); column < Math.min(width, x + w); column += 1) {
          const line = pixels[Math.floor(row)];
          if (line) line[Math.floor(column)] = typeof this.fillStyle === 'string' ? this.fillStyle : 'pattern';
        }
    },
    strokeRect: () => undefined,
    beginPath: () => undefined,
    arc: () => undefined,
    stroke: () => undefined,
  };
  drawPicture(canvas, which, width, height, seconds);
  return pixels;
}
const colours = (pixels: readonly (readonly string[])[]): string[] => [...new Set(pixels.flat())];

test.each(testPictures)('%s covers the whole screen, to its last row and column', (which) => {
  for (const [width, height] of [
    [64, 36],
    [61, 35],
  ] as const)
    expect(colours(drawn(which, width, height))).not.toContain('');
});
test.each([
  ['white', '#ffffff'],
  ['grey', '#808080'],
  ['red', '#ff0000'],
  ['green', '#00ff00'],
  ['blue', '#0000ff'],
  ['black', '#000000'],
] as const)('%s is one colour', (which, colour) => {
  expect(colours(drawn(which))).toEqual([colour]);
});
test('sixteen steps of grey from black to white, each brighter than the one before', () => {
  const [row = []] = drawn('steps', 160, 9);
  const levels = [...new Set(row)].map((one) => Number(/\d+/.exec(one)?.[0]));
  expect([levels.length, levels[0], levels.at(-1)]).toEqual([16, 0, 255]);
  expect(levels).toEqual(levels.toSorted((a, b) => a - b));
});
test('a gradient has each of 256 levels of each colour on a panel wide enough', () => {
  const rows = drawn('gradient', 1024, 8);
  for (const row of [0, 2, 4, 6]) expect(new Set(rows[row]).size).toBe(256);
});
test('sharp edges are single dots apart', () => {
  const [row = []] = drawn('edges');
  expect(row.slice(0, 4)).toEqual(['#ffffff', '#000000', '#ffffff', '#000000']);
});
test('bars move', () => {
  expect(drawn('moving', 64, 36, 0)).not.toEqual(drawn('moving', 64, 36, 0.5));
});
test('sizes are those of panels, sixteen to nine', () => {
  for (const [width, height] of pictureSizes) expect(Math.abs(width / height - 16 / 9)).toBeLessThan(0.01);
});
