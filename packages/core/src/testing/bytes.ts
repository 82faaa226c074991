/** Bytes for tests that never repeat, the same each time: a chain of hashes. */
import { createHash } from 'node:crypto';

export function neverRepeating(bytes: number, word: string): Uint8Array {
  const all = new Uint8Array(bytes);
  for (let at = 0; at < bytes; at += 32)
    all.set(
      createHash('sha256')
        .update(`${word} ${at}`)
        .digest()
        .subarray(0, bytes - at),
      at,
    );
  return all;
}
