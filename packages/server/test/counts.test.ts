import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { jobSchema, type Told } from '@veglia/contract';
import { closingChecks, countsSchema, type Body, type CaseFile } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { newestSnapshot } from '../src/counts/counts.ts';
import { rebuildCards } from '../src/jobs/jobs.ts';
import { ask, draft, intake, openTestApp, type TestApp, unproven } from './support/testApp.ts';

let running: TestApp;
beforeAll(async () => {
  running = await openTestApp();
});
afterAll(() => running.close());

const post = (path: string, body: object) => ask(running.app).post(path).send(body);
const get = async <T>(path: string): Promise<T> => (await ask(running.app).get(path)).body as T;
const newest = async (): Promise<number> => (await get<{ number: number }>('/api/counts/newest')).number;
const job = (id: string) => get<unknown>(`/api/jobs/${id}`).then((body) => jobSchema.parse(body));

const checked = Object.fromEntries(closingChecks.map((one) => [one, 'passed']));
async function closedJob(fault: string, before: readonly Body[] = []): Promise<string> {
  const opened = intake(running.person);
  await post('/api/jobs', opened);
  const reply = await post(`/api/jobs/${opened.id}/entries`, {
    by: running.person,
    entries: [
      ...before.map((body) => draft(body, 2)),
      draft({ kind: 'test.answered', v: 1, test: 'torch', outcome: 'faint-picture', sure: 'sure' }, 2),
      draft({ kind: 'fault.confirmed', v: 1, assembly: fault.split('.')[0] ?? '', fault }, 2),
      ...unproven(2),
      draft({ kind: 'job.closed', v: 2, outcome: 'repaired', minutes: 40, checked }, 2),
    ],
  });
  expect({ status: reply.status, problems: (reply.body as { problems?: unknown }).problems }).toEqual({ status: 200, problems: undefined });
  return opened.id;
}
const tell = (change: Record<string, unknown> = {}) =>
  post('/api/told', {
    id: uuidv7(),
    by: running.person,
    layout: 'led-tcon',
    family: null,
    symptom: null,
    fault: 'tcon.bias-dead',
    n: 12,
    ...change,
  });

describe('what the shop has counted', () => {
  test('is nothing at first; closing jobs makes numbered counts that new jobs get and old ones don’t', async () => {
    expect(await newest()).toBe(0);
    const early = jobSchema.parse((await post('/api/jobs', intake(running.person))).body);
    expect(early.snapshot).toBe(0);
    await closedJob('main.light-command');
    const number = await newest();
    expect(number).toBe(1);
    expect(await newest()).toBe(number);
    const counts = countsSchema.parse(await get(`/api/counts/${number}`));
    expect(counts).toMatchObject({
      snapshot: number,
      jobs: [{ layout: 'led-tcon', family: 'quorvane.qk3', symptom: 'sound-dark', fault: 'main.light-command', n: 1 }],
      outcomes: [{ test: 'torch', outcome: 'faint-picture', fault: 'main.light-command', n: 1 }],
    });
    const later = jobSchema.parse((await post('/api/jobs', intake(running.person))).body);
    expect(later.snapshot).toBe(number);
    expect((await job(early.id)).snapshot).toBe(0);
  });

  test('reopened, a job counts no more; an old number still says what it said', async () => {
    const before = await newest();
    const said = await get(`/api/counts/${before}`);
    const id = await closedJob('tcon.bias-dead');
    expect(await newest()).toBe(before + 1);
    await post(`/api/jobs/${id}/entries`, { by: running.person, entries: [draft({ kind: 'job.reopened', v: 1, reason: 'came back' }, 5)] });
    const after = await newest();
    expect(after).toBe(before + 2);
    expect(await get<object>(`/api/counts/${after}`)).toEqual({ ...(said as object), snapshot: after });
    expect(await get(`/api/counts/${before}`)).toEqual(said);
  });

  test('thirty jobs with one fault change a new job’s priors, in the exported case as in the card', async () => {
    const before = intake(running.person);
    await post('/api/jobs', before);
    for (let closed = 0; closed < 30; closed += 1) await closedJob('main.light-command');
    const after = intake(running.person);
    await post('/api/jobs', after);
    const { jobs } = await get<{ jobs: { jobId: string; top: { id: string; probability: number } }[] }>('/api/jobs');
    const top = (id: string) => jobs.find(({ jobId }) => jobId === id)?.top;
    expect(top(before.id)?.id).not.toBe('main');
    expect(top(after.id)?.id).toBe('main');
    const exported = await get<CaseFile>(`/api/jobs/${after.id}/case`);
    expect(exported.counts?.jobs.find(({ fault }) => fault === 'main.light-command')?.n).toBeGreaterThanOrEqual(30);
    // Thirty jobs, each with counts of its own learned anew.
  }, 60_000);

  test('cards made anew count the same', async () => {
    const number = await newest();
    await rebuildCards(running.store);
    expect(await newest()).toBe(number);
  });

  test('asked by many at once, one number is made', async () => {
    await closedJob('strips.led-open');
    const numbers = await Promise.all(Array.from({ length: 4 }, () => newestSnapshot(running.store)));
    expect(new Set(numbers).size).toBe(1);
  });
});

