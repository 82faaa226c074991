import { spawnSync } from 'node:child_process';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { usualShopSettings, type ShopState } from '@veglia/contract';
import { SimulatedMessenger } from '@veglia/simulators/devices';
import { pino } from 'pino';
import { v7 as uuidv7 } from 'uuid';
import { ensurePoppler } from '../../../scripts/lib/install.mjs';
import { createApp } from '../src/app.ts';
import { httpMessenger } from '../src/messages/messenger.ts';
import { ask, draft, intake, openTestApp, testAddress, testHosts, unproven, type TestApp } from './support/testApp.ts';

let running: TestApp;
let pdftotext: string;
const gateway = new SimulatedMessenger();
let address: string;
beforeAll(async () => {
  running = await openTestApp();
  pdftotext = (await ensurePoppler()) ?? '';
  address = await gateway.listen();
}, 300_000);
afterAll(async () => {
  await gateway.close();
  await running.close();
});

const euros = (amount: number) => ({ amountMinor: Math.round(amount * 100), currency: 'EUR' });
async function text(id: string, name: string, language?: 'en' | 'de'): Promise<string> {
  const reply = await ask(running.app)
    .get(`/api/jobs/${id}/${name}.pdf`)
    .query(language === undefined ? {} : { language })
    .buffer(true)
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => done(null, Buffer.concat(parts)));
    });
  expect([reply.status, reply.headers['content-type']]).toEqual([200, 'application/pdf']);
  // As poppler reads it: a program that knows nothing of how it was made.
  const read = spawnSync(pdftotext, ['-layout', '-', '-'], { input: reply.body as Buffer, encoding: 'utf8' });
  return read.stdout.replace(/\s+/g, ' ');
}
async function setShop(change: object): Promise<void> {
  const { version } = (await ask(running.app).get('/api/shop')).body as ShopState;
  const settings = { ...usualShopSettings, shopName: 'Lamp & Daughter', ...change };
  expect((await ask(running.app).put('/api/shop').send({ by: running.person, version, settings })).status).toBe(200);
}
const customer = { name: 'Łucja Østergård', contact: '01632 960199' };
async function job(...bodies: (Record<string, unknown> & { kind: string })[]): Promise<string> {
  const one = intake(running.person, { customer });
  expect((await ask(running.app).post('/api/jobs').send(one)).status).toBe(201);
  if (bodies.length > 0) await add(one.id, ...bodies);
  return one.id;
}
async function add(id: string, ...bodies: (Record<string, unknown> & { kind: string })[]): Promise<void> {
  const entries = [...bodies.map((body) => draft(body, 900))];
  const reply = await ask(running.app).post(`/api/jobs/${id}/entries`).send({ by: running.person, entries });
  expect(reply.body).not.toHaveProperty('problems');
  expect(reply.status).toBe(200);
}
const repaired = [
  { kind: 'limit.agreed', v: 2, checkFee: euros(25) },
  { kind: 'test.answered', v: 2, test: 'fuse', outcome: 'open', sure: 'sure' },
  { kind: 'repair.done', v: 2, repair: 'replace.power', result: 'cured' },
  { kind: 'part.fitted', v: 1, assembly: 'power', number: 'PW-7710', source: 'refurbished', price: euros(48) },
  { kind: 'fault.confirmed', v: 1, assembly: 'power', fault: 'power.standby-dead', how: 'measured' },
];
const closed = {
  kind: 'job.closed',
  v: 2,
  outcome: 'repaired',
  minutes: 60,
  warrantyDays: 180,
  remains: 'a scratch on the bezel',
  checked: { 'ground-screws': 'passed', insulation: 'passed', 'touch-current': 'passed' },
};
async function closedJob(): Promise<string> {
  const id = await job(...repaired);
  const entries = [...unproven(900), draft(closed, 900)];
  const reply = await ask(running.app).post(`/api/jobs/${id}/entries`).send({ by: running.person, entries });
  expect(reply.status).toBe(200);
  return id;
}

