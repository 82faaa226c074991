/** What a job has cost so far and what may be spent, as a shop reckons it: written before the rule (common practice, no source). Minor units. */
import type { Body } from '../../ledger/index.ts';

export interface SumCase {
  readonly name: string;
  readonly bodies: readonly Body[];
  readonly parts: number;
  /** Null: nothing was agreed. */
  readonly limit: number | null;
  readonly overMoney: boolean;
}
const euros = (amount: number) => ({ amountMinor: Math.round(amount * 100), currency: 'EUR' });
const part = (price: number): Body => ({
  kind: 'part.fitted',
  v: 1,
  assembly: 'strips',
  number: 'QKS-50-4',
  source: 'new',
  price: euros(price),
});
const limit = (amount: number): Body => ({ kind: 'limit.agreed', v: 2, limit: euros(amount) });
const quote = (total: number, upTo?: number): Body => ({
  kind: 'quote.sent',
  v: 2,
  total: euros(total),
  ...(upTo === undefined ? {} : { upTo: euros(upTo) }),
});
const said = (answer: 'yes' | 'no' | 'later'): Body => ({ kind: 'quote.answered', v: 2, answer });

/** Each on a job with 30 minutes of labour at 40 an hour: 20.00. */
export const sumCases: readonly SumCase[] = [
  { name: 'labour alone', bodies: [], parts: 0, limit: null, overMoney: false },
  { name: 'a part counts, wherever the sum is shown', bodies: [part(46.5)], parts: 4650, limit: null, overMoney: false },
  {
    name: 'labour within the limit, labour and part beyond it',
    bodies: [limit(60), part(46.5)],
    parts: 4650,
    limit: 6000,
    overMoney: true,
  },
  { name: 'to the cent at the limit is within it', bodies: [limit(66.5), part(46.5)], parts: 4650, limit: 6650, overMoney: false },
  {
    name: 'a quote that was accepted is what may be spent now',
    bodies: [limit(60), quote(90, 150), said('yes'), part(46.5)],
    parts: 4650,
    limit: 15_000,
    overMoney: false,
  },
  { name: 'one without a range: its total', bodies: [quote(60), said('yes'), part(46.5)], parts: 4650, limit: 6000, overMoney: true },
  {
    name: 'one that was refused changes nothing',
    bodies: [limit(60), quote(90, 150), said('no')],
    parts: 0,
    limit: 6000,
    overMoney: false,
  },
  { name: 'one that waits changes nothing', bodies: [limit(60), quote(90, 150), said('later')], parts: 0, limit: 6000, overMoney: false },
  {
    name: 'what was agreed last counts',
    bodies: [quote(90, 150), said('yes'), limit(70), part(60)],
    parts: 6000,
    limit: 7000,
    overMoney: true,
  },
  {
    name: 'minutes agreed later leave the money as it was',
    bodies: [limit(60), { kind: 'limit.agreed', v: 2, minutes: 90 }, part(46.5)],
    parts: 4650,
    limit: 6000,
    overMoney: true,
  },
];
