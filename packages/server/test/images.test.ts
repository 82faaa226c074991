import { createCipheriv, createHash } from 'node:crypto';
import { crc32 } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { newJobSchema, type FlashHistory, type Image, type ImageComparison, type ImageFacts } from '@veglia/contract';
import type { Body, FlashDid } from '@veglia/core';
import fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';
import { chunkBytes, collectChunks, graceMinutes } from '../src/files/store.ts';
import { abandonedDays, dropAbandoned, receive, receivedOf } from '../src/images/uploads.ts';
import { eraseOverdue } from '../src/images/erase.ts';
import { append } from '../src/jobs/ledger.ts';
import { takeIn } from '../src/jobs/jobs.ts';
import { ask, draft, intake, noon, openTestApp, type TestApp } from './support/testApp.ts';

let running: TestApp;
beforeAll(async () => {
  running = await openTestApp();
});
afterAll(() => running.close());

const facts: ImageFacts = { name: 'U402 of a bench set', memory: 'spi-nor', area: 'whole', source: 'own-set', board: 'QX-510' };
/** Bytes that don't repeat, the same each time. */
function noise(length: number, seed: number): Buffer {
  return createCipheriv('aes-128-ctr', Buffer.alloc(16, seed), Buffer.alloc(16)).update(Buffer.alloc(length));
}
const send = (id: string, at: number, bytes: Buffer) =>
  ask(running.app).put(`/api/images/${id}/content?at=${at}`).set('content-type', 'application/octet-stream').send(bytes);
const publish = (id: string, size: number, more: object = {}) =>
  ask(running.app)
    .put(`/api/images/${id}`)
    .send({ by: running.person, size, facts, ...more });
async function store(bytes: Buffer, more: object = {}): Promise<Image> {
  const id = uuidv7();
  expect((await send(id, 0, bytes)).status).toBe(200);
  const reply = await publish(id, bytes.length, more);
  expect(reply.status).toBe(200);
  return reply.body as Image;
}
const content = (id: string) =>
  ask(running.app)
    .get(`/api/images/${id}/content`)
    .buffer(true)
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => done(null, Buffer.concat(parts)));
    });

