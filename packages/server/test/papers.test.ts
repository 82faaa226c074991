import { spawnSync } from 'node:child_process';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { usualShopSettings } from '@veglia/contract';
import jsqr from 'jsqr';
import { v7 as uuidv7 } from 'uuid';
import { ensurePoppler } from '../../../scripts/lib/install.mjs';
import { ask, draft, intake, openTestApp, testAddress, type TestApp } from './support/testApp.ts';

// The package is CommonJS: read by Node as it is, its one function stands under `default`.
const jsQR = 'default' in jsqr ? (jsqr.default as typeof jsqr) : jsqr;

let running: TestApp;
let pdftotext: string;
beforeAll(async () => {
  running = await openTestApp();
  pdftotext = (await ensurePoppler()) ?? '';
}, 300_000);
afterAll(() => running.close());

type PaperName = 'label' | 'receipt' | 'modification' | 'quote' | 'report' | 'invoice' | 'readings';
async function pdf(id: string, name: PaperName, host = '127.0.0.1', language?: 'en' | 'de'): Promise<Buffer> {
  const reply = await ask(running.app)
    .get(`/api/jobs/${id}/${name}.pdf`)
    .query(language === undefined ? {} : { language })
    .set('host', host)
    .buffer(true)
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => done(null, Buffer.concat(parts)));
    });
  expect([reply.status, reply.headers['content-type']]).toEqual([200, 'application/pdf']);
  return reply.body as Buffer;
}
/** As poppler's pdftotext reads it: a program that knows nothing of how it was made. */
function textOf(bytes: Buffer): string {
  const read = spawnSync(pdftotext, ['-layout', '-', '-'], { input: bytes, encoding: 'utf8' });
  expect(read.status).toBe(0);
  return read.stdout.replace(/\s+/g, ' ');
}

const entries = (words: string) => [
  draft({
    kind: 'job.opened',
    v: 2,
    set: { layout: 'led-tcon', family: 'quorvane.qk3', sizeInch: 50 },
    condition: ['storm', 'crack'],
    accessories: ['remote', 'cord'],
    otherAccessories: 'a brass foot',
    warranty: 'running',
    mayLoseData: false,
  }),
  draft({ kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'], words }),
  draft({ kind: 'limit.agreed', v: 2, limit: { amountMinor: 12_050, currency: 'EUR' }, checkFee: { amountMinor: 2500, currency: 'EUR' } }),
  draft({ kind: 'set.shelved', v: 1, shelf: 'B 3' }),
];
async function taken(
  words = 'it only talks',
  customer = { name: 'Łucja Østergård-Ñuñez', contact: '01632 960199' },
): Promise<{ id: string; number: number }> {
  const reply = await ask(running.app)
    .post('/api/jobs')
    .send(intake(running.person, { customer, entries: entries(words) }));
  expect(reply.status).toBe(201);
  return reply.body as never;
}

describe('papers', () => {
  test('a label says number, set, size, shelf and hazards', async () => {
    const { id, number } = await taken();
    const text = textOf(await pdf(id, 'label'));
    for (const part of [
      `Job ${number}`,
      'Quorvane QK3-50',
      '50 inch',
      'Serial Q350-1',
      'Shelf B 3',
      'Hazards: Storm or surge; Crack; May be charged',
    ])
      expect(text).toContain(part);
    expect(text).not.toContain('Østergård');
  });

  test('a receipt says who, what, in which condition, what came along, and what was agreed; letters of other languages stay', async () => {
    const shop = { ...usualShopSettings, shopName: 'Lamp & Daughter', shopContact: 'The quay', receiptText: 'Sets wait six weeks.' };
    await ask(running.app).put('/api/shop').send({ by: running.person, version: 0, settings: shop });
    const { id, number } = await taken('„dunkel“, she says');
    const text = textOf(await pdf(id, 'receipt'));
    for (const part of [
      'Lamp & Daughter',
      `Job ${number}. Checked in on 2026-03-02`,
      'Łucja Østergård-Ñuñez',
      'Sound, black screen',
      '„dunkel“, she says',
      'Storm or surge, Crack',
      'Remote, Cord, a brass foot',
      'Diagnostic fee: €25.00',
      'up to €120.50 without calling',
      'Do not erase settings and accounts',
      'warranty is still valid',
      'second fault may stay hidden',
      'Sets wait six weeks.',
    ])
      expect(text).toContain(part);
  });

  test('what a customer says is text and nothing else; a very long word stays on the page', async () => {
    const { id } = await taken(`<script>alert(1)</script> {"image":"/etc/passwd"} ${'W'.repeat(400)}`);
    const text = textOf(await pdf(id, 'receipt'));
    expect(text).toContain('<script>alert(1)</script>');
    expect(text).toContain('"image":"/etc/passwd"');
    expect(text.replaceAll(' ', '')).toContain('W'.repeat(400));
  });

  test('their code leads to the configured address, whatever name was asked for', async () => {
    const own = intake(running.person);
    await ask(running.app).post('/api/jobs').send(own);
    const bytes = await pdf(own.id, 'label', 'localhost:7');
    const drawn = spawnSync('pdftoppm', ['-gray', '-r', '200', '-'], { input: bytes });
    const head = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(drawn.stdout.subarray(0, 64).toString('latin1'));
    const [width, height] = [Number(head?.[1]), Number(head?.[2])];
    const grey = drawn.stdout.subarray(head?.[0].length);
    const pixels = new Uint8ClampedArray(width * height * 4).map((_, at) => (at % 4 === 3 ? 255 : (grey[at >> 2] ?? 255)));
    expect(jsQR(pixels, width, height)?.data).toBe(`${testAddress}/jobs/${own.id}`);
  });

  test('a set without a customer and a job nobody has', async () => {
    const own = intake(running.person, { customer: null });
    await ask(running.app).post('/api/jobs').send(own);
    expect(textOf(await pdf(own.id, 'receipt'))).toContain('Our own set');
    expect(textOf(await pdf(own.id, 'label'))).toContain('No shelf yet');
    expect((await ask(running.app).get(`/api/jobs/${uuidv7()}/label.pdf`)).status).toBe(404);
  });
});

test('modifications: an inside label, the drawing with its wires, how to undo it; what was undone in the ledger is not on it', async () => {
  const { id } = await taken();
  expect(textOf(await pdf(id, 'modification'))).toContain('No modification is recorded.');
  const wires = [
    { from: 'P4.1', to: 'driver +', carries: '24 V', colour: 'red' },
    { from: 'P4 <2>', to: 'driver & case' },
  ];
  const recorded = draft({
    kind: 'modification.recorded',
    v: 1,
    name: 'Outside light driver',
    wires,
    undo: 'Pull both wires; fit the own plug.',
    plugsKept: true,
    noStandby: true,
  });
  const wrong = draft({ kind: 'modification.recorded', v: 1, name: 'Another', wires: [], undo: 'x', plugsKept: false });
  const out = draft({ kind: 'entry.retracted', v: 1, entry: wrong.id, reason: 'other job' });
  const reply = await ask(running.app)
    .post(`/api/jobs/${id}/entries`)
    .send({ by: running.person, entries: [recorded, wrong, out] });
  expect(reply.status).toBeLessThan(300);
  const text = textOf(await pdf(id, 'modification'));
  for (const part of [
    'MODIFIED SET',
    'Outside light driver',
    'No standby',
    'P4.1',
    'driver +',
    '24 V, red',
    'P4 <2>',
    'driver & case',
    'Pull both wires',
  ])
    expect(text).toContain(part);
  expect(text).not.toContain('Another');
});
