/**
 * What any web page in the same browser, or anybody who reaches the port, can send. Each attack here worked once, or would. Run alone:
 * `npm run test:attacks`.
 */
import { request as httpRequest } from 'node:http';
import { connect } from 'node:net';
import { Writable } from 'node:stream';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { ledgerChannel, livePath, ownHeader, problemDocumentSchema, routes } from '@veglia/contract';
import { parsePack } from '@veglia/core';
import type { Logger } from 'pino';
import request, { type Response } from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { WebSocket } from 'ws';
import { hostsOf } from '../src/http/hosts.ts';
import { createLog } from '../src/http/log.ts';
import { packsInMemory } from '../src/packs/shelf.ts';
import { pdfOf } from '../src/papers/pdf.ts';
import { ask, draft, intake, openListening, testAddress } from './support/testApp.ts';

let running: Awaited<ReturnType<typeof openListening>> & { readonly log: Logger };
let port: number;
const logged: string[] = [];

beforeAll(async () => {
  const log = createLog('info', new Writable({ write: (chunk: Buffer, _encoding, done) => (logged.push(chunk.toString()), done()) }));
  running = { ...(await openListening({ log })), log };
  ({ port } = running);
});
afterAll(() => running.close());

const code = (reply: Response): string => problemDocumentSchema.parse(reply.body).code;
/** Another page of the same browser: the worst of them, with the cookies that it would not even be given. */
const stranger = () => request.agent(running.app).set('cookie', running.cookie);
const png = Buffer.concat([Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex'), Buffer.alloc(64)]);
async function checkedIn(): Promise<string> {
  const job = intake(running.person);
  expect((await ask(running.app).post('/api/jobs').send(job)).status).toBe(201);
  return job.id;
}

/** Sends bytes as they are and returns what comes back until the connection closes. */
function raw(text: string, hangUp = false): Promise<string> {
  return new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1', () => {
      socket.write(text);
      if (hangUp) socket.destroy();
    });
    let heard = '';
    socket.on('data', (chunk) => (heard += chunk.toString('latin1')));
    socket.on('error', () => undefined);
    socket.on('close', () => resolve(heard));
  });
}
const upgrade = (target: string, headers: Record<string, string>): string =>
  [`GET ${target} HTTP/1.1`, ...Object.entries(headers).map(([name, value]) => `${name}: ${value}`), '', ''].join('\r\n');
const handshake = {
  Connection: 'Upgrade',
  Upgrade: 'websocket',
  'Sec-WebSocket-Version': '13',
  'Sec-WebSocket-Key': 'dGhlIHNhbXBsZSBub25jZQ==',
};