describe('an image', () => {
  test('cut into any requests, it comes out as it went in, with hashes that Node’s own crypto and zlib agree on', async () => {
    const lengths = fc.constantFrom(1, chunkBytes - 1, chunkBytes, chunkBytes + 1, 3 * chunkBytes + 7, 65 * chunkBytes + 3);
    await fc.assert(
      fc.asyncProperty(
        lengths,
        fc.integer({ min: 1, max: 4 }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 4 }),
        async (length, seed, cuts) => {
          const bytes = noise(length, seed);
          const id = uuidv7();
          const at = [0, ...cuts.map((cut) => Math.floor(cut * length)), length].sort((a, b) => a - b);
          for (const [index, from] of at.slice(0, -1).entries()) {
            const piece = bytes.subarray(from, at[index + 1]);
            if (piece.length > 0) expect((await send(id, from, piece)).body).toEqual({ received: from + piece.length });
          }
          const image = (await publish(id, length)).body as Image;
          const hex = (kind: string): string => createHash(kind).update(bytes).digest('hex');
          expect(image).toMatchObject({
            size: length,
            sha256: hex('sha256'),
            md5: hex('md5'),
            crc32: crc32(bytes).toString(16).padStart(8, '0'),
            facts,
          });
          expect(bytes.equals((await content(id)).body as Buffer)).toBe(true);
        },
      ),
      { numRuns: 15, seed: 15 },
    );
  });

  test('a request cut off in the middle keeps whole batches, and the next one goes on there', async () => {
    const bytes = noise(70 * chunkBytes, 8);
    const id = uuidv7();
    async function* cutOff(): AsyncGenerator<Buffer> {
      yield bytes.subarray(0, 66 * chunkBytes);
      await Promise.resolve();
      throw new Error('the line went');
    }
    await expect(receive(running.store, id, 0, cutOff(), 2 ** 30)).rejects.toThrow('the line went');
    const asked = await ask(running.app).get(`/api/images/${id}/received`);
    expect(asked.body).toEqual({ received: 64 * chunkBytes });
    await send(id, 64 * chunkBytes, bytes.subarray(64 * chunkBytes));
    expect((await publish(id, bytes.length)).body).toMatchObject({ sha256: createHash('sha256').update(bytes).digest('hex') });
  });

  test.each<readonly [string, (id: string) => Promise<{ status: number; body: { code?: string } }>, number, string]>([
    ['bytes that leave a gap', (id) => send(id, 200, Buffer.alloc(10)), 409, 'upload-elsewhere'],
    ['bytes that are here already', (id) => send(id, 0, Buffer.alloc(10)), 409, 'upload-elsewhere'],
    ['a size that is not what arrived', (id) => publish(id, 101), 422, 'upload-incomplete'],
    ['a hash that is not what arrived', (id) => publish(id, 100, { sha256: 'a'.repeat(64) }), 422, 'upload-incomplete'],
    ['somebody unknown', (id) => publish(id, 100, { by: uuidv7() }), 403, 'not-yours'],
    [
      'bytes under another name',
      (id) => ask(running.app).put(`/api/images/${id}/content?at=100`).set('content-type', 'text/plain').send('x'),
      415,
      'wrong-media-type',
    ],
  ])('%s: refused, and what arrived is kept', async (_, wrong, status, code) => {
    const id = uuidv7();
    await send(id, 0, noise(100, 3));
    const reply = await wrong(id);
    expect([reply.status, reply.body.code]).toEqual([status, code]);
    expect(await receivedOf(running.store, id)).toBe(100);
    expect((await ask(running.app).get(`/api/images/${id}`)).status).toBe(404);
    expect((await publish(id, 100)).status).toBe(200);
  });

  test('past the limit: refused', async () => {
    async function* much(): AsyncGenerator<Buffer> {
      await Promise.resolve();
      yield Buffer.alloc(1000);
    }
    await expect(receive(running.store, uuidv7(), 0, much(), 999)).rejects.toThrow('too-large');
  });

  test('published once, its bytes stand for ever; what is said of it may change', async () => {
    const image = await store(noise(100, 5));
    expect((await send(image.id, 100, Buffer.alloc(1))).status).toBe(409);
    expect((await publish(image.id, 99)).status).toBe(409);
    const renamed = (await publish(image.id, 100, { facts: { ...facts, panel: 'VL32-A' } })).body as Image;
    expect(renamed).toEqual({ ...image, facts: { ...facts, panel: 'VL32-A' } });
    // Said again it is no change; what was said before stays on record, with who changed it.
    await publish(image.id, 100, { facts: { ...facts, panel: 'VL32-A' } });
    await publish(image.id, 100, { facts: { ...facts, panel: 'VL32-B' } });
    const reply = await ask(running.app).get(`/api/images/${image.id}/facts-before`);
    expect(reply.body).toEqual({
      before: [{ ...facts, panel: 'VL32-A' }, facts].map((before) => ({ facts: before, by: running.person, at: noon.toISOString() })),
    });
    expect((await ask(running.app).get(`/api/images/${uuidv7()}/facts-before`)).status).toBe(404);
  });

  test('a range of it, across chunks', async () => {
    const bytes = noise(3 * chunkBytes + 500, 6);
    const { id } = await store(bytes);
    for (const [range, from, to] of [
      ['bytes=0-0', 0, 1],
      [`bytes=${chunkBytes - 5}-${chunkBytes + 5}`, chunkBytes - 5, chunkBytes + 6],
      ['bytes=-7', bytes.length - 7, bytes.length],
      [`bytes=${2 * chunkBytes}-`, 2 * chunkBytes, bytes.length],
    ] as const) {
      const reply = await content(id).set('range', range);
      expect([reply.status, reply.headers['content-range']]).toEqual([206, `bytes ${from}-${to - 1}/${bytes.length}`]);
      expect(reply.body).toEqual(bytes.subarray(from, to));
    }
    expect((await content(id).set('range', `bytes=${bytes.length}-`)).status).toBe(416);
  });

  test('two are compared by their chunks', async () => {
    const a = noise(5 * chunkBytes + 9, 7);
    const b = Buffer.from(a);
    b[2 * chunkBytes] = (b[2 * chunkBytes] ?? 0) ^ 1;
    b[3 * chunkBytes + 4] = (b[3 * chunkBytes + 4] ?? 0) ^ 1;
    const [one, two, short] = [await store(a), await store(b), await store(a.subarray(0, 5 * chunkBytes))];
    const compare = async (other: Image): Promise<ImageComparison> =>
      (await ask(running.app).get(`/api/images/${one.id}/compare/${other.id}`)).body as ImageComparison;
    expect(await compare(one)).toMatchObject({ equal: true, differing: 0, runs: [] });
    expect(await compare(two)).toMatchObject({
      equal: false,
      chunks: 6,
      differing: 2,
      runs: [{ from: 2 * chunkBytes, to: 4 * chunkBytes }],
    });
    expect(await compare(short)).toMatchObject({ equal: false, runs: [{ from: 5 * chunkBytes, to: 5 * chunkBytes + 9 }] });
  });

  test('is found by its facts and by its hashes', async () => {
    const image = await store(noise(64, 9), { facts: { ...facts, board: 'ZZ-9 rev %_' } });
    const found = async (q: string): Promise<string[]> =>
      ((await ask(running.app).get('/api/images').query({ q })).body as { images: Image[] }).images.map(({ id }) => id);
    expect(await found('zz-9 REV %_')).toEqual([image.id]);
    expect(await found('zz-9 rev xx')).toEqual([]);
    expect(await found(image.sha256.slice(0, 10))).toEqual([image.id]);
    expect(await found(image.crc32)).toEqual([image.id]);
  });

  test('the collector leaves the chunks of what is on its way, until it is given up', async () => {
    const id = uuidv7();
    const bytes = noise(2 * chunkBytes + 5, 10);
    await send(id, 0, bytes);
    const later = (minutes: number) => ({ ...running.store, now: () => new Date(noon.getTime() + minutes * 60_000) });
    await collectChunks(later(graceMinutes + 1));
    await send(id, bytes.length, Buffer.from('end'));
    expect((await publish(id, bytes.length + 3)).body).toMatchObject({ size: bytes.length + 3 });
    const lost = uuidv7();
    await send(lost, 0, noise(chunkBytes, 11));
    expect(await dropAbandoned(later(abandonedDays * 24 * 60 - 1))).toBe(0);
    expect(await dropAbandoned(later(abandonedDays * 24 * 60 + 1))).toBe(1);
    expect(await collectChunks(later(graceMinutes + 1))).toBeGreaterThanOrEqual(1);
    expect((await content(id)).body).toEqual(Buffer.concat([bytes, Buffer.from('end')]));
  });

  test('several reads of a failing chip are made one, bit by bit, and marked as that', async () => {
    const good = noise(2 * chunkBytes + 77, 20);
    const reads = await Promise.all(
      [3, chunkBytes + 9, 2 * chunkBytes + 70].map((at) => {
        const read = Buffer.from(good);
        read[at] = (read[at] ?? 0) ^ 0x10;
        return store(read);
      }),
    );
    const id = uuidv7();
    const combine = (of: readonly Image[], as: string) =>
      ask(running.app)
        .post(`/api/images/${as}/combined`)
        .send({ by: running.person, reads: of.map((one) => one.id), facts });
    const reply = await combine(reads, id);
    expect([reply.status, reply.body]).toMatchObject([
      201,
      { reads: 3, unsteadyBytes: 3, image: { size: good.length, sha256: createHash('sha256').update(good).digest('hex') } },
    ]);
    expect((reply.body as { image: Image }).image.facts.reconstructed).toEqual({ reads: 3, doubtfulBytes: 3 });
    expect(good.equals((await content(id)).body as Buffer)).toBe(true);
    const short = await store(good.subarray(0, 100));
    expect((await combine([...reads.slice(0, 2), short], uuidv7())).status).toBe(400);
    expect((await combine(reads, id)).status).toBe(409);
  });
});

