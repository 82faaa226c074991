import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { personalFields, entryKinds } from '@veglia/core';
import { QueryTypes } from 'sequelize';
import { newestSnapshot } from '../src/counts/counts.ts';
import { connect } from '../src/database/connect.ts';
import { ledgerProtection, migrate } from '../src/database/migrate.ts';
import { append, readLedger } from '../src/jobs/ledger.ts';
import { rebuildCards, takeIn } from '../src/jobs/jobs.ts';
import { newJobSchema } from '@veglia/contract';
import { allCards, draft, intake, openTestApp, type TestApp } from './support/testApp.ts';
import { v7 as uuidv7 } from 'uuid';

let running: TestApp;
beforeAll(async () => {
  running = await openTestApp({ demo: true });
});
afterAll(() => running.close());

describe('the ledger is append-only', () => {
  const attempts: [string, string][] = [
    ['update', "UPDATE ledger_entries SET kind = 'note.added'"],
    ['delete', 'DELETE FROM ledger_entries'],
    ['truncate', 'TRUNCATE ledger_entries'],
    ['truncate with all that points to it', 'TRUNCATE ledger_entries CASCADE'],
    ['disabling the trigger', 'ALTER TABLE ledger_entries DISABLE TRIGGER ALL'],
    ['dropping the trigger', 'DROP TRIGGER ledger_append_only ON ledger_entries'],
    ['dropping the table', 'DROP TABLE ledger_entries CASCADE'],
    ['switching triggers off for the session', "SET session_replication_role = 'replica'"],
    [
      'conflict-update',
      `INSERT INTO ledger_entries SELECT * FROM ledger_entries LIMIT 1 ON CONFLICT (id) DO UPDATE SET kind = 'note.added'`,
    ],
  ];
  test.each(attempts)('as the app’s role: %s is refused', async (_, sql) => {
    const before = await running.store.models.entries.count();
    expect(before).toBeGreaterThan(10);
    await expect(running.store.sequelize.query(sql)).rejects.toThrow(/permission denied|must be owner/);
    expect(await running.store.models.entries.count()).toBe(before);
  });

  test.each(attempts.filter(([name]) => ['update', 'delete', 'truncate with all that points to it'].includes(name)))(
    'as the owner, where one role is all there is: %s is refused by the trigger',
    async (_, sql) => {
      const owner = connect(running.ownerUrl, 1);
      await expect(owner.query(sql)).rejects.toThrow(/append-only/);
      expect(await ledgerProtection(owner)).toBe('trigger-only');
      await owner.close();
    },
  );

  test('a dropped trigger shows in the health', async () => {
    const spoilt = await openTestApp();
    const owner = connect(spoilt.ownerUrl, 1);
    await owner.query('DROP TRIGGER ledger_no_truncate ON ledger_entries');
    expect(await ledgerProtection(spoilt.store.sequelize)).toBe('none');
    await owner.close();
    await spoilt.close();
  });
});

describe('migrations', () => {
  /** How the first migration left it, with the demo's rows inside: what later ones add is taken away again. */
  const backToTheFirst = [
    'ALTER TABLE jobs DROP COLUMN snapshot',
    'ALTER TABLE job_cards DROP COLUMN counted',
    'DROP FUNCTION audit_only_forgets() CASCADE',
    'DROP TABLE programmer_runs, passkeys',
    'DROP TABLE accounts, invitations, sessions, bench_people, benches, attempts, audit',
    'ALTER TABLE people DROP COLUMN role, DROP COLUMN left_at',
    `DROP TABLE counts_snapshots, told_experience, shop_settings, blink_tables, family_versions, board_versions, image_erasures, image_facts_before,
       images, stock_items_before, stock_items, stock_moves,
       upload_pages, uploads, file_pages, files, chunks`,
    'DROP INDEX customers_name, customers_search, jobs_customer, entry_texts_search, job_cards_layout, job_cards_search',
    `ALTER TABLE job_cards DROP COLUMN number, DROP COLUMN opened_at, DROP COLUMN shelf, DROP COLUMN family, DROP COLUMN layout,
       DROP COLUMN code, DROP COLUMN symptoms, DROP COLUMN waiting, DROP COLUMN search`,
    'CREATE INDEX job_cards_state ON job_cards (state)',
    'DROP INDEX IF EXISTS ledger_flash_target, ledger_flash_image, job_cards_parts, job_cards_uncollected, ledger_entries_part_number, ledger_entries_want',
    'DROP COLLATION veglia_natural',
    `UPDATE job_cards SET card = jsonb_set(card #- '{top,probability}', '{top,odds}', card #> '{top,probability}')
      WHERE card #> '{top,probability}' IS NOT NULL`,
    "DELETE FROM migrations WHERE name <> '0001-foundation'",
  ];

  test('a database filled before the later ones gets them, with everything that was in it', async () => {
    const old = await openTestApp({ demo: true });
    const before = await readEverything(old);
    const cards = await allCards(old.store);
    const owner = connect(old.ownerUrl, 3);
    for (const sql of backToTheFirst) await owner.query(sql);
    await migrate(owner, 'veglia_app');
    await owner.close();
    expect(await readEverything(old)).toEqual(before);
    expect(cards.jobs.filter(({ top }) => top !== null).length).toBeGreaterThan(10);
    expect(await allCards(old.store)).toEqual(cards);
    await rebuildCards(old.store);
    expect(await newestSnapshot(old.store)).toBe(1);
    await old.close();
  });

  test('running again changes nothing, also on a filled database and by two starters at once', async () => {
    const before = await readEverything(running);
    const owners = [connect(running.ownerUrl, 3), connect(running.ownerUrl, 3)];
    await Promise.all(owners.map((owner) => migrate(owner, 'veglia_app')));
    await Promise.all(owners.map((owner) => owner.close()));
    expect(await readEverything(running)).toEqual(before);
  });
});

