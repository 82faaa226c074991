import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { blinkTableOf, compilePack, parsePack, type Pack } from '@veglia/core';
import { withOwnTables } from '../src/packs/blinkTables.ts';
import { ask, openTestApp, type TestApp } from './support/testApp.ts';

let app: TestApp;
beforeAll(async () => {
  app = await openTestApp();
});
afterAll(() => app.close());

const packAt = async (hash: string): Promise<Pack> => parsePack(await app.store.packs.document(hash));
const table = async (change: (codes: Record<string, unknown>[]) => unknown[] = (codes) => codes) => {
  const compiled = compilePack(await packAt(await app.store.packs.currentHash()));
  const whole = blinkTableOf(compiled, 'quorvane.qk3');
  return { ...whole, codes: change(structuredClone(whole.codes) as Record<string, unknown>[]) };
};
const row = {
  id: 'nine',
  groups: [9],
  meaning: { en: 'Light driver complains' },
  suspects: { strips: 'often' },
  source: 'cover',
  date: '2026-11-01',
  by: 'Me',
};
const post = (body: object) => ask(app.app).post('/api/blink-tables').send(body);

describe('a blink table', () => {
  test('changed: another pack for new jobs, the old one whole, and who did it when', async () => {
    const before = await app.store.packs.currentHash();
    const reply = await post({ by: app.person, basedOn: before, table: await table((codes) => [...codes, row]) });
    expect(reply.status).toBe(201);
    const after = await app.store.packs.currentHash();
    expect(reply.body).toEqual({ hash: after });
    expect(after).not.toBe(before);
    const blink = async (hash: string) => (await packAt(hash)).families.find(({ id }) => id === 'quorvane.qk3')?.blink.map(({ id }) => id);
    expect(await blink(after)).toEqual([...((await blink(before)) ?? []), 'nine']);
    const listed = await ask(app.app).get('/api/blink-tables');
    expect(listed.body).toEqual({
      changes: [
        expect.objectContaining({
          family: 'quorvane.qk3',
          packFrom: before,
          packTo: after,
          by: app.person,
          rows: (await blink(after))?.length,
        }),
      ],
    });
  });

  test('looked at before somebody else’s change: told, and nothing stored', async () => {
    const now = await app.store.packs.currentHash();
    const reply = await post({ by: app.person, basedOn: 'a'.repeat(64), table: await table() });
    expect([reply.status, (reply.body as { code: string }).code]).toEqual([409, 'pack-version-conflict']);
    expect(await app.store.packs.currentHash()).toBe(now);
  });

  test('two at once: one is stored, the other told', async () => {
    const basedOn = await app.store.packs.currentHash();
    const tables = await Promise.all([1, 2].map((n) => table((codes) => [...codes, { ...row, id: `at-once-${n}`, groups: [20 + n] }])));
    const replies = await Promise.all(tables.map((one) => post({ by: app.person, basedOn, table: one })));
    expect(replies.map(({ status }) => status).sort()).toEqual([201, 409]);
  });

  test('spoilt: every problem by row, nothing stored', async () => {
    const now = await app.store.packs.currentHash();
    const reply = await post({
      by: app.person,
      basedOn: now,
      table: await table((codes) => [...codes, { ...row, id: 'a', source: '' }, { ...row, id: 'b', groups: [0] }]),
    });
    expect(reply.status).toBe(400);
    expect((reply.body as { problems: { where: string }[] }).problems.map(({ where }) => where)).toEqual([
      expect.stringContaining('(a), source'),
      expect.stringContaining('(b), groups, 0'),
    ]);
    expect(await app.store.packs.currentHash()).toBe(now);
  });

  test('stays over the next shipped pack; one that no longer fits stays out and is named', async () => {
    const current = await packAt(await app.store.packs.currentHash());
    const shipped: Pack = {
      ...current,
      title: { en: 'Next book' },
      families: current.families.map((family) => ({ ...family, blink: [] })),
    };
    const over = await withOwnTables(app.store, shipped);
    expect(over.leftOut).toEqual([]);
    expect(over.pack.families.find(({ id }) => id === 'quorvane.qk3')?.blink.map(({ id }) => id)).toContain('nine');
    const without: Pack = { ...shipped, families: shipped.families.filter(({ id }) => id !== 'quorvane.qk3') };
    expect((await withOwnTables(app.store, without)).leftOut).toEqual(['quorvane.qk3']);
  });
});
