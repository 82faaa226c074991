import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { PNG } from 'pngjs';
import { exitCodes, run } from './main.ts';

async function call(...args: string[]): Promise<{ code: number; out: unknown }> {
  let out = '';
  const code = await run(args, { out: (text) => (out += text), err: () => undefined });
  return { code, out: out === '' ? undefined : JSON.parse(out) };
}
/** Sixteen by twelve cells at 24 °C, one part warmer; a camera's last digit apart. */
const frame = (rise: number): string =>
  Array.from({ length: 12 }, (_, y) =>
    Array.from({ length: 16 }, (_, x) => (24 + ((x * 7 + y * 5) % 3) / 20 + (Math.hypot(x - 10, y - 4) < 2 ? rise : 0)).toFixed(2)).join(
      ',',
    ),
  ).join('\n');

test('two pictures: the part that warms, with its place; one alone, or what is no picture, is refused', async () => {
  const folder = await mkdtemp(path.join(tmpdir(), 'veglia-warm-'));
  const file = async (name: string, text: string): Promise<string> => {
    await writeFile(path.join(folder, name), text);
    return path.join(folder, name);
  };
  const before = await file('a.csv', frame(0));
  const after = await file('b.csv', frame(6));
  const { code, out } = await call('thermal', `0=${before}`, `1=${after}`);
  expect(code).toBe(exitCodes.fine);
  expect(out).toMatchObject({
    moved: [
      [0, 0],
      [0, 0],
    ],
    findings: [{ code: 'warm-first', values: { rise: 6, rate: 6, by: 1 } }],
  });
  const [spot] = (out as { spots: { x: number; y: number }[] }).spots;
  expect(spot?.x).toBeCloseTo(10.5 / 16, 2);
  expect(spot?.y).toBeCloseTo(4.5 / 12, 2);
  for (const bad of [
    [`0=${before}`],
    [before, after],
    [`0=${before}`, `1=${await file('c.csv', '1,2\n3')}`],
    ['0=/nowhere.csv', `1=${after}`],
  ])
    expect((await call('thermal', ...bad)).code).toBe(exitCodes.wrongInput);
});

test('pictures in colours: each with its own ends, the scale said once', async () => {
  const folder = await mkdtemp(path.join(tmpdir(), 'veglia-warm-'));
  const [width, height] = [120, 90];
  const picture = async (name: string, low: number, high: number, rise: number): Promise<string> => {
    const png = new PNG({ width, height });
    for (let at = 0; at < width * height; at += 1) {
      const [x, y] = [at % width, Math.floor(at / width)];
      const celsius = 25 + rise * Math.exp(-((x - 30) ** 2 + (y - 60) ** 2) / 40);
      const share = x >= 108 && x < 116 && y >= 10 && y < 80 ? (80 - y) / 70 : (celsius - low) / (high - low);
      png.data.set([255 * share, 255 * share, 255 * share, 255].map(Math.round), at * 4);
    }
    await writeFile(path.join(folder, name), PNG.sync.write(png));
    return path.join(folder, name);
  };
  const scale = `scale=${112 / (width - 1)},${79 / (height - 1)},${112 / (width - 1)},${10 / (height - 1)}`;
  const before = await picture('a.png', 20, 40, 0);
  const after = await picture('b.png', 22, 52, 12);
  const { code, out } = await call('thermal', scale, `0@20:40=${before}`, `2@22:52=${after}`);
  expect(code).toBe(exitCodes.fine);
  const { spots } = out as { spots: { x: number; y: number; rise: number }[] };
  expect(spots).toHaveLength(1);
  expect(Math.abs((spots[0]?.x ?? 0) * width - 30)).toBeLessThan(2);
  expect(Math.abs((spots[0]?.y ?? 0) * height - 60)).toBeLessThan(2);
  expect(Math.abs((spots[0]?.rise ?? 0) - 12)).toBeLessThan(0.5);
  for (const bad of [
    [`0@20:40=${before}`, `2@22:52=${after}`],
    ['scale=0.9,0.9', `0@20:40=${before}`, `2@22:52=${after}`],
    [scale, `0@40:20=${before}`, `2@22:52=${after}`],
    [scale, 'area=0,0,2,1', `0@20:40=${before}`, `2@22:52=${after}`],
  ])
    expect((await call('thermal', ...bad)).code).toBe(exitCodes.wrongInput);
});
