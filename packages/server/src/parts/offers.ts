/** Offers of suppliers: each is a web address that answers to a part number (docs/formats.md), or the stand-in of the demo. */
import { offersReplySchema, type Offers, type OffersReply, type OfferTrouble } from '@veglia/contract';
import { numberKey } from '@veglia/core';
import type { Store } from '../store.ts';

/** What a supplier is asked through. Never throws: what went wrong is an answer. */
export interface PartsOffers {
  readonly supplier: string;
  ask(number: string): Promise<{ readonly offers: OffersReply['offers'] } | { readonly trouble: OfferTrouble }>;
}
/** A supplier of this server. */
export interface SupplierSetting {
  readonly name: string;
  readonly address: string;
}

/** A page that waits for prices is worth so many milliseconds, and so many bytes are read of an answer (values of ours). */
const usualTimeoutMs = 6000;
const mostBytes = 1024 * 1024;

/** A supplier’s service over HTTP. */
export function httpOffers({ name, address }: SupplierSetting, timeoutMs = usualTimeoutMs): PartsOffers {
  return {
    supplier: name,
    async ask(number) {
      const url = new URL(address);
      url.searchParams.set('number', number);
      const signal = AbortSignal.timeout(timeoutMs);
      try {
        // Whoever runs the server named this address; where it leads on to, nobody did.
        const response = await fetch(url, { signal, redirect: 'error', headers: { accept: 'application/json' } });
        if (!response.ok) return { trouble: 'failed' };
        const text = await readUpTo(response, mostBytes);
        const read = text === undefined ? undefined : offersReplySchema.safeParse(parsed(text));
        return read?.success === true ? { offers: read.data.offers } : { trouble: 'unreadable' };
      } catch {
        return { trouble: signal.aborted ? 'slow' : 'unreachable' };
      }
    },
  };
}

async function readUpTo(response: Response, most: number): Promise<string | undefined> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of response.body ?? []) {
    const bytes = chunk as Uint8Array;
    size += bytes.length;
    if (size > most) return undefined;
    chunks.push(bytes);
  }
  return Buffer.concat(chunks).toString('utf8');
}
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** All suppliers at once, side by side: the right number first, then what is there, then by price. */
export async function offersFor(store: Pick<Store, 'now'>, suppliers: readonly PartsOffers[], number: string): Promise<Offers> {
  const answers = await Promise.all(suppliers.map(async (one) => ({ supplier: one.supplier, answer: await one.ask(number) })));
  const offers = answers.flatMap(({ supplier, answer }) =>
    'offers' in answer
      ? answer.offers.map((offer) => ({
          ...offer,
          supplier,
          match: numberKey(offer.number) === numberKey(number) ? ('same-number' as const) : ('other-number' as const),
        }))
      : [],
  );
  const rank = (one: Offers['offers'][number]): number => (one.match === 'same-number' ? 0 : 2) + (one.inStock === 0 ? 1 : 0);
  return {
    askedAt: store.now().toISOString(),
    offers: offers.sort((a, b) => rank(a) - rank(b) || a.price.amountMinor - b.price.amountMinor),
    troubles: answers.flatMap(({ supplier, answer }) => ('trouble' in answer ? [{ supplier, trouble: answer.trouble }] : [])),
  };
}
