/**
 * Images on their way in: any number of bytes in any number of requests, four MiB in memory at a time.
 *
 * Always holds: `received` bytes are in chunks and `pending`, and in the hashes; a request that is cut off loses what of it was not yet a batch, and the
 * next one goes on at `received`. Nothing is an image before its size and hash are what the sender said, and it reads back as that.
 */
import { createHash } from 'node:crypto';
import { createCRC32, createMD5, createSHA256, type IHasher } from 'hash-wasm';
import { QueryTypes, type Transaction } from 'sequelize';
import { ApiError } from '../http/apiError.ts';
import { chunkBytes, chunksOf, findFile, pageChunks, storeChunks } from '../files/store.ts';
import type { Store } from '../store.ts';

/** Bytes written in one transaction. */
const batchBytes = 64 * chunkBytes;
/** An upload nobody went on with is given up after so many days. */
export const abandonedDays = 7;

interface Upload {
  readonly received: number;
  readonly pending: Buffer;
  readonly states: readonly Buffer[];
}

const hashers = (): Promise<IHasher[]> => Promise.all([createSHA256(), createCRC32(), createMD5()]);

async function resumed(states: readonly Buffer[]): Promise<IHasher[]> {
  const all = await hashers();
  all.forEach((one, index) => {
    one.init();
    const state = states[index];
    if (state) one.load(new Uint8Array(state));
  });
  return all;
}

/** How much of it is here; all of it once it is an image. */
export async function receivedOf(store: Store, id: string): Promise<number> {
  const file = await findFile(store, id);
  if (file) return file.size;
  const [row] = await store.sequelize.query<{ received: string }>('SELECT received FROM uploads WHERE id = $1', {
    bind: [id],
    type: QueryTypes.SELECT,
  });
  return row ? Number(row.received) : 0;
}

/** Takes the upload's row, and keeps others from it until the transaction ends. */
async function lock(store: Store, id: string, transaction: Transaction): Promise<Upload> {
  await store.sequelize.query(
    "INSERT INTO uploads (id, received, pending, hash_states, touched_at) VALUES ($1, 0, '', '{}', $2) ON CONFLICT DO NOTHING",
    { bind: [id, store.now()], transaction },
  );
  const [row] = await store.sequelize.query<{ received: string; pending: Buffer; hash_states: Buffer[] }>(
    'SELECT received, pending, hash_states FROM uploads WHERE id = $1 FOR UPDATE',
    { bind: [id], type: QueryTypes.SELECT, transaction },
  );
  if (!row) throw new ApiError('not-found');
  return { received: Number(row.received), pending: row.pending, states: row.hash_states };
}

async function addNumbers(store: Store, id: string, from: number, numbers: readonly number[], transaction: Transaction): Promise<void> {
  for (let done = 0; done < numbers.length;) {
    const page = Math.floor((from + done) / pageChunks);
    const fits = numbers.slice(done, done + pageChunks - ((from + done) % pageChunks));
    await store.sequelize.query(
      `INSERT INTO upload_pages (upload_id, page, chunk_numbers) VALUES ($1, $2, $3)
         ON CONFLICT (upload_id, page) DO UPDATE SET chunk_numbers = upload_pages.chunk_numbers || excluded.chunk_numbers`,
      { bind: [id, page, fits], transaction },
    );
    done += fits.length;
  }
}

/** Adds a batch at its place; returns how much is here then. Throws upload-elsewhere where the upload doesn't stand at `at`. */
async function addBatch(store: Store, id: string, at: number, batch: Buffer): Promise<number> {
  return store.sequelize.transaction(async (transaction) => {
    const upload = await lock(store, id, transaction);
    if (upload.received !== at) throw new ApiError('upload-elsewhere');
    const bytes = Buffer.concat([upload.pending, batch]);
    const whole = bytes.length - (bytes.length % chunkBytes);
    const numbers = whole === 0 ? [] : await storeChunks(store, bytes.subarray(0, whole), transaction);
    await addNumbers(store, id, (at - upload.pending.length) / chunkBytes, numbers, transaction);
    const all = await resumed(upload.states);
    const states = all.map((one) => Buffer.from(one.update(batch).save()));
    await store.sequelize.query('UPDATE uploads SET received = $2, pending = $3, hash_states = $4, touched_at = $5 WHERE id = $1', {
      bind: [id, at + batch.length, Buffer.from(bytes.subarray(whole)), states, store.now()],
      transaction,
    });
    return at + batch.length;
  });
}

