/** A server app on a database of its own, copied from the migrated template. */
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import {
  listJobsQuery,
  mostOnAPage,
  ownHeader,
  problemDocumentSchema,
  sessionSchema,
  type EntryDraft,
  type JobCards,
  type NewJobInput,
} from '@veglia/contract';
import type { Express } from 'express';
import { pino, type Logger } from 'pino';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { Cluster } from '../../../../scripts/lib/cluster.mjs';
import { inRoot } from '../../../../scripts/lib/paths.mjs';
import { openDoor, type Door } from '../../src/accounts/door.ts';
import { firstOwnerCode } from '../../src/accounts/join.ts';
import { createApp } from '../../src/app.ts';
import type { Replica } from '../../src/database/replica.ts';
import { hostsOf } from '../../src/http/hosts.ts';
import { listJobs } from '../../src/jobs/list.ts';
import { openLive } from '../../src/live/live.ts';
import { openStore } from '../../src/open.ts';
import type { Store } from '../../src/store.ts';

/** As a shop has it that is reached by a name of its own too. */
export const testAddress = 'https://bench.example.org';
export const testHosts = hostsOf([testAddress]);

/** Of each app, and of the one opened last. */
const cookies = new WeakMap<Express, string>();
let lastCookie = '';
/** Requests as our own page sends them, by the one person who is signed in. */
export function ask(app: Express): ReturnType<typeof request.agent> {
  return request
    .agent(app)
    .set(ownHeader, '1')
    .set('cookie', cookies.get(app) ?? lastCookie);
}
/** The same of a browser in which nobody is signed in. */
export const askUnknown = (app: Express): ReturnType<typeof request.agent> => request.agent(app).set(ownHeader, '1');
/** What a reply set, as a browser sends it back. */
export const cookiesOf = ({ headers }: { headers: unknown }): string =>
  ((headers as { 'set-cookie'?: string[] })['set-cookie'] ?? []).map((one) => one.split(';', 1)[0]).join('; ');
/** Of the owner of each test app. */
export const testPassword = 'copper lantern over nine harbours';

export const noon = new Date('2026-03-02T12:00:00.000Z');

export interface TestApp {
  readonly app: Express;
  readonly store: Store;
  readonly door: Door;
  /** Of whoever is signed in. */
  readonly cookie: string;
  readonly appUrl: string;
  readonly ownerUrl: string;
  /** The one person a database without demo data has: an owner, signed in. */
  readonly person: string;
  close(): Promise<void>;
}

export function testCluster(): Cluster {
  const { bin, folder, port } = JSON.parse(process.env.VEGLIA_TEST_CLUSTER ?? '{}') as { bin: string; folder: string; port: number };
  const cluster = new Cluster({ bin, folder, fast: true });
  cluster.port = port;
  return cluster;
}

