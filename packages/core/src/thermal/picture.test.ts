/** Pictures with a colour scale. What is expected was written first: warmthCases.ts. Colour maps are those of d3-scale-chromatic. */
import { describe, expect, test } from '@jest/globals';
import * as maps from 'd3-scale-chromatic';
import { compareFrames, frameFromPicture, type ColourScale, type Frame, type Picture } from './index.ts';
import { scaleCases } from './warmthCases.ts';

/** Any even and reproducible numbers will do (Park and Miller). */
function numbers(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}
const channels = (colour: string): number[] => {
  const hex = /^#(..)(..)(..)$/.exec(colour);
  return hex ? hex.slice(1).map((one) => Number.parseInt(one, 16)) : (colour.match(/[\d.]+/g) ?? []).slice(0, 3).map(Number);
};

const [width, height] = [320, 240];
/** Right of the picture, cold at the bottom. */
const bar = { left: 296, right: 311, top: 20, bottom: 219 };
const scaleOf = (celsius: readonly [number, number]): ColourScale => ({
  cold: [303.5 / (width - 1), bar.bottom / (height - 1)],
  hot: [303.5 / (width - 1), bar.top / (height - 1)],
  celsius,
});

/** A board warm in two places, as a camera writes it, with its scale and a line of writing. */
function drawn(
  map: (typeof scaleCases)[number]['map'],
  [low, high]: readonly [number, number],
  noise: number,
  extra = 0,
): { picture: Picture; truth: Frame } {
  const random = numbers(4711);
  const colour = maps[`interpolate${map}`];
  const rgba = new Uint8ClampedArray(width * height * 4);
  const celsius = new Float32Array(width * height);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const at = y * width + x;
      const spot = (cx: number, cy: number, radius: number): number => Math.exp(-(((x - cx) ** 2 + (y - cy) ** 2) / radius ** 2));
      const share = 0.15 + (x / width) * 0.2 + 0.5 * spot(90, 70, 20) + (0.3 + extra) * spot(200, 160, 30) * 0.8;
      celsius[at] = low + (high - low) * share;
      const inBar = x >= bar.left && x <= bar.right && y >= bar.top && y <= bar.bottom;
      const own = channels(colour(inBar ? (bar.bottom - y) / (bar.bottom - bar.top) : share));
      // Pure magenta is in none of the maps that are read.
      const dots = y > 5 && y < 12 && x > 10 && x < 90 ? [255, 0, 255] : own;
      for (const channel of [0, 1, 2]) rgba[at * 4 + channel] = (dots[channel] ?? 0) + noise * 2 * (random() - 0.5);
    }
  return { picture: { width, height, rgba }, truth: { width, height, celsius } };
}

describe('a picture with a colour scale', () => {
  test.each(scaleCases)('$name: $map', ({ map, celsius, noise, within }) => {
    const { picture, truth } = drawn(map, celsius, noise);
    if (within === null) {
      expect(() => frameFromPicture(picture, scaleOf(celsius))).toThrow(/colours come once/);
      return;
    }
    const found = frameFromPicture(picture, scaleOf(celsius));
    expect([found.width, found.height]).toEqual([width, height]);
    const off = [...found.celsius]
      .flatMap((one, at) => (Number.isNaN(one) ? [] : [Math.abs(one - (truth.celsius[at] ?? 0))]))
      .sort((a, b) => a - b);
    expect(off[Math.floor(off.length * 0.9)]).toBeLessThanOrEqual(within);
    // The scale and the writing say nothing; nearly all the rest does.
    const silent = [...found.celsius].flatMap((one, at) => (Number.isNaN(one) ? [at] : []));
    const inBar = silent.filter((at) => at % width >= bar.left - 4 && at % width <= bar.right + 4).length;
    expect(inBar).toBeGreaterThan((bar.right - bar.left) * (bar.bottom - bar.top));
    expect(found.celsius[8 * width + 50]).toBeNaN();
    expect(silent.length).toBeLessThan(width * height * 0.1);
  });
  test('two of them, each with its own ends, compare as matrices do', () => {
    const before = frameFromPicture(drawn('Inferno', [20, 45], 2).picture, scaleOf([20, 45]));
    const after = frameFromPicture(drawn('Inferno', [20, 45], 2, 0.4).picture, scaleOf([20, 45]));
    const { spots } = compareFrames([
      { ...before, seconds: 0 },
      { ...after, seconds: 1 },
    ]);
    expect(spots).toHaveLength(1);
    expect(Math.abs((spots[0]?.x ?? 0) * width - 200)).toBeLessThan(4);
    expect(Math.abs((spots[0]?.y ?? 0) * height - 160)).toBeLessThan(4);
    expect(spots[0]?.rise).toBeCloseTo(0.32 * 25, 0);
  });
  test('an area is looked at alone; a large picture is averaged', () => {
    const { picture, truth } = drawn('Greys', [20, 30], 0);
    const part = frameFromPicture(picture, scaleOf([20, 30]), [
      [0.5, 1],
      [0.25, 0.5],
    ]);
    expect([part.width, part.height]).toEqual([80, 120]);
    expect(part.celsius[0]).toBeCloseTo(truth.celsius[120 * width + 80] ?? 0, 1);
    const twice: Picture = {
      width: width * 2,
      height: height * 2,
      rgba: Uint8ClampedArray.from({ length: width * height * 16 }, (_, at) => {
        const [dot, channel] = [at >> 2, at & 3];
        const [x, y] = [(dot % (width * 2)) >> 1, Math.floor(dot / (width * 2)) >> 1];
        return picture.rgba[(y * width + x) * 4 + channel] ?? 0;
      }),
    };
    expect(frameFromPicture(twice, scaleOf([20, 30])).width).toBe(320);
  });
  test.each([
    ['ends that run backwards', scaleOf([45, 20]), /45 °C to 20 °C/],
    ['colder than anything', scaleOf([-300, 20]), /-300/],
    ['a scale of no length', { ...scaleOf([20, 45]), hot: scaleOf([20, 45]).cold }, /20 dots/],
    ['no colours along it', { cold: [0.02, 0.9], hot: [0.02, 0.5], celsius: [20, 45] }, /colours/],
  ] as [string, ColourScale, RegExp][])('%s: refused', (_, scale, why) => {
    expect(() => frameFromPicture(drawn('Inferno', [20, 45], 0).picture, scale)).toThrow(why);
  });
});
