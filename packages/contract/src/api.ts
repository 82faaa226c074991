/** Every request and reply of the API. The server checks with these, the OpenAPI document is made from these. */
import { countsSchema, idSchema, jobStates, waitsForKinds, settingsSchema } from '@veglia/core';
import { z } from 'zod';
import { shopChangeSchema, shopStateSchema } from './shop.ts';

/** Years a clock at a bench may show, even one that was never set; a database holds no year 0. */
const when = z.iso.datetime().refine((at) => /^(?:19[7-9]|2\d\d)\d-/.test(at), 'a year from 1970 to 2999');
/** PostgreSQL's integer, the type of seq and version, ends a little above. */
export const mostCount = 2_000_000_000;

export const personSchema = z.strictObject({ id: z.uuid(), name: z.string().trim().min(1, 'a name is missing').max(120) });
export type Person = z.infer<typeof personSchema>;

/** A body's own shape is checked by the core, which also upgrades old versions; here it is any object with a kind. */
export const rawBodySchema = z.looseObject({ kind: z.string() });

export const entryDraftSchema = z.strictObject({
  /** Made by the client: sending twice stores once. */
  id: z.uuid(),
  at: when,
  basedOn: z.number().int().min(0).max(mostCount),
  body: rawBodySchema,
});
export type EntryDraft = z.infer<typeof entryDraftSchema>;

export const entrySchema = z.object({
  id: z.uuid(),
  seq: z.number().int().min(1),
  at: when,
  by: z.uuid(),
  basedOn: z.number().int().min(0),
  body: rawBodySchema,
});

export const plateSchema = z.strictObject({
  maker: z.string().trim().min(1, 'say the maker, or "unknown"').max(80),
  model: z.string().trim().max(80).default(''),
  serial: z.string().trim().max(80).default(''),
});
export type Plate = z.infer<typeof plateSchema>;

export const customerSchema = z.strictObject({
  name: z.string().trim().min(1, 'the customer’s name is missing').max(200),
  contact: z.string().trim().max(200).default(''),
});
export type Customer = z.infer<typeof customerSchema>;

/** A customer who was here before. */
export const knownCustomerSchema = z.object({ id: z.uuid(), name: z.string(), contact: z.string(), jobs: z.number().int() });
export type KnownCustomer = z.infer<typeof knownCustomerSchema>;
/** Asked by post: a name or number belongs into no address line and no log. */
export const customerSearchSchema = z.strictObject({ name: z.string().trim().max(200), contact: z.string().trim().max(200) });
export const customersSchema = z.object({ customers: z.array(knownCustomerSchema) });

export const newJobSchema = z.strictObject({
  id: z.uuid(),
  by: z.uuid(),
  /** None, one known by id, or a new one. */
  customer: z.union([z.strictObject({ id: z.uuid() }), customerSchema]).nullable(),
  plate: plateSchema,
  /** The first must be job.opened. */
  entries: z.array(entryDraftSchema).min(1).max(50),
});
export type NewJob = z.infer<typeof newJobSchema>;
/** As typed, before defaults. */
export type NewJobInput = z.input<typeof newJobSchema>;

export const jobSchema = z.object({
  id: z.uuid(),
  number: z.number().int(),
  openedAt: when,
  customer: customerSchema.nullable(),
  plate: plateSchema,
  /** The pack and the counts it goes by now; counts 0 is the pack alone. */
  packHash: z.string(),
  snapshot: z.number().int().min(0),
  settings: settingsSchema,
  entries: z.array(entrySchema),
});
export type Job = z.infer<typeof jobSchema>;

export const appendSchema = z.strictObject({ by: z.uuid(), entries: z.array(entryDraftSchema).min(1).max(200) });
export const appendedSchema = z.object({ entries: z.array(entrySchema), lastSeq: z.number().int() });
export type Appended = z.infer<typeof appendedSchema>;

