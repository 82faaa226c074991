/**
 * What a shop has counted: closed jobs with their confirmed fault, and experience that somebody brings along ("I have mended n
 * of these, it was X"), kept apart. A numbered snapshot; a job keeps the one it was opened with.
 */
import { z } from 'zod';
import { idSchema } from '../knowledge/index.ts';

const timesSchema = z.number().int().min(1).max(1_000_000);

/** What a shop has counted, one numbered snapshot. */
export const countsSchema = z.strictObject({
  snapshot: z.number().int().min(0),
  /** Closed jobs, by what was found. */
  jobs: z.array(
    z.strictObject({ layout: idSchema, family: idSchema.optional(), symptom: idSchema.optional(), fault: idSchema, n: timesSchema }),
  ),
  /** Counted experience: `fault` may be a fault or an assembly. */
  told: z.array(
    z.strictObject({
      layout: idSchema,
      family: idSchema.optional(),
      symptom: idSchema.optional(),
      fault: idSchema,
      n: timesSchema,
      by: z.string().min(1),
    }),
  ),
  /** How tests came out, where the fault was confirmed afterwards. */
  outcomes: z.array(
    z.strictObject({ layout: idSchema, test: idSchema, of: idSchema.optional(), fault: idSchema, outcome: idSchema, n: timesSchema }),
  ),
});
/** What a shop has counted. */
export type Counts = z.infer<typeof countsSchema>;
