/** A password by a code that was shown once: the first owner’s on the console, everybody else’s by an owner. */
import type { Session } from '@veglia/contract';
import type { Transaction } from 'sequelize';
import { v7 as uuidv7 } from 'uuid';
import { ApiError } from '../http/apiError.ts';
import type { Exchange } from '../http/serve.ts';
import type { Store } from '../store.ts';
import { record } from './audit.ts';
import { hashOf, newCode, plainCode, requireStrong, tokenHash } from './secrets.ts';
import { begin, fromOf, isSetUp, network, readSession, requireEncrypted, type Accounts } from './signIn.ts';

const days = (n: number): number => n * 86_400_000;
/** Number of the lock that keeps two from being the first owner (any constant of ours). */
const ownerLock = 8_346_003;
/** Until when a code holds. */
const ownerCodeHolds = days(1);
const invitationHolds = days(7);

/** For the first owner: shown where the server runs, and nowhere else. Undefined once somebody can sign in. */
export async function firstOwnerCode(store: Store): Promise<string | undefined> {
  if (await isSetUp(store)) return undefined;
  return invite(store, null, ownerCodeHolds).then(({ code }) => code);
}

/** One at a time: an older one of the same person holds no longer. */
export async function invite(store: Store, personId: string | null, holds = invitationHolds): Promise<{ code: string; until: Date }> {
  const code = newCode();
  const until = new Date(store.now().getTime() + holds);
  if (personId !== null) await store.models.invitations.destroy({ where: { personId, usedAt: null } });
  await store.models.invitations.create({ codeHash: tokenHash(plainCode(code)), personId, until });
  return { code, until };
}

/** Chooses a password; the code is used up. Throws wrong-code, weak-password, too-many-attempts, bad-request without a name where one is needed. */
export async function joinByCode(
  accounts: Accounts,
  { code, name, password }: { readonly code: string; readonly name?: string | undefined; readonly password: string },
  { request, response }: Exchange,
): Promise<Session> {
  requireEncrypted(accounts, request);
  const { store, attempts, browser } = accounts;
  const from = fromOf(request);
  const keys = [['address', network(request.ip)] as const];
  await attempts.take(keys);
  const now = store.now();
  const codeHash = tokenHash(plainCode(code));
  const held = await store.models.invitations.findByPk(codeHash);
  const sound = held && held.usedAt === null && held.until > now && (held.personId !== null || !(await isSetUp(store)));
  if (!sound) throw new ApiError('wrong-code');
  await attempts.giveBack(keys);
  const invited = held.personId === null ? null : await store.models.people.findByPk(held.personId);
  const called = invited?.name ?? name ?? '';
  if (called === '') throw new ApiError('bad-request', [{ code: 'schema', where: 'name', expected: 'a name' }]);
  if (invited && invited.leftAt !== null) throw new ApiError('wrong-code');
  requireStrong(password, [called, 'veglia']);
  const passwordHash = await hashOf(password);
  const person = await store.sequelize.transaction(async (transaction) => {
    const [used] = await store.models.invitations.update({ usedAt: now }, { where: { codeHash, usedAt: null }, transaction });
    if (used === 0) throw new ApiError('wrong-code');
    const id = invited?.id ?? (await firstOwner(store, called, transaction));
    await store.models.accounts.upsert(
      // Whoever chooses a password anew has lost what was there: PIN and second factor are set anew, too.
      {
        personId: id,
        passwordHash,
        pinHash: null,
        factorSecret: null,
        factorPending: null,
        recoveryHashes: [],
        sessionsFrom: now,
        lastSignIn: now,
      },
      { transaction },
    );
    await store.models.passkeys.destroy({ where: { personId: id }, transaction });
    await record(store, invited ? 'joined' : 'owner-made', { ...from, person: id }, id, transaction);
    return id;
  });
  await begin(accounts, request, { person, how: 'password', confirmedAt: now.getTime() });
  browser.know(request, response, person);
  return readSession(accounts, { request });
}

/** Somebody of that name who was here before accounts were, or a new person. */
async function firstOwner(store: Store, name: string, transaction: Transaction): Promise<string> {
  // One at a time: whoever comes second finds that there is an owner.
  await store.sequelize.query('SELECT pg_advisory_xact_lock($1)', { bind: [ownerLock], transaction });
  if (await isSetUp(store, transaction)) throw new ApiError('wrong-code');
  const people = await store.models.people.findAll({ transaction });
  const there = people.find((one) => one.name.toLowerCase() === name.toLowerCase());
  if (there) {
    await there.update({ role: 'owner', leftAt: null }, { transaction });
    return there.id;
  }
  return (await store.models.people.create({ id: uuidv7(), name, role: 'owner' }, { transaction })).id;
}
