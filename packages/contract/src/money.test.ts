import { describe, expect, test } from '@jest/globals';
import { parseAmount, plainAmount, printMoney } from './money.ts';

describe('money in the currency’s own minor units (ISO 4217, list one: decimals of EUR 2, JPY 0, KWD 3)', () => {
  test.each([
    ['EUR', '12', 1200],
    ['EUR', '12.5', 1250],
    ['EUR', ' 46,50 ', 4650],
    ['EUR', '0.07', 7],
    ['JPY', '4800', 4800],
    ['JPY', '4800.5', undefined],
    ['KWD', '1.25', 1250],
    ['KWD', '1,005', 1005],
    ['KWD', '1.0005', undefined],
    ['EUR', '12.505', undefined],
    ['EUR', '', undefined],
    ['EUR', '-1', undefined],
    ['EUR', '1e3', undefined],
    ['EUR', 'free', undefined],
    ['EUR', '12345678', undefined],
    ['MGA', '1.20', 120],
  ])('%s: %j is %j', (currency, typed, minor) => {
    expect(parseAmount(typed, currency)).toBe(minor);
  });

  test.each([
    ['EUR', 1760, '17.60', '€17.60', '€17.60'],
    ['EUR', 9000, '90', '€90.00', '€90'],
    ['EUR', 5, '0.05', '€0.05', '€0.05'],
    ['JPY', 4800, '4800', '¥4,800', '¥4,800'],
    ['KWD', 1250, '1.250', 'KWD 1.250', 'KWD 1.250'],
    ['KWD', 3000, '3', 'KWD 3.000', 'KWD 3'],
  ])('%s: %d as a field has it, as it is printed, and in round figures', (currency, amountMinor, field, printed, round) => {
    // Intl puts a no-break space behind a code.
    const spaced = (text: string): string => text.replaceAll('\u00a0', ' ');
    expect(plainAmount(amountMinor, currency)).toBe(field);
    expect(spaced(printMoney({ amountMinor, currency }))).toBe(printed);
    expect(spaced(printMoney({ amountMinor, currency }, 'round'))).toBe(round);
    expect(parseAmount(field, currency)).toBe(amountMinor);
  });

  test('a code that no list has yet counts in hundredths, as most do', () => {
    expect(parseAmount('1.5', 'QQQ')).toBe(150);
    expect(printMoney({ amountMinor: 150, currency: 'QQQ' })).toContain('1.50');
  });
});
