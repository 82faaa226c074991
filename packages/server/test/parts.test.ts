import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Offers, Orders, PartPrices, StockMoves, StockState } from '@veglia/contract';
import type { StockItemInput } from '@veglia/core';
import { SimulatedSupplier, type SupplierManner } from '@veglia/simulators/devices';
import { v7 as uuidv7 } from 'uuid';
import { httpOffers, offersFor } from '../src/parts/offers.ts';
import { ask, draft, intake, noon, openTestApp, type TestApp } from './support/testApp.ts';

let app: TestApp;
beforeAll(async () => {
  app = await openTestApp();
});
afterAll(() => app.close());

const euros = (amount: number) => ({ amountMinor: amount * 100, currency: 'EUR' });
const item = (change: Partial<StockItemInput> = {}): StockItemInput => ({
  id: uuidv7(),
  what: 'board',
  number: 'PW-7710',
  assembly: 'power',
  condition: 'pulled',
  place: 'drawer 4',
  ...change,
});
const put = (one: StockItemInput, version = 0) => ask(app.app).put(`/api/stock/${one.id}`).send({ by: app.person, version, item: one });
const move = (id: string, change: number, reason = 'counted', moveId = uuidv7()) =>
  ask(app.app).post(`/api/stock/${id}/moves`).send({ id: moveId, by: app.person, change, reason });
const read = async (id: string): Promise<StockState> => (await ask(app.app).get(`/api/stock/${id}`)).body as StockState;
const code = (reply: { readonly body: unknown }): string => (reply.body as { code: string }).code;

/** A job of a customer’s, or of the shop’s own. */
async function job(customer: 'customer' | 'own' = 'customer'): Promise<string> {
  const one = intake(app.person, customer === 'own' ? { customer: null } : {});
  await ask(app.app).post('/api/jobs').send(one);
  return one.id;
}
const append = (id: string, ...bodies: (Record<string, unknown> & { kind: string })[]) =>
  ask(app.app)
    .post(`/api/jobs/${id}/entries`)
    .send({ by: app.person, entries: bodies.map((body) => draft(body, 2)) });
const wanted = (want: string, change: object = {}) => ({
  kind: 'part.wanted',
  v: 1,
  want,
  assembly: 'power',
  number: 'PW-7710',
  source: 'new',
  price: euros(48),
  ...change,
});
const ordered = (want: string, change: object = {}) => ({
  kind: 'part.ordered',
  v: 1,
  want,
  supplier: 'Brelm Parts',
  price: euros(45),
  expectedOn: '2026-03-06',
  ...change,
});
const ordersOf = async (id: string): Promise<Orders['jobs'][number] | undefined> =>
  ((await ask(app.app).get('/api/orders')).body as Orders).jobs.find(({ jobId }) => jobId === id);

