/** What a ledger entry can say. Kinds are past facts; `v` rises when a body changes and `upgrade.ts` reads the old ones. */
import { z } from 'zod';
import { blinkAfters, blinkWays, lightColours, lightStates } from '../blink/words.ts';
import { units } from '../electrical/index.ts';
import { idSchema } from '../knowledge/index.ts';
import { flashDidSchema, flashResults, memories } from './flashStep.ts';

const plainText = z.string().min(1).max(20_000);
const minutes = z.number().min(0).max(100_000);
/** An amount in minor units of an ISO 4217 currency. */
export const moneySchema = z.strictObject({
  /** In the currency's smallest unit. */
  amountMinor: z.number().int().min(0).max(1_000_000_000),
  currency: z.string().regex(/^[A-Z]{3}$/),
});
/** An amount in minor units (cents) of an ISO 4217 currency. */
export type Money = z.infer<typeof moneySchema>;
const money = moneySchema;

/** A layout, or probabilities of several. */
export const layoutGuessSchema = z.union([idSchema, z.strictObject({ probabilities: z.record(idSchema, z.number().min(0).max(1)) })]);

/** What is known of the set itself. */
export const setFactsSchema = z.strictObject({
  layout: layoutGuessSchema,
  family: idSchema.optional(),
  model: z.string().min(1).max(120).optional(),
  version: z.string().min(1).max(60).optional(),
  year: z.number().int().min(1950).max(2200).optional(),
  ageYears: z.number().min(0).max(80).optional(),
  sizeInch: z.number().min(5).max(200).optional(),
});
/** What is known of the set itself. */
export type SetFacts = z.infer<typeof setFactsSchema>;

/** Fields and figures of an instrument. */
const fieldName = z.string().regex(/^[A-Za-z][A-Za-z0-9]{0,39}$/);
const wireText = z.string().trim().min(1).max(60);
const partName = z
  .string()
  .trim()
  .min(1)
  .max(60)
  .regex(/^[\p{L}\p{N} ._/+-]+$/u);
/** What can be taken off a board: a part, or a supply link (0 Ω), which cuts like a plug. */
export const liftedKinds = ['part', 'link'] as const;
const liftedSchema = z.strictObject({
  /** As printed on the board: "C412". */
  name: partName,
  what: z.enum(liftedKinds),
  /** The assembly it was taken off. */
  on: idSchema.optional(),
});
/** Something taken off a board. */
export type Lifted = z.infer<typeof liftedSchema>;

const v1 = z.literal(1);
const partNumber = z.string().min(1).max(120);
const supplierName = z.string().trim().min(1).max(120);
const day = z.iso.date();
/** As the shop stated its prices then: hundredths of a percent, held in them or on top. */
const taxRule = z.strictObject({ basisPoints: z.number().int().min(0).max(5000), held: z.boolean() });
/** A rate of tax, and whether prices hold it. */
export type TaxRule = z.infer<typeof taxRule>;
const wholeDays = z.number().int().min(0).max(3650);
/** The step a change or a wait belongs to. */
const towardSchema = z.strictObject({ kind: z.enum(['test', 'repair']), id: idSchema, of: idSchema.optional() });
/** What a timer waits for. */
export type Toward = z.infer<typeof towardSchema>;
const entryReference = z.union([z.string().min(1), z.number().int().min(1)]);

