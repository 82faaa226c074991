/**
 * `npm run bench:firmware [GIB]`: memory images of 4 GiB (or so many) in and out of the server, in one run beside `cp`, `sha256sum` and `cmp` on the same files,
 * and what they take in the database and in the server's memory. Prints a table and writes bench/results/firmware.json. 4 GiB take about ten minutes.
 */
import { execFileSync, fork } from 'node:child_process';
import { createCipheriv, createHash, randomUUID } from 'node:crypto';
import { closeSync, mkdtempSync, openSync, readFileSync, readSync, rmSync, writeFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensurePostgres } from '../../scripts/lib/install.mjs';
import { freePort, temporaryCluster } from '../../scripts/lib/cluster.mjs';
import { codeShownBy, signIn } from '../../scripts/lib/signIn.mjs';
import { inRoot } from '../../scripts/lib/paths.mjs';
import pg from 'pg';

const gib = Number(process.argv[2] ?? 4);
const chunk = 65_536;
const chunks = Math.round((gib * 2 ** 30) / chunk);
const size = chunks * chunk;
const folder = mkdtempSync(path.join(tmpdir(), 'veglia-images-'));
const timed = async (work) => {
  const started = performance.now();
  const value = await work();
  return { seconds: (performance.now() - started) / 1000, value };
};
const perSecond = (seconds) => `${(size / 1e6 / seconds).toFixed(0)} MB/s`;

/** Bytes that don't repeat, the same each time. */
function noise(seed, index) {
  const key = Buffer.alloc(16, seed);
  key.writeUInt32LE(index);
  return createCipheriv('aes-128-ctr', key, Buffer.alloc(16)).update(Buffer.alloc(chunk));
}
/** `filled`: share of chunks that hold something, evenly spread; the rest is erased. `other`: chunks in which one byte differs. */
function imageFile(name, filled, other = []) {
  const file = path.join(folder, name);
  const out = openSync(file, 'w');
  const erased = Buffer.alloc(chunk, 0xff);
  let written = 0;
  for (let index = 0; index < chunks; index += 1) {
    const full = Math.floor((index + 1) * filled) > Math.floor(index * filled);
    const bytes = full ? noise(7, index) : Buffer.from(erased);
    if (other.includes(index)) bytes[100] ^= 1;
    if (full || other.includes(index)) written += 1;
    writeSync(out, bytes);
  }
  closeSync(out);
  return { file, written };
}

const cluster = await temporaryCluster(await ensurePostgres());
cluster.createDatabase('veglia');
const port = await freePort();
const address = `http://127.0.0.1:${port}`;
const server = fork(inRoot('packages/server/src/main.ts'), [], {
  env: {
    ...process.env,
    PORT: String(port),
    LOG_LEVEL: 'fatal',
    DATABASE_URL: cluster.url('app', 'veglia'),
    VEGLIA_OWNER_DATABASE_URL: cluster.url('owner', 'veglia'),
  },
  execArgv: ['--import', 'tsx'],
  cwd: inRoot(),
  silent: true,
});
const code = codeShownBy(server);
await new Promise((resolve, reject) => {
  server.once('message', resolve);
  server.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
});
const status = (field) =>
  Number(new RegExp(`^${field}:\\s+(\\d+)`, 'm').exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))[1]) / 1024;
const { by, cookie } = await signIn(address, code());
const headers = { 'x-veglia': 'bench', cookie };
const db = new pg.Client({ connectionString: cluster.url('owner', 'veglia') });
await db.connect();
const stored = async () => Number((await db.query('SELECT coalesce(sum(octet_length(bytes)), 0)::bigint AS sum FROM chunks')).rows[0].sum);