/** `cluster`: one of the test's own, in which nothing is prepared; `replica`: from the name of the database. */
export async function openTestApp(
  options: { demo?: boolean; log?: Logger; now?: () => Date; cluster?: Cluster; replica?: (database: string) => Replica } = {},
): Promise<TestApp> {
  const cluster = options.cluster ?? testCluster();
  const name = `test_${uuidv7().replaceAll('-', '')}`;
  cluster.createDatabase(name, options.cluster ? 'template1' : 'veglia_template');
  const appUrl = cluster.url('app', name);
  const ownerUrl = cluster.url('owner', name);
  const config = {
    host: '127.0.0.1',
    port: 0,
    databaseUrl: appUrl,
    ownerUrl,
    publicUrls: [],
    staticDir: undefined,
    packDir: inRoot('knowledge'),
    demoDir: options.demo ? inRoot('demo') : undefined,
    programmers: [],
    logLevel: 'silent' as const,
    graceSeconds: 1,
  };
  const clock = options.now ?? (() => noon);
  const store = await openStore(config, clock);
  const door = await openDoor(store, appUrl, { demo: options.demo ?? false, encrypted: false });
  const log = options.log ?? pino({ level: 'silent' });
  const app = createApp({ store, replica: options.replica?.(name), log, door, hosts: testHosts, ownAddress: () => testAddress });
  const person = '00000000-0000-7000-8000-000000000001';
  if (!options.demo) await store.models.people.create({ id: person, name: 'Technician' });
  const joined = options.demo
    ? await askUnknown(app).post('/api/session/demo').send({})
    : await askUnknown(app)
        .post('/api/session/join')
        .send({ code: await firstOwnerCode(store), name: 'Technician', password: testPassword });
  if (joined.status !== 200) throw new Error(`the owner of the test can't sign in: ${JSON.stringify(joined.body)}`);
  const cookie = cookiesOf(joined);
  cookies.set(app, cookie);
  lastCookie = cookie;
  return {
    app,
    store,
    door,
    cookie,
    appUrl,
    ownerUrl,
    person: sessionSchema.parse(joined.body).signedIn?.id ?? '',
    async close() {
      await door.close();
      await store.sequelize.close();
    },
  };
}

/** The same on a socket of its own, with live messages; closes all of it. */
export async function openListening(options: { log?: Logger } = {}): Promise<TestApp & { readonly port: number }> {
  const running = await openTestApp(options);
  const server = createServer(running.app);
  const live = openLive(server, running.appUrl, pino({ level: 'silent' }), testHosts, running.door, 40);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  await live.ready;
  return {
    ...running,
    port: (server.address() as AddressInfo).port,
    async close() {
      await live.close();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await running.close();
    },
  };
}

/** `ok`, or the code of the refusal. */
export const codeOf = ({ status, body }: { readonly status: number; readonly body: unknown }): string =>
  status < 400 ? 'ok' : problemDocumentSchema.parse(body).code;
/** The owner shows again who they are: what is not taken back asks for it. */
export async function confirmOwner(app: Express): Promise<void> {
  const reply = await ask(app).post('/api/session/confirm').send({ password: testPassword });
  if (codeOf(reply) !== 'ok') throw new Error(`the owner is not confirmed: ${JSON.stringify(reply.body)}`);
}

export function draft(body: Record<string, unknown> & { kind: string }, basedOn = 0): EntryDraft {
  return { id: uuidv7(), at: noon.toISOString(), basedOn, body };
}

export function intake(person: string, change: Partial<NewJobInput> = {}): NewJobInput {
  return {
    id: uuidv7(),
    by: person,
    customer: { name: 'Petronel Ashby', contact: '01632 960199' },
    plate: { maker: 'Quorvane', model: 'QK3-50', serial: 'Q350-1' },
    entries: [
      draft({ kind: 'job.opened', v: 1, set: { layout: 'led-tcon', family: 'quorvane.qk3' }, earlier: 'her nephew looked inside' }),
      draft({ kind: 'symptom.reported', v: 1, symptoms: ['sound-dark'], words: 'it only talks' }),
    ],
    ...change,
  };
}

const proofRows = JSON.parse(readFileSync(inRoot('knowledge/proof.json'), 'utf8')) as { id: string; kind: string; safety?: string }[];
/** Everything but safety left out of a proof of repair, for jobs whose proof is not what is tested. */
export const unproven = (basedOn: number): EntryDraft[] =>
  [
    ...new Set(
      proofRows.flatMap(({ id, kind, safety }) => (safety !== undefined ? [] : ['starts', 'soak', 'days'].includes(kind) ? [kind] : [id])),
    ),
  ].map((item) => draft({ kind: 'proof.skipped', v: 1, item, reason: 'done-elsewhere' }, basedOn));

/** The first two hundred cards, oldest first. */
export const allCards = (store: Store): Promise<JobCards> => listJobs(store, listJobsQuery.parse({ limit: mostOnAPage }));
