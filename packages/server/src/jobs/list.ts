/**
 * The list of jobs: filtered, sorted, paged and searched in PostgreSQL. A page goes on after the job that ended the one before it (keyset),
 * so its cost doesn't grow with how far down it is.
 */
import {
  jobCardSchema,
  type JobCard,
  type JobCards,
  type ListJobs,
  type SimilarQuery,
  type CodeCounts,
  type UnreadableCard,
} from '@veglia/contract';
import { redactedText } from '@veglia/core';
import { QueryTypes } from 'sequelize';
import type { Store } from '../store.ts';

interface ListedRow {
  readonly job_id: string;
  readonly number: number;
  readonly card: object;
  readonly customer_name: string | null;
}

/** Matches beyond so many are not counted: no one reads that far, and a word that fits every job must not cost seconds (value of ours). */
export const mostCounted = 1000;
/** Words of a search beyond these add nothing (value of ours). */
const mostWords = 8;
/** A search looks at so many of the newest jobs first: a word that many have is found there at once (value of ours). */
const newestFirst = 2000;

const orders = {
  shelf: { keys: `(c.shelf = ''), c.shelf, c.opened_at, c.number`, direction: 'ASC', after: '>' },
  oldest: { keys: 'c.opened_at, c.number', direction: 'ASC', after: '>' },
  newest: { keys: 'c.opened_at, c.number', direction: 'DESC', after: '<' },
} as const;

