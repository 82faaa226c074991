/** Every request and reply of the API. The server checks with these, the OpenAPI document is made from these. */
import {
  boardSchema,
  idSchema,
  jobStates,
  messageTemplates,
  meterFunctions,
  meterTroubles,
  paperLanguages,
  waitsForKinds,
  settingsSchema,
} from '@veglia/core';
import { z } from 'zod';
import { roleSchema } from './accounts.ts';
import { cardPartSchema } from './parts.ts';

/** Years a clock at a bench may show, even one that was never set; a database holds no year 0. */
const when = z.iso.datetime().refine((at) => /^(?:19[7-9]|2\d\d)\d-/.test(at), 'a year from 1970 to 2999');
/** PostgreSQL's integer, the type of seq and version, ends a little above. */
export const mostCount = 2_000_000_000;

/** Somebody who works in the shop, or did. */
export const personSchema = z.object({ id: z.uuid(), name: z.string(), role: roleSchema, left: z.boolean() });
/** Somebody who works in the shop. */
export type Person = z.infer<typeof personSchema>;

/** A body's own shape is checked by the core, which also upgrades old versions; here it is any object with a kind. */
export const rawBodySchema = z.looseObject({ kind: z.string() });

/** An entry as a browser sends it: its id makes a retry the same entry. */
export const entryDraftSchema = z.strictObject({
  /** Made by the client: sending twice stores once. */
  id: z.uuid(),
  at: when,
  basedOn: z.number().int().min(0).max(mostCount),
  body: rawBodySchema,
});
/** An entry as a browser sends it. */
export type EntryDraft = z.infer<typeof entryDraftSchema>;

/** An entry as it is stored. */
export const entrySchema = z.object({
  id: z.uuid(),
  seq: z.number().int().min(1),
  at: when,
  by: z.uuid(),
  basedOn: z.number().int().min(0),
  body: rawBodySchema,
});

/** What the rating plate says; empty where it can’t be read. */
export const plateSchema = z.strictObject({
  maker: z.string().trim().min(1, 'enter the maker, or "unknown"').max(80),
  model: z.string().trim().max(80).default(''),
  serial: z.string().trim().max(80).default(''),
});
/** What the rating plate says. */
export type Plate = z.infer<typeof plateSchema>;

/** Whose set it is. */
export const customerSchema = z.strictObject({
  name: z.string().trim().min(1, 'enter the customer’s name').max(200),
  contact: z.string().trim().max(200).default(''),
});
/** Whose set it is. */
export type Customer = z.infer<typeof customerSchema>;

/** A customer who was here before. */
export const knownCustomerSchema = z.object({ id: z.uuid(), name: z.string(), contact: z.string(), jobs: z.number().int() });
/** A customer with their number of jobs. */
export type KnownCustomer = z.infer<typeof knownCustomerSchema>;
/** Asked by post: a name or number belongs into no address line and no log. */
export const customerSearchSchema = z.strictObject({ name: z.string().trim().max(200), contact: z.string().trim().max(200) });
/** Customers whose name fits what was typed. */
export const customersSchema = z.object({ customers: z.array(knownCustomerSchema) });

/** A check-in, with its first entries. */
export const newJobSchema = z.strictObject({
  id: z.uuid(),
  by: z.uuid(),
  /** None, one known by id, or a new one. */
  customer: z.union([z.strictObject({ id: z.uuid() }), customerSchema]).nullable(),
  plate: plateSchema,
  /** The first must be job.opened. */
  entries: z.array(entryDraftSchema).min(1).max(50),
});
/** A check-in. */
export type NewJob = z.infer<typeof newJobSchema>;
/** As typed, before defaults. */
export type NewJobInput = z.input<typeof newJobSchema>;

/** A job without its entries. */
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
/** A job without its entries. */
export type Job = z.infer<typeof jobSchema>;

