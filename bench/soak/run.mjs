/**
 * `npm run bench:soak [-- --minutes N] [--people N]`: what a shop does in eight hours (check-ins, notes, answers, photos, images, closings, lists), as fast as the
 * server takes it, while things go wrong in turn: the database ends, its disk stalls, the disk is full, the clock jumps, the wire to the database and the
 * one to the benches are cut. Afterwards everything that was acknowledged must be there, once and as it was; memory must be flat.
 */
import { execFileSync, fork } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import {
  chmodSync,
  closeSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  statfsSync,
  truncateSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import WebSocket from 'ws';
import { v7 as uuidv7 } from 'uuid';
import { Cluster, freePort } from '../../scripts/lib/cluster.mjs';
import { ensureFaketime, ensurePostgres } from '../../scripts/lib/install.mjs';
import { inRoot } from '../../scripts/lib/paths.mjs';
import { ask, isRoot } from '../../scripts/lib/run.mjs';
import { runMain, say, stop } from '../../scripts/lib/say.mjs';
import { codeShownBy, firstOwner, signIn } from '../../scripts/lib/signIn.mjs';
import { fill } from '../../scripts/package.mjs';
import { openWire } from './cutter.mjs';

const option = (name, usual) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? usual : Number(process.argv[at + 1]);
};
const minutes = option('minutes', 10);
const people = option('people', 12);
/** Of one person in an hour (values of ours, from a busy bench): entries, of which some are photos and images; sets. */
const perHour = { entries: 60, sets: 3 };
const shopHours = 8;
const diskBytes = 1_500e6;
const faultEvery = 15_000;

/** A disk of its own, so that it can be full. Without root: the folder itself, and no full disk. */
function openDisk(folder) {
  const mount = path.join(folder, 'disk');
  mkdirSync(mount);
  if (!isRoot()) return { mount, close: () => undefined };
  const file = path.join(folder, 'disk.img');
  closeSync(openSync(file, 'w'));
  truncateSync(file, diskBytes);
  for (const [command, args] of [
    ['mkfs.ext4', ['-q', '-F', file]],
    ['mount', ['-o', 'loop', file, mount]],
  ]) {
    const { ok, err } = ask(command, args);
    if (!ok) stop(`${command}: ${err}`);
  }
  chmodSync(mount, 0o755);
  const ballast = path.join(mount, 'ballast');
  return {
    mount,
    /** Until nothing more goes in. */
    fillUp() {
      const handle = openSync(ballast, 'w');
      const piece = Buffer.alloc(2 ** 20);
      try {
        for (;;) writeSync(handle, piece);
      } catch {
        // Full.
      }
      for (let rest = Buffer.alloc(4096); ;)
        try {
          writeSync(handle, rest);
        } catch {
          break;
        }
      closeSync(handle);
    },
    empty: () => rmSync(ballast, { force: true }),
    free: () => statfsSync(mount).bavail * statfsSync(mount).bsize,
    close: () => ask('umount', ['-l', mount]),
  };
}
/** Node's own debugging protocol: memory is compared as what is still held, after what isn't was let go. */
async function openHeap(port) {
  const [{ webSocketDebuggerUrl }] = await (await fetch(`http://127.0.0.1:${port}/json/list`)).json();
  const socket = new WebSocket(webSocketDebuggerUrl, { perMessageDeflate: false });
  await new Promise((resolve, reject) => socket.once('open', resolve).once('error', reject));
  const waiting = new Map();
  socket.on('message', (data) => {
    const { id, result } = JSON.parse(data.toString());
    waiting.get(id)?.(result);
    waiting.delete(id);
  });
  let last = 0;
  const call = (method) =>
    new Promise((resolve) => {
      waiting.set((last += 1), resolve);
      socket.send(JSON.stringify({ id: last, method }));
    });
  return {
    /** Megabytes. */
    async held() {
      await call('HeapProfiler.collectGarbage');
      return (await call('Runtime.getHeapUsage')).usedSize / 1e6;
    },
    close: () => socket.terminate(),
  };
}
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;

