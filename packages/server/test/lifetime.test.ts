/** Alive, ready, on the way out; and what the environment may say. */
import { readFileSync } from 'node:fs';
import { createServer, get } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import request from 'supertest';
import { createApp } from '../src/app.ts';
import { readConfig, settingsSchema } from '../src/config.ts';
import { drain } from '../src/http/drain.ts';
import { inRoot } from '../../../scripts/lib/paths.mjs';
import { openTestApp, testAddress, testHosts, type TestApp } from './support/testApp.ts';

let running: TestApp;
beforeAll(async () => {
  running = await openTestApp();
});
afterAll(() => running.close());

const silent = pino({ level: 'silent' });
const appWith = (parts: object) =>
  createApp({ store: running.store, door: running.door, log: silent, hosts: testHosts, ownAddress: () => testAddress, ...parts });

describe('alive and ready', () => {
  test('are told apart: on the way out it is alive and takes no more', async () => {
    const lifetime = { draining: false };
    const app = appWith({ lifetime });
    const ask = async (path: string) => {
      const reply = await request(app).get(path);
      return [reply.status, (reply.body as { status: string }).status];
    };
    expect([await ask('/livez'), await ask('/readyz')]).toEqual([
      [200, 'live'],
      [200, 'ready'],
    ]);
    lifetime.draining = true;
    expect([await ask('/livez'), await ask('/readyz')]).toEqual([
      [200, 'live'],
      [503, 'draining'],
    ]);
  });

  test('without its database it is alive and not ready', async () => {
    const away = { ...running.store, sequelize: { query: () => Promise.reject(Object.assign(new Error('x'), { code: 'ECONNREFUSED' })) } };
    const app = appWith({ store: away });
    const reply = await request(app).get('/readyz');
    expect([reply.status, reply.body as unknown]).toEqual([503, { status: 'database-unavailable' }]);
    expect((await request(app).get('/livez')).status).toBe(200);
  });

  test('a name that isn’t this server’s gets no answer there either', async () => {
    expect((await request(appWith({})).get('/livez').set('host', 'elsewhere.example')).status).toBe(421);
  });
});

describe('told to stop', () => {
  async function slowServer() {
    let finish: () => void = () => undefined;
    let arrived: () => void = () => undefined;
    const underWay = new Promise<void>((resolve) => (arrived = resolve));
    const server = createServer((_request, response) => {
      finish = () => response.end('done');
      arrived();
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as AddressInfo;
    const reply = new Promise<string>((resolve) => {
      get({ port, host: '127.0.0.1' }, (response) => {
        let text = '';
        response.on('data', (chunk: Buffer) => (text += chunk.toString()));
        response.on('end', () => resolve(text));
      }).on('error', ({ message }) => resolve(message));
    });
    await underWay;
    return { server, port, reply, finish: () => finish() };
  }

  test('what is under way comes to its end, and nothing new is taken', async () => {
    const { server, port, reply, finish } = await slowServer();
    const ended = drain(server, 60_000);
    const refused = await new Promise<string>((resolve) => {
      get({ port, host: '127.0.0.1' }, () => resolve('answered')).on('error', (error) => resolve((error as { code?: string }).code ?? ''));
    });
    expect(refused).toBe('ECONNREFUSED');
    finish();
    expect(await reply).toBe('done');
    await ended;
  });

  test('what never ends is cut off when the grace is over', async () => {
    const { server, reply } = await slowServer();
    await drain(server, 30);
    expect(await reply).toMatch(/hang up|ECONNRESET/);
  });
});

describe('the environment', () => {
  const env = { DATABASE_URL: 'postgres://app@127.0.0.1/veglia' };
  test.each(['127.0.0.1', '::1', 'localhost'])('HOST %s is this machine', (HOST) => {
    expect(readConfig({ ...env, HOST }).host).toBe(HOST);
  });
  test.each([
    [{ ...env, HOST: '0.0.0.0' }, /HOST is "0\.0\.0\.0".*speaks no TLS itself/],
    [{ ...env, HOST: '192.0.2.7' }, /127\.0\.0\.1/],
    [{ ...env, PORT: 'eighty' }, /PORT is "eighty"/],
    [{ ...env, PORT: '70000' }, /0 to 65535/],
    [{ ...env, PORT: '-1' }, /0 to 65535/],
    [{}, /DATABASE_URL is missing/],
    [{ DATABASE_URL: 'mysql://x:secret@y/z' }, /DATABASE_URL is no address/],
    [{ ...env, VEGLIA_PUBLIC_URL: 'bench.example.org' }, /VEGLIA_PUBLIC_URL/],
    [{ ...env, LOG_LEVEL: 'loud' }, /LOG_LEVEL is "loud", which is none of fatal/],
    [{ ...env, VEGLIA_GRACE_SECONDS: '0' }, /1 to 600/],
    [{ ...env, VEGLIA_PROGRAMMERS: 'ch341a_spi' }, /VEGLIA_PROGRAMMERS is "ch341a_spi", which is no list/],
    [{ ...env, VEGLIA_PROGRAMMERS: 'Clip=ch341a_spi $(id)' }, /is no list/],
    [{ ...env, VEGLIA_PROGRAMMERS: 'Clip=-w' }, /is no list/],
  ])('%j is refused with a sentence', (wrong, message) => {
    expect(() => readConfig(wrong)).toThrow(message);
  });
  test('all that is wrong is told at once, and no password with it', () => {
    const refusal = ((): string => {
      try {
        readConfig({ PORT: 'x', LOG_LEVEL: 'y', DATABASE_URL: 'mysql://x:secret@y/z' });
        return '';
      } catch (error) {
        return (error as Error).message;
      }
    })();
    expect(refusal.split('\n')).toHaveLength(3);
    expect(refusal).not.toContain('secret');
  });
  test('programmers are named, each with the value of flashrom’s -p', () => {
    const { programmers } = readConfig({ ...env, VEGLIA_PROGRAMMERS: 'Bench clip=ch341a_spi; Box=serprog:dev=/dev/ttyACM0:115200;' });
    expect(programmers).toEqual([
      { name: 'Bench clip', spec: 'ch341a_spi' },
      { name: 'Box', spec: 'serprog:dev=/dev/ttyACM0:115200' },
    ]);
  });
  test('what is set to nothing is not set', () => {
    expect(readConfig({ ...env, PORT: '', VEGLIA_STATIC_DIR: '' })).toMatchObject({ port: 0, staticDir: undefined, graceSeconds: 10 });
  });
  test('is written down whole: .env.example and docs/configuration.md name each variable and no other', () => {
    const names = Object.keys(settingsSchema.shape).sort();
    const inFile = (file: string, pattern: RegExp) =>
      [...readFileSync(inRoot(file), 'utf8').matchAll(pattern)].map(([, name]) => name ?? '').sort();
    expect(inFile('.env.example', /^([A-Z_]+)=/gm)).toEqual(names);
    expect(inFile('docs/configuration.md', /^\| `([A-Z_]+)`\s+\|/gm)).toEqual(names);
  });
});
