/**
 * `npm run bench:archive`: continuous archiving as docs/deployment.md describes it, tried: a base backup, a shop that goes on, a disaster, and back to a moment
 * between two entries. Says how far it came back, and how much would be lost at most.
 */
import {
  appendFileSync,
  chmodSync,
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import { Cluster } from '../../scripts/lib/cluster.mjs';
import { ensurePostgres } from '../../scripts/lib/install.mjs';
import { inRoot } from '../../scripts/lib/paths.mjs';
import { ask, isRoot } from '../../scripts/lib/run.mjs';
import { runMain, say, stop } from '../../scripts/lib/say.mjs';

/** The settings as the document has them, with its folder put in its place. */
function settingsOf(folder) {
  const text = readFileSync(inRoot('docs/deployment.md'), 'utf8');
  const lines = [...text.matchAll(/^ {4}((?:wal_level|archive_mode|archive_timeout|archive_command) = .*)$/gm)].map(([, line]) => line);
  if (lines.length !== 4) stop('docs/deployment.md no longer says how the log is archived.');
  return lines.map((line) => line.replaceAll('/srv/wal', folder)).join('\n');
}
const asPostgres = (command, args) => {
  const [program, rest] = isRoot()
    ? ['setpriv', ['--reuid', 'postgres', '--regid', 'postgres', '--init-groups', '--', command, ...args]]
    : [command, args];
  const { ok, err } = ask(program, rest, { cwd: '/' });
  if (!ok) stop(`${command}: ${err}`);
};

await runMain(async () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-bench-archive-'));
  chmodSync(folder, 0o777);
  const wal = path.join(folder, 'wal');
  mkdirSync(wal);
  chmodSync(wal, 0o777);
  const bin = await ensurePostgres();
  const cluster = new Cluster({ bin, folder: path.join(folder, 'postgres') });
  try {
    cluster.create();
    appendFileSync(path.join(cluster.data, 'postgresql.conf'), `\n${settingsOf(wal)}\n`);
    await cluster.start();
    cluster.createRoles();
    cluster.createDatabase('veglia');
    const base = path.join(folder, 'base');
    asPostgres(path.join(bin, 'pg_basebackup'), ['-d', cluster.url('admin', 'postgres'), '-D', base, '-X', 'stream', '-c', 'fast']);
    const client = new pg.Client({ connectionString: cluster.url('owner', 'veglia') });
    client.on('error', () => undefined);
    await client.connect();
    await client.query('CREATE TABLE entries (n integer PRIMARY KEY, at timestamptz NOT NULL DEFAULT clock_timestamp())');
    const write = async (from, to) => {
      for (let n = from; n <= to; n += 1) await client.query('INSERT INTO entries (n) VALUES ($1)', [n]);
    };
    await write(1, 500);
    const { rows } = await client.query('SELECT clock_timestamp()::text AS moment');
    await pause(50);
    await write(501, 600);
    // What an owner fears: everything gone by a wrong statement, and the disk soon after.
    await client.query('DELETE FROM entries');
    const admin = new pg.Client({ connectionString: cluster.url('admin', 'postgres') });
    await admin.connect();
    // In a shop archive_timeout does this once a minute.
    const { rows: switched } = await admin.query('SELECT pg_walfile_name(pg_switch_wal()) AS file');
    for (const from = Date.now(); !existsSync(path.join(wal, switched[0].file)); await pause(100))
      if (Date.now() - from > 30_000) stop('The log is not archived.');
    await admin.end();
    await client.end();
    cluster.stop('immediate');
    rmSync(cluster.data, { recursive: true });
    cpSync(base, cluster.data, { recursive: true, preserveTimestamps: true });
    if (isRoot()) ask('chown', ['-R', 'postgres:postgres', cluster.data]);
    chmodSync(cluster.data, 0o700);
    appendFileSync(
      path.join(cluster.data, 'postgresql.conf'),
      `\nrestore_command = 'cp ${wal}/%f %p'\nrecovery_target_time = '${rows[0].moment}'\n`,
    );
    writeFileSync(path.join(cluster.data, 'recovery.signal'), '');
    if (isRoot()) ask('chown', ['postgres:postgres', path.join(cluster.data, 'recovery.signal')]);
    const began = Date.now();
    await cluster.start();
    const again = new pg.Client({ connectionString: cluster.url('admin', 'veglia') });
    await again.connect();
    const { rows: found } = await again.query('SELECT count(*)::int AS n, max(n) AS last FROM entries');
    await again.query('SELECT pg_wal_replay_resume()');
    for (const from = Date.now(); (await again.query('SELECT pg_is_in_recovery() AS still')).rows[0].still; await pause(100))
      if (Date.now() - from > 30_000) stop('It stays in recovery.');
    await again.query('INSERT INTO entries (n) VALUES (1000)');
    await again.end();
    say(
      `${readdirSync(wal).length} files of log; back at the moment between entry 500 and 501 in ${((Date.now() - began) / 1000).toFixed(1)} s: ${found[0].n} entries, the last one ${found[0].last}; it takes new ones.`,
    );
    if (found[0].n !== 500 || found[0].last !== 500) stop('That is not the moment that was asked for.');
    return 0;
  } finally {
    cluster.remove();
    rmSync(folder, { recursive: true, force: true });
  }
});
