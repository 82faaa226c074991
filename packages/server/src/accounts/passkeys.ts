/**
 * Passkeys (W3C Web Authentication, checked by @simplewebauthn/server) as the second factor. They come after the password: what that has shown is kept in the
 * session, on the server, with the challenge that has to be signed; both hold for five minutes and once.
 */
import type { Passkey, PasskeyMade, PasskeyOptions, PasskeyUsed, Session } from '@veglia/contract';
import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  type AuthenticatorTransport,
} from '@simplewebauthn/server';
import type { Request } from 'express';
import { isIP } from 'node:net';
import { QueryTypes, type Transaction } from 'sequelize';
import type { PasskeyRow } from '../database/models.ts';
import { ApiError } from '../http/apiError.ts';
import type { Exchange } from '../http/serve.ts';
import type { Store } from '../store.ts';
import { record } from './audit.ts';
import { newRecoveryCodes } from './factor.ts';
import { tokenHash } from './secrets.ts';
import { finishConfirming, finishSigningIn, fromOf, readSession, type Accounts } from './signIn.ts';
import { requireWho } from './who.ts';

/** How long a password that was right, or a challenge, waits for the passkey, milliseconds (value of ours). */
export const passkeyPatience = 5 * 60_000;
/** More of them, no one can tell apart (value of ours). */
const mostPasskeys = 10;

/** What a passkey is made for: the name this server was asked by, which the guard of hosts has let through, and the page that asks. */
function partyOf(request: Request): { rpID: string; expectedOrigin: string } | undefined {
  const { host, hostname, origin } = new URL(`${request.protocol}://${request.headers.host ?? ''}`);
  // Browsers make none for an address without a name.
  if (host === '' || isIP(hostname.replace(/^\[|\]$/g, '')) !== 0) return undefined;
  return { rpID: hostname, expectedOrigin: origin };
}
function requireParty(request: Request): { rpID: string; expectedOrigin: string } {
  const party = partyOf(request);
  if (!party) throw new ApiError('needs-name');
  return party;
}

/** For the name this server was asked by; oldest first. */
export async function passkeysOf(store: Store, person: string, transaction?: Transaction): Promise<PasskeyRow[]> {
  return store.models.passkeys.findAll({
    where: { personId: person },
    order: [['addedAt', 'ASC']],
    ...(transaction ? { transaction } : {}),
  });
}

/** One's own, and whether one can be made here. */
export async function listPasskeys(
  { store }: Accounts,
  { request }: Pick<Exchange, 'request'>,
): Promise<{ passkeys: Passkey[]; possible: boolean }> {
  const rows = await passkeysOf(store, requireWho(request).id);
  return {
    possible: partyOf(request) !== undefined,
    passkeys: rows.map(({ id, name, rp, addedAt, usedAt }) => ({
      id,
      name,
      at: rp,
      addedAt: addedAt.toISOString(),
      usedAt: usedAt?.toISOString() ?? null,
    })),
  };
}

/** What the browser makes one from. Throws needs-name, wrong-sign-in for somebody without a password, too-many-passkeys. */
export async function offerPasskey({ store }: Accounts, { request }: Exchange): Promise<{ options: PasskeyOptions }> {
  const who = requireWho(request);
  const { rpID } = requireParty(request);
  if ((await store.models.accounts.findByPk(who.id)) === null) throw new ApiError('wrong-sign-in');
  const there = await passkeysOf(store, who.id);
  if (there.length >= mostPasskeys) throw new ApiError('too-many-passkeys');
  const options = await generateRegistrationOptions({
    rpName: 'Veglia',
    rpID,
    userName: who.name,
    userID: new Uint8Array(Buffer.from(who.id)),
    attestationType: 'none',
    excludeCredentials: there.map(({ id, transports }) => ({ id, transports: transports as AuthenticatorTransport[] })),
    // It comes after the password: that somebody is there is enough.
    authenticatorSelection: { residentKey: 'preferred', userVerification: 'preferred' },
  });
  request.session.factor = { person: who.id, to: 'add', challenge: options.challenge, at: store.now().getTime() };
  return { options: { ...options } };
}

type Waiting = NonNullable<Request['session']['factor']>;
/** Taken out of the session: whatever comes of it, it counts once, also where it is sent twice at once. Throws wrong-passkey. */
async function takeWaiting(store: Store, request: Request, ...to: Waiting['to'][]): Promise<Waiting & { challenge: string }> {
  const { factor } = request.session;
  delete request.session.factor;
  const age = store.now().getTime() - (factor?.at ?? -Infinity);
  if (factor?.challenge === undefined || !to.includes(factor.to) || age > passkeyPatience || age < 0) throw new ApiError('wrong-passkey');
  const taken = await store.sequelize.query(
    `UPDATE sessions SET sess = (sess::jsonb - 'factor')::json WHERE sid = $1 AND sess->'factor'->>'challenge' = $2 RETURNING 1`,
    { bind: [tokenHash(request.sessionID), factor.challenge], type: QueryTypes.SELECT },
  );
  if (taken.length === 0) throw new ApiError('wrong-passkey');
  return { ...factor, challenge: factor.challenge };
}