/** Entries of one job by one person, in the order of writing. */
export const appendSchema = z.strictObject({ by: z.uuid(), entries: z.array(entryDraftSchema).min(1).max(200) });
/** Entries as they were stored, and the job’s last seq. */
export const appendedSchema = z.object({ entries: z.array(entrySchema), lastSeq: z.number().int() });
/** Entries as they were stored. */
export type Appended = z.infer<typeof appendedSchema>;

/** A job as the shelves show it, kept up to date by the server. */
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
  parts: z.array(cardPartSchema).default([]),
  partsOn: z.string().nullable().default(null),
  trialUntil: z.string().nullable().default(null),
  collected: z.boolean().default(false),
  comebackOf: z.number().int().nullable().default(null),
});
/** A job as the shelves show it. */
export type JobCard = z.infer<typeof jobCardSchema>;

/** Field experience: "n repairs of this fault", with the person who reports it. */
export const newToldSchema = z.strictObject({
  id: z.uuid(),
  by: z.uuid(),
  layout: idSchema,
  family: idSchema.nullable(),
  symptom: idSchema.nullable(),
  /** A fault of the pack, or an assembly. */
  fault: idSchema,
  n: z.number().int().min(1, 'at least 1').max(10_000, '10,000 at most'),
});
/** Field experience to be added. */
export type NewTold = z.infer<typeof newToldSchema>;
/** Field experience as it is stored. */
export const toldSchema = newToldSchema.extend({ at: when, withdrawn: z.boolean() });
/** Field experience as it is stored. */
export type Told = z.infer<typeof toldSchema>;
/** All field experience, newest first. */
export const toldListSchema = z.object({ told: z.array(toldSchema) });
/** Number of the newest statistics; 0 where there are none. */
export const newestCountsSchema = z.object({ number: z.number().int().min(0) });
/** Which statistics are asked for. */
export const countsParams = z.object({ number: z.coerce.number().int().min(1).max(2_000_000_000) });

/** A paper in a language; left out: the customer’s. */
export const paperQuery = z.object({ language: z.enum(paperLanguages).optional() });
/** A message about a job; its id is the entry’s. */
export const sendMessageSchema = z.strictObject({
  id: z.uuid(),
  by: z.uuid(),
  template: z.enum(messageTemplates),
  language: z.enum(paperLanguages),
});
/** A message about a job. */
export type SendMessage = z.infer<typeof sendMessageSchema>;

/** A stored photo. */
export const photoSchema = z.object({ id: z.uuid(), sha256: z.string(), size: z.number().int(), mediaType: z.string() });
/** A stored photo. */
export type Photo = z.infer<typeof photoSchema>;

/** What `/api/health` says. */
export const healthSchema = z.object({
  app: z.literal('ok'),
  version: z.string(),
  database: z.enum(['ok', 'away']),
  migration: z.string().nullable(),
  /** What keeps the ledger append-only here. */
  ledgerProtection: z.enum(['role-and-trigger', 'trigger-only', 'none', 'unknown']),
  pack: z.string().nullable(),
  /** Began with demo data: nothing in it is a shop’s own. */
  demo: z.boolean(),
});
/** What `/api/health` says. */
export type Health = z.infer<typeof healthSchema>;

/** Hash of the pack that new jobs get. */
export const currentPackSchema = z.object({ hash: z.string() });
/** All who work in the shop. */
export const peopleSchema = z.object({ people: z.array(personSchema) });
/** How long somebody takes against the book: hands-on time over the book’s, from so many closed jobs whose minutes were typed. */
export const pacesSchema = z.object({
  people: z.array(z.object({ person: z.uuid(), factor: z.number().positive(), jobs: z.number().int().min(1) })),
});
/** How long people take against the book. */
export type Paces = z.infer<typeof pacesSchema>;
/** A job whose card can’t be read: named all the same, so that no list hides it. */
export const unreadableCardSchema = z.object({ jobId: z.uuid(), number: z.number().int() });
/** A job whose card can’t be read. */
export type UnreadableCard = z.infer<typeof unreadableCardSchema>;
/** A page of cards. */
export const jobCardsSchema = z.object({
  jobs: z.array(jobCardSchema),
  unreadable: z.array(unreadableCardSchema).default([]),
  /** Jobs that match, counted up to a limit; `more`: there are more than that. */
  total: z.number().int().min(0),
  more: z.boolean(),
  /** Number of the job this page ends with, to go on after; null where it is the last page. */
  next: z.number().int().nullable(),
});
/** A page of cards. */
export type JobCards = z.infer<typeof jobCardsSchema>;

