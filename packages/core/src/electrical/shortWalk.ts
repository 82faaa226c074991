/**
 * The milliohm walk: readings from some capacitors of a rail to ground, and how probable each is to be the short one.
 *
 * A capacitor away from the short reads the copper between on top of what is left of the short. Along the row the reading falls towards it and rises behind it,
 * by steps that are positive and not known (log-normal). Given the short, all readings are a chain, or a tree where the rail branches: the probability of
 * each place follows from one pass inward from the ends and one outward, over a grid of ohms (sum-product). Loads along the rail and a second short are not
 * in this model.
 */
import { hangingOn, hangsOn, type Rail } from './branches.ts';
import { railRanges } from './railGenerator.ts';

/** A reading: index of the capacitor from 0, ohms. */
export interface WalkReading {
  readonly at: number;
  readonly ohms: number;
}
/** What is taken of the copper, the short and the meter. Ohms; noise as a share. */
export interface WalkModel {
  readonly segment: readonly [number, number];
  readonly residual: readonly [number, number];
  readonly noise: number;
  readonly driftOhms: number;
}
/** Of the prototypes' ranges, with the middle of the meters. */
export const usualWalk: WalkModel = {
  segment: railRanges.segment,
  residual: railRanges.residual,
  noise: (railRanges.noise[0] + railRanges.noise[1]) / 2,
  driftOhms: railRanges.drift,
};

/** Width of a cell of the grid: half of what leads drift by would be finer than any reading. Ohms. */
export const cell = 0.003;
/** A range is from one standard deviation and a half below the middle to as much above, on a logarithmic scale (value of ours). */
const deviationsInRange = 3;

/** Probability of a step of so many cells. */
function steps([from, to]: WalkModel['segment']): Float64Array {
  const middle = Math.log(Math.sqrt(from * to));
  const deviation = Math.log(to / from) / deviationsInRange;
  const cells = Math.ceil((to * Math.exp(deviation)) / cell);
  const kernel = new Float64Array(cells + 1);
  let total = 0;
  for (let i = 0; i <= cells; i += 1) {
    const ohms = Math.max(i, 0.25) * cell;
    const z = (Math.log(ohms) - middle) / deviation;
    kernel[i] = Math.exp((-z * z) / 2) / ohms;
    total += kernel[i] ?? 0;
  }
  return kernel.map((one) => one / total);
}

/** Probability of each capacitor, from what was read so far. Throws RangeError for a place the rail hasn’t got, or a reading below 0. */
export function walkProbabilities(rail: Rail, readings: readonly WalkReading[], model: WalkModel = usualWalk): number[] {
  const ways = meters.map(({ worse, share }) => {
    const { probabilities, log } = solve(rail, readings, {
      ...model,
      noise: model.noise * worse,
      driftOhms: model.driftOhms * worse,
    });
    return { probabilities, log: log + Math.log(share) };
  });
  const most = Math.max(...ways.map(({ log }) => log));
  const weights = ways.map(({ log }) => Math.exp(log - most));
  const total = weights.reduce((sum, one) => sum + one, 0);
  return hangsOn(rail).map((_, at) =>
    ways.reduce((sum, { probabilities }, way) => sum + ((weights[way] ?? 0) / total) * (probabilities[at] ?? 0), 0),
  );
}

/** A meter may be worse than it states, or its probe not steady: so often, before anything is read (values of ours). */
export const meters = [
  { worse: 1, share: 0.75 },
  { worse: 2, share: 0.2 },
  { worse: 3.5, share: 0.05 },
] as const;

function solve(rail: Rail, readings: readonly WalkReading[], model: WalkModel) {
  const on = hangsOn(rail);
  const { grid, kernel, seen } = prepare(on.length, readings, model);
  const { inward, outward, around } = passes(on, grid, kernel, seen);
  const [least, most] = model.residual;
  const joints: Float64Array[] = [];
  const logs = on.map((_, k) => {
    const { values, log } = around(k);
    let sum = 0;
    // Outside its range a residual is possible, and rare: a meter's leads and a bad contact add to it.
    for (let i = 0; i < grid; i += 1) {
      const ohms = i * cell;
      values[i] = (values[i] ?? 0) * (ohms >= least && ohms <= most ? 1 : 0.02);
      sum += values[i] ?? 0;
    }
    joints.push(values);
    return sum > 0 ? Math.log(sum) + log : -Infinity;
  });
  const top = Math.max(...logs);
  const weights = logs.map((one) => Math.exp(one - top));
  const total = weights.reduce((sum, one) => sum + one, 0);
  return { probabilities: weights.map((one) => one / total), log: top + Math.log(total), on, grid, kernel, inward, outward, joints };
}