/** Recovery codes where it is the first second factor, shown once. Throws wrong-passkey, needs-name. */
export async function addPasskey(
  accounts: Accounts,
  { name, passkey }: { readonly name: string; readonly passkey: PasskeyMade },
  { request }: Exchange,
): Promise<{ codes: string[] }> {
  const { store } = accounts;
  const who = requireWho(request);
  const { rpID, expectedOrigin } = requireParty(request);
  const { challenge, person } = await takeWaiting(store, request, 'add');
  if (person !== who.id) throw new ApiError('wrong-passkey');
  const verified = await verifyRegistrationResponse({
    response: passkey as Parameters<typeof verifyRegistrationResponse>[0]['response'],
    expectedChallenge: challenge,
    expectedOrigin,
    expectedRPID: rpID,
    requireUserVerification: false,
  }).catch(() => undefined);
  if (verified?.verified !== true) throw new ApiError('wrong-passkey');
  const { credential } = verified.registrationInfo;
  const { codes, hashes } = await newRecoveryCodes();
  const first = await store.sequelize.transaction(async (transaction) => {
    const account = await store.models.accounts.findByPk(who.id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!account) throw new ApiError('wrong-sign-in');
    const before = await passkeysOf(store, who.id, transaction);
    // Somebody else's, or the same twice: a key is one person's.
    if ((await store.models.passkeys.findByPk(credential.id, { transaction })) !== null) throw new ApiError('wrong-passkey');
    await store.models.passkeys.create(
      {
        id: credential.id,
        personId: who.id,
        rp: rpID,
        name,
        publicKey: Buffer.from(credential.publicKey),
        counter: credential.counter,
        transports: credential.transports ?? [],
        addedAt: store.now(),
      },
      { transaction },
    );
    const isFirst = account.factorSecret === null && before.length === 0;
    if (isFirst) await account.update({ recoveryHashes: hashes }, { transaction });
    await record(store, 'passkey-added', { ...fromOf(request), person: who.id }, name, transaction);
    return isFirst;
  });
  return { codes: first ? codes : [] };
}

/** Recovery codes go with the last second factor. Throws not-found. */
export async function dropPasskey(
  accounts: Accounts,
  { id }: { readonly id: string },
  exchange: Exchange,
): Promise<{ passkeys: Passkey[]; possible: boolean }> {
  const { store } = accounts;
  const who = requireWho(exchange.request);
  await store.sequelize.transaction(async (transaction) => {
    const account = await store.models.accounts.findByPk(who.id, { transaction, lock: transaction.LOCK.UPDATE });
    const row = await store.models.passkeys.findOne({ where: { id, personId: who.id }, transaction });
    if (row === null) throw new ApiError('not-found');
    await row.destroy({ transaction });
    if (account?.factorSecret === null && (await passkeysOf(store, who.id, transaction)).length === 0)
      await account.update({ recoveryHashes: [] }, { transaction });
    await record(store, 'passkey-removed', { ...fromOf(exchange.request), person: who.id }, row.name, transaction);
  });
  return listPasskeys(accounts, exchange);
}

/** What has to be signed, after the password was right: null where there is no passkey for this name of the server. Throws wrong-passkey. */
export async function askPasskey({ store }: Accounts, { request }: Exchange): Promise<{ options: PasskeyOptions | null }> {
  const { factor } = request.session;
  const now = store.now().getTime();
  if (factor === undefined || factor.to === 'add' || now - factor.at > passkeyPatience || now < factor.at)
    throw new ApiError('wrong-passkey');
  const party = partyOf(request);
  const rows = party ? (await passkeysOf(store, factor.person)).filter(({ rp }) => rp === party.rpID) : [];
  if (!party || rows.length === 0) return { options: null };
  const options = await generateAuthenticationOptions({
    rpID: party.rpID,
    allowCredentials: rows.map(({ id, transports }) => ({ id, transports: transports as AuthenticatorTransport[] })),
    userVerification: 'preferred',
  });
  request.session.factor = { ...factor, challenge: options.challenge };
  return { options: { ...options } };
}

/** Ends what the password began: signs in, or confirms. Throws wrong-passkey. */
export async function usePasskey(accounts: Accounts, { passkey }: { readonly passkey: PasskeyUsed }, exchange: Exchange): Promise<Session> {
  const { store } = accounts;
  const { request } = exchange;
  const { rpID, expectedOrigin } = requireParty(request);
  const { challenge, person, to } = await takeWaiting(store, request, 'sign-in', 'confirm');
  const row = await store.models.passkeys.findOne({ where: { id: passkey.id, personId: person, rp: rpID } });
  const verified =
    row &&
    (await verifyAuthenticationResponse({
      response: passkey as Parameters<typeof verifyAuthenticationResponse>[0]['response'],
      expectedChallenge: challenge,
      expectedOrigin,
      expectedRPID: rpID,
      credential: { id: row.id, publicKey: new Uint8Array(row.publicKey), counter: Number(row.counter) },
      requireUserVerification: false,
    }).catch(() => undefined));
  if (verified?.verified !== true) {
    await record(store, 'sign-in-refused', { ...fromOf(request), person });
    throw new ApiError('wrong-passkey');
  }
  await row?.update({ counter: verified.authenticationInfo.newCounter, usedAt: store.now() });
  if (to === 'confirm') {
    if (requireWho(request).id !== person) throw new ApiError('wrong-passkey');
    await finishConfirming(accounts, person, exchange);
  } else await finishSigningIn(accounts, person, exchange);
  return readSession(accounts, exchange);
}
