/** Two plain ways to count, on the same traces: half way between the extremes, and peaks over a running mean. */
import type { Trace } from './generator.ts';

/** Runs of flashes by a pause of more than twice the median gap; the count that most runs have. */
function countOf(onsets: readonly number[]): number[] | undefined {
  const gaps = onsets.slice(1).map((t, i) => t - (onsets[i] ?? 0));
  if (gaps.length === 0) return undefined;
  const pause = 1.6 * ([...gaps].sort((a, b) => a - b)[gaps.length >> 1] ?? 0);
  const runs = [1];
  for (const gap of gaps) {
    if (gap > pause) runs.push(1);
    else runs[runs.length - 1] = (runs.at(-1) ?? 0) + 1;
  }
  const votes = new Map<number, number>();
  for (const run of runs.length > 2 ? runs.slice(1, -1) : runs) votes.set(run, (votes.get(run) ?? 0) + 1);
  const [best] = [...votes].sort((a, b) => b[1] - a[1]);
  return best ? [best[0]] : undefined;
}

export function thresholdCount({ timesS, levels }: Trace): number[] | undefined {
  const low = levels.reduce((a, b) => Math.min(a, b), Infinity);
  const high = levels.reduce((a, b) => Math.max(a, b), -Infinity);
  const middle = (low + high) / 2;
  return countOf(timesS.filter((_, i) => i > 0 && (levels[i] ?? 0) > middle && (levels[i - 1] ?? 0) <= middle));
}

export function peakCount({ timesS, levels }: Trace): number[] | undefined {
  const n = levels.length;
  const half = 2;
  const smooth = levels.map((_, i) => {
    let sum = 0;
    let k = 0;
    for (let j = Math.max(0, i - half); j <= Math.min(n - 1, i + half); j++, k++) sum += levels[j] ?? 0;
    return sum / k;
  });
  const mean = smooth.reduce((a, b) => a + b, 0) / n;
  const spread = Math.sqrt(smooth.reduce((a, b) => a + (b - mean) ** 2, 0) / n);
  const onsets: number[] = [];
  smooth.forEach((level, i) => {
    const peak = level > mean + 0.5 * spread && level >= (smooth[i - 1] ?? -Infinity) && level > (smooth[i + 1] ?? -Infinity);
    const t = timesS[i] ?? 0;
    if (peak && t - (onsets.at(-1) ?? -1) > 0.12) onsets.push(t);
  });
  return countOf(onsets);
}
