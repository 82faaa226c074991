/** Photos as they come from outside: what is no picture is refused, by what it is and not by what it is called. */
import { fileTypeFromBuffer } from 'file-type';
import { ApiError } from '../http/apiError.ts';
import type { Store } from '../store.ts';
import { findFile, readFile, storeFile, type StoredFile } from './store.ts';

/** Kinds a browser shows and that carry no script: an SVG may, so it is none. */
export const photoTypes = ['image/jpeg', 'image/png', 'image/webp', 'image/avif'] as const;
/** A phone's picture is some 5 MB. */
export const mostPhotoBytes = 20 * 1024 * 1024;

/** Throws not-a-photo; too-large is told before the bytes are all here. */
export async function storePhoto(store: Store, id: string, bytes: Uint8Array): Promise<StoredFile> {
  const kind = await fileTypeFromBuffer(bytes);
  const mediaType = photoTypes.find((type) => type === kind?.mime);
  if (!mediaType) throw new ApiError('not-a-photo');
  return storeFile(store, id, bytes, mediaType);
}

/** Throws not-found. */
export async function readPhoto(store: Store, id: string): Promise<{ file: StoredFile; bytes: Buffer }> {
  const file = await findFile(store, id);
  if (!file) throw new ApiError('not-found');
  return { file, bytes: await readFile(store, id) };
}
