import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { jobSchema, shopStateSchema, usualShopSettings, type KnownCustomer } from '@veglia/contract';
import { v7 as uuidv7 } from 'uuid';
import { ask, intake, openTestApp, type TestApp } from './support/testApp.ts';

let running: TestApp;
beforeAll(async () => {
  running = await openTestApp();
});
afterAll(() => running.close());

const post = (path: string, body: object) => ask(running.app).post(path).send(body);
const shop = async () => shopStateSchema.parse((await ask(running.app).get('/api/shop')).body);
const change = (version: number, settings: object, by = running.person) =>
  ask(running.app).put('/api/shop').send({ by, version, settings });
const search = async (name: string, contact = ''): Promise<string[]> =>
  ((await post('/api/customers/search', { name, contact })).body as { customers: KnownCustomer[] }).customers.map((one) => one.name);

describe('the shop’s settings', () => {
  test('are the usual ones at first; changed, jobs are folded with them', async () => {
    expect(await shop()).toEqual({ version: 0, settings: usualShopSettings });
    const settings = { ...usualShopSettings, currency: 'DKK', rateMinorPerHour: 60_000, tools: ['meter'] };
    expect((await change(0, settings)).body).toEqual({ version: 1, settings });
    expect(await shop()).toEqual({ version: 1, settings });
    const job = jobSchema.parse((await post('/api/jobs', intake(running.person))).body);
    expect(job.settings).toMatchObject({ currency: 'DKK', rateMinorPerHour: 60_000, tools: ['meter'] });
  });

  test('changed by two at once, the second is told and nothing is overwritten', async () => {
    const { version, settings } = await shop();
    const replies = await Promise.all([
      change(version, { ...settings, shopName: 'One' }),
      change(version, { ...settings, shopName: 'Two' }),
    ]);
    expect(replies.map((reply) => reply.status).sort()).toEqual([200, 409]);
    const lost = replies.find((reply) => reply.status === 409);
    expect((lost?.body as { code: string }).code).toBe('settings-version-conflict');
    expect((await shop()).version).toBe(version + 1);
  });

  test.each<[string, object, string]>([
    ['a rate below nothing', { rateMinorPerHour: -1 }, 'settings.rateMinorPerHour'],
    ['a mains nobody has', { mainsVolts: 400 }, 'settings.mainsVolts'],
    ['a currency that is none', { currency: 'euro' }, 'settings.currency'],
    ['a date that is none', { gear: [{ name: 'meter', provenOn: 'May' }] }, 'settings.gear.0.provenOn'],
  ])('%s is refused and says where', async (_, wrong, where) => {
    const { version, settings } = await shop();
    const reply = await change(version, { ...settings, ...wrong });
    expect([reply.status, (reply.body as { problems: { where: string }[] }).problems.map((one) => one.where)]).toEqual([400, [where]]);
    expect(await shop()).toEqual({ version, settings });
  });

  test('somebody who is not signed in changes nothing', async () => {
    const { version, settings } = await shop();
    expect((await change(version, settings, uuidv7())).status).toBe(403);
  });
});

describe('customers who were here before', () => {
  const customer = (name: string, contact: string) => post('/api/jobs', intake(running.person, { customer: { name, contact } }));

  test('are found by words of the name in any order, by digits of the number, by a mail', async () => {
    await customer('Isaura Quillfeather', '01632 960 488');
    await customer('Bram O’Dowd-Vale', 'bram@example.org');
    expect(await search('quillf')).toEqual(['Isaura Quillfeather']);
    expect(await search('Quillfeather isa')).toEqual(['Isaura Quillfeather']);
    expect(await search('', '960-488')).toEqual(['Isaura Quillfeather']);
    expect(await search('', 'Bram@exa')).toEqual(['Bram O’Dowd-Vale']);
    expect(await search('quillf', 'bram@example.org')).toHaveLength(2);
  });

  test.each([
    ['nothing', '', ''],
    ['one letter', 'q', ''],
    ['three digits', '', '960'],
    ['a pattern of the database', '%%', ''],
    ['a quote', "' OR 1=1 --", ''],
  ])('%s finds nobody', async (_, name, contact) => {
    expect(await search(name, contact)).toEqual([]);
  });

  test('a job for one known by id makes no second; an id nobody has is refused and nothing is stored', async () => {
    const first = jobSchema.parse((await customer('Leto Marchbank', '01632 960 551')).body);
    const [known] = ((await post('/api/customers/search', { name: 'marchbank', contact: '' })).body as { customers: KnownCustomer[] })
      .customers;
    expect(known).toMatchObject({ name: 'Leto Marchbank', jobs: 1 });
    const second = jobSchema.parse((await post('/api/jobs', intake(running.person, { customer: { id: known?.id ?? '' } }))).body);
    expect(second.customer).toEqual(first.customer);
    expect(await search('marchbank')).toHaveLength(1);
    const before = await running.store.models.jobs.count();
    const reply = await post('/api/jobs', intake(running.person, { customer: { id: uuidv7() } }));
    expect([reply.status, (reply.body as { code: string }).code]).toEqual([422, 'unknown-customer']);
    expect(await running.store.models.jobs.count()).toBe(before);
  });
});
