/** Photos as they come from outside: what is no picture is refused, by what it is and not by what it is called. */
import { fileTypeFromBuffer } from 'file-type';
import { againIfOvertaken } from '../http/again.ts';
import { ApiError } from '../http/apiError.ts';
import type { Store } from '../store.ts';
import { findFile, readFile, storeFile, type StoredFile } from './store.ts';

/** Kinds a browser shows and that carry no script: an SVG may, so it is none. */
export const photoTypes = ['image/jpeg', 'image/png', 'image/webp', 'image/avif'] as const;
/** A phone's picture is some 5 MB. */
export const mostPhotoBytes = 20 * 1024 * 1024;

/**
 * First bytes of the kinds above: JPEG (ISO 10918-1), PNG (ISO 15948), RIFF with WEBP (RFC 9649), ISO 14496-12's ftyp box for AVIF.
 * Looked at before anything else reads the bytes: a reader of many kinds opens archives to see what is inside.
 */
function startsAsPhoto(bytes: Uint8Array): boolean {
  const at = (offset: number, text: string): boolean =>
    Buffer.from(bytes.subarray(offset, offset + text.length)).toString('latin1') === text;
  return at(0, '\xff\xd8\xff') || at(0, '\x89PNG\r\n\x1a\n') || (at(0, 'RIFF') && at(8, 'WEBP')) || at(4, 'ftypavif') || at(4, 'ftypavis');
}

/** Throws not-a-photo; too-large is told before the bytes are all here. */
export async function storePhoto(store: Store, id: string, bytes: Uint8Array): Promise<StoredFile> {
  const kind = startsAsPhoto(bytes) ? await fileTypeFromBuffer(bytes) : undefined;
  const mediaType = photoTypes.find((type) => type === kind?.mime);
  if (!mediaType) throw new ApiError('not-a-photo');
  return againIfOvertaken(() => storeFile(store, id, bytes, mediaType));
}

/** Throws not-found. */
export async function readPhoto(store: Store, id: string): Promise<{ file: StoredFile; bytes: Buffer }> {
  const file = await findFile(store, id);
  if (!file) throw new ApiError('not-found');
  return { file, bytes: await readFile(store, id) };
}
