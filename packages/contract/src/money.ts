/** Amounts in minor units, printed and typed with as many decimals as their currency has (ISO 4217, as dinero.js lists it). */
import type { Money } from '@veglia/core';
import { dinero, toDecimal } from 'dinero.js';
import * as currencies from 'dinero.js/currencies';

/** Most currencies have hundredths; so has one that isn't on the list. The two that count in fifths are listed by ISO with hundredths. */
const usualExponent = 2;
const known = new Map<string, { readonly base: number | readonly number[]; readonly exponent: number }>(Object.entries(currencies));

function currencyOf(code: string): { code: string; base: number; exponent: number } {
  const listed = known.get(code);
  return { code, base: 10, exponent: listed?.base === 10 ? listed.exponent : usualExponent };
}

const decimal = ({ amountMinor, currency }: Money): string => toDecimal(dinero({ amount: amountMinor, currency: currencyOf(currency) }));

/** "€17.60"; `round`: "€90" where there are no cents. */
export function printMoney(money: Money, how: 'exact' | 'round' = 'exact', language = 'en'): string {
  const { exponent } = currencyOf(money.currency);
  const whole = how === 'round' && money.amountMinor % 10 ** exponent === 0;
  const digits = whole ? 0 : exponent;
  const options = { style: 'currency', currency: money.currency, minimumFractionDigits: digits, maximumFractionDigits: digits } as const;
  return new Intl.NumberFormat(language, options).format(Number(decimal(money)));
}

/** As a field has it: "17.60", and "90" where there are no cents. */
export function plainAmount(amountMinor: number, currency: string): string {
  return decimal({ amountMinor, currency }).replace(/[.]0+$/, '');
}

/** What somebody typed ("12", "12.5", "12,50"), in minor units; undefined where it is no amount of this currency. */
export function parseAmount(typed: string, currency: string): number | undefined {
  const { exponent } = currencyOf(currency);
  const match = /^(\d{1,7})(?:[.,](\d{1,4}))?$/.exec(typed.trim());
  const cents = match?.[2] ?? '';
  if (!match || cents.length > exponent) return undefined;
  return Number(`${match[1]}${cents.padEnd(exponent, '0')}`);
}
