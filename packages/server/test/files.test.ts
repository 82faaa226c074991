import { createHash } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';
import { chunkBytes, collectChunks, graceMinutes, readFile, storeFile } from '../src/files/store.ts';
import { mostPhotoBytes } from '../src/files/photos.ts';
import { connect } from '../src/database/connect.ts';
import { ask, noon, openTestApp, type TestApp } from './support/testApp.ts';

let running: TestApp;
beforeAll(async () => {
  running = await openTestApp();
});
afterAll(() => running.close());

const count = async (table: string): Promise<number> => {
  const [[row]] = (await running.store.sequelize.query(`SELECT count(*)::int AS n FROM ${table}`)) as unknown as [[{ n: number }]];
  return row.n;
};
/** Bytes that don't repeat, the same each time. */
function noise(length: number, seed: number): Buffer {
  const parts: Buffer[] = [];
  for (let at = 0; at < length; at += 32) parts.push(createHash('sha256').update(`${seed}/${at}`).digest());
  return Buffer.concat(parts).subarray(0, length);
}

describe('the chunk store', () => {
  test('gives back what came in, whatever its length, and a chunk it knows is kept once', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(0, 1, chunkBytes - 1, chunkBytes, chunkBytes + 1, 3 * chunkBytes + 7),
        fc.integer({ min: 1, max: 9 }),
        async (length, seed) => {
          const bytes = noise(length, seed);
          const id = uuidv7();
          const { sha256, size } = await storeFile(running.store, id, bytes, 'image/png');
          expect([sha256, size]).toEqual([createHash('sha256').update(bytes).digest('hex'), length]);
          expect((await readFile(running.store, id)).equals(bytes)).toBe(true);
        },
      ),
      { numRuns: 20, seed: 7 },
    );
    const before = await count('chunks');
    await storeFile(running.store, uuidv7(), noise(3 * chunkBytes + 7, 3), 'image/png');
    await storeFile(running.store, uuidv7(), noise(3 * chunkBytes + 7, 3), 'image/png');
    expect((await count('chunks')) - before).toBeLessThanOrEqual(4);
  });

  test('chunks of nothing but FF or 00 are only named', async () => {
    const before = await count('chunks');
    const bytes = Buffer.concat([Buffer.alloc(chunkBytes, 0xff), Buffer.alloc(chunkBytes, 0), Buffer.alloc(chunkBytes, 0xff)]);
    const id = uuidv7();
    await storeFile(running.store, id, bytes, 'image/png');
    expect(await count('chunks')).toBe(before);
    expect((await readFile(running.store, id)).equals(bytes)).toBe(true);
  });

  test('a manifest of more than one page is read back in order', async () => {
    // 4096 chunks a page: what is only named costs nothing, so a second page is cheap to reach.
    const bytes = Buffer.concat([Buffer.alloc(4097 * chunkBytes, 0xff), Buffer.from('end')]);
    const id = uuidv7();
    await storeFile(running.store, id, bytes, 'application/octet-stream');
    const read = await readFile(running.store, id);
    expect(read.length).toBe(bytes.length);
    expect(read.equals(bytes)).toBe(true);
  });

  test('the same id with other bytes is refused; with the same bytes it is the same file', async () => {
    const id = uuidv7();
    const first = await storeFile(running.store, id, noise(100, 1), 'image/png');
    expect(await storeFile(running.store, id, noise(100, 1), 'image/png')).toEqual(first);
    await expect(storeFile(running.store, id, noise(100, 2), 'image/png')).rejects.toThrow('entry-conflict');
  });

  test('nothing of a file that could not be written whole stays readable, and the collector takes its chunks after an hour', async () => {
    await running.store.sequelize.query("INSERT INTO chunks (sha256, bytes, stored_at) VALUES (sha256('lost'), 'lost', $1)", {
      bind: [noon],
    });
    const kept = uuidv7();
    await storeFile(running.store, kept, noise(chunkBytes, 77), 'image/png');
    const at = (minutes: number) => ({ ...running.store, now: () => new Date(noon.getTime() + minutes * 60_000) });
    expect(await collectChunks(at(graceMinutes - 1))).toBe(0);
    expect(await collectChunks(at(graceMinutes + 1))).toBeGreaterThanOrEqual(1);
    expect((await readFile(running.store, kept)).length).toBe(chunkBytes);
    // A chunk that went missing is our fault and is told, never read as something else.
    const owner = connect(running.ownerUrl, 1);
    await owner.query('DELETE FROM chunks WHERE number = (SELECT chunk_numbers[1] FROM file_pages WHERE file_id = $1)', { bind: [kept] });
    await owner.close();
    await expect(readFile(running.store, kept)).rejects.toThrow(/is gone/);
  });

  test('a chunk that doesn’t read back as it was stored is told, and not handed on', async () => {
    const id = uuidv7();
    await storeFile(running.store, id, noise(chunkBytes + 5, 78), 'image/png');
    const owner = connect(running.ownerUrl, 1);
    await owner.query(
      `UPDATE chunks SET bytes = set_byte(bytes, 3, (get_byte(bytes, 3) + 1) % 256)
        WHERE number = (SELECT chunk_numbers[1] FROM file_pages WHERE file_id = $1)`,
      { bind: [id] },
    );
    await owner.close();
    await expect(readFile(running.store, id)).rejects.toThrow(/is damaged/);
  });
});

describe('photos', () => {
  /** A PNG of one pixel; bytes by the standard (ISO/IEC 15948), checksums included. */
  const png = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');
  const put = (id: string, bytes: Buffer, type = 'image/png') =>
    ask(running.app).put(`/api/photos/${id}`).set('content-type', type).send(bytes);

  test('are shown as what they are, whatever they were called', async () => {
    const id = uuidv7();
    expect((await put(id, png, 'image/jpeg')).body).toMatchObject({ id, size: png.length, mediaType: 'image/png' });
    const shown = await ask(running.app).get(`/api/photos/${id}`);
    expect([shown.status, shown.headers['content-type'], shown.headers['x-content-type-options']]).toEqual([200, 'image/png', 'nosniff']);
    expect((shown.body as Buffer).equals(png)).toBe(true);
  });

  test.each<[string, Buffer, number, string]>([
    ['a page with a script, called a picture', Buffer.from('<html><script>alert(1)</script></html>'), 415, 'not-a-photo'],
    ['a drawing that may carry one', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script/></svg>'), 415, 'not-a-photo'],
    ['a program', Buffer.concat([Buffer.from('7f454c46', 'hex'), Buffer.alloc(60)]), 415, 'not-a-photo'],
    ['nothing', Buffer.alloc(0), 415, 'not-a-photo'],
    ['far too much', Buffer.alloc(mostPhotoBytes + 1), 413, 'too-large'],
  ])('%s is refused with a reason, and nothing is stored', async (_, bytes, status, code) => {
    const before = await count('files');
    const reply = await put(uuidv7(), bytes);
    expect([reply.status, (reply.body as { code: string }).code]).toEqual([status, code]);
    expect(await count('files')).toBe(before);
  });

  test('one nobody has is not found', async () => {
    expect((await ask(running.app).get(`/api/photos/${uuidv7()}`)).status).toBe(404);
  });
});
