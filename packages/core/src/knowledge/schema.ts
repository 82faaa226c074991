/**
 * The knowledge pack's format. Folder form: pack.json beside folders of small JSON files; document form: the one
 * assembled object below. Likelihoods are words of the pack's own scale, never bare numbers.
 */
import { blinkAfters, lightColours } from '../blink/words.ts';
import { z } from 'zod';
import { consequenceSchema } from './consequences.ts';
import { proofRuleSchema } from './proofRules.ts';
import { historySchema } from './historySchema.ts';

/** Ids never change once they are used: they are what a ledger refers to. */
export const idSchema = z.string().regex(/^[a-z][a-z0-9]*(?:[.-][a-z0-9]+)*$/, 'lower-case words joined by dots or hyphens');

/** A text by language; English is always there. */
export const textSchema = z.object({ en: z.string().min(1) }).catchall(z.string().min(1));
/** A text by language. */
export type Text = z.infer<typeof textSchema>;

const sourceSchema = z.string().min(3);
const wordSchema = z.string().regex(/^[a-z]+(?:-[a-z]+)*$/);
/** Plain words, lower case, as typed in a hurry. */
const phrasesSchema = z.array(z.string().min(1)).min(1);
const minutesSchema = z.number().min(0).max(100_000);

/** Probability of outcomes (or symptoms) in words; at most one may be `rest`, which takes what the others leave. */
export const likelihoodRowSchema = z.record(idSchema, wordSchema);

/** The words of likelihoods and frequencies, with what each is worth (0 to 1). */
export const scaleSchema = z.strictObject({
  likelihood: z.record(wordSchema, z.number().gt(0).lt(1)),
  /** Relative weights; only their ratios matter. */
  frequency: z.record(wordSchema, z.number().positive()),
  source: sourceSchema,
});

/** How far the set is open, with what comes off on the way there. */
export const stageSchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  /** Minutes to get here from the stage before, once a job. */
  minutes: minutesSchema,
  /** The charge is read below the limit before the set is opened so far. */
  verified: z.literal(true).optional(),
  /** Cautions to be read before the first step of this stage. */
  cautions: z.array(idSchema),
  /** How a bench says in a hurry that the set is this far open. */
  quick: phrasesSchema.optional(),
  /** What comes off on the way to this stage, in order; closing is the same list backwards. */
  teardown: z
    .array(
      z.strictObject({
        id: idSchema,
        name: textSchema,
        how: textSchema,
        /** Its screws or sheets are counted. */
        counted: z.enum(['screws', 'sheets', 'clips']).optional(),
        source: sourceSchema,
      }),
    )
    .optional(),
});

/** What a step does that can hurt somebody or the set; told from its verbs, never written by hand (`hazards.ts`). */
export const hazards = [
  'plugs',
  'live',
  'live-hot',
  'hot',
  'forcing',
  'warm',
  'cold',
  'hot-part',
  'solvent',
  'tap',
  'data',
  'solder',
  'chip',
  'substitute',
] as const;
/** What can hurt. */
export type Hazard = (typeof hazards)[number];

/** What a caution asks of every step that carries it; `checkCautions` tries each. */
export const demands = ['rails-down-first', 'verified-first', 'clip-on', 'dry-first', 'unplugged-touch', 'read-line-first'] as const;
/** What a step asks of the set before it is done. */
export type Demand = (typeof demands)[number];

/** A caution, and which steps bring it. */
export const cautionSchema = z.strictObject({
  id: idSchema,
  covers: z.array(z.enum(hazards)).min(1).optional(),
  demands: z.array(z.enum(demands)).min(1).optional(),
  /** Layouts on which what it warns of is never done. */
  notOn: z.array(idSchema).min(1).optional(),
  /** Nor on glass that is cracked. */
  notCracked: z.literal(true).optional(),
  /** A few words for a screen that has shown the whole text before. */
  short: textSchema,
  text: textSchema,
  severity: z.enum(['kills', 'injures', 'damages']),
  source: sourceSchema,
});