describe('papers of a customer', () => {
  test.each([
    ['a cable cleaned', { test: 'reseat', of: 'harness.picture' }, 'Picture cable cleaned or replaced'],
    ['a power reset', { test: 'reset-wait' }, 'Set drained of power and reset'],
    ['another outlet', { test: 'outlet' }, 'Outside the set: cause removed'],
    ['a factory reset', { test: 'update-reset' }, 'Settings corrected or reset'],
    ['a loan: it goes back', { test: 'swap.known-good', of: 'tcon' }, 'Nothing was repaired.'],
  ])('%s is what was done, where it cleared the symptom', async (_, step, done) => {
    const id = await job({ kind: 'test.answered', v: 2, ...step, outcome: 'cured', sure: 'sure' });
    expect(await text(id, 'report', 'en')).toContain(`What was done ${done}`);
  });
  test('a quote: what was found, what it is made of with its tax, how long it holds, what can be chosen', async () => {
    await setShop({ taxBasisPoints: 1900 });
    const id = await job(...repaired.slice(0, 2), {
      kind: 'quote.sent',
      v: 2,
      total: euros(108),
      upTo: euros(140),
      options: ['repair', 'hand-back'],
      lines: [
        { what: 'labour', minutes: 75, amount: euros(60) },
        { what: 'part', assembly: 'power', number: 'PW-7710', amount: euros(48) },
      ],
      validUntil: '2026-03-16',
      flaw: 'one HDMI input stays dead',
    });
    const en = await text(id, 'quote');
    for (const part of [
      'Quote',
      'Valid until March 16, 2026',
      'Sound, black screen',
      'Labour, 75 min',
      'Power board, PW-7710',
      '€108.00',
      'includes tax 19 %',
      '€17.24',
      'between €108.00 and €140.00',
      'Return without repair',
      'one HDMI input stays dead',
      'diagnostic fee of €25.00',
    ])
      expect(en).toContain(part);
    const de = await text(id, 'quote', 'de');
    for (const part of [
      'Kostenvoranschlag',
      '16. März 2026',
      'Ton, aber dunkles Bild',
      'Netzteil, PW-7710',
      '108,00 €',
      'Rückgabe ohne Reparatur',
    ])
      expect(de).toContain(part);
  });

  test('a report: what was wrong, how it was found, what was done and fitted, what remains, the warranty with its last day', async () => {
    const id = await closedJob();
    const en = await text(id, 'report');
    for (const part of [
      'Repair report',
      'Power board: ',
      'It was measured.',
      'Tests: 1, measurements: 0',
      'Power board replaced',
      'number PW-7710, refurbished',
      'a scratch on the bezel',
      '180 days on this repair, until August 29, 2026',
      'Do not open the set',
    ])
      expect(en).toContain(part);
    const de = await text(id, 'report', 'de');
    for (const part of ['Reparaturbericht', 'Netzteil ersetzt', 'aufgearbeitet', '180 Tage', '29. August 2026']) expect(de).toContain(part);
    // The pack says its faults in English only: nothing of that stands on a German paper.
    expect(de).not.toContain('Standby');
  });

  test('a bill: with its tax held in the prices, or on top of them', async () => {
    await setShop({ taxBasisPoints: 1900, pricesHoldTax: true });
    const id = await closedJob();
    const held = await text(id, 'invoice');
    for (const part of ['Labour, 60 min €48.00', 'PW-7710 €48.00', 'Total €96.00', 'includes tax 19 % €15.33', 'rounded once per rate'])
      expect(held).toContain(part);
    await setShop({ taxBasisPoints: 1900, pricesHoldTax: false });
    const onTop = await text(id, 'invoice');
    for (const part of ['Net €96.00', 'Tax 19 % €18.24', 'Total €114.24']) expect(onTop).toContain(part);
    await setShop({ taxBasisPoints: 0 });
    expect(await text(id, 'invoice')).not.toContain('tax');
    await add(id, { kind: 'set.collected', v: 1, payment: 'cash', oldPart: 'shown-and-given' });
    expect(await text(id, 'invoice')).toContain('Paid: cash');
    expect(await text(id, 'report')).toContain('You received the old part.');
  });

  test('the language is the quote’s, then the customer’s, then the shop’s, unless it is asked for', async () => {
    await setShop({ customerLanguage: 'de' });
    const id = await job();
    expect(await text(id, 'report')).toContain('Reparaturbericht');
    expect(await text(id, 'report', 'en')).toContain('Repair report');
    await add(id, { kind: 'quote.sent', v: 2, total: euros(50), language: 'en' });
    expect(await text(id, 'quote')).toContain('Quote');
    await setShop({});
  });

  test('an open job is billed nothing', async () => {
    expect(await text(await job(), 'invoice')).toContain('Nothing to pay.');
  });
});