await runMain(async () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-bench-soak-'));
  chmodSync(folder, 0o755);
  const faketime = await ensureFaketime();
  const disk = openDisk(folder);
  const cluster = new Cluster({ bin: await ensurePostgres(), folder: path.join(disk.mount, 'postgres') });
  let child;
  let ending = false;
  const wires = [];
  try {
    say('The program as it is deployed ...');
    await fill(path.join(folder, 'root'));
    const lib = path.join(folder, 'root/usr/lib/veglia');
    cluster.create();
    await cluster.start();
    cluster.createRoles();
    cluster.createDatabase('veglia');
    const toDatabase = await openWire(cluster.port);
    const port = await freePort();
    const toServer = await openWire(port);
    wires.push(toDatabase, toServer);
    const metricsPort = await freePort();
    const inspectPort = await freePort();
    const clock = path.join(folder, 'clock');
    writeFileSync(clock, '+0');
    const through = (role) => cluster.url(role, 'veglia').replace(`:${cluster.port}/`, `:${toDatabase.port}/`);
    let code = () => '';
    const start = () =>
      new Promise((resolve, reject) => {
        child = fork(path.join(lib, 'packages/server/src/main.js'), [], {
          cwd: lib,
          silent: true,
          execArgv: [`--inspect=127.0.0.1:${inspectPort}`],
          env: {
            ...process.env,
            ...(faketime === undefined
              ? {}
              : { LD_PRELOAD: faketime, FAKETIME_TIMESTAMP_FILE: clock, FAKETIME_NO_CACHE: '1', FAKETIME_DONT_FAKE_MONOTONIC: '1' }),
            NODE_ENV: 'production',
            PORT: String(port),
            LOG_LEVEL: 'silent',
            VEGLIA_METRICS_PORT: String(metricsPort),
            DATABASE_URL: through('app'),
            VEGLIA_OWNER_DATABASE_URL: through('owner'),
          },
        });
        const shown = codeShownBy(child);
        if (code() === '') code = shown;
        child.once('message', () => resolve());
        child.once('exit', (n, signal) =>
          ending ? undefined : (say(`the server ended: ${n ?? signal}`), (died += 1), reject(new Error('ended'))),
        );
      });
    let died = 0;
    await start();
    const address = `http://127.0.0.1:${toServer.port}`;
    const owner = await signIn(`http://127.0.0.1:${port}`, code());
    let cookie = owner.cookie;
    let retries = 0;
    const refused = [];

    /** Until it is answered with something that is no trouble of the server's. */
    async function send(method, url, body, type = 'application/json') {
      for (;;) {
        try {
          const reply = await fetch(`${address}${url}`, {
            method,
            headers: { 'x-veglia': '1', cookie, ...(body === undefined ? {} : { 'content-type': type }) },
            body: body === undefined || type !== 'application/json' ? body : JSON.stringify(body),
            signal: AbortSignal.timeout(20_000),
          });
          const bytes = Buffer.from(await reply.arrayBuffer());
          if (reply.ok)
            return type === 'application/json' && reply.headers.get('content-type')?.includes('json')
              ? JSON.parse(bytes.toString())
              : bytes;
          const said = bytes.toString();
          // The clock went past the end of the session: in again, as a person would.
          if (reply.status === 401) await again();
          // A piece whose answer was lost on the way has arrived: it is asked how much there is, and gone on from there.
          else if (said.includes('"upload-elsewhere"')) return undefined;
          else if (reply.status < 500 && reply.status !== 429) {
            refused.push(`${method} ${url}: ${reply.status} ${said.slice(0, 200)}`);
            return undefined;
          }
        } catch {
          // Nobody there, or broken off.
        }
        if (ending) return undefined;
        retries += 1;
        await pause(150 + Math.random() * 300);
      }
    }
    let entering;
    const again = () =>
      (entering ??= (async () => {
        const reply = await fetch(`http://127.0.0.1:${port}/api/session`, {
          method: 'POST',
          headers: { 'x-veglia': '1', 'content-type': 'application/json' },
          body: JSON.stringify({ name: firstOwner.name, password: firstOwner.password }),
        }).catch(() => undefined);
        if (reply?.ok)
          cookie = reply.headers
            .getSetCookie()
            .map((one) => one.split(';', 1)[0])
            .join('; ');
        entering = undefined;
      })());

    const entries = new Map();
    const photos = new Map();
    const images = new Map();
    const draft = (body) => ({ id: uuidv7(), at: new Date().toISOString(), basedOn: 0, body });
    async function write(job, bodies) {
      const drafts = bodies.map(draft);
      const reply = await send('POST', `/api/jobs/${job}/entries`, { by: owner.by, entries: drafts });
      for (const entry of reply?.entries ?? []) entries.set(entry.id, { job, seq: entry.seq });
    }
    async function takeIn(n) {
      const id = uuidv7();
      const drafts = [
        draft({ kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } }),
        draft({ kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] }),
      ];
      const job = await send('POST', '/api/jobs', {
        id,
        by: owner.by,
        customer: { name: `Customer ${n}`, contact: '' },
        plate: { maker: 'Oltrema', model: 'OT-1', serial: `S-${n}` },
        entries: drafts,
      });
      for (const entry of job?.entries ?? []) entries.set(entry.id, { job: id, seq: entry.seq });
      return id;
    }
    const operations = people * shopHours * perHour.entries;
    const entriesASet = Math.round(perHour.entries / perHour.sets);
    const pace = (minutes * 60_000) / operations;
    let done = 0;
    let next = 0;
    async function work(me) {
      let job = await takeIn(me);
      let inJob = 0;
      while (next < operations && !ending) {
        const n = next++;
        await pause(Math.max(0, began + n * pace - performance.now()));
        if (inJob >= entriesASet) {
          await write(job, [
            { kind: 'job.closed', v: 2, outcome: 'not-worth-it', minutes: 30 },
            { kind: 'set.collected', v: 1 },
          ]);
          job = await takeIn(n);
          inJob = 0;
        }
        inJob += 1;
        if (n % 25 === 0) {
          const id = uuidv7();
          const bytes = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), randomBytes(200_000)]);
          if (await send('PUT', `/api/photos/${id}`, bytes, 'image/jpeg')) {
            photos.set(id, createHash('sha256').update(bytes).digest('hex'));
            await write(job, [{ kind: 'photo.added', v: 1, photo: id }]);
          }
        } else if (n % 200 === 7) {
          const id = uuidv7();
          const bytes = randomBytes(2_000_000);
          const sha256 = createHash('sha256').update(bytes).digest('hex');
          const at = async () => (await send('GET', `/api/images/${id}/received`))?.received ?? 0;
          for (let sentTo = 0; sentTo < bytes.length && !ending;) {
            await send(
              'PUT',
              `/api/images/${id}/content?at=${sentTo}`,
              bytes.subarray(sentTo, sentTo + 500_000),
              'application/octet-stream',
            );
            const now = await at();
            if (now <= sentTo) await pause(200);
            sentTo = now;
          }
          const facts = { name: `dump ${n}`, memory: 'spi-nor', area: 'whole', source: 'own-set' };
          if (await send('PUT', `/api/images/${id}`, { by: owner.by, size: bytes.length, sha256, facts })) images.set(id, sha256);
        } else if (n % 10 === 3) await send('GET', '/api/jobs?state=open');
        else if (n % 3 === 0) await write(job, [{ kind: 'test.answered', v: 2, test: 'torch', outcome: 'faint-picture', sure: 'sure' }]);
        else await write(job, [{ kind: 'note.added', v: 1, text: `operation ${n}` }]);
        done += 1;
      }
    }

    const postmaster = () => Number(readFileSync(path.join(cluster.data, 'postmaster.pid'), 'utf8').split('\n')[0]);
    const signalAll = (signal) => {
      const pids = execFileSync('ps', ['-o', 'pid=', '--ppid', String(postmaster())], { encoding: 'utf8' })
        .split('\n')
        .map(Number)
        .filter(Boolean);
      for (const pid of [postmaster(), ...pids])
        try {
          process.kill(pid, signal);
        } catch {
          // Gone meanwhile.
        }
    };
    const faults = {
      'database ends': async () => {
        cluster.stop('immediate');
        await pause(2500);
        await cluster.start();
      },
      'disk stalls': async () => {
        signalAll('SIGSTOP');
        await pause(4000);
        signalAll('SIGCONT');
      },
      'wire to the database': async () => {
        toDatabase.cut();
        await pause(3000);
        toDatabase.join();
      },
      'wire to the benches': async () => {
        toServer.cut();
        await pause(3000);
        toServer.join();
      },
      ...(faketime === undefined
        ? {}
        : {
            'clock ahead': async () => {
              writeFileSync(clock, '+3h');
              await pause(4000);
              writeFileSync(clock, '+0');
            },
            'clock behind': async () => {
              writeFileSync(clock, '-2h');
              await pause(4000);
              writeFileSync(clock, '+0');
            },
          }),
      ...(disk.fillUp
        ? {
            'disk full': async () => {
              disk.fillUp();
              await pause(5000);
              disk.empty();
              // A PostgreSQL that could not write its log has ended; a supervisor starts it.
              if (!cluster.isRunning()) await cluster.start();
            },
          }
        : {}),
    };
    const memory = [];
    const heap = await openHeap(inspectPort);
    wires.push(heap);
    const sample = async () => {
      const text = await fetch(`http://127.0.0.1:${metricsPort}/metrics`)
        .then((reply) => reply.text())
        .catch(() => '');
      const rss = Number(/^process_resident_memory_bytes ([0-9.e+]+)$/m.exec(text)?.[1]) / 1e6;
      if (text !== '') memory.push({ at: done, rss, heap: await heap.held() });
    };
    const began = performance.now();
    const struck = {};
    const working = Promise.all(Array.from({ length: people }, (_, me) => work(me)));
    let over = false;
    void working.finally(() => (over = true));
    say(`${operations} operations by ${people} people, as in ${shopHours} hours, in about ${minutes} min ...`);
    const names = Object.keys(faults);
    for (let n = 0; !over; n += 1) {
      for (const until = performance.now() + faultEvery; performance.now() < until && !over; await pause(5000)) await sample();
      if (over) break;
      const name = names[n % names.length];
      struck[name] = (struck[name] ?? 0) + 1;
      await faults[name]();
    }
    await working;
    const took = (performance.now() - began) / 1000;

    const problems = [...refused];
    const client = new pg.Client({ connectionString: cluster.url('owner', 'veglia') });
    await client.connect();
    const { rows } = await client.query('SELECT id, job_id, seq FROM ledger_entries');
    const stored = new Map(rows.map((row) => [row.id, row]));
    for (const [id, { job, seq }] of entries) {
      const row = stored.get(id);
      if (!row) problems.push(`entry ${id} was acknowledged and is gone`);
      else if (row.seq !== seq || row.job_id !== job) problems.push(`entry ${id} is not what was acknowledged`);
    }
    if (stored.size !== entries.size) problems.push(`${entries.size} entries acknowledged, ${stored.size} stored`);
    const { rows: gaps } = await client.query(
      'SELECT job_id FROM ledger_entries GROUP BY job_id HAVING count(*) <> max(seq) OR min(seq) <> 1',
    );
    if (gaps.length > 0) problems.push(`${gaps.length} ledgers with gaps`);
    const { rows: cards } = await client.query(
      `SELECT count(*)::int AS n FROM job_cards c JOIN jobs j ON j.id = c.job_id WHERE (c.card->>'entryCount')::int <> j.last_seq`,
    );
    if (cards[0].n > 0) problems.push(`${cards[0].n} cards are not of their ledger`);
    await client.end();
    for (const [id, sha256] of photos) {
      const bytes = await send('GET', `/api/photos/${id}`);
      if (!Buffer.isBuffer(bytes) || createHash('sha256').update(bytes).digest('hex') !== sha256)
        problems.push(`photo ${id} is not what was sent`);
    }
    for (const [id, sha256] of images) {
      const bytes = await send('GET', `/api/images/${id}/content`);
      if (!Buffer.isBuffer(bytes) || createHash('sha256').update(bytes).digest('hex') !== sha256)
        problems.push(`image ${id} is not what was sent`);
    }
    // The first third warms up; flat is that the last third is where the middle one was.
    const third = Math.floor(memory.length / 3);
    const middle = memory.slice(third, 2 * third);
    const last = memory.slice(2 * third);
    const result = {
      operations: done,
      seconds: Math.round(took),
      faults: struck,
      entries: entries.size,
      photos: photos.size,
      images: images.size,
      retries,
      serverEnded: died,
      heapMb: { middle: Math.round(median(middle.map(({ heap }) => heap))), last: Math.round(median(last.map(({ heap }) => heap))) },
      residentMb: { middle: Math.round(median(middle.map(({ rss }) => rss))), last: Math.round(median(last.map(({ rss }) => rss))) },
      problems: problems.length,
    };
    say(JSON.stringify(result));
    say(memory.map(({ at, heap, rss }) => `${at}:${heap.toFixed(0)}/${rss.toFixed(0)}`).join(' '));
    if (result.heapMb.last > result.heapMb.middle * 1.15 + 10) problems.push('memory grows');
    if (died > 0) problems.push('the server ended');
    if (problems.length > 0) stop(problems.slice(0, 12).join('\n'));
    if (minutes >= 10) writeFileSync(inRoot('bench/results/soak.json'), `${JSON.stringify(result, null, 2)}\n`);
    return 0;
  } finally {
    ending = true;
    child?.removeAllListeners('exit');
    child?.kill('SIGKILL');
    for (const wire of wires) wire.close();
    cluster.remove();
    disk.close();
    if (existsSync(folder)) rmSync(folder, { recursive: true, force: true });
  }
});
process.exit();
