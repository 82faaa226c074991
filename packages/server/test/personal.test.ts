/** A person's data, handed over and erased: the cases of docs/decisions/0023-personal-data.md, against a real PostgreSQL. */
import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { erasedSchema, jobSchema, problemDocumentSchema, sessionSchema, type Erased } from '@veglia/contract';
import { unzipSync, strFromU8 } from 'fflate';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { auditDays, forgetOldAudit } from '../src/accounts/audit.ts';
import { newestSnapshot } from '../src/counts/counts.ts';
import { whereWordsStand } from '../src/personal/find.ts';
import {
  ask,
  askUnknown,
  codeOf,
  confirmOwner,
  cookiesOf,
  draft,
  intake,
  noon,
  openTestApp,
  testCluster,
  unproven,
  type TestApp,
} from './support/testApp.ts';

let now = noon;
let running: TestApp;
beforeAll(async () => {
  running = await openTestApp({ now: () => now });
});
afterAll(() => running.close());
const owner = () => ask(running.app);
const confirmed = (): Promise<void> => confirmOwner(running.app);

/** The whole database as text, as somebody with a copy of it would search it. */
const dump = (): string =>
  execFileSync(path.join(testCluster().bin as string, 'pg_dump'), ['--data-only', '--inserts', '--dbname', running.ownerUrl], {
    encoding: 'utf8',
    maxBuffer: 2 ** 29,
  });
/** A JPEG by its first bytes, and a sentence that can be searched for. */
const photoOf = (text: string): Buffer => Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.from(text.padEnd(2000, '.'))]);

interface Taken {
  readonly job: string;
  readonly number: number;
  readonly photo: string;
}
let made = 0;
/** A job with everything personal in it, taken in and, unless it stays, closed and collected. */
async function jobOf(customer: { name: string; contact: string }, word: string, { stays = false } = {}): Promise<Taken> {
  const serial = `${word}-SERIAL-${(made += 1)}`;
  const request = intake(running.person, {
    customer,
    plate: { maker: 'Quorvane', model: 'QK3-50', serial },
    entries: [
      draft({ kind: 'job.opened', v: 1, set: { layout: 'led-tcon', family: 'quorvane.qk3' }, earlier: `${word} earlier` }),
      draft({ kind: 'symptom.reported', v: 1, symptoms: ['sound-dark'], words: `${word} words` }),
    ],
  });
  const reply = await owner().post('/api/jobs').send(request);
  expect([reply.status, reply.body]).toEqual([201, expect.anything()]);
  const taken = jobSchema.parse(reply.body);
  const photo = uuidv7();
  const stored = await owner()
    .put(`/api/photos/${photo}`)
    .set('content-type', 'image/jpeg')
    .send(photoOf(`${word} photo`));
  expect(stored.status).toBeLessThan(300);
  const write = async (...bodies: (Record<string, unknown> & { kind: string })[]): Promise<void> => {
    const { lastSeq } = (await owner().get(`/api/jobs/${taken.id}/entries?after=0`)).body as { lastSeq: number };
    const reply = await owner()
      .post(`/api/jobs/${taken.id}/entries`)
      .send({ by: running.person, entries: bodies.map((body) => draft(body, lastSeq)) });
    expect([reply.status, reply.body]).toEqual([200, expect.anything()]);
  };
  await write(
    { kind: 'photo.added', v: 1, photo, caption: `${word} caption` },
    { kind: 'note.added', v: 1, text: `${word} note` },
    { kind: 'fault.confirmed', v: 1, assembly: 'backlight', note: `${word} fault` },
  );
  if (!stays) {
    const { lastSeq } = (await owner().get(`/api/jobs/${taken.id}/entries?after=0`)).body as { lastSeq: number };
    const reply = await owner()
      .post(`/api/jobs/${taken.id}/entries`)
      .send({
        by: running.person,
        entries: [
          ...unproven(lastSeq),
          draft({ kind: 'job.closed', v: 2, outcome: 'handed-back', minutes: 20, remains: `${word} remains` }, lastSeq),
          draft({ kind: 'set.collected', v: 1, who: `${word} who` }, lastSeq),
        ],
      });
    expect([reply.status, reply.body]).toEqual([200, expect.anything()]);
  }
  return { job: taken.id, number: taken.number, photo };
}
const customerOf = async (job: string): Promise<string> => (await running.store.models.jobs.findByPk(job))?.customerId ?? '';
async function erase(customer: string, photos = true): Promise<Erased> {
  await confirmed();
  const reply = await owner().post(`/api/customers/${customer}/erase`).send({ photos });
  expect([reply.status, reply.body]).toEqual([200, expect.anything()]);
  return erasedSchema.parse(reply.body);
}