test('a technician’s sheet has every reading; a question to a colleague has them too, and nobody’s name, words or serial number', async () => {
  const id = await job(
    { kind: 'note.added', v: 1, text: 'neighbour Ferrigan called twice' },
    { kind: 'reading.taken', v: 2, quantity: 'volts', at: 'stby-5v', value: 0.4, state: 'standby', pin: 'CN1 pin 3' },
    ...repaired.slice(1, 3),
  );
  const sheet = await text(id, 'readings');
  for (const part of ['CN1 pin 3: 0.4 V (standby)', 'Replace the power board: symptom clears']) expect(sheet).toContain(part);
  const help = await ask(running.app).get(`/api/jobs/${id}/help.txt`);
  expect(help.headers['content-type']).toContain('text/plain');
  for (const part of ['Quorvane QK3-50', 'CN1 pin 3: 0.4 V', 'Reported: Sound, black screen', 'Suspects:'])
    expect(help.text).toContain(part);
  for (const secret of ['Łucja', 'Østergård', '960199', 'Ferrigan', 'it only talks', 'nephew', 'Q350-1'])
    expect(help.text).not.toContain(secret);
});

describe('messages', () => {
  const send = (id: string, template: string, language = 'en', entry = uuidv7(), to: string | null = address) => {
    const messenger = to === null ? undefined : httpMessenger(to, 500);
    const app = createApp({
      store: running.store,
      door: running.door,
      log: pino({ level: 'silent' }),
      hosts: testHosts,
      ownAddress: () => testAddress,
      messenger,
    });
    return ask(app).post(`/api/jobs/${id}/messages`).send({ id: entry, by: running.person, template, language });
  };
  const code = (reply: { readonly body: unknown }): string => (reply.body as { code: string }).code;

  test('the bill of a set that is ready, in the customer’s language; sent twice it goes out once; its text is kept nowhere', async () => {
    const id = await closedJob();
    const entry = uuidv7();
    const first = await send(id, 'ready', 'de', entry);
    expect((first.body as { entries: { body: object }[] }).entries[0]?.body).toEqual({
      kind: 'message.sent',
      v: 1,
      template: 'ready',
      language: 'de',
      result: 'sent',
    });
    await send(id, 'ready', 'de', entry);
    expect(gateway.received).toHaveLength(1);
    expect(gateway.received[0]).toEqual({
      to: '01632 960199',
      text: expect.stringMatching(/Lamp & Daughter: Ihr Gerät Quorvane QK3-50 .* 96,00\s€/) as unknown,
    });
    const rows = await running.store.models.entries.findAll({ where: { jobId: id, kind: 'message.sent' } });
    expect(JSON.stringify(rows.map(({ body }) => body))).not.toContain('960199');
  });

  test('refused, away, or with nothing to tell: said, and recorded where something was tried', async () => {
    const id = await closedJob();
    gateway.refuses = true;
    expect(JSON.stringify((await send(id, 'ready')).body)).toContain('"result":"refused"');
    gateway.refuses = false;
    expect(JSON.stringify((await send(id, 'ready', 'en', uuidv7(), 'http://127.0.0.1:9/')).body)).toContain('"result":"unreachable"');
    expect(code(await send(await job(), 'ready'))).toBe('nothing-to-say');
    expect(code(await send(await job(), 'trial'))).toBe('nothing-to-say');
    const nobody = intake(running.person, { customer: null });
    await ask(running.app).post('/api/jobs').send(nobody);
    expect(code(await send(nobody.id, 'ready'))).toBe('no-contact');
    expect(code(await send(id, 'ready', 'en', uuidv7(), null))).toBe('not-found');
  });
});