test('what was seen on a board comes from the jobs that had it: a started set is a hit, a withdrawn step is not', async () => {
  const image = uuidv7();
  const sha256 = 'c'.repeat(64);
  const steps = (result: 'starts' | 'failed', board: string): Body[] => {
    const session = uuidv7();
    const did: FlashDid[] = [
      { step: 'opened', memory: 'spi-nor', name: 'U402', areas: ['whole'], why: 'other', plan: 'rewrite' },
      { step: 'target', board, panel: 'VL43-A2' },
      { step: 'chosen', area: 'whole', sha256, bytes: 9, image, source: 'dealer', fit: 'unsure' },
      { step: 'programmed', area: 'whole', sha256 },
      { step: 'started', result },
      { step: 'setting', name: 'Panel id', to: '7' },
    ];
    return did.map((one) => ({ kind: 'flash.step', v: 1, session, did: one }));
  };
  const jobWith = async (bodies: readonly Body[]) => {
    const job = await takeIn(running.store, newJobSchema.parse(intake(running.person)), uuidv7);
    return {
      job: job.id,
      ...(await append(
        running.store,
        job.id,
        running.person,
        bodies.map((body) => draft(body)),
      )),
    };
  };
  await jobWith(steps('starts', 'QKM-2250'));
  await jobWith(steps('failed', 'qkm 2250'));
  await jobWith(steps('starts', 'QKM-2190'));
  const withdrawn = await jobWith(steps('starts', 'QKM-2250'));
  const started = withdrawn.entries.find(({ body }) => body.kind === 'flash.step' && body.did.step === 'started');
  await append(running.store, withdrawn.job, running.person, [
    draft({ kind: 'entry.retracted', v: 1, entry: started?.id ?? '', reason: 'mistyped' }),
  ]);
  const history = await ask(running.app).get('/api/flash-history').query({ board: 'QKM 2250', panel: 'VL43-A2' });
  expect(history.body).toEqual({
    trials: expect.arrayContaining(['starts', 'failed'].map((result) => expect.objectContaining({ sha256, result, panel: 'VL43-A2' }))),
    settings: [{ name: 'panel id', to: '7', sets: 1 }],
  });
  expect((history.body as FlashHistory).trials).toHaveLength(2);
});

