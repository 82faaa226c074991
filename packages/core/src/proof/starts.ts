/** What repeated starts say of the next one: how often it may still fail, and whether it starts sooner than before. */

/** Confidence of the bound. */
const confidence = 0.95;
/** More arrangements than this are not counted: with so many starts the medians say it. */
const mostStarts = 16;

/** The largest share of failing starts that `failed` of `starts` still allow, one-sided (Clopper and Pearson 1934). Throws RangeError. */
export function failureBound(starts: number, failed: number): number {
  if (!(Number.isInteger(starts) && Number.isInteger(failed) && failed >= 0 && failed <= starts && starts > 0))
    throw new RangeError('starts');
  if (failed === starts) return 1;
  const atMost = (p: number): number => {
    let [sum, term] = [0, (1 - p) ** starts];
    for (let k = 0; k <= failed; k += 1) {
      sum += term;
      term *= ((starts - k) / (k + 1)) * (p / (1 - p));
    }
    return sum;
  };
  let [low, high] = [0, 1];
  for (let step = 0; step < 60; step += 1) {
    const middle = (low + high) / 2;
    if (atMost(middle) > 1 - confidence) low = middle;
    else high = middle;
  }
  return high;
}

/** Starts before the repair and since, seconds. */
export interface DelaysCompared {
  readonly medians: readonly [before: number, after: number];
  /** Probability that so many of the faster ones are since the repair if it changed nothing (rank sum, exact); undefined: too many to count. */
  readonly byChance?: number;
}
/** Undefined where there is none of one kind. */
export function delaysCompared(before: readonly number[], after: readonly number[]): DelaysCompared | undefined {
  if (before.length === 0 || after.length === 0) return undefined;
  const medians = [median(before), median(after)] as const;
  const all = [...before, ...after];
  if (all.length > mostStarts) return { medians };
  const ranks = all.map((one) => all.filter((other) => other < one).length + (all.filter((other) => other === one).length + 1) / 2);
  const reached = ranks.slice(before.length).reduce((sum, one) => sum + one, 0);
  let [arrangements, asLow] = [0, 0];
  const choose = (from: number, left: number, sum: number): void => {
    if (left === 0) {
      arrangements += 1;
      if (sum <= reached + 1e-9) asLow += 1;
      return;
    }
    for (let at = from; at <= ranks.length - left; at += 1) choose(at + 1, left - 1, sum + (ranks[at] ?? 0));
  };
  choose(0, after.length, 0);
  return { medians, byChance: asLow / arrangements };
}
function median(values: readonly number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  const middle = sorted.length / 2;
  return ((sorted[Math.ceil(middle) - 1] ?? 0) + (sorted[Math.floor(middle)] ?? 0)) / 2;
}
