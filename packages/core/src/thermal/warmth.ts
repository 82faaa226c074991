/**
 * What warms between temperature pictures of a board, taken around power-on. The later pictures are laid over the first (a hand moves the camera), the change
 * that everything shares is taken off (room, camera), and what rises beyond the noise is ranked by how fast it does: the first-warm part names a branch.
 */
import type { Frame } from './frame.ts';

/** A picture and when it was taken, seconds from power-on; the first is from before it. */
export interface TimedFrame extends Frame {
  readonly seconds: number;
}

/** A place that warms. */
export interface WarmSpot {
  /** Middle of it, shares of width and height from the top left. */
  readonly x: number;
  readonly y: number;
  /** Cells that belong to it. */
  readonly cells: number;
  /** Highest rise at the end, °C. */
  readonly rise: number;
  /** Fastest it rose between one picture and the next, °C/s. */
  readonly rate: number;
  /** By when it had risen beyond the noise, seconds. */
  readonly by: number;
}

/** What came of a comparison. */
export interface Warmth {
  readonly width: number;
  readonly height: number;
  /** Rise at the end over the first picture, °C, row by row; NaN where the pictures don't overlap. */
  readonly rises: Float32Array;
  /** Cells that each picture had to be moved by to lie on the first. */
  readonly moved: readonly (readonly [right: number, down: number])[];
  /** A rise within this says nothing, °C. */
  readonly noise: number;
  /** By rate; at most `mostSpots`. */
  readonly spots: readonly WarmSpot[];
}

/** Share of the width that a picture may have moved by (value of ours: a hand that is leant on something). */
const mostMove = 0.1;
/** Cameras of the trade tell 0.05 to 0.1 K apart; below this no rise is named, °C (common practice, no source). */
const leastRise = 0.5;
/** Standard deviations of the background that a part has to rise by (value of ours: one in a million cells does so by chance). */
const beyond = 5;
/** Fewer cells are noise of the camera (value of ours). */
const leastCells = 3;
const mostSpots = 12;
/** A small group close to a large one that hardly rises is its rim: share of its cells, and of the width; times the noise (values of ours). */
const fringe = { cells: 0.05, width: 0.02, rise: 2 };

/**
 * Throws RangeError for fewer than two pictures, pictures of different sizes, or times that do not run forward.
 */
export function compareFrames(frames: readonly TimedFrame[]): Warmth {
  const [first, ...later] = frames;
  if (!first || later.length === 0) throw new RangeError('two pictures or more');
  const { width, height } = first;
  if (later.some((one) => one.width !== width || one.height !== height)) throw new RangeError('pictures of one size');
  if (frames.some((one, index) => index > 0 && one.seconds <= (frames[index - 1]?.seconds ?? 0)))
    throw new RangeError('later pictures last');
  const moved = later.map((one) => moveOf(first, one));
  const rises = later.map((one, index) => riseOf(first, one, moved[index] ?? [0, 0]));
  const noises = rises.map(noiseOf);
  const end = rises.at(-1) ?? new Float32Array(width * height);
  const threshold = (index: number): number => Math.max(leastRise, beyond * (noises[index] ?? 0));
  // A part that warms early and cools again is one, too: beyond the noise in any picture.
  const warm = Uint8Array.from(end, (_, cell) => (rises.some((one, index) => (one[cell] ?? 0) > threshold(index)) ? 1 : 0));
  const spots = withoutFringes(groupsOf(warm, width, height), width, height, (cell) =>
    rises.some((one, index) => (one[cell] ?? 0) > fringe.rise * threshold(index)),
  )
    .filter((cells) => cells.length >= leastCells)
    .map((cells) => spotOf(cells, rises, frames, threshold, width, height))
    .sort((a, b) => b.rate - a.rate || b.rise - a.rise)
    .slice(0, mostSpots);
  return { width, height, rises: end, moved: [[0, 0], ...moved], noise: threshold(rises.length - 1), spots };
}

/** Right and down by whole cells: where the shapes of both lie on each other best. Differences to neighbours are compared, so that a drift says nothing. */
function moveOf(first: Frame, other: Frame): readonly [number, number] {
  const { width, height } = first;
  const edges = ({ celsius }: Frame): Float32Array => {
    const result = new Float32Array(width * height);
    for (let y = 1; y < height; y += 1)
      for (let x = 1; x < width; x += 1) {
        const at = y * width + x;
        const here = celsius[at] ?? 0;
        result[at] = Math.hypot(here - (celsius[at - 1] ?? 0), here - (celsius[at - width] ?? 0));
      }
    return result;
  };
  const [a, b] = [edges(first), edges(other)];
  const most = Math.max(1, Math.floor(Math.min(width, height) * mostMove));
  let best = { dx: 0, dy: 0, score: Infinity };
  // Rows and columns are thinned out on large pictures: shapes are larger than a cell there.
  const step = Math.max(1, Math.floor(Math.max(width, height) / 160));
  for (let dy = -most; dy <= most; dy += 1)
    for (let dx = -most; dx <= most; dx += 1) {
      let [sum, count] = [0, 0];
      for (let y = Math.max(0, -dy); y < Math.min(height, height - dy); y += step)
        for (let x = Math.max(0, -dx); x < Math.min(width, width - dx); x += step) {
          // The largest differences are what warmed: they are cut, so as not to pull the picture along.
          const differ = Math.abs((a[y * width + x] ?? 0) - (b[(y + dy) * width + x + dx] ?? 0));
          // Where either says nothing.
          if (Number.isNaN(differ)) continue;
          sum += Math.min(1, differ);
          count += 1;
        }
      const score = count === 0 ? Infinity : sum / count;
      // No move is better than one that is no better.
      const near = Math.hypot(dx, dy) - Math.hypot(best.dx, best.dy);
      if (score < best.score - 1e-6 || (Math.abs(score - best.score) <= 1e-6 && near < 0)) best = { dx, dy, score };
    }
  return [best.dx, best.dy];
}

