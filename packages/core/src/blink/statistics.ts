/** What the reader needs of statistics. */

/** NaN of nothing. */
export const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length === 0
    ? Number.NaN
    : sorted.length % 2 === 1
      ? (sorted[middle] ?? 0)
      : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2;
};
/** Standard deviation by the median absolute deviation, 1.4826 for normal errors. */
export const spread = (values: readonly number[], about: number): number => 1.4826 * median(values.map((value) => Math.abs(value - about)));
/** Whether two codes have the same flashes in the same groups. */
export const sameCounts = (a: readonly number[], b: readonly number[]): boolean => a.length === b.length && a.every((n, i) => n === b[i]);
