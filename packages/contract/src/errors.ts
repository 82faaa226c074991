/** The one table of API errors: code and HTTP status. Sentences are in words/. */
import { z } from 'zod';

/** HTTP status of each error code. */
export const errorStatus = {
  'bad-request': 400,
  'not-json': 400,
  'unknown-person': 422,
  'not-found': 404,
  'unknown-job': 404,
  'unknown-pack': 404,
  'unknown-counts': 404,
  'entry-conflict': 409,
  'version-conflict': 409,
  'settings-version-conflict': 409,
  'pack-version-conflict': 409,
  'board-version-conflict': 409,
  'stock-version-conflict': 409,
  'unknown-customer': 422,
  'not-checked': 422,
  'not-proven': 422,
  'not-agreed': 422,
  'no-contact': 422,
  'nothing-to-say': 422,
  'not-put-back': 422,
  'too-large': 413,
  'not-a-photo': 415,
  'wrong-media-type': 415,
  'cross-site': 403,
  'wrong-host': 421,
  'precondition-failed': 412,
  'range-not-satisfiable': 416,
  'paper-too-long': 422,
  'upload-elsewhere': 409,
  'upload-incomplete': 422,
  'image-in-use': 409,
  'step-not-open': 409,
  'programmer-busy': 409,
  'signed-out': 401,
  'wrong-sign-in': 401,
  'code-needed': 401,
  'not-allowed': 403,
  'sign-in-again': 403,
  'not-yours': 403,
  'needs-tls': 403,
  'pin-not-here': 403,
  'too-many-attempts': 429,
  'weak-password': 422,
  'wrong-code': 422,
  'wrong-passkey': 422,
  'needs-name': 422,
  'too-many-passkeys': 409,
  'last-owner': 409,
  'customer-has-open-jobs': 409,
  'still-works-here': 409,
  internal: 500,
  'database-unavailable': 503,
} as const;

/** One of the codes of `errorStatus`. */
export type ErrorCode = keyof typeof errorStatus;
/** All codes. */
export const errorCodes = Object.keys(errorStatus) as ErrorCode[];

/** The header by which a program or page of ours shows that no other page sent it; any value. */
export const ownHeader = 'x-veglia';

/** RFC 9457 problem document. */
export const problemDocumentSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  code: z.enum(errorCodes as [ErrorCode, ...ErrorCode[]]),
  requestId: z.string(),
  problems: z.array(z.object({ code: z.string(), where: z.string(), sentence: z.string() })).optional(),
});
/** An error as the server says it (RFC 9457). */
export type ProblemDocument = z.infer<typeof problemDocumentSchema>;
/** Media type of an error (RFC 9457). */
export const problemMediaType = 'application/problem+json';