/**
 * Takes in bytes from `at` on, as they come; returns how many bytes are here then. Throws upload-elsewhere where they don't follow on what is here,
 * too-large past `most` bytes.
 */
export async function receive(store: Store, id: string, at: number, bytes: AsyncIterable<Uint8Array>, most: number): Promise<number> {
  if (await findFile(store, id)) throw new ApiError('entry-conflict');
  let received = at;
  let parts: Uint8Array[] = [];
  let size = 0;
  const flush = async (): Promise<void> => {
    received = await addBatch(store, id, received, Buffer.concat(parts));
    [parts, size] = [[], 0];
  };
  for await (const part of bytes) {
    // A part may be larger than a batch: whoever sends decides.
    for (let from = 0; from < part.length;) {
      const piece = part.subarray(from, from + batchBytes - size);
      parts.push(piece);
      size += piece.length;
      from += piece.length;
      if (received + size > most) throw new ApiError('too-large');
      if (size === batchBytes) await flush();
    }
  }
  if (size > 0) await flush();
  return received;
}

/** What a whole image is known by, in hex. */
export interface Hashes {
  readonly sha256: string;
  readonly crc32: string;
  readonly md5: string;
}

/**
 * Makes the upload a file, in the caller’s transaction. Throws upload-incomplete where its size or hash is not what was said, and what the store throws
 * where it doesn’t read back as it came in. `look` is shown each chunk on the way.
 */
export async function publish(
  store: Store,
  id: string,
  said: { readonly size: number; readonly sha256?: string | undefined },
  transaction: Transaction,
  look?: (chunk: Uint8Array) => void,
): Promise<Hashes> {
  const { received, pending, states } = await lock(store, id, transaction);
  const [sha256 = '', crc32 = '', md5 = ''] = (await resumed(states)).map((one) => one.digest());
  if (received !== said.size || received === 0 || (said.sha256 !== undefined && said.sha256 !== sha256))
    throw new ApiError('upload-incomplete');
  if (pending.length > 0) {
    const numbers = await storeChunks(store, pending, transaction);
    await addNumbers(store, id, (received - pending.length) / chunkBytes, numbers, transaction);
  }
  await store.sequelize.query('INSERT INTO files (id, sha256, size, media_type, stored_at) VALUES ($1, $2, $3, $4, $5)', {
    bind: [id, Buffer.from(sha256, 'hex'), received, 'application/octet-stream', store.now()],
    transaction,
  });
  await store.sequelize.query(
    'INSERT INTO file_pages (file_id, page, chunk_numbers) SELECT upload_id, page, chunk_numbers FROM upload_pages WHERE upload_id = $1',
    { bind: [id], transaction },
  );
  await store.sequelize.query('DELETE FROM uploads WHERE id = $1', { bind: [id], transaction });
  const back = createHash('sha256');
  for await (const chunk of chunksOf(store, id, { transaction })) {
    back.update(chunk);
    look?.(chunk);
  }
  if (back.digest('hex') !== sha256) throw new Error(`image ${id} doesn't read back as it came in`);
  return { sha256, crc32, md5 };
}

/** Gives up uploads that nobody went on with; returns how many. Their chunks go with the next collection. */
export async function dropAbandoned(store: Store): Promise<number> {
  const oldest = new Date(store.now().getTime() - abandonedDays * 24 * 3_600_000);
  const rows = await store.sequelize.query<{ id: string }>('DELETE FROM uploads WHERE touched_at < $1 RETURNING id', {
    bind: [oldest],
    type: QueryTypes.SELECT,
  });
  return rows.length;
}
