/**
 * Temperatures from a picture with a colour scale in it: the colours along the scale are read off the picture itself, and each dot is as warm as the nearest of
 * them. Dots of another colour (writing, a crosshair) and the scale itself say nothing.
 */
import type { Frame } from './frame.ts';

/** Row by row from the top left: red, green, blue and one that is not looked at, 0 to 255. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly rgba: ArrayLike<number>;
}
/** A place as shares of width and height from the top left. */
export type Share = readonly [x: number, y: number];
/** Both ends of the scale, and what is written at them, °C. */
export interface ColourScale {
  readonly cold: Share;
  readonly hot: Share;
  readonly celsius: readonly [low: number, high: number];
}

/** Colours that are told apart along the scale (value of ours: as many as a channel has steps). */
const steps = 256;
/** Distance in red, green and blue, 0 to 441 (values of ours): further from every colour of the scale a dot is something else; nearer than so two colours are one. */
const distance = { other: 45, same: 14 };
/** Colours nearer to each other along the scale than this share may be alike. */
const neighbours = 0.15;
const most = { dots: 24_000_000, wide: 320, barShare: 0.06 };
const leastDots = 20;
/** Nothing on a bench is colder or hotter, °C (value of ours). */
const range = [-60, 700] as const;

type Colour = readonly [number, number, number];
const apart = (a: Colour, b: Colour): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/**
 * Cells are °C, or NaN where the picture says nothing; at most 320 wide, each the mean of its dots. `area`: two corners of what is looked at.
 * Throws RangeError for a scale too short, without colours, or whose colours come twice, and for temperatures that can't be.
 */
export function frameFromPicture(
  picture: Picture,
  scale: ColourScale,
  area: readonly [Share, Share] = [
    [0, 0],
    [1, 1],
  ],
): Frame {
  const { width, height } = picture;
  const [low, high] = scale.celsius;
  if (width * height > most.dots) throw new RangeError('at most 24 million dots');
  if (!(low < high) || low < range[0] || high > range[1]) throw new RangeError(`${low} °C to ${high} °C along the scale`);
  const line = lineOf(picture, scale);
  const colours = coloursAlong(picture, line);
  const nearest = finder(colours);
  const halfBar = barWidth(picture, line, colours);
  const [from, to] = corners(picture, area);
  const block = Math.max(1, Math.ceil((to[0] - from[0]) / most.wide));
  const [columns, rows] = [Math.floor((to[0] - from[0]) / block), Math.floor((to[1] - from[1]) / block)];
  if (columns < 2 || rows < 2) throw new RangeError('an area of two cells or more');
  const celsius = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row += 1)
    for (let column = 0; column < columns; column += 1) {
      let [sum, count] = [0, 0];
      for (let y = from[1] + row * block; y < from[1] + (row + 1) * block; y += 1)
        for (let x = from[0] + column * block; x < from[0] + (column + 1) * block; x += 1) {
          const step = offLine(line, x, y) <= halfBar ? -1 : nearest(colourAt(picture, x, y));
          if (step < 0) continue;
          sum += step;
          count += 1;
        }
      celsius[row * columns + column] = count === 0 ? Number.NaN : low + ((high - low) * sum) / count / (steps - 1);
    }
  return { width: columns, height: rows, celsius };
}

interface Line {
  readonly from: Share;
  /** Along it and across it, of length 1, in dots. */
  readonly along: Share;
  readonly across: Share;
  readonly length: number;
}

function lineOf({ width, height }: Picture, { cold, hot }: ColourScale): Line {
  const from: Share = [cold[0] * (width - 1), cold[1] * (height - 1)];
  const [dx, dy] = [hot[0] * (width - 1) - from[0], hot[1] * (height - 1) - from[1]];
  const length = Math.hypot(dx, dy);
  if (!(length >= leastDots)) throw new RangeError(`a scale of ${leastDots} dots or more`);
  return { from, along: [dx / length, dy / length], across: [-dy / length, dx / length], length };
}

function colourAt({ width, height, rgba }: Picture, x: number, y: number): Colour {
  const [column, row] = [Math.min(Math.max(Math.round(x), 0), width - 1), Math.min(Math.max(Math.round(y), 0), height - 1)];
  const at = (row * width + column) * 4;
  return [rgba[at] ?? 0, rgba[at + 1] ?? 0, rgba[at + 2] ?? 0];
}

