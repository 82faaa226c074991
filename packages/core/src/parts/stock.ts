/** What lies on a shop’s shelves to be fitted: an item’s document. How many there are follows from its moves, and stands nowhere in it. */
import { z } from 'zod';
import { idSchema } from '../knowledge/index.ts';
import { moneySchema } from '../ledger/index.ts';

/** What an item is. `donor`: a whole set that boards and chips are taken from. */
export const stockKinds = ['board', 'strips', 'chip', 'part', 'consumable', 'donor'] as const;
/** How an item was come by. */
export const stockConditions = ['new', 'refurbished', 'pulled', 'donor'] as const;
/** How an item goes with a number, model or panel. */
export const fitHows = ['same', 'supersedes', 'needs-setting', 'needs-image', 'does-not-fit'] as const;
/** What is known of a board or chip within a donor; `taken`: it is in another set now. */
export const donorStates = ['good', 'untested', 'bad', 'taken'] as const;
/** Why a count changed. */
export const moveReasons = ['bought', 'counted', 'fitted', 'put-back', 'used', 'pulled-from-donor', 'sent-back', 'scrapped'] as const;

const text = z.string().trim().min(1).max(120);
const days = z.number().int().min(0).max(3650);

/** A set of LED strips in figures. */
export const stripsSchema = z.strictObject({
  /** Strips of the set, and LEDs on each. */
  strips: z.number().int().min(1).max(60),
  leds: z.number().int().min(1).max(60),
  lengthMm: z.number().min(10).max(3000).optional(),
  connector: text.optional(),
  /** Of one LED, volts dc. */
  ledVolts: z.number().min(1).max(40).optional(),
});
/** A set of LED strips in figures. */
export type Strips = z.infer<typeof stripsSchema>;

/** Holds for what it names: a board’s number, a set’s model, a panel’s number; all that is named has to match. */
export const fitRowSchema = z
  .strictObject({
    number: text.optional(),
    model: text.optional(),
    panel: text.optional(),
    how: z.enum(fitHows),
    note: z.string().trim().max(400).optional(),
  })
  .refine(
    ({ number, model, panel }) => number !== undefined || model !== undefined || panel !== undefined,
    'name a number, a model or a panel',
  );

/** An item of the stock; amounts per piece. */
export const stockItemSchema = z.strictObject({
  id: z.uuid(),
  what: z.enum(stockKinds),
  /** As printed on it; of a donor the set’s model. */
  number: text,
  name: z.string().trim().max(120).optional(),
  assembly: idSchema.optional(),
  revision: text.optional(),
  /** Number of the panel it was used with. */
  panel: text.optional(),
  condition: z.enum(stockConditions),
  place: text.optional(),
  cost: moneySchema.optional(),
  price: moneySchema.optional(),
  supplier: text.optional(),
  /** What the shop gives on it. */
  warrantyDays: days.optional(),
  /** Fewer than this: to be ordered. */
  least: z.number().int().min(0).max(10_000).optional(),
  photo: z.uuid().optional(),
  note: z.string().trim().max(2000).optional(),
  fits: z.array(fitRowSchema).max(60).default([]),
  strips: stripsSchema.optional(),
  donor: z
    .strictObject({
      sizeInch: z.number().min(5).max(200).optional(),
      boards: z.array(z.strictObject({ assembly: idSchema, number: text, revision: text.optional(), state: z.enum(donorStates) })).max(40),
      chips: z.array(z.strictObject({ marking: text, on: idSchema.optional(), state: z.enum(donorStates) })).max(60),
    })
    .optional(),
  /** Kept for the record, and offered no more. */
  retired: z.boolean().optional(),
});
/** An item of the stock. */
export type StockItem = z.output<typeof stockItemSchema>;
/** An item before its defaults. */
export type StockItemInput = z.input<typeof stockItemSchema>;

/** What a job looks for: a board or strips by number and figures, or a chip by what is printed on it. */
export interface PartWanted {
  readonly assembly?: string | undefined;
  readonly number?: string | undefined;
  readonly revision?: string | undefined;
  /** Of the set. */
  readonly panel?: string | undefined;
  readonly model?: string | undefined;
  readonly strips?: Partial<Strips> | undefined;
  readonly chip?: string | undefined;
}

/** Numbers are compared by letters and digits alone: dashes, blanks and case are written as anybody likes. */
export const numberKey = (text: string): string =>
  text
    .normalize('NFKC')
    .toUpperCase()
    .replace(/[^\p{L}\p{N}]/gu, '');
