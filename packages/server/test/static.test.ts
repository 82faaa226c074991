/** The built app, handed out as it was packed when it was built. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import request from 'supertest';
import { createApp } from '../src/app.ts';
import { openTestApp, testAddress, testHosts, type TestApp } from './support/testApp.ts';

let running: TestApp;
const folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-static-'));
const script = `export const words = '${'lamp '.repeat(500)}';`;

beforeAll(async () => {
  running = await openTestApp();
  mkdirSync(path.join(folder, 'assets'));
  writeFileSync(path.join(folder, 'index.html'), '<p>the app</p>');
  writeFileSync(path.join(folder, 'assets/app.js'), script);
  writeFileSync(path.join(folder, 'assets/app.js.gz'), gzipSync(script));
  writeFileSync(path.join(folder, 'assets/app.js.br'), brotliCompressSync(script));
});
afterAll(async () => {
  await running.close();
  rmSync(folder, { recursive: true });
});

describe('the API to read', () => {
  test('is a page whose files are all here, under the same rules as any other', async () => {
    const { app } = running;
    const page = await request(app).get('/api/docs');
    expect(page.status).toBe(200);
    expect(page.headers['content-security-policy']).toContain("script-src 'self'");
    const files = [...page.text.matchAll(/(?:href|src)="([^"]+)"/g)].map((found) => found[1] ?? '');
    expect(files.length).toBeGreaterThan(3);
    for (const file of files.filter((one) => one.startsWith('/api/'))) {
      const reply = await request(app).get(file);
      expect([file, reply.status, (reply.text ?? '').length > 50]).toEqual([file, 200, true]);
    }
    expect(page.text).not.toMatch(/https?:/);
    expect((await request(app).get('/api/docs/package.json')).status).toBe(401);
    expect((await request(app).get('/api/docs').set('host', 'evil.example')).status).toBe(421);
  });
});

describe('the built app', () => {
  const get = (file: string, encodings: string) => {
    const parts = {
      store: running.store,
      door: running.door,
      log: pino({ level: 'silent' }),
      hosts: testHosts,
      ownAddress: () => testAddress,
      staticDir: folder,
    };
    return request(createApp(parts)).get(file).set('accept-encoding', encodings);
  };

  test.each([
    ['br, gzip', 'br', brotliCompressSync(script).length],
    ['gzip', 'gzip', gzipSync(script).length],
    ['identity', undefined, script.length],
  ])('comes as the reader takes it: %s', async (encodings, encoding, bytes) => {
    const reply = await get('/assets/app.js', encodings);
    expect(reply.status).toBe(200);
    expect(reply.headers['content-encoding']).toBe(encoding);
    expect(Number(reply.headers['content-length'])).toBe(bytes);
    expect(reply.headers['content-type']).toMatch(/javascript/);
    expect(reply.headers['cache-control']).toBe('public, max-age=31536000, immutable');
  });

  test('what isn’t there is not found, and never the page; a page of the app is the page', async () => {
    expect((await get('/assets/other.js', 'br')).status).toBe(404);
    expect((await get('/assets/../../etc/passwd', 'br')).text).not.toContain('root:');
    const page = await get('/jobs/new', 'br');
    expect([page.status, page.text, page.headers['cache-control']]).toEqual([200, '<p>the app</p>', 'no-cache']);
  });
});
