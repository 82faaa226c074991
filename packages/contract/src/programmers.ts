/** Chip programmers of this server, and work that is under way on one. */
import { memories, memoryAreas, programmerTroubles, type FlashDid } from '@veglia/core';
import { z } from 'zod';
import { imageFactsSchema } from './images.ts';

/** What a programmer is asked to do. */
export const programmerWorks = ['identify', 'read', 'erase', 'blank', 'program', 'verify'] as const;
/** The step of a session that each is. */
export const stepOfWork = {
  identify: 'identified',
  read: 'read',
  erase: 'erased',
  blank: 'blank',
  program: 'programmed',
  verify: 'verified',
} as const satisfies Record<(typeof programmerWorks)[number], FlashDid['step']>;
/** How a programmer is driven: the command flashrom, or the stand-in of the demo. */
export const programmerKinds = ['flashrom', 'simulated'] as const;

/** A programmer; `running`: the work it is at. */
export const programmerSchema = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.enum(programmerKinds),
  /** Kinds of memory it works on. */
  memories: z.array(z.enum(memories)),
  running: z.uuid().nullable(),
});
/** A programmer. */
export type Programmer = z.infer<typeof programmerSchema>;
/** Programmers of this server. */
export const programmersSchema = z.object({ programmers: z.array(programmerSchema) });

/** A programmer of this server. */
export const programmerParams = z.object({ id: z.string().min(1).max(40) });
/** A piece of work. */
export const programmerRunParams = z.object({ id: z.uuid() });
/** Work to be done for a session of a job. What changes the chip is done only where the step is open. */
export const startRunSchema = z.strictObject({
  id: z.uuid(),
  by: z.uuid(),
  job: z.uuid(),
  session: z.uuid(),
  work: z.enum(programmerWorks),
  /** Of all but an identification. */
  area: z.enum(memoryAreas).optional(),
  /** Of an identification: the chip that is worked on, a good one, the new one. */
  of: z.enum(['this', 'good-one', 'new-one']).optional(),
  /** Chilled by whoever asks. */
  cold: z.boolean().optional(),
  /** Which of several that answer alike. */
  chip: z.string().min(1).max(80).optional(),
  /** Of a read: what the dump is. */
  facts: imageFactsSchema.optional(),
});
/** Work to be done. */
export type StartRun = z.infer<typeof startRunSchema>;

/** Who breaks it off. */
export const cancelRunSchema = z.strictObject({ by: z.uuid() });

const hex = z.string();
/** What came of it. Sizes and places in bytes. */
export const runResultSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('found'), chip: z.string(), maker: z.string().optional(), code: hex.optional(), bytes: z.number().int() }),
  z.object({ kind: z.literal('stored'), image: z.uuid(), sha256: hex, bytes: z.number().int() }),
  z.object({ kind: z.literal('erased') }),
  z.object({ kind: z.literal('blank') }),
  z.object({ kind: z.literal('not-blank'), first: z.number().int() }),
  z.object({ kind: z.literal('programmed') }),
  z.object({ kind: z.literal('equal') }),
  z.object({ kind: z.literal('differs'), first: z.number().int() }),
  z.object({ kind: z.enum(programmerTroubles), detail: z.string(), chips: z.array(z.string()).optional() }),
]);
/** What came of it. */
export type RunResult = z.infer<typeof runResultSchema>;

/** A piece of work; `done` bytes of `bytes`, where the programmer tells. Times ISO 8601. */
export const programmerRunSchema = z.object({
  id: z.uuid(),
  programmer: z.string(),
  job: z.uuid(),
  session: z.uuid(),
  work: z.enum(programmerWorks),
  area: z.enum(memoryAreas).nullable(),
  startedAt: z.string(),
  endedAt: z.string().nullable(),
  done: z.number().int().nullable(),
  bytes: z.number().int().nullable(),
  result: runResultSchema.nullable(),
});
/** A piece of work. */
export type ProgrammerRun = z.infer<typeof programmerRunSchema>;
