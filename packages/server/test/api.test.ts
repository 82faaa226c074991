import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { errorCodes, errorStatus, jobCardSchema, jobSchema, problemDocumentSchema, routes } from '@veglia/contract';
import { v7 as uuidv7 } from 'uuid';
import { newestMigration } from '../src/database/migrate.ts';
import { append } from '../src/jobs/ledger.ts';
import { ask, draft, intake, noon, openTestApp, type TestApp, unproven } from './support/testApp.ts';

let running: TestApp;
beforeAll(async () => {
  running = await openTestApp();
});
afterAll(() => running.close());

const post = (path: string, body: object | string) => ask(running.app).post(path).set('content-type', 'application/json').send(body);
const get = (path: string) => ask(running.app).get(path);
async function takeIn(
  change = {},
): Promise<{ id: string; number: number; entries: { seq: number; id: string; body: Record<string, unknown> }[] }> {
  const reply = await post('/api/jobs', intake(running.person, change));
  expect(reply.status).toBe(201);
  return reply.body as never;
}

describe('taking a set in', () => {
  test('stores customer, set and the first entries, and gives a number', async () => {
    const job = jobSchema.parse(await takeIn());
    expect(job.customer).toEqual({ name: 'Petronel Ashby', contact: '01632 960199' });
    expect(job.plate).toEqual({ maker: 'Quorvane', model: 'QK3-50', serial: 'Q350-1' });
    expect(job.entries.map((entry) => [entry.seq, entry.body.kind, entry.at])).toEqual([
      [1, 'job.opened', noon.toISOString()],
      [2, 'symptom.reported', noon.toISOString()],
    ]);
    expect(job.entries[1]?.body.words).toBe('it only talks');
    const again = await takeIn();
    expect(again.number).toBe(job.number + 1);
  });

  test('a job may have no customer', async () => {
    expect(jobSchema.parse(await takeIn({ customer: null })).customer).toBeNull();
  });

  test('sent twice, it is checked in once', async () => {
    const same = intake(running.person);
    const [first, second] = [await post('/api/jobs', same), await post('/api/jobs', same)];
    expect(second.body).toEqual(first.body);
  });

  test('bad input: every issue is told, and nothing is stored', async () => {
    const before = (await get('/api/jobs')).body as { jobs: unknown[] };
    const reply = await post('/api/jobs', {
      ...intake(running.person),
      plate: { maker: ' ' },
      customer: { name: '' },
      entries: [draft({ kind: 'job.opened', v: 1, set: { layout: 'led-tcon' } }), draft({ kind: 'symptom.reported', v: 1, symptoms: [] })],
    });
    expect(reply.status).toBe(400);
    expect(reply.headers['content-type']).toContain('application/problem+json');
    const problem = problemDocumentSchema.parse(reply.body);
    expect(problem.problems?.map((one) => one.where)).toEqual(['customer.name', 'plate.maker']);
    const inside = await post(
      '/api/jobs',
      intake(running.person, { entries: [draft({ kind: 'note.added', v: 1 }), draft({ kind: 'test.answered', v: 1 })] }),
    );
    expect(inside.status).toBe(400);
    expect(problemDocumentSchema.parse(inside.body).problems?.map((one) => one.where)).toEqual(
      expect.arrayContaining(['entries.0.body.text', 'entries.1.body.test', 'entries.1.body.outcome']),
    );
    expect(((await get('/api/jobs')).body as { jobs: unknown[] }).jobs).toHaveLength(before.jobs.length);
  });

  test.each([
    ['a first entry that does not open the job', { entries: [draft({ kind: 'note.added', v: 1, text: 'x' })] }, 400, 'bad-request'],
    ['a writer who is not signed in', { by: uuidv7() }, 403, 'not-yours'],
  ])('%s is refused', async (_, change, status, code) => {
    const reply = await post('/api/jobs', intake(running.person, change));
    expect([reply.status, (reply.body as { code: string }).code]).toEqual([status, code]);
  });

  test('something that is no JSON, and something far too long, get problem documents too', async () => {
    const notJson = await post('/api/jobs', '{"id":');
    expect([notJson.status, (notJson.body as { code: string }).code]).toEqual([400, 'not-json']);
    const long = await post('/api/jobs', { padding: 'x'.repeat(2_000_000) });
    expect([long.status, (long.body as { code: string }).code]).toEqual([413, 'too-large']);
  });
});

