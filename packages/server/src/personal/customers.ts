/** Everything held about a customer: handed over, or erased while the facts of the repairs stay (docs/decisions/0023-personal-data.md). */
import { PassThrough } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Erased, EraseCustomer } from '@veglia/contract';
import { personalFields, redactedText, type Body, type Entry } from '@veglia/core';
import { ZipArchive } from 'archiver';
import { QueryTypes, type Transaction } from 'sequelize';
import { v7 as uuidv7 } from 'uuid';
import { record, type AuditFrom } from '../accounts/audit.ts';
import { collectChunks, chunksOf, findFile } from '../files/store.ts';
import { ApiError } from '../http/apiError.ts';
import { sent, type Exchange } from '../http/serve.ts';
import { eraseIn } from '../images/erase.ts';
import type { CustomerRow, JobRow } from '../database/models.ts';
import { appendLocked, findJob, readLedger, writeCard } from '../jobs/ledger.ts';
import { readJob } from '../jobs/jobs.ts';
import type { Store } from '../store.ts';
import { rememberErasure } from './erasures.ts';
import { whereWordsStand } from './find.ts';

/** Photos that entries name, whatever their kind. */
const photosIn = (entries: readonly Entry[]): string[] => [
  ...new Set(entries.flatMap(({ body }) => ('photo' in body && typeof body.photo === 'string' ? [body.photo] : []))),
];
const extensions: Readonly<Record<string, string>> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/avif': 'avif',
};

async function findCustomer(store: Store, id: string, transaction?: Transaction): Promise<CustomerRow> {
  const customer = await store.models.customers.findByPk(id, transaction ? { transaction, lock: transaction.LOCK.UPDATE } : {});
  if (customer === null) throw new ApiError('not-found');
  return customer;
}
const jobsOf = (store: Store, customerId: string, transaction?: Transaction): Promise<JobRow[]> =>
  store.models.jobs.findAll({ where: { customerId }, order: [['id', 'ASC']], ...(transaction ? { transaction } : {}) });

/** One JSON file with customer, sets and ledgers, and the photos beside it, as a ZIP. Throws not-found. */
export async function sendCustomerData(store: Store, id: string, { response }: Exchange): Promise<typeof sent> {
  const { name, contact } = await findCustomer(store, id);
  const jobs = await Promise.all((await jobsOf(store, id)).map((job) => readJob(store, job.id)));
  const people = new Map((await store.models.people.findAll()).map((one) => [one.id, one.name]));
  const photos: { id: string; file: string }[] = [];
  for (const { entries } of jobs)
    for (const photo of photosIn(entries as unknown as Entry[])) {
      const file = await findFile(store, photo);
      if (file) photos.push({ id: photo, file: `photos/${photo}.${extensions[file.mediaType] ?? 'bin'}` });
    }
  const data = {
    format: 'veglia-customer',
    version: 1,
    at: store.now().toISOString(),
    customer: { id, name, contact },
    photos,
    jobs: jobs.map(({ id: jobId, number, openedAt, plate, entries }) => ({
      id: jobId,
      number,
      openedAt,
      plate,
      entries: entries.map((entry) => ({ ...entry, by: people.get(entry.by) ?? entry.by })),
    })),
  };
  const zip = new ZipArchive({ zlib: { level: 1 } });
  response.set('content-disposition', 'attachment; filename="customer.zip"').type('application/zip');
  const out = new PassThrough();
  const written = pipeline(zip, out, response);
  zip.append(`${JSON.stringify(data, null, 2)}\n`, { name: 'customer.json' });
  for (const { id: photo, file } of photos) {
    const bytes: Buffer[] = [];
    for await (const chunk of chunksOf(store, photo)) bytes.push(chunk);
    zip.append(Buffer.concat(bytes), { name: file });
  }
  await zip.finalize();
  await written;
  return sent;
}

