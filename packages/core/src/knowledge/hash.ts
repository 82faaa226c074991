import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import type { Pack } from './schema.ts';

/** Canonical JSON (RFC 8785): one text for one value, in whatever order its fields were kept. Throws TypeError where JSON has no form for it. */
export function canonicalJson(value: unknown): string {
  const canonical = canonicalize(value);
  if (canonical === undefined) throw new TypeError('not representable as JSON');
  return canonical;
}

/** SHA-256, lower-case hex, of the canonical JSON (RFC 8785) of the assembled document. */
export function hashPack(pack: Pack): string {
  return bytesToHex(sha256(utf8ToBytes(canonicalJson(pack))));
}