/** How a set looks when it comes in. */
export const conditions = ['crack', 'liquid', 'storm', 'dropped', 'smell', 'opened-before', 'screws-missing'] as const;
/** What came with the set. */
export const accessories = ['stand', 'remote', 'cord', 'wall-mount', 'card', 'box'] as const;
/** What has to be agreed to before a step breaks it: by the customer, or, for a chip whose content can't be kept, by who takes it on. */
export const consents = ['warranty', 'data', 'dead-chip'] as const;
/** Looked at before a set is used again; insulation and touch current by the local rule. */
export const closingChecks = ['ground-screws', 'insulation', 'touch-current'] as const;
/** How a check before closing came out. */
export const checkResults = ['passed', 'not-required'] as const;
/** How a fault was confirmed, the surest way first. */
export const confirmedHows = ['both-ways', 'measured', 'cured-by-repair', 'not-proven'] as const;
/** Why a thing to be seen is left out. */
export const skipReasons = [
  'not-on-this-set',
  'not-possible-here',
  'customer-declined',
  'no-time',
  'done-elsewhere',
  'local-rule',
] as const;
/** Who was in it before. */
export const earlierHands = ['owner', 'acquaintance', 'another-shop', 'unknown'] as const;
/** What was done to it before. */
export const earlierWork = ['only-opened', 'boards-swapped', 'parts-replaced', 'memory-written', 'heated'] as const;
/** Where a suggested cause comes from. */
export const theorySources = ['customer', 'web', 'video', 'another-shop', 'dealer', 'colleague'] as const;
/** How a job ends. */
export const outcomesOfAJob = ['repaired', 'repaired-with-known-flaw', 'workaround', 'not-worth-it', 'handed-back'] as const;
/** What a photo shows. */
export const photoSubjects = ['plate', 'board', 'panel-label', 'condition', 'inside', 'other'] as const;
/** What is done to a place to see whether the picture answers. */
export const stimuli = ['touch', 'press', 'flex', 'squeeze', 'warm', 'chill'] as const;
/** What the symptom did under it. */
export const stimulusEffects = ['came', 'went', 'stayed', 'stayed-away', 'cant-tell'] as const;
/** What a customer is offered. */
export const quoteOptions = ['repair', 'with-known-flaw', 'workaround', 'diagnose-only', 'hand-back', 'donor'] as const;
/** Where a part comes from. */
export const partSources = ['new', 'refurbished', 'pulled', 'donor', 'own-stock'] as const;
/** What came in the parcel. `dead`: the right one, and it does not work. */
export const arrivalResults = ['right', 'wrong', 'damaged', 'dead'] as const;
/** Why a part goes back to where it was bought. */
export const returnReasons = ['wrong-part', 'damaged', 'dead-on-arrival', 'not-needed'] as const;
/** What a line of a quote or an invoice is for. */
export const lineKinds = ['labour', 'part', 'diagnostic-fee', 'consumables', 'other'] as const;
/** How an answer to a quote was given. */
export const answerWays = ['in-person', 'phone', 'message', 'email', 'signed'] as const;
/** Languages that papers are written in. */
export const paperLanguages = ['en', 'de'] as const;
/** What became of the part that was replaced. */
export const oldPartFates = ['shown-and-given', 'shown-and-kept', 'returned-to-supplier', 'disposed'] as const;
/** How a bill was paid. */
export const paymentWays = ['cash', 'card', 'transfer', 'open', 'nothing-to-pay'] as const;
/** Whether a set that came back has the fault it came with before. */
export const comebackFaults = ['same', 'other', 'not-known'] as const;
/** Who pays for a set that came back. */
export const comebackPayers = ['warranty', 'customer', 'goodwill'] as const;
/** What a customer is written about. */
export const messageTemplates = ['quote', 'ready', 'part-late', 'collect', 'trial'] as const;
/** What became of a message. */
export const messageResults = ['sent', 'refused', 'unreachable'] as const;