describe('own content', () => {
  /** Serial number of its label and a hardware address, across the cut between two chunks. */
  const bytes = noise(2 * chunkBytes, 41);
  bytes.write('Q350-1', 700);
  bytes.write('02:1A:7F:30:12:9C', chunkBytes - 5);
  const places = [
    { from: 700, to: 706, kind: 'serial' },
    { from: chunkBytes - 5, to: chunkBytes + 12, kind: 'address' },
  ] as const;
  const dump = async (more: object = {}): Promise<Image> => {
    const { id: job } = await takeIn(running.store, newJobSchema.parse(intake(running.person)), uuidv7);
    return store(bytes, { facts: { ...facts, job, ...more } });
  };
  const putInto = (into: Image, own: Image, id = uuidv7()) =>
    ask(running.app).post(`/api/images/${id}/with-own`).send({ by: running.person, into: into.id, own: own.id });

  test('of a set’s own dump is found as it is stored, by the serial number on its label too', async () => {
    expect((await dump()).facts.own).toEqual(places);
    // What a person marked is not searched again, and a bought image is nobody’s own.
    expect((await dump({ own: [] })).facts.own).toEqual([]);
    expect((await dump({ source: 'dealer' })).facts.own).toBeUndefined();
  });

  test('is put into another image of the board: there its own bytes, everywhere else the other’s', async () => {
    const [own, other] = [await dump(), noise(2 * chunkBytes, 42)];
    const base = await store(other, { facts: { ...facts, name: 'bought', source: 'dealer', panel: 'VL43-A2', board: 'qx 510' } });
    const reply = await putInto(base, own);
    expect(reply.status).toBe(201);
    const made = reply.body as Image;
    const wanted = Buffer.from(other);
    for (const { from, to } of places) bytes.copy(wanted, from, from, to);
    expect(Buffer.compare((await content(made.id)).body as Buffer, wanted)).toBe(0);
    expect(made.facts).toEqual({ ...base.facts, name: 'bought, own content in', own: places, ownFrom: own.sha256, job: own.facts.job });
    expect((await putInto(base, own, made.id)).status).toBe(409);
  });

  test('is put into nothing that it does not stand at the same place in', async () => {
    const own = await dump();
    const into = async (more: object, size = 2 * chunkBytes) =>
      putInto(await store(noise(size, 43), { facts: { ...facts, source: 'dealer', ...more } }), own);
    const replies = [
      await into({ board: 'QX-511' }),
      await into({ board: undefined }),
      await into({ area: 'boot-1' }),
      await into({}, chunkBytes),
      await putInto(own, await store(noise(2 * chunkBytes, 44))),
    ];
    expect(replies.map(({ status }) => status)).toEqual([400, 400, 400, 400, 400]);
    expect(JSON.stringify(replies.map(({ body }) => body as object))).toContain('two images of one board');
  });

  test('places that lie over each other, or none of any length, are refused', async () => {
    const image = await store(noise(100, 45));
    const said = (own: object) => publish(image.id, 100, { facts: { ...facts, own } });
    const one = { from: 10, to: 20, kind: 'keys' };
    expect((await said([one])).status).toBe(200);
    expect([(await said([one, { ...one, from: 19, to: 30 }])).status, (await said([{ ...one, to: 10 }])).status]).toEqual([400, 400]);
  });
});

