/** Taking in and writing with the database failing at statement 1, 2, 3 ... until none fails: all or nothing, and a retry is safe. */
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { newJobSchema } from '@veglia/contract';
import { v7 as uuidv7 } from 'uuid';
import { append, readLedger } from '../src/jobs/ledger.ts';
import { takeIn } from '../src/jobs/jobs.ts';
import { allCards, draft, intake, openTestApp, type TestApp } from './support/testApp.ts';

let running: TestApp;
beforeAll(async () => {
  // Sequelize says on the console that a commit failed: here that is the point.
  jest.spyOn(console, 'warn').mockImplementation(() => undefined);
  running = await openTestApp();
});
afterAll(() => running.close());

/** Runs `work` with the nth statement failing; true where it failed, so that the sweep goes on. */
async function failingAt(nth: number, work: () => Promise<unknown>): Promise<boolean> {
  const { sequelize } = running.store;
  const genuine = sequelize.query.bind(sequelize);
  let count = 0;
  const failing = (...args: Parameters<typeof genuine>): unknown => {
    count += 1;
    if (count === nth) return Promise.reject(new Error(`statement ${nth} fails`));
    return genuine(...args);
  };
  Object.assign(sequelize, { query: failing });
  try {
    await work();
    return false;
  } catch (error) {
    expect(String(error)).toContain(`statement ${nth} fails`);
    return true;
  } finally {
    Object.assign(sequelize, { query: genuine });
  }
}

/** Statements one piece of work takes at the very most; reaching it means that the sweep never ended. */
const most = 200;

describe('a failing database', () => {
  test('never leaves half a written batch behind', async () => {
    let failures = 0;
    for (let nth = 1; nth < most; nth += 1) {
      const job = await takeIn(running.store, newJobSchema.parse(intake(running.person)), uuidv7);
      const drafts = [
        draft({ kind: 'test.answered', v: 1, test: 'torch', outcome: 'nothing', sure: 'sure' }, 2),
        draft({ kind: 'note.added', v: 1, text: 'dim room' }, 2),
      ];
      const write = (): Promise<unknown> => append(running.store, job.id, running.person, drafts);
      const failed = await failingAt(nth, write);
      const after = await readLedger(running.store, job.id);
      expect([nth, after.length]).toEqual([nth, failed ? 2 : 4]);
      const card = async () => (await allCards(running.store)).jobs.find((one) => one.jobId === job.id)?.entryCount;
      expect([nth, await card()]).toEqual([nth, failed ? 2 : 4]);
      // The client sends the same again, as its outbox does.
      await write();
      expect((await readLedger(running.store, job.id)).map((entry) => entry.seq)).toEqual([1, 2, 3, 4]);
      expect(await card()).toBe(4);
      if (!failed) break;
      failures = nth;
    }
    expect(failures).toBeGreaterThan(5);
    expect(failures).toBeLessThan(most - 1);
  });

  test('never leaves half a job behind, and taking in again with the same id gives one job', async () => {
    let failures = 0;
    for (let nth = 1; nth < most; nth += 1) {
      const request = newJobSchema.parse(intake(running.person));
      const before = (await allCards(running.store)).jobs.length;
      const stored = { customers: await running.store.models.customers.count(), sets: await running.store.models.sets.count() };
      const failed = await failingAt(nth, () => takeIn(running.store, request, uuidv7));
      const there = (await allCards(running.store)).jobs.some((card) => card.jobId === request.id);
      // Reading the stored job back may fail too: then it is there, whole.
      if (there) expect(await readLedger(running.store, request.id)).toHaveLength(2);
      else
        expect([await running.store.models.customers.count(), await running.store.models.sets.count()]).toEqual([
          stored.customers,
          stored.sets,
        ]);
      await takeIn(running.store, request, uuidv7);
      expect((await allCards(running.store)).jobs.length).toBe(before + 1);
      expect(await readLedger(running.store, request.id)).toHaveLength(2);
      if (!failed) break;
      failures = nth;
    }
    expect(failures).toBeGreaterThan(8);
    expect(failures).toBeLessThan(most - 1);
  });
});
