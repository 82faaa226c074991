import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { jobCardsSchema, type JobCard, type JobCards } from '@veglia/contract';
import type { Body } from '@veglia/core';
import { QueryTypes } from 'sequelize';
import { v7 as uuidv7 } from 'uuid';
import { mostCounted } from '../src/jobs/list.ts';
import { ask, draft, intake, openTestApp, type TestApp } from './support/testApp.ts';

let running: TestApp;
const jobs = new Map<string, string>();

/** A job with a name of its own, on a shelf; `more` follows. */
async function taken(name: string, shelf: string, change: Parameters<typeof intake>[1] = {}, more: Body[] = []): Promise<string> {
  const request = intake(running.person, change);
  await ask(running.app).post('/api/jobs').send(request).expect(201);
  const bodies: Body[] = [...(shelf === '' ? [] : [{ kind: 'set.shelved', v: 1, shelf } as const]), ...more];
  if (bodies.length > 0) {
    const entries = bodies.map((body, index) => draft(body, index + 2));
    await ask(running.app).post(`/api/jobs/${request.id}/entries`).send({ by: running.person, entries }).expect(200);
  }
  jobs.set(name, request.id);
  return request.id;
}

const customer = (name: string) => ({ customer: { name, contact: '01632 960100' } });
const plate = (maker: string, model: string, serial: string) => ({ plate: { maker, model, serial } });
const closed: Body[] = [{ kind: 'job.closed', v: 2, outcome: 'not-worth-it', minutes: 5 }];

beforeAll(async () => {
  running = await openTestApp();
  await taken('tenth', 'B 10', { ...customer('Petronel Ashby'), ...plate('Quorvane', 'QK3-50', 'Q350-77') });
  await taken('second', 'B 2', { ...customer('Casimir Thorne'), ...plate('Oltrema', 'C3-40', 'x%_\\x') });
  await taken('nowhere', '', customer('Orla Finch-Ashby'), [{ kind: 'note.added', v: 1, text: 'smells of the harbour when warm' }]);
  await taken('timer', 'A', customer('Zoë Łukasik'), [{ kind: 'wait.started', v: 2, name: 'reset', minutes: 4 }]);
  await taken('closed', 'B 2', customer('Petronel Ashby'), closed);
});
afterAll(() => running.close());

async function list(query: string): Promise<JobCards> {
  const reply = await ask(running.app).get(`/api/jobs?${query}`);
  expect(reply.status).toBe(200);
  return jobCardsSchema.parse(reply.body);
}
const nameOf = ({ jobId }: JobCard): string => [...jobs].find(([, id]) => id === jobId)?.[0] ?? '?';
const names = async (query: string): Promise<string[]> => (await list(query)).jobs.map(nameOf);

describe('the list', () => {
  test.each([
    ['state=open&order=shelf', ['timer', 'second', 'tenth', 'nowhere']],
    ['state=closed', ['closed']],
    ['order=oldest', ['tenth', 'second', 'nowhere', 'timer', 'closed']],
    ['order=newest', ['closed', 'timer', 'nowhere', 'second', 'tenth']],
    ['waiting=true', ['timer']],
    ['family=quorvane.qk3', ['tenth', 'second', 'nowhere', 'timer', 'closed']],
    ['family=oltrema.c3', []],
  ])('%s', async (query, expected) => {
    expect(await names(query)).toEqual(expected);
  });

  test.each(['shelf', 'oldest', 'newest'])(
    'by pages of two in the order of %s: each job once, the whole counted on every page',
    async (order) => {
      const whole = await names(`order=${order}&state=open`);
      const seen: string[] = [];
      let after = '';
      for (let pages = 0; pages < 5; pages += 1) {
        const page = await list(`order=${order}&state=open&limit=2${after}`);
        expect([page.total, page.more]).toEqual([4, false]);
        seen.push(...page.jobs.map(nameOf));
        if (page.next === null) break;
        after = `&after=${page.next}`;
      }
      expect(seen).toEqual(whole);
    },
  );

  test('some by their ids, as a browser asks for what it heard of', async () => {
    expect(await names(`ids=${jobs.get('closed')},${jobs.get('second')},${uuidv7()}`)).toEqual(['second', 'closed']);
  });

  test('is packed for who takes it so', async () => {
    const reply = await ask(running.app).get('/api/jobs').set('accept-encoding', 'gzip');
    expect(reply.headers['content-encoding']).toBe('gzip');
    expect(reply.headers['cache-control']).toBe('no-store');
  });
});