/** A thing that can be at fault and be renewed. */
/** What can hardly be bought, or not at all by itself. */
const soldSchema = z.strictObject({ how: z.enum(['rarely', 'never']), why: textSchema });

export const assemblySchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  kind: z.enum(['outside', 'assembly', 'harness']),
  /** Mains side, string voltage or plasma rails: nothing on it is moved before the charge has been read below the limit. */
  hot: z.literal(true).optional(),
  /** Work on it is work on the mains side: insulation and touch current belong to closing. */
  mains: z.literal(true).optional(),
  /** Of every step whose hands go there, beside the step's own. */
  cautions: z.array(idSchema).optional(),
  sold: soldSchema.optional(),
});

/** What a customer can report. */
export const symptomSchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  /** How a customer says it. */
  said: textSchema,
  /** Other ways it is said, for finding it while somebody talks. */
  also: phrasesSchema.optional(),
  /** Why a fault that doesn't name it can't show it: the physics that forbids it. */
  law: textSchema.optional(),
  /** Symptom -> how often this one is told as that one. */
  toldAs: z.record(idSchema, wordSchema).optional(),
  /** Who sees it sees a picture drawn and lit. */
  picture: z.boolean().optional(),
  source: sourceSchema,
});

/** What sets of the world show of one kind of damage: of a thousand such sets, how many show which symptom. */
export const sharesSchema = z.record(idSchema, z.number().int().min(1).max(1000));

/** How often such a fault comes and goes, shows when cold and leaves when warm, or shows only once warm; left out: as most do. */
const mannerSchema = z.strictObject({ sometimes: wordSchema.optional(), cold: wordSchema.optional(), warm: wordSchema.optional() });
/** How a fault shows itself in one of several ways. */
export type Manner = z.infer<typeof mannerSchema>;

/** A class of what a fault does to a set. Faults name classes; what customers see follows from them. */
export const classSchema = z.strictObject({
  id: idSchema,
  /** What it does to the set. */
  name: textSchema,
  shares: sharesSchema,
  /** Layouts whose sets react otherwise. */
  layouts: z.record(idSchema, sharesSchema).optional(),
  manner: mannerSchema.optional(),
  source: sourceSchema,
});
/** Faults with the same reaction to a class of tests. */
export type FaultClass = z.infer<typeof classSchema>;

/** Class -> percent of such faults; they add to 100. */
const mixSchema = z.record(idSchema, z.number().int().min(1).max(100));
const traitsSchema = z.record(idSchema, z.array(z.enum(['yes', 'no', 'unknown'])).min(1));

/** All given parts must hold. A trait a family doesn't state has the value `unknown`. */
export const conditionSchema = z.strictObject({
  symptoms: z.array(idSchema).min(1).optional(),
  traits: z.record(idSchema, z.array(z.enum(['yes', 'no', 'unknown'])).min(1)).optional(),
  layouts: z.array(idSchema).min(1).optional(),
});
/** What a likelihood holds under. */
export type Condition = z.infer<typeof conditionSchema>;

/** Sets by family, model, version and years of make (from, to). */
export const setMatchSchema = z.strictObject({
  family: idSchema.optional(),
  models: z.array(z.string().min(1)).min(1).optional(),
  versions: z.array(z.string().min(1)).min(1).optional(),
  years: z.tuple([z.number().int(), z.number().int()]).optional(),
});
/** Which sets something holds for. */
export type SetMatch = z.infer<typeof setMatchSchema>;

const proofItemSchema = z.union([
  z.strictObject({ test: idSchema, outcomes: z.array(idSchema).min(1), of: idSchema.optional() }),
  z.strictObject({ symptoms: z.array(idSchema).min(1) }),
  z.strictObject({ traits: z.record(idSchema, z.array(z.enum(['yes', 'no'])).min(1)) }),
]);
/** An observation that a proof asks for. */
export type ProofItem = z.infer<typeof proofItemSchema>;