describe('a customer', () => {
  test('is nowhere in a copy of the database once erased, and the facts of the repair are what they were', async () => {
    const gone = { name: 'Odalric Tremblethwaite', contact: '01632 960477' };
    const { job } = await jobOf(gone, 'zanzibarine');
    const other = await jobOf({ name: 'Petronel Ashby', contact: '01632 960199' }, 'quixotine');
    const words = [gone.name, gone.contact, 'zanzibarine'];
    const before = dump();
    // The search finds what it searches for while it is there: in texts, cards, the plate; the photo in hexadecimal.
    for (const word of words) expect(before).toContain(word);
    const photoHex = Buffer.from('zanzibarine photo').toString('hex');
    expect(before).toContain(photoHex);
    const counts = await newestSnapshot(running.store);
    const facts = async (id: string): Promise<unknown> => {
      const { entries } = jobSchema.parse((await owner().get(`/api/jobs/${id}`)).body);
      return entries.flatMap(({ body }) => (['text.redacted'].includes(body.kind) ? [] : [body.kind]));
    };
    const kinds = await facts(job);
    const otherBefore = (await owner().get(`/api/jobs/${other.job}`)).body as unknown;

    now = new Date(now.getTime() + 2 * 3_600_000);
    const customer = await customerOf(job);
    const erased = await erase(customer);
    expect(erased).toMatchObject({ jobs: 1, serials: 1, photos: 1, photosKept: 0, mentions: [], elsewhere: 0 });
    // Words, earlier, caption, note, fault, what remains, who collected it.
    expect(erased.texts).toBe(7);
    const after = dump();
    for (const word of words) expect(after).not.toContain(word);
    expect(after).not.toContain(photoHex);

    expect(await facts(job)).toEqual(kinds);
    expect((await owner().get(`/api/jobs/${other.job}`)).body).toEqual(otherBefore);
    expect(await newestSnapshot(running.store)).toBe(counts);
    expect((await owner().post('/api/customers/search').send({ name: 'Odalric', contact: '' })).body).toEqual({ customers: [] });
    expect((await owner().get(`/api/jobs/${job}`)).body).toMatchObject({
      customer: { name: '[erased]', contact: '' },
      plate: { serial: '', model: 'QK3-50' },
    });

    // Asked twice, nothing happens.
    expect(await erase(customer)).toMatchObject({ texts: 0, serials: 0, photos: 0 });
    expect((await owner().get('/api/audit')).body).toMatchObject({
      lines: expect.arrayContaining([expect.objectContaining({ what: 'customer-erased' })]),
    });
  });

  test('stays while a set of theirs is here: its job is named, and nothing is touched', async () => {
    const here = { name: 'Isaura Pennyfeather', contact: '01632 960511' };
    const { job, number } = await jobOf(here, 'waiting', { stays: true });
    await confirmed();
    const reply = await owner()
      .post(`/api/customers/${await customerOf(job)}/erase`)
      .send({ photos: true });
    expect(codeOf(reply)).toBe('customer-has-open-jobs');
    expect(problemDocumentSchema.parse(reply.body).problems).toMatchObject([
      { sentence: `Job ${number} is open, or its set was not collected` },
    ]);
    expect((await owner().get(`/api/jobs/${job}`)).body).toMatchObject({ customer: here });
  });

  test('who is mentioned in the job of somebody else is told, and that job is not touched', async () => {
    const gone = { name: 'Bartleby Quince', contact: '01632 960612' };
    const { job } = await jobOf(gone, 'mentioned');
    const other = await jobOf({ name: 'Petronel Ashby', contact: '01632 960199' }, 'brought by Bartleby Quince,');
    const { mentions } = await erase(await customerOf(job));
    expect(mentions).toEqual([{ jobId: other.job, number: other.number }]);
    expect(JSON.stringify((await owner().get(`/api/jobs/${other.job}`)).body)).toContain('Bartleby Quince');
  });

  test('keeps the photos where the owner says so, and those that a page of a board shows', async () => {
    const kept = await jobOf({ name: 'Wilfreda Oakenshield', contact: '' }, 'photographed');
    expect(await erase(await customerOf(kept.job), false)).toMatchObject({ photos: 0 });
    expect((await owner().get(`/api/photos/${kept.photo}`)).status).toBe(200);

    const shown = await jobOf({ name: 'Crispin Larkspur', contact: '' }, 'pictured');
    const database = new pg.Client({ connectionString: running.ownerUrl });
    await database.connect();
    await database.query(
      `INSERT INTO board_versions (board_id, version, document, reason, changed_by, changed_at) VALUES ($1, 1, $2, 'picture', $3, now())`,
      [uuidv7(), JSON.stringify({ pictures: [{ photo: shown.photo }] }), running.person],
    );
    expect(await erase(await customerOf(shown.job))).toMatchObject({ photos: 0, photosKept: 1 });
    await database.query('DELETE FROM board_versions');
    await database.end();
  });

  test('gets what is held, all of it and nothing of anyone else', async () => {
    const { job, photo } = await jobOf({ name: 'Theodora Vance', contact: 'theodora@example.org' }, 'handed', { stays: true });
    await confirmed();
    const reply = await owner()
      .get(`/api/customers/${await customerOf(job)}/data.zip`)
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      });
    expect(reply.headers).toMatchObject({ 'content-type': 'application/zip', 'cache-control': 'no-store' });
    const files = unzipSync(reply.body as Uint8Array);
    expect(Object.keys(files).sort()).toEqual(['customer.json', `photos/${photo}.jpg`]);
    expect(Buffer.from(files[`photos/${photo}.jpg`] ?? [])).toEqual(photoOf('handed photo'));
    const text = strFromU8(files['customer.json'] ?? new Uint8Array());
    for (const word of [
      'Theodora Vance',
      'theodora@example.org',
      'handed earlier',
      'handed words',
      'handed caption',
      'handed note',
      'handed-SERIAL',
    ])
      expect(text).toContain(word);
    expect(text).not.toContain('Ashby');
    expect(JSON.parse(text)).toMatchObject({ format: 'veglia-customer', version: 1, jobs: [{ id: job }] });
  });

  test('that is unknown is not found; somebody who is no owner may neither', async () => {
    await confirmed();
    expect(codeOf(await owner().post(`/api/customers/${uuidv7()}/erase`).send({ photos: true }))).toBe('not-found');
    expect(codeOf(await owner().get(`/api/customers/${uuidv7()}/data.zip`))).toBe('not-found');
    expect(codeOf(await askUnknown(running.app).post(`/api/customers/${uuidv7()}/erase`).send({ photos: true }))).toBe('signed-out');
  });

  test('a browser is told when something was erased last: what it kept before is thrown away', async () => {
    const { job } = await jobOf({ name: 'Lysander Mottram', contact: '' }, 'browser');
    const { at } = await erase(await customerOf(job));
    expect(sessionSchema.parse((await owner().get('/api/session')).body).erasedAt).toBe(at);
  });

  test('the search finds a word in any table that the app reads, and none that is too short to mean anything', async () => {
    await confirmed();
    const word = 'Gwendolyn Throckmorton';
    const id = uuidv7();
    const item = { id, what: 'part', number: 'BR-1', condition: 'new', note: `left here by ${word}` };
    expect((await owner().put(`/api/stock/${id}`).send({ version: 0, by: running.person, item })).status).toBe(200);
    await running.store.sequelize.transaction(async (transaction) => {
      const found = await whereWordsStand(running.store, [word.toLowerCase()], transaction);
      expect(found).toEqual({ mentions: [], elsewhere: 1 });
      expect(await whereWordsStand(running.store, ['Gw', ''], transaction)).toEqual({ mentions: [], elsewhere: 0 });
    });
  });
});

