/** Means with 95 % intervals (normal approximation), and ratios of paired sums by the delta method. */
export interface Estimate {
  readonly value: number;
  readonly least: number;
  readonly most: number;
}

const z95 = 1.96;

export function mean(values: readonly number[]): Estimate {
  const n = values.length;
  const value = values.reduce((a, b) => a + b, 0) / Math.max(1, n);
  const variance = values.reduce((sum, one) => sum + (one - value) ** 2, 0) / Math.max(1, n - 1);
  const half = z95 * Math.sqrt(variance / Math.max(1, n));
  return { value, least: value - half, most: value + half };
}

/** Σa / Σb of paired values. */
export function ratio(a: readonly number[], b: readonly number[]): Estimate {
  const n = a.length;
  const total = b.reduce((x, y) => x + y, 0);
  const value = a.reduce((x, y) => x + y, 0) / total;
  const residuals = a.map((one, index) => one - value * (b[index] ?? 0));
  const variance = residuals.reduce((sum, one) => sum + one ** 2, 0) / Math.max(1, n - 1);
  const half = (z95 * Math.sqrt(variance * n)) / total;
  return { value, least: value - half, most: value + half };
}

export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
}

export const shown = ({ value, least, most }: Estimate, digits = 3): string =>
  `${value.toFixed(digits)} [${least.toFixed(digits)}, ${most.toFixed(digits)}]`;
