/**
 * `npm run bench:growth [-- --seconds N] [--people N] [--rate N] [--processes N] [--no-kills]`: several processes as they are deployed, behind nginx, on one
 * PostgreSQL (fsync on); people who listen and write; every ten seconds one process is killed and comes back as a supervisor would start it. Says how long
 * an entry takes to the others, and whether any was lost or is there twice.
 */
import { fork, spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { Cluster, freePort } from '../../scripts/lib/cluster.mjs';
import { ensureNginx, ensurePostgres } from '../../scripts/lib/install.mjs';
import { inRoot } from '../../scripts/lib/paths.mjs';
import { runMain, say, stop } from '../../scripts/lib/say.mjs';
import { codeShownBy, signIn } from '../../scripts/lib/signIn.mjs';
import { fill } from '../../scripts/package.mjs';
import { Person } from './people.mjs';

const option = (name, usual) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? usual : Number(process.argv[at + 1]);
};
const seconds = option('seconds', 120);
const people = option('people', 200);
const rate = option('rate', 20);
const processes = option('processes', 4);
const killEvery = process.argv.includes('--no-kills') ? Infinity : 10_000;
/** Four at one set, as few as it takes to make everyone hear of others' work. */
const peopleAtAJob = 4;
/** Each comes to the Shelves about so often; one of ten stays there. */
const lookEvery = 30_000;
const oneOfThemAtShelves = 10;
const password = 'seven grey herons at dusk';

/** The example that ships, on a port of this run and without TLS. */
function nginxConf(port, ports, folder) {
  const shipped = readFileSync(inRoot('deploy/proxy/nginx.conf'), 'utf8');
  const [upstreams] = /upstream veglia \{[\s\S]*?\n\}/.exec(shipped) ?? [];
  const [map] = /map \$http_upgrade[\s\S]*?\n\}/.exec(shipped) ?? [];
  const [location] = /location \/ \{[\s\S]*?\n {4}\}/.exec(shipped) ?? [];
  if (!upstreams || !map || !location) stop('deploy/proxy/nginx.conf is not what this run knows.');
  const servers = ports.map((one) => `    server 127.0.0.1:${one} max_fails=1 fail_timeout=1s;`).join('\n');
  return `user root; worker_processes 1; daemon off; pid ${folder}/nginx.pid; error_log ${folder}/nginx.log;
events { worker_connections 4096; }
http {
  access_log off;
  client_body_temp_path ${folder}/body; proxy_temp_path ${folder}/proxy; fastcgi_temp_path ${folder}/f; uwsgi_temp_path ${folder}/u; scgi_temp_path ${folder}/s;
  ${upstreams.replace(/^ *server 127.*$/m, servers).replace(/^ *# .*$/gm, '')}
  ${map}
  server { listen 127.0.0.1:${port}; server_name 127.0.0.1; ${location.replace('$host;', '$http_host;').replace('$scheme;', 'https;')} }
}`;
}
const quantile = (sorted, q) => sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))] ?? NaN;
const spread = (values) => {
  const sorted = [...values].sort((a, b) => a - b);
  return {
    n: sorted.length,
    p50: Math.round(quantile(sorted, 0.5)),
    p95: Math.round(quantile(sorted, 0.95)),
    p99: Math.round(quantile(sorted, 0.99)),
    most: Math.round(sorted.at(-1) ?? NaN),
  };
};

/** Every third entry is an answer, after which the next step is worked out anew; the others say nothing about what is broken. */
const bodyOf = (n) =>
  n % 3 === 0
    ? { kind: 'test.answered', v: 2, test: 'torch', outcome: 'faint-picture', sure: 'sure' }
    : { kind: 'note.added', v: 1, text: `entry ${n}` };

/** Processor seconds so far, by what uses them. */
function processorOf(kinds) {
  const parents = new Map();
  const used = new Map();
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
    try {
      const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
      const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
      parents.set(Number(pid), Number(fields[1]));
      used.set(Number(pid), (Number(fields[11]) + Number(fields[12])) / 100);
    } catch {
      // Gone meanwhile.
    }
  }
  const under = (pid, roots) => roots.has(pid) || (parents.has(pid) && pid > 1 && under(parents.get(pid), roots));
  return Object.fromEntries(
    Object.entries(kinds).map(([kind, pids]) => {
      const roots = new Set(pids);
      return [kind, [...used].reduce((sum, [pid, n]) => sum + (under(pid, roots) ? n : 0), 0)];
    }),
  );
}