describe('somebody who works here', () => {
  async function colleague(name: string): Promise<{ id: string; cookie: string }> {
    await confirmed();
    const id = uuidv7();
    expect((await owner().post('/api/accounts').send({ id, name, role: 'technician' })).status).toBe(201);
    const { code } = (await owner().post(`/api/accounts/${id}/invitation`).send({})).body as { code: string };
    const joined = await askUnknown(running.app).post('/api/session/join').send({ code, password: 'seven grey herons at dusk' });
    expect(joined.status).toBe(200);
    return { id, cookie: cookiesOf(joined) };
  }

  test('is erased once they have left: name and every way in are gone, what they wrote stays', async () => {
    const { id, cookie } = await colleague('Hesper Dunmorrow');
    const { job } = await jobOf({ name: 'Petronel Ashby', contact: '' }, 'written', { stays: true });
    const note = draft({ kind: 'note.added', v: 1, text: 'looked at it' });
    expect(
      (
        await askUnknown(running.app)
          .post(`/api/jobs/${job}/entries`)
          .set('cookie', cookie)
          .send({ by: id, entries: [note] })
      ).status,
    ).toBe(200);
    await confirmed();
    expect(codeOf(await owner().post(`/api/accounts/${id}/erase`).send({}))).toBe('still-works-here');
    expect((await owner().put(`/api/accounts/${id}`).send({ left: true })).status).toBe(200);
    const reply = await owner().post(`/api/accounts/${id}/erase`).send({});
    expect(reply.status).toBe(200);
    expect((reply.body as { accounts: { id: string; name: string }[] }).accounts.find((one) => one.id === id)?.name).toBe(
      'Former colleague 1',
    );
    expect(dump()).not.toContain('Hesper');
    const { entries } = jobSchema.parse((await owner().get(`/api/jobs/${job}`)).body);
    expect(entries.find((entry) => entry.id === note.id)).toMatchObject({ by: id, body: { text: 'looked at it' } });
    for (const name of ['Hesper Dunmorrow', 'Former colleague 1'])
      expect(codeOf(await askUnknown(running.app).post('/api/session').send({ name, password: 'seven grey herons at dusk' }))).toBe(
        'wrong-sign-in',
      );
    // Even let back in: there is no password left that fits.
    await confirmed();
    await owner().put(`/api/accounts/${id}`).send({ left: false });
    expect(
      codeOf(
        await askUnknown(running.app).post('/api/session').send({ name: 'Former colleague 1', password: 'seven grey herons at dusk' }),
      ),
    ).toBe('wrong-sign-in');
    await owner().put(`/api/accounts/${id}`).send({ left: true });
    expect((await owner().post(`/api/accounts/${id}/erase`).send({})).body).toEqual(reply.body);
  });

  test('gets what is held about them, and nothing that opens a door', async () => {
    const { id } = await colleague('Marigold Fennimore');
    const reply = await owner().get(`/api/accounts/${id}/data.json`);
    expect(reply.body).toMatchObject({
      format: 'veglia-person',
      account: { id, name: 'Marigold Fennimore', role: 'technician' },
      audit: expect.arrayContaining([expect.objectContaining({ what: 'joined' })]),
    });
    const account = await running.store.models.accounts.findByPk(id);
    expect(account?.passwordHash).toMatch(/^\$argon2id\$/);
    expect(JSON.stringify(reply.body)).not.toContain('argon2');
  });
});

