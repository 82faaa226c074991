import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { problemDocumentSchema } from '@veglia/contract';
import { fuzz } from './support/fuzz.ts';
import { ask, intake, openTestApp, type TestApp } from './support/testApp.ts';

let running: TestApp;
beforeAll(async () => {
  running = await openTestApp();
});
afterAll(() => running.close());

/** A little of it here; in full, `npm run bench:fuzz -- 2000 SEED`. */
const [requests, seed] = (process.env.VEGLIA_FUZZ ?? '400 11').split(' ').map(Number) as [number, number];

test(`${requests} requests from the OpenAPI document: none is a fault of ours, every refusal says why, nothing stored breaks a list`, async () => {
  const job = intake(running.person);
  await ask(running.app).post('/api/jobs').send(job).expect(201);
  const answered = await fuzz(running.app, [running.person, job.id], requests, seed);
  expect(answered.filter(({ status }) => status >= 500)).toEqual([]);
  for (const { status, reply } of answered) if (status >= 400) expect(problemDocumentSchema.parse(reply).status).toBe(status);
  // A fuzz that is refused everywhere at the first field tests nothing.
  const statuses = new Set(answered.map(({ status }) => status));
  for (const wanted of [200, 201, 400, 404]) expect(statuses).toContain(wanted);
  expect(answered.filter(({ request, status }) => request.startsWith('post') && status < 300).length).toBeGreaterThan(5);
  expect((await ask(running.app).get('/api/jobs')).status).toBe(200);
});