describe('a socket', () => {
  test.each(['//', '///', '//[', 'http://[', '/%zz', livePath + '/../x', '*', '/\\', 'http://elsewhere.example' + livePath])(
    'asked for at %s is refused, and the server goes on',
    async (target) => {
      expect(await raw(upgrade(target, { ...handshake, Host: `127.0.0.1:${port}` }))).toMatch(/^HTTP\/1\.1 4\d\d /);
      expect((await fetch(`http://127.0.0.1:${port}/livez`)).status).toBe(200);
    },
  );

  test.each([
    ['no version', { ...handshake, 'Sec-WebSocket-Version': '1' }],
    ['no key', { ...handshake, 'Sec-WebSocket-Key': 'x' }],
    ['another protocol', { ...handshake, Upgrade: 'h2c' }],
  ])('with %s is refused by the handshake', async (_, headers) => {
    expect(await raw(upgrade(livePath, { ...headers, Host: `127.0.0.1:${port}` }))).toMatch(/^HTTP\/1\.1 4\d\d /);
  });

  test('whose asker hangs up at once, or that sends what is no message, ends nothing', async () => {
    for (let n = 0; n < 20; n += 1) await raw(upgrade('//', { ...handshake, Host: `127.0.0.1:${port}` }), true);
    const socket = new WebSocket(`ws://127.0.0.1:${port}${livePath}`, { headers: { cookie: running.cookie } });
    await new Promise((resolve) => socket.once('open', resolve));
    const gone = new Promise((resolve) => socket.once('close', resolve));
    socket.on('error', () => undefined);
    // More than it takes, and a frame that no protocol knows.
    socket.send('x'.repeat(5000));
    await gone;
    expect((await fetch(`http://127.0.0.1:${port}/livez`)).status).toBe(200);
  });

  test.each([
    ['of another page', { Origin: 'http://elsewhere.example' }, '403'],
    ['of another program on loopback', { Origin: 'http://127.0.0.1:1' }, '403'],
    ['of no page at all', { Origin: 'null' }, '403'],
    ['under another name', { Host: 'elsewhere.example', Origin: 'http://elsewhere.example' }, '421'],
  ])('%s is refused', async (_, headers, status) => {
    expect(await raw(upgrade(livePath, { ...handshake, Host: `127.0.0.1:${port}`, ...headers }))).toMatch(
      new RegExp(`^HTTP/1.1 ${status} `),
    );
  });

  test('of our own page, and of the configured name behind a proxy, is opened', async () => {
    for (const headers of [
      { Host: `127.0.0.1:${port}`, Origin: `http://127.0.0.1:${port}` },
      { Host: `127.0.0.1:${port}`, Origin: testAddress },
      { Host: 'bench.example.org', Origin: testAddress },
    ]) {
      const heard = await new Promise<number>((resolve) => {
        const asked = httpRequest({ port, path: livePath, headers: { ...handshake, ...headers, Cookie: running.cookie } });
        asked.on('upgrade', (response, socket) => (socket.destroy(), resolve(response.statusCode ?? 0)));
        asked.on('response', (response) => (response.resume(), resolve(response.statusCode ?? 0)));
        asked.end();
      });
      expect([headers, heard]).toEqual([headers, 101]);
    }
  });

  test('hears nothing of a notification that is none of ours', async () => {
    const socket = new WebSocket(`ws://127.0.0.1:${port}${livePath}`, { headers: { cookie: running.cookie } });
    await new Promise((resolve) => socket.once('open', resolve));
    const heard: string[] = [];
    socket.on('message', (data: Buffer) => heard.push(data.toString()));
    for (const payload of ['', '{', 'null', '{"job":7}', '{"resync":"yes"}'])
      await running.store.sequelize.query('SELECT pg_notify($1, $2)', { bind: [ledgerChannel, payload] });
    const job = await checkedIn();
    await new Promise<void>((resolve) => {
      const look = (): void => (heard.some((one) => one.includes(job)) ? resolve() : void socket.once('message', look));
      look();
    });
    expect(heard).toEqual([JSON.stringify({ job, seq: 2 })]);
    socket.terminate();
  });
});

describe('another name for this machine', () => {
  test.each(['elsewhere.example', `elsewhere.example:80`, '127.0.0.1.elsewhere.example', '', 'user@127.0.0.1', '127.0.0.1/x', '[::2]'])(
    'as Host "%s": 421, before anything is read',
    async (host) => {
      const reply = await stranger().get('/api/jobs').set('host', host);
      expect([reply.status, code(reply)]).toEqual([421, 'wrong-host']);
    },
  );
  test.each(['localhost', 'localhost:8080', '127.0.0.1:1', '[::1]:5000', 'bench.example.org', 'BENCH.example.org:443'])(
    'as Host "%s": answered',
    async (host) => {
      expect((await stranger().get('/api/health').set('host', host)).status).toBe(200);
    },
  );
  // What stands on paper: papers.test.ts reads the code of a label.
  test('a name that is not configured is not answered to', () => expect(hostsOf([]).answersTo('bench.example.org')).toBe(false));
});

