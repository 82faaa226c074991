/**
 * What a customer is quoted and billed, as a bench does it: written before the rule (common practice, no source). Euros; labour 48.00 an
 * hour; tax 19 %, held in the prices. The tax of 96.00 that hold it: 96 × 19 / 119 = 15.3277…, so 15.33.
 */
import type { Body } from '../ledger/index.ts';

const euros = (amount: number) => ({ amountMinor: Math.round(amount * 100), currency: 'EUR' });
const part = (price: number, number = 'PW-1'): Body => ({
  kind: 'part.fitted',
  v: 1,
  assembly: 'power',
  number,
  source: 'new',
  price: euros(price),
});
const closed = (outcome: Extract<Body, { kind: 'job.closed' }>['outcome'], minutes = 60): Body => ({
  kind: 'job.closed',
  v: 2,
  outcome,
  minutes,
});
const fee: Body = { kind: 'limit.agreed', v: 2, limit: euros(200), checkFee: euros(25) };
const quoted = (total: number, upTo?: number): Body[] => [
  { kind: 'quote.sent', v: 2, total: euros(total), ...(upTo === undefined ? {} : { upTo: euros(upTo) }) },
  { kind: 'quote.answered', v: 2, answer: 'yes', option: 'repair' },
];
const comeback = (pays: Extract<Body, { kind: 'comeback.linked' }>['pays']): Body => ({
  kind: 'comeback.linked',
  v: 1,
  job: '0193a000-0000-4000-8000-0000000000b2',
  number: 12,
  fault: 'same',
  pays,
});

/** A bill of a job. */
export interface InvoiceCase {
  readonly name: string;
  readonly bodies: readonly Body[];
  /** What each line is for, and its amount. */
  readonly lines: readonly (readonly ['labour' | 'part' | 'diagnostic-fee' | 'agreed-at-most' | 'warranty' | 'goodwill', number])[];
  readonly total: number;
}
/** A bill of a job. */
export const invoiceCases: readonly InvoiceCase[] = [
  {
    name: 'repaired: labour and part',
    bodies: [part(48), closed('repaired')],
    lines: [
      ['labour', 48],
      ['part', 48],
    ],
    total: 96,
  },
  {
    name: 'a workaround is work too',
    bodies: [part(12), closed('workaround', 30)],
    lines: [
      ['labour', 24],
      ['part', 12],
    ],
    total: 36,
  },
  {
    name: 'handed back: the diagnostic fee, and not the hours',
    bodies: [fee, closed('handed-back', 90)],
    lines: [['diagnostic-fee', 25]],
    total: 25,
  },
  { name: 'not worth it, and nothing was agreed: nothing', bodies: [closed('not-worth-it')], lines: [], total: 0 },
  {
    name: 'repaired: the fee is in the labour, not on top',
    bodies: [fee, part(48), closed('repaired')],
    lines: [
      ['labour', 48],
      ['part', 48],
    ],
    total: 96,
  },
  {
    name: 'never more than what was agreed',
    bodies: [...quoted(70, 90), part(48), closed('repaired')],
    lines: [
      ['labour', 48],
      ['part', 48],
      ['agreed-at-most', -6],
    ],
    total: 90,
  },
  {
    name: 'less than what was agreed stays less',
    bodies: [...quoted(120, 150), part(48), closed('repaired')],
    lines: [
      ['labour', 48],
      ['part', 48],
    ],
    total: 96,
  },
  {
    name: 'a limit is what may be spent: no more than that either',
    bodies: [{ kind: 'limit.agreed', v: 2, limit: euros(80) }, part(48), closed('repaired')],
    lines: [
      ['labour', 48],
      ['part', 48],
      ['agreed-at-most', -16],
    ],
    total: 80,
  },
  {
    name: 'a part that came for nothing is named all the same',
    bodies: [part(0), closed('repaired', 30)],
    lines: [
      ['labour', 24],
      ['part', 0],
    ],
    total: 24,
  },
  {
    name: 'came back under warranty: named, and taken off',
    bodies: [comeback('warranty'), part(48), closed('repaired')],
    lines: [
      ['labour', 48],
      ['part', 48],
      ['warranty', -96],
    ],
    total: 0,
  },
  {
    name: 'came back, and the shop pays without having to',
    bodies: [comeback('goodwill'), closed('repaired', 30)],
    lines: [
      ['labour', 24],
      ['goodwill', -24],
    ],
    total: 0,
  },
  {
    name: 'came back with another fault: the customer pays',
    bodies: [comeback('customer'), closed('repaired', 30)],
    lines: [['labour', 24]],
    total: 24,
  },
  {
    name: 'under warranty and handed back: no fee either',
    bodies: [comeback('warranty'), fee, closed('handed-back')],
    lines: [
      ['diagnostic-fee', 25],
      ['warranty', -25],
    ],
    total: 0,
  },
];

/** Tax of amounts in minor units, rounded half away from zero once for each rate. Arithmetic by hand. */
export interface TaxCase {
  readonly name: string;
  /** Amounts with their rate in hundredths of a percent. */
  readonly lines: readonly (readonly [number, number])[];
  readonly held: boolean;
  readonly net: number;
  readonly tax: number;
  readonly total: number;
}
/** Tax of amounts. */
export const taxCases: readonly TaxCase[] = [
  { name: 'held in the prices', lines: [[9600, 1900]], held: true, net: 8067, tax: 1533, total: 9600 },
  { name: 'on top of the prices', lines: [[9600, 1900]], held: false, net: 9600, tax: 1824, total: 11_424 },
  { name: 'no tax at all', lines: [[9600, 0]], held: true, net: 9600, tax: 0, total: 9600 },
  // 0.05 + 0.05 at 19 % on top: 1.9 of 10 minor, rounded once to 2; each line by itself would give 1 + 1.
  {
    name: 'rounded once for a rate, not line by line',
    lines: [
      [5, 1900],
      [5, 1900],
    ],
    held: false,
    net: 10,
    tax: 2,
    total: 12,
  },
  // Three lines of 0.03 at 19 %: 1.71 together, so 2; 1 + 1 + 1 = 3 line by line.
  {
    name: 'three small ones',
    lines: [
      [3, 1900],
      [3, 1900],
      [3, 1900],
    ],
    held: false,
    net: 9,
    tax: 2,
    total: 11,
  },
  { name: 'exactly half goes away from zero', lines: [[50, 100]], held: false, net: 50, tax: 1, total: 51 },
  { name: 'and below zero too', lines: [[-50, 100]], held: false, net: -50, tax: -1, total: -51 },
  {
    name: 'two rates, each by itself',
    lines: [
      [10_000, 1900],
      [10_000, 700],
    ],
    held: false,
    net: 20_000,
    tax: 2600,
    total: 22_600,
  },
  { name: 'a rate with a fraction', lines: [[10_000, 2125]], held: false, net: 10_000, tax: 2125, total: 12_125 },
];
