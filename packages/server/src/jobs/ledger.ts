/**
 * Writing to and reading from a job's ledger.
 *
 * Always holds: seq counts 1, 2, 3 ... without a gap within a job; an entry id is stored once in the whole database; the
 * card is written in the transaction that appends.
 */
import { jobSettings, ledgerChannel, words, type EntryDraft, type JobCard, type ShopState } from '@veglia/contract';
import {
  bystanders,
  canonicalJson,
  caseOfLedger,
  cardOf,
  countsOf,
  foldCase,
  InputRefused,
  checksMissing,
  leftBeforeClosing,
  liveEntries,
  mayOrder,
  partsOf,
  personalFields,
  pinsOf,
  proofBeforeClosing,
  proofName,
  readBody,
  redactedText,
  type Body,
  type CaseInput,
  type CompiledPack,
  type Entry,
  type EntryKind,
  type Pins,
  type Planned,
  type Problem,
} from '@veglia/core';
import { QueryTypes, type Transaction } from 'sequelize';
import { countsAt } from '../counts/counts.ts';
import { againIfOvertaken } from '../http/again.ts';
import { ApiError } from '../http/apiError.ts';
import type { JobRow, SetRow } from '../database/models.ts';
import { moveByEntries } from '../parts/stock.ts';
import { unknownPerson } from '../people.ts';
import { readShop, shopOf } from '../shop.ts';
import type { Store } from '../store.ts';

/** Drafts with their bodies checked; throws InputRefused with everything wrong in any of them. */
export function checkDrafts(drafts: readonly EntryDraft[]): (Omit<EntryDraft, 'body'> & { body: Body })[] {
  const problems: Problem[] = [];
  const checked = drafts.flatMap((draft, index) => {
    const read = readBody(draft.body, `entries.${index}.body`);
    if ('problems' in read) {
      problems.push(...read.problems);
      return [];
    }
    return [{ ...draft, body: read.body }];
  });
  if (problems.length > 0) throw new InputRefused(problems);
  return checked;
}

/** Personal text leaves the body for a row of its own. */
function splitTexts(body: Body): { facts: Record<string, unknown>; texts: { field: string; content: string }[] } {
  const facts: Record<string, unknown> = { ...body };
  const texts: { field: string; content: string }[] = [];
  for (const field of personalFields[body.kind] ?? []) {
    const content = facts[field];
    if (typeof content !== 'string') continue;
    texts.push({ field, content });
    delete facts[field];
  }
  return { facts, texts };
}

/** Entries after a seq, oldest first, upgraded to the current versions, with their texts put back. */
export async function readLedger(store: Store, jobId: string, transaction?: Transaction, after = 0): Promise<Entry[]> {
  // One statement and plain rows: every bench asks this for every entry of every other one.
  const rows = await store.sequelize.query<LedgerRow>(
    `SELECT e.job_id, e.seq, e.id, e.at, e.by, e.based_on, e.kind, e.body,
            (SELECT jsonb_object_agg(t.field, coalesce(t.content, $3)) FROM entry_texts t WHERE t.entry_id = e.id) AS texts
       FROM ledger_entries e WHERE e.job_id = $1 AND e.seq > $2 ORDER BY e.seq`,
    { bind: [jobId, after, redactedText], type: QueryTypes.SELECT, ...(transaction ? { transaction } : {}) },
  );
  return rows.map((row) => entryOf(row, personalOnly(row.kind, row.texts ?? {})));
}
interface LedgerRow {
  readonly job_id: string;
  readonly seq: number;
  readonly id: string;
  readonly at: Date;
  readonly by: string;
  readonly based_on: number;
  readonly kind: string;
  readonly body: Record<string, unknown>;
  readonly texts: Record<string, string> | null;
}

/** Only fields that are declared personal: a row that was forged there must not stand above a fact. */
function personalOnly(kind: string, texts: Readonly<Record<string, string>>): Record<string, string> {
  const declared: readonly string[] = personalFields[kind as EntryKind] ?? [];
  return Object.fromEntries(Object.entries(texts).filter(([field]) => declared.includes(field)));
}