describe('what another page can send', () => {
  const changing = Object.values(routes).filter(({ method }) => method !== 'get');
  test('every route that changes something is tried below', () => expect(changing.length).toBeGreaterThan(6));

  test.each(changing.map(({ method, path }) => [`${method} ${path}`, method, path.replace(/:\w+/, uuidv7())] as const))(
    '%s: a form, a script without leave and a link are refused',
    async (_, method, path) => {
      const send = () => stranger()[method](path);
      for (const site of ['cross-site', 'same-site', 'none']) {
        const reply = await send().set('sec-fetch-site', site).set('content-type', 'application/json').send('{}');
        expect([reply.status, code(reply)]).toEqual([403, 'cross-site']);
      }
      expect(code(await send())).toBe('cross-site');
      for (const type of ['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data; boundary=x']) {
        expect((await send().set('content-type', type).send('a=1')).status).toBe(403);
        expect(code(await send().set('sec-fetch-site', 'same-origin').set('content-type', type).send('a=1'))).toBe('wrong-media-type');
      }
    },
  );

  test('our own page, and a program that says so, are let in', async () => {
    expect((await stranger().post('/api/jobs').set('sec-fetch-site', 'same-origin').send(intake(running.person))).status).toBe(201);
    expect((await stranger().post('/api/jobs').set(ownHeader, '1').send(intake(running.person))).status).toBe(201);
  });
});

