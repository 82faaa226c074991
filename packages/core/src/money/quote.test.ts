import { expect, test } from '@jest/globals';
import { quoteLines, type QuoteFacts } from './index.ts';

const facts: QuoteFacts = {
  option: 'repair',
  minutesSpent: 40,
  minutesToCome: 25,
  parts: [{ assembly: 'power', number: 'PW-1', amountMinor: 4800 }],
  rateMinorPerHour: 4800,
  diagnosticFeeMinor: 2500,
  currency: 'EUR',
};
const linesOf = (change: Partial<QuoteFacts>) =>
  quoteLines({ ...facts, ...change }).map(({ what, amount, minutes }) => [what, minutes, amount.amountMinor]);

// Common practice, no source; amounts by hand at 48.00 an hour.
test.each<[string, Partial<QuoteFacts>, unknown[]]>([
  [
    '65 minutes are an hour and a quarter',
    {},
    [
      ['labour', 75, 6000],
      ['part', undefined, 4800],
    ],
  ],
  [
    'an hour to the minute stays an hour',
    { minutesToCome: 20 },
    [
      ['labour', 60, 4800],
      ['part', undefined, 4800],
    ],
  ],
  [
    'what is counted in pieces adds up to no more',
    { minutesSpent: 0.1 + 0.2, minutesToCome: 14.7 },
    [
      ['labour', 15, 1200],
      ['part', undefined, 4800],
    ],
  ],
  ['it goes back: the fee alone', { option: 'hand-back' }, [['diagnostic-fee', undefined, 2500]]],
  ['only to be found: the fee alone', { option: 'diagnose-only' }, [['diagnostic-fee', undefined, 2500]]],
  ['no fee was ever asked', { option: 'hand-back', diagnosticFeeMinor: 0 }, []],
  ['with a known flaw: cheaper by its part', { option: 'with-known-flaw', parts: [] }, [['labour', 75, 6000]]],
])('%s', (_, change, lines) => {
  expect(linesOf(change)).toEqual(lines);
});
