/**
 * `npm run bench:backup [-- --gb N]`: a database of so many GB of chunks that don't pack (memory images and photos), backed up and restored, plain and
 * encrypted; seconds and MB/s of each, and whether what came back is what went in.
 */
import { execFile } from 'node:child_process';
import { randomBytes, createHash } from 'node:crypto';
import { chmodSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import pg from 'pg';
import { Cluster } from '../../scripts/lib/cluster.mjs';
import { ensureGnupg, ensurePostgres } from '../../scripts/lib/install.mjs';
import { inRoot } from '../../scripts/lib/paths.mjs';
import { runMain, say, stop } from '../../scripts/lib/say.mjs';

const run = promisify(execFile);
const chunkBytes = 65_536;
const at = process.argv.indexOf('--gb');
const gb = at < 0 ? 5 : Number(process.argv[at + 1]);
const mb = (bytes) => Math.round(bytes / 1e6);

const veglia = async (args, env) =>
  JSON.parse((await run(process.execPath, [inRoot('packages/cli/bin/veglia.js'), ...args], { env: { ...process.env, ...env } })).stdout);

async function fill(url, bytes) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const rows = 64;
  const values = Array.from({ length: rows }, (_, row) => `($${2 * row + 1}, $${2 * row + 2}, now())`).join(', ');
  for (let done = 0; done < bytes; done += rows * chunkBytes) {
    const all = randomBytes(rows * chunkBytes);
    const bind = [];
    for (let row = 0; row < rows; row += 1) {
      const chunk = all.subarray(row * chunkBytes, (row + 1) * chunkBytes);
      bind.push(createHash('sha256').update(chunk).digest(), chunk);
    }
    await client.query(`INSERT INTO chunks (sha256, bytes, stored_at) VALUES ${values}`, bind);
  }
  await client.query('CHECKPOINT').catch(() => undefined);
  const { rows: size } = await client.query('SELECT pg_database_size(current_database()) AS n');
  await client.end();
  return Number(size[0].n);
}
/** One sum over every chunk's number and bytes. */
async function sumOf(url) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query(
    `SELECT md5(string_agg(md5(bytes || int8send(number)), '' ORDER BY number)) AS sum, count(*) AS n FROM chunks`,
  );
  await client.end();
  return `${rows[0].n} ${rows[0].sum}`;
}

await runMain(async () => {
  await ensureGnupg();
  const folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-bench-backup-'));
  const cluster = new Cluster({ bin: await ensurePostgres(), folder: path.join(folder, 'postgres') });
  chmodSync(folder, 0o755);
  try {
    cluster.create();
    await cluster.start();
    cluster.createRoles();
    cluster.createDatabase('veglia');
    const env = { DATABASE_URL: cluster.url('owner', 'veglia') };
    await run(process.execPath, ['--import', 'tsx', inRoot('packages/server/src/admin.ts'), 'migrate'], {
      cwd: inRoot(),
      env: { ...process.env, ...env },
    });
    const began = Date.now();
    const bytes = await fill(env.DATABASE_URL, gb * 1e9);
    const filled = (Date.now() - began) / 1000;
    say(`database of ${mb(bytes)} MB, filled in ${filled.toFixed(0)} s (${mb(bytes / filled)} MB/s)`);
    const wanted = await sumOf(env.DATABASE_URL);
    const results = [];
    for (const encrypted of [false, true]) {
      const more = encrypted ? { VEGLIA_BACKUP_PASSPHRASE: 'nine quiet harbours' } : {};
      const file = path.join(folder, encrypted ? 'veglia.dump.gpg' : 'veglia.dump');
      const made = await veglia(['backup', file], { ...env, ...more });
      const name = `restored_${encrypted ? 'encrypted' : 'plain'}`;
      cluster.createDatabase(name);
      const url = cluster.url('owner', name);
      const back = await veglia(['restore', file], { DATABASE_URL: url, ...more });
      if ((await sumOf(url)) !== wanted) stop('What came back is not what went in.');
      const result = {
        encrypted,
        databaseMb: mb(bytes),
        fileMb: mb(statSync(file).size),
        backupSeconds: Math.round(made.seconds),
        backupMbPerSecond: mb(bytes / made.seconds),
        restoreSeconds: Math.round(back.seconds),
        restoreMbPerSecond: mb(bytes / back.seconds),
      };
      results.push(result);
      say(JSON.stringify(result));
      rmSync(file);
    }
    if (at < 0) writeFileSync(inRoot('bench/results/backup.json'), `${JSON.stringify(results, null, 2)}\n`);
    return 0;
  } finally {
    cluster.remove();
    rmSync(folder, { recursive: true, force: true });
  }
});