async function put(file, sha256) {
  const id = randomUUID();
  const piece = Buffer.alloc(4 * 2 ** 20);
  const input = openSync(file, 'r');
  const hash = createHash('sha256');
  for (let at = 0; at < size;) {
    const read = readSync(input, piece, 0, piece.length, at);
    const body = piece.subarray(0, read);
    hash.update(body);
    const reply = await fetch(`${address}/api/images/${id}/content?at=${at}`, {
      method: 'PUT',
      headers: { ...headers, 'content-type': 'application/octet-stream' },
      body,
    });
    if (!reply.ok) throw new Error(`status ${reply.status}`);
    at += read;
  }
  closeSync(input);
  const facts = { name: path.basename(file), memory: 'emmc', area: 'user', source: 'own-library' };
  const reply = await fetch(`${address}/api/images/${id}`, {
    method: 'PUT',
    headers: { ...headers, 'content-type': 'application/json' },
    body: JSON.stringify({ by, size, sha256: sha256 ?? hash.digest('hex'), facts }),
  });
  if (!reply.ok) throw new Error(await reply.text());
  return reply.json();
}
async function get(id) {
  const hash = createHash('sha256');
  const reply = await fetch(`${address}/api/images/${id}/content`, { headers });
  for await (const part of reply.body) hash.update(part);
  return hash.digest('hex');
}
const own = (command, args) =>
  timed(() => {
    try {
      return execFileSync(command, args, { encoding: 'utf8' });
    } catch (error) {
      return String(error.stdout ?? '');
    }
  });

try {
  const empty = imageFile('mostly-empty.bin', 0.1);
  const differs = imageFile('three-bytes-differ.bin', 0.1, [5, Math.floor(chunks / 2), chunks - 1]);
  const full = imageFile('full.bin', 1);
  const rssBefore = status('VmRSS');
  const rows = [];
  const results = { gib, size };

  const before = await stored();
  const inEmpty = await timed(() => put(empty.file));
  const took = (await stored()) - before;
  results.emptyStored = took / (empty.written * chunk);
  rows.push([
    `in, a tenth filled`,
    inEmpty.seconds,
    perSecond(inEmpty.seconds),
    `stored ${(took / 1e6).toFixed(0)} MB for ${((empty.written * chunk) / 1e6).toFixed(0)} MB that are not empty`,
  ]);
  const second = await timed(() => put(differs.file));
  const inFull = await timed(() => put(full.file));
  rows.push(['in, full', inFull.seconds, perSecond(inFull.seconds), '']);
  const sha = await own('sha256sum', [full.file]);
  rows.push(['sha256sum of the same file', sha.seconds, perSecond(sha.seconds), '']);
  const cp = await own('cp', [full.file, `${full.file}.copy`]);
  rows.push(['cp of the same file', cp.seconds, perSecond(cp.seconds), '']);
  const out = await timed(() => get(inFull.value.id));
  rows.push([
    'out, full',
    out.seconds,
    perSecond(out.seconds),
    out.value === sha.value.slice(0, 64) ? 'SHA-256 as sha256sum has it' : 'ANOTHER SHA-256',
  ]);
  const compared = await timed(async () =>
    (await fetch(`${address}/api/images/${inEmpty.value.id}/compare/${second.value.id}`, { headers })).json(),
  );
  rows.push(['two compared by chunks', compared.seconds, '', `${compared.value.differing} chunks differ`]);
  const cmp = await own('cmp', ['-l', empty.file, differs.file]);
  rows.push(['cmp -l of the same two', cmp.seconds, perSecond(cmp.seconds), `${cmp.value.trim().split('\n').length} bytes differ`]);
  Object.assign(results, {
    inEmptySeconds: inEmpty.seconds,
    inFullSeconds: inFull.seconds,
    outFullSeconds: out.seconds,
    sha256sumSeconds: sha.seconds,
    cpSeconds: cp.seconds,
    compareSeconds: compared.seconds,
    cmpSeconds: cmp.seconds,
    sameHash: out.value === sha.value.slice(0, 64),
    differing: compared.value.differing,
    rssBeforeMiB: rssBefore,
    rssPeakMiB: status('VmHWM'),
  });
  for (const [what, seconds, speed, note] of rows)
    console.log(`${what.padEnd(28)} ${seconds.toFixed(2).padStart(8)} s ${speed.padStart(10)}  ${note}`);
  console.log(`memory of the server: ${results.rssBeforeMiB.toFixed(0)} MiB before, ${results.rssPeakMiB.toFixed(0)} MiB at most`);
  console.log(`storage of the mostly empty one: ${results.emptyStored.toFixed(3)} of its chunks that are not empty`);
  writeFileSync(inRoot('bench/results/firmware.json'), `${JSON.stringify(results, null, 2)}\n`);
} finally {
  await db.end();
  server.removeAllListeners('exit');
  server.kill('SIGTERM');
  await new Promise((resolve) => server.once('exit', resolve));
  cluster.remove();
  rmSync(folder, { recursive: true, force: true });
}