const placeSchema = z.strictObject({
  x: z.number(),
  y: z.number(),
  width: z.number().positive(),
  height: z.number().positive(),
});

/** How a set stands while a pin is read; with the harness out, the supply is read alone. */
export const pinStates = ['unplugged', 'standby', 'starting', 'on', 'harness-out'] as const;
/** One of `pinStates`. */
export type PinState = (typeof pinStates)[number];

/** What is printed at a pin, and what that says of it. */
export const labelSchema = z.strictObject({
  id: idSchema,
  /** Upper case, without volts, blanks, hyphens, strokes and points; a number at its end is left out. */
  labels: z.array(z.string().regex(/^[A-Z0-9]+[+]?$/, 'upper-case letters, digits, and + at the end')).min(1),
  /** A label that is nothing but volts is one of these. */
  bare: z.literal(true).optional(),
  name: textSchema,
  /** Points it may be; the one on its plug or board is. */
  points: z.array(idSchema).min(1).optional(),
  ground: z.literal(true).optional(),
  /** States in which the volts that the label names belong there. */
  states: z.array(z.enum(pinStates)).min(1).optional(),
  /** From and to, volts: where nothing else is known of this pin. */
  typical: z.array(z.strictObject({ state: z.enum(pinStates), volts: z.tuple([z.number(), z.number()]) })).optional(),
  source: sourceSchema,
});
/** What a printed label says. */
export type LabelEntry = z.infer<typeof labelSchema>;

/** Which assemblies a set has, how they are joined, and where its points are. */
export const layoutSchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  frequency: wordSchema,
  assemblies: z.array(idSchema).min(2),
  /** Assembly whose work is done on another one here: its faults, likelihoods and part repairs move there. */
  merges: z.record(idSchema, idSchema),
  /** Symptom elsewhere -> what the same fault shows as here: without a backlight, "lit and blank" is simply black. */
  showsAs: z.record(idSchema, idSchema),
  /** Directed: what feeds or commands what. Harnesses are nodes of their own. */
  feeds: z.array(z.tuple([idSchema, idSchema])),
  /** Stage at which a node can be touched or seen. */
  access: z.record(idSchema, idSchema),
  /** Half of the panel that each of its ribbons feeds, seen from behind. */
  ribbons: z.record(idSchema, z.enum(['left', 'right'])).optional(),
  /** Places to put a probe, a bridge or tape. */
  points: z.record(
    idSchema,
    z.strictObject({
      name: textSchema,
      on: idSchema,
      hot: z.boolean(),
      /** Holds a charge after unplugging: read here before the set counts as verified. */
      verify: z.literal(true).optional(),
      /** What is usual there, volts dc to chassis; a family's rail at the same point stands above it. */
      volts: z.number().optional(),
      /** That holds for nearly every set: a reading is judged by it where the family says nothing and nothing is printed. */
      firm: z.literal(true).optional(),
      /** Several parts or pins of one kind: that one of them is good tells nothing of the others. */
      many: z.literal(true).optional(),
      /** Read before those with a higher number, and those with none: supply, command, what it supplies. */
      order: z.number().int().min(1).max(999).optional(),
      /** With nothing printed, so many volts pass. */
      atLeast: z.number().positive().optional(),
      source: sourceSchema,
    }),
  ),
  /** Hot and cold share its boards, or its plugs carry what kills: every place inside counts as hot. */
  hotInside: z.literal(true).optional(),
  /** Cautions of every step inside, beside those of its stage. */
  cautions: z.array(idSchema).optional(),
  /** A caution that is wrong here -> the one that stands in its place. */
  instead: z.record(idSchema, idSchema).optional(),
  fixedList: z.array(z.strictObject({ test: idSchema, of: idSchema.optional() })).min(1),
  proof: z.record(idSchema, z.strictObject({ anyOf: z.array(z.array(proofItemSchema).min(1)).min(1), reason: textSchema })),
  plan: z.strictObject({
    width: z.number().positive(),
    height: z.number().positive(),
    places: z.record(idSchema, placeSchema),
    wires: z.record(idSchema, z.array(z.tuple([z.number(), z.number()])).min(2)),
  }),
  source: sourceSchema,
});

