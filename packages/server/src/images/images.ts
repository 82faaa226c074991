/** The library of memory images: what each is, and how two differ. */
import type { Image, ImageComparison, ImageFacts, ImageFactsBefore, PublishImage } from '@veglia/contract';
import { OwnFinder } from '@veglia/core';
import { QueryTypes, type Transaction } from 'sequelize';
import { ApiError } from '../http/apiError.ts';
import { chunkBytes, findFile } from '../files/store.ts';
import type { Store } from '../store.ts';
import { publish } from './uploads.ts';

/** The largest image taken: an 8 GB memory with its boot areas. */
export const mostImageBytes = 9 * 2 ** 30;
/** As many are listed; a search names the rest. */
const mostListed = 200;
/** Runs of differing chunks named in one comparison. */
const mostRuns = 1000;

interface Row {
  readonly id: string;
  readonly sha256: string;
  readonly size: string;
  readonly crc32: string;
  readonly md5: string;
  readonly facts: ImageFacts;
  readonly added_by: string;
  readonly added_at: Date;
}
const columns = "images.id, encode(files.sha256, 'hex') AS sha256, files.size, crc32, md5, facts, added_by, added_at";

const imageOf = ({ size, added_by: by, added_at: at, ...row }: Row): Image => ({ ...row, size: Number(size), by, at: at.toISOString() });

/** Newest first; `q` is looked for in the facts and at the beginning of a hash. */
export async function listImages(store: Store, q: string | undefined): Promise<Image[]> {
  const wanted = q?.trim().toLowerCase() ?? '';
  const rows = await store.sequelize.query<Row>(
    `SELECT ${columns} FROM images JOIN files USING (id)
      WHERE $1 = '' OR position($1 IN lower(facts::text)) > 0 OR starts_with(encode(files.sha256, 'hex'), $1) OR crc32 = $1 OR md5 = $1
      ORDER BY added_at DESC, images.id LIMIT ${mostListed}`,
    { bind: [wanted], type: QueryTypes.SELECT },
  );
  return rows.map(imageOf);
}

/** Throws not-found. */
export async function readImage(store: Store, id: string): Promise<Image> {
  const [row] = await store.sequelize.query<Row>(`SELECT ${columns} FROM images JOIN files USING (id) WHERE images.id = $1`, {
    bind: [id],
    type: QueryTypes.SELECT,
  });
  if (!row) throw new ApiError('not-found');
  return imageOf(row);
}

/** The user area of a set’s own memory holds accounts and keys of its owner, whoever stores it. */
const marked = (facts: ImageFacts): ImageFacts =>
  facts.source === 'own-set' && facts.area === 'user' ? { ...facts, userData: true } : facts;

/** Makes an upload an image, or says anew what one is. Throws upload-incomplete, unknown-person. */
export async function publishImage(store: Store, id: string, { by, size, sha256, facts }: PublishImage): Promise<Image> {
  if (!(await store.models.people.findByPk(by))) throw new ApiError('unknown-person');
  const known = await findFile(store, id);
  if (known && (known.size !== size || (sha256 !== undefined && known.sha256 !== sha256))) throw new ApiError('entry-conflict');
  const searched = !known && facts.source === 'own-set' && facts.own === undefined;
  const finder = searched ? new OwnFinder(await serialOf(store, facts.job)) : undefined;
  await store.sequelize.transaction(async (transaction) => {
    if (known) return sayOtherwise(store, id, by, marked(facts), transaction);
    const { crc32, md5 } = await publish(store, id, { size, sha256 }, transaction, (chunk) => finder?.add(chunk));
    const own = finder?.end() ?? [];
    await store.sequelize.query('INSERT INTO images (id, crc32, md5, facts, added_by, added_at) VALUES ($1, $2, $3, $4, $5, $6)', {
      bind: [id, crc32, md5, JSON.stringify(marked(own.length > 0 ? { ...facts, own } : facts)), by, store.now()],
      transaction,
    });
  });
  return readImage(store, id);
}

/** As printed on the set it was read from. */
async function serialOf(store: Store, job: string | undefined): Promise<string[]> {
  const row = job === undefined ? null : await store.models.jobs.findByPk(job);
  const set = row === null ? null : await store.models.sets.findByPk(row.setId);
  return set === null ? [] : [set.serial];
}

/** What was said before stays on record; the same said again is no change. */
async function sayOtherwise(store: Store, id: string, by: string, facts: ImageFacts, transaction: Transaction): Promise<void> {
  await store.sequelize.query(
    `INSERT INTO image_facts_before (image_id, facts, changed_by, changed_at)
       SELECT id, facts, $2, $3 FROM images WHERE id = $1 AND facts <> $4::jsonb`,
    { bind: [id, by, store.now(), JSON.stringify(facts)], transaction },
  );
  await store.sequelize.query('UPDATE images SET facts = $2 WHERE id = $1', { bind: [id, JSON.stringify(facts)], transaction });
}

/** What was said of an image before, newest first. Throws not-found. */
export async function imageFactsBefore(store: Store, id: string): Promise<ImageFactsBefore['before']> {
  await readImage(store, id);
  const rows = await store.sequelize.query<{ facts: ImageFacts; by: string; at: Date }>(
    'SELECT facts, changed_by AS by, changed_at AS at FROM image_facts_before WHERE image_id = $1 ORDER BY id DESC LIMIT 100',
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}

async function chunkNumbers(store: Store, id: string): Promise<number[]> {
  const rows = await store.sequelize.query<{ chunk_numbers: string[] }>(
    'SELECT chunk_numbers FROM file_pages WHERE file_id = $1 ORDER BY page',
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows.flatMap(({ chunk_numbers }) => chunk_numbers.map(Number));
}

/** Where two images differ, to the chunk of 64 KiB: by their manifests alone, without a byte read. Throws not-found. */
export async function compareImages(store: Store, id: string, other: string): Promise<ImageComparison> {
  const [one, two] = await Promise.all([readImage(store, id), readImage(store, other)]);
  const [a, b] = await Promise.all([chunkNumbers(store, id), chunkNumbers(store, other)]);
  const runs: { from: number; to: number }[] = [];
  let differing = 0;
  const end = Math.max(one.size, two.size);
  for (let index = 0; index < Math.max(a.length, b.length); index += 1) {
    if (a[index] === b[index]) continue;
    differing += 1;
    const from = index * chunkBytes;
    const to = Math.min(from + chunkBytes, end);
    const last = runs.at(-1);
    if (last?.to === from) last.to = to;
    else if (runs.length < mostRuns) runs.push({ from, to });
  }
  return { equal: differing === 0, sizes: [one.size, two.size], chunkBytes, chunks: Math.max(a.length, b.length), differing, runs };
}