/** Every kind of entry, in its current version. */
export const bodySchemas = {
  'job.opened': z.strictObject({
    kind: z.literal('job.opened'),
    v: z.literal(3),
    set: setFactsSchema,
    condition: z.array(z.enum(conditions)).optional(),
    earlier: plainText.optional(),
    earlierBy: z.enum(earlierHands).optional(),
    /** What was done before it came here: evidence with doubt, and possibly new faults. */
    earlierDid: z.array(z.enum(earlierWork)).optional(),
    /** Came along with the set. */
    accessories: z.array(z.enum(accessories)).optional(),
    otherAccessories: plainText.optional(),
    /** A warranty that still runs ends with the opening. */
    warranty: z.enum(['running', 'over', 'unknown']).optional(),
    /** May settings, recordings and accounts be wiped by a flash or reset? */
    mayLoseData: z.boolean().optional(),
    /** What the customer uses the set for, and what they could do without. */
    needs: plainText.optional(),
    canDoWithout: plainText.optional(),
    /** Of the customer, for what they read. */
    language: z.enum(paperLanguages).optional(),
    /** What was seen from outside: look id -> answer id. */
    looks: z.record(idSchema, idSchema).optional(),
  }),
  /** An explanation somebody brought along: a hypothesis with its kind of source, never a finding. */
  /** Where the set stands in the shop. */
  'set.shelved': z.strictObject({ kind: z.literal('set.shelved'), v: v1, shelf: z.string().trim().min(1).max(60) }),
  'theory.told': z.strictObject({
    kind: z.literal('theory.told'),
    v: v1,
    assembly: idSchema.optional(),
    source: z.enum(theorySources),
    text: plainText,
  }),
  'pack.pinned': z.strictObject({
    kind: z.literal('pack.pinned'),
    v: z.literal(2),
    hash: z.string().regex(/^[0-9a-f]{64}$/),
    /** Number of the counts; 0 is the pack alone; left out: they stay what they were. */
    snapshot: z.number().int().min(0).optional(),
  }),
  'layout.found': z.strictObject({ kind: z.literal('layout.found'), v: z.literal(2), layout: layoutGuessSchema }),
  'symptom.reported': z.strictObject({
    kind: z.literal('symptom.reported'),
    v: z.literal(2),
    symptoms: z.array(idSchema).min(1).max(6),
    /** Seen by the bench itself, and not told by the customer: from then on the case goes by what was seen. */
    seen: z.boolean().optional(),
    /** The customer's own words. */
    words: plainText.optional(),
    often: z.enum(['always', 'sometimes']).optional(),
    temperature: z.enum(['cold', 'warm', 'any']).optional(),
    /** Since when, and after what, as told. */
    since: plainText.optional(),
    after: plainText.optional(),
  }),
  'blink.read': z.strictObject({
    kind: z.literal('blink.read'),
    v: z.literal(3),
    /** Flashes in each group; none where `light` says what was seen instead of a code. */
    groups: z.array(z.number().int().min(1).max(99)).max(4),
    light: z.enum(lightStates).optional(),
    colour: z.enum(lightColours).optional(),
    after: z.enum(blinkAfters).optional(),
    /** Equal counts seen in a row; fewer than two is probabilities over counts, not a reading. */
    cycles: z.number().int().min(0).max(100),
    how: z.enum(blinkWays).optional(),
    /** Of this count, as the reader gave them; and of others. */
    probability: z.number().min(0).max(1).optional(),
    alternatives: z
      .array(z.strictObject({ groups: z.array(z.number().int().min(1).max(99)).min(1).max(4), probability: z.number().min(0).max(1) }))
      .max(8)
      .optional(),
    /** A person put the reader right. */
    corrected: z.boolean().optional(),
    /** What was unplugged meanwhile: the reading then tells of that, and isn't this set's code. */
    out: idSchema.optional(),
    /** Seconds of relay clicks within the recording, and what the light did after the last. */
    clicks: z.array(z.number().finite()).max(20).optional(),
    afterClick: z.enum(['steady', 'blinking', 'dark']).optional(),
    /** The recording, where it was kept: levels of 0 to 99 at even steps, and flashes as begin and end in seconds from its start. */
    trace: z
      .strictObject({
        stepS: z.number().positive().max(10),
        levels: z.array(z.number().int().min(0).max(99)).max(1500),
        flashes: z.array(z.tuple([z.number(), z.number()])).max(400),
      })
      .optional(),
  }),
  'test.answered': z.strictObject({
    kind: z.literal('test.answered'),
    v: z.literal(2),
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
    /** The way there was recorded change by change: the answer itself moves no plug. */
    walked: z.boolean().optional(),
    /** Done in another order than the safe one. */
    anyway: z.boolean().optional(),
  }),
  'reading.taken': z.strictObject({
    kind: z.literal('reading.taken'),
    v: z.literal(2),
    quantity: z.enum(['volts', 'ohms', 'amperes', 'celsius']),
    /** A point of the layout, or connector and number of a pin that the layout knows nothing of. */
    at: idSchema,
    value: z.number(),
    state: z.enum(['unplugged', 'verified', 'standby', 'starting', 'on', 'forced', 'harness-out']),
    /** The pin as it is named on the board: "CN201 pin 3, 12V". */
    pin: z.string().min(1).max(80).optional(),
  }),
  /** An instrument’s result: what was typed as it was understood, and what came out. What it answers is an entry of its own. */
  'instrument.used': z.strictObject({
    kind: z.literal('instrument.used'),
    v: v1,
    instrument: idSchema,
    read: z.record(fieldName, z.string().min(1).max(4000)),
    figures: z.array(z.strictObject({ id: fieldName, value: z.number().finite(), unit: z.enum(units) })).max(40),
    findings: z
      .array(z.strictObject({ code: idSchema, values: z.record(fieldName, z.union([z.string().max(2000), z.number().finite()])) }))
      .max(20),
    /** What it was about. */
    at: idSchema.optional(),
  }),
  /** A board of this set by the number printed on it; `board` is the shop’s own document of it, as of that version. */
  'board.found': z.strictObject({
    kind: z.literal('board.found'),
    v: v1,
    assembly: idSchema,
    number: z.string().trim().min(1).max(80),
    board: z.uuid().optional(),
    version: z.number().int().min(1).max(2_000_000_000).optional(),
  }),
  'set.changed': z.strictObject({
    kind: z.literal('set.changed'),
    v: z.literal(3),
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
    /** Taken off a board; and on again, or another of its kind in its place. */
    lifted: z.array(liftedSchema).max(60).optional(),
    refitted: z.array(partName).max(60).optional(),
    /** Read where a charge may stay, volts dc: point -> value. */
    volts: z.record(idSchema, z.number().finite()).optional(),
    /** At power-up: what was shown as still out, bridged or taped. */
    stillOut: z.array(z.string().min(1).max(120)).max(60).optional(),
    toward: towardSchema.optional(),
    /** Done in another order than the safe one, and recorded as that. */
    anyway: z.boolean().optional(),
  }),
  'wait.started': z.strictObject({
    kind: z.literal('wait.started'),
    v: z.literal(2),
    name: plainText,
    minutes,
    toward: towardSchema.optional(),
  }),
  'wait.ended': z.strictObject({
    kind: z.literal('wait.ended'),
    v: z.literal(2),
    name: plainText,
    /** The entry that started it. */
    wait: entryReference.optional(),
    /** Broken off before its time. */
    early: z.boolean().optional(),
  }),
  /** Until when the customer was told that it would be done, or looked at. */
  'date.promised': z.strictObject({ kind: z.literal('date.promised'), v: v1, on: z.iso.date() }),
  /** All was treated but one place: what that one says is a test of its own. */
  'heat.round': z.strictObject({
    kind: z.literal('heat.round'),
    v: v1,
    left: idSchema,
    way: z.enum(['warm', 'chill']),
    toCelsius: z.number().min(-60).max(120),
    roomCelsius: z.number().min(-30).max(60),
    result: z.enum(['heals', 'stays', 'cant-tell']),
  }),
  /** Touched, pressed, flexed ... at a place, and what the symptom did. */
  'stimulus.tried': z.strictObject({
    kind: z.literal('stimulus.tried'),
    v: v1,
    way: z.enum(stimuli),
    at: idSchema,
    effect: z.enum(stimulusEffects),
    /** A photo of it, and where on it: shares of its width and height from the top left. */
    photo: z.uuid().optional(),
    mark: z.tuple([z.number().min(0).max(1), z.number().min(0).max(1)]).optional(),
    note: plainText.optional(),
  }),
  /** Taking apart behind the back cover: a part off, its screws counted; and back on. */
  'teardown.taken': z.strictObject({
    kind: z.literal('teardown.taken'),
    v: v1,
    part: idSchema,
    screws: z.number().int().min(0).max(200).optional(),
    photo: z.uuid().optional(),
    note: plainText.optional(),
  }),
  'teardown.refitted': z.strictObject({
    kind: z.literal('teardown.refitted'),
    v: v1,
    part: idSchema,
    screws: z.number().int().min(0).max(200).optional(),
  }),
  'caution.read': z.strictObject({
    kind: z.literal('caution.read'),
    v: v1,
    cautions: z.array(idSchema).min(1),
    stage: idSchema.optional(),
  }),
  'advice.shown': z.strictObject({
    kind: z.literal('advice.shown'),
    v: z.literal(2),
    engine: z.string().min(1),
    top: z.array(z.strictObject({ id: idSchema, probability: z.number().min(0).max(1), verdict: z.string() })).max(10),
    next: z.strictObject({ kind: z.string(), id: z.string(), of: idSchema.optional() }).optional(),
  }),
  'repair.done': z.strictObject({
    kind: z.literal('repair.done'),
    v: z.literal(2),
    repair: idSchema,
    /** `changed`: the first symptom went and another came. */
    result: z.enum(['cured', 'unchanged', 'changed', 'not-tried']),
    minutes: minutes.optional(),
    walked: z.boolean().optional(),
    anyway: z.boolean().optional(),
  }),
  'part.fitted': z.strictObject({
    kind: z.literal('part.fitted'),
    v: v1,
    assembly: idSchema,
    number: partNumber,
    source: z.enum(partSources),
    price: money,
    /** Of `part.wanted`; left out: bought over the counter. */
    want: z.uuid().optional(),
    /** Item of the stock that it was taken from. */
    item: z.uuid().optional(),
  }),
  /** A part this job needs; `want` is its id from here to the fitting. */
  'part.wanted': z.strictObject({
    kind: z.literal('part.wanted'),
    v: v1,
    want: z.uuid(),
    assembly: idSchema,
    number: partNumber,
    source: z.enum(partSources),
    price: money,
    supplier: supplierName.optional(),
    /** Until it is here, days. */
    days: wholeDays.optional(),
    /** Of the supplier, days; and how long it may be sent back. */
    warrantyDays: wholeDays.optional(),
    returnDays: wholeDays.optional(),
    /** Day on which the price was read. */
    priceSeenOn: day.optional(),
    /** Item of the stock. */
    item: z.uuid().optional(),
    /** Nothing had proven the assembly when it was picked. */
    unproven: z.boolean().optional(),
  }),
  'part.ordered': z.strictObject({
    kind: z.literal('part.ordered'),
    v: v1,
    want: z.uuid(),
    supplier: supplierName,
    price: money,
    expectedOn: day.optional(),
    /** The supplier’s number of the order. */
    reference: z.string().trim().min(1).max(80).optional(),
    /** Why it was ordered without the customer’s agreement. */
    override: plainText.optional(),
  }),
  'part.arrived': z.strictObject({ kind: z.literal('part.arrived'), v: v1, want: z.uuid(), result: z.enum(arrivalResults) }),
  'part.returned': z.strictObject({
    kind: z.literal('part.returned'),
    v: v1,
    want: z.uuid(),
    reason: z.enum(returnReasons),
    /** What came back of its price. */
    refund: money.optional(),
  }),
  /** Not wanted after all. */
  'part.dropped': z.strictObject({ kind: z.literal('part.dropped'), v: v1, want: z.uuid() }),
  'flash.done': z.strictObject({
    kind: z.literal('flash.done'),
    v: v1,
    memory: z.enum(memories),
    image: z.string().min(1).max(300),
    result: z.enum(flashResults),
  }),
  /** Work on one memory: all steps of a session carry its id. */
  'flash.step': z.strictObject({
    kind: z.literal('flash.step'),
    v: v1,
    session: z.uuid(),
    did: flashDidSchema,
    minutes: minutes.optional(),
  }),
  'photo.added': z.strictObject({
    kind: z.literal('photo.added'),
    v: z.literal(2),
    photo: z.uuid(),
    of: z.enum(photoSubjects).optional(),
    caption: plainText.optional(),
  }),
  'note.added': z.strictObject({ kind: z.literal('note.added'), v: v1, text: plainText }),
  'entry.retracted': z.strictObject({
    kind: z.literal('entry.retracted'),
    v: v1,
    /** Id of the entry, or its seq in a file written by hand. */
    entry: entryReference,
    reason: plainText,
  }),
  'text.redacted': z.strictObject({ kind: z.literal('text.redacted'), v: v1, entry: entryReference, field: z.string().min(1) }),
  'limit.agreed': z.strictObject({
    kind: z.literal('limit.agreed'),
    v: z.literal(2),
    /** May be spent without calling. */
    limit: money.optional(),
    minutes: minutes.optional(),
    /** What looking at it costs, repaired or not. */
    checkFee: money.optional(),
  }),
  /** The customer agreed to what a step breaks: the maker's warranty, or settings and accounts. */
  'consent.given': z.strictObject({ kind: z.literal('consent.given'), v: v1, to: z.enum(consents), who: plainText.optional() }),
  'quote.sent': z.strictObject({
    kind: z.literal('quote.sent'),
    v: z.literal(2),
    total: money,
    /** The other end, where a range was told. */
    upTo: money.optional(),
    options: z.array(z.enum(quoteOptions)).optional(),
    /** What it is made of; amounts as the shop states its prices, with or without tax. */
    lines: z
      .array(
        z.strictObject({
          what: z.enum(lineKinds),
          assembly: idSchema.optional(),
          number: partNumber.optional(),
          minutes: minutes.optional(),
          amount: money,
        }),
      )
      .max(40)
      .optional(),
    tax: taxRule.optional(),
    /** Last day on which it may be accepted at this price. */
    validUntil: day.optional(),
    language: z.enum(paperLanguages).optional(),
    /** What will not work afterwards, or not as before. */
    flaw: plainText.optional(),
  }),
  'quote.answered': z.strictObject({
    kind: z.literal('quote.answered'),
    v: z.literal(2),
    answer: z.enum(['yes', 'no', 'later']),
    option: z.enum(quoteOptions).optional(),
    who: plainText.optional(),
    how: z.enum(answerWays).optional(),
  }),
  /** It leaves the bench running on a stopgap on purpose, to be looked at again. */
  'trial.started': z.strictObject({ kind: z.literal('trial.started'), v: v1, until: day, why: plainText.optional() }),
  'trial.ended': z.strictObject({ kind: z.literal('trial.ended'), v: v1, result: z.enum(['held', 'failed']) }),
  /** The customer has it again. */
  'set.collected': z.strictObject({
    kind: z.literal('set.collected'),
    v: v1,
    who: plainText.optional(),
    oldPart: z.enum(oldPartFates).optional(),
    payment: z.enum(paymentWays).optional(),
    paid: money.optional(),
  }),
  /** The set was here before, and this job follows that one. */
  'comeback.linked': z.strictObject({
    kind: z.literal('comeback.linked'),
    v: v1,
    job: z.uuid(),
    number: z.number().int().min(1).max(2_000_000_000),
    fault: z.enum(comebackFaults),
    pays: z.enum(comebackPayers),
  }),
  /** Nothing of what was written is kept: the template says it again. */
  'message.sent': z.strictObject({
    kind: z.literal('message.sent'),
    v: v1,
    template: z.enum(messageTemplates),
    language: z.enum(paperLanguages),
    result: z.enum(messageResults),
  }),
  /** A thing to be seen before the set leaves was looked at. */
  'proof.checked': z.strictObject({ kind: z.literal('proof.checked'), v: v1, item: idSchema, result: z.enum(['passed', 'failed']) }),
  /** It is left out; a safety check only where the local rule does not ask for it. */
  'proof.skipped': z.strictObject({ kind: z.literal('proof.skipped'), v: v1, item: idSchema, reason: z.enum(skipReasons) }),
  /** Switched on, and whether it came; from the press to the picture, seconds. Cold: after half an hour unplugged or more. */
  'start.timed': z.strictObject({
    kind: z.literal('start.timed'),
    v: v1,
    started: z.boolean(),
    seconds: z.number().min(0).max(3600).optional(),
    cold: z.boolean(),
  }),
  /** It ran in one go for so long. */
  'proof.soaked': z.strictObject({ kind: z.literal('proof.soaked'), v: v1, minutes, result: z.enum(['passed', 'failed']) }),
  'fault.confirmed': z.strictObject({
    kind: z.literal('fault.confirmed'),
    v: v1,
    assembly: idSchema,
    fault: idSchema.optional(),
    /** Left out: nobody said. */
    how: z.enum(confirmedHows).optional(),
    note: plainText.optional(),
  }),
  /** What was built into the set that the maker did not: for whoever opens it next. */
  'modification.recorded': z.strictObject({
    kind: z.literal('modification.recorded'),
    v: v1,
    name: z.string().trim().min(1).max(120),
    wires: z.array(z.strictObject({ from: wireText, to: wireText, carries: wireText.optional(), colour: wireText.optional() })).max(30),
    /** How it is taken out again. */
    undo: z.string().trim().min(1).max(2000),
    /** What the set no longer does. */
    lost: z.string().trim().max(500).optional(),
    /** The set’s own plugs are uncut. */
    plugsKept: z.boolean(),
    /** The supply runs whenever the plug is in. */
    noStandby: z.boolean().optional(),
  }),
  'job.closed': z.strictObject({
    kind: z.literal('job.closed'),
    v: z.literal(2),
    outcome: z.enum(outcomesOfAJob),
    minutes,
    remains: plainText.optional(),
    /** `not-required`: the local rule doesn't ask for it here. */
    checked: z.partialRecord(z.enum(closingChecks), z.enum(checkResults)).optional(),
    /** Plugs out, bridges and tape that stay on purpose, as a recorded modification. */
    modified: z.array(z.string().min(1).max(200)).max(60).optional(),
    /** Of the shop, on this repair. */
    warrantyDays: wholeDays.optional(),
    /** Of the bill: what the settings say later changes no bill that was written. */
    rateMinorPerHour: z.number().int().min(0).max(10_000_000).optional(),
    tax: taxRule.optional(),
  }),
  'job.reopened': z.strictObject({ kind: z.literal('job.reopened'), v: v1, reason: plainText }),
} as const;