describe('writing to the ledger', () => {
  const answered = (outcome: string) => draft({ kind: 'test.answered', v: 1, test: 'torch', outcome, sure: 'sure' }, 2);

  test('entries get their seq in the order given; the same ids again are skipped', async () => {
    const job = await takeIn();
    const entries = [answered('nothing'), draft({ kind: 'note.added', v: 1, text: 'quiet hum' }, 2)];
    const first = await post(`/api/jobs/${job.id}/entries`, { by: running.person, entries });
    expect(first.body).toMatchObject({ lastSeq: 4, entries: [{ seq: 3 }, { seq: 4 }] });
    const more = answered('faint-picture');
    const second = await post(`/api/jobs/${job.id}/entries`, { by: running.person, entries: [...entries, more] });
    expect(second.body).toMatchObject({ lastSeq: 5, entries: [{ seq: 3 }, { seq: 4 }, { seq: 5, id: more.id }] });
    expect(((await get(`/api/jobs/${job.id}`)).body as { entries: unknown[] }).entries).toHaveLength(5);
  });

  test('an id that says something else already is a conflict, and the stored one stays', async () => {
    const job = await takeIn();
    const entry = answered('nothing');
    await post(`/api/jobs/${job.id}/entries`, { by: running.person, entries: [entry] });
    const reply = await post(`/api/jobs/${job.id}/entries`, {
      by: running.person,
      entries: [{ ...entry, body: { ...entry.body, outcome: 'faint-picture' } }],
    });
    expect([reply.status, (reply.body as { code: string }).code]).toEqual([409, 'entry-conflict']);
    const other = await takeIn();
    expect((await post(`/api/jobs/${other.id}/entries`, { by: running.person, entries: [entry] })).status).toBe(409);
    const stored = (await get(`/api/jobs/${job.id}`)).body as { entries: { body: { outcome?: string } }[] };
    expect(stored.entries[2]?.body.outcome).toBe('nothing');
  });

  test('an observation is never refused for being stale; closing over somebody’s head is', async () => {
    const job = await takeIn();
    await post(`/api/jobs/${job.id}/entries`, { by: running.person, entries: [answered('nothing')] });
    const other = await running.store.models.people.create({ id: uuidv7(), name: 'Somebody else' });
    await append(running.store, job.id, other.id, [answered('faint-picture')]);
    const close = (basedOn: number) => ({
      by: running.person,
      entries: [draft({ kind: 'job.closed', v: 1, outcome: 'handed-back', minutes: 12 }, basedOn)],
    });
    const stale = await post(`/api/jobs/${job.id}/entries`, close(2));
    expect([stale.status, (stale.body as { code: string }).code]).toEqual([409, 'version-conflict']);
    // What the same hand wrote in between, and had on the way, is nobody else’s.
    await post(`/api/jobs/${job.id}/entries`, { by: running.person, entries: [answered('nothing')] });
    expect((await post(`/api/jobs/${job.id}/entries`, close(4))).status).toBe(200);
  });

  test('a set is closed as repaired only as it was, or with what stays recorded as a modification', async () => {
    const job = await takeIn();
    const send = (body: Record<string, unknown> & { kind: string }, basedOn: number) =>
      post(`/api/jobs/${job.id}/entries`, { by: running.person, entries: [draft(body, basedOn)] });
    const moved = { kind: 'set.changed', v: 3, stage: 'back-off', plugged: false, railsDown: true, pulled: ['keys'] };
    expect((await send(moved, 2)).status).toBe(200);
    const refused = await send({ kind: 'job.closed', v: 2, outcome: 'repaired', minutes: 12 }, 3);
    expect([refused.status, (refused.body as { code: string }).code]).toEqual([422, 'not-put-back']);
    expect(problemDocumentSchema.parse(refused.body).problems?.[0]?.sentence).toContain('keys has been changed');
    expect(((await get(`/api/jobs/${job.id}`)).body as { entries: unknown[] }).entries).toHaveLength(3);
    // Written by an app of yesterday: read as it is now, and held to the same.
    expect((await send({ kind: 'job.closed', v: 1, outcome: 'repaired', minutes: 12 }, 3)).status).toBe(422);
    const kept = { kind: 'job.closed', v: 2, outcome: 'workaround', minutes: 12, modified: ['keys'] };
    const unchecked = await send(kept, 3);
    expect([unchecked.status, (unchecked.body as { code: string }).code]).toEqual([422, 'not-checked']);
    expect(problemDocumentSchema.parse(unchecked.body).problems?.[0]?.sentence).toContain('ground-screws');
    const checked = { ...kept, checked: { 'ground-screws': 'passed' } };
    const looked = await send(checked, 3);
    expect([looked.status, (looked.body as { code: string }).code]).toEqual([422, 'not-proven']);
    expect(problemDocumentSchema.parse(looked.body).problems?.map(({ sentence }) => sentence)).toContain(
      'Not looked at, or failed: Starts',
    );
    const entries = [...unproven(3), draft(checked, 3)];
    expect((await post(`/api/jobs/${job.id}/entries`, { by: running.person, entries })).status).toBe(200);
  });

  test('a batch with one bad entry stores none of it', async () => {
    const job = await takeIn();
    const reply = await post(`/api/jobs/${job.id}/entries`, {
      by: running.person,
      entries: [answered('nothing'), draft({ kind: 'no.such', v: 1 })],
    });
    expect(reply.status).toBe(400);
    expect(((await get(`/api/jobs/${job.id}`)).body as { entries: unknown[] }).entries).toHaveLength(2);
  });

  test('twenty writers at once: every entry once, seq without a gap', async () => {
    const job = await takeIn();
    const drafts = Array.from({ length: 20 }, (_, index) => draft({ kind: 'note.added', v: 1, text: `note ${index}` }));
    const replies = await Promise.all(drafts.map((one) => post(`/api/jobs/${job.id}/entries`, { by: running.person, entries: [one] })));
    expect(replies.map((reply) => reply.status)).toEqual(drafts.map(() => 200));
    const { entries } = (await get(`/api/jobs/${job.id}`)).body as { entries: { seq: number; id: string }[] };
    expect(entries.map((entry) => entry.seq)).toEqual(Array.from({ length: 22 }, (_, index) => index + 1));
    expect(new Set(entries.map((entry) => entry.id)).size).toBe(22);
  });

  test.each([
    ['a job nobody knows', () => `/api/jobs/${uuidv7()}/entries`, 404, 'unknown-job'],
    ['an id that is none', () => '/api/jobs/seven/entries', 400, 'bad-request'],
  ])('%s is told', async (_, path, status, code) => {
    const reply = await post(path(), { by: running.person, entries: [answered('nothing')] });
    expect([reply.status, (reply.body as { code: string }).code]).toEqual([status, code]);
  });
});

