/** How far a counted share may be off. */

/** Standard normal deviate of 95 % both-sided (1.96 in every table). */
const z = 1.959963984540054;

/**
 * Wilson's score interval of k of n at 95 % (E. B. Wilson 1927, Journal of the American Statistical Association 22, 209-212). Shares,
 * 0 to 1; the whole range where nothing was counted. Throws RangeError where k isn't between 0 and n.
 */
export function shareInterval(k: number, n: number): { readonly low: number; readonly high: number } {
  if (!(k >= 0 && k <= n)) throw new RangeError(`${k} of ${n}`);
  if (n === 0) return { low: 0, high: 1 };
  const share = k / n;
  const middle = share + z ** 2 / (2 * n);
  const half = z * Math.sqrt((share * (1 - share)) / n + z ** 2 / (4 * n ** 2));
  const scale = 1 + z ** 2 / n;
  return { low: k === 0 ? 0 : (middle - half) / scale, high: k === n ? 1 : (middle + half) / scale };
}
