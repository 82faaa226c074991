/** The library of memory images: what each is, and how two differ. */
import type { Image, ImageComparison, ImageFacts, PublishImage } from '@veglia/contract';
import { QueryTypes } from 'sequelize';
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
  await store.sequelize.transaction(async (transaction) => {
    if (known) {
      await store.sequelize.query('UPDATE images SET facts = $2 WHERE id = $1', { bind: [id, JSON.stringify(marked(facts))], transaction });
      return;
    }
    const { crc32, md5 } = await publish(store, id, { size, sha256 }, transaction);
    await store.sequelize.query('INSERT INTO images (id, crc32, md5, facts, added_by, added_at) VALUES ($1, $2, $3, $4, $5, $6)', {
      bind: [id, crc32, md5, JSON.stringify(marked(facts)), by, store.now()],
      transaction,
    });
  });
  return readImage(store, id);
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