/** The colours from cold to hot, each the mean of three dots across. */
function coloursAlong(picture: Picture, { from, along, across, length }: Line): Colour[] {
  const colours = Array.from({ length: steps }, (_, step): Colour => {
    const far = (length * step) / (steps - 1);
    const three = [-1, 0, 1].map((off) =>
      colourAt(picture, from[0] + along[0] * far + across[0] * off, from[1] + along[1] * far + across[1] * off),
    );
    const mean = (channel: 0 | 1 | 2): number => three.reduce((sum, one) => sum + one[channel], 0) / three.length;
    return [mean(0), mean(1), mean(2)];
  });
  let widest = 0;
  for (let a = 0; a < steps; a += 4)
    for (let b = a + 4; b < steps; b += 4) {
      const [one, other] = [colours[a], colours[b]];
      if (!one || !other) continue;
      const far = apart(one, other);
      widest = Math.max(widest, far);
      if (b - a > neighbours * steps && far < distance.same) throw new RangeError('a scale whose colours come once');
    }
  if (widest < distance.other) throw new RangeError('a scale with colours');
  return colours;
}

/** Where along the scale a colour is, in steps, between two of them as well; -1: it is none of the scale's. Each colour is looked up once. */
function finder(colours: readonly Colour[]): (colour: Colour) => number {
  const known = new Map<number, number>();
  const find = (colour: Colour): number => {
    let [best, far] = [-1, distance.other];
    for (let step = 0; step + 1 < colours.length; step += 1) {
      const [from, to] = [colours[step], colours[step + 1]];
      if (!from || !to) continue;
      const way = [to[0] - from[0], to[1] - from[1], to[2] - from[2]] as const;
      const square = way[0] ** 2 + way[1] ** 2 + way[2] ** 2;
      const dot = (colour[0] - from[0]) * way[0] + (colour[1] - from[1]) * way[1] + (colour[2] - from[2]) * way[2];
      const share = square === 0 ? 0.5 : Math.min(Math.max(dot / square, 0), 1);
      const own = apart(colour, [from[0] + share * way[0], from[1] + share * way[1], from[2] + share * way[2]]);
      if (own < far) [best, far] = [step + share, own];
    }
    return best;
  };
  return (colour) => {
    const key = (colour[0] << 16) | (colour[1] << 8) | colour[2];
    const before = known.get(key);
    if (before !== undefined) return before;
    const step = find(colour);
    known.set(key, step);
    return step;
  };
}

/** Half the width of the bar, dots: as far across as the colour of its line goes on. */
function barWidth(picture: Picture, { from, along, across, length }: Line, colours: readonly Colour[]): number {
  const cap = Math.round(picture.width * most.barShare);
  let half = 1;
  for (const share of [0.25, 0.5, 0.75])
    for (const side of [-1, 1]) {
      const own = colours[Math.round(share * (steps - 1))];
      let off = 0;
      while (own && off < cap) {
        const [x, y] = [from[0] + along[0] * length * share, from[1] + along[1] * length * share];
        if (apart(colourAt(picture, x + across[0] * side * (off + 1), y + across[1] * side * (off + 1)), own) > distance.other / 2) break;
        off += 1;
      }
      half = Math.max(half, off);
    }
  return half + 2;
}

/** How far a dot is from the scale's line; beyond its ends, from the end. */
function offLine({ from, along, length }: Line, x: number, y: number): number {
  const [dx, dy] = [x - from[0], y - from[1]];
  const far = Math.min(Math.max(dx * along[0] + dy * along[1], 0), length);
  return Math.hypot(dx - along[0] * far, dy - along[1] * far);
}

function corners({ width, height }: Picture, [a, b]: readonly [Share, Share]): [Share, Share] {
  const x = [a[0], b[0]].map((one) => Math.round(one * width)).sort((one, other) => one - other);
  const y = [a[1], b[1]].map((one) => Math.round(one * height)).sort((one, other) => one - other);
  return [
    [Math.max(x[0] ?? 0, 0), Math.max(y[0] ?? 0, 0)],
    [Math.min(x[1] ?? 0, width), Math.min(y[1] ?? 0, height)],
  ];
}