describe('an upload', () => {
  const put = (bytes: Buffer, type = 'application/octet-stream') =>
    ask(running.app).put(`/api/photos/${uuidv7()}`).set('content-type', type).send(bytes);
  test.each([
    ['an archive', Buffer.concat([Buffer.from('PK\u0003\u0004'), gzipSync(Buffer.alloc(500_000))])],
    ['a picture with a script inside', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>')],
    ['nothing', Buffer.alloc(0)],
    ['half a signature', Buffer.from([0xff, 0xd8])],
    ['packed data', gzipSync(png)],
  ])('of %s is no photo', async (_, bytes) => {
    const reply = await put(bytes);
    expect([reply.status, code(reply)]).toEqual([415, 'not-a-photo']);
  });
  test('packed on the way is refused unread, broken or not', async () => {
    for (const body of [gzipSync(png), Buffer.from('no gzip')]) expect((await put(body).set('content-encoding', 'gzip')).status).toBe(415);
    expect((await put(png)).status).toBe(201);
  });
  test('ten of one id at once are one photo', async () => {
    const id = uuidv7();
    const replies = await Promise.all(
      Array.from({ length: 10 }, () => ask(running.app).put(`/api/photos/${id}`).set('content-type', 'image/png').send(png)),
    );
    expect(replies.map(({ status }) => status)).toEqual(replies.map(() => 201));
  });
});

describe('a body', () => {
  const post = (path: string, body: string | Buffer, headers: Record<string, string> = {}) =>
    ask(running.app)
      .post(path)
      .set({ 'content-type': 'application/json', ...headers })
      .send(body as string);
  test.each<[string, string | Buffer, Record<string, string>, number]>([
    ['broken gzip', Buffer.from('no gzip'), { 'content-encoding': 'gzip' }, 415],
    ['an encoding nobody knows', '{}', { 'content-encoding': 'compress' }, 415],
    ['a charset nobody knows', '{}', { 'content-type': 'application/json; charset=x-none' }, 415],
    ['not JSON', '{"id":', {}, 400],
    ['nothing', '', {}, 400],
    ['a list', '[]', {}, 400],
    ['nesting without end', '['.repeat(30_000), {}, 400],
    ['nesting too deep', `${'['.repeat(200)}${']'.repeat(200)}`, {}, 400],
    ['names of the language itself', '{"__proto__":{"id":1},"constructor":{"prototype":{}}}', {}, 400],
    ['NUL in a value', JSON.stringify({ id: uuidv7(), name: 'a\0b' }), {}, 400],
    ['NUL in a name', JSON.stringify({ id: uuidv7(), name: 'ab', 'x\0': 1 }), {}, 400],
    ['half a character', '{"id":"0190a8c0-0000-7000-8000-000000000000","name":"\\ud800"}', {}, 400],
    ['more than this route takes', JSON.stringify({ id: uuidv7(), name: 'x'.repeat(70_000) }), {}, 413],
  ])('of %s is refused as the caller’s', async (_, body, headers, status) => {
    const reply = await post('/api/accounts', body, headers);
    expect([reply.status, problemDocumentSchema.parse(reply.body).status]).toEqual([status, status]);
  });

  test.each([
    ['a number beyond the database', { basedOn: 2 ** 31 }],
    ['a number beyond all', { basedOn: 1e300 }],
    ['the year 0', { at: '0000-01-01T00:00:00.000Z' }],
    ['a year far off', { at: '9999-12-31T23:59:59.999Z' }],
    ['text that can’t be stored', { body: { kind: 'note.added', v: 1, text: 'a\0' } }],
  ])('with %s is refused, and nothing is stored', async (_, change) => {
    const job = await checkedIn();
    const reply = await post(
      `/api/jobs/${job}/entries`,
      JSON.stringify({ by: running.person, entries: [{ ...draft({ kind: 'note.added', v: 1, text: 'x' }), ...change }] }),
    );
    expect([reply.status, code(reply)]).toEqual([400, 'bad-request']);
    expect(((await ask(running.app).get(`/api/jobs/${job}`)).body as { entries: unknown[] }).entries).toHaveLength(2);
  });

  test('that ends in the middle is no fault of ours', async () => {
    logged.length = 0;
    await raw(
      `POST /api/people HTTP/1.1\r\nHost: 127.0.0.1\r\n${ownHeader}: 1\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n{"id":`,
      true,
    );
    expect((await fetch(`http://127.0.0.1:${port}/livez`)).status).toBe(200);
    expect(logged.filter((line) => line.includes('request failed'))).toEqual([]);
  });
});

describe('an address', () => {
  test.each<[string, Record<string, string>, number]>([
    ['/api/jobs/%zz', {}, 400],
    ['/api/jobs/%00', {}, 400],
    ['/api/jobs/%E0%A4%A', {}, 400],
    ['/api/jobs?after=%zz', {}, 400],
    ['/api/jobs?find=%00', {}, 400],
    ['/api/jobs?find=%ED%A0%80', {}, 200],
    ['/api/jobs?find=%25%5F%5C%27%3B--', {}, 200],
    ['/api/jobs?find[a]=b', {}, 200],
    ['/api/jobs?ids=seven', {}, 400],
    ['/api/jobs?limit=100000', {}, 400],
    [`/api/jobs/${uuidv7()}/entries?after=1e99`, {}, 400],
    [`/api/jobs/${uuidv7()}/entries?after[a]=1`, {}, 404],
    ['/api/counts/99999999999', {}, 400],
    ['/api/counts/constructor', {}, 400],
    ['/api/packs/__proto__', {}, 400],
    ['/api/health', { range: 'bytes=9-1' }, 200],
    ['/api/health', { 'if-match': '"x"' }, 200],
  ])('%s with %j: %i', async (path, headers, status) => {
    expect((await stranger().get(path).set(headers)).status).toBe(status);
  });
});

describe('words of the language itself in a blink table', () => {
  test('are refused by row, and no card is touched', async () => {
    const job = await checkedIn();
    const { hash } = (await ask(running.app).get('/api/packs/current')).body as { hash: string };
    const codes = [
      { id: 'nine', groups: [9], meaning: { en: 'x' }, suspects: { strips: 'constructor' }, source: 'cover', date: '2026-01-01', by: 'me' },
    ];
    const reply = await ask(running.app)
      .post('/api/blink-tables')
      .send({ by: running.person, basedOn: hash, table: { format: 'veglia-blink-table', version: 1, family: 'quorvane.qk3', codes } });
    expect([reply.status, code(reply)]).toEqual([400, 'bad-request']);
    const { jobs } = (await ask(running.app).get('/api/jobs')).body as { jobs: { jobId: string }[] };
    expect(jobs.map(({ jobId }) => jobId)).toContain(job);
  });
});

describe('the same at the same instant', () => {
  test('forty-five intakes of one id are one job', async () => {
    const job = intake(running.person);
    const replies = await Promise.all(Array.from({ length: 45 }, () => ask(running.app).post('/api/jobs').send(job)));
    expect(new Set(replies.map(({ status }) => status))).toEqual(new Set([201]));
    expect(new Set(replies.map(({ body }) => (body as { number: number }).number)).size).toBe(1);
  });
  test('twenty people of one id are one person', async () => {
    const person = { id: uuidv7(), name: 'Twice', role: 'technician' };
    const replies = await Promise.all(Array.from({ length: 20 }, () => ask(running.app).post('/api/accounts').send(person)));
    expect(new Set(replies.map(({ status }) => status))).toEqual(new Set([201]));
    expect((replies[0]?.body as { accounts: { name: string }[] }).accounts.filter(({ name }) => name === 'Twice')).toHaveLength(1);
  });
  test('one entry sent to two jobs belongs to one of them, and the other is told', async () => {
    const jobs = [await checkedIn(), await checkedIn()];
    const entry = draft({ kind: 'note.added', v: 1, text: 'whose?' }, 2);
    const replies = await Promise.all(
      jobs.map((job) =>
        ask(running.app)
          .post(`/api/jobs/${job}/entries`)
          .send({ by: running.person, entries: [entry] }),
      ),
    );
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409]);
  });
  test('an entry again with its fields in another order is the same entry', async () => {
    const job = await checkedIn();
    const at = (body: object) =>
      ask(running.app)
        .post(`/api/jobs/${job}/entries`)
        .send({ by: running.person, entries: [{ id, at: '2026-03-02T12:00:00.000Z', basedOn: 2, body }] });
    const id = uuidv7();
    // JSONB keeps shorter names first, at every depth.
    expect((await at({ kind: 'limit.agreed', v: 2, minutes: 5, limit: { currency: 'EUR', amountMinor: 4000 } })).status).toBe(200);
    expect((await at({ minutes: 5, v: 2, limit: { amountMinor: 4000, currency: 'EUR' }, kind: 'limit.agreed' })).status).toBe(200);
    expect((await at({ kind: 'limit.agreed', v: 2, minutes: 5, limit: { currency: 'EUR', amountMinor: 4001 } })).status).toBe(409);
  });
});