export const jobCardSchema = z.object({
  jobId: z.uuid(),
  number: z.number().int(),
  title: z.string(),
  customerName: z.string().nullable(),
  openedAt: when,
  state: z.enum(jobStates),
  symptoms: z.array(idSchema),
  top: z.object({ id: idSchema, probability: z.number(), verdict: z.string() }).nullable(),
  next: z.object({ kind: z.string(), id: z.string(), of: z.string().optional() }).nullable(),
  outcome: z.string().nullable(),
  /** What it turned out to be, once that was confirmed. */
  found: z.object({ assembly: idSchema, fault: idSchema.nullable() }).nullable(),
  family: idSchema.nullable(),
  layout: idSchema.nullable(),
  /** Blink code as read, groups joined by hyphens. */
  code: z.string().nullable(),
  condition: z.array(z.string()),
  closedAt: when.nullable(),
  entryCount: z.number().int(),
  // Rows written before these were kept have none of them until their job is written to, or `npm run cards:rebuild`.
  serial: z.string().default(''),
  /** Timers that run or ring; milliseconds since 1970. */
  waits: z
    .array(
      z.object({
        id: z.string(),
        name: z.string(),
        startedAt: z.number(),
        endsAt: z.number(),
        toward: z.object({ kind: z.enum(['test', 'repair']), id: idSchema, of: idSchema.optional() }).optional(),
      }),
    )
    .default([]),
  /** Minutes of the likeliest way on. */
  ahead: z.array(z.object({ id: z.string(), hands: z.number(), wait: z.number() })).default([]),
  promisedOn: z.string().nullable().default(null),
  shelf: z.string().nullable().default(null),
  sizeInch: z.number().nullable().default(null),
  stage: z.string().default(''),
  plugged: z.boolean().default(false),
  stillOut: z.array(z.string()).default([]),
  over: z.object({ money: z.boolean(), minutes: z.boolean() }).default({ money: false, minutes: false }),
  waitsFor: z.enum(waitsForKinds).default('hands'),
});
export type JobCard = z.infer<typeof jobCardSchema>;

/** "I have mended n of these, it was X": counted experience, with who tells it. */
export const newToldSchema = z.strictObject({
  id: z.uuid(),
  by: z.uuid(),
  layout: idSchema,
  family: idSchema.nullable(),
  symptom: idSchema.nullable(),
  /** A fault of the pack, or an assembly. */
  fault: idSchema,
  n: z.number().int().min(1, 'say how many, at least 1').max(10_000, 'more than anybody has mended'),
});
export type NewTold = z.infer<typeof newToldSchema>;
export const toldSchema = newToldSchema.extend({ at: when, withdrawn: z.boolean() });
export type Told = z.infer<typeof toldSchema>;
export const toldListSchema = z.object({ told: z.array(toldSchema) });
export const newestCountsSchema = z.object({ number: z.number().int().min(0) });
export const countsParams = z.object({ number: z.coerce.number().int().min(1).max(2_000_000_000) });

export const photoSchema = z.object({ id: z.uuid(), sha256: z.string(), size: z.number().int(), mediaType: z.string() });
export type Photo = z.infer<typeof photoSchema>;

export const healthSchema = z.object({
  app: z.literal('ok'),
  version: z.string(),
  database: z.enum(['ok', 'away']),
  migration: z.string().nullable(),
  /** What keeps the ledger append-only here. */
  ledgerProtection: z.enum(['role-and-trigger', 'trigger-only', 'none', 'unknown']),
  pack: z.string().nullable(),
});
export type Health = z.infer<typeof healthSchema>;

export const currentPackSchema = z.object({ hash: z.string() });
export const peopleSchema = z.object({ people: z.array(personSchema) });
export const unreadableCardSchema = z.object({ jobId: z.uuid(), number: z.number().int() });
export type UnreadableCard = z.infer<typeof unreadableCardSchema>;
export const jobCardsSchema = z.object({ jobs: z.array(jobCardSchema), unreadable: z.array(unreadableCardSchema).default([]) });
export type JobCards = z.infer<typeof jobCardsSchema>;

/** A list as it came: a card that this program can't read is named by its number and takes no other with it. */
export function readJobCards(value: unknown): JobCards {
  const list = z.object({ jobs: z.array(z.unknown()), unreadable: z.array(unreadableCardSchema).default([]) }).parse(value);
  const jobs: JobCard[] = [];
  const unreadable = [...list.unreadable];
  for (const one of list.jobs) {
    const card = jobCardSchema.safeParse(one);
    const named = unreadableCardSchema.safeParse(one);
    if (card.success) jobs.push(card.data);
    else if (named.success) unreadable.push(named.data);
  }
  return { jobs, unreadable };
}
/** A pack document and an exported case have schemas of their own (docs/formats.md); a reply carries them as they are. */
export const documentSchema = z.looseObject({ format: z.string(), version: z.number().int() });

/** A family's blink table, replaced as a whole; `basedOn` is the pack it was looked at in. Its rows are checked one by one. */
export const changeBlinkTableSchema = z.strictObject({
  by: z.uuid(),
  basedOn: z.string().regex(/^[0-9a-f]{64}$/),
  table: z.looseObject({ family: z.string(), codes: z.array(z.unknown()) }),
});
export type ChangeBlinkTable = z.infer<typeof changeBlinkTableSchema>;
export const blinkTablesSchema = z.object({
  changes: z.array(
    z.object({
      number: z.number().int(),
      family: z.string(),
      rows: z.number().int(),
      packFrom: z.string(),
      packTo: z.string(),
      by: z.uuid(),
      at: z.iso.datetime(),
    }),
  ),
});
export type BlinkTables = z.infer<typeof blinkTablesSchema>;

