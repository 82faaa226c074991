/** A message about a job: written from its ledger, sent, and recorded as sent, refused or not delivered. Its text is kept nowhere. */
import { customerWords, printMoney, say, taxRuleOf, type Appended, type SendMessage } from '@veglia/contract';
import { invoiceOf, liveEntries, type Money } from '@veglia/core';
import { ApiError } from '../http/apiError.ts';
import { append, readLedger } from '../jobs/ledger.ts';
import { readJob } from '../jobs/jobs.ts';
import { readShop } from '../shop.ts';
import type { Store } from '../store.ts';
import type { Messenger } from './messenger.ts';

const dayMs = 86_400_000;

/**
 * Throws not-found without a messenger, no-contact where nobody can be written to, nothing-to-say where the ledger has not got what the
 * template tells. The same id again sends nothing a second time.
 */
export async function sendMessage(
  store: Store,
  messenger: Messenger | undefined,
  jobId: string,
  { id, by, template, language }: SendMessage,
): Promise<Appended> {
  if (!messenger) throw new ApiError('not-found');
  const job = await readJob(store, jobId);
  const there = job.entries.find((entry) => entry.id === id);
  if (there) return { entries: [there], lastSeq: job.entries.at(-1)?.seq ?? 0 };
  const to = job.customer?.contact.trim() ?? '';
  if (to === '') throw new ApiError('no-contact');
  const { settings: shop } = await readShop(store);
  const entries = liveEntries(await readLedger(store, jobId));
  const closing = entries.findLast(({ body }) => body.kind === 'job.closed');
  const quote = entries.findLast(({ body }) => body.kind === 'quote.sent')?.body;
  const trial = entries.findLast(({ body }) => body.kind === 'trial.started')?.body;
  const money = (amount: Money): string => printMoney(amount, 'exact', language);
  const date = (iso: string): string => new Intl.DateTimeFormat(language, { dateStyle: 'long', timeZone: 'UTC' }).format(new Date(iso));
  const values: Record<string, string | number | undefined> = {
    shop: shop.shopName,
    set: [job.plate.maker, job.plate.model].filter((part) => part !== '').join(' '),
    n: job.number,
    days: closing && Math.floor((store.now().getTime() - new Date(closing.at).getTime()) / dayMs),
    date: trial?.kind === 'trial.started' ? date(trial.until) : undefined,
    amount:
      template === 'quote'
        ? quote?.kind === 'quote.sent'
          ? [quote.total, ...(quote.upTo ? [quote.upTo] : [])].map(money).join(' – ')
          : undefined
        : closing &&
          money({
            amountMinor: invoiceOf(entries, job.settings, taxRuleOf(shop)).total,
            currency: job.settings.currency,
          }),
  };
  const sentence = customerWords[language].message[template];
  if ([...sentence.matchAll(/\{(\w+)\}/g)].some(([, name = '']) => values[name] === undefined)) throw new ApiError('nothing-to-say');
  const result = await messenger.send(to, say(sentence, values));
  const entry = {
    id,
    at: store.now().toISOString(),
    basedOn: job.entries.at(-1)?.seq ?? 0,
    body: { kind: 'message.sent', v: 1, template, language, result },
  };
  return append(store, jobId, by, [entry]);
}