function entryOf(row: LedgerRow, texts: Readonly<Record<string, string>>): Entry {
  const read = readBody({ ...row.body, ...texts }, `job ${row.job_id} entry ${row.seq}`);
  // Stored rows were checked when they came in: a failure here is a fault of ours, not of the caller.
  if ('problems' in read)
    throw new Error(`unreadable ledger entry: ${read.problems.map(({ code, where }) => `${code} ${where}`).join(', ')}`);
  return { id: row.id, seq: row.seq, at: row.at.toISOString(), by: row.by, basedOn: row.based_on, body: read.body };
}

/** The job's row, locked for update within a transaction. Throws unknown-job. */
export async function findJob(store: Store, id: string, transaction?: Transaction): Promise<JobRow> {
  const job = await store.models.jobs.findByPk(id, transaction ? { transaction, lock: transaction.LOCK.UPDATE } : {});
  if (job === null) throw new ApiError('unknown-job');
  return job;
}

/** What was written behind a seq, and how far the ledger goes. Throws unknown-job. */
export async function entriesAfter(store: Store, jobId: string, after: number): Promise<{ entries: Entry[]; lastSeq: number }> {
  const entries = await readLedger(store, jobId, undefined, after);
  if (entries.length === 0) await findJob(store, jobId);
  return { entries, lastSeq: entries.at(-1)?.seq ?? after };
}

/** Adds what isn't there yet, in the order given, and returns all of it as stored. Ids already there are skipped. */
export async function append(
  store: Store,
  jobId: string,
  by: string,
  drafts: readonly EntryDraft[],
): Promise<{ entries: Entry[]; lastSeq: number }> {
  const checked = checkDrafts(drafts);
  return againIfOvertaken(() =>
    store.sequelize.transaction(async (transaction) => {
      const job = await findJob(store, jobId, transaction);
      return appendLocked(store, job, by, checked, transaction);
    }),
  );
}

/** What an append has to know beside the ledger. */
interface Beside {
  readonly person: boolean;
  /** An entry that is to be added and stands in another job's ledger. */
  readonly foreign: string | null;
  readonly planned: Pick<JobCard, 'next' | 'ahead'> | null;
  readonly plate: Plate | null;
  readonly shop: { readonly version: number; readonly document: object } | null;
}
type Plate = Pick<SetRow, 'maker' | 'model' | 'serial'>;

/** In one statement: everything that is written at a bench goes through here, and the way to the database and back is most of what it takes. */
async function readBeside(store: Store, job: JobRow, by: string, ids: readonly string[], transaction: Transaction): Promise<Beside> {
  const [row] = await store.sequelize.query<Beside>(
    `SELECT EXISTS (SELECT 1 FROM people WHERE id = $3) AS person,
            (SELECT id FROM ledger_entries WHERE id = ANY($4::uuid[]) AND job_id <> $1 LIMIT 1) AS foreign,
            (SELECT jsonb_build_object('next', card->'next', 'ahead', card->'ahead') FROM job_cards WHERE job_id = $1) AS planned,
            (SELECT jsonb_build_object('maker', maker, 'model', model, 'serial', serial) FROM sets WHERE id = $2) AS plate,
            (SELECT jsonb_build_object('version', version, 'document', document) FROM shop_settings) AS shop`,
    { bind: [job.id, job.setId, by, ids], type: QueryTypes.SELECT, transaction },
  );
  if (!row) throw new Error('a statement without conditions gave no row');
  if (!row.person) throw unknownPerson(by);
  if (row.foreign !== null) throw new ApiError('entry-conflict', [{ code: 'duplicate-id', where: 'entries', value: row.foreign }]);
  return row;
}

