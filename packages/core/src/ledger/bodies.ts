/** What a ledger entry can say. Kinds are past facts; `v` rises when a body changes and `upgrade.ts` reads the old ones. */
import { z } from 'zod';
import { idSchema } from '../knowledge/index.ts';

const plainText = z.string().min(1).max(20_000);
const minutes = z.number().min(0).max(100_000);
const money = z.strictObject({
  /** In the currency's smallest unit. */
  amountMinor: z.number().int().min(0).max(1_000_000_000),
  currency: z.string().regex(/^[A-Z]{3}$/),
});
export type Money = z.infer<typeof money>;

export const layoutGuessSchema = z.union([idSchema, z.strictObject({ odds: z.record(idSchema, z.number().min(0).max(1)) })]);

export const setFactsSchema = z.strictObject({
  layout: layoutGuessSchema,
  family: idSchema.optional(),
  model: z.string().min(1).max(120).optional(),
  version: z.string().min(1).max(60).optional(),
  year: z.number().int().min(1950).max(2200).optional(),
  ageYears: z.number().min(0).max(80).optional(),
  sizeInch: z.number().min(5).max(200).optional(),
});
export type SetFacts = z.infer<typeof setFactsSchema>;

const v1 = z.literal(1);
const entryReference = z.union([z.string().min(1), z.number().int().min(1)]);

export const conditions = ['crack', 'liquid', 'storm', 'dropped', 'smell', 'opened-before', 'screws-missing'] as const;
export const outcomesOfAJob = ['repaired', 'repaired-with-known-flaw', 'workaround', 'not-worth-it', 'handed-back'] as const;
export const partSources = ['new', 'refurbished', 'pulled', 'donor', 'own-stock'] as const;
export const memories = ['eeprom', 'spi-nor', 'emmc'] as const;
export const flashResults = ['starts', 'no-change', 'failed'] as const;

