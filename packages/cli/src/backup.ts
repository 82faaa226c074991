/**
 * `veglia backup` and `veglia restore`: the whole database in one file that PostgreSQL’s own pg_restore reads, encrypted on request as gpg reads it, with
 * a second file beside it that says what must be in it. Everything is streamed; nothing is there under its name before it is whole.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, open, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Readable, Writable } from 'node:stream';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { InputRefused } from '@veglia/core';
import pg from 'pg';
import { z } from 'zod';

/** What stands beside a backup: enough to know that it is whole, and that what came back is what went in. */
export const backupFactsSchema = z.strictObject({
  format: z.literal('veglia-backup'),
  version: z.literal(1),
  at: z.iso.datetime(),
  /** Last migration of the database it was made of. */
  migration: z.string(),
  encrypted: z.boolean(),
  bytes: z.number().int().positive(),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  /** Rows of each table, in the very state that was written. */
  rows: z.record(z.string(), z.number().int().min(0)),
});
/** What stands beside a backup. */
export type BackupFacts = z.infer<typeof backupFactsSchema>;

const refused = (where: string, expected: string, value = ''): InputRefused =>
  new InputRefused([{ code: 'schema', where, expected, ...(value === '' ? {} : { value }) }]);
const factsFile = (file: string): string => `${file}.json`;

/** PostgreSQL’s programs read these; on a command line others could read a password. Throws InputRefused. */
function environmentOf(url: string): NodeJS.ProcessEnv {
  if (!URL.canParse(url)) throw refused('DATABASE_URL', 'an address such as postgres://user@host/database');
  const { hostname, port, username, password, pathname, searchParams } = new URL(url);
  return {
    ...process.env,
    // A host in the query is a folder with a socket.
    PGHOST: searchParams.get('host') ?? decodeURIComponent(hostname),
    ...(port === '' ? {} : { PGPORT: port }),
    PGUSER: decodeURIComponent(username),
    ...(password === '' ? {} : { PGPASSWORD: decodeURIComponent(password) }),
    PGDATABASE: decodeURIComponent(pathname.slice(1)),
  };
}

/** Resolves when it ended well; throws InputRefused with what it said last. */
async function ended(child: ChildProcess, name: string): Promise<void> {
  let said = '';
  child.stderr?.on('data', (piece: Buffer) => (said = (said + piece.toString()).slice(-2000)));
  const code = await new Promise<number | null>((resolve, reject) => {
    child.once('error', () => reject(refused(name, 'a program of this machine (Debian: postgresql-client, gnupg)')));
    child.once('close', resolve);
  });
  if (code !== 0) throw refused(name, 'to end well', said.trim().split('\n').slice(-3).join(' '));
}

/** gpg with a keyring of its own that nothing stays in; the passphrase goes through a pipe. */
async function gpg(passphrase: string, way: readonly string[]): Promise<{ child: ChildProcess; clear: () => Promise<void> }> {
  const home = await mkdtemp(path.join(tmpdir(), 'veglia-gpg-'));
  const child = spawn(
    'gpg',
    ['--homedir', home, '--batch', '--quiet', '--no-tty', '--pinentry-mode', 'loopback', '--passphrase-fd', '3', ...way],
    {
      stdio: ['pipe', 'pipe', 'pipe', 'pipe'],
    },
  );
  const secret = child.stdio[3] as Writable;
  secret.on('error', () => undefined);
  secret.end(`${passphrase}\n`);
  return {
    child,
    clear: async () => {
      spawn('gpgconf', ['--homedir', home, '--kill', 'all'], { stdio: 'ignore' }).on('error', () => undefined);
      await rm(home, { recursive: true, force: true });
    },
  };
}

/** Hashes and counts what goes through. */
function measured(): { through: Transform; sha256: () => string; bytes: () => number } {
  const hash = createHash('sha256');
  let bytes = 0;
  const through = new Transform({
    transform(piece: Buffer, _encoding, done) {
      hash.update(piece);
      bytes += piece.length;
      done(null, piece);
    },
  });
  return { through, sha256: () => hash.digest('hex'), bytes: () => bytes };
}