/** A kind of entry. */
export type EntryKind = keyof typeof bodySchemas;
/** What an entry of one kind says. */
export type BodyOf<K extends EntryKind> = z.infer<(typeof bodySchemas)[K]>;
/** What an entry says. */
export type Body = { [K in EntryKind]: BodyOf<K> }[EntryKind];
/** All kinds, as they are declared. */
export const entryKinds = Object.keys(bodySchemas) as EntryKind[];

/**
 * Free text that may name or describe a person. The store keeps it in rows of its own, so that it can be emptied while
 * the facts stay; everything else in a body must never carry personal data.
 */
export const personalFields: Partial<Record<EntryKind, readonly string[]>> = {
  'job.opened': ['earlier', 'otherAccessories', 'needs', 'canDoWithout'],
  'theory.told': ['text'],
  'symptom.reported': ['words', 'since', 'after'],
  'photo.added': ['caption'],
  'stimulus.tried': ['note'],
  'teardown.taken': ['note'],
  'note.added': ['text'],
  'entry.retracted': ['reason'],
  'consent.given': ['who'],
  'quote.sent': ['flaw'],
  'quote.answered': ['who'],
  'part.ordered': ['override'],
  'trial.started': ['why'],
  'set.collected': ['who'],
  'fault.confirmed': ['note'],
  'job.closed': ['remains'],
  'job.reopened': ['reason'],
};

