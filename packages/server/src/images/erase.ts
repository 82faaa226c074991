/** Images that are erased: at somebody's word, or because they may hold a customer's data and their time is over. */
import type { EraseImage, ImageErasure } from '@veglia/contract';
import { QueryTypes, type Transaction } from 'sequelize';
import { ApiError } from '../http/apiError.ts';
import { requirePerson } from '../people.ts';
import { readShop } from '../shop.ts';
import type { Store } from '../store.ts';

/** A dump of a job that is open may be what brings its board back. */
const inOpenJob = `
  SELECT 1 FROM job_cards c WHERE c.state <> 'closed' AND (
    c.job_id::text = (SELECT facts ->> 'job' FROM images WHERE id = $1)
    OR c.job_id IN (SELECT job_id FROM ledger_entries WHERE kind = 'flash.step' AND body #>> '{did,image}' = $1::text)) LIMIT 1`;

/** In the caller's transaction; false where it isn't there. Its chunks go with the next collection, where no other image has them. */
export async function eraseIn(store: Store, id: string, by: string | null, reason: string, transaction: Transaction): Promise<boolean> {
  const gone = await store.sequelize.query<{ id: string }>(
    `INSERT INTO image_erasures (id, sha256, size, facts, reason, erased_by, erased_at)
       SELECT images.id, sha256, size, facts, $2, $3, $4 FROM images JOIN files USING (id) WHERE images.id = $1 RETURNING id`,
    { bind: [id, reason, by, store.now()], type: QueryTypes.SELECT, transaction },
  );
  if (gone.length === 0) return false;
  for (const sql of ['DELETE FROM images WHERE id = $1', 'DELETE FROM file_pages WHERE file_id = $1', 'DELETE FROM files WHERE id = $1'])
    await store.sequelize.query(sql, { bind: [id], transaction });
  return true;
}

/** Throws not-found, unknown-person, image-in-use. */
export async function eraseImage(store: Store, id: string, { by, reason }: EraseImage): Promise<ImageErasure> {
  await store.sequelize.transaction(async (transaction) => {
    await requirePerson(store, by, transaction);
    const used = await store.sequelize.query(inOpenJob, { bind: [id], type: QueryTypes.SELECT, transaction });
    if (used.length > 0) throw new ApiError('image-in-use');
    if (!(await eraseIn(store, id, by, reason, transaction))) throw new ApiError('not-found');
  });
  const [erased] = await imageErasures(store, id);
  if (!erased) throw new ApiError('not-found');
  return erased;
}

/** What was erased, newest first; of one image where `id` is given. */
export async function imageErasures(store: Store, id?: string): Promise<ImageErasure[]> {
  const rows = await store.sequelize.query<Omit<ImageErasure, 'at' | 'size'> & { at: Date; size: string }>(
    `SELECT id, encode(sha256, 'hex') AS sha256, size, facts ->> 'name' AS name, reason, erased_by AS by, erased_at AS at
       FROM image_erasures WHERE $1::uuid IS NULL OR id = $1 ORDER BY erased_at DESC, id LIMIT 500`,
    { bind: [id ?? null], type: QueryTypes.SELECT },
  );
  return rows.map(({ at, size, ...row }) => ({ ...row, size: Number(size), at: at.toISOString() }));
}

/** Erases dumps that may hold a customer's data, so many days after their job was closed; returns how many. */
export async function eraseOverdue(store: Store): Promise<number> {
  const { userDataDays } = (await readShop(store)).settings;
  const oldest = new Date(store.now().getTime() - userDataDays * 86_400_000);
  const rows = await store.sequelize.query<{ id: string }>(
    `SELECT images.id FROM images LEFT JOIN job_cards c ON c.job_id::text = facts ->> 'job'
      WHERE facts -> 'userData' = 'true' AND (CASE WHEN c.job_id IS NULL THEN added_at ELSE (c.card ->> 'closedAt')::timestamptz END) < $1`,
    { bind: [oldest], type: QueryTypes.SELECT },
  );
  let erased = 0;
  for (const { id } of rows)
    await store.sequelize.transaction(async (transaction) => {
      const used = await store.sequelize.query(inOpenJob, { bind: [id], type: QueryTypes.SELECT, transaction });
      if (used.length === 0 && (await eraseIn(store, id, null, 'retention', transaction))) erased += 1;
    });
  return erased;
}