/** Entries with their texts, and how far the ledger goes now, in one statement; who listens learns of it once all of it is committed. */
async function writeEntries(store: Store, job: JobRow, added: readonly Entry[], transaction: Transaction): Promise<void> {
  const split = added.map((entry) => ({ entry, ...splitTexts(entry.body) }));
  const entries = split.map(({ entry: { id, seq, at, by, basedOn, body }, facts }) => ({
    id,
    seq,
    at,
    by,
    based_on: basedOn,
    kind: body.kind,
    v: body.v,
    body: facts,
  }));
  const texts = split.flatMap(({ entry, texts: of }) => of.map((text) => ({ entry_id: entry.id, ...text })));
  const seq = added.at(-1)?.seq ?? job.lastSeq;
  await store.sequelize.query(
    `WITH added AS (
       INSERT INTO ledger_entries (job_id, seq, id, at, recorded_at, by, based_on, kind, v, body)
       SELECT $1::uuid, e.seq, e.id, e.at, $2::timestamptz, e.by, e.based_on, e.kind, e.v, e.body
         FROM jsonb_to_recordset($3::jsonb)
           AS e(seq int, id uuid, at timestamptz, by uuid, based_on int, kind text, v int, body jsonb)
     ), written AS (
       INSERT INTO entry_texts (entry_id, field, content)
       SELECT t.entry_id, t.field, t.content FROM jsonb_to_recordset($4::jsonb) AS t(entry_id uuid, field text, content text)
     )
     UPDATE jobs SET last_seq = $5::int WHERE id = $1::uuid RETURNING pg_notify($6, $7)`,
    {
      bind: [job.id, store.now(), JSON.stringify(entries), JSON.stringify(texts), seq, ledgerChannel, JSON.stringify({ job: job.id, seq })],
      transaction,
    },
  );
  job.set('lastSeq', seq);
}

/** The caller holds the lock on the job's row. Throws unknown-person, entry-conflict, version-conflict and what the rules of closing and ordering refuse. */
export async function appendLocked(
  store: Store,
  job: JobRow,
  by: string,
  drafts: readonly (Omit<EntryDraft, 'body'> & { body: Body })[],
  transaction: Transaction,
): Promise<{ entries: Entry[]; lastSeq: number }> {
  const beside = await readBeside(
    store,
    job,
    by,
    drafts.map(({ id }) => id),
    transaction,
  );
  await requirePins(store, drafts, transaction);
  const ledger = await readLedger(store, job.id, transaction);
  const stored = new Map(ledger.map((entry) => [entry.id, entry]));
  let seq = job.lastSeq;
  const added: Entry[] = [];
  for (const draft of drafts) {
    const known = stored.get(draft.id);
    if (known) {
      if (!sameBody(known.body, draft.body))
        throw new ApiError('entry-conflict', [{ code: 'duplicate-id', where: 'entries', value: draft.id }]);
      continue;
    }
    // Observations are never refused for being stale; closing is a decision about the whole job, so it is. What its writer wrote just before,
    // and had on the way, is known to them.
    if (draft.body.kind === 'job.closed' && ledger.some((entry) => entry.seq > draft.basedOn && entry.by !== by))
      throw new ApiError('version-conflict');
    seq += 1;
    const entry: Entry = { id: draft.id, seq, at: draft.at, by, basedOn: draft.basedOn, body: draft.body };
    stored.set(entry.id, entry);
    added.push(entry);
  }
  await requirePutBack(store, job, ledger, added, transaction);
  await requireAgreed(store, job, ledger, added, transaction);
  if (added.length > 0) await writeEntries(store, job, added, transaction);
  await moveByEntries(store, job.id, ledger, added, transaction);
  const erased = await eraseTexts(store, added, [...ledger, ...added], transaction);
  if (added.length > 0) {
    const entries = erased ? await readLedger(store, job.id, transaction) : [...ledger, ...added];
    const planned = added.every(({ body }) => bystanders.has(body.kind)) ? plannedOf(beside) : undefined;
    await writeCard(store, job, entries, transaction, { ...beside, planned });
  }
  return { entries: drafts.flatMap((draft) => stored.get(draft.id) ?? []), lastSeq: seq };
}

/**
 * Erases what was written in a field of an entry of this job: the entry stays, the words are gone from the database. Whether anything was
 * erased; throws InputRefused for an entry or a field that isn't there to be erased.
 */
