/** Boards with their pictures, as one file out and in. */
import { parseBoardFile, photosOf, type Board, type BoardFile } from '@veglia/core';
import { api } from '../../api.ts';
import { photoBytes } from '../../stores/photos.ts';

async function base64Of(blob: Blob): Promise<string> {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  let text = '';
  // As many as a call takes for arguments everywhere.
  for (let at = 0; at < bytes.length; at += 8192) text += String.fromCharCode(...bytes.subarray(at, at + 8192));
  return btoa(text);
}
const bytesOf = (base64: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));

/** Throws NotReached where a photo can’t be had. */
export async function writeBoardFile(boards: readonly Board[]): Promise<BoardFile> {
  const photos = await Promise.all(photosOf(boards).map(async (id) => ({ id, base64: await base64Of(await photoBytes(id)) })));
  return { format: 'veglia-boards', version: 1, boards: [...boards], photos };
}

/** Boards of a file, their photos stored. Throws InputRefused, SyntaxError, NotReached; a photo the server refuses comes back with why. */
export async function readBoardFile(text: string): Promise<{ readonly boards: readonly Board[] } | { readonly refused: string }> {
  const { boards, photos } = parseBoardFile(JSON.parse(text));
  for (const { id, base64 } of photos) {
    const reply = await api.putPhoto(id, new Blob([bytesOf(base64)]));
    if (!reply.ok) return { refused: reply.problem.title };
  }
  return { boards };
}
