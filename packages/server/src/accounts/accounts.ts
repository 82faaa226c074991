/** Accounts and benches as an owner keeps them. */
import type { Account, Bench, Role } from '@veglia/contract';
import { Op, type Transaction } from 'sequelize';
import { againIfOvertaken, requireSame } from '../http/again.ts';
import { ApiError } from '../http/apiError.ts';
import type { Store } from '../store.ts';
import { record, type AuditFrom } from './audit.ts';
import { invite } from './join.ts';

/** Number of the lock that keeps two owners from letting each other go in the same instant (any constant of ours). */
const accountsLock = 8_346_004;

/** By name. */
export async function listAccounts(store: Store): Promise<Account[]> {
  const [people, accounts, passkeys, invited] = await Promise.all([
    store.models.people.findAll({ order: [['name', 'ASC']] }),
    store.models.accounts.findAll(),
    store.models.passkeys.findAll({ attributes: ['personId'] }),
    store.models.invitations.findAll({ where: { usedAt: null, until: { [Op.gt]: store.now() } } }),
  ]);
  const accountOf = new Map(accounts.map((one) => [one.personId, one]));
  const withPasskey = new Set(passkeys.map(({ personId }) => personId));
  const waiting = new Set(invited.map(({ personId }) => personId));
  return people.map(({ id, name, role, leftAt }) => {
    const account = accountOf.get(id);
    return {
      id,
      name,
      role,
      state: leftAt !== null ? 'left' : waiting.has(id) ? 'invited' : account ? 'active' : 'none',
      hasPin: account ? account.pinHash !== null : false,
      hasFactor: account ? account.factorSecret !== null || withPasskey.has(id) : false,
      lastSignIn: account?.lastSignIn?.toISOString() ?? null,
    };
  });
}

/** Two of one name could not be told apart in the ledger, nor at the sign-in. Throws entry-conflict. */
async function requireOwnName(store: Store, id: string, name: string, transaction: Transaction): Promise<void> {
  const people = await store.models.people.findAll({ where: { id: { [Op.ne]: id } }, transaction });
  if (people.some((one) => one.name.toLowerCase() === name.toLowerCase()))
    throw new ApiError('entry-conflict', [{ code: 'duplicate-id', where: 'name', value: name }]);
}

/** Sent twice with one id, somebody is added once. Throws entry-conflict for a name that is taken. */
export async function addAccount(
  store: Store,
  { id, name, role }: { readonly id: string; readonly name: string; readonly role: Role },
  from: AuditFrom,
): Promise<Account[]> {
  await againIfOvertaken(() =>
    store.sequelize.transaction(async (transaction) => {
      await lock(store, transaction);
      const there = await store.models.people.findByPk(id, { transaction });
      if (there) return requireSame(id, { name: there.name, role: there.role }, { name, role });
      await requireOwnName(store, id, name, transaction);
      await store.models.people.create({ id, name, role }, { transaction });
      await record(store, 'account-made', from, id, transaction);
    }),
  );
  return listAccounts(store);
}

const lock = (store: Store, transaction: Transaction): Promise<unknown> =>
  store.sequelize.query('SELECT pg_advisory_xact_lock($1)', { bind: [accountsLock], transaction });

/** Whoever leaves is out at once; what they wrote stays theirs. Throws not-found, last-owner, entry-conflict. */
export async function changeAccount(
  store: Store,
  id: string,
  { name, role, left }: { readonly name?: string | undefined; readonly role?: Role | undefined; readonly left?: boolean | undefined },
  from: AuditFrom,
): Promise<Account[]> {
  await store.sequelize.transaction(async (transaction) => {
    await lock(store, transaction);
    const person = await store.models.people.findByPk(id, { transaction });
    if (!person) throw new ApiError('not-found');
    const wasLeft = person.leftAt !== null;
    if (name !== undefined) await requireOwnName(store, id, name, transaction);
    await person.update(
      {
        ...(name === undefined ? {} : { name }),
        ...(role === undefined ? {} : { role }),
        ...(left === undefined || left === wasLeft ? {} : { leftAt: left ? store.now() : null }),
      },
      { transaction },
    );
    if (await isOwnerless(store, transaction)) throw new ApiError('last-owner');
    const nowLeft = left ?? wasLeft;
    if (nowLeft && !wasLeft) {
      await store.models.accounts.update({ sessionsFrom: store.now() }, { where: { personId: id }, transaction });
      await store.models.invitations.destroy({ where: { personId: id, usedAt: null }, transaction });
    }
    await record(store, nowLeft === wasLeft ? 'account-changed' : nowLeft ? 'account-left' : 'account-back', from, id, transaction);
  });
  return listAccounts(store);
}

/** Somebody can sign in, and none of them is an owner. */
async function isOwnerless(store: Store, transaction: Transaction): Promise<boolean> {
  const accounts = await store.models.accounts.findAll({ transaction });
  const inside = await store.models.people.findAll({ where: { id: accounts.map(({ personId }) => personId), leftAt: null }, transaction });
  return accounts.length > 0 && !inside.some(({ role }) => role === 'owner');
}

/** Throws not-found. */
export async function inviteAccount(store: Store, id: string, from: AuditFrom): Promise<{ code: string; until: string }> {
  const person = await store.models.people.findByPk(id);
  if (!person || person.leftAt !== null) throw new ApiError('not-found');
  const { code, until } = await invite(store, id);
  await record(store, 'invited', from, id);
  return { code, until: until.toISOString() };
}

/** The newest first. */
export async function listBenches(store: Store): Promise<Bench[]> {
  const [benches, people] = await Promise.all([
    store.models.benches.findAll({ order: [['trustedAt', 'DESC']] }),
    store.models.people.findAll(),
  ]);
  const names = new Map(people.map(({ id, name }) => [id, name]));
  return benches.map(({ id, name, trustedBy, trustedAt, lastUsed, endedAt }) => ({
    id,
    name,
    by: names.get(trustedBy) ?? trustedBy,
    at: trustedAt.toISOString(),
    lastUsed: lastUsed?.toISOString() ?? null,
    ended: endedAt !== null,
  }));
}

/** Sessions begun there with a PIN end at once. Throws not-found. */
export async function endBench(store: Store, id: string, from: AuditFrom): Promise<Bench[]> {
  const bench = await store.models.benches.findByPk(id);
  if (!bench) throw new ApiError('not-found');
  if (bench.endedAt === null) {
    await bench.update({ endedAt: store.now() });
    await record(store, 'bench-ended', from, bench.name);
  }
  return listBenches(store);
}
