/**
 * Local straight lines under a two-sided exponential weight, for samples at any times. O(n): sums of weight, weight x time and so on
 * are carried forward and backward and shifted with the clock (local linear regression; Fan and Gijbels, 1996, chapter 2).
 */

// Taken once: looked up millions of times, and slow to find where a test runs in a context of its own.
const { exp } = Math;

/** At each sample the fitted line's value; `timeConstantS` is the distance at which a sample weighs 1/e. */
export class Smoother {
  readonly #times: Float64Array;
  readonly #decay: Float64Array;
  /** Sums of weight, weight x u and weight x u squared about each sample, both sides. */
  readonly #m0: Float64Array;
  readonly #m1: Float64Array;
  readonly #m2: Float64Array;

  constructor(times: Float64Array, timeConstantS: number) {
    const n = times.length;
    this.#times = times;
    this.#decay = new Float64Array(n);
    for (let i = 1; i < n; i++) this.#decay[i] = exp(-((times[i] ?? 0) - (times[i - 1] ?? 0)) / timeConstantS);
    this.#m0 = new Float64Array(n);
    this.#m1 = new Float64Array(n);
    this.#m2 = new Float64Array(n);
    const ones = new Float64Array(n).fill(1);
    this.#sweep(ones, (i, s0, s1, s2) => {
      this.#m0[i] = (this.#m0[i] ?? 0) + s0;
      this.#m1[i] = (this.#m1[i] ?? 0) + s1;
      this.#m2[i] = (this.#m2[i] ?? 0) + s2;
    });
  }

  /** Calls back twice for each sample: with the sums of what lies behind it (itself included), and of what lies ahead. */
  #sweep(values: Float64Array, take: (index: number, s0: number, s1: number, s2: number) => void): void {
    const n = values.length;
    const times = this.#times;
    let s0 = 0;
    let s1 = 0;
    let s2 = 0;
    for (let i = 0; i < n; i++) {
      if (i > 0) {
        const decay = this.#decay[i] ?? 0;
        const dt = (times[i] ?? 0) - (times[i - 1] ?? 0);
        s2 = decay * (s2 - 2 * dt * s1 + dt * dt * s0);
        s1 = decay * (s1 - dt * s0);
        s0 *= decay;
      }
      s0 += values[i] ?? 0;
      take(i, s0, s1, s2);
    }
    s0 = s1 = s2 = 0;
    for (let i = n - 2; i >= 0; i--) {
      s0 += values[i + 1] ?? 0;
      const decay = this.#decay[i + 1] ?? 0;
      const dt = (times[i + 1] ?? 0) - (times[i] ?? 0);
      s2 = decay * (s2 + 2 * dt * s1 + dt * dt * s0);
      s1 = decay * (s1 + dt * s0);
      s0 *= decay;
      take(i, s0, s1, s2);
    }
  }

  apply(values: Float64Array): Float64Array {
    const n = values.length;
    const y0 = new Float64Array(n);
    const y1 = new Float64Array(n);
    this.#sweep(values, (i, s0, s1) => {
      y0[i] = (y0[i] ?? 0) + s0;
      y1[i] = (y1[i] ?? 0) + s1;
    });
    for (let i = 0; i < n; i++) {
      const [m0, m1, m2] = [this.#m0[i] ?? 0, this.#m1[i] ?? 0, this.#m2[i] ?? 0];
      const det = m0 * m2 - m1 * m1;
      // Where all weight is on one instant there is no slope to fit: the mean.
      y0[i] = det > 1e-9 * m0 * m0 ? (m2 * (y0[i] ?? 0) - m1 * (y1[i] ?? 0)) / det : (y0[i] ?? 0) / m0;
    }
    return y0;
  }
}
