/** A backup is whole, and what comes back is what went in: against a real PostgreSQL, by the command a shop calls. */
import { execFile } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { ensureGnupg } from '../../../scripts/lib/install.mjs';
import { inRoot } from '../../../scripts/lib/paths.mjs';
import { migrate } from '../src/database/migrate.ts';
import { connect } from '../src/database/connect.ts';
import { ask, openTestApp, testCluster, type TestApp } from './support/testApp.ts';

let running: TestApp;
const folder = mkdtempSync(path.join(tmpdir(), 'veglia-backup-'));
beforeAll(async () => {
  await ensureGnupg();
  running = await openTestApp({ demo: true });
}, 300_000);
afterAll(async () => {
  await running.close();
  rmSync(folder, { recursive: true });
});

interface Ended {
  readonly code: number;
  readonly out: Record<string, unknown>;
  readonly said: string;
}
const veglia = (args: string[], env: Record<string, string>): Promise<Ended> =>
  new Promise((resolve) => {
    const { VEGLIA_BACKUP_PASSPHRASE: _, ...own } = process.env;
    execFile(process.execPath, [inRoot('packages/cli/bin/veglia.js'), ...args], { env: { ...own, ...env } }, (error, stdout, stderr) =>
      resolve({
        code: typeof error?.code === 'number' ? error.code : 0,
        out: stdout === '' ? {} : (JSON.parse(stdout) as Record<string, unknown>),
        said: stdout + stderr,
      }),
    );
  });
function emptyDatabase(): string {
  const name = `restored_${uuidv7().replaceAll('-', '')}`;
  testCluster().createDatabase(name);
  return testCluster().url('owner', name);
}
/** Of every table what is in it, in one sum: PostgreSQL’s own words for each row. */
async function contents(url: string): Promise<Record<string, string>> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows: tables } = await client.query<{ tablename: string }>(
    "SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY 1",
  );
  const sums: Record<string, string> = {};
  for (const { tablename } of tables) {
    const { rows } = await client.query<{ sum: string }>(
      `SELECT count(*) || ' ' || md5(coalesce(string_agg(md5(t::text), '' ORDER BY md5(t::text)), '')) AS sum FROM "${tablename}" t`,
    );
    sums[tablename] = rows[0]?.sum ?? '';
  }
  await client.end();
  return sums;
}