/** A list as it came: a card that this program can't read is named by its number and takes no other with it. Throws ZodError for no list. */
export function readJobCards(value: unknown): JobCards {
  const list = jobCardsSchema.extend({ jobs: z.array(z.unknown()) }).parse(value);
  const jobs: JobCard[] = [];
  const unreadable = [...list.unreadable];
  for (const one of list.jobs) {
    const card = jobCardSchema.safeParse(one);
    const named = unreadableCardSchema.safeParse(one);
    if (card.success) jobs.push(card.data);
    else if (named.success) unreadable.push(named.data);
  }
  return { ...list, jobs, unreadable };
}

/** A list in a query: parted by commas. */
const commaList = z.string().transform((text) => text.split(',').filter((part) => part !== ''));
/** Of one page (value of ours). */
export const mostOnAPage = 200;
/** What the list is asked for. `find` is words, all of which have to match, or a job's number. */
export const listJobsQuery = z.object({
  state: z.enum(['open', 'closed', 'all']).default('all'),
  find: z.string().trim().max(200).default(''),
  family: idSchema.optional(),
  /** Only with a timer that runs or rings. */
  waiting: z.stringbool().default(false),
  /** Only closed ones that the customer has not got again. */
  uncollected: z.stringbool().default(false),
  /** Only these, parted by commas. */
  ids: commaList.pipe(z.array(z.uuid()).max(50)).optional(),
  order: z.enum(['shelf', 'oldest', 'newest']).default('oldest'),
  limit: z.coerce.number().int().min(1).max(mostOnAPage).default(100),
  /** `next` of the page before. */
  after: z.coerce.number().int().min(0).max(mostCount).optional(),
});
/** Which cards are asked for. */
export type ListJobs = z.output<typeof listJobsQuery>;

/** A set that stands at the counter, as far as it is known: closed jobs like it are asked for. */
export const similarQuery = z.object({
  family: idSchema.optional(),
  layout: idSchema.optional(),
  symptoms: commaList.pipe(z.array(idSchema).max(20)).default([]),
  code: z.string().max(60).optional(),
});
/** What closed jobs are compared with. */
export type SimilarQuery = z.output<typeof similarQuery>;
/** Closed jobs that may be like it. */
export const similarSchema = z.object({ jobs: z.array(jobCardSchema) });

/** Which family is asked for. */
export const familyParams = z.object({ family: idSchema });
/** Blink codes that closed jobs of a family had. */
export const codeCountsSchema = z.object({
  codes: z.array(z.object({ code: z.string(), /** Fault or assembly as confirmed. */ found: z.string().nullable(), n: z.number().int() })),
});
/** Blink codes that closed jobs of a family had. */
export type CodeCounts = z.infer<typeof codeCountsSchema>;

/** A pack document and an exported case have schemas of their own (docs/formats.md); a reply carries them as they are. */
export const documentSchema = z.looseObject({ format: z.string(), version: z.number().int() });

/** A family's blink table, replaced as a whole; `basedOn` is the pack it was looked at in. Its rows are checked one by one. */
export const changeBlinkTableSchema = z.strictObject({
  by: z.uuid(),
  basedOn: z.string().regex(/^[0-9a-f]{64}$/),
  table: z.looseObject({ family: z.string(), codes: z.array(z.unknown()) }),
});
/** A family’s blink table to be changed. */
export type ChangeBlinkTable = z.infer<typeof changeBlinkTableSchema>;
/** Blink tables with their versions. */
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
/** Blink tables with their versions. */
export type BlinkTables = z.infer<typeof blinkTablesSchema>;