/** What can be wrong: where, how often (per 1,000 sets), and how it shows. */
export const faultSchema = z.strictObject({
  id: idSchema,
  assembly: idSchema,
  name: textSchema,
  /**
   * Starting weight before any symptom. `*` speaks for every layout that has the assembly (or merges it into another);
   * a layout's own line stands above it, and `none` says that this layout doesn't have the fault.
   */
  frequency: z.record(z.union([idSchema, z.literal('*')]), wordSchema),
  /** Only where the layout has all of these nodes. */
  needs: z.array(idSchema).optional(),
  /** Of what would have to be replaced, where it isn't what the assembly says. */
  sold: soldSchema.optional(),
  /** What it does to the set: symptoms follow from its classes. */
  does: mixSchema.optional(),
  /** The same where the family's traits are known; the first that holds stands above `does`. */
  doesWhen: z.array(z.strictObject({ traits: traitsSchema, does: mixSchema, reason: textSchema })).optional(),
  /** P(symptom | fault) where it isn't what the classes say; needs `reason` beside `does`. */
  symptoms: likelihoodRowSchema.optional(),
  /** The same where the family's traits are known; packs from before there were classes say it so. */
  symptomsWhen: z.array(z.strictObject({ traits: traitsSchema, symptoms: likelihoodRowSchema })).optional(),
  /** Stands above that of its classes. */
  manner: mannerSchema.optional(),
  reason: textSchema.optional(),
  source: sourceSchema,
});

/** The closed vocabulary of procedures. A new verb is code; a new test isn't. `$of` stands for the test's object. */
export const stepSchema = z.union([
  z.strictObject({ unplug: z.literal(true) }),
  z.strictObject({ drain: z.enum(['rails-down', 'verified']) }),
  z.strictObject({ pull: z.array(z.string()).min(1) }),
  z.strictObject({ restore: z.array(z.string()).min(1) }),
  z.strictObject({ bridge: z.tuple([idSchema, idSchema, z.number().min(0)]), seconds: z.number().positive() }),
  /** A control line driven from outside for a few seconds: from where and through what follows from its polarity and the supply's volts. */
  z.strictObject({ force: idSchema, seconds: z.number().positive().max(10) }),
  z.strictObject({ tape: idSchema }),
  z.strictObject({ power: z.enum(['plugged', 'on', 'off']) }),
  z.strictObject({
    press: z.enum(['power', 'own-button', 'remote', 'menu', 'service', 'pattern', 'reset', 'update']),
    hold: z.number().positive().optional(),
  }),
  z.strictObject({ warm: z.string(), to: z.number() }),
  z.strictObject({ chill: z.string(), to: z.number() }),
  z.strictObject({ clean: z.string() }),
  z.strictObject({ fit: z.enum(['known-good', 'jig', 'universal']), at: z.string() }),
  z.strictObject({ supply: z.enum(['known-outlet', 'known-source', 'other-input', 'known-network', 'other-network', 'known-remote']) }),
  z.strictObject({ wait: minutesSchema }),
  z.strictObject({ look: z.string() }),
  z.strictObject({ listen: z.string() }),
  z.strictObject({ torch: z.string() }),
  z.strictObject({ tap: z.string() }),
  z.strictObject({ squeeze: z.string() }),
  /** Read or write a memory: where it sits; written from its own saved content or from the library. */
  z.strictObject({ read: z.string(), times: z.number().int().min(1).max(9) }),
  z.strictObject({ write: z.string(), from: z.enum(['own', 'library']) }),
  /** Take one part out of circuit; load a rail on purpose. */
  z.strictObject({ lift: z.string() }),
  z.strictObject({ load: idSchema, amperes: z.number().positive() }),
  z.strictObject({
    measure: z.enum(['volts', 'ohms', 'volts-min-max']),
    at: z.string(),
    in: z.enum(['unplugged', 'verified', 'standby', 'starting', 'on', 'forced']),
  }),
]);
/** One action of a procedure. */
export type Step = z.infer<typeof stepSchema>;