describe('a backup', () => {
  test('restored into an empty database is equal table by table, and the shop goes on there', async () => {
    const file = path.join(folder, 'plain.dump');
    const made = await veglia(['backup', file], { DATABASE_URL: running.ownerUrl });
    expect(made).toMatchObject({ code: 0, out: { encrypted: false, bytes: statSync(file).size } });
    expect([file, `${file}.json`].map((one) => statSync(one).mode & 0o077)).toEqual([0, 0]);
    expect(made.said).not.toContain(new URL(running.ownerUrl).password || 'no password here');
    const url = emptyDatabase();
    expect(await veglia(['restore', file], { DATABASE_URL: url })).toMatchObject({ code: 0, out: { rows: made.out.rows } });
    const there = await contents(url);
    expect(there).toEqual(await contents(running.ownerUrl));
    expect(Object.keys(there).length).toBeGreaterThan(20);
    // Rights are not in it: a start gives them, as on any day.
    const owner = connect(url, 2);
    await migrate(owner, 'veglia_app');
    await owner.close();
    const again = await veglia(['restore', file], { DATABASE_URL: url });
    expect([again.code, again.said]).toEqual([1, expect.stringContaining('never written over')]);
  });

  test('is one state, whoever writes meanwhile; what was written after it is not in it', async () => {
    const file = path.join(folder, 'busy.dump');
    let writing = true;
    const writer = (async () => {
      for (let n = 0; writing; n += 1)
        await ask(running.app)
          .post('/api/accounts')
          .send({ id: uuidv7(), name: `Busy ${n}`, role: 'counter' });
    })();
    const made = await veglia(['backup', file], { DATABASE_URL: running.ownerUrl });
    writing = false;
    await writer;
    const url = emptyDatabase();
    expect(await veglia(['restore', file], { DATABASE_URL: url })).toMatchObject({ code: 0, out: { rows: made.out.rows } });
    const rows = made.out.rows as Record<string, number>;
    // One line of the audit for each person: never one without the other.
    expect(rows.audit).toBe((rows.people ?? 0) - 3);
    expect((rows.people ?? 0) - 3).toBeLessThan(await running.store.models.audit.count());
  });

  test('encrypted, it opens with its passphrase alone; no word of it can be read', async () => {
    const file = path.join(folder, 'secret.dump.gpg');
    const secret = { VEGLIA_BACKUP_PASSPHRASE: 'three blue doors ajar' };
    expect(await veglia(['backup', file], { DATABASE_URL: running.ownerUrl, ...secret })).toMatchObject({
      code: 0,
      out: { encrypted: true },
    });
    const bytes = readFileSync(file);
    expect(bytes.includes('PGDMP')).toBe(false);
    expect(readFileSync(`${file}.json`, 'utf8')).not.toContain('doors');
    const url = emptyDatabase();
    for (const [env, said] of [
      [{}, 'the passphrase of this backup'],
      [{ VEGLIA_BACKUP_PASSPHRASE: 'three blue doors' }, 'gpg'],
    ] as const) {
      const tried = await veglia(['restore', file], { DATABASE_URL: url, ...env });
      expect([tried.code, tried.said]).toEqual([1, expect.stringContaining(said)]);
      expect(await contents(url)).toEqual({});
    }
    expect(await veglia(['restore', file], { DATABASE_URL: url, ...secret })).toMatchObject({ code: 0 });
    expect(await contents(url)).toEqual(await contents(running.ownerUrl));
  });

  test.each([
    ['a byte is another one', (bytes: Buffer) => void (bytes[Math.floor(bytes.length / 2)]! ^= 1)],
    ['its end is missing', (bytes: Buffer) => bytes.subarray(0, bytes.length - 4096)],
  ])('where %s, nothing is restored', async (_, spoil) => {
    const file = path.join(folder, `spoilt-${uuidv7()}.dump`);
    await veglia(['backup', file], { DATABASE_URL: running.ownerUrl });
    const bytes = readFileSync(file);
    writeFileSync(file, spoil(bytes) ?? bytes);
    const url = emptyDatabase();
    const tried = await veglia(['restore', file], { DATABASE_URL: url });
    expect([tried.code, tried.said]).toEqual([1, expect.stringContaining('damaged')]);
    expect(await contents(url)).toEqual({});
  });

  test('never goes over a file, leaves nothing half, and says what is wrong', async () => {
    const file = path.join(folder, 'there.dump');
    writeFileSync(file, 'somebody’s');
    expect((await veglia(['backup', file], { DATABASE_URL: running.ownerUrl })).code).toBe(1);
    expect(readFileSync(file, 'utf8')).toBe('somebody’s');
    const before = readdirSync(folder).length;
    const nowhere = await veglia(['backup', path.join(folder, 'nowhere.dump')], { DATABASE_URL: 'postgres://x@127.0.0.1:1/none' });
    expect([nowhere.code, nowhere.said]).toEqual([1, expect.stringContaining('a database that can be reached')]);
    expect(readdirSync(folder)).toHaveLength(before);
    expect((await veglia(['backup'], { DATABASE_URL: running.ownerUrl })).code).toBe(2);
  });

  test('in a folder the newest stay, and nothing of another name is touched', async () => {
    const own = mkdtempSync(path.join(folder, 'nightly-'));
    for (const day of ['01', '02', '03']) {
      writeFileSync(path.join(own, `veglia-202001${day}T000000Z.dump`), 'old');
      writeFileSync(path.join(own, `veglia-202001${day}T000000Z.dump.json`), '{}');
    }
    writeFileSync(path.join(own, 'veglia-of-last-year.dump'), 'kept by hand');
    const made = await veglia(['backup', '--folder', own, '--keep', '2'], { DATABASE_URL: running.ownerUrl });
    expect(made).toMatchObject({ code: 0, out: { dropped: ['veglia-20200101T000000Z.dump', 'veglia-20200102T000000Z.dump'] } });
    expect(readdirSync(own).sort()).toEqual(
      [path.basename(made.out.file as string), 'veglia-of-last-year.dump', 'veglia-20200103T000000Z.dump']
        .flatMap((name) => (name === 'veglia-of-last-year.dump' ? [name] : [name, `${name}.json`]))
        .sort(),
    );
  });
});