const likePattern = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`;

/** SQL conditions with numbered places, and what stands in them. */
class Conditions {
  readonly parts: string[] = [];
  readonly bind: unknown[] = [];

  /** `$$` in `sql` is the place of `value`. */
  add(sql: string, value?: unknown): void {
    if (value === undefined) this.parts.push(sql);
    else this.parts.push(sql.replaceAll('$$', () => this.place(value)));
  }

  /** Where a value stands that is used outside the parts. */
  place(value: unknown): string {
    return `$${this.bind.push(value)}`;
  }

  get sql(): string {
    return this.parts.length === 0 ? 'true' : this.parts.join(' AND ');
  }
}

/** The jobs' own filters, beside a search. */
function filter(conditions: Conditions, asked: ListJobs): void {
  if (asked.state === 'open') conditions.add(`c.state <> 'closed'`);
  if (asked.state === 'closed') conditions.add(`c.state = 'closed'`);
  if (asked.family !== undefined) conditions.add('c.family = $$', asked.family);
  if (asked.waiting) conditions.add('c.waiting');
  if (asked.uncollected) conditions.add(`c.state = 'closed' AND c.card->>'collected' = 'false'`);
  if (asked.ids !== undefined) conditions.add('c.job_id = ANY($$::uuid[])', asked.ids);
}

interface Matches {
  readonly ids: readonly string[];
  /** There are more than are named. */
  readonly more: boolean;
}

/**
 * Every word has to be in the job's number, set, serial number, family or shelf, or in the customer's name; or all of them in one text of
 * the ledger (the customer's words, notes). Erased names and texts are not found: they are searched where they stand.
 */
async function search(store: Store, asked: ListJobs): Promise<Matches> {
  const words = asked.find.toLowerCase().split(/\s+/).filter(Boolean).slice(0, mostWords);
  const run = async ({ bind }: Conditions, sql: string): Promise<string[]> =>
    (await store.sequelize.query<{ job_id: string }>(sql, { bind, type: QueryTypes.SELECT })).map(({ job_id: id }) => id);
  const near = new Conditions();
  filter(near, asked);
  const newest = `SELECT c.job_id, c.search, c.opened_at, c.number FROM job_cards c WHERE ${near.sql} ORDER BY c.opened_at DESC, c.number DESC LIMIT ${newestFirst}`;
  const each = words.map((word) => near.place(likePattern(word))).map((place) => `(n.search LIKE ${place} OR lower(k.name) LIKE ${place})`);
  const often = await run(
    near,
    `SELECT n.job_id FROM (${newest}) n JOIN jobs j ON j.id = n.job_id LEFT JOIN customers k ON k.id = j.customer_id
      WHERE ${each.join(' AND ')} ORDER BY n.opened_at DESC, n.number DESC LIMIT ${mostCounted}`,
  );
  if (often.length > asked.limit) return { ids: often, more: true };
  const rare = new Conditions();
  filter(rare, asked);
  const sets = words.map((word) => {
    const place = rare.place(likePattern(word));
    return `(SELECT job_id FROM job_cards WHERE search LIKE ${place}
             UNION SELECT j.id FROM jobs j JOIN customers k ON k.id = j.customer_id WHERE lower(k.name) LIKE ${place})`;
  });
  const ids = await run(
    rare,
    `SELECT c.job_id FROM job_cards c
      WHERE ${rare.sql} AND c.job_id IN ((${sets.join(' INTERSECT ')})
        UNION SELECT e.job_id FROM entry_texts t JOIN ledger_entries e ON e.id = t.entry_id
               WHERE to_tsvector('simple', coalesce(t.content, '')) @@ plainto_tsquery('simple', ${rare.place(asked.find)}))
      ORDER BY c.opened_at DESC LIMIT ${mostCounted + 1}`,
  );
  return { ids: ids.slice(0, mostCounted), more: ids.length > mostCounted };
}

/** The job whose number this is, if there is one. */
async function numbered(store: Store, text: string): Promise<string | undefined> {
  if (!/^\d{1,9}$/.test(text)) return undefined;
  const [row] = await store.sequelize.query<{ job_id: string }>('SELECT job_id FROM job_cards WHERE number = $1', {
    bind: [Number(text)],
    type: QueryTypes.SELECT,
  });
  return row?.job_id;
}

async function count(store: Store, conditions: Conditions): Promise<number> {
  const [row] = await store.sequelize.query<{ n: number }>(
    `SELECT count(*)::int AS n FROM (SELECT 1 FROM job_cards c WHERE ${conditions.sql} LIMIT ${mostCounted + 1}) AS matched`,
    { bind: [...conditions.bind], type: QueryTypes.SELECT },
  );
  return row?.n ?? 0;
}

/** One page. A whole number that is a job's finds that job alone, whatever else is asked. */
export async function listJobs(store: Store, asked: ListJobs): Promise<JobCards> {
  const conditions = new Conditions();
  const exact = await numbered(store, asked.find);
  const matches: Matches | undefined =
    exact !== undefined ? { ids: [exact], more: false } : asked.find === '' ? undefined : await search(store, asked);
  if (matches) conditions.add('c.job_id = ANY($$::uuid[])', matches.ids);
  else filter(conditions, asked);
  const total = matches?.ids.length ?? (await count(store, conditions));
  const order = orders[asked.order];
  if (asked.after !== undefined)
    conditions.add(`(${order.keys}) ${order.after} (SELECT ${order.keys} FROM job_cards c WHERE c.number = $$)`, asked.after);
  const rows = await store.sequelize.query<ListedRow>(
    `SELECT c.job_id, c.number, c.card, CASE WHEN k.id IS NOT NULL THEN coalesce(k.name, '${redactedText}') END AS customer_name
       FROM job_cards c JOIN jobs j ON j.id = c.job_id LEFT JOIN customers k ON k.id = j.customer_id
      WHERE ${conditions.sql}
      ORDER BY ${order.keys.replaceAll(/, c\./g, ` ${order.direction}, c.`)} ${order.direction} LIMIT ${asked.limit + 1}`,
    { bind: conditions.bind, type: QueryTypes.SELECT },
  );
  const page = rows.slice(0, asked.limit);
  return {
    ...readCards(page),
    total: Math.min(total, mostCounted),
    more: matches?.more ?? total > mostCounted,
    next: rows.length > page.length ? (page.at(-1)?.number ?? null) : null,
  };
}

/**
 * The customer's name comes from the customer's own row, so that it is gone from here once it is erased there. A card that can't be read is
 * named apart: one of them must not take the others with it.
 */
function readCards(rows: readonly ListedRow[]): { jobs: JobCard[]; unreadable: UnreadableCard[] } {
  const jobs: JobCard[] = [];
  const unreadable: UnreadableCard[] = [];
  for (const { job_id: jobId, number, card, customer_name: customerName } of rows) {
    const read = jobCardSchema.safeParse({ ...card, customerName });
    if (read.success) jobs.push(read.data);
    else unreadable.push({ jobId, number });
  }
  return { jobs, unreadable };
}

/** Of each kind of likeness the newest so many: core's ranking chooses among them (value of ours). */
const newestOfAKind = 40;

/** Closed jobs that may be like this one, newest first; which are is core's to say (`similarJobs`). */
export async function similarCards(store: Store, { family, layout, symptoms, code }: SimilarQuery): Promise<JobCard[]> {
  const kind = (condition: string): string =>
    `(SELECT c.job_id FROM job_cards c WHERE c.state = 'closed' AND ${condition} ORDER BY c.opened_at DESC LIMIT ${newestOfAKind})`;
  const rows = await store.sequelize.query<ListedRow>(
    `SELECT c.job_id, c.number, c.card, NULL AS customer_name FROM job_cards c
      WHERE c.job_id IN (${kind('c.family = $1 AND c.symptoms && $3::text[]')}
                   UNION ${kind('c.family = $1 AND c.code = $4')}
                   UNION ${kind('c.layout = $2 AND c.symptoms && $3::text[]')})
      ORDER BY c.opened_at DESC, c.number DESC`,
    { bind: [family ?? null, layout ?? null, symptoms, code ?? null], type: QueryTypes.SELECT },
  );
  return readCards(rows).jobs;
}

/** Codes of closed jobs of a family, with what was confirmed, most often first. */
export async function codesOfFamily(store: Store, family: string): Promise<CodeCounts['codes']> {
  return store.sequelize.query<CodeCounts['codes'][number]>(
    `SELECT code, coalesce(card->'found'->>'fault', card->'found'->>'assembly') AS found, count(*)::int AS n
       FROM job_cards WHERE state = 'closed' AND family = $1 AND code IS NOT NULL
      GROUP BY 1, 2 ORDER BY 3 DESC, 1, 2`,
    { bind: [family], type: QueryTypes.SELECT },
  );
}