describe('the stock', () => {
  test('an item is kept, found by its number without dashes, and by what its donor holds', async () => {
    const one = item({ number: 'PW-77/12' });
    const donor = item({
      what: 'donor',
      number: 'Quorvane QK3-50',
      assembly: undefined,
      condition: 'donor',
      donor: { boards: [{ assembly: 'main', number: 'MB-9-12', state: 'good' }], chips: [{ marking: '25Q64', state: 'untested' }] },
    });
    expect((await put(one)).status).toBe(200);
    expect((await put(donor)).status).toBe(200);
    const found = async (find: string): Promise<string[]> =>
      ((await ask(app.app).get('/api/stock').query({ find })).body as { items: StockState[] }).items.map((state) => state.item.id);
    expect(await found('pw7712')).toEqual([one.id]);
    expect(await found('drawer pw-77')).toEqual([one.id]);
    expect(await found('mb912')).toEqual([donor.id]);
    expect(await found('25q64')).toEqual([donor.id]);
    expect(await found('no such thing')).toEqual([]);
  });

  test('its count is the sum of its moves; a move sent twice counts once', async () => {
    const one = item();
    await put(one);
    const bought = uuidv7();
    await move(one.id, 3, 'bought', bought);
    await move(one.id, 3, 'bought', bought);
    await move(one.id, -1, 'scrapped');
    expect((await read(one.id)).count).toBe(2);
    expect(code(await move(one.id, 5, 'bought', bought))).toBe('entry-conflict');
    const { moves } = (await ask(app.app).get(`/api/stock/${one.id}/moves`)).body as StockMoves;
    expect(moves.map(({ change, reason }) => [change, reason])).toEqual(
      expect.arrayContaining([
        [3, 'bought'],
        [-1, 'scrapped'],
      ]),
    );
    expect(moves).toHaveLength(2);
  });

  test('two who change it at once: the second is told, and nothing of the first is lost', async () => {
    const one = item();
    await put(one);
    expect((await put({ ...one, place: 'shelf 2' }, 1)).status).toBe(200);
    expect(code(await put({ ...one, place: 'shelf 3' }, 1))).toBe('stock-version-conflict');
    expect((await read(one.id)).item.place).toBe('shelf 2');
    // The same again is the retry it is.
    expect((await put({ ...one, place: 'shelf 2' }, 1)).status).toBe(200);
    expect((await read(one.id)).version).toBe(2);
  });

  test('what was retired is listed only where it is asked for; what isn’t there is not found', async () => {
    const one = item({ number: 'RET-1', retired: true });
    await put(one);
    const listed = async (query: object): Promise<number> =>
      ((await ask(app.app).get('/api/stock').query(query)).body as { items: unknown[] }).items.length;
    expect(await listed({ find: 'ret-1' })).toBe(0);
    expect(await listed({ find: 'ret-1', retired: 'true' })).toBe(1);
    expect((await ask(app.app).get(`/api/stock/${uuidv7()}`)).status).toBe(404);
    expect((await move(uuidv7(), 1)).status).toBe(404);
  });

  test('set aside for a job, taken by the fitting, put back where that is undone', async () => {
    const one = item();
    await put(one);
    await move(one.id, 1, 'bought');
    const id = await job();
    const want = uuidv7();
    await append(id, wanted(want, { source: 'own-stock', item: one.id }));
    expect(await read(one.id)).toMatchObject({ count: 1, reserved: 1 });
    const fitted = {
      kind: 'part.fitted',
      v: 1,
      assembly: 'power',
      number: 'PW-7710',
      source: 'own-stock',
      price: euros(48),
      want,
      item: one.id,
    };
    const stored = await append(id, fitted);
    expect(await read(one.id)).toMatchObject({ count: 0, reserved: 0 });
    const [entry] = (stored.body as { entries: { id: string }[] }).entries;
    await append(id, { kind: 'entry.retracted', v: 1, entry: entry?.id, reason: 'wrong set' });
    expect(await read(one.id)).toMatchObject({ count: 1, reserved: 1 });
  });
});

test('of a donor only the board goes: it is marked, and good again where the fitting is undone', async () => {
  const boards = [
    { assembly: 'power', number: 'PW 7710', state: 'good' as const },
    { assembly: 'main', number: 'MB-9', state: 'untested' as const },
  ];
  const donor = item({ what: 'donor', number: 'QK3-50', assembly: undefined, condition: 'donor', donor: { boards, chips: [] } });
  await put(donor);
  await move(donor.id, 1, 'counted');
  const id = await job();
  const fitted = { kind: 'part.fitted', v: 1, assembly: 'power', number: 'PW-7710', source: 'donor', price: euros(0), item: donor.id };
  const stored = await append(id, fitted);
  const states = async (): Promise<unknown> => {
    const { count, item: now } = await read(donor.id);
    return [count, now.donor?.boards.map(({ state }) => state)];
  };
  expect(await states()).toEqual([1, ['taken', 'untested']]);
  const [entry] = (stored.body as { entries: { id: string }[] }).entries;
  await append(id, { kind: 'entry.retracted', v: 1, entry: entry?.id, reason: 'wrong set' });
  expect(await states()).toEqual([1, ['good', 'untested']]);
});

