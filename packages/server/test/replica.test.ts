/** A real copy of a real database (hot standby): what was acknowledged is in what is read next, whatever the copy does. */
import { mkdtempSync, rmSync, chmodSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { jobCardsSchema } from '@veglia/contract';
import pg from 'pg';
import { Cluster } from '../../../scripts/lib/cluster.mjs';
import { openReplica, replicaPatience, type Replica } from '../src/database/replica.ts';
import { ask, intake, noon, openTestApp, testCluster, type TestApp } from './support/testApp.ts';

let folder: string;
let cluster: Cluster;
let copy: Cluster;
let replica: Replica;
let shop: TestApp;
let database: string;
let now = noon.getTime();
/** The moments in which a read waited for the copy. */
let waits = 0;

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-test-replica-'));
  chmodSync(folder, 0o755);
  // Acknowledged is on the disk: the clusters of other tests leave that out.
  cluster = new Cluster({ bin: String(testCluster().bin), folder: path.join(folder, 'main') });
  cluster.create();
  await cluster.start();
  cluster.createRoles();
  copy = await cluster.follow(path.join(folder, 'copy'));
  shop = await openTestApp({
    cluster,
    now: () => new Date(now),
    replica: (name) => {
      database = name;
      replica = openReplica(copy.url('app', name), (ms) => {
        waits += 1;
        return new Promise((resolve) => setTimeout(resolve, ms));
      });
      return replica;
    },
  });
}, 180_000);
afterAll(async () => {
  await replica.close();
  await shop.close();
  copy.remove();
  cluster.remove();
  rmSync(folder, { recursive: true, force: true });
});

async function onCopy(sql: string): Promise<unknown> {
  const client = new pg.Client({ connectionString: copy.url('admin', database) });
  await client.connect();
  try {
    return (await client.query(sql)).rows[0];
  } finally {
    await client.end();
  }
}
async function takeIn(serial: string): Promise<void> {
  const reply = await ask(shop.app)
    .post('/api/jobs')
    .send(intake(shop.person, { plate: { maker: 'Quorvane', model: 'QK3-50', serial } }));
  expect(reply.status).toBe(201);
}
async function serials(): Promise<string[]> {
  const reply = await ask(shop.app).get('/api/jobs?order=newest').expect(200);
  return jobCardsSchema.parse(reply.body).jobs.map(({ serial }) => serial);
}

test('what was acknowledged is in the list that is asked for next, from the copy', async () => {
  const before = { ...replica.counts };
  for (let n = 0; n < 15; n += 1) {
    await takeIn(`R-${n}`);
    expect(await serials()).toContain(`R-${n}`);
  }
  expect(replica.counts.replica - before.replica).toBeGreaterThan(7);
  expect(replica.counts.away).toBe(before.away);
});

test('a copy that stands still is waited for a moment, then left out', async () => {
  await onCopy('SELECT pg_wal_replay_pause()');
  try {
    await takeIn('STILL-1');
    const before = { ...replica.counts };
    waits = 0;
    expect(await serials()).toContain('STILL-1');
    expect(replica.counts).toEqual({ ...before, behind: before.behind + 1 });
    expect(waits).toBe(replicaPatience.catchUp / replicaPatience.step);
    expect(await onCopy(`SELECT count(*)::int AS n FROM sets WHERE serial = 'STILL-1'`)).toEqual({ n: 0 });
  } finally {
    await onCopy('SELECT pg_wal_replay_resume()');
  }
  const before = replica.counts.replica;
  for (let n = 0; replica.counts.replica === before && n < 100; n += 1) expect(await serials()).toContain('STILL-1');
  expect(replica.counts.replica).toBeGreaterThan(before);
});

test('photos and searches come from the copy, too', async () => {
  const before = replica.counts.replica;
  const id = '01890000-0000-7000-8000-0000000000aa';
  const bytes = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16]), Buffer.from('JFIF'), Buffer.alloc(500, 7)]);
  await ask(shop.app).put(`/api/photos/${id}`).set('content-type', 'image/jpeg').send(bytes).expect(201);
  const photo = await ask(shop.app).get(`/api/photos/${id}`).expect(200);
  expect(Buffer.compare(photo.body as Buffer, bytes)).toBe(0);
  const found = await ask(shop.app).post('/api/customers/search').send({ name: 'Petronel', contact: '' }).expect(200);
  expect((found.body as { customers: unknown[] }).customers.length).toBeGreaterThan(0);
  expect(replica.counts.replica + replica.counts.behind).toBeGreaterThanOrEqual(before + 2);
});

test('while the copy is away everything comes from the database; it is asked again a second later', async () => {
  copy.stop('immediate');
  await takeIn('AWAY-1');
  const before = { ...replica.counts };
  expect(await serials()).toContain('AWAY-1');
  expect(await serials()).toContain('AWAY-1');
  expect(replica.counts).toEqual({ ...before, away: before.away + 2 });
  await copy.start();
  expect(await serials()).toContain('AWAY-1');
  expect(replica.counts.away).toBe(before.away + 3);
  now += replicaPatience.away;
  for (let n = 0; replica.counts.replica === before.replica && n < 100; n += 1) {
    await takeIn(`BACK-${n}`);
    expect(await serials()).toContain(`BACK-${n}`);
  }
  expect(replica.counts.replica).toBeGreaterThan(before.replica);
});

test('a copy that was made the database itself is no copy any more', async () => {
  await onCopy('SELECT pg_promote()');
  await takeIn('PROMOTED-1');
  const before = { ...replica.counts };
  expect(await serials()).toContain('PROMOTED-1');
  expect(replica.counts).toEqual({ ...before, behind: before.behind + 1 });
});
