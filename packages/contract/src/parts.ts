/** Parts over the wire: the stock, offers of suppliers, orders across jobs, and what was paid before. */
import { idSchema, moveReasons, partSources, partStates, stockItemSchema, arrivalResults, orderRefusals } from '@veglia/core';
import { z } from 'zod';

const moneySchema = z.object({ amountMinor: z.number().int(), currency: z.string() });
const mostPieces = 100_000;

/** A part on a job’s card. */
export const cardPartSchema = z.object({
  want: z.uuid(),
  assembly: idSchema,
  number: z.string(),
  source: z.enum(partSources),
  state: z.enum(partStates),
  price: moneySchema,
  supplier: z.string().optional(),
  expectedOn: z.string().optional(),
  orderedOn: z.string().optional(),
  unproven: z.boolean(),
  arrival: z.enum(arrivalResults).optional(),
  item: z.uuid().optional(),
  /** What stands between it and its order. */
  refused: z.object({ why: z.enum(orderRefusals), overMinor: z.number().optional() }).optional(),
});
/** A part on a job’s card. */
export type CardPart = z.infer<typeof cardPartSchema>;

/** An item of the stock as it is kept, with its pieces: those there are, and those that jobs have set aside. */
export const stockStateSchema = z.object({
  version: z.number().int().min(1),
  item: stockItemSchema,
  count: z.number().int(),
  reserved: z.number().int(),
  by: z.uuid(),
  at: z.iso.datetime(),
});
/** An item of the stock with its count. */
export type StockState = z.infer<typeof stockStateSchema>;
/** As many items are listed at most; a search names the rest. */
export const mostStockListed = 2000;
/** What the stock is asked for: words that all have to be in the document. */
export const listStockQuery = z.object({ find: z.string().trim().max(200).default(''), retired: z.stringbool().default(false) });
/** Which items are asked for. */
export type ListStock = z.output<typeof listStockQuery>;
/** Items; `more`: there are more than are listed. */
export const stockListSchema = z.object({ items: z.array(stockStateSchema), more: z.boolean() });
/** An item added or replaced as a whole; `version` is the one it was looked at in, 0 for a new one. */
export const changeStockSchema = z.strictObject({
  by: z.uuid(),
  version: z.number().int().min(0).max(2_000_000_000),
  item: stockItemSchema,
});
/** An item to be kept. */
export type ChangeStock = z.output<typeof changeStockSchema>;
/** Pieces that came or went; its id makes a retry the same move. */
export const moveStockSchema = z.strictObject({
  id: z.uuid(),
  by: z.uuid(),
  change: z.number().int().min(-mostPieces).max(mostPieces),
  reason: z.enum(moveReasons),
});
/** Pieces that came or went. */
export type MoveStock = z.infer<typeof moveStockSchema>;
/** Moves of an item, newest first. */
export const stockMovesSchema = z.object({
  moves: z.array(
    z.object({
      change: z.number().int(),
      reason: z.enum(moveReasons),
      /** Number of the job it was fitted in, or put back from. */
      job: z.number().int().nullable(),
      by: z.uuid(),
      at: z.iso.datetime(),
    }),
  ),
});
/** Moves of an item. */
export type StockMoves = z.infer<typeof stockMovesSchema>;

/** Parts of open jobs that are to be ordered, on order, here, or to be sent back. */
export const ordersSchema = z.object({
  jobs: z.array(
    z.object({
      jobId: z.uuid(),
      number: z.number().int(),
      title: z.string(),
      lastSeq: z.number().int(),
      promisedOn: z.string().nullable(),
      parts: z.array(cardPartSchema),
    }),
  ),
  /** Fitted more than once within a year, and none of it in stock: worth keeping. */
  proposed: z.array(z.object({ assembly: idSchema, number: z.string(), fitted: z.number().int(), lastOn: z.string() })),
});
/** Parts of open jobs. */
export type Orders = z.infer<typeof ordersSchema>;

/** A part by its number; what stands between letters and digits is of no account. */
export const partNumberQuery = z.object({ number: z.string().trim().min(1).max(120) });
/** Prices that were paid or asked for a number, newest first, each with its day and where it came from. */
export const partPricesSchema = z.object({
  prices: z.array(
    z.object({
      price: moneySchema,
      on: z.string(),
      supplier: z.string().nullable(),
      what: z.enum(['wanted', 'ordered', 'fitted']),
      source: z.enum(partSources).nullable(),
    }),
  ),
});
/** Prices that were paid or asked for a number. */
export type PartPrices = z.infer<typeof partPricesSchema>;

/** Why a supplier gave no offers. */
export const offerTroubles = ['unreachable', 'slow', 'failed', 'unreadable'] as const;
/** Why a supplier gave no offers. */
export type OfferTrouble = (typeof offerTroubles)[number];
/** What a supplier’s service replies: this, as JSON, to GET ADDRESS?number=NUMBER. */
export const offersReplySchema = z.object({
  format: z.literal('veglia-offers'),
  version: z.literal(1),
  offers: z
    .array(
      z.object({
        /** As the supplier has it: it may be another one. */
        number: z.string().trim().min(1).max(120),
        title: z.string().trim().max(300).default(''),
        condition: z.enum(['new', 'refurbished', 'pulled']),
        price: z.object({ amountMinor: z.number().int().min(0).max(1_000_000_000), currency: z.string().regex(/^[A-Z]{3}$/) }),
        /** Until it is here; and pieces there. */
        days: z.number().int().min(0).max(365).nullable().default(null),
        inStock: z.number().int().min(0).max(1_000_000).nullable().default(null),
        warrantyDays: z.number().int().min(0).max(3650).nullable().default(null),
        /** How long it may be sent back; 0: not at all. */
        returnDays: z.number().int().min(0).max(365).nullable().default(null),
      }),
    )
    .max(200),
});
/** What a supplier’s service replies. */
export type OffersReply = z.infer<typeof offersReplySchema>;
/** An offer beside its supplier. `match`: whether its number is the one that was asked for. */
export const offersSchema = z.object({
  askedAt: z.iso.datetime(),
  offers: z.array(offersReplySchema.shape.offers.element.extend({ supplier: z.string(), match: z.enum(['same-number', 'other-number']) })),
  troubles: z.array(z.object({ supplier: z.string(), trouble: z.enum(offerTroubles) })),
});
/** Offers of all suppliers, side by side. */
export type Offers = z.infer<typeof offersSchema>;
