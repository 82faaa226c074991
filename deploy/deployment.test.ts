/**
 * The deployment as an operator does it (docs/deployment.md), in a copy of this machine that systemd boots: installed from the package, set up, behind nginx and
 * Caddy, with a process killed, upgraded, taken back, removed.
 */
import { appendFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { v7 as uuidv7 } from 'uuid';
import { Machine, machinePossible } from '../scripts/lib/machine.mjs';
import { inRoot } from '../scripts/lib/paths.mjs';
import { newestMigration } from '../packages/server/src/database/migrate.ts';
import { makePackage } from '../scripts/package.mjs';

const impossible: string | undefined = machinePossible();
if (impossible !== undefined) console.warn(`The deployment is not tested here: ${impossible}.`);
const name = 'bench.example.org';
const password = 'copper lantern over nine harbours';
const out = mkdtempSync(path.join(os.tmpdir(), 'veglia-packages-'));

/** A version with one more table, as a later one would have. */
function nextVersion(lib: string): string {
  writeFileSync(
    path.join(lib, 'packages/server/src/database/migrations/9999-later.js'),
    `export async function up({ context }) { await context.sequelize.query('CREATE TABLE later (id integer)'); }\n`,
  );
  const file = path.join(lib, 'packages/server/src/database/migrate.js');
  const text = readFileSync(file, 'utf8')
    .replace('import * as foundation', "import * as later from './migrations/9999-later.js';\nimport * as foundation")
    .replace(/(\n\];\n\/\*\* Name of the last)/, "\n  { name: '9999-later', up: later.up },$1");
  writeFileSync(file, text);
  return '0.2.0';
}

