/** What a quote is made of, from what the job has taken and what is still to come. */
import type { BodyOf } from '../ledger/index.ts';
import { labourMinor } from './tax.ts';

/** What is known when somebody asks for a price; amounts in minor units of one currency. */
export interface QuoteFacts {
  readonly option: NonNullable<BodyOf<'quote.answered'>['option']>;
  /** Hands-on, so far and to come. */
  readonly minutesSpent: number;
  readonly minutesToCome: number;
  /** Parts fitted, on order or wanted. */
  readonly parts: readonly { readonly assembly: string; readonly number?: string; readonly amountMinor: number }[];
  readonly rateMinorPerHour: number;
  readonly diagnosticFeeMinor: number;
  readonly currency: string;
}
type Line = NonNullable<BodyOf<'quote.sent'>['lines']>[number];

/** Labour is quoted by the quarter of an hour begun, as a bench does (value of ours). */
const quotedMinutes = 15;

/** Lines, in order. A set that goes back, or is only looked at, costs the diagnostic fee. */
export function quoteLines({
  option,
  minutesSpent,
  minutesToCome,
  parts,
  rateMinorPerHour,
  diagnosticFeeMinor,
  currency,
}: QuoteFacts): Line[] {
  if (option === 'hand-back' || option === 'diagnose-only')
    return diagnosticFeeMinor === 0 ? [] : [{ what: 'diagnostic-fee', amount: { amountMinor: diagnosticFeeMinor, currency } }];
  // A ten-thousandth of a minute over a quarter is arithmetic, no work.
  const minutes = Math.ceil((minutesSpent + minutesToCome) / quotedMinutes - 1e-4) * quotedMinutes;
  return [
    ...(minutes === 0
      ? []
      : [{ what: 'labour' as const, minutes, amount: { amountMinor: labourMinor(minutes, rateMinorPerHour), currency } }]),
    ...parts.map(({ assembly, number, amountMinor }): Line => ({
      what: 'part',
      assembly,
      ...(number === undefined ? {} : { number }),
      amount: { amountMinor, currency },
    })),
  ];
}