/** Index drawn with these weights. */
function draw(weights: ArrayLike<number>, random: () => number): number {
  let total = 0;
  for (let i = 0; i < weights.length; i += 1) total += weights[i] ?? 0;
  let left = random() * total;
  for (let i = 0; i < weights.length; i += 1) {
    left -= weights[i] ?? 0;
    if (left < 0) return i;
  }
  return weights.length - 1;
}

/** Rails that agree with all that was read: where the short is, and ohms at each capacitor. */
function* worlds(
  solved: ReturnType<typeof solve>,
  count: number,
  random: () => number,
): Generator<{ readonly short: number; readonly ohms: readonly number[] }> {
  const { probabilities, on, kernel, inward, outward, joints, grid } = solved;
  const below = hangingOn(on);
  for (let drawn = 0; drawn < count; drawn += 1) {
    const short = draw(probabilities, random);
    const cells = new Array<number>(on.length).fill(0);
    cells[short] = draw(joints[short] ?? [], random);
    // Away from the short: each step as likely as the copper and the readings beyond make it.
    const away = (to: number, from: number, values: Float64Array | undefined): void => {
      const inner = cells[from] ?? 0;
      const weights = Array.from(
        { length: Math.min(kernel.length, grid - inner) },
        (_, step) => (kernel[step] ?? 0) * (values?.[inner + step] ?? 0),
      );
      cells[to] = inner + draw(weights, random);
      const next = on[to] ?? -1;
      if (next >= 0 && next !== from) away(next, to, outward[to]?.values);
      for (const one of below[to] ?? []) if (one !== from) away(one, to, inward[one]?.values);
    };
    const first = on[short] ?? -1;
    if (first >= 0) away(first, short, outward[short]?.values);
    for (const one of below[short] ?? []) away(one, short, inward[one]?.values);
    yield { short, ohms: cells.map((one) => one * cell) };
  }
}

/** What a capacitor reads in truth, by all that was read: middle, and the range that nine in ten imagined rails lie in, Ω. */
export interface FittedPoint {
  readonly middle: number;
  readonly low: number;
  readonly high: number;
}

/** The rail as it was read and as it follows from that: where nothing was read the range is wide. `random` gives numbers from 0 to 1. */
export function fittedRow(rail: Rail, readings: readonly WalkReading[], random: () => number, model: WalkModel = usualWalk): FittedPoint[] {
  const all = [...worlds(solve(rail, readings, model), imagined, random)];
  return hangsOn(rail).map((_, at) => {
    const ohms = all.map((world) => world.ohms[at] ?? 0).sort((a, b) => a - b);
    const quantile = (share: number): number => ohms[Math.round(share * (ohms.length - 1))] ?? 0;
    return { middle: quantile(0.5), low: quantile(0.05), high: quantile(0.95) };
  });
}

/** Rails that are imagined for the choice of the next point (value of ours). */
const imagined = 160;

/** What the next reading is expected to bring. */
export interface NextPoint {
  /** Index of the capacitor to read. */
  readonly at: number;
  /** Probability of the likeliest capacitor after it, expected. */
  readonly expectedSure: number;
}

/** The point whose reading makes one capacitor likeliest, expected over rails that agree with what was read. `random` gives numbers from 0 to 1. */
export function nextPoint(rail: Rail, readings: readonly WalkReading[], random: () => number, model: WalkModel = usualWalk): NextPoint {
  const all = [...worlds(solve(rail, readings, model), imagined, random)];
  let best: NextPoint = { at: 0, expectedSure: -1 };
  for (const at of hangsOn(rail).keys()) {
    let sure = 0;
    for (const [index, truth] of all.entries()) {
      const ohms = truth.ohms[at] ?? 0;
      const deviation = Math.hypot(model.noise * ohms, model.driftOhms);
      const weights = new Map<number, number>();
      let total = 0;
      for (const [other, world] of all.entries()) {
        // Itself would say that every reading tells all.
        if (other === index) continue;
        const z = ((world.ohms[at] ?? 0) - ohms) / (deviation * Math.SQRT2);
        const weight = Math.exp((-z * z) / 2);
        weights.set(world.short, (weights.get(world.short) ?? 0) + weight);
        total += weight;
      }
      sure += total > 0 ? (weights.get(truth.short) ?? 0) / total : 0;
    }
    if (sure / all.length > best.expectedSure) best = { at, expectedSure: sure / all.length };
  }
  return best;
}