describe('a paper', () => {
  test('with more text than anybody reads is made all the same, cut, in good time', async () => {
    const long = 'x'.repeat(20_000);
    const job = intake(running.person);
    expect(
      (
        await ask(running.app)
          .post('/api/jobs')
          .send({ ...job, entries: job.entries.slice(0, 1) })
      ).status,
    ).toBe(201);
    for (let n = 0; n < 40; n += 1)
      await ask(running.app)
        .post(`/api/jobs/${job.id}/entries`)
        .send({ by: running.person, entries: [draft({ kind: 'symptom.reported', v: 2, symptoms: ['dead'], words: long }, 1)] });
    const reply = await ask(running.app).get(`/api/jobs/${job.id}/receipt.pdf`);
    expect([reply.status, reply.type]).toEqual([200, 'application/pdf']);
  });
  test('that takes too long is ended with its thread, and the next one is made', async () => {
    const endless = { content: Array.from({ length: 4000 }, () => ({ text: 'word '.repeat(400) })) };
    await expect(pdfOf(endless, 300)).rejects.toMatchObject({ code: 'paper-too-long' });
    expect((await pdfOf({ content: 'short' })).subarray(0, 5).toString()).toBe('%PDF-');
  });
});

describe('what people wrote', () => {
  const secret = 'Ysolde Brackwater';

  test('is in no log, whatever the database says of it', async () => {
    logged.length = 0;
    const job = intake(running.person, { customer: { name: secret, contact: '' } });
    const { store } = running;
    // Any failing statement: its error carries statement, parameters and, in its sentence, the value.
    const failing = async (): Promise<unknown> =>
      store.sequelize.query('SELECT $1::uuid', { bind: [secret] }).catch((error: unknown) => error);
    const error = await failing();
    expect(JSON.stringify(error, Object.getOwnPropertyNames(error))).toContain(secret);
    running.log.error({ err: error }, 'request failed');
    await ask(running.app).post('/api/jobs').send(job);
    await ask(running.app).post('/api/customers/search').send({ name: secret, contact: '' });
    await stranger().get(`/api/jobs?name=${encodeURIComponent(secret)}`);
    expect(logged.length).toBeGreaterThan(3);
    expect(logged.join('\n')).not.toContain(secret);
    expect(logged.join('\n')).not.toContain(encodeURIComponent(secret));
    const said = JSON.parse(logged.find((line) => line.includes('request failed')) ?? '{}') as { err: Record<string, unknown> };
    // What names the fault stays: PostgreSQL's 22P02 is invalid_text_representation.
    expect(said.err).toMatchObject({ code: '22P02', at: expect.arrayContaining([expect.stringMatching(/^at /)]) });
    expect(said.err).not.toHaveProperty('message');
  });

  test('stays in no cache', async () => {
    const id = await checkedIn();
    const photo = uuidv7();
    await ask(running.app).put(`/api/photos/${photo}`).set('content-type', 'image/png').send(png);
    for (const path of [
      '/api/jobs',
      `/api/jobs/${id}`,
      `/api/jobs/${id}/entries?after=0`,
      `/api/jobs/${id}/case`,
      `/api/jobs/${id}/label.pdf`,
      `/api/photos/${photo}`,
      '/api/people',
      '/api/shop',
    ])
      expect([path, (await stranger().get(path)).headers['cache-control']]).toEqual([path, 'no-store']);
    // What is never anybody's, and named by what is in it, may stay.
    const { hash } = (await stranger().get('/api/packs/current')).body as { hash: string };
    expect((await stranger().get(`/api/packs/${hash}`)).headers['cache-control']).toContain('immutable');
  });

  test('is erased from job, case, list and search, and what was a fact stays', async () => {
    const job = intake(running.person, { customer: { name: secret, contact: '01632 960123' } });
    const told = `${secret} says it hums`;
    const [opened, complaint] = job.entries;
    await ask(running.app)
      .post('/api/jobs')
      .send({
        ...job,
        entries: [opened, { ...complaint, body: { kind: 'symptom.reported', v: 1, symptoms: ['sound-dark'], words: told } }],
      });
    const everywhere = async (): Promise<string> => {
      const replies = await Promise.all(
        ['/api/jobs', `/api/jobs/${job.id}`, `/api/jobs/${job.id}/case`].map((path) => stranger().get(path)),
      );
      const found = await ask(running.app).post('/api/customers/search').send({ name: secret, contact: '' });
      expect([...replies, found].map(({ status }) => status)).toEqual([200, 200, 200, 200]);
      return JSON.stringify([...replies, found].map(({ body }) => body as unknown));
    };
    expect(await everywhere()).toContain(told);
    const erase = (entry: string | undefined, field: string) =>
      ask(running.app)
        .post(`/api/jobs/${job.id}/entries`)
        .send({ by: running.person, entries: [draft({ kind: 'text.redacted', v: 1, entry, field })] });
    expect((await erase(complaint?.id, 'symptoms')).status).toBe(400);
    expect((await erase(uuidv7(), 'words')).status).toBe(400);
    expect((await erase(complaint?.id, 'words')).status).toBe(200);
    await running.store.models.customers.update({ name: null, contact: null }, { where: { name: secret } });
    expect(await everywhere()).not.toContain(secret);
    const { entries } = (await stranger().get(`/api/jobs/${job.id}`)).body as { entries: { body: Record<string, unknown> }[] };
    expect(entries[1]?.body).toMatchObject({ symptoms: ['sound-dark'], words: '[erased]' });
    const [row] = await running.store.models.texts.findAll({ where: { entryId: complaint?.id ?? '', field: 'words' } });
    expect(row?.content).toBeNull();
  });

  test('stands above no fact: a forged row of texts is passed over', async () => {
    const job = intake(running.person);
    await ask(running.app).post('/api/jobs').send(job);
    const [, complaint] = job.entries;
    await running.store.models.texts.create({ entryId: complaint?.id ?? '', field: 'symptoms', content: 'dead' });
    const { entries } = (await stranger().get(`/api/jobs/${job.id}`)).body as { entries: { body: Record<string, unknown> }[] };
    expect(entries[1]?.body).toMatchObject({ symptoms: ['sound-dark'], words: 'it only talks' });
  });
});

describe('what is kept in memory', () => {
  test('are so many packs and no more', async () => {
    const { packs } = running.store;
    const document = (await packs.document(await packs.currentHash())) as { title: object };
    for (let n = 0; n < packsInMemory + 3; n += 1) {
      const pack = parsePack({ ...document, title: { en: `Pack ${n}` } });
      await packs.compiled(await packs.import(pack));
    }
    expect(packs.inMemory).toBe(packsInMemory);
  });
});
