/** `npm run demo` as a person meets it: first start, Ctrl-C, kill -9 of everything, wrong settings. */
import { spawn, type ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { freePort } from '../../../scripts/lib/cluster.mjs';
import { inRoot } from '../../../scripts/lib/paths.mjs';

const folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-demo-'));
const children: ChildProcess[] = [];

interface Demo {
  readonly child: ChildProcess;
  readonly said: () => string;
  readonly address: string;
}

function run(env: Record<string, string>, args: string[] = []): { child: ChildProcess; said: () => string; ended: Promise<number | null> } {
  const child = spawn(process.execPath, [inRoot('scripts/demo.mjs'), ...args], {
    env: { ...process.env, NODE_OPTIONS: '', DATABASE_URL: '', VEGLIA_STATE_DIR: folder, PORT: '0', ...env },
  });
  children.push(child);
  let text = '';
  child.stdout.on('data', (chunk: Buffer) => (text += chunk.toString()));
  child.stderr.on('data', (chunk: Buffer) => (text += chunk.toString()));
  return { child, said: () => text, ended: new Promise((resolve) => child.once('exit', resolve)) };
}

async function start(args: string[] = []): Promise<Demo> {
  const { child, said, ended } = run({}, args);
  const address = await new Promise<string>((resolve, reject) => {
    child.stdout?.on('data', () => {
      const found = /ready: (http:\S+)/.exec(said());
      if (found?.[1]) resolve(found[1]);
    });
    void ended.then((code) => reject(new Error(`ended with ${code}: ${said()}`)));
  });
  return { child, said, address };
}

/** The demo lets anybody of this machine be anybody; the cookie is of whoever comes first. */
async function cookieOf(address: string): Promise<string> {
  const reply = await fetch(`${address}api/session/demo`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-veglia': '1' },
    body: '{}',
  });
  return reply.headers.getSetCookie()[0]?.split(';', 1)[0] ?? '';
}
const jobs = async (address: string): Promise<number> => {
  const reply = await fetch(`${address}api/jobs`, { headers: { cookie: await cookieOf(address) } });
  return ((await reply.json()) as { jobs: unknown[] }).jobs.length;
};
const postmaster = (): number => Number(readFileSync(path.join(folder, 'postgres/data/postmaster.pid'), 'utf8').split('\n')[0]);
const gone = (child: ChildProcess): Promise<unknown> =>
  child.exitCode !== null || child.signalCode !== null ? Promise.resolve() : new Promise((resolve) => child.once('exit', resolve));

beforeAll(() => chmodSync(folder, 0o755));
afterAll(() => {
  for (const child of children) child.kill('SIGKILL');
  const file = path.join(folder, 'postgres/data/postmaster.pid');
  if (existsSync(file)) process.kill(postmaster(), 'SIGQUIT');
  rmSync(folder, { recursive: true, force: true });
});

describe('npm run demo', () => {
  test('starts with demo data, says how to stop, stops cleanly, keeps the data; --reset starts anew', async () => {
    const first = await start();
    expect(first.said()).toContain('Ctrl-C stops');
    const loaded = await jobs(first.address);
    expect(loaded).toBeGreaterThan(3);
    const cookie = await cookieOf(first.address);
    const { signedIn } = (await (await fetch(`${first.address}api/session`, { headers: { cookie } })).json()) as {
      signedIn: { id: string };
    };
    const at = '2026-03-02T12:00:00.000Z';
    const taken = await fetch(`${first.address}api/jobs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-veglia': '1', cookie },
      body: JSON.stringify({
        id: '0192f000-0000-7000-8000-0000000000b1',
        by: signedIn.id,
        customer: null,
        plate: { maker: 'Oltrema' },
        entries: [
          { id: '0192f000-0000-7000-8000-0000000000b2', at, basedOn: 0, body: { kind: 'job.opened', set: { layout: 'led-tcon' } } },
        ],
      }),
    });
    expect(taken.status).toBe(201);
    // A second start says where the first one is.
    const second = run({});
    expect(await second.ended).toBe(1);
    expect(second.said()).toContain(first.address);

    first.child.kill('SIGINT');
    await gone(first.child);
    expect(first.child.exitCode).toBe(0);
    expect(existsSync(path.join(folder, 'postgres/data/postmaster.pid'))).toBe(false);
    await expect(fetch(first.address)).rejects.toThrow();

    const again = await start();
    expect(await jobs(again.address)).toBe(loaded + 1);
    again.child.kill('SIGINT');
    await gone(again.child);

    const anew = await start(['--reset']);
    expect(await jobs(anew.address)).toBe(loaded);
    anew.child.kill('SIGINT');
    await gone(anew.child);
  }, 120_000);

  test('after kill -9 of the supervisor and of the database the next start recovers by itself', async () => {
    const first = await start();
    const loaded = await jobs(first.address);
    const database = postmaster();
    process.kill(database, 'SIGKILL');
    first.child.kill('SIGKILL');
    await gone(first.child);
    const second = await start();
    expect(await jobs(second.address)).toBe(loaded);
    // The supervisor alone: its database runs on and is taken over.
    second.child.kill('SIGKILL');
    await gone(second.child);
    const third = await start();
    expect(await jobs(third.address)).toBe(loaded);
    third.child.kill('SIGINT');
    await gone(third.child);
  }, 180_000);

  test.each([
    ['a HOST that others can reach', { HOST: '0.0.0.0' }, /speaks no TLS itself/],
    ['a PORT that is none', { PORT: 'eighty' }, /PORT is "eighty"/],
  ])(
    '%s is refused with a sentence',
    async (_, env, message) => {
      const { said, ended } = run(env);
      expect(await ended).toBe(1);
      expect(said()).toMatch(message);
    },
    60_000,
  );
});

describe('npm run dev', () => {
  test('gives the page from its sources and the server behind one address, and stops both and the database', async () => {
    const port = String(await freePort());
    const child = spawn(process.execPath, [inRoot('scripts/dev.mjs')], {
      env: { ...process.env, NODE_OPTIONS: '', DATABASE_URL: '', VEGLIA_STATE_DIR: folder, PORT: port, LOG_LEVEL: 'info' },
    });
    children.push(child);
    const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
    let said = '';
    await new Promise<void>((resolve, reject) => {
      const hear = (chunk: Buffer): void => {
        said += chunk.toString();
        if (said.includes('"listening"') && said.includes('ready in')) resolve();
      };
      child.stdout.on('data', hear);
      child.stderr.on('data', hear);
      void ended.then((code) => reject(new Error(`ended with ${code}: ${said}`)));
    });
    const address = `http://127.0.0.1:${port}/`;
    expect(await (await fetch(address)).text()).toContain('/@vite/client');
    expect(await jobs(address)).toBeGreaterThan(3);
    child.kill('SIGINT');
    expect(await ended).toBe(0);
    expect(existsSync(path.join(folder, 'dev/data/postmaster.pid'))).toBe(false);
  }, 120_000);
});
