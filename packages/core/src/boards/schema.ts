/**
 * A board as a shop knows it: its printed number, pictures with marks, what belongs at its pins, and faults it is known for. A document of its
 * own (`veglia-board`, version 1), to be kept, handed on and read in. Places on a picture are shares of its width and height from the top left.
 */
import { z } from 'zod';
import { idSchema, pinStates } from '../knowledge/index.ts';
import { InputRefused, problemsOfSchema } from '../problems.ts';

const v1 = z.literal(1);
const spotSchema = z.tuple([z.number().min(0).max(1), z.number().min(0).max(1)]);
/** A place on a picture. */
export type BoardSpot = z.infer<typeof spotSchema>;

/** Most of each; values of ours, well above what a board has. */
export const mostPins = 120;
const most = { pictures: 12, marks: 300, expectations: 20, cards: 60 };

/** What belongs at a pin or part in one state of the set. */
export const pinExpectationSchema = z.strictObject({
  state: z.enum(pinStates),
  quantity: z.enum(['volts', 'ohms']),
  /** Volts or ohms to chassis; of several good boards the middle one. */
  value: z.number().finite(),
  /** From and to over good boards. */
  least: z.number().finite().optional(),
  most: z.number().finite().optional(),
  source: z.enum(['printed', 'measured']),
  /** Good boards it was measured on. */
  n: z.number().int().min(1).max(10_000).optional(),
});
/** What belongs at a pin in one state. */
export type PinExpectation = z.infer<typeof pinExpectationSchema>;

const pinSchema = z.strictObject({
  /** As printed; empty where nothing is. */
  label: z.string().trim().max(24),
  /** Point of the layout, where the label doesn’t tell. */
  point: idSchema.optional(),
  expects: z.array(pinExpectationSchema).max(most.expectations).default([]),
});
/** A pin of a connector. */
export type Pin = z.infer<typeof pinSchema>;

/** What a mark that is no connector stands for. */
export const markKinds = ['test-point', 'part', 'fuse', 'supply-link', 'take-off-first', 'hazard'] as const;
/** One of `markKinds`. */
export type MarkKind = (typeof markKinds)[number];

const name = z.string().trim().min(1, 'enter what is printed there').max(40);
const note = z.string().trim().max(400).optional();

/** A connector: pin 1 is at its marked end; in two rows odd numbers are in the first and even ones across from them. */
const connectorSchema = z.strictObject({
  kind: z.literal('connector'),
  id: z.uuid(),
  name,
  /** Plug or board of the layout it belongs to; left out: the board’s own. */
  on: idSchema.optional(),
  first: spotSchema,
  /** Last pin of the first row. */
  last: spotSchema,
  /** Pin 2, where there are two rows. */
  across: spotSchema.optional(),
  pins: z.array(pinSchema).min(1).max(mostPins),
  note,
});
/** A connector on a picture. */
export type Connector = z.infer<typeof connectorSchema>;

const spotMarkSchema = z.strictObject({
  kind: z.enum(markKinds),
  id: z.uuid(),
  name,
  at: spotSchema,
  point: idSchema.optional(),
  /** How far it rises in a good set within a minute of power-on, °C. */
  warm: z.number().min(0.5).max(200).optional(),
  expects: z.array(pinExpectationSchema).max(most.expectations).default([]),
  note,
});
/** A mark of one place. */
export type SpotMark = z.infer<typeof spotMarkSchema>;

/** A mark on a picture. */
export const markSchema = z.discriminatedUnion('kind', [connectorSchema, spotMarkSchema]);
/** A mark on a picture. */
export type Mark = z.infer<typeof markSchema>;

/** A fault this board is known for. */
export const faultCardSchema = z.strictObject({
  id: z.uuid(),
  /** What the set shows. */
  sign: z.string().trim().min(1, 'enter what the set shows').max(300),
  /** How it is proven in two minutes. */
  proof: z.string().trim().min(1, 'enter how it is proven').max(600),
  /** What else looks like it. */
  alike: z.string().trim().max(400).optional(),
  part: z.string().trim().max(120).optional(),
  /** Minor units of the shop’s currency. */
  priceMinor: z.number().int().min(0).max(100_000_000).optional(),
  fault: idSchema.optional(),
  /** How often it was this, and how often it was thought to be and wasn’t. */
  hits: z.number().int().min(0).max(100_000),
  misses: z.number().int().min(0).max(100_000),
});
/** A fault a board is known for. */
export type FaultCard = z.infer<typeof faultCardSchema>;

/** A board’s document. */
export const boardSchema = z.strictObject({
  format: z.literal('veglia-board'),
  version: v1,
  id: z.uuid(),
  /** As printed on it. */
  number: z.string().trim().min(1, 'enter the number printed on the board').max(80),
  assembly: idSchema,
  /** Layout its points are looked up in. */
  layout: idSchema,
  families: z.array(idSchema).max(60).default([]),
  notes: z.string().trim().max(4000).default(''),
  /** No longer offered; what was recorded with it stays. */
  retired: z.boolean().default(false),
  pictures: z
    .array(
      z.strictObject({
        id: z.uuid(),
        /** A stored photo. */
        photo: z.uuid(),
        name: z.string().trim().max(80).default(''),
        marks: z.array(markSchema).max(most.marks),
      }),
    )
    .max(most.pictures)
    .default([]),
  cards: z.array(faultCardSchema).max(most.cards).default([]),
});
/** A board as a shop knows it. */
export type Board = z.infer<typeof boardSchema>;
/** As written, before defaults. */
export type BoardInput = z.input<typeof boardSchema>;

/** Throws InputRefused with every issue. */
export function parseBoard(document: unknown): Board {
  const read = boardSchema.safeParse(document);
  if (!read.success) throw new InputRefused(problemsOfSchema(read.error.issues, 'board'));
  return read.data;
}
