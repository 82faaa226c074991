/** What an operator relies on: figures, and a program that leaves a database alone which it doesn't fit. */
import { execFile } from 'node:child_process';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { inRoot } from '../../../scripts/lib/paths.mjs';
import { createApp } from '../src/app.ts';
import { readConfig } from '../src/config.ts';
import { connect } from '../src/database/connect.ts';
import { DatabaseNotFit, migrationState, newestMigration, requireFit } from '../src/database/migrate.ts';
import { createMetrics, serveMetrics } from '../src/http/metrics.ts';
import { openStore } from '../src/open.ts';
import { ask, askUnknown, noon, openTestApp, testAddress, testCluster, testHosts, type TestApp } from './support/testApp.ts';

let running: TestApp;
beforeAll(async () => {
  running = await openTestApp();
});
afterAll(() => running.close());

/** Value of a line of Prometheus’ text format; undefined where there is none. */
const valueOf = (text: string, line: string): number | undefined => {
  const found = text.split('\n').find((one) => one.startsWith(`${line} `));
  return found === undefined ? undefined : Number(found.slice(line.length + 1));
};

describe('figures', () => {
  const sockets = { sockets: () => 3, listening: () => true };
  test('count requests by operation and status, and nothing of what was in them', async () => {
    const metrics = createMetrics(running.store, '0.1.0', () => sockets);
    const app = createApp({
      store: running.store,
      door: running.door,
      log: pino({ level: 'silent' }),
      hosts: testHosts,
      ownAddress: () => testAddress,
      metrics,
    });
    await ask(app).get('/api/people');
    await ask(app).get('/api/people');
    await ask(app).post('/api/customers/search').send({ name: 'Petronel Ashby', contact: '' });
    await askUnknown(app).get('/api/people');
    await ask(app).get('/api/nowhere');
    const text = await metrics.read();
    const count = (operation: string, status: string): number | undefined =>
      valueOf(text, `veglia_http_request_seconds_count{operation="${operation}",status="${status}"}`);
    expect([count('listPeople', '200'), count('searchCustomers', '200'), count('other', '404')]).toEqual([2, 1, 1]);
    expect(text).toContain('status="401"');
    expect(valueOf(text, 'veglia_sockets')).toBe(3);
    expect(valueOf(text, 'veglia_live_listening')).toBe(1);
    expect(valueOf(text, 'veglia_database_up')).toBe(1);
    expect(valueOf(text, 'veglia_build_info{version="0.1.0"}')).toBe(1);
    expect(valueOf(text, 'process_resident_memory_bytes')).toBeGreaterThan(1e7);
    expect(text).not.toMatch(/Ashby|api[/]|127[.]0/);
  });

  test('say that the database is away, and answer all the same', async () => {
    const away = connect('postgres://nobody@127.0.0.1:1/none', 1);
    const text = await createMetrics({ sequelize: away }, '0.1.0', () => undefined).read();
    expect([valueOf(text, 'veglia_database_up'), valueOf(text, 'veglia_sockets'), valueOf(text, 'veglia_live_listening')]).toEqual([
      0, 0, 0,
    ]);
    await away.close();
  });

  test('are read on a port of their own, by GET, and nothing else is there', async () => {
    const server = await serveMetrics({ read: () => Promise.resolve('veglia_sockets 1\n') }, 0);
    const { port, address } = server.address() as AddressInfo;
    expect(address).toBe('127.0.0.1');
    const got = async (path: string, method = 'GET'): Promise<[number, string]> => {
      const reply = await fetch(`http://127.0.0.1:${port}${path}`, { method });
      return [reply.status, await reply.text()];
    };
    expect(await got('/metrics')).toEqual([200, 'veglia_sockets 1\n']);
    expect([(await got('/'))[0], (await got('/metrics', 'POST'))[0]]).toEqual([404, 404]);
    server.close();
  });
});