export interface RouteDescription {
  readonly method: 'get' | 'post' | 'put';
  /** Express form; OpenAPI's braces are made from it. */
  readonly path: string;
  readonly summary: string;
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  readonly status: number;
  readonly reply: z.ZodType;
  /** Left out: JSON. */
  readonly media?: string;
}

export const jobParams = z.object({ id: z.uuid() });
/** Only what came after this seq. */
export const afterQuery = z.object({ after: z.coerce.number().int().min(0).max(2_000_000_000).default(0) });
export const packParams = z.object({ hash: z.string().regex(/^[0-9a-f]{64}$/) });

/** The API's table of contents; a test compares it with the real router, both ways. */
export const routes: readonly RouteDescription[] = [
  { method: 'get', path: '/api/health', summary: 'State of server and database', status: 200, reply: healthSchema },
  { method: 'get', path: '/api/openapi.json', summary: 'This document', status: 200, reply: z.looseObject({ openapi: z.string() }) },
  { method: 'get', path: '/api/people', summary: 'People', status: 200, reply: peopleSchema },
  { method: 'post', path: '/api/people', summary: 'Add a person', body: personSchema, status: 201, reply: peopleSchema },
  { method: 'get', path: '/api/shop', summary: 'Shop settings', status: 200, reply: shopStateSchema },
  { method: 'put', path: '/api/shop', summary: 'Replace the shop settings', body: shopChangeSchema, status: 200, reply: shopStateSchema },
  {
    method: 'post',
    path: '/api/customers/search',
    summary: 'Search customers',
    body: customerSearchSchema,
    status: 200,
    reply: customersSchema,
  },
  { method: 'get', path: '/api/blink-tables', summary: 'Changes of blink tables, newest first', status: 200, reply: blinkTablesSchema },
  {
    method: 'post',
    path: '/api/blink-tables',
    summary: 'Replace the blink table of a family (new pack version)',
    body: changeBlinkTableSchema,
    status: 201,
    reply: currentPackSchema,
  },
  { method: 'get', path: '/api/packs/current', summary: 'Hash of the pack new jobs use', status: 200, reply: currentPackSchema },
  { method: 'get', path: '/api/packs/:hash', summary: 'A knowledge pack', params: packParams, status: 200, reply: documentSchema },
  { method: 'get', path: '/api/counts/newest', summary: 'Number of the statistics new jobs use', status: 200, reply: newestCountsSchema },
  {
    method: 'get',
    path: '/api/counts/:number',
    summary: 'Repair statistics by number',
    params: countsParams,
    status: 200,
    reply: countsSchema,
  },
  { method: 'get', path: '/api/told', summary: 'Field experience, newest first', status: 200, reply: toldListSchema },
  { method: 'post', path: '/api/told', summary: 'Add field experience', body: newToldSchema, status: 201, reply: toldListSchema },
  {
    method: 'post',
    path: '/api/told/:id/withdraw',
    summary: 'Withdraw field experience; open jobs keep their statistics',
    params: jobParams,
    status: 200,
    reply: toldListSchema,
  },
  { method: 'get', path: '/api/jobs', summary: 'All jobs as cards, oldest first', status: 200, reply: jobCardsSchema },
  { method: 'post', path: '/api/jobs', summary: 'Check in a set', body: newJobSchema, status: 201, reply: jobSchema },
  { method: 'get', path: '/api/jobs/:id', summary: 'A job with its ledger', params: jobParams, status: 200, reply: jobSchema },
  { method: 'get', path: '/api/jobs/:id/case', summary: 'The job as a case file', params: jobParams, status: 200, reply: documentSchema },
  {
    method: 'get',
    path: '/api/jobs/:id/label.pdf',
    summary: 'Label for the set: QR to the job, number, set, shelf, hazards',
    params: jobParams,
    status: 200,
    reply: z.string(),
    media: 'application/pdf',
  },
  {
    method: 'get',
    path: '/api/jobs/:id/receipt.pdf',
    summary: 'Receipt for the customer',
    params: jobParams,
    status: 200,
    reply: z.string(),
    media: 'application/pdf',
  },
  {
    method: 'put',
    path: '/api/photos/:id',
    summary: 'Store a photo: image file as the body, 20 MiB at most',
    params: jobParams,
    status: 201,
    reply: photoSchema,
  },
  {
    method: 'get',
    path: '/api/photos/:id',
    summary: 'A photo',
    params: jobParams,
    status: 200,
    reply: z.string(),
    media: 'image/*',
  },
  {
    method: 'get',
    path: '/api/jobs/:id/entries',
    summary: 'Entries after a seq',
    params: jobParams,
    query: afterQuery,
    status: 200,
    reply: appendedSchema,
  },
  {
    method: 'post',
    path: '/api/jobs/:id/entries',
    summary: 'Append entries; ids already stored are skipped',
    params: jobParams,
    body: appendSchema,
    status: 200,
    reply: appendedSchema,
  },
];
