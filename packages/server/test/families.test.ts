import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { hashPack, likeFamily, parsePack, type Family, type Pack } from '@veglia/core';
import { withOwnTables } from '../src/packs/blinkTables.ts';
import { withOwnFamilies } from '../src/packs/families.ts';
import { ask, openTestApp, type TestApp } from './support/testApp.ts';

let app: TestApp;
let shipped: Pack;
let own: Family;
beforeAll(async () => {
  app = await openTestApp();
  shipped = await packAt(await app.store.packs.currentHash());
  const other = shipped.families.find(({ id }) => id === 'quorvane.qk3')!;
  own = { ...likeFamily(other, { id: 'aldwen.t1', name: 'Aldwen T1', maker: 'Aldwen' }), models: ['T1-32'] };
});
afterAll(() => app.close());

const packAt = async (hash: string): Promise<Pack> => parsePack(await app.store.packs.document(hash));
const post = (body: object) => ask(app.app).post('/api/families').send(body);
const change = async (family: unknown, reason = 'a set came in') =>
  post({ by: app.person, basedOn: await app.store.packs.currentHash(), reason, family });
const currentFamily = async (id: string): Promise<Family | undefined> =>
  (await packAt(await app.store.packs.currentHash())).families.find((one) => one.id === id);

describe('a family', () => {
  test('added: another pack for new jobs, the old one whole, and who did it when and why', async () => {
    const before = await app.store.packs.currentHash();
    const reply = await change(own);
    expect(reply.status).toBe(201);
    const after = await app.store.packs.currentHash();
    expect(reply.body).toEqual({ hash: after });
    expect(after).not.toBe(before);
    expect((await packAt(before)).families.some(({ id }) => id === own.id)).toBe(false);
    expect(await currentFamily(own.id)).toMatchObject({ from: 'quorvane.qk3', models: ['T1-32'] });
    const { changes } = (await ask(app.app).get('/api/families/changes')).body as { changes: object[] };
    expect(changes).toEqual([
      expect.objectContaining({ family: own.id, name: 'Aldwen T1', reason: 'a set came in', packTo: after, by: app.person }),
    ]);
  });
  test('a job that was open keeps the pack it was opened with', async () => {
    const id = '0192f000-0000-7000-8000-00000000fa01';
    const hash = await app.store.packs.currentHash();
    const taken = await ask(app.app)
      .post('/api/jobs')
      .send({
        id,
        by: app.person,
        customer: null,
        plate: { maker: 'Aldwen', model: 'T1-32', serial: '' },
        entries: [
          {
            id: '0192f000-0000-7000-8000-00000000fa02',
            at: '2026-11-29T08:00:00.000Z',
            basedOn: 0,
            body: { kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: own.id } },
          },
        ],
      });
    expect(taken.status).toBe(201);
    expect((await change({ ...own, maker: 'Aldwen & Co' }, 'the plate says so')).status).toBe(201);
    const job = (await ask(app.app).get(`/api/jobs/${id}`)).body as { packHash: string };
    expect(job.packHash).toBe(hash);
    expect(await app.store.packs.currentHash()).not.toBe(hash);
  });
  test('its blink table is changed by its own route, and a later change of the family leaves it', async () => {
    const basedOn = await app.store.packs.currentHash();
    const codes = [
      { id: 'two', groups: [2], meaning: { en: 'x' }, suspects: { strips: 'often' }, source: 'cover', date: '2026-11-01', by: 'Me' },
    ];
    const table = { format: 'veglia-blink-table', version: 1, family: own.id, codes };
    expect((await ask(app.app).post('/api/blink-tables').send({ by: app.person, basedOn, table })).status).toBe(201);
    expect((await change({ ...own, models: ['T1-32', 'T1-40'] })).status).toBe(201);
    expect((await currentFamily(own.id))?.blink.map(({ id }) => id)).toEqual(['two']);
    // Both lie over the next shipped pack, the table on the family that isn't in it.
    const kept = await withOwnFamilies(app.store, shipped);
    const laid = await withOwnTables(app.store, kept.pack);
    expect([...kept.leftOut, ...laid.leftOut]).toEqual([]);
    const over = laid.pack.families.find(({ id }) => id === own.id);
    expect([over?.models, over?.blink.map(({ id }) => id)]).toEqual([['T1-32', 'T1-40'], ['two']]);
  });
  test('one that no longer fits the next pack stays out and is named', async () => {
    const without: Pack = { ...shipped, layouts: shipped.layouts.filter(({ id }) => id !== 'led-tcon') };
    expect((await withOwnFamilies(app.store, without)).leftOut).toEqual([own.id]);
  });
  test('the same once more changes nothing; nor does one that is spoilt, which says where', async () => {
    const now = await app.store.packs.currentHash();
    expect((await change({ ...own, models: ['T1-32', 'T1-40'] })).status).toBe(201);
    expect(await app.store.packs.currentHash()).toBe(now);
    const spoilt = await change({ ...own, layouts: ['cube'], scope: { years: [2020, 2010] } });
    expect(spoilt.status).toBe(400);
    const { problems } = spoilt.body as { problems: { where: string }[] };
    expect(problems.map(({ where }) => where)).toEqual(expect.arrayContaining(['family.layouts', 'family.scope.years']));
    for (const family of [null, 'x', { id: 'constructor' }, { ...own, id: '__proto__' }]) expect((await change(family)).status).toBe(400);
    expect(await app.store.packs.currentHash()).toBe(now);
  });
  test('looked at before somebody else’s change: told; two at once: one is stored', async () => {
    const old = await post({ by: app.person, basedOn: hashPack({ ...shipped, title: { en: 'x' } }), reason: 'x', family: own });
    expect([old.status, (old.body as { code: string }).code]).toEqual([409, 'pack-version-conflict']);
    const basedOn = await app.store.packs.currentHash();
    const replies = await Promise.all(['A', 'B'].map((maker) => post({ by: app.person, basedOn, reason: 'x', family: { ...own, maker } })));
    expect(replies.map(({ status }) => status).sort()).toEqual([201, 409]);
  });
});