describe('experience told', () => {
  test('counts from the next number on, is shown with who told it, and can be undone', async () => {
    const before = await newest();
    const reply = await tell({ family: 'quorvane.qk3', symptom: 'sound-dark' });
    expect(reply.status).toBe(201);
    const [told] = (reply.body as { told: Told[] }).told;
    expect(told).toMatchObject({ by: running.person, fault: 'tcon.bias-dead', n: 12, withdrawn: false });
    const number = await newest();
    expect(number).toBe(before + 1);
    const { told: counted } = countsSchema.parse(await get(`/api/counts/${number}`));
    expect(counted).toEqual([
      { layout: 'led-tcon', family: 'quorvane.qk3', symptom: 'sound-dark', fault: 'tcon.bias-dead', n: 12, by: running.person },
    ]);
    const back = await post(`/api/told/${told?.id ?? ''}/withdraw`, {});
    expect((back.body as { told: Told[] }).told[0]).toMatchObject({ id: told?.id, withdrawn: true });
    expect(countsSchema.parse(await get(`/api/counts/${await newest()}`)).told).toEqual([]);
  });

  test('sent twice it counts once', async () => {
    const id = uuidv7();
    await tell({ id });
    const { told } = (await tell({ id })).body as { told: Told[] };
    expect(told.filter((one) => one.id === id)).toHaveLength(1);
  });

  test.each([
    ['none of them', { n: 0 }, 400, 'n'],
    ['a layout nobody knows', { layout: 'two-boards' }, 400, 'layout'],
    ['a fault this layout cannot have', { layout: 'plasma', fault: 'strips.led-open' }, 400, 'fault'],
    ['a family of another layout', { family: 'no.such' }, 400, 'family'],
    ['a complaint nobody knows', { symptom: 'sings' }, 400, 'symptom'],
    ['a person who is not signed in', { by: uuidv7() }, 403, 'by'],
  ])('%s is refused, and says where', async (_, change, status, where) => {
    const before = await get('/api/told');
    const reply = await tell(change);
    expect([reply.status, (reply.body as { problems: { where: string }[] }).problems.map((one) => one.where)]).toEqual([status, [where]]);
    expect(await get('/api/told')).toEqual(before);
  });
});

