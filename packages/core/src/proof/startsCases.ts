/** What starts that were counted say: written before the arithmetic, from the exact binomial and rank distributions. */

/** n starts, none of which failed: with 95 % confidence at most this share fails (Clopper and Pearson 1934: 1 - 0.05^(1/n)). */
export const boundCases = [
  [1, 0, 0.95],
  [2, 0, 0.776],
  [5, 0, 0.451],
  [10, 0, 0.259],
  [29, 0, 0.098],
  // One of ten failed: the upper end of the one-sided interval, by tables 0.394.
  [10, 1, 0.394],
] as const;

/** Seconds before and after; the chance that the after starts are all the faster ones by luck alone (rank sum, exact). */
export const delayCases = [
  // All four after are faster than all four before: one arrangement of 70.
  { before: [40, 45, 60, 38], after: [5, 6, 5.5, 7], medians: [42.5, 5.75], byChance: 1 / 70 },
  // Three and three, all apart: one of 20.
  { before: [30, 31, 40], after: [6, 5, 7], medians: [31, 6], byChance: 1 / 20 },
  // No difference: about as likely as not.
  { before: [5, 7], after: [6, 8], medians: [6, 7], byChance: 5 / 6 },
] as const;
