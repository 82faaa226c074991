/** What was agreed last with the customer: a limit, or a quote that was accepted. Amounts as the shop states its prices. */
import type { Body, BodyOf, Money } from './bodies.ts';

/** Left out: nothing of the kind was agreed. */
export interface Agreed {
  readonly limit?: Money;
  readonly minutes?: number;
}

/** `live`: bodies of entries that still count, in order. A limit without minutes leaves the minutes as they were, and the other way round. */
export function agreedLast(live: readonly Body[]): Agreed {
  let limit: Money | undefined;
  let minutes: number | undefined;
  let asked: BodyOf<'quote.sent'> | undefined;
  for (const body of live) {
    if (body.kind === 'limit.agreed') [limit, minutes] = [body.limit ?? limit, body.minutes ?? minutes];
    else if (body.kind === 'quote.sent') asked = body;
    else if (body.kind === 'quote.answered' && body.answer === 'yes' && asked) limit = asked.upTo ?? asked.total;
  }
  return { ...(limit === undefined ? {} : { limit }), ...(minutes === undefined ? {} : { minutes }) };
}