const rangeSchema = z.tuple([z.number(), z.number()]);

/**
 * What a bench would have to see for an outcome: a closed vocabulary over what a set shows and what instruments read, so that
 * a simulated set can answer without knowing any test. All given parts must hold. `complaint`, `code` and `changes` compare
 * with the set as it was delivered.
 */
export const seenSchema = z.strictObject({
  complaint: z.enum(['gone', 'same', 'changed']).optional(),
  light: z
    .array(z.enum(['on', 'off', 'flash', 'dim']))
    .min(1)
    .optional(),
  sound: z.boolean().optional(),
  /** Runs, and goes on running while it is watched. */
  alive: z.boolean().optional(),
  starts: z.boolean().optional(),
  restarts: z.boolean().optional(),
  clicks: z.boolean().optional(),
  indicator: z
    .array(z.enum(['off', 'steady', 'blinking']))
    .min(1)
    .optional(),
  reacts: z.strictObject({ key: z.boolean().optional(), remote: z.boolean().optional() }).optional(),
  picture: z
    .array(
      z.enum([
        'good',
        'none',
        'faint',
        'left-missing',
        'right-missing',
        'bar',
        'line',
        'lines',
        'turned',
        'dots',
        'tint',
        'washed',
        'frozen',
        'band',
        'partial',
      ]),
    )
    .min(1)
    .optional(),
  input: z.enum(['works', 'dead']).optional(),
  network: z.enum(['works', 'dead']).optional(),
  glass: z
    .array(z.enum(['clean', 'cracked', 'liquid']))
    .min(1)
    .optional(),
  signs: z
    .array(z.enum(['burnt', 'bulged', 'oxide', 'loose']))
    .min(1)
    .optional(),
  /** The lamp that was looked at, where it isn't the set's own indicator: on a board, or a remote's emitter. */
  lamp: z.enum(['lit', 'dark']).optional(),
  /** How far the start log gets. */
  log: z.enum(['runs', 'stops', 'silent']).optional(),
  fan: z.enum(['spins', 'silent', 'noisy']).optional(),
  feels: z.enum(['cold', 'warm', 'hot']).optional(),
  code: z.enum(['same', 'changed', 'gone']).optional(),
  changes: z.boolean().optional(),
  memory: z.enum(['missing', 'unsteady', 'differs', 'matches', 'worn']).optional(),
  reading: z
    .strictObject({
      /** Which measurement of the procedure, from 1; left out: the last. */
      n: z.number().int().min(1).optional(),
      /** Steady value over nominal, and the highest instant over nominal. */
      ratio: rangeSchema.optional(),
      peak: rangeSchema.optional(),
      ohms: rangeSchema.optional(),
      /** In `ohms` here, and outside it when the same point is read again later in the procedure. */
      leaves: z.boolean().optional(),
      steady: z.boolean().optional(),
      /** Moved clearly between idle and key pressed. */
      swings: z.boolean().optional(),
      /**
       * At the level that asks for what the line commands: at least this share of nominal, or at most what is left of it to 1 where the
       * family's line is active low.
       */
      asks: z.number().gt(0).lt(1).optional(),
      /** Of the parts of one kind at this point. */
      missing: z.enum(['none', 'one', 'all']).optional(),
    })
    .optional(),
});
/** What an outcome means in things seen or read. */
export type Seen = z.infer<typeof seenSchema>;