describe('the audit', () => {
  test(`loses addresses and names that are no account’s after ${auditDays} days, and nothing else`, async () => {
    const lines = async (): Promise<{ what: string; about: string | null; fromAddress: string | null }[]> =>
      (await running.store.models.audit.findAll({ order: [['id', 'ASC']] })).map(({ what, about, fromAddress }) => ({
        what,
        about,
        fromAddress,
      }));
    const before = await lines();
    expect(before.some(({ fromAddress }) => fromAddress !== null)).toBe(true);
    const at = now;
    now = new Date(at.getTime() + (auditDays - 1) * 86_400_000);
    expect(await forgetOldAudit(running.store)).toBe(0);
    now = new Date(at.getTime() + auditDays * 86_400_000 + 1000);
    expect(await forgetOldAudit(running.store)).toBeGreaterThan(0);
    const after = await lines();
    expect(after.map(({ what }) => what)).toEqual(before.map(({ what }) => what));
    expect(after.every(({ fromAddress }) => fromAddress === null)).toBe(true);
    // Who it was about stays where it is an id.
    expect(after.filter(({ what }) => what === 'customer-erased').every(({ about }) => about !== null)).toBe(true);
    now = at;
  });

  test('is otherwise only added to, by the database itself', async () => {
    const refused = (sql: string): Promise<unknown> => expect(running.store.sequelize.query(sql)).rejects.toThrow();
    await refused(`UPDATE audit SET from_address = '203.0.113.9'`);
    await refused(`UPDATE audit SET what = 'signed-in'`);
    await refused(`UPDATE audit SET person_id = NULL`);
    await refused('DELETE FROM audit');
  });
});