jest.setTimeout(180_000);
(impossible === undefined ? describe : describe.skip)('on a machine of its own', () => {
  let machine: Machine;
  const on = (command: string, args: string[] = []): string => machine.run(command, args);
  const sh = (text: string): string => on('sh', ['-c', text]);
  beforeAll(async () => {
    const packages: string[] = await makePackage({ out, version: '0.1.0', change: nextVersion });
    machine = new Machine();
    machine.prepare([
      'sh',
      '-c',
      'apt-get update -qq && apt-get install -y -qq --no-install-recommends nginx caddy curl openssl postgresql gnupg adduser',
    ]);
    sh_prepare(machine);
    for (const [at, file] of packages.entries()) machine.put(file, `/srv/${at === 0 ? 'this' : 'next'}.deb`);
    await machine.boot();
  }, 400_000);
  afterAll(async () => {
    await machine?.remove();
    rmSync(out, { recursive: true, force: true });
  }, 60_000);
  /** Certificate and names: what an operator brings. */
  function sh_prepare(made: Machine): void {
    made.prepare([
      'sh',
      '-c',
      `mkdir -p /etc/ssl/veglia && openssl req -x509 -newkey rsa:2048 -nodes -days 30 -subj /CN=${name} -addext subjectAltName=DNS:${name} -keyout /etc/ssl/veglia/bench.key -out /etc/ssl/veglia/bench.pem 2>&1`,
    ]);
    made.disable('nginx', 'caddy', 'caddy-api');
  }

  const install = (which: string, ...more: string[]): string =>
    on('apt-get', ['install', '-y', '-qq', '--no-install-recommends', '--allow-downgrades', ...more, `/srv/${which}.deb`]);
  async function until(what: () => boolean, patience = 40_000): Promise<void> {
    const deadline = Date.now() + patience;
    while (!what()) {
      if (Date.now() > deadline)
        throw new Error(`not in time: ${machine.try('journalctl', ['--namespace=veglia', '--no-pager', '-n', '20']).out}`);
      await pause(200);
    }
  }
  const ready = (port = 4391): boolean => machine.try('curl', ['-s', '-m', '3', `http://127.0.0.1:${port}/readyz`]).out.includes('"ready"');
  /** Status and body of a request, by a browser that keeps its cookies. */
  function ask(method: string, url: string, body?: object, more: string[] = []): { status: number; body: string } {
    const said = on('curl', [
      ...[
        '-s',
        '-m',
        '20',
        '-o',
        '/tmp/said',
        '-w',
        '%{http_code}',
        '--cacert',
        '/tmp/trusted.pem',
        '-b',
        '/tmp/jar',
        '-c',
        '/tmp/jar',
        '-X',
        method,
      ],
      ...(body === undefined ? [] : ['-H', 'content-type: application/json', '-H', 'x-veglia: 1', '-d', JSON.stringify(body)]),
      ...more,
      url,
    ]);
    return { status: Number(said), body: on('cat', ['/tmp/said']) };
  }
  const api = (path_: string): string => `https://${name}/api/${path_}`;
  let by = '';
  const jobs = new Map<string, string>();
  /** A job through the proxy; its id. */
  function takeIn(customer: string): string {
    const id = uuidv7();
    const entry = {
      id: uuidv7(),
      at: new Date().toISOString(),
      basedOn: 0,
      body: { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    };
    const reply = ask('POST', api('jobs'), {
      id,
      by,
      customer: { name: customer, contact: '' },
      plate: { maker: 'Oltrema', model: 'OT-1', serial: '' },
      entries: [entry],
    });
    expect([reply.status, reply.body]).toEqual([201, expect.stringContaining(customer)]);
    jobs.set(id, customer);
    return id;
  }
  const there = (id: string): boolean => ask('GET', api(`jobs/${id}`)).status === 200;

  test('the package installs, and nothing runs or is readable before it is set up', () => {
    expect(install('this')).toContain('veglia-admin setup');
    expect(sh("systemctl list-units --plain --no-legend 'veglia*'")).toBe('');
    expect(sh('stat -c "%a %U %G" /etc/veglia/veglia.env /etc/veglia/owner.env /var/backups/veglia')).toBe(
      '640 root veglia\n640 root veglia-owner\n700 veglia-owner veglia-owner\n',
    );
    expect(machine.try('runuser', ['-u', 'veglia', '--', 'cat', '/etc/veglia/owner.env']).code).not.toBe(0);
    expect(on('veglia', ['--version']).trim()).toBe('0.1.0');
  });

  test('the units are sound, and the server is shut in', () => {
    sh('systemd-analyze verify veglia@4391.service veglia-migrate.service veglia-backup.service veglia-backup.timer');
    const exposure = /Overall exposure level for \S+: ([\d.]+)/.exec(
      sh('systemd-analyze --no-pager security --offline=true veglia@4391.service || true'),
    );
    expect(Number(exposure?.[1])).toBeLessThan(3);
  });

  test('set up twice it runs once: roles, database, a process, a backup every night', async () => {
    expect(on('veglia-admin', ['setup'])).toContain(`"newest":"${newestMigration ?? ''}"`);
    on('veglia-admin', ['setup']);
    await until(() => ready());
    expect(sh('systemctl is-enabled veglia@4391 veglia-backup.timer')).toBe('enabled\nenabled\n');
    // The app's role changes no table, and the ledger's protection holds both ways.
    expect(machine.try('runuser', ['-u', 'veglia', '--', 'psql', '-d', 'veglia', '-c', 'DELETE FROM ledger_entries']).err).toContain(
      'permission denied',
    );
  });

  test('behind nginx, by TLS, the first owner comes in by the code that veglia-admin shows', async () => {
    const conf = readFileSync(inRoot('deploy/proxy/nginx.conf'), 'utf8').replace('# server 127.0.0.1:4392', 'server 127.0.0.1:4392');
    writeFileSync(path.join(machine.root, 'etc/nginx/sites-enabled/veglia'), conf);
    appendFileSync(path.join(machine.root, 'etc/veglia/veglia.env'), `\nVEGLIA_PUBLIC_URL=https://${name}\n`);
    sh(
      'rm -f /etc/nginx/sites-enabled/default && nginx -t 2>&1 && cp /etc/ssl/veglia/bench.pem /tmp/trusted.pem && systemctl restart nginx',
    );
    on('systemctl', ['enable', '--now', 'veglia@4392']);
    on('systemctl', ['restart', 'veglia@4391']);
    await until(() => ready() && ready(4392));
    const { code } = JSON.parse(on('veglia-admin', ['first-owner'])) as { code: string };
    const joined = ask('POST', api('session/join'), { code, name: 'Technician', password });
    expect([joined.status, joined.body]).toEqual([200, expect.stringContaining('"role":"owner"')]);
    by = (JSON.parse(joined.body) as { signedIn: { id: string } }).signedIn.id;
    expect(sh('cat /tmp/jar')).toMatch(/__Host-.*veglia|veglia/);
    expect(sh(`curl -s -o /dev/null -w '%{http_code} %{redirect_url}' http://${name}/`)).toBe(`301 https://${name}/`);
    expect(on('veglia-admin', ['first-owner'])).toContain('"code":null');
    takeIn('Petronel Ashby');
  });

  test('nginx passes on the app, sockets and large photos, and neither figures nor other names', () => {
    expect(ask('GET', `https://${name}/`).body).toContain('<title>Veglia</title>');
    // A socket stays open: curl gives up by its own limit, after it has said what was replied.
    const socket = machine.try('curl', [
      ...['-s', '-m', '2', '-o', '/dev/null', '-w', '%{http_code}', '--http1.1', '--cacert', '/tmp/trusted.pem', '-b', '/tmp/jar'],
      ...['-H', 'connection: upgrade', '-H', 'upgrade: websocket', '-H', 'sec-websocket-version: 13'],
      ...['-H', 'sec-websocket-key: dGhlIHNhbXBsZSBub25jZQ==', '-H', `origin: https://${name}`, api('live')],
    ]);
    expect(socket.out).toBe('101');
    sh(`head -c 20000000 /dev/zero > /tmp/zeros && printf '\\377\\330\\377\\340' | cat - /tmp/zeros > /tmp/photo.jpg`);
    const photo = (file: string): number =>
      ask('PUT', api(`photos/${uuidv7()}`), undefined, ['-H', 'x-veglia: 1', '-H', 'content-type: image/jpeg', '--data-binary', `@${file}`])
        .status;
    expect(photo('/tmp/photo.jpg')).toBe(201);
    sh('cat /tmp/zeros >> /tmp/photo.jpg');
    expect(photo('/tmp/photo.jpg')).toBe(413);
    expect(ask('GET', `https://${name}/metrics`).body).not.toContain('process_cpu');
    const figures = sh('curl -s http://127.0.0.1:14391/metrics http://127.0.0.1:14392/metrics');
    expect(figures).toMatch(/^veglia_http_request_seconds_count\{operation="takeIn",status="201"\} 1$/m);
    expect(figures.match(/^veglia_database_up 1$/gm)).toHaveLength(2);
  });

  test('a process that is killed is passed over and comes back; nothing that was asked fails', async () => {
    await until(() => ready(4392));
    const pid = sh('systemctl show -P MainPID veglia@4391').trim();
    const asked = 40;
    const codes = sh(
      `for n in $(seq ${asked}); do [ $n -eq 5 ] && kill -9 ${pid}; curl -s -o /dev/null -m 10 -w '%{http_code} ' --cacert /tmp/trusted.pem -b /tmp/jar ${api('jobs')}; done`,
    );
    expect(codes.trim().split(' ')).toEqual(Array.from({ length: asked }, () => '200'));
    await until(() => ready() && sh('systemctl show -P MainPID veglia@4391').trim() !== pid);
  });

  test('Caddy does the same with a certificate of its own', () => {
    sh('systemctl stop nginx');
    const conf = readFileSync(inRoot('deploy/proxy/Caddyfile'), 'utf8').replace(
      'reverse_proxy 127.0.0.1:4391',
      'reverse_proxy 127.0.0.1:4391 127.0.0.1:4392',
    );
    writeFileSync(path.join(machine.root, 'etc/caddy/Caddyfile'), conf);
    sh(
      'caddy validate --config /etc/caddy/Caddyfile 2>&1 && systemctl restart caddy && for n in $(seq 50); do [ -f /var/lib/caddy/.local/share/caddy/pki/authorities/local/root.crt ] && break; sleep 0.2; done',
    );
    sh('cp /var/lib/caddy/.local/share/caddy/pki/authorities/local/root.crt /tmp/trusted.pem');
    sh(`for n in $(seq 50); do curl -s -o /dev/null --cacert /tmp/trusted.pem https://${name}/ && break; sleep 0.2; done`);
    expect(ask('GET', api('session')).body).toContain('"role":"owner"');
    const id = takeIn('Ottilie Brandreth');
    expect(there(id)).toBe(true);
    sh('systemctl stop caddy && systemctl start nginx && cp /etc/ssl/veglia/bench.pem /tmp/trusted.pem');
    expect(there(id)).toBe(true);
  });

  test('the nightly backup is written by its own service, and a database is taken back to it', async () => {
    sh(`sed -i 's/^VEGLIA_BACKUP_PASSPHRASE=.*/VEGLIA_BACKUP_PASSPHRASE=nine quiet harbours/' /etc/veglia/owner.env`);
    on('systemctl', ['start', 'veglia-backup.service']);
    const [file] = sh('ls /var/backups/veglia/*.dump.gpg').trim().split('\n');
    expect(file).toMatch(/veglia-\d{8}T\d{6}Z\.dump\.gpg$/);
    const [before] = jobs.keys();
    const after = takeIn('Ignace Tolliver');
    expect(on('veglia-admin', ['back', file ?? ''])).toContain('veglia_until_');
    await until(() => ready() && ready(4392));
    expect([there(before ?? ''), there(after)]).toEqual([true, false]);
    jobs.delete(after);
    // A file that is no backup changes nothing.
    sh('echo no > /tmp/no.dump && cp /tmp/no.dump /tmp/no.dump.json');
    expect(machine.try('veglia-admin', ['back', '/tmp/no.dump']).code).not.toBe(0);
    await until(() => ready());
    expect(there(before ?? '')).toBe(true);
  });

  test('an upgrade backs up, changes the tables and starts what ran; the old version then refuses, and the way back works', async () => {
    const first = [...jobs.keys()][0] ?? '';
    const late = takeIn('Wilhelmina Grieve');
    install('next');
    await until(() => ready() && ready(4392));
    expect(there(late)).toBe(true);
    expect(
      sh('runuser -u veglia-owner -- psql -X -t -A -d veglia -c "SELECT name FROM migrations ORDER BY name DESC LIMIT 1"').trim(),
    ).toBe('9999-later');
    const [before] = sh('ls /var/backups/veglia/before-upgrade/*.gpg').trim().split('\n');
    const after = takeIn('Barnaby Quell');
    // Back to the old version: it does not touch what it does not know.
    install('this');
    await pause(1500);
    expect(ready()).toBe(false);
    expect(sh('journalctl --namespace=veglia --no-pager -n 60')).toContain('was made by a newer Veglia (9999-later)');
    expect(sh('runuser -u veglia-owner -- psql -X -t -A -d veglia -c "SELECT count(*) FROM jobs"').trim()).toBe(String(jobs.size));
    on('veglia-admin', ['back', before ?? '']);
    on('systemctl', ['start', 'veglia@4392']);
    await until(() => ready() && ready(4392));
    expect([there(first), there(late), there(after)]).toEqual([true, true, false]);
    // What was entered since is not lost: it is in the database that was put aside.
    const [aside] = sh(
      `runuser -u postgres -- psql -X -t -A -c "SELECT datname FROM pg_database WHERE datname LIKE 'veglia_until_%' ORDER BY 1 DESC"`,
    ).split('\n');
    expect(
      sh(`cd / && runuser -u postgres -- psql -X -t -A -d ${aside ?? ''} -c "SELECT count(*) FROM jobs WHERE id = '${after}'"`).trim(),
    ).toBe('1');
  });

  test('logs are apart, bounded, rotated, and hold no name', () => {
    const logs = sh('journalctl --namespace=veglia --no-pager -o cat');
    expect(logs).toContain('request completed');
    // Nor the code that lets the first owner in.
    expect(logs).not.toMatch(/(?:[A-Z2-9]{4}-){4}[A-Z2-9]{4}/);
    for (const customer of ['Ashby', 'Brandreth', 'Tolliver', 'Grieve', 'Quell', password]) expect(logs).not.toContain(customer);
    expect(sh('journalctl --namespace=veglia --no-pager | grep "max 500.0M" | head -1')).not.toBe('');
    const files = (): number => Number(sh('ls /var/log/journal/*.veglia | wc -l'));
    const before = files();
    sh('journalctl --namespace=veglia --rotate');
    expect(files()).toBeGreaterThan(before);
    sh('journalctl --namespace=veglia --vacuum-files=1');
    expect(files()).toBeLessThanOrEqual(before);
  });

  test('removed, it leaves the data; installed again, it goes on', async () => {
    on('apt-get', ['remove', '-y', '-qq', 'veglia']);
    expect(sh("systemctl list-units --plain --no-legend --state=active 'veglia@*'")).toBe('');
    expect(sh('ls /usr/lib/veglia 2>/dev/null | wc -l').trim()).toBe('0');
    install('this');
    on('veglia-admin', ['setup']);
    await until(() => ready());
    expect(there([...jobs.keys()][0] ?? '')).toBe(true);
  });
});
