/** What follows from a reading: a test further along the chain would only say the same again. */
import { z } from 'zod';

const idSchema = z.string().min(1);
export const consequenceSchema = z.strictObject({
  id: idSchema,
  after: z.strictObject({ test: idSchema, outcomes: z.array(idSchema).min(1) }),
  /** Test -> the outcome that follows. */
  then: z.record(idSchema, idSchema),
  reason: z.strictObject({ en: z.string().min(1) }),
  source: z.string().min(1),
});
export type Consequence = z.infer<typeof consequenceSchema>;
