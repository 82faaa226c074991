/** Codes of an authenticator (RFC 6238: SHA-1, six digits, 30 s, what every authenticator can) and recovery codes. */
import { Secret, TOTP } from 'otpauth';
import { hashOf, isSecret, newCode, plainCode } from './secrets.ts';
import type { AccountRow } from '../database/models.ts';

const stepMs = 30_000;
/** Clocks of phones differ: one step to either side. */
const window = 1;

const totpOf = (secret: string, label = ''): TOTP => new TOTP({ issuer: 'Veglia', label, secret: Secret.fromBase32(secret) });

/** 160 bits, base32. */
export const newFactorSecret = (): string => new Secret({ size: 20 }).base32;
/** What an authenticator reads as a QR code. */
export const factorAddress = (secret: string, name: string): string => totpOf(secret, name).toString();

/** The step a code belongs to; undefined where it is wrong, or no later than the last that was taken. */
export function stepOfCode(secret: string, code: string, at: Date, last: number): number | undefined {
  const token = code.replace(/\s/g, '');
  if (!/^\d{6}$/.test(token)) return undefined;
  const delta = totpOf(secret).validate({ token, timestamp: at.getTime(), window });
  const step = delta === null ? undefined : Math.floor(at.getTime() / stepMs) + delta;
  return step !== undefined && step > last ? step : undefined;
}

const recoveryCodes = 8;
/** Codes to be shown once, and what is kept of them. */
export async function newRecoveryCodes(): Promise<{ codes: string[]; hashes: string[] }> {
  const codes = Array.from({ length: recoveryCodes }, newCode);
  return { codes, hashes: await Promise.all(codes.map((one) => hashOf(plainCode(one)))) };
}

/** What of the account a code uses up; undefined where it is wrong. */
export async function factorUsed(
  account: AccountRow,
  code: string,
  at: Date,
): Promise<Partial<Pick<AccountRow, 'factorStep' | 'recoveryHashes'>> | undefined> {
  const step = account.factorSecret === null ? undefined : stepOfCode(account.factorSecret, code, at, Number(account.factorStep));
  if (step !== undefined) return { factorStep: step };
  // Long enough to be none of an authenticator’s: each guess costs one Argon2 a code that is left.
  const typed = plainCode(code);
  if (typed.length < 16) return undefined;
  for (const kept of account.recoveryHashes)
    if (await isSecret(typed, kept)) return { recoveryHashes: account.recoveryHashes.filter((one) => one !== kept) };
  return undefined;
}
