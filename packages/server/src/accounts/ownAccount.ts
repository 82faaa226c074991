/** What people change of their own account: password, PIN, second factor, and the bench they trust. */
import type { Session } from '@veglia/contract';
import { v7 as uuidv7 } from 'uuid';
import { ApiError } from '../http/apiError.ts';
import type { Exchange } from '../http/serve.ts';
import { record } from './audit.ts';
import { factorAddress, newFactorSecret, newRecoveryCodes, stepOfCode } from './factor.ts';
import { hashOf, newToken, requireStrong, tokenHash } from './secrets.ts';
import { begin, benchOf, fromOf, peopleOf, readSession, type Accounts } from './signIn.ts';
import { requireWho } from './who.ts';

/** All other sessions of this person end. Throws weak-password. */
export async function changePassword(
  accounts: Accounts,
  { password }: { readonly password: string },
  { request }: Exchange,
): Promise<Session> {
  const { store } = accounts;
  const who = requireWho(request);
  requireStrong(password, [who.name, 'veglia']);
  const now = store.now();
  const passwordHash = await hashOf(password);
  const [changed] = await store.models.accounts.update({ passwordHash, sessionsFrom: now }, { where: { personId: who.id } });
  if (changed === 0) await store.models.accounts.create({ personId: who.id, passwordHash, sessionsFrom: now });
  await store.models.benchPeople.update({ passwordAt: new Date(0) }, { where: { personId: who.id } });
  await record(store, 'password-changed', { ...fromOf(request), person: who.id });
  await begin(accounts, request, { person: who.id, how: who.how === 'demo' ? 'demo' : 'password', confirmedAt: now.getTime() });
  return readSession(accounts, { request });
}

/** Throws wrong-sign-in for somebody without a password. */
export async function setPin(accounts: Accounts, { pin }: { readonly pin: string | null }, { request }: Exchange): Promise<Session> {
  const { store, browser } = accounts;
  const who = requireWho(request);
  const [changed] = await store.models.accounts.update(
    { pinHash: pin === null ? null : await hashOf(pin) },
    { where: { personId: who.id } },
  );
  if (changed === 0) throw new ApiError('wrong-sign-in');
  const bench = await benchOf(store, browser, request);
  if (bench) await store.models.benchPeople.upsert({ benchId: bench.id, personId: who.id, passwordAt: store.now(), wrongPins: 0 });
  await record(store, pin === null ? 'pin-removed' : 'pin-set', { ...fromOf(request), person: who.id });
  return readSession(accounts, { request });
}

/** This browser becomes a bench, with a mark that only it has. */
export async function trustBench(
  accounts: Accounts,
  { name }: { readonly name: string },
  { request, response }: Exchange,
): Promise<Session> {
  const { store, browser } = accounts;
  const who = requireWho(request);
  const token = newToken();
  const now = store.now();
  const bench = await store.models.benches.create({ id: uuidv7(), name, tokenHash: tokenHash(token), trustedBy: who.id, trustedAt: now });
  await store.models.benchPeople.create({ benchId: bench.id, personId: who.id, passwordAt: now });
  browser.setBench(response, token);
  await record(store, 'bench-trusted', { ...fromOf(request), person: who.id }, name);
  const session = await readSession(accounts, { request });
  return { ...session, bench: { name, people: await peopleOf(store, bench) } };
}

/** A secret for an authenticator; it counts once its first code was typed. */
export async function startFactor({ store }: Accounts, { request }: Exchange): Promise<{ address: string; secret: string }> {
  const who = requireWho(request);
  const secret = newFactorSecret();
  const [changed] = await store.models.accounts.update({ factorPending: secret }, { where: { personId: who.id } });
  if (changed === 0) throw new ApiError('wrong-sign-in');
  return { address: factorAddress(secret, who.name), secret };
}

/** Recovery codes, shown once. Throws wrong-code. */
export async function confirmFactor(
  { store }: Accounts,
  { code }: { readonly code: string },
  { request }: Exchange,
): Promise<{ codes: string[] }> {
  const who = requireWho(request);
  const account = await store.models.accounts.findByPk(who.id);
  const pending = account?.factorPending;
  const step = pending ? stepOfCode(pending, code, store.now(), 0) : undefined;
  if (!account || !pending || step === undefined) throw new ApiError('wrong-code');
  const { codes, hashes: recoveryHashes } = await newRecoveryCodes();
  await account.update({ factorSecret: pending, factorPending: null, factorStep: step, recoveryHashes });
  await record(store, 'factor-set', { ...fromOf(request), person: who.id });
  return { codes };
}

/** Authenticator, passkeys and recovery codes. Throws nothing where there is none. */
export async function dropFactor(accounts: Accounts, { request }: Exchange): Promise<Session> {
  const { store } = accounts;
  const who = requireWho(request);
  await store.models.accounts.update({ factorSecret: null, factorPending: null, recoveryHashes: [] }, { where: { personId: who.id } });
  await store.models.passkeys.destroy({ where: { personId: who.id } });
  await record(store, 'factor-removed', { ...fromOf(request), person: who.id });
  return readSession(accounts, { request });
}
