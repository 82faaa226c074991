/**
 * `npm run bench:blink [-- --quick]`: how well the reader reads, on lights made by a generator that knows nothing of it; a fixed threshold
 * and a peak counter read the same traces in the same run. A table, and bench/results/blink.json. About twelve minutes; --quick one.
 */
import { readTaps, readTrace } from '@veglia/core';
import { writeFileSync } from 'node:fs';
import os from 'node:os';
import { quantile } from '../diagnosis/statistics.ts';
import { peakCount, thresholdCount } from './baselines.ts';
import { blinkingLight, tapsAlong, type Level, type Shape, type Told } from './generator.ts';

const quick = process.argv.includes('--quick');
const perLevel = quick ? 240 : 2400;
const seed = 20261125;
const shapes: readonly Shape[] = ['plain', 'plain', 'grouped', 'grouped', 'coloured', 'two-colours', 'long-short', 'plain'];
const rates = [10, 15, 25, 30, 60];
const levels: readonly Level[] = ['light', 'moderate', 'heavy'];

/** Wilson's interval for a share, 95 %. */
function wilson(hits: number, n: number): { value: number; least: number; most: number } {
  const z = 1.96;
  const share = hits / n;
  const middle = (share + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z * Math.sqrt((share * (1 - share)) / n + (z * z) / (4 * n * n))) / (1 + (z * z) / n);
  return { value: share, least: middle - half, most: middle + half };
}
const told = ({ value, least, most }: ReturnType<typeof wilson>): string =>
  `${(100 * value).toFixed(2)} % [${(100 * least).toFixed(2)}, ${(100 * most).toFixed(2)}]`;
const same = (a: readonly number[] | undefined, b: readonly number[]): boolean => a !== undefined && a.join('-') === b.join('-');

interface Tally {
  n: number;
  right: number;
  sure: number;
  wrongSure: number;
  threshold: number;
  peaks: number;
}
const blank = (): Tally => ({ n: 0, right: 0, sure: 0, wrongSure: 0, threshold: 0, peaks: 0 });
const tallies = new Map<string, Tally>();
function count(keys: readonly string[], one: Told, groups: readonly number[] | undefined, sure: boolean): void {
  const right = same(groups, one.groups);
  const byThreshold = same(thresholdCount(one.trace), one.groups);
  const byPeaks = same(peakCount(one.trace), one.groups);
  for (const key of keys) {
    const tally = tallies.get(key) ?? blank();
    tallies.set(key, tally);
    tally.n += 1;
    tally.right += Number(right);
    tally.sure += Number(sure);
    tally.wrongSure += Number(sure && !right);
    tally.threshold += Number(byThreshold);
    tally.peaks += Number(byPeaks);
  }
}

for (const level of levels) {
  for (let i = 0; i < perLevel; i++) {
    const shape = shapes[i % shapes.length] ?? 'plain';
    const fps = rates[Math.floor(i / shapes.length) % rates.length] ?? 30;
    const one = blinkingLight(seed + 7919 * i + levels.indexOf(level) * 1_000_003, level, shape, fps);
    const result = readTrace(one.trace);
    const reading = 'refused' in result ? undefined : result.reading;
    count([level, `${level}, ${shape}`, `${level}, ${fps} fps`], one, reading?.groups, reading?.sure ?? false);
  }
}
// What is seen once only, apart: one cycle can't be sure.
for (const shape of ['then-steady', 'then-dark'] as const) {
  for (let i = 0; i < perLevel / 8; i++) {
    const one = blinkingLight(seed + 104_729 * i, 'light', shape, rates[i % rates.length] ?? 30);
    const result = readTrace(one.trace);
    const reading = 'refused' in result ? undefined : result.reading;
    count([`light, ${shape}`], one, reading?.groups, reading?.sure ?? false);
  }
}
for (let i = 0; i < perLevel; i++) {
  const shape = shapes[i % 4] ?? 'plain';
  const one = blinkingLight(seed + 15_485_863 + 31 * i, 'light', shape, 30);
  const taps = tapsAlong(one, i, 0.06, 0.02, 0.005);
  const { reading } = readTaps(
    taps.map((atS) => ({ atS })),
    one.untilS,
  );
  count([`taps, ${shape}`, 'taps'], one, reading?.groups, reading?.sure ?? false);
}

// A minute at 60 frames a second, after the first few have warmed the code up.
const times: number[] = [];
for (let i = 0; i < (quick ? 12 : 60); i++) {
  const { trace } = blinkingLight(seed + i, 'moderate', 'plain', 60, 60);
  const began = performance.now();
  readTrace(trace);
  if (i >= 4) times.push(performance.now() - began);
}
const milliseconds = { median: quantile(times, 0.5), p95: quantile(times, 0.95), n: times.length };

const rows = [...tallies].map(([name, t]) => ({
  name,
  n: t.n,
  right: wilson(t.right, t.n),
  sure: t.sure / t.n,
  wrongButSure: wilson(t.wrongSure, t.n),
  fixedThreshold: t.threshold / t.n,
  peakCounter: t.peaks / t.n,
}));
console.table(
  rows.map((row) => ({
    traces: row.name,
    n: row.n,
    right: told(row.right),
    sure: `${(100 * row.sure).toFixed(1)} %`,
    'wrong but sure': told(row.wrongButSure),
    'fixed threshold': `${(100 * row.fixedThreshold).toFixed(1)} %`,
    'peak counter': `${(100 * row.peakCounter).toFixed(1)} %`,
  })),
);
console.log(
  `a minute at 60 frames a second: median ${milliseconds.median.toFixed(1)} ms, p95 ${milliseconds.p95.toFixed(1)} ms of ${milliseconds.n}`,
);
const [cpu] = os.cpus();
const file = new URL(`../results/blink${quick ? '-quick' : ''}.json`, import.meta.url);
writeFileSync(
  file,
  `${JSON.stringify({ at: new Date().toISOString(), machine: { cpus: os.cpus().length, model: cpu?.model, node: process.version }, seed, rows, milliseconds }, null, 2)}\n`,
);
