/** An image's bytes on their way out, a chunk in memory at a time; a range of them where one is asked for (RFC 9110, 14). */
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ApiError } from '../http/apiError.ts';
import type { Exchange } from '../http/serve.ts';
import { chunkBytes, chunksOf } from '../files/store.ts';
import type { Store } from '../store.ts';
import { readImage } from './images.ts';

/** Bytes from `from` to before `to`, in pieces; none where they are the same place. */
export async function* bytesOf(store: Store, id: string, from: number, to: number): AsyncGenerator<Buffer> {
  if (to <= from) return;
  const first = Math.floor(from / chunkBytes);
  let at = first * chunkBytes;
  for await (const chunk of chunksOf(store, id, { first, end: Math.ceil(to / chunkBytes) })) {
    yield chunk.subarray(Math.max(0, from - at), to - at);
    at += chunk.length;
  }
}

/** Answers with the image, or the one range asked for. Throws not-found, range-not-satisfiable. */
export async function sendImage(store: Store, id: string, { request, response }: Exchange): Promise<void> {
  const image = await readImage(store, id);
  const ranges = request.range(image.size);
  if (ranges === -1) {
    response.set('content-range', `bytes */${image.size}`);
    throw new ApiError('range-not-satisfiable');
  }
  const only = Array.isArray(ranges) && ranges.type === 'bytes' && ranges.length === 1 ? ranges[0] : undefined;
  const [from, to] = only ? [only.start, only.end + 1] : [0, image.size];
  response
    .status(only ? 206 : 200)
    .set({
      'accept-ranges': 'bytes',
      'content-length': String(to - from),
      'content-disposition': `attachment; filename="${image.sha256.slice(0, 12)}.bin"`,
      'x-content-type-options': 'nosniff',
      // Packing bytes that are packed already gains nothing, and hides how many are left.
      'cache-control': 'no-store, no-transform',
      etag: `"${image.sha256}"`,
      ...(only ? { 'content-range': `bytes ${from}-${to - 1}/${image.size}` } : {}),
    })
    .type('application/octet-stream');
  await pipeline(Readable.from(bytesOf(store, id, from, to), { objectMode: false }), response);
}