async function eraseTexts(store: Store, added: readonly Entry[], ledger: readonly Entry[], transaction: Transaction): Promise<boolean> {
  const erasures = added.flatMap(({ body }) => (body.kind === 'text.redacted' ? [body] : []));
  for (const { entry, field } of erasures) {
    const target = ledger.find(({ id }) => id === entry);
    if (!target) throw new InputRefused([{ code: 'unknown-id', where: 'entries.entry', value: entry, expected: 'entry of this job' }]);
    const declared: readonly string[] = personalFields[target.body.kind] ?? [];
    if (!declared.includes(field))
      throw new InputRefused([{ code: 'unknown-id', where: 'entries.field', value: field, expected: declared.join(', ') || 'no field' }]);
    await store.models.texts.update({ content: null }, { where: { entryId: entry, field }, transaction });
  }
  return erasures.length > 0;
}

/** A set is closed as repaired only as it was, but for recorded modifications, and checked. Throws not-put-back, not-checked. */
async function requirePutBack(
  store: Store,
  job: JobRow,
  ledger: readonly Entry[],
  added: readonly Entry[],
  transaction: Transaction,
): Promise<void> {
  for (const [index, { body }] of added.entries()) {
    if (body.kind !== 'job.closed') continue;
    const before = [...ledger, ...added.slice(0, index)];
    const { compiled, input } = await caseOfJob(store, job, before, transaction);
    const { set } = foldCase(input, compiled, 'cost', 'at-once');
    const left = leftBeforeClosing(body, set);
    if (left.length > 0)
      throw new ApiError(
        'not-put-back',
        left.map((value) => ({ code: 'left-out', where: 'modified', value })),
      );
    const live = liveEntries(before);
    const unchecked = checksMissing(body, live, set, compiled);
    if (unchecked.length > 0)
      throw new ApiError(
        'not-checked',
        unchecked.map((value) => ({ code: 'unchecked', where: 'checked', value })),
      );
    const unproven = proofBeforeClosing(body, live, set, compiled);
    if (unproven.length > 0)
      throw new ApiError(
        'not-proven',
        unproven.map((id) => ({ code: 'unproven', where: id, value: proofName(id, compiled).en })),
      );
  }
}

/** What the customer has not agreed to is ordered only with a reason. Throws not-agreed. */
async function requireAgreed(
  store: Store,
  job: JobRow,
  ledger: readonly Entry[],
  added: readonly Entry[],
  transaction: Transaction,
): Promise<void> {
  for (const [index, { body }] of added.entries()) {
    if (body.kind !== 'part.ordered') continue;
    const before = [...ledger, ...added.slice(0, index)];
    const part = partsOf(liveEntries(before)).find(({ want }) => want === body.want);
    if (!part) throw new InputRefused([{ code: 'unknown-id', where: 'entries.want', value: body.want, expected: 'part of this job' }]);
    if (body.override !== undefined) continue;
    const { compiled, input } = await caseOfJob(store, job, before, transaction);
    const { set, spent } = foldCase(input, compiled, 'cost', 'at-once');
    const refused = mayOrder(
      input,
      { assembly: part.assembly, priceMinor: body.price.amountMinor },
      { ownSet: job.customerId === null, layoutId: set.layout, spentMinor: spent.total.amountMinor },
      compiled,
    );
    if (refused)
      throw new ApiError('not-agreed', [
        { code: 'not-agreed', where: body.want, value: part.number, expected: words.en.orderRefusal[refused.why] },
      ]);
  }
}

/** By canonical JSON: the database keeps a body's facts in an order of its own, at every depth. */
function sameBody(a: Body, b: Body): boolean {
  return canonicalJson(a) === canonicalJson(b);
}

/** A job as the core reads it: with the pack and the counts that it goes by now. */
export async function caseOfJob(
  store: Store,
  job: JobRow,
  entries: readonly Entry[],
  transaction?: Transaction,
  shop?: ShopState,
): Promise<{ readonly pins: Pins; readonly compiled: CompiledPack; readonly input: CaseInput }> {
  const pins = pinsOf({ hash: job.packHash, snapshot: job.snapshot ?? 0 }, entries);
  const counts = await countsAt(store, pins.snapshot, transaction);
  return {
    pins,
    compiled: await store.packs.compiled(pins.hash),
    input: caseOfLedger(entries, jobSettings((shop ?? (await readShop(store, transaction))).settings), counts),
  };
}

