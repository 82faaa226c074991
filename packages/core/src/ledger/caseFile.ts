/**
 * The case file: an exported job, and what the command line reads. One format, docs/formats.md.
 * Files written by hand may leave out id, seq, at, by and v; the order is then the file's.
 */
import { z } from 'zod';
import { idSchema, packSchema, upgradePack } from '../knowledge/index.ts';
import { InputRefused, problemsOfSchema, type Problem } from '../problems.ts';
import { countsSchema, type Counts } from './counts.ts';
import { layoutGuessSchema, setFactsSchema, type Body, type SetFacts } from './bodies.ts';
import { readBody, upgradeCaseFile } from './upgrade.ts';
import { asRecord } from '../renamed.ts';

/** A line of a job’s ledger. */
export interface Entry {
  readonly id: string;
  readonly seq: number;
  /** UTC, ISO 8601. */
  readonly at: string;
  readonly by: string;
  /** Seq the writer had seen when writing; 0 where it isn't known. */
  readonly basedOn: number;
  readonly body: Body;
}

/** What a shop decides by; amounts in minor units. */
export const settingsSchema = z.strictObject({
  rateMinorPerHour: z.number().int().min(0).max(10_000_000),
  /** What a waiting minute costs beside a hands-on one. */
  waitShare: z.number().min(0).max(1),
  currency: z.string().regex(/^[A-Z]{3}$/),
  /** Cost of a wrong part that doesn't cure, beyond its price and labour: return, delay, a call. */
  wrongPartMinor: z.number().int().min(0).max(100_000_000),
  /** The same as a share of the part's price, on top: restocking, what returned goods lose. */
  wrongPartShare: z.number().min(0).max(1),
  /** What one hazard (live on the hot side, a forced line, an iron, the glass out) weighs against a step; in no price. */
  hazardMinor: z.number().int().min(0).max(100_000_000),
  /** Preferences the shop holds with: question -> option; left out: the usual ones. */
  schools: z.record(idSchema, idSchema).optional(),
  /** Tools at hand; left out: all. */
  tools: z.array(idSchema).optional(),
  /** A comparable new set: what giving this one up costs, and what parts are priced against. */
  newSetMinor: z.number().int().min(1).max(100_000_000),
  /** Up to so much a part is ordered without a call where nothing was agreed. */
  orderFreeMinor: z.number().int().min(0).max(10_000_000).default(1000),
});
/** What a shop decides by. */
export type Settings = z.infer<typeof settingsSchema>;

/** Values of ours until a shop states its own. */
export const defaultSettings: Settings = {
  rateMinorPerHour: 4800,
  waitShare: 0.2,
  currency: 'EUR',
  newSetMinor: 42_000,
  orderFreeMinor: 1000,
  // A wrong part is a call, a return and days on the shelf.
  wrongPartMinor: 6000,
  wrongPartShare: 0.15,
  hazardMinor: 300,
};

/** A case as the core judges it. */
export interface CaseInput {
  readonly set: SetFacts;
  readonly settings: Settings;
  readonly entries: readonly Entry[];
  /** What the shop had counted when the job was opened; left out: the pack alone. */
  readonly counts?: Counts;
}

/** A case as a file: format `veglia-case`, version 2. */
export const caseFileSchema = z.strictObject({
  format: z.literal('veglia-case'),
  version: z.literal(2),
  pack: z.union([z.strictObject({ hash: z.string() }), z.strictObject({ inline: packSchema })]).optional(),
  /** What the shop had counted when the job was opened. */
  counts: countsSchema.optional(),
  set: setFactsSchema.extend({ layout: layoutGuessSchema }),
  settings: settingsSchema.partial().optional(),
  entries: z.array(z.unknown()),
});
/** A case as a file. */
export type CaseFile = z.infer<typeof caseFileSchema>;

const entryHeadSchema = z.strictObject({
  id: z.string().min(1).optional(),
  seq: z.number().int().min(1).optional(),
  at: z.iso.datetime().optional(),
  by: z.string().min(1).optional(),
  basedOn: z.number().int().min(0).optional(),
  body: z.unknown(),
});

/** A case file, read. */
export interface ReadCase {
  readonly file: CaseFile;
  readonly input: CaseInput;
}

/** The pack a file brings along may be of an older version than the file. */
function inlineUpgraded(document: unknown): unknown {
  const file = asRecord(document);
  const pack = asRecord(file?.pack);
  return file && pack?.inline !== undefined ? { ...file, pack: { ...pack, inline: upgradePack(pack.inline) } } : document;
}

/** A case file of any version. Throws InputRefused with everything that is wrong with the file. */
export function parseCase(document: unknown): ReadCase {
  const parsed = caseFileSchema.safeParse(inlineUpgraded(upgradeCaseFile(document)));
  if (!parsed.success) throw new InputRefused(problemsOfSchema(parsed.error.issues, 'case'));
  const file = parsed.data;
  const problems: Problem[] = [];
  const entries: Entry[] = [];
  let lastSeq = 0;
  file.entries.forEach((raw, index) => {
    const where = `case.entries[${index}]`;
    const head = entryHeadSchema.safeParse(raw);
    if (!head.success) {
      problems.push(...problemsOfSchema(head.error.issues, where));
      return;
    }
    const read = readBody(head.data.body, `${where}.body`);
    if ('problems' in read) {
      problems.push(...read.problems);
      return;
    }
    const seq = head.data.seq ?? lastSeq + 1;
    if (seq <= lastSeq) problems.push({ code: 'entry-order', where: `${where}.seq`, value: seq, expected: `more than ${lastSeq}` });
    lastSeq = seq;
    entries.push({
      id: head.data.id ?? `entry-${seq}`,
      seq,
      at: head.data.at ?? '1970-01-01T00:00:00Z',
      by: head.data.by ?? 'unknown',
      basedOn: head.data.basedOn ?? 0,
      body: read.body,
    });
  });
  const seen = new Set<string>();
  entries.forEach((entry) => {
    if (seen.has(entry.id)) problems.push({ code: 'duplicate-id', where: 'case.entries', value: entry.id });
    seen.add(entry.id);
    const { body } = entry;
    if (body.kind === 'entry.retracted' && !findEntry(entries, body.entry)) {
      problems.push({ code: 'retraction-without-target', where: `case.entries seq ${entry.seq}`, value: body.entry });
    }
  });
  if (problems.length > 0) throw new InputRefused(problems);
  const settings: Settings = { ...defaultSettings };
  for (const [key, value] of Object.entries(file.settings ?? {})) {
    if (value !== undefined) Object.assign(settings, { [key]: value });
  }
  return { file, input: { set: file.set, settings, entries, ...(file.counts ? { counts: file.counts } : {}) } };
}

/** An entry by its id or its seq. */
export function findEntry(entries: readonly Entry[], reference: string | number): Entry | undefined {
  return entries.find((entry) => (typeof reference === 'number' ? entry.seq === reference : entry.id === reference));
}

/** A job's ledger as fold input: the set's facts are those of its opening entry. */
export function caseOfLedger(entries: readonly Entry[], settings: Settings = defaultSettings, counts?: Counts): CaseInput {
  const opened = entries.find((entry) => entry.body.kind === 'job.opened');
  const set = opened?.body.kind === 'job.opened' ? opened.body.set : { layout: { probabilities: {} } };
  return { set, settings, entries, ...(counts ? { counts } : {}) };
}
