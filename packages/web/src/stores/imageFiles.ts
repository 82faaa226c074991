/** A chosen file as the bytes of a memory: unpacked, and read from hexadecimal text, before anything is sent. */
import { mostTextSpan, readImageFile, type FileRefused, type ImageFile } from '@veglia/core';

/** What gzip may unpack to at most, bytes: an 8 GB memory. */
export const mostUnpacked = 9 * 2 ** 30;
/** A text file is some three times as long as what it holds. */
const mostText = 3 * mostTextSpan;
const lookBytes = 4096;

/** Bytes of a memory, where they came from, and what the file left open. */
export interface OpenedFile {
  readonly bytes: Blob;
  readonly format: ImageFile['format'];
  readonly packed: boolean;
  readonly gaps: ImageFile['gaps'];
}
/** Why a file can’t be read. */
export type CantOpen = FileRefused | { readonly reason: 'damaged' | 'unpacks-too-far' };

/** Unpacks as it comes, and stops past the limit: what a few bytes unpack to is decided by the sender (RFC 1952). */
async function unpack(file: Blob, most: number): Promise<Blob | CantOpen> {
  const parts: Uint8Array<ArrayBuffer>[] = [];
  let size = 0;
  const reader = file.stream().pipeThrough(new DecompressionStream('gzip')).getReader();
  try {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return new Blob(parts);
      size += value.length;
      if (size > most) {
        await reader.cancel();
        return { reason: 'unpacks-too-far' };
      }
      parts.push(value);
    }
  } catch {
    return { reason: 'damaged' };
  }
}

/** By content, never by name. */
export async function openImageFile(file: Blob, most = mostUnpacked): Promise<OpenedFile | CantOpen> {
  const [first, second] = new Uint8Array(await file.slice(0, 2).arrayBuffer());
  const packed = first === 0x1f && second === 0x8b;
  const bytes = packed ? await unpack(file, most) : file;
  if ('reason' in bytes) return bytes;
  const looked = readImageFile(new Uint8Array(await bytes.slice(0, lookBytes).arrayBuffer()));
  if (!('reason' in looked) && looked.format === 'raw') return { bytes, format: 'raw', packed, gaps: [] };
  if (bytes.size > mostText) return { line: 1, reason: 'too-large' };
  const read = readImageFile(new Uint8Array(await bytes.arrayBuffer()));
  if ('reason' in read) return read;
  return { bytes: new Blob([new Uint8Array(read.bytes)]), format: read.format, packed, gaps: read.gaps };
}