/** Grid, steps and what each reading says of each place of the grid. Throws RangeError. */
export function prepare(capacitors: number, readings: readonly WalkReading[], model: WalkModel) {
  const largest = readings.reduce((most, { ohms }) => Math.max(most, ohms), model.residual[1] + model.segment[1] * capacitors);
  const grid = Math.ceil((largest * 1.2) / cell) + 1;
  const seen: (Float64Array | undefined)[] = new Array<Float64Array | undefined>(capacitors).fill(undefined);
  for (const { at, ohms } of readings) {
    if (!Number.isInteger(at) || at < 0 || at >= capacitors) throw new RangeError(`capacitor ${at + 1} of ${capacitors}`);
    if (!(ohms >= 0)) throw new RangeError(`${ohms} ohms`);
    const before = seen[at];
    const own = new Float64Array(grid);
    for (let i = 0; i < grid; i += 1) {
      const real = i * cell;
      // A cell is as wide as it is: what is finer can't be seen on it.
      const deviation = Math.hypot(model.noise * Math.max(real, ohms / 2), model.driftOhms, cell / Math.sqrt(12));
      const z = (ohms - real) / deviation;
      own[i] = ((before?.[i] ?? 1) * Math.exp((-z * z) / 2)) / deviation;
    }
    seen[at] = own;
  }
  return { grid, kernel: steps(model.segment), seen };
}

interface Message {
  readonly values: Float64Array;
  /** Logarithm of what they were divided by. */
  readonly log: number;
}

/** Scaled to 1 at most. */
function scaled(values: Float64Array, log: number): Message {
  let largest = 0;
  for (const one of values) largest = Math.max(largest, one);
  if (largest <= 0) return { values, log };
  for (let i = 0; i < values.length; i += 1) values[i] = (values[i] ?? 0) / largest;
  return { values, log: log + Math.log(largest) };
}

/** What is said of the ohms here by what is said of them one step of copper further on. */
function oneStep({ values, log }: Message, kernel: Float64Array): Message {
  const grid = values.length;
  const next = new Float64Array(grid);
  for (let i = 0; i < grid; i += 1) {
    let sum = 0;
    const last = Math.min(kernel.length - 1, grid - 1 - i);
    for (let step = 0; step <= last; step += 1) sum += (values[i + step] ?? 0) * (kernel[step] ?? 0);
    next[i] = sum;
  }
  return { values: next, log };
}

/**
 * What the readings say of the ohms at a capacitor. `inward`: at each, by it and all that hangs on it, if the short doesn’t hang on it. `outward`: at what
 * each hangs on, by all that doesn’t hang on it, if the short is it or hangs on it. `around`: at each, by all, if it is the short.
 */
function passes(on: readonly number[], grid: number, kernel: Float64Array, seen: readonly (Float64Array | undefined)[]) {
  const below = hangingOn(on);
  const inward: Message[] = [];
  const stepIn: Message[] = [];
  const outward: (Message | undefined)[] = [];
  const stepOut: (Message | undefined)[] = [];
  const product = (own: Float64Array | undefined, ...messages: readonly (Message | undefined)[]): Message => {
    const values = own ? Float64Array.from(own) : new Float64Array(grid).fill(1);
    let log = 0;
    for (const one of messages) {
      if (!one) continue;
      log += one.log;
      for (let i = 0; i < grid; i += 1) values[i] = (values[i] ?? 0) * (one.values[i] ?? 0);
    }
    return scaled(values, log);
  };
  for (let at = on.length - 1; at >= 0; at -= 1) {
    const said = product(seen[at], ...(below[at] ?? []).map((one) => stepIn[one]));
    inward[at] = said;
    stepIn[at] = oneStep(said, kernel);
  }
  for (const [at, upon] of on.entries()) {
    if (upon < 0) continue;
    const beside = (below[upon] ?? []).filter((one) => one !== at).map((one) => stepIn[one]);
    const said = product(seen[upon], stepOut[upon], ...beside);
    outward[at] = said;
    stepOut[at] = oneStep(said, kernel);
  }
  return { inward, outward, around: (at: number) => product(seen[at], stepOut[at], ...(below[at] ?? []).map((one) => stepIn[one])) };
}