await runMain(async () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-bench-growth-'));
  chmodSync(folder, 0o755);
  const nginxFile = await ensureNginx();
  const cluster = new Cluster({ bin: await ensurePostgres(), folder: path.join(folder, 'postgres') });
  const running = new Map();
  let nginx;
  let ending = false;
  try {
    say('The program as it is deployed ...');
    await fill(path.join(folder, 'root'));
    const lib = path.join(folder, 'root/usr/lib/veglia');
    cluster.create();
    await cluster.start();
    cluster.createRoles();
    cluster.createDatabase('veglia');
    const ports = [];
    for (let n = 0; n < processes; n += 1) ports.push(await freePort());
    // As deploy/etc has it.
    const bySocket = (role) => `${cluster.url(role, 'veglia')}?host=${cluster.folder}`;
    let code = () => '';
    const start = (port) =>
      new Promise((resolve, reject) => {
        const child = fork(path.join(lib, 'packages/server/src/main.js'), [], {
          cwd: lib,
          silent: true,
          env: {
            ...process.env,
            NODE_ENV: 'production',
            PORT: String(port),
            LOG_LEVEL: 'silent',
            VEGLIA_PUBLIC_URL: 'https://bench.example.org',
            DATABASE_URL: bySocket('app'),
            VEGLIA_OWNER_DATABASE_URL: bySocket('owner'),
          },
        });
        child.stderr.on('data', (said) => ending || process.stderr.write(said));
        const shown = codeShownBy(child);
        if (code() === '') code = shown;
        child.once('message', () => (running.set(port, child), resolve(child)));
        child.once('exit', (n) => reject(new Error(`a process ended with ${n}`)));
      });
    for (const port of ports) await start(port);
    const port = await freePort();
    writeFileSync(path.join(folder, 'nginx.conf'), nginxConf(port, ports, folder));
    nginx = spawn(nginxFile, ['-c', path.join(folder, 'nginx.conf')], { stdio: ['ignore', 'inherit', 'inherit'] });
    const address = `http://127.0.0.1:${port}`;
    await pause(500);

    say(`${people} people ...`);
    const owner = await signIn(address, code());
    const post = async (url, body, cookie = owner.cookie) => {
      const reply = await fetch(`${address}${url}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-veglia': '1', cookie },
        body: JSON.stringify(body),
      });
      const said = await reply.json();
      if (!reply.ok) throw new Error(`${url}: ${reply.status} ${JSON.stringify(said)}`);
      return { said, reply };
    };
    const jobs = [];
    for (let n = 0; n < Math.ceil(people / peopleAtAJob); n += 1) {
      const id = uuidv7();
      const entries = [
        { id: uuidv7(), at: new Date().toISOString(), basedOn: 0, body: { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } } },
        { id: uuidv7(), at: new Date().toISOString(), basedOn: 0, body: { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] } },
      ];
      await post('/api/jobs', { id, by: owner.by, customer: null, plate: { maker: 'Oltrema', model: 'OT-1', serial: '' }, entries });
      jobs.push(id);
    }
    const sentAt = new Map();
    const all = [];
    for (let n = 0; n < people; n += 1) {
      const id = uuidv7();
      await post('/api/accounts', { id, name: `Person ${n}`, role: 'technician' });
      const { said } = await post(`/api/accounts/${id}/invitation`, {});
      const { reply } = await post('/api/session/join', { code: said.code, password }, '');
      const cookie = reply.headers
        .getSetCookie()
        .map((one) => one.split(';', 1)[0])
        .join('; ');
      all.push(new Person({ address, cookie, id, job: jobs[n % jobs.length], sentAt, atShelves: n % oneOfThemAtShelves === 0 }));
    }
    for (const one of all) one.open();
    await pause(3000);

    say(`${seconds} s, ${rate} entries a second${killEvery === Infinity ? '' : ', a process killed every 10 s'} ...`);
    const postmaster = Number(readFileSync(path.join(cluster.data, 'postmaster.pid'), 'utf8').split('\n')[0]);
    // Of processes that are killed what they used is lost: only a run without kills says how much.
    const processors = () =>
      processorOf({ servers: [...running.values()].map(({ pid }) => pid), database: [postmaster], proxy: [nginx.pid] });
    const before = processors();
    const cpuBefore = process.cpuUsage();
    const began = performance.now();
    const until = began + seconds * 1000;
    const writing = [];
    let written = 0;
    let kills = 0;
    let nextKill = began + killEvery;
    const looks = all.map((_, n) => began + (n / all.length) * lookEvery);
    while (performance.now() < until) {
      const now = performance.now();
      while (written < ((now - began) / 1000) * rate) {
        written += 1;
        writing.push(all[Math.floor(Math.random() * all.length)].write(bodyOf(written)));
      }
      looks.forEach((at, n) => {
        if (now < at) return;
        looks[n] += lookEvery;
        void all[n].look();
      });
      if (now >= nextKill) {
        nextKill += killEvery;
        const victim = ports[kills % ports.length];
        kills += 1;
        const child = running.get(victim);
        child.removeAllListeners('exit');
        child.kill('SIGKILL');
        // As a supervisor does: a second later.
        void pause(1000).then(() => ending || start(victim).catch((error) => say(String(error))));
      }
      await pause(5);
    }
    const used = Object.fromEntries(
      Object.entries(processors()).map(([kind, n]) => [kind, Number(((n - before[kind]) / seconds).toFixed(2))]),
    );
    const own = process.cpuUsage(cpuBefore);
    await Promise.all(writing);
    await pause(5000);

    const problems = [];
    const client = new pg.Client({ connectionString: cluster.url('owner', 'veglia') });
    await client.connect();
    const { rows } = await client.query("SELECT id, job_id, seq FROM ledger_entries WHERE kind IN ('note.added', 'test.answered')");
    const { rows: gaps } = await client.query(
      'SELECT job_id FROM ledger_entries GROUP BY job_id HAVING count(*) <> max(seq) OR min(seq) <> 1',
    );
    const { rows: size } = await client.query('SELECT pg_database_size(current_database()) AS n');
    await client.end();
    const stored = new Map(rows.map((row) => [row.id, row]));
    const acknowledged = all.flatMap((one) => one.acknowledged);
    for (const { id, seq, job } of acknowledged) {
      const row = stored.get(id);
      if (!row) problems.push(`${id} was acknowledged and is gone`);
      else if (row.seq !== seq || row.job_id !== job) problems.push(`${id} is not what was acknowledged`);
    }
    if (stored.size !== rows.length || acknowledged.length !== rows.length || rows.length !== written)
      problems.push(`${written} written, ${acknowledged.length} acknowledged, ${rows.length} stored`);
    if (gaps.length > 0) problems.push(`${gaps.length} ledgers with gaps`);
    for (const one of all)
      for (const row of rows) if (row.job_id === one.job && !one.seen.has(row.id)) problems.push(`somebody never heard of ${row.id}`);
    const sum = (of) => all.reduce((n, one) => n + of(one), 0);
    const result = {
      processes,
      people,
      perSecond: rate,
      seconds,
      kills,
      written,
      toOthersMs: spread(all.flatMap((one) => one.delays)),
      listMs: spread(all.flatMap((one) => one.lists)),
      retries: sum((one) => one.retries),
      reconnects: sum((one) => one.reconnects),
      cores: { ...(kills === 0 ? used : {}), driver: Number(((own.user + own.system) / 1e6 / seconds).toFixed(2)) },
      databaseMb: Math.round(Number(size[0].n) / 1e6),
      lostOrDoubled: problems.length,
    };
    say(JSON.stringify(result));
    if (problems.length > 0) stop(problems.slice(0, 10).join('\n'));
    if (seconds >= 120) writeFileSync(inRoot('bench/results/growth.json'), `${JSON.stringify(result, null, 2)}\n`);
    for (const one of all) one.end();
    return 0;
  } finally {
    ending = true;
    nginx?.kill('SIGTERM');
    for (const child of running.values()) {
      child.removeAllListeners('exit');
      child.kill('SIGKILL');
    }
    cluster.remove();
    rmSync(folder, { recursive: true, force: true });
  }
});
process.exit();