async function readEverything({ store }: TestApp): Promise<unknown> {
  const jobs = await store.models.jobs.findAll({ order: [['number', 'ASC']] });
  return Promise.all(jobs.map((job) => readLedger(store, job.id)));
}

describe('personal text', () => {
  test('lies in rows of its own: nothing a person said or wrote is in the ledger itself', async () => {
    const job = await takeIn(running.store, newJobSchema.parse(intake(running.person)), uuidv7);
    await append(running.store, job.id, running.person, [draft({ kind: 'note.added', v: 1, text: 'calls after six' }, 2)]);
    const rows = await running.store.sequelize.query<{ body: string }>('SELECT body::text AS body FROM ledger_entries WHERE job_id = $1', {
      bind: [job.id],
      type: QueryTypes.SELECT,
    });
    expect(rows).toHaveLength(3);
    for (const { body } of rows) expect(body).not.toMatch(/nephew|talks|after six/);
    const read = await readLedger(running.store, job.id);
    expect(read[0]?.body).toMatchObject({ earlier: 'her nephew looked inside' });
    expect(read[2]?.body).toMatchObject({ text: 'calls after six' });
  });

  test('emptied, the facts stay and are still read', async () => {
    const job = await takeIn(running.store, newJobSchema.parse(intake(running.person)), uuidv7);
    await running.store.models.texts.update({ content: null }, { where: { entryId: job.entries[1]?.id ?? '' } });
    const read = await readLedger(running.store, job.id);
    expect(read[1]?.body).toMatchObject({ symptoms: ['sound-dark'], words: '[erased]' });
  });

  test('only kinds that exist name personal fields', () => {
    expect(Object.keys(personalFields).every((kind) => entryKinds.includes(kind as never))).toBe(true);
  });
});

describe('cards', () => {
  test('one that can’t be read is named, and takes no other with it', async () => {
    const { models } = running.store;
    const { jobs } = await allCards(running.store);
    const [one] = jobs;
    const row = await models.cards.findByPk(one?.jobId ?? '');
    await row?.update({ card: { ...row.card, symptoms: 'none' } });
    const list = await allCards(running.store);
    expect(list.unreadable).toEqual([{ jobId: one?.jobId, number: one?.number }]);
    expect(list.jobs).toHaveLength(jobs.length - 1);
    await rebuildCards(running.store);
    expect((await allCards(running.store)).jobs).toHaveLength(jobs.length);
  });
  test('have no name of a customer in them: it comes from the customer, and is gone once it is erased there', async () => {
    const { models } = running.store;
    for (const row of await models.cards.findAll()) expect(row.card).not.toHaveProperty('customerName');
    const named = (await allCards(running.store)).jobs.find(({ customerName }) => customerName !== null);
    const job = await models.jobs.findByPk(named?.jobId ?? '');
    const before = await models.customers.findByPk(job?.customerId ?? '');
    const { name } = before ?? {};
    await before?.update({ name: null });
    expect((await allCards(running.store)).jobs.find(({ jobId }) => jobId === named?.jobId)?.customerName).toBe('[erased]');
    await before?.update({ name: name ?? null });
  });
  test('rebuilt from the ledgers they are what they were', async () => {
    const { jobs: before } = await allCards(running.store);
    expect(before.length).toBeGreaterThanOrEqual(6);
    await running.store.models.cards.destroy({ where: {} });
    expect((await allCards(running.store)).jobs).toEqual([]);
    expect(await rebuildCards(running.store)).toBe(before.length);
    expect((await allCards(running.store)).jobs).toEqual(before);
  });

  test('an entry and its card come together or not at all', async () => {
    const job = await takeIn(running.store, newJobSchema.parse(intake(running.person)), uuidv7);
    // The card cannot be written: the entry must not stay either.
    const owner = connect(running.ownerUrl, 1);
    await owner.query('REVOKE INSERT, UPDATE ON job_cards FROM veglia_app');
    await expect(append(running.store, job.id, running.person, [draft({ kind: 'note.added', v: 1, text: 'x' })])).rejects.toThrow(
      /permission denied/,
    );
    await owner.query('GRANT INSERT, UPDATE ON job_cards TO veglia_app');
    await owner.close();
    expect(await readLedger(running.store, job.id)).toHaveLength(2);
    expect((await append(running.store, job.id, running.person, [draft({ kind: 'note.added', v: 1, text: 'x' })])).lastSeq).toBe(3);
  });
});

describe('demo data', () => {
  test('is loaded once: a second start adds nothing', async () => {
    const { loadDemo } = await import('../src/demo/load.ts');
    const { inRoot } = await import('../../../scripts/lib/paths.mjs');
    const before = await running.store.models.entries.count();
    await loadDemo(running.store, inRoot('demo'));
    expect(await running.store.models.entries.count()).toBe(before);
  });
});
