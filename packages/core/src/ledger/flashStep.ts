/** What is recorded of work on a memory, step by step; the order and what opens a step are in `firmware/`. */
import { z } from 'zod';

/** Memories that are flashed. */
export const memories = ['eeprom', 'spi-nor', 'emmc'] as const;
/** A memory of one piece, or the pieces of an eMMC: each is read, written and kept for itself. */
export const memoryAreas = ['whole', 'boot-1', 'boot-2', 'user'] as const;
/** One of `memoryAreas`. */
export type MemoryArea = (typeof memoryAreas)[number];
/** Why a memory is suspected. */
export const flashWhys = [
  'rails-good-no-start',
  'slow-start',
  'restart-loop',
  'cold-clears',
  'garbled-after-swap',
  'app-fault',
  'donor',
  'other',
] as const;
/** What is to become of the memory. */
export const flashPlans = ['rewrite', 'onto-new', 'ready-written', 'keep-only', 'move'] as const;
/** How the chip is reached. */
export const waysIn = ['clip', 'in-place', 'lifted', 'socket'] as const;
/** What feeds the chip. */
export const flashFeeds = ['programmer', 'board', 'bench-supply'] as const;
/** Where an image comes from. */
export const imageSources = ['own-set', 'own-library', 'dealer', 'web'] as const;
/** Judgement of an image against the set it goes into. */
export const imageFits = ['fits', 'unsure', 'does-not-fit'] as const;
/** Looked at before the set gets power again. */
export const wayOutChecks = ['supply-off', 'wires-off', 'clip-off', 'bridges-none', 'clock-runs', 'chip-fitted'] as const;
/** Why a person goes past a gate; each is a fact that makes the missing evidence impossible or needless. */
export const overrideReasons = ['chip-unreadable', 'new-chip-empty', 'kept-elsewhere', 'maker-procedure', 'taken-on'] as const;
/** What came of a flash. */
export const flashResults = ['starts', 'no-change', 'failed'] as const;

/** What the picture looks like after a setting was changed. */
export const pictureLooks = ['right', 'upside-down', 'mirrored', 'wrong-colours', 'striped', 'doubled', 'no-picture', 'too-dark'] as const;

const sha256 = z.string().regex(/^[0-9a-f]{64}$/);
const bytes = z
  .number()
  .int()
  .min(1)
  .max(2 ** 40);
const volts = z.number().min(0).max(30);
const short = z.string().trim().min(1).max(80);
const extent = z.enum(['whole', 'sampled']);
/** Of what another programmer wrote of its work. */
export const mostLogLetters = 20_000;
const log = z.string().trim().min(1).max(mostLogLetters).optional();
const area = z.enum(memoryAreas);
const register = z.string().regex(/^[0-9a-f]{2}$/);