describe('search', () => {
  test.each([
    ['a name', 'ashby', ['tenth', 'nowhere', 'closed']],
    ['two words of different kinds, in any order', 'qk3 petronel', ['tenth', 'closed']],
    ['part of a serial number', '350-7', ['tenth']],
    ['a maker, in capitals', 'OLTREMA', ['second']],
    ['the family’s name as people say it', 'quorvane qk3', ['tenth', 'second', 'nowhere', 'timer', 'closed']],
    ['letters that mean something to LIKE', 'x%_\\', ['second']],
    ['a percent sign is no wildcard', 'q%7', []],
    ['letters of other languages', 'łukasik', ['timer']],
    ['a shelf', 'b 10', ['tenth']],
    ['words of a note, whole ones', 'harbour warm', ['nowhere']],
    ['half a word of a note', 'harbo', []],
    ['a word nobody has', 'gherkin', []],
  ])('%s', async (_, text, expected) => {
    expect(await names(`find=${encodeURIComponent(text)}`)).toEqual(expected);
  });

  test('a job’s number finds that job alone, open or not; a number that is none is a word', async () => {
    const { jobs: all } = await list('order=oldest');
    const last = all.at(-1);
    expect(await names(`state=open&find=${last?.number ?? 0}`)).toEqual(['closed']);
    expect((await list('find=77')).jobs.map(nameOf)).toEqual(['tenth']);
  });

  test('what was erased is not found: neither the name nor the text', async () => {
    const id = await taken('erased', 'Z', customer('Gudrun Vanish'), [{ kind: 'note.added', v: 1, text: 'marzipan allergy' }]);
    expect(await names('find=vanish')).toEqual(['erased']);
    expect(await names('find=marzipan')).toEqual(['erased']);
    const job = await running.store.models.jobs.findByPk(id);
    await running.store.models.customers.update({ name: null }, { where: { id: job?.customerId ?? '' } });
    const { entries } = (await ask(running.app).get(`/api/jobs/${id}`)).body as { entries: { id: string; body: { kind: string } }[] };
    const note = entries.find(({ body }) => body.kind === 'note.added');
    const erase = draft({ kind: 'text.redacted', v: 1, entry: note?.id ?? '', field: 'text' }, entries.length);
    await ask(running.app)
      .post(`/api/jobs/${id}/entries`)
      .send({ by: running.person, entries: [erase] })
      .expect(200);
    expect(await names('find=vanish')).toEqual([]);
    expect(await names('find=marzipan')).toEqual([]);
    expect(await names('find=z')).toContain('erased');
  });

  test('a search goes by its indexes where there is much to search', async () => {
    const plan = await running.store.sequelize.transaction(async (transaction) => {
      await running.store.sequelize.query('SET LOCAL enable_seqscan = off', { transaction });
      return running.store.sequelize.query<{ 'QUERY PLAN': string }>(`EXPLAIN SELECT job_id FROM job_cards WHERE search LIKE '%ashby%'`, {
        type: QueryTypes.SELECT,
        transaction,
      });
    });
    expect(plan.map((line) => line['QUERY PLAN']).join(' ')).toContain('job_cards_search');
  });

  test('a word that very many have: the newest come first, the count stops at a limit and says so', async () => {
    const many = mostCounted + 200;
    // Cards alone, newest last in the table: nothing but the order asked for puts them right.
    await running.store.sequelize.query(
      `WITH made AS (SELECT i, gen_random_uuid() AS id FROM generate_series(1, ${many}) AS i),
            job AS (INSERT INTO jobs (id, set_id, pack_hash, opened_at)
                    SELECT m.id, (SELECT id FROM sets LIMIT 1), (SELECT hash FROM packs LIMIT 1), now() + make_interval(mins => m.i) FROM made m
                    RETURNING id, number, opened_at)
       INSERT INTO job_cards (job_id, state, card, updated_at, number, opened_at, search)
       SELECT j.id, 'closed', (SELECT card FROM job_cards LIMIT 1) || jsonb_build_object('jobId', j.id, 'number', j.number), now(), j.number,
              j.opened_at, 'zebra' FROM job j`,
    );
    const found = await list('find=zebra&order=newest&limit=50');
    const newest = (await list('order=newest&limit=50')).jobs.map(({ number }) => number);
    expect(found.jobs.map(({ number }) => number)).toEqual(newest);
    expect([found.total, found.more]).toEqual([mostCounted, true]);
  });
});

describe('jobs like this one', () => {
  const similar = async (query: string): Promise<string[]> => {
    const reply = await ask(running.app).get(`/api/jobs/similar?${query}`);
    expect(reply.status).toBe(200);
    return (reply.body as { jobs: JobCard[] }).jobs.map(nameOf);
  };
  test.each([
    ['family=quorvane.qk3&symptoms=sound-dark', ['closed']],
    ['layout=led-tcon&symptoms=sound-dark,dead', ['closed']],
    ['layout=led-tcon&symptoms=dead', []],
    ['family=quorvane.qk3', []],
    ['', []],
  ])('closed ones only: %s', async (query, expected) => {
    expect(await similar(query)).toEqual(expected);
  });
  test('name no customer', async () => {
    const reply = await ask(running.app).get('/api/jobs/similar?family=quorvane.qk3&symptoms=sound-dark');
    expect(JSON.stringify(reply.body)).not.toContain('Ashby');
  });
});

test('codes of a family: closed jobs by code and what was confirmed', async () => {
  const read: Body[] = [
    { kind: 'blink.read', v: 3, groups: [6], cycles: 2 },
    { kind: 'fault.confirmed', v: 1, assembly: 'strips', fault: 'strips.led-open' },
    ...closed,
  ];
  await taken('six', '', {}, read);
  await taken('six again', '', {}, read);
  await taken('six, not found out', '', {}, [{ kind: 'blink.read', v: 3, groups: [6], cycles: 2 }, ...closed]);
  const reply = await ask(running.app).get('/api/families/quorvane.qk3/codes');
  expect(reply.body).toEqual({
    codes: [
      { code: '6', found: 'strips.led-open', n: 2 },
      { code: '6', found: null, n: 1 },
    ],
  });
  expect((await ask(running.app).get('/api/families/oltrema.c3/codes')).body).toEqual({ codes: [] });
});
