/** What follows from a reading: a test further along the chain would only say the same again. */
import { z } from 'zod';

const idSchema = z.string().min(1);
/** What one reading says of others. */
export const consequenceSchema = z.strictObject({
  id: idSchema,
  after: z.strictObject({ test: idSchema, outcomes: z.array(idSchema).min(1) }),
  /** Only in these layouts; left out: in all. */
  layouts: z.array(idSchema).min(1).optional(),
  /** Test -> the outcome that follows, or all that would only say the same. */
  then: z.record(idSchema, z.union([idSchema, z.array(idSchema).min(2)])),
  /** Answered all the same it is another look, and counts; left out: it says the same again, and doesn't. */
  anotherLook: z.boolean().optional(),
  reason: z.strictObject({ en: z.string().min(1) }),
  source: z.string().min(1),
});
/** Test -> outcomes that follow. */
export const outcomesThatFollow = ({ then }: Pick<Consequence, 'then'>): [string, readonly string[]][] =>
  Object.entries(then).map(([test, outcomes]) => [test, typeof outcomes === 'string' ? [outcomes] : outcomes]);

/** What one reading says of others. */
export type Consequence = z.infer<typeof consequenceSchema>;