/** One step of a flash. `step` tells which. */
export const flashDidSchema = z.discriminatedUnion('step', [
  z.strictObject({
    step: z.literal('opened'),
    memory: z.enum(memories),
    /** As printed on the board: "U402". */
    name: short,
    /** As printed on the chip. */
    marking: short.optional(),
    /** Of each area, where it is known: bytes. */
    sizes: z.partialRecord(area, bytes).optional(),
    areas: z.array(area).min(1).max(4),
    why: z.enum(flashWhys),
    plan: z.enum(flashPlans),
    /** Memories that hold one content together with this one. */
    companions: z.array(short).max(8).optional(),
  }),
  z.strictObject({
    step: z.literal('supply'),
    coreVolts: volts.optional(),
    ioVolts: volts,
    programmerVolts: volts,
    feeds: z.array(z.enum(flashFeeds)).min(1).max(3),
  }),
  z.strictObject({
    step: z.literal('entered'),
    way: z.enum(waysIn),
    /** Which clip or carrier: two that differ tell a bad contact from a dead chip. */
    with: short.optional(),
    clockStopped: z.boolean().optional(),
    photo: z.uuid().optional(),
  }),
  z.strictObject({
    step: z.literal('identified'),
    /** This memory, a good one of its type, or the one that takes its place. */
    of: z.enum(['this', 'good-one', 'new-one']),
    result: z.enum(['found', 'not-detected', 'other']),
    chip: short.optional(),
    /** As read: maker and device, hexadecimal. */
    code: z
      .string()
      .regex(/^[0-9a-f]{2,16}$/)
      .optional(),
    bytes: bytes.optional(),
  }),
  z.strictObject({
    step: z.literal('read'),
    area,
    sha256: sha256.optional(),
    bytes,
    extent,
    /** The stored dump. */
    image: z.uuid().optional(),
    /** Of a sampled one: equal to the dump at every place looked at. */
    agrees: z.boolean().optional(),
    /** Partitions and file systems where they belong. */
    structure: z.enum(['sound', 'broken']).optional(),
    cold: z.boolean().optional(),
    /** Nothing in it: each byte the same. */
    allSame: z.enum(['ff', '00']).optional(),
    /** One content several times over, each of so many bytes. */
    repeats: bytes.optional(),
    /** Of the programmer it was read with, as it wrote it. */
    log,
  }),
  /** Boot registers of an eMMC, byte by byte in hexadecimal: not part of any area that is read. */
  z.strictObject({
    step: z.literal('boot-config'),
    of: z.enum(['this', 'new-one']),
    partition: register,
    bus: register,
    reset: register,
  }),
  /** Several reads of a failing chip made one. */
  z.strictObject({
    step: z.literal('rebuilt'),
    area,
    sha256,
    bytes,
    image: z.uuid(),
    reads: z.number().int().min(3).max(99),
    doubtfulBytes: z.number().int().min(0),
  }),
  /** What an image has to fit: numbers as printed, `pairs` of the picture cable with its clocks. */
  z.strictObject({
    step: z.literal('target'),
    board: short.optional(),
    revision: short.optional(),
    panel: short.optional(),
    resolution: z.tuple([z.number().int().min(1).max(20_000), z.number().int().min(1).max(20_000)]).optional(),
    pairs: z.number().int().min(1).max(64).optional(),
    region: short.optional(),
  }),
  z.strictObject({
    step: z.literal('chosen'),
    area,
    sha256,
    bytes,
    image: z.uuid(),
    source: z.enum(imageSources),
    fit: z.enum(imageFits),
  }),
  /** This area is kept and not written. */
  z.strictObject({ step: z.literal('left-alone'), area }),
  /** Written down before a programmer touches the content: whatever becomes of it, the old content is gone from here on. */
  z.strictObject({ step: z.literal('began'), area, work: z.enum(['erase', 'program']), programmer: short }),
  z.strictObject({ step: z.literal('erased'), area }),
  z.strictObject({ step: z.literal('blank'), area, result: z.enum(['blank', 'not-blank']), extent }),
  z.strictObject({ step: z.literal('programmed'), area, sha256, log }),
  z.strictObject({
    step: z.literal('verified'),
    area,
    result: z.enum(['equal', 'differs']),
    extent,
    /** First byte that differs. */
    first: z.number().int().min(0).optional(),
    log,
  }),
  /** A chip bought ready-written, or one from another board, takes the place of the old one. */
  z.strictObject({ step: z.literal('fitted'), from: short, to: short, differs: short.optional() }),
  z.strictObject({ step: z.literal('way-out'), checked: z.array(z.enum(wayOutChecks)).max(6) }),
  z.strictObject({ step: z.literal('started'), result: z.enum(flashResults) }),
  z.strictObject({ step: z.literal('setting'), name: short, from: short.optional(), to: short, shows: z.enum(pictureLooks).optional() }),
  z.strictObject({
    step: z.literal('overrode'),
    gate: z.string().regex(/^[a-z-]{3,40}$/),
    area: area.optional(),
    reason: z.enum(overrideReasons),
  }),
]);
/** One step of a flash. */
export type FlashDid = z.infer<typeof flashDidSchema>;
