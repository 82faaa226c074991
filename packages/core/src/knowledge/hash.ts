import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import type { Pack } from './schema.ts';

/** SHA-256, lower-case hex, of the canonical JSON (RFC 8785) of the assembled document. */
export function hashPack(pack: Pack): string {
  const canonical = canonicalize(pack);
  if (canonical === undefined) throw new TypeError('a pack is always representable as JSON');
  return bytesToHex(sha256(utf8ToBytes(canonical)));
}