describe('orders', () => {
  test('without an agreement refused, with a reason taken; the reason is a personal text', async () => {
    const id = await job();
    const want = uuidv7();
    await append(id, wanted(want));
    expect((await ordersOf(id))?.parts).toEqual([expect.objectContaining({ state: 'to-order', refused: { why: 'nothing-agreed' } })]);
    const refused = await append(id, ordered(want));
    expect([refused.status, code(refused)]).toEqual([422, 'not-agreed']);
    expect((refused.body as { problems: { sentence: string }[] }).problems[0]?.sentence).toContain('Nothing has been agreed');
    expect((await append(id, ordered(want, { override: 'she said yes at the counter' }))).status).toBe(200);
    expect((await ordersOf(id))?.parts).toEqual([
      expect.objectContaining({ state: 'on-order', supplier: 'Brelm Parts', price: euros(45), expectedOn: '2026-03-06' }),
    ]);
    const [row] = await app.store.models.entries.findAll({ where: { jobId: id, kind: 'part.ordered' } });
    expect(JSON.stringify(row?.body)).not.toContain('counter');
  });

  test('agreed: ordered, and the job waits for the part until it is here', async () => {
    const id = await job();
    const want = uuidv7();
    const cardOf = async (): Promise<unknown> =>
      ((await ask(app.app).get('/api/jobs').query({ ids: id })).body as { jobs: { waitsFor: string; partsOn: string | null }[] }).jobs[0];
    await append(id, { kind: 'limit.agreed', v: 2, limit: euros(150) }, wanted(want));
    expect((await append(id, ordered(want))).status).toBe(200);
    expect(await cardOf()).toMatchObject({ waitsFor: 'part', partsOn: '2026-03-06' });
    await append(id, { kind: 'part.arrived', v: 1, want, result: 'right' });
    expect(await cardOf()).toMatchObject({ waitsFor: 'hands', partsOn: null });
    await append(id, { kind: 'part.fitted', v: 1, assembly: 'power', number: 'PW-7710', source: 'new', price: euros(45), want });
    expect(await ordersOf(id)).toBeUndefined();
  });

  test('nobody has to be asked about the shop’s own set', async () => {
    const id = await job('own');
    const want = uuidv7();
    await append(id, wanted(want));
    expect((await append(id, ordered(want))).status).toBe(200);
  });

  test('a part that the job does not want is not ordered', async () => {
    const refused = await append(await job('own'), ordered(uuidv7()));
    expect([refused.status, code(refused)]).toEqual([400, 'bad-request']);
  });

  test('what was fitted twice and isn’t in stock is worth keeping; once, undone, or there: not', async () => {
    const fitted = (number: string) => ({ kind: 'part.fitted', v: 1, assembly: 'tcon', number, source: 'new', price: euros(20) });
    const proposed = async (): Promise<Orders['proposed']> =>
      ((await ask(app.app).get('/api/orders')).body as Orders).proposed.filter(({ assembly }) => assembly === 'tcon');
    await append(await job('own'), fitted('TC-50'), fitted('TC-51'));
    const undone = await append(await job('own'), fitted('TC-51'));
    const again = await job('own');
    await append(again, fitted('tc 50'));
    expect((await proposed()).map(({ number, fitted: n }) => [number, n])).toEqual([
      ['TC-50', 2],
      ['TC-51', 2],
    ]);
    const { entries } = undone.body as { entries: { id: string }[] };
    const [row] = await app.store.models.entries.findAll({ where: { id: entries[0]?.id ?? '' } });
    await append(row?.jobId ?? '', { kind: 'entry.retracted', v: 1, entry: entries[0]?.id, reason: 'wrong set' });
    const kept = item({ number: 'TC50', assembly: 'tcon' });
    await put(kept);
    expect((await proposed()).map(({ number }) => number)).toEqual(['TC-50']);
    await move(kept.id, 1, 'bought');
    expect(await proposed()).toEqual([]);
  });

  test('what was paid for a number before, newest first, with its day and where', async () => {
    const id = await job('own');
    const want = uuidv7();
    await append(id, wanted(want, { number: 'ZX 90-1', supplier: 'Ostrel Surplus' }), ordered(want));
    const { prices } = (await ask(app.app).get('/api/part-prices').query({ number: 'zx901' })).body as PartPrices;
    expect(prices).toHaveLength(2);
    expect(prices).toEqual(
      expect.arrayContaining([
        { price: euros(45), on: '2026-03-02', supplier: 'Brelm Parts', what: 'ordered', source: 'new' },
        { price: euros(48), on: '2026-03-02', supplier: 'Ostrel Surplus', what: 'wanted', source: 'new' },
      ]),
    );
  });
});