describe('an id that is taken', () => {
  const conflict = async (path: string, body: object): Promise<[number, string | undefined]> => {
    const reply = await post(path, body);
    return [reply.status, (reply.body as { code?: string }).code];
  };

  test('by an intake: the same is the retry it is, anything else is told, and nothing is changed', async () => {
    const first = intake(running.person);
    expect((await post('/api/jobs', first)).status).toBe(201);
    expect((await post('/api/jobs', first)).status).toBe(201);
    const [opened, complaint] = first.entries;
    for (const change of [
      { plate: { ...first.plate, serial: 'another' } },
      { customer: null },
      { customer: { name: 'Someone else', contact: '' } },
      { entries: [opened, { ...complaint, body: { kind: 'symptom.reported', v: 1, symptoms: ['dead'] } }] },
      { entries: [opened, draft({ kind: 'note.added', v: 1, text: 'another entry' })] },
    ])
      expect(await conflict('/api/jobs', { ...first, ...change })).toEqual([409, 'entry-conflict']);
    const job = (await get(`/api/jobs/${first.id}`)).body as { plate: object; customer: object; entries: unknown[] };
    expect([job.plate, job.customer, job.entries.length]).toEqual([first.plate, first.customer, 2]);
  });

  test('by an intake whose customer was erased since: sent again it is still the same', async () => {
    const first = intake(running.person, { customer: { name: 'Quillon Tarn', contact: '' } });
    expect((await post('/api/jobs', first)).status).toBe(201);
    const erased = { kind: 'text.redacted', v: 1, entry: first.entries[1]?.id, field: 'words' };
    expect((await post(`/api/jobs/${first.id}/entries`, { by: running.person, entries: [draft(erased)] })).status).toBe(200);
    await running.store.models.customers.update({ name: null, contact: null }, { where: { name: 'Quillon Tarn' } });
    expect((await post('/api/jobs', first)).status).toBe(201);
  });

  test('by a person, or by what somebody told', async () => {
    const person = { id: uuidv7(), name: 'Osric Pell', role: 'technician' };
    expect((await post('/api/accounts', person)).status).toBe(201);
    expect((await post('/api/accounts', person)).status).toBe(201);
    expect(await conflict('/api/accounts', { ...person, name: 'Osric Bell' })).toEqual([409, 'entry-conflict']);
    const told = {
      id: uuidv7(),
      by: running.person,
      layout: 'led-tcon',
      family: null,
      symptom: 'sound-dark',
      fault: 'strips.led-open',
      n: 4,
    };
    expect((await post('/api/told', told)).status).toBe(201);
    expect((await post('/api/told', told)).status).toBe(201);
    expect(await conflict('/api/told', { ...told, n: 40 })).toEqual([409, 'entry-conflict']);
  });
});

