/** What happened to a set before it came here: one entry of the pack. */
import { z } from 'zod';

const wordSchema = z.string().min(1);

/** What happened to sets before they came: which faults it makes likelier. */
export const historySchema = z.strictObject({
  /** A condition or an earlier attempt of `job.opened`. */
  id: z.string().regex(/^[a-z0-9][a-z0-9.-]*$/),
  /** Several of one kind are one thing told in more words: the one that stands last in the pack counts. */
  kind: z.string().min(1).optional(),
  /** P(told | fault): by fault, assembly, kind of assembly or class, the most particular first. */
  told: z.record(z.string().min(1), wordSchema),
  otherwise: wordSchema,
  /** How often such a set has a second fault that can't be seen yet; left out: no more often than any. */
  second: wordSchema.optional(),
  /** Tests from outside that come before all others. */
  first: z.array(z.string().min(1)).optional(),
  source: z.string().min(1),
});
/** What happened to a set before it came. */
export type History = z.infer<typeof historySchema>;
