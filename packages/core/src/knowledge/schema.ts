/**
 * The knowledge pack's format. Folder form: pack.json beside folders of small JSON files; document form: the one
 * assembled object below. Odds are words of the pack's own scale, never bare numbers.
 */
import { z } from 'zod';

export const idSchema = z
  .string()
  .regex(/^[a-z][a-z0-9]*(?:[.-][a-z0-9]+)*$/, 'lower-case words joined by dots or hyphens');

export const textSchema = z.object({ en: z.string().min(1) }).catchall(z.string().min(1));
export type Text = z.infer<typeof textSchema>;

const sourceSchema = z.string().min(3);
const wordSchema = z.string().regex(/^[a-z]+(?:-[a-z]+)*$/);
const minutesSchema = z.number().min(0).max(100_000);

/** Odds of outcomes (or symptoms) in words; at most one may be `rest`, which takes what the others leave. */
export const oddsRowSchema = z.record(idSchema, wordSchema);

export const scaleSchema = z.strictObject({
  likelihood: z.record(wordSchema, z.number().gt(0).lt(1)),
  /** Relative weights; only their ratios matter. */
  frequency: z.record(wordSchema, z.number().positive()),
  source: sourceSchema,
});

export const stageSchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  /** Minutes to get here from the stage before, once a job. */
  minutes: minutesSchema,
  /** Cautions to be read before the first step of this stage. */
  cautions: z.array(idSchema),
});

export const cautionSchema = z.strictObject({
  id: idSchema,
  /** A few words for a screen that has shown the whole text before. */
  short: textSchema,
  text: textSchema,
  severity: z.enum(['kills', 'injures', 'damages']),
  source: sourceSchema,
});

export const assemblySchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  kind: z.enum(['outside', 'assembly', 'harness']),
});

export const symptomSchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  /** How a customer says it. */
  said: textSchema,
  source: sourceSchema,
});

/** All given parts must hold. A trait a family doesn't state has the value `unknown`. */
export const conditionSchema = z.strictObject({
  symptoms: z.array(idSchema).min(1).optional(),
  traits: z.record(idSchema, z.array(z.enum(['yes', 'no', 'unknown'])).min(1)).optional(),
  layouts: z.array(idSchema).min(1).optional(),
});
export type Condition = z.infer<typeof conditionSchema>;

const proofItemSchema = z.union([
  z.strictObject({ test: idSchema, outcomes: z.array(idSchema).min(1), of: idSchema.optional() }),
  z.strictObject({ symptoms: z.array(idSchema).min(1) }),
  z.strictObject({ traits: z.record(idSchema, z.array(z.enum(['yes', 'no'])).min(1)) }),
]);
export type ProofItem = z.infer<typeof proofItemSchema>;

const placeSchema = z.strictObject({
  x: z.number(),
  y: z.number(),
  width: z.number().positive(),
  height: z.number().positive(),
});

export const layoutSchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  frequency: wordSchema,
  assemblies: z.array(idSchema).min(2),
  /** Directed: what feeds or commands what. Harnesses are nodes of their own. */
  feeds: z.array(z.tuple([idSchema, idSchema])),
  /** Stage at which a node can be touched or seen. */
  access: z.record(idSchema, idSchema),
  /** Places to put a probe, a bridge or tape. */
  points: z.record(
    idSchema,
    z.strictObject({ name: textSchema, on: idSchema, hot: z.boolean(), source: sourceSchema }),
  ),
  fixedList: z.array(z.strictObject({ test: idSchema, of: idSchema.optional() })).min(1),
  proof: z.record(
    idSchema,
    z.strictObject({ anyOf: z.array(z.array(proofItemSchema).min(1)).min(1), reason: textSchema }),
  ),
  plan: z.strictObject({
    width: z.number().positive(),
    height: z.number().positive(),
    places: z.record(idSchema, placeSchema),
    wires: z.record(idSchema, z.array(z.tuple([z.number(), z.number()])).min(2)),
  }),
  source: sourceSchema,
});

export const faultSchema = z.strictObject({
  id: idSchema,
  assembly: idSchema,
  name: textSchema,
  /** Starting weight before any complaint, per layout; a layout that isn't named doesn't have this fault. */
  frequency: z.record(idSchema, wordSchema),
  /** P(symptom | fault): what the owner reports first. */
  symptoms: oddsRowSchema,
  source: sourceSchema,
});

/** The closed vocabulary of procedures. A new verb is code; a new test isn't. `$of` stands for the test's object. */
export const stepSchema = z.union([
  z.strictObject({ unplug: z.literal(true) }),
  z.strictObject({ drain: z.enum(['rails-down', 'verified']) }),
  z.strictObject({ pull: z.array(z.string()).min(1) }),
  z.strictObject({ restore: z.array(z.string()).min(1) }),
  z.strictObject({ bridge: z.tuple([idSchema, idSchema, z.number().min(0)]), seconds: z.number().positive() }),
  z.strictObject({ tape: idSchema }),
  z.strictObject({ power: z.enum(['plugged', 'on', 'off']) }),
  z.strictObject({
    press: z.enum(['power', 'own-button', 'remote', 'menu', 'reset', 'update']),
    hold: z.number().positive().optional(),
  }),
  z.strictObject({ warm: z.string(), to: z.number() }),
  z.strictObject({ chill: z.string(), to: z.number() }),
  z.strictObject({ clean: z.string() }),
  z.strictObject({ fit: z.literal('known-good'), at: z.string() }),
  z.strictObject({ supply: z.enum(['known-outlet', 'known-source']) }),
  z.strictObject({ wait: minutesSchema }),
  z.strictObject({ look: z.string() }),
  z.strictObject({ listen: z.string() }),
  z.strictObject({ torch: z.string() }),
  z.strictObject({ tap: z.string() }),
  z.strictObject({ squeeze: z.string() }),
  z.strictObject({
    measure: z.enum(['volts', 'ohms', 'volts-min-max']),
    at: z.string(),
    in: z.enum(['unplugged', 'verified', 'standby', 'starting', 'on', 'forced']),
  }),
]);
export type Step = z.infer<typeof stepSchema>;

