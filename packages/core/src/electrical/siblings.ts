/**
 * Parts that should read alike, and the one that doesn't. Each is good or odd; the good ones lie around a common value with a spread that isn't
 * known, an odd one lies anywhere. Summed over every way in which some are odd (normal with conjugate inverse-gamma spread: textbook), on a logarithmic
 * scale for ohms.
 */

/** Read alike, or one is odd, or that can’t be told. */
export interface OddOneOut {
  /** Probability of each to be the odd one. */
  readonly odd: readonly number[];
  /** Probability that all are alike. */
  readonly alike: number;
  readonly verdict: 'odd' | 'alike' | 'unsure';
  /** Index of it. */
  readonly which?: number;
  /** How far it is from the middle of the others: a factor for ohms, a difference for all else. */
  readonly apart?: number;
}

/** Fewer can’t tell which is odd; with more, every way costs too much. */
export const fewestSiblings = 3;
export const mostSiblings = 14;

/** How good parts spread, and how far an odd one may be (values of ours): natural logarithm for ohms, share of the middle for volts, kelvin. */
const worlds = {
  ohms: { spread: 0.2, width: 23 },
  volts: { spread: 0.03, width: 3 },
  celsius: { spread: 0.6, width: 60 },
} as const;
/** Before anything is read, a part that is suspected at all is odd so often (value of ours). */
const oddBefore = 0.15;
/** From here on it is said; below, it can’t be told. */
const sureEnough = 0.8;
/** Weight of what is known of the spread before, in observations. */
const shape = 1;
/** A short reads as so many ohms at least: a logarithm needs more than nothing. */
const leastOhms = 1e-3;

const logGammas = new Map<number, number>();
/** Logarithm of the gamma function at halves and wholes, by recursion from 1/2 and 1. */
function logGamma(x: number): number {
  const known = logGammas.get(x);
  if (known !== undefined) return known;
  const value = x === 1 ? 0 : x === 0.5 ? Math.log(Math.PI) / 2 : Math.log(x - 1) + logGamma(x - 1);
  logGammas.set(x, value);
  return value;
}

const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length / 2;
  return sorted.length % 2 === 1 ? (sorted[Math.floor(half)] ?? 0) : ((sorted[half - 1] ?? 0) + (sorted[half] ?? 0)) / 2;
};

/** Ohms, volts or °C. Throws RangeError for fewer than three, more than fourteen, or an ohm value below 0. */
export function oddOneOut(values: readonly number[], quantity: keyof typeof worlds): OddOneOut {
  const n = values.length;
  if (n < fewestSiblings || n > mostSiblings) throw new RangeError(`${n} values: ${fewestSiblings} to ${mostSiblings}`);
  if (quantity === 'ohms' && values.some((one) => one < 0)) throw new RangeError('ohms below 0');
  const { spread, width } = worlds[quantity];
  const scale = quantity === 'volts' ? Math.abs(middle(values)) || 1 : 1;
  const x = values.map((one) => (quantity === 'ohms' ? Math.log(Math.max(one, leastOhms)) : one / scale));
  const rate = shape * spread * spread;
  /** Logarithm of how likely these values are as good ones. */
  const good = (own: readonly number[]): number => {
    const m = own.length;
    const mean = own.reduce((sum, one) => sum + one, 0) / m;
    const squares = own.reduce((sum, one) => sum + (one - mean) ** 2, 0);
    const freedom = (m - 1) / 2;
    return (
      -Math.log(width) -
      freedom * Math.log(2 * Math.PI) -
      Math.log(m) / 2 +
      logGamma(shape + freedom) -
      logGamma(shape) +
      shape * Math.log(rate) -
      (shape + freedom) * Math.log(rate + squares / 2)
    );
  };
  const ways: { readonly odd: number; readonly log: number }[] = [];
  for (let odd = 0; odd < 2 ** n; odd += 1) {
    const own = x.filter((_, index) => ((odd >> index) & 1) === 0);
    // One alone is alike to nothing.
    if (own.length === 1) continue;
    const bad = n - own.length;
    const log = bad * Math.log(oddBefore / width) + own.length * Math.log(1 - oddBefore) + (own.length === 0 ? 0 : good(own));
    ways.push({ odd, log });
  }
  const most = Math.max(...ways.map(({ log }) => log));
  const total = ways.reduce((sum, { log }) => sum + Math.exp(log - most), 0);
  const share = (of: (odd: number) => boolean): number =>
    ways.reduce((sum, { odd, log }) => (of(odd) ? sum + Math.exp(log - most) : sum), 0) / total;
  const odd = x.map((_, index) => share((one) => ((one >> index) & 1) === 1));
  const alike = share((one) => one === 0);
  const which = odd.findIndex((one) => one >= sureEnough);
  const others = odd.filter((one, index) => index !== which && one > 1 - sureEnough);
  if (which < 0 || others.length > 0) return { odd, alike, verdict: alike >= sureEnough ? 'alike' : 'unsure' };
  const rest = middle(values.filter((_, index) => index !== which));
  const own = values[which] ?? 0;
  return { odd, alike, verdict: 'odd', which, apart: quantity === 'ohms' ? Math.max(own, leastOhms) / rest : own - rest };
}