describe('erasing', () => {
  const eraseBy = (id: string, reason = 'customer asked') =>
    ask(running.app).post(`/api/images/${id}/erase`).send({ by: running.person, reason });
  const later = (days: number) => ({ ...running.store, now: () => new Date(noon.getTime() + days * 86_400_000) });
  const jobOf = async (): Promise<string> => (await takeIn(running.store, newJobSchema.parse(intake(running.person)), uuidv7)).id;
  const close = (job: string) =>
    append(running.store, job, running.person, [draft({ kind: 'job.closed', v: 2, outcome: 'handed-back', minutes: 5 }, 99)]);

  test('its bytes are gone from the database with the next collection, and who, when and why stay', async () => {
    const bytes = noise(2 * chunkBytes, 31);
    const image = await store(bytes);
    const shared = await store(Buffer.concat([bytes.subarray(0, chunkBytes), noise(chunkBytes, 32)]));
    const held = async (piece: Buffer): Promise<number> =>
      (
        await running.store.sequelize.query('SELECT 1 FROM chunks WHERE sha256 = $1', {
          bind: [createHash('sha256').update(piece).digest()],
        })
      )[0].length;
    const reply = await eraseBy(image.id);
    expect(reply.body).toMatchObject({
      id: image.id,
      sha256: image.sha256,
      size: image.size,
      by: running.person,
      reason: 'customer asked',
    });
    expect([(await ask(running.app).get(`/api/images/${image.id}`)).status, (await eraseBy(image.id)).status]).toEqual([404, 404]);
    await collectChunks(later(1));
    // What another image has, too, is its own.
    expect([await held(bytes.subarray(0, chunkBytes)), await held(bytes.subarray(chunkBytes))]).toEqual([1, 0]);
    expect((await content(shared.id)).body).toHaveLength(2 * chunkBytes);
    const { erased } = (await ask(running.app).get('/api/image-erasures')).body as { erased: { id: string }[] };
    expect(erased.map(({ id }) => id)).toContain(image.id);
  });

  test('a dump of an open job is kept, whoever asks; once it is closed it may go', async () => {
    const job = await jobOf();
    const image = await store(noise(500, 33), { facts: { ...facts, job } });
    expect([(await eraseBy(image.id)).body]).toMatchObject([{ code: 'image-in-use' }]);
    await close(job);
    expect((await eraseBy(image.id)).status).toBe(200);
  });

  test('with a customer’s data it goes by itself, so long after the job was closed and not before; other dumps stay', async () => {
    const [job, open] = [await jobOf(), await jobOf()];
    // Nobody has to think of marking the user area of a set's own memory; a bought image of one is nobody's data.
    const mine = await store(noise(501, 34), { facts: { ...facts, memory: 'emmc', area: 'user', job } });
    const bought = await store(noise(504, 37), { facts: { ...facts, memory: 'emmc', area: 'user', source: 'dealer' } });
    const stillOpen = await store(noise(502, 35), { facts: { ...facts, job: open, userData: true } });
    const plain = await store(noise(503, 36), { facts: { ...facts, job } });
    await close(job);
    expect(await eraseOverdue(later(179))).toBe(0);
    expect(await eraseOverdue(later(181))).toBe(1);
    const there = async ({ id }: Image): Promise<number> => (await ask(running.app).get(`/api/images/${id}`)).status;
    expect([await there(mine), await there(stillOpen), await there(plain), await there(bought)]).toEqual([404, 200, 200, 200]);
    const { erased } = (await ask(running.app).get('/api/image-erasures')).body as {
      erased: { id: string; by: string | null; reason: string }[];
    };
    expect(erased.find(({ id }) => id === mine.id)).toMatchObject({ by: null, reason: 'retention' });
  });
});