/** Text that names things and nobody: it stays with the facts and can't be erased. A test holds that each text is here or personal. */
export const plainFields: Partial<Record<EntryKind, readonly string[]>> = {
  'job.opened': ['set.model', 'set.version'],
  'set.shelved': ['shelf'],
  'test.answered': ['raw', 'words.test', 'words.outcome'],
  'set.changed': ['stillOut[]'],
  'wait.started': ['name'],
  'wait.ended': ['name', 'wait'],
  'advice.shown': ['engine', 'top[].verdict', 'next.kind', 'next.id'],
  'reading.taken': ['pin'],
  'board.found': ['number'],
  // A rail, a load, a part: what a field is about.
  'instrument.used': ['read{}', 'findings[].values{}'],
  'part.fitted': ['number'],
  'part.wanted': ['number', 'supplier'],
  'part.ordered': ['supplier', 'reference'],
  'quote.sent': ['lines[].number'],
  'flash.done': ['image'],
  // Chips, boards, clips and settings.
  'flash.step': [
    'did.name',
    'did.marking',
    'did.companions[]',
    'did.with',
    'did.chip',
    'did.from',
    'did.to',
    'did.differs',
    'did.programmer',
    'did.log',
    'did.board',
    'did.revision',
    'did.panel',
    'did.region',
  ],
  'entry.retracted': ['entry'],
  'text.redacted': ['entry', 'field'],
  'job.closed': ['modified[]'],
  // It names parts and wires, and goes on a label inside the set.
  'modification.recorded': ['name', 'wires[].from', 'wires[].to', 'wires[].carries', 'wires[].colour', 'undo', 'lost'],
};

/** What a personal field reads once it has been emptied: the body stays valid, the person is gone. */
export const redactedText = '[erased]';
