/** Memory images: what one is, how it comes in, how two are compared. */
import { flashResults, imageSources, memories, memoryAreas, mostOwnPlaces, mostReads, ownKinds } from '@veglia/core';
import { z } from 'zod';

const sha256Hex = z.string().regex(/^[0-9a-f]{64}$/);
const printed = z.string().trim().min(1).max(120);
const place = z
  .number()
  .int()
  .min(0)
  .max(2 ** 40);
/** Places of what belongs to one set, in order, none over another. */
const ownPlaces = z
  .array(z.strictObject({ from: place, to: place, kind: z.enum(ownKinds) }))
  .max(mostOwnPlaces)
  .refine(
    (all) => all.every(({ from, to }, index) => from < to && from >= (all[index - 1]?.to ?? 0)),
    'places in order, none over another',
  );
/** What an image is: never its file name alone. */
export const imageFactsSchema = z.strictObject({
  name: printed,
  memory: z.enum(memories),
  area: z.enum(memoryAreas),
  source: z.enum(imageSources),
  /** As printed on the chip. */
  chip: printed.optional(),
  board: printed.optional(),
  revision: printed.optional(),
  /** The panel it drives. */
  panel: printed.optional(),
  /** Pixels of that panel. */
  resolution: z.tuple([z.number().int().min(1).max(20_000), z.number().int().min(1).max(20_000)]).optional(),
  region: printed.optional(),
  /** The memory whose content goes with it. */
  companion: printed.optional(),
  /** The job it was read in. */
  job: z.uuid().optional(),
  /** Made from several reads of a failing chip. */
  reconstructed: z.strictObject({ reads: z.number().int().min(3), doubtfulBytes: z.number().int().min(0) }).optional(),
  /** May hold a customer’s accounts and keys. */
  userData: z.boolean().optional(),
  /** Serial number, hardware addresses, keys: what no other set has. Bytes from the start, `to` behind the last. */
  own: ownPlaces.optional(),
  /** SHA-256 of the dump whose own content was put into it. */
  ownFrom: sha256Hex.optional(),
});
/** What an image is. */
export type ImageFacts = z.infer<typeof imageFactsSchema>;

/** A stored image: size in bytes, hashes in hex. */
export const imageSchema = z.object({
  id: z.uuid(),
  size: z.number().int(),
  sha256: z.string(),
  crc32: z.string(),
  md5: z.string(),
  by: z.uuid(),
  at: z.string(),
  facts: imageFactsSchema,
});
/** A stored image. */
export type Image = z.infer<typeof imageSchema>;
/** Images, newest first. */
export const imagesSchema = z.object({ images: z.array(imageSchema) });
/** Search in the library. */
export const listImagesQuery = z.object({ q: z.string().max(120).optional() });
/** Makes what arrived an image, or replaces what is said of one. */
export const publishImageSchema = z.strictObject({
  by: z.uuid(),
  size: z.number().int().min(1),
  sha256: sha256Hex.optional(),
  facts: imageFactsSchema,
});
/** What makes an upload an image. */
export type PublishImage = z.infer<typeof publishImageSchema>;
/** Where the bytes of a request belong: offset from the start of the image. */
export const uploadQuery = z.object({
  at: z.coerce
    .number()
    .int()
    .min(0)
    .max(2 ** 40),
});
/** How many bytes of an image have arrived. */
export const receivedSchema = z.object({ received: z.number().int() });
/** Two images. */
export const imagePairParams = z.object({ id: z.uuid(), other: z.uuid() });
/** Where two images differ, in bytes from the start; `to` is behind the last. */
export const imageComparisonSchema = z.object({
  equal: z.boolean(),
  sizes: z.tuple([z.number().int(), z.number().int()]),
  chunkBytes: z.number().int(),
  chunks: z.number().int(),
  differing: z.number().int(),
  runs: z.array(z.object({ from: z.number().int(), to: z.number().int() })),
});
/** Where two images differ. */
export type ImageComparison = z.infer<typeof imageComparisonSchema>;

/** Several reads of a failing chip, to be made one by majority. */
export const combineImagesSchema = z.strictObject({
  by: z.uuid(),
  reads: z.array(z.uuid()).min(3).max(mostReads),
  facts: imageFactsSchema,
});
/** Reads to be made one. */
export type CombineImages = z.infer<typeof combineImagesSchema>;
/** What a majority came to; certainty is that of every unsteady bit together. */
export const combinedSchema = z.object({
  image: imageSchema,
  reads: z.number().int(),
  unsteadyBytes: z.number().int(),
  /** Unsteady bits that came out 1 and 0. */
  ones: z.number().int(),
  zeros: z.number().int(),
  certainty: z.number(),
  /** Reads in all after which it should be as sure as 0.99; null where more reads do not get there. */
  readsFor99: z.number().int().nullable(),
});
/** What a majority came to. */
export type Combined = z.infer<typeof combinedSchema>;

/** An image, and a dump with own content marked. */
export const putOwnSchema = z.strictObject({ by: z.uuid(), into: z.uuid(), own: z.uuid() });
/** An image, and a dump with own content marked. */
export type PutOwn = z.infer<typeof putOwnSchema>;
/** What was said of an image before, newest first: who said otherwise, and when. */
export const imageFactsBeforeSchema = z.object({
  before: z.array(z.object({ facts: imageFactsSchema, by: z.uuid(), at: z.string() })),
});
/** What was said of an image before. */
export type ImageFactsBefore = z.infer<typeof imageFactsBeforeSchema>;

/** A board, and the panel it drives, as printed. */
export const flashHistoryQuery = z.object({ board: printed, panel: printed.optional() });
/** What the shop has seen on a board: images with what the sets did then, settings that started sets were left with. */
export const flashHistorySchema = z.object({
  trials: z.array(
    z.object({
      sha256: z.string(),
      board: z.string(),
      panel: z.string().optional(),
      revision: z.string().optional(),
      result: z.enum(flashResults),
    }),
  ),
  settings: z.array(z.object({ name: z.string(), to: z.string(), sets: z.number().int() })),
});
/** What the shop has seen on a board. */
export type FlashHistory = z.infer<typeof flashHistorySchema>;

/** Who erases an image, and why. */
export const eraseImageSchema = z.strictObject({ by: z.uuid(), reason: z.string().trim().min(1).max(400) });
/** Who erases an image, and why. */
export type EraseImage = z.infer<typeof eraseImageSchema>;
/** An image that was erased; `by` null: its time was over. */
export const imageErasureSchema = z.object({
  id: z.uuid(),
  sha256: z.string(),
  size: z.number().int(),
  name: z.string(),
  reason: z.string(),
  by: z.uuid().nullable(),
  at: z.string(),
});
/** An image that was erased. */
export type ImageErasure = z.infer<typeof imageErasureSchema>;
/** Images that were erased, newest first. */
export const imageErasuresSchema = z.object({ erased: z.array(imageErasureSchema) });