export const bodySchemas = {
  'job.opened': z.strictObject({
    kind: z.literal('job.opened'),
    v: v1,
    set: setFactsSchema,
    condition: z.array(z.enum(conditions)).optional(),
    earlier: plainText.optional(),
  }),
  'pack.pinned': z.strictObject({
    kind: z.literal('pack.pinned'),
    v: z.literal(2),
    hash: z.string().regex(/^[0-9a-f]{64}$/),
    /** Number of the counts; 0 is the book alone; left out: they stay what they were. */
    snapshot: z.number().int().min(0).optional(),
  }),
  'layout.found': z.strictObject({ kind: z.literal('layout.found'), v: v1, layout: layoutGuessSchema }),
  'symptom.reported': z.strictObject({
    kind: z.literal('symptom.reported'),
    v: v1,
    symptoms: z.array(idSchema).min(1).max(6),
    /** The customer's own words. */
    words: plainText.optional(),
  }),
  'blink.read': z.strictObject({
    kind: z.literal('blink.read'),
    v: v1,
    groups: z.array(z.number().int().min(1).max(99)).min(1).max(4),
    colour: z.enum(['red', 'green', 'white', 'blue', 'amber']).optional(),
    after: z.enum(['dark', 'steady', 'repeats']).optional(),
    /** Equal counts seen in a row; fewer than two is odds over counts, not a reading. */
    cycles: z.number().int().min(1).max(100),
  }),
  'test.answered': z.strictObject({
    kind: z.literal('test.answered'),
    v: v1,
    test: idSchema,
    of: idSchema.optional(),
    outcome: idSchema,
    sure: z.enum(['sure', 'think-so']),
    symptomPresent: z.enum(['yes', 'no', 'unknown']).optional(),
    asDesigned: z.boolean().optional(),
    minutes: minutes.optional(),
    /** Readings as typed, for the record. */
    raw: z.string().max(2000).optional(),
    /** What the screen showed when it was answered. */
    words: z.strictObject({ test: plainText, outcome: plainText }).optional(),
  }),
  'reading.taken': z.strictObject({
    kind: z.literal('reading.taken'),
    v: v1,
    quantity: z.enum(['volts', 'ohms', 'amperes', 'celsius']),
    at: idSchema,
    value: z.number(),
    state: z.enum(['unplugged', 'verified', 'standby', 'starting', 'on', 'forced']),
  }),
  'set.changed': z.strictObject({
    kind: z.literal('set.changed'),
    v: v1,
    plugged: z.boolean().optional(),
    railsDown: z.boolean().optional(),
    verified: z.boolean().optional(),
    strap: z.boolean().optional(),
    stage: idSchema.optional(),
    pulled: z.array(idSchema).optional(),
    restored: z.array(idSchema).optional(),
    bridged: z.array(z.tuple([idSchema, idSchema])).optional(),
    unbridged: z.array(z.tuple([idSchema, idSchema])).optional(),
    taped: z.array(idSchema).optional(),
    untaped: z.array(idSchema).optional(),
  }),
  'wait.started': z.strictObject({ kind: z.literal('wait.started'), v: v1, name: plainText, minutes }),
  'wait.ended': z.strictObject({ kind: z.literal('wait.ended'), v: v1, name: plainText }),
  'caution.read': z.strictObject({
    kind: z.literal('caution.read'),
    v: v1,
    cautions: z.array(idSchema).min(1),
    stage: idSchema.optional(),
  }),
  'advice.shown': z.strictObject({
    kind: z.literal('advice.shown'),
    v: v1,
    engine: z.string().min(1),
    top: z.array(z.strictObject({ id: idSchema, odds: z.number().min(0).max(1), verdict: z.string() })).max(10),
    next: z.strictObject({ kind: z.string(), id: z.string(), of: idSchema.optional() }).optional(),
  }),
  'repair.done': z.strictObject({
    kind: z.literal('repair.done'),
    v: v1,
    repair: idSchema,
    /** `changed`: the first symptom went and another came. */
    result: z.enum(['cured', 'unchanged', 'changed', 'not-tried']),
    minutes: minutes.optional(),
  }),
  'part.fitted': z.strictObject({
    kind: z.literal('part.fitted'),
    v: v1,
    assembly: idSchema,
    number: z.string().min(1).max(120),
    source: z.enum(partSources),
    price: money,
  }),
  'flash.done': z.strictObject({
    kind: z.literal('flash.done'),
    v: v1,
    memory: z.enum(memories),
    image: z.string().min(1).max(300),
    result: z.enum(flashResults),
  }),
  'photo.added': z.strictObject({ kind: z.literal('photo.added'), v: v1, photo: z.uuid(), caption: plainText.optional() }),
  'note.added': z.strictObject({ kind: z.literal('note.added'), v: v1, text: plainText }),
  'entry.retracted': z.strictObject({
    kind: z.literal('entry.retracted'),
    v: v1,
    /** Id of the entry, or its seq in a file written by hand. */
    entry: entryReference,
    reason: plainText,
  }),
  'text.redacted': z.strictObject({ kind: z.literal('text.redacted'), v: v1, entry: entryReference, field: z.string().min(1) }),
  'limit.agreed': z.strictObject({ kind: z.literal('limit.agreed'), v: v1, limit: money, minutes: minutes.optional() }),
  'quote.sent': z.strictObject({ kind: z.literal('quote.sent'), v: v1, total: money }),
  'quote.answered': z.strictObject({ kind: z.literal('quote.answered'), v: v1, answer: z.enum(['yes', 'no']), who: plainText.optional() }),
  'fault.confirmed': z.strictObject({
    kind: z.literal('fault.confirmed'),
    v: v1,
    assembly: idSchema,
    fault: idSchema.optional(),
    note: plainText.optional(),
  }),
  'job.closed': z.strictObject({
    kind: z.literal('job.closed'),
    v: v1,
    outcome: z.enum(outcomesOfAJob),
    minutes,
    remains: plainText.optional(),
  }),
  'job.reopened': z.strictObject({ kind: z.literal('job.reopened'), v: v1, reason: plainText }),
} as const;

export type EntryKind = keyof typeof bodySchemas;
export type BodyOf<K extends EntryKind> = z.infer<(typeof bodySchemas)[K]>;
export type Body = { [K in EntryKind]: BodyOf<K> }[EntryKind];
export const entryKinds = Object.keys(bodySchemas) as EntryKind[];

/**
 * Free text that may name or describe a person. The store keeps it in rows of its own, so that it can be emptied while
 * the facts stay; everything else in a body must never carry personal data.
 */
export const personalFields: Partial<Record<EntryKind, readonly string[]>> = {
  'job.opened': ['earlier'],
  'symptom.reported': ['words'],
  'photo.added': ['caption'],
  'note.added': ['text'],
  'entry.retracted': ['reason'],
  'quote.answered': ['who'],
  'fault.confirmed': ['note'],
  'job.closed': ['remains'],
  'job.reopened': ['reason'],
};

/** What a personal field reads once it has been emptied: the body stays valid, the person is gone. */
export const redactedText = '[erased]';