/** Outcomes every test has beside its own: legal answers that carry no evidence. */
export const silentOutcomes = ['cant-tell', 'not-possible'] as const;

export const likelihoodBlockSchema = z.strictObject({
  when: conditionSchema.optional(),
  reason: textSchema.optional(),
  rows: z
    .array(
      z.strictObject({
        /** `*`, a class (`@inside`, `@beyond`, `@unrelated`, `@of`), an assembly id or a fault id. */
        for: z.array(z.string().min(1)).min(1),
        odds: oddsRowSchema,
        reason: textSchema.optional(),
      }),
    )
    .min(1),
});

export const testSchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  how: textSchema,
  watch: textSchema,
  do: z.array(stepSchema).min(1),
  observe: z.strictObject({
    outcomes: z.array(z.strictObject({ id: idSchema, name: textSchema })).min(2).max(7),
  }),
  minutes: minutesSchema,
  /** How often an honest, sure answer is wrong all the same. */
  error: wordSchema,
  of: z.strictObject({ options: z.array(idSchema).min(1), required: z.boolean() }).optional(),
  scope: z.strictObject({
    layouts: z.array(idSchema).min(1),
    /** Offered and believed only for these complaints; left out: for all. */
    symptoms: z.array(idSchema).min(1).optional(),
  }),
  /** Where one of these fails, the result says nothing: it could not have changed the symptom. */
  speaksOnlyIf: z.array(z.strictObject({ needs: conditionSchema, reason: textSchema })),
  /** Heat, swap, reset or cleaning: may wipe the blink code, so the code is read first. */
  disturbsCode: z.boolean(),
  cautions: z.array(idSchema),
  tools: z.array(idSchema),
  /** Tests of one group share a cause of error. */
  group: idSchema.optional(),
  likelihood: z.array(likelihoodBlockSchema).min(1),
  source: sourceSchema,
});

export const repairSchema = z.strictObject({
  id: idSchema,
  assembly: idSchema,
  name: textSchema,
  layouts: z.array(idSchema).min(1),
  minutes: minutesSchema,
  fixes: wordSchema,
  /** Price of the part as a share of a comparable new set; 0 where none is needed. */
  partShare: z.number().min(0).max(1),
  cautions: z.array(idSchema),
  source: sourceSchema,
});

export const blinkCodeSchema = z.strictObject({
  id: idSchema,
  /** Blinks in each group: [3] is three and a pause, [2, 5] two, a short gap, five, a pause. */
  groups: z.array(z.number().int().min(1).max(40)).min(1).max(4),
  colour: z.enum(['red', 'green', 'white', 'blue', 'amber']).optional(),
  after: z.enum(['dark', 'steady', 'repeats']).optional(),
  meaning: textSchema,
  /** Fault or assembly -> how often that fault makes the set blink this code. */
  suspects: z.record(idSchema, wordSchema),
  firstCheck: idSchema.optional(),
  source: sourceSchema,
  date: z.iso.date(),
  by: z.string().min(1),
});

export const familySchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  maker: z.string().min(1),
  layouts: z.array(idSchema).min(1),
  models: z.array(z.string().min(1)),
  traits: z.record(idSchema, z.enum(['yes', 'no'])),
  healthy: z.strictObject({
    off: textSchema,
    starting: textSchema,
    on: textSchema,
    secondsToPicture: z.number().positive(),
    longestStartSeconds: z.number().positive(),
  }),
  blink: z.array(blinkCodeSchema),
  rails: z.array(
    z.strictObject({
      id: idSchema,
      name: z.string().min(1),
      nominalVolts: z.number(),
      tolerancePercent: z.number().positive().max(50),
      point: idSchema,
      state: z.enum(['standby', 'on']),
      source: sourceSchema,
    }),
  ),
  source: sourceSchema,
});

/** Numbers the fold decides by, in one place. */
export const thresholdsSchema = z.strictObject({
  proven: z.number().gt(0.5).lt(1),
  cleared: z.number().gt(0).lt(0.1),
  notInBook: z.number().gt(0).lt(0.2),
  source: sourceSchema,
});

export const packSchema = z.strictObject({
  format: z.literal('veglia-pack'),
  version: z.literal(1),
  title: textSchema,
  thresholds: thresholdsSchema,
  scale: scaleSchema,
  stages: z.array(stageSchema).min(1),
  cautions: z.array(cautionSchema),
  assemblies: z.array(assemblySchema).min(1),
  symptoms: z.array(symptomSchema).min(1),
  layouts: z.array(layoutSchema).min(1),
  faults: z.array(faultSchema).min(1),
  tests: z.array(testSchema).min(1),
  repairs: z.array(repairSchema),
  families: z.array(familySchema),
  /** Old id -> id used now. */
  aliases: z.record(idSchema, idSchema),
});

export type Pack = z.infer<typeof packSchema>;
export type Layout = z.infer<typeof layoutSchema>;
export type Fault = z.infer<typeof faultSchema>;
export type TestDefinition = z.infer<typeof testSchema>;
export type LikelihoodBlock = z.infer<typeof likelihoodBlockSchema>;
export type Family = z.infer<typeof familySchema>;
export type BlinkCode = z.infer<typeof blinkCodeSchema>;
export type Repair = z.infer<typeof repairSchema>;
export type Stage = z.infer<typeof stageSchema>;
export type Caution = z.infer<typeof cautionSchema>;
