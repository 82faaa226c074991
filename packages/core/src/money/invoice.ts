/** The bill of a job that was closed, from its ledger: what was done, what was fitted, and never more than what was agreed. */
import { agreedLast, liveEntries, type BodyOf, type Entry, type Settings, type TaxRule } from '../ledger/index.ts';
import { usedAgain } from '../safety/index.ts';
import { labourMinor, taxOf, type TaxSums } from './tax.ts';

/** What a line of a bill is for. The last three take something off. */
export const invoiceLineKinds = ['labour', 'part', 'diagnostic-fee', 'agreed-at-most', 'warranty', 'goodwill'] as const;
/** A line of a bill, minor units as the shop states its prices. */
export interface InvoiceLine {
  readonly what: (typeof invoiceLineKinds)[number];
  readonly amountMinor: number;
  readonly minutes?: number;
  readonly assembly?: string;
  readonly number?: string;
}

/** Lines of the bill, in order. None: there is nothing to bill, or the job is open. */
export function invoiceLines(entries: readonly Entry[], settings: Pick<Settings, 'rateMinorPerHour' | 'currency'>): InvoiceLine[] {
  const live = liveEntries(entries).map(({ body }) => body);
  const end = live.findLast((body) => body.kind === 'job.closed' || body.kind === 'job.reopened');
  if (end?.kind !== 'job.closed') return [];
  const rate = { rateMinorPerHour: end.rateMinorPerHour ?? settings.rateMinorPerHour };
  const work = usedAgain.includes(end.outcome) ? workOf(live, end, rate) : feeOf(live);
  const sum = work.reduce((total, { amountMinor }) => total + amountMinor, 0);
  const comeback = live.findLast((body) => body.kind === 'comeback.linked');
  if (comeback && comeback.pays !== 'customer') return sum === 0 ? work : [...work, { what: comeback.pays, amountMinor: -sum }];
  const most = agreedLast(live).limit?.amountMinor;
  return most !== undefined && sum > most ? [...work, { what: 'agreed-at-most', amountMinor: most - sum }] : work;
}

type Bodies = readonly Entry['body'][];

function workOf(live: Bodies, { minutes }: BodyOf<'job.closed'>, { rateMinorPerHour }: Pick<Settings, 'rateMinorPerHour'>): InvoiceLine[] {
  const labour = labourMinor(minutes, rateMinorPerHour);
  return [
    ...(labour === 0 ? [] : [{ what: 'labour' as const, amountMinor: labour, minutes }]),
    ...live.flatMap((body): InvoiceLine[] =>
      body.kind === 'part.fitted'
        ? [{ what: 'part', amountMinor: body.price.amountMinor, assembly: body.assembly, number: body.number }]
        : [],
    ),
  ];
}

/** What looking at it costs, where it goes back as it was. */
function feeOf(live: Bodies): InvoiceLine[] {
  const agreed = live.findLast((body) => body.kind === 'limit.agreed' && body.checkFee !== undefined);
  const fee = agreed?.kind === 'limit.agreed' ? (agreed.checkFee?.amountMinor ?? 0) : 0;
  return fee === 0 ? [] : [{ what: 'diagnostic-fee', amountMinor: fee }];
}

/** A bill with its sums. */
export interface Invoice extends TaxSums {
  readonly lines: readonly InvoiceLine[];
  readonly rule: TaxRule;
}

/** The bill of a closed job by the rate and the tax it was closed with; by those given where it was closed before they were kept. */
export function invoiceOf(entries: readonly Entry[], settings: Pick<Settings, 'rateMinorPerHour' | 'currency'>, usual: TaxRule): Invoice {
  const end = liveEntries(entries).findLast(({ body }) => body.kind === 'job.closed')?.body;
  const rule = (end?.kind === 'job.closed' ? end.tax : undefined) ?? usual;
  const lines = invoiceLines(entries, settings);
  const sums = taxOf(
    lines.map(({ amountMinor }) => ({ amountMinor, basisPoints: rule.basisPoints })),
    rule.held,
  );
  return { ...sums, lines, rule };
}
