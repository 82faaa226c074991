/**
 * `npm run test:crash -- --times N [--seed S]`: server or database killed with SIGKILL at random moments while four clients write to
 * one ledger. Afterwards every acknowledged entry must be there once, with the seq it was acknowledged with, each client's in its order,
 * and the job's card must count them all.
 *
 * The database runs with its usual settings (fsync on): what is tested is what a shop would have.
 */
import { fork } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { Cluster, freePort } from './lib/cluster.mjs';
import { ensurePostgres } from './lib/install.mjs';
import { inRoot } from './lib/paths.mjs';
import { runMain, say, stop } from './lib/say.mjs';
import { codeShownBy, signIn } from './lib/signIn.mjs';

const option = (name, usual) => {
  const at = process.argv.indexOf(`--${name}`);
  const value = at < 0 ? usual : Number(process.argv[at + 1]);
  if (!Number.isInteger(value) || value < 1) stop(`--${name} wants a whole number of 1 or more.`);
  return value;
};

/** Mulberry32: small, seeded, good enough to choose moments by. */
function randomFrom(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const clients = 4;
/** Between kills there is at least this much acknowledged, so that each strikes into running work. */
const acknowledgedBetween = 8;

async function startServer(cluster, port) {
  const env = {
    ...process.env,
    PORT: String(port),
    LOG_LEVEL: 'silent',
    DATABASE_URL: cluster.url('app', 'veglia'),
    VEGLIA_OWNER_DATABASE_URL: cluster.url('owner', 'veglia'),
  };
  for (let attempt = 0; ; attempt += 1) {
    const child = fork(inRoot('packages/server/src/main.ts'), [], { env, execArgv: ['--import', 'tsx'], cwd: inRoot(), silent: true });
    const code = codeShownBy(child);
    const up = await new Promise((resolve) => {
      child.once('message', () => resolve(true));
      child.once('exit', () => resolve(false));
    });
    if (up) return { child, code: code() };
    // A database that still recovers refuses; one that never comes back is a failure.
    if (attempt > 20) throw new Error('the server does not come up again');
    await pause(300);
  }
}

async function main() {
  const times = option('times', 5);
  const seed = option('seed', 1);
  // Two streams: what clients draw must not move the moments of the kills.
  const random = randomFrom(seed);
  const moments = randomFrom(seed + 1);
  const folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-crash-'));
  const cluster = new Cluster({ bin: await ensurePostgres(), folder });
  cluster.create();
  await cluster.start();
  cluster.createRoles();
  cluster.createDatabase('veglia');
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  const first = await startServer(cluster, port);
  let server = first.child;
  const { by, cookie } = await signIn(address, first.code);

  const post = async (url, body) => {
    const reply = await fetch(`${address}${url}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-veglia': '1', cookie },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(20_000),
    });
    return { status: reply.status, body: await reply.json() };
  };
  const draft = (body) => ({ id: uuidv7(), at: new Date().toISOString(), basedOn: 0, body });
  const job = randomUUID();
  const taken = await post('/api/jobs', {
    id: job,
    by,
    customer: null,
    plate: { maker: 'Quorvane', model: 'QK3-50', serial: '' },
    entries: [draft({ kind: 'job.opened', v: 2, set: { layout: 'led-tcon' } })],
  });
  if (taken.status !== 201) throw new Error(JSON.stringify(taken));

  const problems = [];
  const acknowledged = Array.from({ length: clients }, () => []);
  const count = () => acknowledged.reduce((sum, one) => sum + one.length, 0);
  let running = true;
  let retries = 0;
  async function client(me) {
    for (let n = 0; running;) {
      const entries = Array.from({ length: 1 + Math.floor(random() * 3) }, () =>
        draft({ kind: 'note.added', v: 1, text: `${me} ${(n += 1)}` }),
      );
      // The same drafts until they are acknowledged: a reply that was lost is no reason to write twice.
      for (let done = false; !done;) {
        try {
          const reply = await post(`/api/jobs/${job}/entries`, { by, entries });
          if (reply.status === 200) {
            for (const entry of reply.body.entries) acknowledged[me].push({ id: entry.id, seq: entry.seq, text: entry.body.text });
            if (reply.body.entries.length !== entries.length)
              problems.push(`client ${me}: ${reply.body.entries.length} of ${entries.length} acknowledged`);
            done = true;
          } else if (reply.status !== 503) {
            problems.push(`client ${me}: status ${reply.status} ${JSON.stringify(reply.body)}`);
            done = true;
          }
        } catch {
          // Nobody there: tried again.
        }
        if (!done) {
          retries += 1;
          await pause(60);
        }
      }
    }
  }
  const work = Array.from({ length: clients }, (_, me) => client(me));

  const kills = { server: 0, database: 0 };
  for (let kill = 0; kill < times; kill += 1) {
    const from = count();
    const deadline = Date.now() + 60_000;
    while (count() < from + acknowledgedBetween) {
      if (Date.now() > deadline) throw new Error('nothing is acknowledged any more');
      await pause(5);
    }
    await pause(Math.floor(moments() * 120));
    // In turns, so that few kills strike both.
    if (kill % 2 === 0) {
      kills.server += 1;
      const gone = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGKILL');
      await gone;
      server = (await startServer(cluster, port)).child;
    } else {
      kills.database += 1;
      const postmaster = Number(readFileSync(path.join(cluster.data, 'postmaster.pid'), 'utf8').split('\n')[0]);
      process.kill(postmaster, 'SIGKILL');
      await cluster.start();
    }
  }
  const last = count();
  while (count() < last + acknowledgedBetween) await pause(5);
  running = false;
  await Promise.all(work);

  const database = new pg.Client({ connectionString: cluster.url('owner', 'veglia') });
  await database.connect();
  const { rows } = await database.query(
    'SELECT e.id, e.seq, t.content FROM ledger_entries e LEFT JOIN entry_texts t ON t.entry_id = e.id WHERE e.job_id = $1 ORDER BY e.seq',
    [job],
  );
  const { rows: cards } = await database.query("SELECT (card->>'entryCount')::int AS n FROM job_cards WHERE job_id = $1", [job]);
  await database.end();
  rows.forEach((row, index) => {
    if (row.seq !== index + 1) problems.push(`seq ${row.seq} at place ${index + 1}`);
  });
  const stored = new Map(rows.map((row) => [row.id, row]));
  if (stored.size !== rows.length) problems.push('an id is there twice');
  for (const [me, entries] of acknowledged.entries()) {
    let before = 0;
    for (const { id, seq, text } of entries) {
      const row = stored.get(id);
      if (!row) problems.push(`client ${me}: ${text} was acknowledged and is gone`);
      else if (row.seq !== seq || row.content !== text) problems.push(`client ${me}: ${text} is not what was acknowledged`);
      if (seq <= before) problems.push(`client ${me}: ${text} is out of order`);
      before = seq;
    }
  }
  if (rows.length !== count() + 1) problems.push(`${rows.length} stored, ${count() + 1} acknowledged`);
  if (cards[0]?.n !== rows.length) problems.push(`the card counts ${cards[0]?.n} of ${rows.length}`);
  server.kill('SIGKILL');
  cluster.remove();
  say(
    `${times} kills (${kills.server} of the server, ${kills.database} of the database, seed ${seed}): ${count()} entries acknowledged by ${clients} clients with ${retries} retries, ${problems.length} problems.`,
  );
  if (problems.length > 0) stop(problems.slice(0, 20).join('\n'));
}

await runMain(main);
