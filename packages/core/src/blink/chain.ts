/** Two states in time, lit and dark: the chain between them (forward-backward; Rabiner, 1989), and where two heaps of levels part. */
// Taken once: looked up millions of times, and slow to find where a test runs in a context of its own.
const { exp, floor, log, max, min } = Math;

/** How long a state of a blinking light typically lasts, seconds: only a beginning, the levels decide. */
const dwellS = 0.3;

/** The value, or the bound it is beyond. */
export const clamp = (value: number, low: number, high: number): number => min(high, max(low, value));

/** The value at share `q` (0 to 1) of values in rising order, interpolated linearly; 0 for none. Any unit. */
export function quantile(sorted: ArrayLike<number>, q: number): number {
  const at = (sorted.length - 1) * q;
  const low = floor(at);
  const a = sorted[low] ?? 0;
  return a + ((sorted[low + 1] ?? a) - a) * (at - low);
}

/** The split of a list in two that leaves least variance within (Otsu, 1979), on 64 steps between the 1st and the 99th percent. */
export function otsuThreshold(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values).sort();
  const low = quantile(sorted, 0.01);
  const high = quantile(sorted, 0.99);
  if (!(high > low)) return high;
  const bins = 64;
  const counts = new Float64Array(bins);
  for (const value of sorted) {
    const bin = clamp(floor(((value - low) / (high - low)) * bins), 0, bins - 1);
    counts[bin] = (counts[bin] ?? 0) + 1;
  }
  let total = 0;
  let sum = 0;
  counts.forEach((count, bin) => {
    total += count;
    sum += count * bin;
  });
  let best = -1;
  let at = 0;
  let behind = 0;
  let sumBehind = 0;
  counts.forEach((count, bin) => {
    behind += count;
    sumBehind += count * bin;
    const ahead = total - behind;
    if (behind === 0 || ahead === 0) return;
    const difference = sumBehind / behind - (sum - sumBehind) / ahead;
    const between = behind * ahead * difference * difference;
    if (between > best) {
      best = between;
      at = bin;
    }
  });
  return low + ((at + 1) / bins) * (high - low);
}

/** Chances of being lit from each sample's log odds, and the log likelihood against all dark. `stay`: chance of no change since the last. */
export function forwardBackward(evidence: Float64Array, stay: Float64Array): { lit: Float64Array; logLikelihood: number } {
  const n = evidence.length;
  const forward = new Float64Array(n);
  let logLikelihood = 0;
  let a = 0.5;
  for (let i = 0; i < n; i++) {
    const same = stay[i] ?? 0.5;
    // Held against a light that stays dark in the same chain.
    logLikelihood -= log(i === 0 ? 0.5 : same);
    const before = i === 0 ? 0.5 : a * same + (1 - a) * (1 - same);
    const e = exp(clamp(evidence[i] ?? 0, -60, 60));
    const total = before * e + (1 - before);
    logLikelihood += log(total);
    a = (before * e) / total;
    forward[i] = a;
  }
  const lit = new Float64Array(n);
  lit[n - 1] = forward[n - 1] ?? 0;
  let probability = 1;
  for (let i = n - 2; i >= 0; i--) {
    const same = stay[i + 1] ?? 0.5;
    const e = exp(clamp(evidence[i + 1] ?? 0, -60, 60));
    // Ratio of what follows given lit to the same given dark.
    probability = clamp((same * e * probability + (1 - same)) / ((1 - same) * e * probability + same), 1e-26, 1e26);
    const f = forward[i] ?? 0;
    lit[i] = (f * probability) / (f * probability + (1 - f));
  }
  return { lit, logLikelihood };
}

/** Chance that a light of two states hasn't changed between two samples, and the usual time between them. */
export function pace(times: Float64Array): { stay: Float64Array; frameS: number } {
  const stay = new Float64Array(times.length).fill(0.5);
  const steps = new Float64Array(max(0, times.length - 1));
  for (let i = 1; i < times.length; i++) {
    const dt = (times[i] ?? 0) - (times[i - 1] ?? 0);
    steps[i - 1] = dt;
    stay[i] = clamp((1 + exp((-2 * dt) / dwellS)) / 2, 0.5, 1 - 1e-6);
  }
  return { stay, frameS: quantile(steps.sort(), 0.5) };
}
