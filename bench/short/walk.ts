/**
 * `npm run bench:short [RAILS]`: the milliohm walk on drawn rails (core/electrical/railGenerator.ts) against reading all and taking the lowest, and
 * golden-section search; truth by nodal analysis. Prints a table and writes bench/results/short.json. 2,000 rails take a quarter of an hour.
 */
import { writeFileSync } from 'node:fs';
import {
  drawMeter,
  drawRail,
  nextPoint,
  ohmsAlong,
  readWith,
  twoShorts,
  usualWalk,
  walkProbabilities,
  type WalkReading,
} from '@veglia/core';
import { inRoot } from '../../scripts/lib/paths.mjs';

const rails = Number(process.argv[2] ?? 2000);
/** Park and Miller: any even and reproducible numbers will do. */
function numbers(seed: number): () => number {
  let state = (seed * 104_729) % 2_147_483_647;
  const next = (): number => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
  for (let i = 0; i < 5; i += 1) next();
  return next;
}
/** Wilson's interval, 95 %. */
function interval(hits: number, n: number): readonly [number, number] {
  const z = 1.96;
  const [p, d] = [hits / n, 1 + (z * z) / n];
  const middle = (p + (z * z) / (2 * n)) / d;
  const half = (z * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n))) / d;
  return [middle - half, middle + half];
}
const likeliest = (probabilities: readonly number[]): number => probabilities.indexOf(Math.max(...probabilities));

type Search = (
  read: (at: number) => number,
  capacitors: number,
  random: () => number,
) => { readonly found: number; readonly readings: number; readonly sure?: number };

const adaptive =
  (most: number, stop = 1.1): Search =>
  (read, capacitors, random) => {
    const readings: WalkReading[] = [];
    let probabilities = walkProbabilities(capacitors, readings);
    while (readings.length < most && Math.max(...probabilities) < stop) {
      const { at } = nextPoint(capacitors, readings, random, usualWalk);
      readings.push({ at, ohms: read(at) });
      probabilities = walkProbabilities(capacitors, readings);
    }
    return { found: likeliest(probabilities), readings: readings.length, sure: Math.max(...probabilities) };
  };
const lowestOf =
  (count: number): Search =>
  (read, capacitors) => {
    const at = Array.from({ length: count }, (_, index) => Math.round((index * (capacitors - 1)) / (count - 1)));
    const ohms = at.map(read);
    return { found: at[ohms.indexOf(Math.min(...ohms))] ?? 0, readings: count };
  };
/** Kiefer's search for the minimum of a row that falls and rises, on whole places. */
const golden =
  (most: number): Search =>
  (read, capacitors) => {
    const known = new Map<number, number>();
    const of = (at: number): number => {
      const before = known.get(at);
      if (before !== undefined || known.size >= most) return before ?? Infinity;
      known.set(at, read(at));
      return known.get(at) ?? Infinity;
    };
    let [low, high] = [0, capacitors - 1];
    while (high - low > 1 && known.size < most) {
      const left = Math.round(high - (high - low) / 1.618);
      const right = Math.max(left + 1, Math.round(low + (high - low) / 1.618));
      if (of(left) < of(right)) high = right - (right - left > 1 ? 0 : 1);
      else low = left + (right - left > 1 ? 0 : 1);
      if (known.size >= most) break;
    }
    const best = [...known].reduce((a, b) => (b[1] < a[1] ? b : a), [0, Infinity]);
    return { found: best[0], readings: known.size };
  };

/** `worse`: the meter's real error over what it states. */
const settings: readonly { readonly name: string; readonly capacitors: number; readonly search: Search; readonly worse?: number }[] = [
  { name: 'adaptive, 24 capacitors, 6 readings', capacitors: 24, search: adaptive(6) },
  { name: 'adaptive, 24 capacitors, stops at 95 %', capacitors: 24, search: adaptive(24, 0.95) },
  { name: 'adaptive, 24, stops at 95 %, meter twice as bad as stated', capacitors: 24, search: adaptive(24, 0.95), worse: 2 },
  { name: 'adaptive, 12 capacitors, 6 readings', capacitors: 12, search: adaptive(6) },
  { name: 'golden section, 24 capacitors, 6 readings', capacitors: 24, search: golden(6) },
  { name: 'lowest of 6, 24 capacitors', capacitors: 24, search: lowestOf(6) },
  { name: 'lowest of 24, 24 capacitors', capacitors: 24, search: lowestOf(24) },
];

const rows = settings.map(({ name, capacitors, search, worse = 1 }) => {
  let [right, readings, sure, slowest] = [0, 0, 0, 0];
  for (let seed = 1; seed <= rails; seed += 1) {
    const random = numbers(seed);
    const rail = drawRail(capacitors, 1, random);
    const stated = drawMeter(random);
    const meter = { noise: stated.noise * worse, driftOhms: stated.driftOhms * worse };
    const truth = ohmsAlong(rail);
    const begin = performance.now();
    const found = search((at) => readWith(meter, truth[at] ?? 0, random), capacitors, random);
    slowest = Math.max(slowest, (performance.now() - begin) / found.readings);
    if (found.found === rail.shorts[0]?.at) right += 1;
    readings += found.readings;
    sure += found.sure ?? 0;
  }
  const [low, high] = interval(right, rails);
  const fixed = (value: number): number => Number(value.toFixed(3));
  return {
    name,
    right: fixed(right / rails),
    low: fixed(low),
    high: fixed(high),
    readings: fixed(readings / rails),
    said: fixed(sure / rails),
    slowestMs: Math.round(slowest),
  };
});
/** Two shorts or one, all of 16 capacitors read: both named where two are likelier than one; and two said where there is one. */
function twoOrOne() {
  let [both, alarms, slowest] = [0, 0, 0];
  const top = (all: readonly number[]): number => all.indexOf(Math.max(...all));
  for (let seed = 1; seed <= rails; seed += 1)
    for (const shorts of [1, 2] as const) {
      const random = numbers(seed * 2 + shorts);
      const rail = drawRail(16, shorts, random);
      const meter = drawMeter(random);
      const readings = ohmsAlong(rail).map((ohms, at) => ({ at, ohms: readWith(meter, ohms, random) }));
      const begin = performance.now();
      const { factor, first, second } = twoShorts(16, readings);
      slowest = Math.max(slowest, performance.now() - begin);
      const truth = rail.shorts.map(({ at }) => at).sort((a, b) => a - b);
      if (factor > 1 && shorts === 1) alarms += 1;
      if (factor > 1 && shorts === 2 && top(first) === truth[0] && top(second) === truth[1]) both += 1;
    }
  const of = (hits: number) => [hits / rails, ...interval(hits, rails)].map((one) => Number(one.toFixed(3)));
  return { both: of(both), falseAlarm: of(alarms), slowestMs: Math.round(slowest) };
}
const two = twoOrOne();
console.table(rows);
console.log(two);
writeFileSync(inRoot('bench/results/short.json'), `${JSON.stringify({ rails, rows, two }, null, 2)}\n`);
