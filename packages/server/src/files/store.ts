/**
 * The chunk store: any bytes in, cut into 64 KiB, each kept once by its SHA-256.
 *
 * Always holds: a file that can be read is whole (its manifest is written in one transaction with the check of its final hash);
 * a chunk somebody's manifest names is never collected; one that nobody names goes an hour after it was stored.
 */
import { createHash } from 'node:crypto';
import { QueryTypes, type Transaction } from 'sequelize';
import { ApiError } from '../http/apiError.ts';
import type { Store } from '../store.ts';

/** Files are kept in pieces of this many bytes. */
export const chunkBytes = 65_536;
/** Chunk numbers a manifest page holds. */
export const pageChunks = 4096;
/** Chunks written in one statement: measured best at about this many. */
const rowsAtOnce = 64;
/** What nobody names is kept this long: a file on its way names it only at its end. */
export const graceMinutes = 60;

// Chunks that are only named.
const allOnes = -1;
const allZeros = -2;

/** A file in the database. */
export interface StoredFile {
  readonly id: string;
  readonly sha256: string;
  readonly size: number;
  readonly mediaType: string;
}

const sha256 = (bytes: Uint8Array): Buffer => createHash('sha256').update(bytes).digest();

/** A chunk that needs no row: full, and of one byte throughout. */
function namedOnly(chunk: Uint8Array): number | undefined {
  if (chunk.length !== chunkBytes) return undefined;
  const [first] = chunk;
  if (first !== 0xff && first !== 0x00) return undefined;
  return chunk.every((byte) => byte === first) ? (first === 0xff ? allOnes : allZeros) : undefined;
}

/** Stores the bytes under an id the caller made; the same id again is the same file, or entry-conflict. */
export async function storeFile(store: Store, id: string, bytes: Uint8Array, mediaType: string): Promise<StoredFile> {
  const hash = sha256(bytes);
  const known = await findFile(store, id);
  if (known) {
    if (known.sha256 !== hash.toString('hex')) throw new ApiError('entry-conflict');
    return known;
  }
  await store.sequelize.transaction(async (transaction) => {
    const numbers = await storeChunks(store, bytes, transaction);
    await store.sequelize.query('INSERT INTO files (id, sha256, size, media_type, stored_at) VALUES ($1, $2, $3, $4, $5)', {
      bind: [id, hash, bytes.length, mediaType, store.now()],
      transaction,
    });
    for (let page = 0; page * pageChunks < numbers.length; page += 1) {
      await store.sequelize.query('INSERT INTO file_pages (file_id, page, chunk_numbers) VALUES ($1, $2, $3)', {
        bind: [id, page, numbers.slice(page * pageChunks, (page + 1) * pageChunks)],
        transaction,
      });
    }
    // Published only once what was stored reads back as what came in.
    const back = createHash('sha256');
    for await (const chunk of chunksOf(store, id, { transaction })) back.update(chunk);
    if (!back.digest().equals(hash)) throw new Error(`file ${id} doesn't read back as it was written`);
  });
  return { id, sha256: hash.toString('hex'), size: bytes.length, mediaType };
}

/** Stores the chunks of these bytes, the last of which may be short; returns their numbers in order. */
export async function storeChunks(store: Store, bytes: Uint8Array, transaction: Transaction): Promise<number[]> {
  const pieces: { chunk: Uint8Array; hash: Buffer | undefined; named: number | undefined }[] = [];
  for (let at = 0; at < bytes.length; at += chunkBytes) {
    const chunk = bytes.subarray(at, at + chunkBytes);
    const named = namedOnly(chunk);
    pieces.push({ chunk, named, hash: named === undefined ? sha256(chunk) : undefined });
  }
  const numbers = new Map<string, number>();
  // In the order of their hashes: two files that share chunks must not wait for each other.
  const needed = [...new Map(pieces.flatMap(({ chunk, hash }) => (hash ? [[hash.toString('hex'), { chunk, hash }] as const] : [])))].sort(
    ([a], [b]) => (a < b ? -1 : 1),
  );
  for (let from = 0; from < needed.length; from += rowsAtOnce) {
    const batch = needed.slice(from, from + rowsAtOnce).map(([, one]) => one);
    const now = store.now();
    const values = batch.map((_, row) => `($${3 * row + 1}, $${3 * row + 2}, $${3 * row + 3})`).join(', ');
    await store.sequelize.query(
      // A chunk met again is as young as if it were new: the collector must not take it from under this file.
      `INSERT INTO chunks (sha256, bytes, stored_at) VALUES ${values} ON CONFLICT (sha256) DO UPDATE SET stored_at = excluded.stored_at`,
      { bind: batch.flatMap(({ chunk, hash }) => [hash, Buffer.from(chunk), now]), transaction },
    );
    const rows = await store.sequelize.query<{ number: string; hash: string }>(
      "SELECT number, encode(sha256, 'hex') AS hash FROM chunks WHERE sha256 = ANY($1::bytea[])",
      { bind: [batch.map(({ hash }) => hash)], type: QueryTypes.SELECT, transaction },
    );
    for (const row of rows) numbers.set(row.hash, Number(row.number));
  }
  return pieces.map(({ hash, named }) => {
    const number = named ?? numbers.get(hash?.toString('hex') ?? '');
    if (number === undefined) throw new Error('a chunk was stored and not found');
    return number;
  });
}