/** Outcomes every test has beside its own: legal answers that carry no evidence. */
export const silentOutcomes = ['cant-tell', 'not-possible'] as const;

/** Likelihoods of a test’s outcomes under some faults (0 to 1, each row summing to 1). */
export const likelihoodBlockSchema = z.strictObject({
  when: conditionSchema.optional(),
  reason: textSchema.optional(),
  rows: z
    .array(
      z.strictObject({
        /** `*`, where it lies (`@inside`, `@beyond`, `@unrelated`, `@of`), what it does (`does:class`), an assembly id or a fault id. */
        for: z.array(z.string().min(1)).min(1),
        likelihoods: likelihoodRowSchema,
        reason: textSchema.optional(),
      }),
    )
    .min(1),
});

/** A test: procedure, outcomes with their likelihoods, minutes, tools, cautions. */
export const testSchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  /** What a quick line calls it. */
  quick: phrasesSchema.optional(),
  how: textSchema,
  watch: textSchema,
  do: z.array(stepSchema).min(1),
  observe: z.strictObject({
    /** In order: the first outcome one of whose `seen` holds is the one; without `seen` it is what else remains. */
    outcomes: z
      .array(
        z.strictObject({
          id: idSchema,
          name: textSchema,
          seen: z.array(seenSchema).min(1).optional(),
          /** Results of an instrument that say the same. */
          by: z
            .array(z.strictObject({ instrument: idSchema, finding: idSchema }))
            .min(1)
            .optional(),
          /** Words of a quick line that mean this outcome, beside its name. */
          said: phrasesSchema.optional(),
        }),
      )
      .min(2)
      .max(7),
  }),
  minutes: minutesSchema,
  /** How often an honest, sure answer is wrong all the same. */
  error: wordSchema,
  of: z.strictObject({ options: z.array(idSchema).min(1), required: z.boolean() }).optional(),
  scope: z.strictObject({
    /** Left out: every layout that has the places this test goes to. */
    layouts: z.array(idSchema).min(1).optional(),
    /** Only where the layout has all of these nodes. */
    needs: z.array(idSchema).min(1).optional(),
    /** Which sets it was made for, and which of them it doesn't fit; a match needs every given part. */
    only: z.array(setMatchSchema).min(1).optional(),
    except: z
      .array(setMatchSchema.extend({ reason: textSchema }))
      .min(1)
      .optional(),
    /** Offered and believed only for these symptoms; left out: for all. */
    symptoms: z.array(idSchema).min(1).optional(),
  }),
  /** Where one of these fails, the result says nothing: it could not have changed the symptom. */
  speaksOnlyIf: z.array(z.strictObject({ needs: conditionSchema, reason: textSchema })),
  /** What has to be on record before it is offered: a line is read before it is driven. */
  first: z
    .array(z.strictObject({ test: idSchema, reason: textSchema }))
    .min(1)
    .optional(),
  /** Heat, swap, reset or cleaning: may wipe the blink code, so the code is read first. */
  disturbsCode: z.boolean(),
  cautions: z.array(idSchema),
  tools: z.array(idSchema),
  /** Tests of one group share a cause of error. */
  group: idSchema.optional(),
  likelihood: z.array(likelihoodBlockSchema).min(1),
  source: sourceSchema,
});

/** What a repair does. */
export const repairKinds = ['put-right', 'reseat', 'drain', 'reflash', 'part', 'replace', 'workaround'] as const;

