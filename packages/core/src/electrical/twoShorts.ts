/**
 * Two shorts on one rail: outside both the reading adds copper as ever; between them there are two ways to ground side by side, and the reading bulges. With
 * the ohms of the whole loop (short, copper, short) given, x ohms from ground one way and the rest the other read x (loop - x) / loop: a chain again, so that
 * each capacitor’s probability of being the nearer or the farther short follows from one pass from either end, summed over loops.
 */
import { cell, meters, prepare, usualWalk, type WalkModel, type WalkReading } from './shortWalk.ts';

/** Loops from one to the next, share: half that step finds the same pairs and takes twice as long (value of ours). */
const loopStep = 0.08;

/** What the readings say of two shorts against one. */
export interface TwoShorts {
  /** How many times likelier the readings are with two shorts than with one (Bayes factor). How often there are two isn't known, so no probability. */
  readonly factor: number;
  /** For each capacitor: to be the first, or the second, of the row, given that there are two. */
  readonly first: readonly number[];
  readonly second: readonly number[];
}

/** Throws RangeError as `walkProbabilities` does. */
export function twoShorts(capacitors: number, readings: readonly WalkReading[], model: WalkModel = usualWalk): TwoShorts {
  const ways = meters.map(({ worse, share }) => {
    const row = rowOf(capacitors, readings, { ...model, noise: model.noise * worse, driftOhms: model.driftOhms * worse });
    return { share, row, one: evidenceOfOne(row), two: evidenceOfTwo(row) };
  });
  const most = Math.max(...ways.flatMap(({ one, two }) => [one, two.log]));
  const weightOf = (log: number, share: number): number => share * Math.exp(log - most);
  const singles = ways.reduce((sum, { one, share }) => sum + weightOf(one, share), 0);
  const pairs = ways.reduce((sum, { two, share }) => sum + weightOf(two.log, share), 0);
  const mixed = (of: 'first' | 'second'): number[] =>
    Array.from({ length: capacitors }, (_, at) =>
      pairs > 0 ? ways.reduce((sum, { two, share }) => sum + (weightOf(two.log, share) / pairs) * (two[of][at] ?? 0), 0) : 1 / capacitors,
    );
  return { factor: singles > 0 ? pairs / singles : Infinity, first: mixed('first'), second: mixed('second') };
}

/** The row on its grid: what was read, scaled to 1 at best (`log` is what it was divided by), and all that was read outside each place. */
interface Row {
  readonly capacitors: number;
  readonly model: WalkModel;
  readonly grid: number;
  readonly kernel: Float64Array;
  readonly seen: readonly (Float64Array | undefined)[];
  readonly log: number;
  /** By place: what was read there and to its left (right), if the short lies there. */
  readonly left: readonly Float64Array[];
  readonly right: readonly Float64Array[];
  /** Of the ohms that are left of a short. */
  readonly residual: (ohms: number) => number;
}

function rowOf(capacitors: number, readings: readonly WalkReading[], model: WalkModel): Row {
  const { grid, kernel, seen } = prepare(capacitors, readings, model);
  let log = 0;
  const scaled = seen.map((values) => {
    if (!values) return undefined;
    const most = values.reduce((a, b) => Math.max(a, b), 0);
    log += Math.log(most || 1);
    return values.map((one) => one / (most || 1));
  });
  const tail = (order: (index: number) => number): Float64Array[] => {
    const all = new Array<Float64Array>(capacitors);
    let values = new Float64Array(grid).fill(1);
    for (let index = 0; index < capacitors; index += 1) {
      if (index > 0) values = back(values, kernel);
      const own = scaled[order(index)];
      if (own) values = values.map((one, i) => one * (own[i] ?? 0));
      all[order(index)] = values;
    }
    return all;
  };
  const [least, most] = model.residual;
  const inside = (most - least) / cell;
  return {
    capacitors,
    model,
    grid,
    kernel,
    seen: scaled,
    log,
    left: tail((index) => index),
    right: tail((index) => capacitors - 1 - index),
    // Outside its range a residual is possible, and rare: a meter's leads and a bad contact add to it.
    residual: (ohms) => (ohms < 0 ? 0 : ohms >= least && ohms <= most ? 1 : 0.02) / inside,
  };
}