/** A file's facts (size in bytes, SHA-256 in hex); undefined where there is none. */
export async function findFile(store: Store, id: string): Promise<StoredFile | undefined> {
  const [row] = await store.sequelize.query<{ hash: string; size: string; media_type: string }>(
    "SELECT encode(sha256, 'hex') AS hash, size, media_type FROM files WHERE id = $1",
    { bind: [id], type: QueryTypes.SELECT },
  );
  return row && { id, sha256: row.hash, size: Number(row.size), mediaType: row.media_type };
}

/** Which chunks of a file: numbers of the first and the one behind the last. */
export interface ChunkRange {
  readonly transaction?: Transaction;
  readonly first?: number;
  readonly end?: number;
}

/** A file's bytes in order, a chunk at a time. Throws where a chunk is gone or doesn't read back as it was stored. */
export async function* chunksOf(
  store: Store,
  id: string,
  { transaction, first = 0, end = Number.POSITIVE_INFINITY }: ChunkRange = {},
): AsyncGenerator<Buffer> {
  const options = { type: QueryTypes.SELECT as const, ...(transaction ? { transaction } : {}) };
  for (let page = Math.floor(first / pageChunks); page * pageChunks < end; page += 1) {
    const [row] = await store.sequelize.query<{ chunk_numbers: string[] }>(
      'SELECT chunk_numbers FROM file_pages WHERE file_id = $1 AND page = $2',
      { bind: [id, page], ...options },
    );
    if (!row) return;
    const numbers = row.chunk_numbers.slice(Math.max(0, first - page * pageChunks), end - page * pageChunks).map(Number);
    for (let from = 0; from < numbers.length; from += rowsAtOnce) {
      const batch = numbers.slice(from, from + rowsAtOnce);
      const found = await store.sequelize.query<{ number: string; bytes: Buffer; sha256: Buffer }>(
        'SELECT number, bytes, sha256 FROM chunks WHERE number = ANY($1::bigint[])',
        {
          bind: [batch.filter((number) => number > 0)],
          ...options,
        },
      );
      const byNumber = new Map(found.map((one) => [Number(one.number), one]));
      for (const number of batch) {
        if (number === allOnes) yield Buffer.alloc(chunkBytes, 0xff);
        else if (number === allZeros) yield Buffer.alloc(chunkBytes, 0x00);
        else {
          const chunk = byNumber.get(number);
          if (!chunk) throw new Error(`chunk ${number} of file ${id} is gone`);
          // A disk forgets without a word: what doesn't read back as it was stored is not handed on.
          if (!sha256(chunk.bytes).equals(chunk.sha256)) throw new Error(`chunk ${number} of file ${id} is damaged`);
          yield chunk.bytes;
        }
      }
    }
  }
}

/** A file's bytes, whole in memory. Throws not-found. */
export async function readFile(store: Store, id: string): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const chunk of chunksOf(store, id)) parts.push(chunk);
  return Buffer.concat(parts);
}

/**
 * Takes away chunks that no manifest names and that are older than the grace; returns how many. All manifests are read once, however many chunks are old.
 */
export async function collectChunks(store: Store): Promise<number> {
  const oldest = new Date(store.now().getTime() - graceMinutes * 60_000);
  const rows = await store.sequelize.query<{ number: string }>(
    `WITH named AS (
       SELECT unnest(chunk_numbers) AS number FROM file_pages UNION SELECT unnest(chunk_numbers) FROM upload_pages)
     DELETE FROM chunks WHERE stored_at < $1 AND NOT EXISTS (SELECT 1 FROM named WHERE named.number = chunks.number) RETURNING number`,
    { bind: [oldest], type: QueryTypes.SELECT },
  );
  return rows.length;
}
