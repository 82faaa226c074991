/**
 * Passwords, PINs, recovery codes and tokens. What people choose is kept as Argon2id (19 MiB, two passes, one lane: the least that OWASP’s
 * cheat sheet recommends, value from memory); what we draw ourselves has 128 bits or more and is kept as its SHA-256.
 */
import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { passwordBounds } from '@veglia/contract';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { ApiError } from '../http/apiError.ts';

const cost = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };
/** Of four: "safely unguessable: moderate protection" and up. */
const leastScore = 3;
const guesser = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });

/** Argon2id, as one string with its salt and parameters. */
export const hashOf = (secret: string): Promise<string> => hash(secret, cost);

/** Nobody’s password: checked where there is none, so that the time taken doesn’t tell whether there is an account. */
const nobodys = hashOf(randomBytes(16).toString('hex'));
/** Takes as long where there is no hash. */
export async function isSecret(secret: string, kept: string | null | undefined): Promise<boolean> {
  const same = await verify(kept ?? (await nobodys), secret);
  return same && kept !== null && kept !== undefined;
}

/** Throws weak-password. `about`: what whoever guesses would try first. */
export function requireStrong(password: string, about: readonly string[]): void {
  const { score } = guesser.check(
    password.slice(0, 100),
    about.flatMap((one) => [one, ...one.split(/\s+/)]).filter((one) => one.length > 2),
  );
  if (password.length < passwordBounds.least || score < leastScore) throw new ApiError('weak-password');
}

/** Of something we drew: 256 bits, base64url. */
export const newToken = (): string => randomBytes(32).toString('base64url');
/** How a token or code is kept. */
export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Without letters and digits that are mistaken for one another; 32 of them, five bits each. */
const letters = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
/** Easy to read out: 100 bits in five groups of four, as XXXX-XXXX-XXXX-XXXX-XXXX. */
export function newCode(): string {
  const drawn = [...randomBytes(20)].map((byte) => letters[byte % letters.length]).join('');
  return (drawn.match(/.{4}/g) ?? []).join('-');
}
/** As it is compared: people leave out the hyphens and type small letters. */
export const plainCode = (typed: string): string => typed.toUpperCase().replace(/[^A-Z0-9]/g, '');