describe('a database', () => {
  const configOf = (url: string, more: Record<string, string> = {}) => readConfig({ DATABASE_URL: url, VEGLIA_MIGRATE: 'apart', ...more });
  const open = async (url: string, more?: Record<string, string>): Promise<void> => {
    const store = await openStore(configOf(url, more), () => noon);
    await store.sequelize.close();
  };
  function fresh(template?: string): { app: string; owner: string } {
    const name = `operated_${uuidv7().replaceAll('-', '')}`;
    testCluster().createDatabase(name, template);
    return { app: testCluster().url('app', name), owner: testCluster().url('owner', name) };
  }
  const sql = async (url: string, text: string): Promise<void> => {
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    await client.query(text).finally(() => client.end());
  };
  interface Ended {
    readonly code: number;
    readonly out: string;
    readonly err: string;
  }
  const admin = (args: string[], env: Record<string, string>): Promise<Ended> =>
    new Promise((resolve) => {
      execFile(
        process.execPath,
        ['--import', 'tsx', inRoot('packages/server/src/admin.ts'), ...args],
        { env: { ...process.env, ...env }, cwd: inRoot() },
        (error, out, err) => resolve({ code: typeof error?.code === 'number' ? error.code : 0, out, err }),
      );
    });

  test('whose tables somebody else changes is only looked at: one that fits is opened without any owner’s rights', async () => {
    await open(fresh('veglia_template').app);
  });
  test('that lacks tables is refused with what to do, and left as it is', async () => {
    const { app, owner } = fresh();
    await expect(open(app)).rejects.toThrow(/lacks 0001-foundation.*Run the migrations first/s);
    const client = connect(owner, 1);
    expect(await migrationState(client)).toMatchObject({ newest: null, unknown: [] });
    await client.close();
  });
  test('of a newer program is refused, whoever migrates, and left as it is', async () => {
    const { app, owner } = fresh('veglia_template');
    await sql(owner, `INSERT INTO migrations (name) VALUES ('9999-later')`);
    for (const VEGLIA_MIGRATE of ['apart', 'at-start'])
      await expect(open(app, { VEGLIA_MIGRATE, VEGLIA_OWNER_DATABASE_URL: owner })).rejects.toThrow(DatabaseNotFit);
    expect(await admin(['migrate', '--backed-up'], { DATABASE_URL: app, VEGLIA_OWNER_DATABASE_URL: owner })).toMatchObject({
      code: 3,
      err: expect.stringContaining('made by a newer Veglia (9999-later)'),
    });
  });
  test('that holds data is changed only after somebody says that there is a backup', async () => {
    const { app, owner } = fresh('veglia_template');
    await sql(owner, `DELETE FROM migrations WHERE name = '${newestMigration ?? ''}'`);
    await sql(owner, 'DROP TABLE passkeys');
    const env = { DATABASE_URL: app, VEGLIA_OWNER_DATABASE_URL: owner };
    expect(await admin(['migrate'], env)).toMatchObject({ code: 10, out: expect.stringContaining('Make a backup first') });
    await expect(open(app)).rejects.toThrow(DatabaseNotFit);
    expect(await admin(['migrate', '--backed-up'], env)).toMatchObject({
      code: 0,
      out: expect.stringContaining(newestMigration ?? '-'),
    });
    await open(app);
    expect(await admin(['migrate'], env)).toMatchObject({ code: 0, out: expect.stringContaining('"migrated":[]') });
  });
  test('gets its first owner by a code that the command shows, until there is one', async () => {
    const { app, owner } = fresh('veglia_template');
    const env = { DATABASE_URL: app, VEGLIA_OWNER_DATABASE_URL: owner };
    const { out } = await admin(['first-owner'], env);
    expect(JSON.parse(out)).toMatchObject({ code: expect.stringMatching(/^([A-Z2-9]{4}-){4}[A-Z2-9]{4}$/), hours: 24 });
    expect((await admin(['first-owner'], { DATABASE_URL: running.appUrl })).out).toContain('"code":null');
    expect((await admin(['dance'], env)).code).toBe(2);
  });
  test('is said to fit, to lack something, or to be ahead', () => {
    expect(() => requireFit({ newest: 'b', pending: [], unknown: [] })).not.toThrow();
    expect(() => requireFit({ newest: 'a', pending: ['b'], unknown: [] })).toThrow(/lacks b/);
    expect(() => requireFit({ newest: 'c', pending: ['b'], unknown: ['c'] })).toThrow(/newer Veglia \(c\)/);
  });
});