/** Which job is asked for. */
export const jobParams = z.object({ id: z.uuid() });
/** Only what came after this seq. */
export const afterQuery = z.object({ after: z.coerce.number().int().min(0).max(mostCount).default(0) });
/** Which pack is asked for. */
export const packParams = z.object({ hash: z.string().regex(/^[0-9a-f]{64}$/) });

/** A family added or replaced; `basedOn` is the pack it was looked at in. What is wrong with it is told place by place. */
export const changeFamilySchema = z.strictObject({
  by: z.uuid(),
  basedOn: z.string().regex(/^[0-9a-f]{64}$/),
  reason: z.string().trim().min(1, 'enter why').max(400),
  family: z.unknown(),
});
/** A family to be kept. */
export type ChangeFamily = z.infer<typeof changeFamilySchema>;
/** Versions of families, newest first. */
export const familyChangesSchema = z.object({
  changes: z.array(
    z.object({
      number: z.number().int(),
      family: idSchema,
      name: z.string(),
      reason: z.string(),
      packTo: z.string(),
      by: z.uuid(),
      at: z.iso.datetime(),
    }),
  ),
});
/** Versions of families, newest first. */
export type FamilyChanges = z.infer<typeof familyChangesSchema>;

/** A board as it is kept: the document, its version, who wrote that version when, and why. */
export const boardStateSchema = z.object({
  version: z.number().int().min(1),
  board: boardSchema,
  by: z.uuid(),
  at: z.iso.datetime(),
  reason: z.string(),
});
/** A board as it is kept. */
export type BoardState = z.infer<typeof boardStateSchema>;
/** A board among others. */
export const boardSummarySchema = z.object({
  id: z.uuid(),
  version: z.number().int(),
  number: z.string(),
  assembly: idSchema,
  layout: idSchema,
  families: z.array(idSchema),
  retired: z.boolean(),
  pictures: z.number().int(),
  marks: z.number().int(),
  cards: z.number().int(),
});
/** A board among others. */
export type BoardSummary = z.infer<typeof boardSummarySchema>;
/** All boards, by number. */
export const boardsSchema = z.object({ boards: z.array(boardSummarySchema) });
/** A board's document replaced as a whole; `version` is the one it was looked at in, 0 for a new one. */
export const changeBoardSchema = z.strictObject({
  by: z.uuid(),
  version: z.number().int().min(0).max(mostCount),
  reason: z.string().trim().min(1, 'enter why').max(400),
  board: boardSchema,
});
/** A board to be kept. */
export type ChangeBoard = z.input<typeof changeBoardSchema>;
/** Every version of a board, newest first. */
export const boardChangesSchema = z.object({ changes: z.array(boardStateSchema) });

/** The server's meter: which, or why it can't be reached. */
export const meterStateSchema = z.object({
  configured: z.boolean(),
  simulated: z.boolean(),
  identity: z.object({ maker: z.string(), model: z.string() }).nullable(),
  trouble: z.enum(meterTroubles).nullable(),
});
/** The server's meter. */
export type MeterState = z.infer<typeof meterStateSchema>;
/** What to set it to; `range` is the largest value expected, volts or ohms. */
export const readMeterSchema = z.strictObject({ function: z.enum(meterFunctions), range: z.number().positive().max(1e9).optional() });
/** A reading in volts or ohms, more than the range shows, or why there is none. */
export const meterReplySchema = z.union([
  z.object({ kind: z.literal('value'), function: z.enum(meterFunctions), value: z.number() }),
  z.object({ kind: z.literal('over-range'), function: z.enum(meterFunctions) }),
  z.object({ kind: z.enum(meterTroubles), detail: z.string() }),
]);
/** A reading, or why there is none. */
export type MeterReply = z.infer<typeof meterReplySchema>;
/** What the simulated meter's probes are on; null ohms: no way through. */
export const simulatedProbesSchema = z.strictObject({ volts: z.number().min(-1e4).max(1e4), ohms: z.number().min(0).max(1e12).nullable() });
/** What the simulated meter's probes are on. */
export type SimulatedProbes = z.infer<typeof simulatedProbesSchema>;