describe('lists and exports', () => {
  test('a card follows its ledger', async () => {
    const job = await takeIn();
    const card = async () =>
      jobCardSchema.parse(((await get('/api/jobs')).body as { jobs: { jobId: string }[] }).jobs.find((one) => one.jobId === job.id));
    expect(await card()).toMatchObject({
      state: 'taken-in',
      title: 'Quorvane QK3-50',
      customerName: 'Petronel Ashby',
      symptoms: ['sound-dark'],
      top: { id: 'strips' },
    });
    await post(`/api/jobs/${job.id}/entries`, {
      by: running.person,
      entries: [draft({ kind: 'test.answered', v: 1, test: 'torch', outcome: 'nothing', sure: 'sure' }, 2)],
    });
    expect(await card()).toMatchObject({ state: 'on-the-bench', entryCount: 3 });
    await post(`/api/jobs/${job.id}/entries`, {
      by: running.person,
      entries: [...unproven(3), draft({ kind: 'job.closed', v: 1, outcome: 'workaround', minutes: 5 }, 3)],
    });
    expect(await card()).toMatchObject({ state: 'closed', outcome: 'workaround', next: null });
  });

  test('the case file has set and ledger, and neither customer nor serial number', async () => {
    const job = await takeIn();
    const reply = await get(`/api/jobs/${job.id}/case`);
    expect(reply.body).toMatchObject({ format: 'veglia-case', version: 2, set: { layout: 'led-tcon', family: 'quorvane.qk3' } });
    expect(JSON.stringify(reply.body)).not.toMatch(/Petronel|960199|Q350-1/);
  });

  test('a pack is served by its hash and may be kept for ever', async () => {
    const { hash } = (await get('/api/packs/current')).body as { hash: string };
    const reply = await get(`/api/packs/${hash}`);
    expect(reply.body).toMatchObject({ format: 'veglia-pack', version: 2 });
    expect(reply.headers['cache-control']).toContain('immutable');
    expect((await get(`/api/packs/${'0'.repeat(64)}`)).status).toBe(404);
  });
});

describe('the service itself', () => {
  test('health tells database, migration, pack and what protects the ledger', async () => {
    expect((await get('/api/health')).body).toMatchObject({
      app: 'ok',
      database: 'ok',
      migration: newestMigration,
      ledgerProtection: 'role-and-trigger',
      pack: expect.stringMatching(/^[0-9a-f]{64}$/) as unknown,
      demo: false,
    });
  });

  test('every reply carries a request id; a wrong address gets a problem document', async () => {
    const reply = await get('/api/no/such/thing');
    expect(reply.status).toBe(404);
    const problem = problemDocumentSchema.parse(reply.body);
    expect(problem.requestId).toBe(reply.headers['x-request-id']);
    expect(problem.status).toBe(errorStatus[problem.code]);
    expect(errorCodes.length).toBeGreaterThan(5);
  });

  test('the OpenAPI document and the router name the same routes, both ways', async () => {
    const document = (await get('/api/openapi.json')).body as { openapi: string; paths: Record<string, Record<string, unknown>> };
    expect(document.openapi).toBe('3.1.0');
    const documented = Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method} ${path}`),
    );
    // The router's own list, read from Express.
    interface Layer {
      route?: { path: string; methods: Record<string, boolean> };
    }
    const { stack } = (running.app as unknown as { router: { stack: Layer[] } }).router;
    const served = stack.flatMap(({ route }) =>
      route && route.path.startsWith('/api')
        ? Object.keys(route.methods).map((method) => `${method} ${route.path.replace(/:(\w+)/g, '{$1}')}`)
        : [],
    );
    expect(served.length).toBe(Object.keys(routes).length);
    expect([...documented].sort()).toEqual([...served].sort());
  });
});
