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

/** Fitted so often within a year, the same fault is likely to come again (value of ours). */
const repeats = 2;
const mostProposed = 20;

/** Numbers that were fitted more than once in the last year and of which nothing is in stock, the most often first. */
export async function stockProposals({ sequelize, now }: Pick<Store, 'sequelize' | 'now'>): Promise<Orders['proposed']> {
  return sequelize.query<Orders['proposed'][number]>(
    `SELECT min(e.body->>'assembly') AS assembly, min(e.body->>'number') AS number, count(*)::int AS fitted,
            to_char(max(e.at) AT TIME ZONE 'UTC', 'YYYY-MM-DD') AS "lastOn"
       FROM ledger_entries e
      WHERE e.kind = 'part.fitted' AND e.at > $1
        AND NOT EXISTS (SELECT 1 FROM ledger_entries r WHERE r.job_id = e.job_id AND r.kind = 'entry.retracted' AND r.body->>'entry' = e.id::text)
      GROUP BY upper(regexp_replace(e.body->>'number', '[^[:alnum:]]', '', 'g'))
     HAVING count(*) >= ${repeats}
        AND NOT EXISTS (
          SELECT 1 FROM stock_items i
           WHERE upper(regexp_replace(i.document->>'number', '[^[:alnum:]]', '', 'g')) =
                 upper(regexp_replace(min(e.body->>'number'), '[^[:alnum:]]', '', 'g'))
             AND (SELECT coalesce(sum(m.change), 0) FROM stock_moves m WHERE m.item_id = i.id) > 0)
      ORDER BY 3 DESC, 2 LIMIT ${mostProposed}`,
    { bind: [new Date(now().getTime() - 365 * 86_400_000)], type: QueryTypes.SELECT },
  );
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