/** A repair: what it renews, minutes, price (minor units), chance to fail. */
export const repairSchema = z.strictObject({
  id: idSchema,
  assembly: idSchema,
  kind: z.enum(repairKinds),
  name: textSchema,
  /** Left out: every layout that has the assembly; part repairs go along where it is merged into another. */
  layouts: z.array(idSchema).min(1).optional(),
  minutes: minutesSchema,
  /** Fault or assembly -> how often this cures it; what isn't named isn't cured. */
  fixes: z.record(idSchema, wordSchema),
  /** Where hands go, if not to the assembly itself: a point, where the layout has it. */
  at: idSchema.optional(),
  /** What is replaced where it isn't the whole assembly: a word of the bench, not of a likelihood. */
  part: idSchema.optional(),
  /** What work on a memory amounts to it. */
  flashes: z.enum(['own-content-new-chip', 'other-content']).optional(),
  /** Instruments that help with it, offered beside it. */
  instruments: z.array(idSchema).min(1).optional(),
  /** Price of the part as a share of a comparable new set; 0 where none is needed. */
  partShare: z.number().min(0).max(1),
  /** Priced at most of a new set: put as a question with its figure, never ordered. */
  question: z.literal(true).optional(),
  /** What has to be on record before it is done, but for sets where one of these answers says that it can't be. */
  first: z
    .array(
      z.strictObject({
        test: idSchema,
        unless: z.strictObject({ test: idSchema, outcomes: z.array(idSchema).min(1) }).optional(),
        reason: textSchema,
      }),
    )
    .min(1)
    .optional(),
  /** Answers after which this was work on the mains side, whatever it is done on: a cord that was found open and was replaced. */
  mainsAfter: z.array(z.strictObject({ test: idSchema, outcomes: z.array(idSchema).min(1) })).optional(),
  cautions: z.array(idSchema),
  tools: z.array(idSchema).optional(),
  source: sourceSchema,
});

/** A blink code of a family, and what it notices. */
export const blinkCodeSchema = z.strictObject({
  id: idSchema,
  /** Blinks in each group: [3] is three and a pause, [2, 5] two, a short gap, five, a pause. None: no light at all. */
  groups: z.array(z.number().int().min(1).max(40)).max(4),
  colour: z.enum(lightColours).optional(),
  after: z.enum(blinkAfters).optional(),
  meaning: textSchema,
  /** What the set's own software noticed, where it is known: this is what makes a simulated set blink it. */
  notices: z.enum(['rail', 'light', 'main', 'panel', 'sound', 'memory', 'sustain', 'address', 'fan', 'panel-supply']).optional(),
  /** Fault or assembly -> how often that fault makes the set blink this code. */
  suspects: z.record(idSchema, wordSchema),
  firstCheck: idSchema.optional(),
  source: sourceSchema,
  date: z.iso.date(),
  by: z.string().min(1),
});

/** A family of sets: layouts, models, healthy behaviour, rails (V), blink table. */
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
    /** Relay clicks on the way to a picture, and whether it chimes; left out: not known. */
    clicks: z.number().int().min(0).max(20).optional(),
    chime: z.boolean().optional(),
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
      /** Ohms to chassis, unplugged and verified, for a good set. */
      ohms: z.number().positive().optional(),
      source: sourceSchema,
    }),
  ),
  /** Service menu, panel id, jumpers: what a bench writes on the cover. */
  service: z.array(textSchema).optional(),
  /** Codes of replacement remotes that worked, and the pattern jig it takes. */
  remotes: z.array(z.string().min(1).max(200)).max(20).optional(),
  jig: z.string().min(1).max(200).optional(),
  /** A ribbon for each half of the panel, or one with a link to the other half; left out: as its layout. */
  ribbons: z.enum(['each', 'link']).optional(),
  notes: z.array(textSchema).max(40).optional(),
  /** What of its models it covers; left out: all of them. An exception is a version, a model, or both ("TX-50 A3"). */
  scope: z
    .strictObject({
      versions: z.array(z.string().min(1).max(60)).max(40).optional(),
      years: z.tuple([z.number().int().min(1950).max(2200), z.number().int().min(1950).max(2200)]).optional(),
      except: z.array(z.string().min(1).max(120)).max(40).optional(),
    })
    .optional(),
  /** The family it began as a copy of. */
  from: idSchema.optional(),
  /** No longer offered for sets that come in. */
  retired: z.literal(true).optional(),
  source: sourceSchema,
});