describe('offers', () => {
  const store = { now: () => noon };
  const asked = async (manner: SupplierManner): Promise<Offers> => {
    const supplier = new SimulatedSupplier({ name: 'Brelm Parts', manner });
    try {
      return await offersFor(store, [httpOffers({ name: 'Brelm Parts', address: await supplier.listen() }, 300)], 'PW-7710');
    } finally {
      await supplier.close();
    }
  };
  test.each<[SupplierManner, Partial<Offers['offers'][number]> | null, string | null]>([
    ['sound', { number: 'PW-7710', match: 'same-number', supplier: 'Brelm Parts', days: 3 }, null],
    ['stock-out', { match: 'same-number', inStock: 0 }, null],
    ['wrong-match', { number: 'PW-7710-B', match: 'other-number' }, null],
    ['slow', null, 'slow'],
    ['failing', null, 'failed'],
    ['unreadable', null, 'unreadable'],
  ])('a supplier that is %s', async (manner, offer, trouble) => {
    const { offers, troubles } = await asked(manner);
    expect(offers).toEqual(offer === null ? [] : [expect.objectContaining(offer)]);
    expect(troubles.map((one) => one.trouble)).toEqual(trouble === null ? [] : [trouble]);
  });

  test('one that is away, one that sends you elsewhere: told, and nobody is followed', async () => {
    const away = await offersFor(store, [httpOffers({ name: 'A', address: 'http://127.0.0.1:9/offers' }, 300)], 'X');
    expect(away.troubles).toEqual([{ supplier: 'A', trouble: 'unreachable' }]);
    let followed = false;
    const elsewhere = createServer((request, response) => {
      followed ||= request.url?.startsWith('/inside') === true;
      response.writeHead(302, { location: '/inside' }).end();
    });
    await new Promise<void>((resolve) => elsewhere.listen(0, '127.0.0.1', resolve));
    const { port } = elsewhere.address() as AddressInfo;
    const led = await offersFor(store, [httpOffers({ name: 'B', address: `http://127.0.0.1:${port}/offers` }, 300)], 'X');
    elsewhere.closeAllConnections();
    elsewhere.close();
    expect(led.troubles).toEqual([{ supplier: 'B', trouble: 'unreachable' }]);
    expect(followed).toBe(false);
  });

  test('side by side: the number asked for and what is there first, then by price', async () => {
    const made = (supplier: string, number: string, amount: number, inStock: number) => ({
      supplier,
      ask: () =>
        Promise.resolve({
          offers: [
            { number, title: '', condition: 'new' as const, price: euros(amount), days: 3, inStock, warrantyDays: null, returnDays: null },
          ],
        }),
    });
    const { offers } = await offersFor(
      store,
      [made('other', 'PW-7710-B', 10, 5), made('out', 'PW7710', 12, 0), made('dear', 'PW-7710', 40, 2), made('cheap', 'pw 7710', 30, 1)],
      'PW-7710',
    );
    expect(offers.map(({ supplier }) => supplier)).toEqual(['cheap', 'dear', 'out', 'other']);
  });

  test('a shop without suppliers has no offers and no troubles', async () => {
    const reply = await ask(app.app).get('/api/offers').query({ number: 'PW-7710' });
    expect(reply.body).toEqual({ askedAt: noon.toISOString(), offers: [], troubles: [] });
  });
});