const tablesSql = `SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY tablename`;
async function rowsOf(client: pg.Client): Promise<Record<string, number>> {
  const { rows: tables } = await client.query<{ tablename: string }>(tablesSql);
  const rows: Record<string, number> = {};
  for (const { tablename } of tables) {
    const { rows: counted } = await client.query<{ n: string }>(`SELECT count(*) AS n FROM "${tablename.replaceAll('"', '""')}"`);
    rows[tablename] = Number(counted[0]?.n);
  }
  return rows;
}
async function connected(url: string): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 8000 });
  try {
    await client.connect();
  } catch (error) {
    throw refused('DATABASE_URL', 'a database that can be reached', (error as { code?: string }).code ?? 'unknown');
  }
  return client;
}

/** What a backup is made with. */
export interface BackupOptions {
  /** Of the role that owns the tables. */
  readonly url: string;
  /** Encrypts. */
  readonly passphrase?: string | undefined;
  readonly now: () => Date;
}

/** Writes a backup, never over a file. What it holds is one state of the database, however long it takes and whoever writes meanwhile. */
export async function backup(
  file: string,
  { url, passphrase, now }: BackupOptions,
): Promise<BackupFacts & { file: string; seconds: number }> {
  for (const one of [file, factsFile(file)]) if (await stat(one).catch(() => undefined)) throw refused(one, 'a file that is not there yet');
  const env = environmentOf(url);
  const began = now();
  const client = await connected(url);
  const part = `${file}.part`;
  let coder: Awaited<ReturnType<typeof gpg>> | undefined;
  try {
    await client.query('BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY');
    const snapshot = (await client.query<{ pg_export_snapshot: string }>('SELECT pg_export_snapshot()')).rows[0]?.pg_export_snapshot ?? '';
    const migration = (await client.query<{ name: string }>('SELECT name FROM migrations ORDER BY name DESC LIMIT 1')).rows[0]?.name ?? '';
    const dump = spawn('pg_dump', ['--format=custom', '--compress=1', '--no-owner', '--no-privileges', `--snapshot=${snapshot}`], {
      env,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    coder =
      passphrase === undefined
        ? undefined
        : await gpg(passphrase, ['--symmetric', '--cipher-algo', 'AES256', '--compress-algo', 'none', '--output', '-']);
    const { through, sha256, bytes } = measured();
    const out = createWriteStream(part, { flags: 'wx', mode: 0o600, flush: true });
    const written = coder
      ? Promise.all([
          pipeline(dump.stdout, coder.child.stdin as Writable),
          pipeline(coder.child.stdout as Readable, through, out),
          ended(coder.child, 'gpg'),
        ])
      : pipeline(dump.stdout, through, out);
    await allOf([ended(dump, 'pg_dump'), written]);
    const facts: BackupFacts = {
      format: 'veglia-backup',
      version: 1,
      at: began.toISOString(),
      migration,
      encrypted: coder !== undefined,
      bytes: bytes(),
      sha256: sha256(),
      rows: await rowsOf(client),
    };
    await client.query('COMMIT');
    // Read back from the disk: what is there is what was meant.
    if ((await hashOf(part)) !== facts.sha256) throw refused(part, 'what was written; the disk gave back something else');
    await writeFile(factsFile(file), `${JSON.stringify(facts, null, 2)}\n`, { mode: 0o600, flush: true });
    await rename(part, file);
    await flushFolder(path.dirname(file));
    return { file, ...facts, seconds: (now().getTime() - began.getTime()) / 1000 };
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  } finally {
    await client.end();
    await coder?.clear();
  }
}

/** All of them, also those that still run when one failed; then throws the first that failed, a refusal before a broken pipe. */
async function allOf(work: readonly Promise<unknown>[]): Promise<void> {
  const results = await Promise.allSettled(work);
  const failed = results.flatMap((one) => (one.status === 'rejected' ? [one.reason as Error] : []));
  const first = failed.find((one) => one instanceof InputRefused) ?? failed[0];
  if (first) throw first;
}
async function hashOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const piece of createReadStream(file, { highWaterMark: 2 ** 20 })) hash.update(piece as Buffer);
  return hash.digest('hex');
}
/** A name is on the disk once its folder is. */
async function flushFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r');
  await handle.sync().finally(() => handle.close());
}