/** Rise of each cell over the first picture, less what most cells share. */
function riseOf(first: Frame, other: Frame, [dx, dy]: readonly [number, number]): Float32Array {
  const { width, height } = first;
  const rise = new Float32Array(width * height).fill(Number.NaN);
  for (let y = Math.max(0, -dy); y < Math.min(height, height - dy); y += 1)
    for (let x = Math.max(0, -dx); x < Math.min(width, width - dx); x += 1)
      rise[y * width + x] = (other.celsius[(y + dy) * width + x + dx] ?? 0) - (first.celsius[y * width + x] ?? 0);
  const shared = median(rise);
  return rise.map((one) => one - shared);
}

function median(values: Float32Array): number {
  const sorted = values.filter((one) => !Number.isNaN(one)).sort();
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}
/** Standard deviation of the background, from the median of the differences: what warms doesn't widen it (1.4826: normal distribution). */
const noiseOf = (rise: Float32Array): number => 1.4826 * median(rise.map((one) => Math.abs(one)));

/** Cells that touch, side by side or corner to corner. */
function groupsOf(warm: Uint8Array, width: number, height: number): number[][] {
  const seen = new Uint8Array(warm.length);
  const groups: number[][] = [];
  for (let from = 0; from < warm.length; from += 1) {
    if (warm[from] !== 1 || seen[from] === 1) continue;
    const group: number[] = [];
    const open = [from];
    seen[from] = 1;
    for (let cell = open.pop(); cell !== undefined; cell = open.pop()) {
      group.push(cell);
      const [x, y] = [cell % width, Math.floor(cell / width)];
      for (let ny = Math.max(0, y - 1); ny <= Math.min(height - 1, y + 1); ny += 1)
        for (let nx = Math.max(0, x - 1); nx <= Math.min(width - 1, x + 1); nx += 1) {
          const next = ny * width + nx;
          if (warm[next] !== 1 || seen[next] === 1) continue;
          seen[next] = 1;
          open.push(next);
        }
    }
    groups.push(group);
  }
  return groups;
}

/** Groups but for the rims of larger ones. */
function withoutFringes(groups: readonly number[][], width: number, height: number, isClear: (cell: number) => boolean): number[][] {
  const reach = Math.max(2, Math.round(width * fringe.width));
  const largest = groups.reduce((most, { length }) => Math.max(most, length), 0);
  const owner = new Map<number, readonly number[]>();
  for (const group of groups) for (const cell of group) owner.set(cell, group);
  const isRim = (group: readonly number[]): boolean =>
    group.length < fringe.cells * largest &&
    !group.some(isClear) &&
    group.some((cell) => {
      const [x, y] = [cell % width, Math.floor(cell / width)];
      for (let ny = Math.max(0, y - reach); ny <= Math.min(height - 1, y + reach); ny += 1)
        for (let nx = Math.max(0, x - reach); nx <= Math.min(width - 1, x + reach); nx += 1)
          if (group.length < fringe.cells * (owner.get(ny * width + nx)?.length ?? 0)) return true;
      return false;
    });
  return groups.filter((group) => !isRim(group));
}

function spotOf(
  cells: readonly number[],
  rises: readonly Float32Array[],
  frames: readonly TimedFrame[],
  threshold: (index: number) => number,
  width: number,
  height: number,
): WarmSpot {
  const peak = (rise: Float32Array): number => cells.reduce((most, cell) => Math.max(most, rise[cell] ?? 0), -Infinity);
  const peaks = [0, ...rises.map(peak)];
  const rates = frames
    .slice(1)
    .map((frame, index) => ((peaks[index + 1] ?? 0) - (peaks[index] ?? 0)) / (frame.seconds - (frames[index]?.seconds ?? 0)));
  const reached = rises.findIndex((_, index) => (peaks[index + 1] ?? 0) > threshold(index));
  // Weighed by how far they rose: the middle of a part, and not of what it warms around it.
  let [sx, sy, sum] = [0, 0, 0];
  for (const cell of cells) {
    const weight = Math.max(0, ...rises.map((one) => one[cell] ?? 0));
    sx += weight * ((cell % width) + 0.5);
    sy += weight * (Math.floor(cell / width) + 0.5);
    sum += weight;
  }
  return {
    x: sx / sum / width,
    y: sy / sum / height,
    cells: cells.length,
    rise: peaks.at(-1) ?? 0,
    rate: Math.max(...rates),
    by: frames[reached + 1]?.seconds ?? 0,
  };
}