/** What an entry moves the job to must be here; throws unknown-pack or unknown-counts. */
async function requirePins(store: Store, drafts: readonly { readonly body: Body }[], transaction: Transaction): Promise<void> {
  for (const { body } of drafts) {
    if (body.kind !== 'pack.pinned') continue;
    await store.packs.document(body.hash);
    await countsAt(store, body.snapshot ?? 0, transaction);
  }
}

/** What a job is found by beside its customer's name and its texts, which are searched where they stand. Lower case. */
function searchTextOf(card: Omit<JobCard, 'customerName'>, compiled: CompiledPack): string {
  const family = card.family === null ? undefined : compiled.families.get(card.family)?.name.en;
  return [card.number, card.title, card.serial, card.family, family, card.shelf]
    .filter((part) => part !== null && part !== undefined && part !== '')
    .join(' ')
    .toLowerCase();
}

/** What was planned for the job at its last entry that could change it. */
function plannedOf({ planned }: Beside): Planned | undefined {
  const { next, ahead } = (planned ?? {}) as { next?: Planned['next'] | null; ahead?: Planned['ahead'] | null };
  return ahead ? { ahead, ...(next ? { next } : {}) } : undefined;
}

/** Makes a job's row in `job_cards` again from its ledger. `known`: read already; `planned`: only bystanders were added, and what was planned holds on. */
export async function writeCard(
  store: Store,
  job: JobRow,
  entries: readonly Entry[],
  transaction?: Transaction,
  known?: Pick<Beside, 'plate' | 'shop'> & { readonly planned: Planned | undefined },
): Promise<void> {
  const options = transaction ? { transaction } : {};
  const { compiled, input } = await caseOfJob(store, job, entries, transaction, known && shopOf(known.shop));
  const facts = cardOf(input, compiled, job.customerId === null, known?.planned);
  const counted = facts.state === 'closed' ? countsOf([input], compiled, 0) : null;
  const plate: Plate | null = known ? known.plate : await store.models.sets.findByPk(job.setId, options);
  const card: Omit<JobCard, 'customerName'> & Pick<typeof facts, 'timed'> = {
    jobId: job.id,
    number: job.number,
    title: [plate?.maker, plate?.model].filter((part) => part !== undefined && part !== '').join(' '),
    openedAt: job.openedAt.toISOString(),
    state: facts.state,
    symptoms: [...facts.symptoms],
    top: facts.top ?? null,
    next: facts.next ?? null,
    outcome: facts.outcome ?? null,
    found: facts.found ? { assembly: facts.found.assembly, fault: facts.found.fault ?? null } : null,
    family: facts.family ?? null,
    layout: facts.layout ?? null,
    code: facts.code ?? null,
    condition: [...facts.condition],
    closedAt: facts.closedAt ?? null,
    entryCount: facts.entryCount,
    serial: plate?.serial ?? '',
    waits: [...facts.waits],
    ahead: [...facts.ahead],
    promisedOn: facts.promisedOn ?? null,
    shelf: facts.shelf ?? null,
    sizeInch: facts.sizeInch ?? null,
    stage: facts.stage,
    plugged: facts.plugged,
    stillOut: [...facts.stillOut],
    over: facts.over,
    waitsFor: facts.waitsFor,
    parts: [...facts.parts],
    partsOn: facts.partsOn ?? null,
    trialUntil: facts.trialUntil ?? null,
    collected: facts.collected,
    comebackOf: facts.comebackOf ?? null,
    ...(facts.timed ? { timed: facts.timed } : {}),
  };
  await store.models.cards.upsert(
    {
      jobId: job.id,
      state: facts.state,
      card,
      counted: counted && counted.jobs.length > 0 ? counted : null,
      updatedAt: store.now(),
      number: job.number,
      openedAt: job.openedAt,
      shelf: card.shelf ?? '',
      family: card.family,
      layout: card.layout,
      code: card.code,
      symptoms: card.symptoms,
      waiting: card.waits.length > 0,
      search: searchTextOf(card, compiled),
    },
    options,
  );
}
