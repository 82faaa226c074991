/** Whether a part may be ordered: what the customer agreed to against what the job comes to with it. */
import type { BodyOf, Entry } from '../ledger/index.ts';
import { partsOf } from './wants.ts';

/** Why it may not be ordered yet. */
export const orderRefusals = ['nothing-agreed', 'not-answered', 'declined', 'over', 'quote-expired'] as const;
/** Why it may not be ordered yet. */
export type OrderRefusal = (typeof orderRefusals)[number];

/** An order to be looked at; amounts in minor units of one currency. */
export interface OrderAsked {
  /** The shop’s own set: there is nobody to ask. */
  readonly ownSet: boolean;
  /** Of this part; and labour and parts so far. */
  readonly priceMinor: number;
  readonly spentMinor: number;
  /** Labour of fitting it. */
  readonly fittingMinor: number;
  /** Up to so much a part needs no agreement. */
  readonly trifleMinor: number;
}

/** Answers that take no part: it goes back, or was only to be found. */
const noRepair: readonly BodyOf<'quote.answered'>['option'][] = ['hand-back', 'diagnose-only'];

type Standing = { readonly limit: number } | 'nothing-agreed' | 'not-answered' | 'declined' | 'quote-expired';

/** Where the last word of the customer leaves the job. */
function standingOf(live: readonly Entry[]): Standing {
  let standing: Standing = 'nothing-agreed';
  let asked: BodyOf<'quote.sent'> | undefined;
  for (const { at, body } of live) {
    if (body.kind === 'limit.agreed' && body.limit !== undefined) standing = { limit: body.limit.amountMinor };
    else if (body.kind === 'quote.sent') [asked, standing] = [body, 'not-answered'];
    else if (body.kind === 'quote.answered') {
      if (body.answer === 'later') standing = asked ? 'not-answered' : standing;
      else if (body.answer === 'no' || noRepair.includes(body.option)) standing = 'declined';
      else if (asked) {
        const lapsed = asked.validUntil !== undefined && at.slice(0, 10) > asked.validUntil;
        standing = lapsed ? 'quote-expired' : { limit: (asked.upTo ?? asked.total).amountMinor };
      }
    }
  }
  return standing;
}

/** What stands between a part and its order; undefined: nothing. `overMinor`: by how much the job would be over what was agreed. */
export function orderRefused(
  live: readonly Entry[],
  { ownSet, priceMinor, spentMinor, fittingMinor, trifleMinor }: OrderAsked,
): { readonly why: OrderRefusal; readonly overMinor?: number } | undefined {
  if (ownSet) return undefined;
  const standing = standingOf(live);
  if (typeof standing === 'string') return standing !== 'declined' && priceMinor <= trifleMinor ? undefined : { why: standing };
  // What is on order, here (from the own shelf too), or here by mistake has to be paid; what is fitted is in what was spent.
  const committed = partsOf(live)
    .filter(({ state }) => state === 'on-order' || state === 'here' || state === 'to-send-back')
    .reduce((sum, { price }) => sum + price.amountMinor, 0);
  const over = spentMinor + committed + priceMinor + fittingMinor - standing.limit;
  return over > 0 ? { why: 'over', overMinor: over } : undefined;
}

/** Ends that leave something not as before. */
const losing: Partial<Record<BodyOf<'job.closed'>['outcome'], NonNullable<BodyOf<'quote.answered'>['option']>>> = {
  'repaired-with-known-flaw': 'with-known-flaw',
  workaround: 'workaround',
};

/** Whether what this end takes from the customer was agreed to in writing; true where it takes nothing. `live`: entries that still count. */
export function lossAgreed(outcome: BodyOf<'job.closed'>['outcome'], live: readonly Entry[]): boolean {
  const option = losing[outcome];
  const answer = live.findLast(({ body }) => body.kind === 'quote.answered')?.body;
  if (option === undefined) return true;
  return (
    answer?.kind === 'quote.answered' &&
    answer.answer === 'yes' &&
    answer.option === option &&
    answer.how !== undefined &&
    answer.how !== 'phone' &&
    answer.how !== 'in-person'
  );
}
