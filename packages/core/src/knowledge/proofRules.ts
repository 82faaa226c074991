/** What has to be seen before a set leaves: rows of the pack, by what was wrong and what was done. */
import { z } from 'zod';

const idSchema = z.string().min(1);
const textSchema = z.object({ en: z.string().min(1) }).catchall(z.string().min(1));
const count = z.number().int().min(1).max(100);

/** All that is named has to hold; of assemblies, kinds and parts together on one repair. */
const conditionSchema = z
  .strictObject({
    /** What the repair was on, what it did, what it replaced. */
    assemblies: z.array(idSchema).min(1).optional(),
    kinds: z.array(idSchema).min(1).optional(),
    parts: z.array(idSchema).min(1).optional(),
    /** One of these was complained of. */
    symptoms: z.array(idSchema).min(1).optional(),
    /** The cover was off. */
    opened: z.literal(true).optional(),
    /** A blink code was read. */
    counted: z.literal(true).optional(),
  })
  .refine((one) => Object.keys(one).length > 0, 'something that has to hold');

/** What is asked: a look, starts (of them so many cold), a soak, days of starts, delays timed, a modification on record. */
export const proofKinds = ['check', 'starts', 'soak', 'days', 'delay', 'modification'] as const;
/** A row. Several rows of starts, soak or days are one item: the most of each counts. */
export const proofRuleSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(proofKinds),
  name: textSchema,
  how: textSchema,
  /** Left out: always. Of several one has to hold. */
  when: z.array(conditionSchema).min(1).optional(),
  /** Asked by what the set needs for safety; never left out but by the local rule. */
  safety: z.enum(['ground-screws', 'insulation', 'touch-current']).optional(),
  /** Seen before the repair is recorded, while it is still open: a repair after it leaves it standing. */
  beforeRepair: z.literal(true).optional(),
  /** The set has to have power for it, or none. */
  needs: z.enum(['plugged', 'unplugged']).optional(),
  /** Hands-on minutes, of one where there are several. */
  minutes: z.number().min(0).max(600),
  count: count.optional(),
  cold: z.number().int().min(0).max(100).optional(),
  hours: z.number().min(0.1).max(200).optional(),
  days: count.optional(),
  cautions: z.array(idSchema).optional(),
  source: z.string().min(3),
});
/** A row of the pack. */
export type ProofRule = z.infer<typeof proofRuleSchema>;