/**
 * A question on which benches differ. An option shifts what tests and repairs are weighed at (1 is as the pack has it); the order
 * stays that of expected cost, and what is shown as their price stays true.
 */
export const schoolSchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  /** Option that stands where a shop hasn't said otherwise. */
  usual: idSchema,
  options: z.array(z.strictObject({ id: idSchema, name: textSchema, shifts: z.record(idSchema, z.number().min(0.1).max(10)) })).min(2),
  source: sourceSchema,
});

/** What can be seen of a set's layout without a screwdriver: a question, its answers, and how each layout answers it. */
export const lookSchema = z.strictObject({
  id: idSchema,
  name: textSchema,
  answers: z
    .array(z.strictObject({ id: idSchema, name: textSchema }))
    .min(2)
    .max(5),
  /** Layout ids or `*`; the first row that names a layout counts. */
  rows: z.array(z.strictObject({ for: z.array(z.union([idSchema, z.literal('*')])).min(1), likelihoods: likelihoodRowSchema })).min(1),
  source: sourceSchema,
});

/** Numbers the fold decides by, in one place. */
export const thresholdsSchema = z.strictObject({
  proven: z.number().gt(0.5).lt(1),
  cleared: z.number().gt(0).lt(0.1),
  notInBook: z.number().gt(0).lt(0.2),
  source: sourceSchema,
});

/** A whole pack; `format` and `version` say how to read it. */
export const packSchema = z.strictObject({
  format: z.literal('veglia-pack'),
  version: z.literal(2),
  title: textSchema,
  thresholds: thresholdsSchema,
  scale: scaleSchema,
  stages: z.array(stageSchema).min(1),
  cautions: z.array(cautionSchema),
  assemblies: z.array(assemblySchema).min(1),
  /** What a procedure may go to outside the boards: the glass, the light on the set, the cover's holes. */
  places: z.array(idSchema),
  tools: z.array(z.strictObject({ id: idSchema, name: textSchema })),
  symptoms: z.array(symptomSchema).min(1),
  classes: z.array(classSchema).default([]),
  /** What follows from a reading, and says nothing more. */
  consequences: z.array(consequenceSchema).default([]),
  /** What happened to a set before, as evidence. */
  histories: z.array(historySchema).default([]),
  /** How a layout is told from outside; a pack without them guesses by how common each is. */
  looks: z.array(lookSchema),
  /** Printed pin labels. */
  labels: z.array(labelSchema).default([]),
  layouts: z.array(layoutSchema).min(1),
  faults: z.array(faultSchema).min(1),
  tests: z.array(testSchema).min(1),
  repairs: z.array(repairSchema),
  /** What has to be seen before a set leaves; a pack without them asks for safety alone. */
  proof: z.array(proofRuleSchema).default([]),
  schools: z.array(schoolSchema),
  families: z.array(familySchema),
  /** Old id -> id used now. */
  aliases: z.record(idSchema, idSchema),
});

/** A whole pack. */
export type Pack = z.infer<typeof packSchema>;
/** A layout of the pack. */
export type Layout = z.infer<typeof layoutSchema>;
/** A fault of the pack. */
export type Fault = z.infer<typeof faultSchema>;
/** A test of the pack. */
export type TestDefinition = z.infer<typeof testSchema>;
/** Likelihoods of a test’s outcomes. */
export type LikelihoodBlock = z.infer<typeof likelihoodBlockSchema>;
/** A family of the pack. */
export type Family = z.infer<typeof familySchema>;
/** A blink code of a family. */
export type BlinkCode = z.infer<typeof blinkCodeSchema>;
/** A repair of the pack. */
export type Repair = z.infer<typeof repairSchema>;
/** How far a set is open. */
export type Stage = z.infer<typeof stageSchema>;
/** A caution of the pack. */
export type Caution = z.infer<typeof cautionSchema>;