describe('moving a job to newer counts', () => {
  test('is an entry: the job goes by them from then on, and taking it back undoes it', async () => {
    const opened = jobSchema.parse((await post('/api/jobs', intake(running.person))).body);
    await closedJob('strips.led-open');
    const number = await newest();
    expect(number).toBeGreaterThan(opened.snapshot);
    const pin = draft({ kind: 'pack.pinned', v: 2, hash: opened.packHash, snapshot: number }, 2);
    await post(`/api/jobs/${opened.id}/entries`, { by: running.person, entries: [pin] });
    expect((await job(opened.id)).snapshot).toBe(number);
    await post(`/api/jobs/${opened.id}/entries`, {
      by: running.person,
      entries: [draft({ kind: 'entry.retracted', v: 1, entry: pin.id, reason: 'too early' }, 3)],
    });
    expect((await job(opened.id)).snapshot).toBe(opened.snapshot);
  });

  test.each([
    ['counts', { snapshot: 99_999 }, 'unknown-counts'],
    ['a book', { hash: 'a'.repeat(64) }, 'unknown-pack'],
  ])('%s that are not here are refused, and nothing is stored', async (_, change, code) => {
    const opened = jobSchema.parse((await post('/api/jobs', intake(running.person))).body);
    const reply = await post(`/api/jobs/${opened.id}/entries`, {
      by: running.person,
      entries: [draft({ kind: 'pack.pinned', v: 2, hash: opened.packHash, ...change }, 2)],
    });
    expect((reply.body as { code: string }).code).toBe(code);
    expect((await job(opened.id)).entries).toHaveLength(2);
  });
});

test('hits of a board’s known faults count as experience, with who wrote them; a retired board’s don’t', async () => {
  const id = uuidv7();
  const before = await newest();
  const keep = (version: number, retired: boolean) =>
    ask(running.app)
      .put(`/api/boards/${id}`)
      .send({
        by: running.person,
        version,
        reason: 'seen again',
        board: {
          format: 'veglia-board',
          version: 1,
          id,
          number: 'TC-88',
          assembly: 'tcon',
          layout: 'led-tcon',
          families: ['pelorane.pt9'],
          retired,
          cards: [{ id: uuidv7(), sign: 'no picture', proof: 'fuse', fault: 'tcon.fuse-open', hits: 7, misses: 1 }],
        },
      });
  expect((await keep(0, false)).status).toBe(200);
  const number = await newest();
  expect(number).toBeGreaterThan(before);
  const told = async (at: number) =>
    countsSchema.parse(await get(`/api/counts/${at}`)).told.filter(({ fault }) => fault === 'tcon.fuse-open');
  expect(await told(number)).toEqual([{ layout: 'led-tcon', family: 'pelorane.pt9', fault: 'tcon.fuse-open', n: 7, by: running.person }]);
  expect((await keep(1, true)).status).toBe(200);
  expect(await told(await newest())).toEqual([]);
});

const looked: readonly Body[] = [
  { kind: 'set.changed', v: 3, stage: 'back-off' },
  { kind: 'test.answered', v: 2, test: 'fuse', outcome: 'intact', sure: 'sure' },
  { kind: 'set.changed', v: 3, stage: 'closed' },
];
describe('how long people take', () => {
  test('comes from minutes typed at closing: of the doer, weighed by the book; a card made again says the same', async () => {
    expect(await get('/api/people/pace')).toEqual({ people: [] });
    await closedJob('main.light-command', looked);
    const first = await get<{ people: { person: string; factor: number; jobs: number }[] }>('/api/people/pace');
    expect(first.people).toEqual([{ person: running.person, factor: expect.any(Number) as unknown, jobs: 1 }]);
    await closedJob('main.light-command', looked);
    const [both] = (await get<typeof first>('/api/people/pace')).people;
    expect(both?.jobs).toBe(2);
    // 40 minutes for a torch with the way to it are slow, and two such jobs say so more surely than one.
    expect(both?.factor).toBeGreaterThan(first.people[0]?.factor ?? Infinity);
    await rebuildCards(running.store);
    expect((await get<typeof first>('/api/people/pace')).people).toEqual([both]);
  });
});
