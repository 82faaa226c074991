/**
 * Boards with their pictures as one file (`veglia-boards`, version 1): to be handed to another bench and read in there.
 */
import { z } from 'zod';
import { InputRefused, problemsOfSchema } from '../problems.ts';
import { boardSchema, type Board } from './schema.ts';

/** Pictures a browser shows; what they really are, the server finds out. */
const photoSchema = z.strictObject({ id: z.uuid(), base64: z.base64().min(1) });
/** Boards and the photos that their pictures name. */
export const boardFileSchema = z.strictObject({
  format: z.literal('veglia-boards'),
  version: z.literal(1),
  boards: z.array(boardSchema).min(1).max(500),
  photos: z.array(photoSchema).max(2000),
});
/** Boards and the photos that their pictures name. */
export type BoardFile = z.infer<typeof boardFileSchema>;

/** Throws InputRefused with every issue; a picture whose photo isn’t in the file is one of them. */
export function parseBoardFile(document: unknown): BoardFile {
  const read = boardFileSchema.safeParse(document);
  if (!read.success) throw new InputRefused(problemsOfSchema(read.error.issues, 'file'));
  const there = new Set(read.data.photos.map(({ id }) => id));
  const missing = read.data.boards.flatMap(({ number, pictures }) =>
    pictures.filter(({ photo }) => !there.has(photo)).map(({ photo }) => ({ number, photo })),
  );
  if (missing.length > 0)
    throw new InputRefused(
      missing.map(({ number, photo }) => ({ code: 'unknown-id', where: `file.boards (${number})`, value: photo, expected: 'photo' })),
    );
  return read.data;
}

/** Ids of the photos that boards name, each once. */
export const photosOf = (boards: readonly Board[]): string[] => [
  ...new Set(boards.flatMap(({ pictures }) => pictures.map(({ photo }) => photo))),
];
