/** Parts across jobs: the order list from the cards, and prices of a number from the ledgers. */
import { cardPartSchema, type Orders, type PartPrices } from '@veglia/contract';
import { numberKey } from '@veglia/core';
import { QueryTypes } from 'sequelize';
import type { Store } from '../store.ts';

/** Jobs with parts that nobody has fitted yet: a shop has some dozens (value of ours). */
const mostJobs = 1000;
/** Prices of one number: as many as anybody reads (value of ours). */
const mostPrices = 30;

/** By job number. A part that can’t be read is left out: one of them must not take the others with it. */
export async function listOrders(store: Store): Promise<Orders['jobs']> {
  const rows = await store.sequelize.query<{
    job_id: string;
    number: number;
    card: { title?: string; promisedOn?: string | null; parts: unknown[] };
    last_seq: number;
  }>(
    `SELECT c.job_id, c.number, c.card, j.last_seq FROM job_cards c JOIN jobs j ON j.id = c.job_id
      WHERE jsonb_array_length(c.card->'parts') > 0 ORDER BY c.number LIMIT ${mostJobs}`,
    { type: QueryTypes.SELECT },
  );
  return rows.map(({ job_id: jobId, number, card, last_seq: lastSeq }) => ({
    jobId,
    number,
    title: card.title ?? '',
    lastSeq,
    promisedOn: card.promisedOn ?? null,
    parts: card.parts.flatMap((part) => {
      const read = cardPartSchema.safeParse(part);
      return read.success ? [read.data] : [];
    }),
  }));
}

/** Entries that were undone count too: the price was asked all the same. */
export async function partPrices(store: Store, number: string): Promise<PartPrices['prices']> {
  const rows = await store.sequelize.query<{
    price: PartPrices['prices'][number]['price'];
    on: string;
    supplier: string | null;
    what: PartPrices['prices'][number]['what'];
    source: PartPrices['prices'][number]['source'];
  }>(
    `WITH named AS (
       SELECT id, kind, at, body FROM ledger_entries
        WHERE kind IN ('part.wanted', 'part.fitted')
          AND upper(regexp_replace(body->>'number', '[^[:alnum:]]', '', 'g')) = $1)
     SELECT * FROM (
       SELECT body->'price' AS price, to_char(at AT TIME ZONE 'UTC', 'YYYY-MM-DD') AS "on", body->>'supplier' AS supplier,
              substr(kind, 6) AS what, body->>'source' AS source, at FROM named
       UNION ALL
       SELECT o.body->'price', to_char(o.at AT TIME ZONE 'UTC', 'YYYY-MM-DD'), o.body->>'supplier', 'ordered', n.body->>'source', o.at
         FROM ledger_entries o JOIN named n ON n.kind = 'part.wanted' AND n.body->>'want' = o.body->>'want' WHERE o.kind = 'part.ordered') AS paid
      ORDER BY at DESC LIMIT ${mostPrices}`,
    { bind: [numberKey(number)], type: QueryTypes.SELECT },
  );
  return rows.map(({ price, on, supplier, what, source }) => ({ price, on, supplier, what, source }));
}
