/**
 * Tax of amounts in minor units. Rule: amounts of one rate are added first, and the tax of the sum is rounded once, half away from zero,
 * to the minor unit; net and tax then add up to the total to the last one. big.js counts in decimal, so that no amount is ever a float.
 */
import Big from 'big.js';

/** An amount and its rate: minor units, and hundredths of a percent. */
export interface Taxed {
  readonly amountMinor: number;
  readonly basisPoints: number;
}
/** One rate of a bill, minor units. */
export interface TaxOfRate {
  readonly basisPoints: number;
  readonly net: number;
  readonly tax: number;
  readonly total: number;
}
/** A bill’s sums, minor units; rates from the highest down. */
export interface TaxSums {
  readonly net: number;
  readonly tax: number;
  readonly total: number;
  readonly rates: readonly TaxOfRate[];
}

const whole = 10_000;
const halfAwayFromZero = 1;

/** `held`: the amounts hold their tax; otherwise it comes on top. */
export function taxOf(lines: readonly Taxed[], held: boolean): TaxSums {
  const sums = new Map<number, Big>();
  for (const { amountMinor, basisPoints } of lines) sums.set(basisPoints, (sums.get(basisPoints) ?? new Big(0)).plus(amountMinor));
  const rates = [...sums]
    .sort(([a], [b]) => b - a)
    .map(([basisPoints, sum]): TaxOfRate => {
      const tax = sum
        .times(basisPoints)
        .div(held ? whole + basisPoints : whole)
        .round(0, halfAwayFromZero);
      const [net, total] = held ? [sum.minus(tax), sum] : [sum, sum.plus(tax)];
      // Adding zero makes of −0, which a tax of nothing below zero would be, a plain 0.
      return { basisPoints, net: net.toNumber() + 0, tax: tax.toNumber() + 0, total: total.toNumber() + 0 };
    });
  const add = (of: 'net' | 'tax' | 'total'): number => rates.reduce((sum, one) => sum + one[of], 0);
  return { net: add('net'), tax: add('tax'), total: add('total'), rates };
}

/** What so many minutes cost at an hourly rate, rounded half away from zero to the minor unit. */
export const labourMinor = (minutes: number, rateMinorPerHour: number): number =>
  new Big(minutes).times(rateMinorPerHour).div(60).round(0, halfAwayFromZero).toNumber();