/** A step outward from each place: what the places beyond it say of it. */
function back(values: Float64Array, kernel: Float64Array): Float64Array<ArrayBuffer> {
  const { length } = values;
  const result = new Float64Array(length);
  for (let i = 0; i < length; i += 1) {
    const last = Math.min(kernel.length - 1, length - 1 - i);
    let sum = 0;
    for (let step = 0; step <= last; step += 1) sum += (values[i + step] ?? 0) * (kernel[step] ?? 0);
    result[i] = sum;
  }
  return result;
}
/** A step of the chain itself. */
function ahead(values: Float64Array, kernel: Float64Array): Float64Array<ArrayBuffer> {
  const { length } = values;
  const result = new Float64Array(length);
  for (let i = 0; i < length; i += 1) {
    const from = values[i] ?? 0;
    if (from === 0) continue;
    const last = Math.min(kernel.length - 1, length - 1 - i);
    for (let step = 0; step <= last; step += 1) result[i + step] = (result[i + step] ?? 0) + from * (kernel[step] ?? 0);
  }
  return result;
}

/** Logarithm of the evidence for one short. */
function evidenceOfOne({ capacitors, grid, seen, left, right, residual, log }: Row): number {
  let total = 0;
  for (let k = 0; k < capacitors; k += 1)
    for (let i = 0; i < grid; i += 1) {
      const own = seen[k]?.[i] ?? 1;
      if (own > 0) total += (residual(i * cell) * (left[k]?.[i] ?? 0) * (right[k]?.[i] ?? 0)) / own;
    }
  return Math.log(total / capacitors) + log;
}

/** Every loop that two shorts may make, with what the row says of each place in it. */
function* loopsOf(row: Row) {
  const { capacitors, model } = row;
  const [least, most] = model.residual;
  const longest = 2 * most + (capacitors - 1) * model.segment[1];
  for (let loop = 2 * least + model.segment[0]; loop <= longest; loop *= 1 + loopStep) {
    const size = Math.floor(loop / cell);
    // What each place of the loop reads to ground, as a place on the grid of ohms.
    const places = Float64Array.from({ length: size }, (_, i) => (i * (loop - i * cell)) / loop);
    const inLoop = (values: Float64Array | undefined): Float64Array | undefined =>
      values?.length === undefined
        ? undefined
        : places.map((z) => {
            const low = Math.floor(z);
            return (values[low] ?? 0) * (1 - (z - low)) + (values[low + 1] ?? 0) * (z - low);
          });
    const end = places.map((_, i) => row.residual(loop - i * cell));
    const weight = (loop * loopStep) / cell;
    const [own, left, right] = [row.seen.map(inLoop), row.left.map(inLoop), row.right.map(inLoop)];
    yield { size, weight, own, left, right, start: places.map((_, i) => row.residual(i * cell)), end };
  }
}
const joined = (there: Float64Array, ends: Float64Array, tail: Float64Array | undefined): number =>
  there.reduce((sum, one, i) => sum + one * (ends[i] ?? 0) * (tail?.[i] ?? 1), 0);
/** What came so far with this place’s own reading, and what begins here. */
const withOwn = (so: Float64Array, own: Float64Array | undefined, begins?: Float64Array, tail?: Float64Array): Float64Array =>
  so.map((one, i) => one * (own?.[i] ?? 1) + (begins?.[i] ?? 0) * (tail?.[i] ?? 1));

/** Logarithm of the evidence for two, and where they are if there are two. */
function evidenceOfTwo(row: Row): { readonly log: number; readonly first: readonly number[]; readonly second: readonly number[] } {
  const { capacitors, kernel } = row;
  const first = new Array<number>(capacitors).fill(0);
  const second = new Array<number>(capacitors).fill(0);
  for (const { size, weight, own, left, right, start, end } of loopsOf(row)) {
    let so: Float64Array = new Float64Array(size);
    for (let k = 0; k < capacitors; k += 1) {
      if (k > 0) so = ahead(so, kernel);
      second[k] = (second[k] ?? 0) + weight * joined(so, end, right[k]);
      so = withOwn(so, own[k], start, left[k]);
    }
    so = new Float64Array(size);
    for (let k = capacitors - 1; k >= 0; k -= 1) {
      if (k < capacitors - 1) so = back(so, kernel);
      first[k] = (first[k] ?? 0) + weight * joined(so, start, left[k]);
      so = withOwn(so, own[k], end, right[k]);
    }
  }
  const total = second.reduce((sum, one) => sum + one, 0);
  const pairs = (capacitors * (capacitors - 1)) / 2;
  const spread = (all: readonly number[]): number[] => all.map((one) => (total > 0 ? one / total : 1 / capacitors));
  return { log: Math.log(total / pairs) + row.log, first: spread(first), second: spread(second) };
}