const ownName = /^veglia-\d{8}T\d{6}Z\.dump(?:\.gpg)?$/;
/** A backup under a name of its time, and of those in the folder the newest so many stay. Nothing that is named otherwise is touched. */
export async function backupInto(folder: string, keep: number, options: BackupOptions): Promise<object> {
  const time = options.now().toISOString().replace(/[-:]/g, '').replace(/\.\d+/, '');
  const made = await backup(path.join(folder, `veglia-${time}.dump${options.passphrase === undefined ? '' : '.gpg'}`), options);
  const names = (await readdir(folder)).filter((name) => ownName.test(name)).sort();
  const dropped = names.slice(0, Math.max(0, names.length - keep));
  for (const name of dropped) {
    await rm(path.join(folder, name));
    await rm(path.join(folder, factsFile(name)), { force: true });
  }
  return { ...made, dropped };
}

/** What was restored. */
export interface Restored {
  readonly file: string;
  readonly at: string;
  readonly rows: Readonly<Record<string, number>>;
  readonly seconds: number;
}

/** Into an empty database; in one transaction, so that it is all there or nothing. Throws InputRefused before anything is written where the file isn’t whole. */
export async function restore(file: string, { url, passphrase, now }: BackupOptions): Promise<Restored> {
  const began = now();
  const env = environmentOf(url);
  const text = await readFile(factsFile(file), 'utf8').catch(() => {
    throw refused(factsFile(file), 'the file that was written beside the backup');
  });
  const facts = backupFactsSchema.safeParse(readJson(text));
  if (!facts.success) throw refused(factsFile(file), 'the facts of a backup');
  const { sha256, encrypted, rows, at } = facts.data;
  const found = await hashOf(file).catch(() => {
    throw refused(file, 'a backup');
  });
  if (found !== sha256) throw refused(file, `SHA-256 ${sha256}: the backup is damaged, and nothing was restored`, found);
  if (encrypted) await requireWhole(file, passphrase);
  const client = await connected(url);
  let coder: Awaited<ReturnType<typeof gpg>> | undefined;
  try {
    const { rows: tables } = await client.query<{ tablename: string }>(tablesSql);
    if (tables.length > 0)
      throw refused('DATABASE_URL', 'an empty database: what is there is never written over', `${tables.length} tables`);
    const reader = spawn(
      'pg_restore',
      ['--dbname', env.PGDATABASE ?? '', '--no-owner', '--no-privileges', '--exit-on-error', '--single-transaction'],
      {
        env,
        stdio: ['pipe', 'ignore', 'pipe'],
      },
    );
    coder = encrypted ? await gpg(passphrase ?? '', ['--decrypt', '--output', '-']) : undefined;
    const source = createReadStream(file, { highWaterMark: 2 ** 20 });
    await allOf([
      ended(reader, 'pg_restore'),
      ...(coder
        ? [
            ended(coder.child, 'gpg'),
            pipeline(source, coder.child.stdin as Writable),
            pipeline(coder.child.stdout as Readable, reader.stdin),
          ]
        : [pipeline(source, reader.stdin)]),
    ]);
    const restored = await rowsOf(client);
    const other = Object.entries(rows).find(([table, n]) => restored[table] !== n);
    if (other) throw refused(other[0], `${other[1]} rows, as they were written`, String(restored[other[0]] ?? 0));
    return { file, at, rows: restored, seconds: (now().getTime() - began.getTime()) / 1000 };
  } finally {
    await client.end();
    await coder?.clear();
  }
}
/** gpg says only at the end whether someone changed the file: by then a restore would have begun. Throws InputRefused. */
async function requireWhole(file: string, passphrase: string | undefined): Promise<void> {
  if (passphrase === undefined) throw refused('VEGLIA_BACKUP_PASSPHRASE', 'the passphrase of this backup');
  const { child, clear } = await gpg(passphrase, ['--decrypt', '--output', '-']);
  child.stdout?.resume();
  try {
    await allOf([ended(child, 'gpg'), pipeline(createReadStream(file, { highWaterMark: 2 ** 20 }), child.stdin as Writable)]);
  } finally {
    await clear();
  }
}
function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
