/** Bayes' rule over a finite list of hypotheses, in logarithms so that many small factors don't underflow. */

/** Normalised posterior for priors and log-likelihoods of equal length; priors need not sum to 1. */
export function posterior(priors: readonly number[], logLikelihoods: readonly (readonly number[])[]): number[] {
  const logs = priors.map((prior, index) => logLikelihoods.reduce((sum, one) => sum + (one[index] ?? 0), Math.log(prior)));
  return softmax(logs);
}

/** Weights from logarithms, summing to 1; all 0 where nothing is possible. */
export function softmax(logs: readonly number[]): number[] {
  const highest = Math.max(...logs);
  if (highest === Number.NEGATIVE_INFINITY) return logs.map(() => 0);
  const weights = logs.map((log) => Math.exp(log - highest));
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.map((weight) => weight / total);
}

/** Shannon entropy in bits. */
export function entropyBits(probabilities: readonly number[]): number {
  return probabilities.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0);
}

/** Odds nearer to 0 or 1 than this are the same to a bench; keeps log-odds finite. */
const surest = 1e-12;

/** Natural log-odds, clamped to about ±27.6. */
export function logOdds(p: number): number {
  const clamped = Math.min(1 - surest, Math.max(surest, p));
  return Math.log(clamped / (1 - clamped));
}

/** Ranking compares after rounding, so that browser, server and command line agree in the last digit. */
export function rounded(value: number): number {
  return Math.round(value * 1e9) / 1e9;
}
