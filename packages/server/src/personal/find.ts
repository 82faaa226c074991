/** Where words stand in the database: the proof that what was erased is gone. */
import { QueryTypes, type Transaction } from 'sequelize';
import type { Store } from '../store.ts';

/** Shorter words stand by chance in half of all texts. */
const leastLetters = 4;
/** Bytes of files, and what only lives for minutes: no words to be read there. */
const leftOut = new Set(['chunks', 'file_pages', 'upload_pages', 'uploads', 'packs', 'counts_snapshots', 'migrations', 'attempts']);
const like = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`;

/** Jobs whose texts hold one of the words, and the count of rows of anything else that does. Every table that the app can read is looked through. */
export async function whereWordsStand(
  store: Store,
  words: readonly string[],
  transaction: Transaction,
): Promise<{ readonly mentions: { jobId: string; number: number }[]; readonly elsewhere: number }> {
  const patterns = words.filter((word) => word.length >= leastLetters).map(like);
  if (patterns.length === 0) return { mentions: [], elsewhere: 0 };
  await store.sequelize.query(`SET LOCAL statement_timeout = '120s'`, { transaction });
  const mentions = await store.sequelize.query<{ jobId: string; number: number }>(
    `SELECT j.id AS "jobId", j.number FROM jobs j WHERE j.id IN (
       SELECT e.job_id FROM entry_texts t JOIN ledger_entries e ON e.id = t.entry_id WHERE t.content ILIKE ANY ($1::text[])
       UNION SELECT e.job_id FROM ledger_entries e WHERE e.body::text ILIKE ANY ($1::text[])
       UNION SELECT c.job_id FROM job_cards c WHERE c.card::text ILIKE ANY ($1::text[]) OR c.search ILIKE ANY ($1::text[])
       UNION SELECT o.id FROM jobs o JOIN sets s ON s.id = o.set_id WHERE s.serial ILIKE ANY ($1::text[]))
     ORDER BY j.number LIMIT 200`,
    { bind: [patterns], type: QueryTypes.SELECT, transaction },
  );
  const tables = await store.sequelize.query<{ name: string }>(
    `SELECT relname AS name FROM pg_class
      WHERE relnamespace = 'public'::regnamespace AND relkind IN ('r', 'p') AND has_table_privilege(oid, 'SELECT') ORDER BY relname`,
    { type: QueryTypes.SELECT, transaction },
  );
  const ofJobs = new Set(['entry_texts', 'ledger_entries', 'job_cards', 'sets', 'jobs']);
  let elsewhere = 0;
  for (const { name } of tables) {
    if (leftOut.has(name) || ofJobs.has(name)) continue;
    const [row] = await store.sequelize.query<{ n: number }>(
      `SELECT count(*)::int AS n FROM "${name.replaceAll('"', '""')}" t WHERE t::text ILIKE ANY ($1::text[])`,
      { bind: [patterns], type: QueryTypes.SELECT, transaction },
    );
    elsewhere += row?.n ?? 0;
  }
  return { mentions, elsewhere };
}
