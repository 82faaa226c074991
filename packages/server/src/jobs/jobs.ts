/** Use cases around a job: taking in, reading, listing, exporting, rebuilding cards. */
import { helpRequest, jobSettings, type EntryDraft, type Job, type NewJob } from '@veglia/contract';
import { foldCase, notInBook, pinsOf, redactedText, type Body, type CaseFile, type Entry, type Problem } from '@veglia/core';
import { newestSnapshot } from '../counts/counts.ts';
import { againIfOvertaken, requireSame } from '../http/again.ts';
import { ApiError } from '../http/apiError.ts';
import type { JobRow } from '../database/models.ts';
import type { PaperFacts } from '../papers/papers.ts';
import { requirePerson } from '../people.ts';
import { readShop } from '../shop.ts';
import type { Store } from '../store.ts';
import { appendLocked, caseOfJob, checkDrafts, findJob, readLedger, writeCard } from './ledger.ts';

/**
 * Taking in twice with the same id checks in once, and returns the job that is there. `counted` is the number of the counts it starts
 * from; left out, the newest.
 */
export async function takeIn(store: Store, request: NewJob, newId: () => string, counted?: number): Promise<Job> {
  const drafts = checkDrafts(request.entries);
  const [first, ...others] = drafts;
  const wrong: Problem[] = [];
  if (first?.body.kind !== 'job.opened')
    wrong.push({ code: 'schema', where: 'entries.0.body.kind', expected: 'the first entry opens the job' });
  if (others.some((draft) => draft.body.kind === 'job.opened')) wrong.push({ code: 'duplicate-id', where: 'entries', value: 'job.opened' });
  if (wrong.length > 0) throw new ApiError('bad-request', wrong);
  await againIfOvertaken(async () => {
    const there = await store.models.jobs.findByPk(request.id);
    if (there !== null) return requireSameIntake(store, there, request, drafts);
    const packHash = await store.packs.currentHash();
    const snapshot = (counted ?? (await newestSnapshot(store))) || null;
    await store.sequelize.transaction(async (transaction) => {
      await requirePerson(store, request.by, transaction);
      const { customer, plate } = request;
      const customerId = customer === null ? null : 'id' in customer ? customer.id : newId();
      if (customer !== null && 'id' in customer) {
        if ((await store.models.customers.findByPk(customer.id, { transaction })) === null) throw new ApiError('unknown-customer');
      } else if (customer !== null && customerId !== null) {
        await store.models.customers.create({ id: customerId, ...customer }, { transaction });
      }
      const setId = newId();
      await store.models.sets.create({ id: setId, ...plate }, { transaction });
      const openedAt = new Date(first?.at ?? store.now());
      const job = await store.models.jobs.create({ id: request.id, customerId, setId, packHash, snapshot, openedAt }, { transaction });
      await appendLocked(store, job, request.by, drafts, transaction);
    });
  });
  return readJob(store, request.id);
}

/** What came with the intake is what is stored, as far as it is still there: a name that was erased since says nothing. */
async function requireSameIntake(
  store: Store,
  job: JobRow,
  request: NewJob,
  drafts: readonly (Omit<EntryDraft, 'body'> & { body: Body })[],
): Promise<void> {
  const { customer, plate } = request;
  const set = await store.models.sets.findByPk(job.setId);
  const stored = job.customerId === null ? null : await store.models.customers.findByPk(job.customerId);
  const serial = stored !== null && stored.name === null ? plate.serial : set?.serial;
  requireSame(job.id, { maker: set?.maker, model: set?.model, serial }, plate, 'plate');
  if (customer === null || 'id' in customer)
    requireSame(job.id, { customer: job.customerId }, { customer: customer?.id ?? null }, 'customer');
  else if (stored?.name != null) requireSame(job.id, { name: stored.name, contact: stored.contact ?? '' }, customer, 'customer');
  const ledger = new Map((await readLedger(store, job.id)).map((entry) => [entry.id, entry]));
  for (const { id, body } of drafts) requireSame(id, unerased(ledger.get(id)?.body ?? {}, body), body, 'entries');
}

/** A stored body with what was erased in it as it is sent now. */
function unerased(stored: object, sent: object): object {
  const now = new Map(Object.entries(sent));
  return Object.fromEntries(
    Object.entries(stored).map(([field, value]) => [field, value === redactedText ? now.get(field) : (value as unknown)]),
  );
}

/** A job with its ledger, customer and plate; erased texts read "[erased]". Throws unknown-job. */
export async function readJob(store: Store, id: string): Promise<Job> {
  const job = await findJob(store, id);
  const entries = await readLedger(store, id);
  const pins = pinsOf({ hash: job.packHash, snapshot: job.snapshot ?? 0 }, entries);
  const plate = await store.models.sets.findByPk(job.setId);
  const customer = job.customerId === null ? null : await store.models.customers.findByPk(job.customerId);
  return {
    id,
    number: job.number,
    openedAt: job.openedAt.toISOString(),
    customer: customer === null ? null : { name: customer.name ?? redactedText, contact: customer.contact ?? '' },
    plate: { maker: plate?.maker ?? '', model: plate?.model ?? '', serial: plate?.serial ?? '' },
    packHash: pins.hash,
    snapshot: pins.snapshot,
    settings: jobSettings((await readShop(store)).settings),
    entries: entries.map((entry) => ({ ...entry, body: { ...entry.body } })),
  };
}

/** The case file: set and ledger without the customer and without the plate. */
export async function exportCase(store: Store, id: string): Promise<CaseFile> {
  const job = await findJob(store, id);
  const entries = await readLedger(store, id);
  const { pins, input } = await caseOfJob(store, job, entries);
  const { set, settings, counts } = input;
  return { format: 'veglia-case', version: 2, pack: { hash: pins.hash }, ...(counts ? { counts } : {}), set, settings, entries };
}

/** What is most likely wrong now, for the customer; undefined where nothing is known. Throws unknown-job. */
export async function causeOf(store: Store, id: string): Promise<{ readonly assembly: string; readonly proven: boolean } | undefined> {
  const job = await findJob(store, id);
  const { input, compiled } = await caseOfJob(store, job, await readLedger(store, id));
  const [first] = foldCase(input, compiled, 'cost', 'at-once').assemblies;
  return first && first.id !== notInBook ? { assembly: first.id, proven: first.verdict === 'proven' } : undefined;
}

/** A question to a colleague, without customer data. Throws unknown-job. */
export async function helpText(store: Store, id: string): Promise<string> {
  const job = await findJob(store, id);
  const entries = await readLedger(store, id);
  const { input, compiled } = await caseOfJob(store, job, entries);
  const plate = await store.models.sets.findByPk(job.setId);
  const fold = foldCase(input, compiled, 'cost', 'at-once');
  return helpRequest({ entries, compiled, fold, maker: plate?.maker ?? '', model: plate?.model ?? '' });
}

/** What stands on a job's papers; `address` is where its QR code leads. */
export async function paperFacts(store: Store, id: string, address: string): Promise<PaperFacts> {
  const job = await readJob(store, id);
  const { settings } = await readShop(store);
  return { job, entries: await readLedger(store, id), compiled: await store.packs.compiled(job.packHash), shop: settings, address };
}

/** Makes every card anew; returns how many. */
export async function rebuildCards(store: Store): Promise<number> {
  const jobs: JobRow[] = await store.models.jobs.findAll();
  for (const job of jobs) {
    const entries: Entry[] = await readLedger(store, job.id);
    await writeCard(store, job, entries);
  }
  return jobs.length;
}