/** Throws customer-has-open-jobs with their numbers: somebody still has to be called. */
async function requireGone(store: Store, id: string, transaction: Transaction): Promise<void> {
  const here = await store.sequelize.query<{ number: number }>(
    `SELECT j.number FROM jobs j LEFT JOIN job_cards c ON c.job_id = j.id
      WHERE j.customer_id = $1 AND (c.state IS DISTINCT FROM 'closed' OR c.card->>'collected' = 'false') ORDER BY j.number`,
    { bind: [id], type: QueryTypes.SELECT, transaction },
  );
  if (here.length > 0)
    throw new ApiError(
      'customer-has-open-jobs',
      here.map(({ number }) => ({ code: 'job-open', where: 'job', value: String(number) })),
    );
}

/** An erasure for each text of these entries that is still there. */
function redactionsOf(entries: readonly Entry[], at: string): { id: string; at: string; basedOn: number; body: Body }[] {
  return entries.flatMap((entry) =>
    (personalFields[entry.body.kind] ?? []).flatMap((field) => {
      const text = (entry.body as unknown as Record<string, unknown>)[field];
      return typeof text !== 'string' || text === redactedText || text === ''
        ? []
        : [{ id: uuidv7(), at, basedOn: 0, body: { kind: 'text.redacted' as const, v: 1 as const, entry: entry.id, field } }];
    }),
  );
}

/** Photos of jobs, but for those that a page of a board shows. Returns how many went and how many stay. */
async function erasePhotos(store: Store, ids: readonly string[], transaction: Transaction): Promise<{ gone: number; kept: number }> {
  const kept = await store.sequelize.query<{ id: string }>(
    `SELECT id FROM unnest($1::text[]) AS id WHERE EXISTS (SELECT 1 FROM board_versions b WHERE b.document::text LIKE '%' || id || '%')`,
    { bind: [ids], type: QueryTypes.SELECT, transaction },
  );
  const stay = new Set(kept.map(({ id }) => id));
  const gone = await store.sequelize.query<{ id: string }>(
    `DELETE FROM files WHERE id = ANY($1::uuid[]) AND NOT EXISTS (SELECT 1 FROM images WHERE images.id = files.id) RETURNING id`,
    { bind: [ids.filter((id) => !stay.has(id))], type: QueryTypes.SELECT, transaction },
  );
  return { gone: gone.length, kept: stay.size };
}

/** Throws not-found, customer-has-open-jobs. A second time there is nothing left to erase. */
export async function eraseCustomer(store: Store, id: string, { photos }: EraseCustomer, by: string, from: AuditFrom): Promise<Erased> {
  const at = store.now().toISOString();
  const erased = await store.sequelize.transaction(async (transaction) => {
    const customer = await findCustomer(store, id, transaction);
    await requireGone(store, id, transaction);
    const words = [customer.name, customer.contact].filter((word): word is string => word !== null && word !== '');
    const jobs = await jobsOf(store, id, transaction);
    const done = { jobs: jobs.length, texts: 0, serials: 0, photos: 0, photosKept: 0, images: 0 };
    await customer.update({ name: null, contact: null }, { transaction });
    for (const { id: jobId } of jobs) {
      const job = await findJob(store, jobId, transaction);
      const entries = await readLedger(store, jobId, transaction);
      const set = await store.models.sets.findByPk(job.setId, { transaction });
      if (set && set.serial !== '') {
        words.push(set.serial);
        await set.update({ serial: '' }, { transaction });
        done.serials += 1;
      }
      const redactions = redactionsOf(entries, at);
      done.texts += redactions.length;
      if (redactions.length > 0) await appendLocked(store, job, by, redactions, transaction);
      else await writeCard(store, job, entries, transaction);
      if (photos) {
        const { gone, kept } = await erasePhotos(store, photosIn(entries), transaction);
        done.photos += gone;
        done.photosKept += kept;
      }
      const dumps = await store.sequelize.query<{ id: string }>(
        `SELECT id FROM images WHERE facts ->> 'job' = $1 AND facts -> 'userData' = 'true'`,
        { bind: [jobId], type: QueryTypes.SELECT, transaction },
      );
      for (const dump of dumps) if (await eraseIn(store, dump.id, by, 'customer', transaction)) done.images += 1;
    }
    await rememberErasure(store, at, transaction);
    await record(store, 'customer-erased', from, id, transaction);
    return { at, ...done, ...(await whereWordsStand(store, [...new Set(words)], transaction)) };
  });
  await collectChunks(store);
  return erased;
}
