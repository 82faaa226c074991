/** The ways in and out: password, PIN on a trusted bench, the demo. */
import type { Session } from '@veglia/contract';
import type { Request } from 'express';
import { Op, QueryTypes, type Transaction } from 'sequelize';
import { ApiError } from '../http/apiError.ts';
import type { AccountRow, BenchRow, PersonRow } from '../database/models.ts';
import type { Exchange } from '../http/serve.ts';
import { lastErasure } from '../personal/erasures.ts';
import type { Store } from '../store.ts';
import type { Attempts } from './attempts.ts';
import { record } from './audit.ts';
import type { Browser } from './browser.ts';
import { factorUsed } from './factor.ts';
import { isSecret, tokenHash } from './secrets.ts';
import { told } from './sessions.ts';
import { requireWho, whoAsks, whoIn } from './who.ts';

/** What signing in works with. */
export interface Accounts {
  readonly store: Store;
  readonly attempts: Attempts;
  readonly browser: Browser;
  /** Anybody of this machine may be anybody. */
  readonly demo: boolean;
  /** Reached by TLS, or from this machine. */
  readonly encrypted: boolean;
}

const days = (n: number): number => n * 86_400_000;
/** Values of ours: after this long a password is asked for again on a bench; wrong PINs in a row until it is. */
export const pinLimits = { passwordEvery: days(30), wrong: 5 } as const;

/** By whichever way, one that is no person’s own: an IPv6 network is one household’s. */
export const network = (address: string | undefined): string => (address ?? '').split(':').slice(0, 4).join(':');
export const fromOf = (request: Request): { address: string | undefined } => ({ address: request.ip });

/** Nobody can sign in yet. */
export async function isSetUp(store: Store, transaction?: Transaction): Promise<boolean> {
  const [row] = await store.sequelize.query<{ there: boolean }>(
    'SELECT EXISTS (SELECT 1 FROM accounts a JOIN people p ON p.id = a.person_id WHERE p.left_at IS NULL) AS there',
    { type: QueryTypes.SELECT, ...(transaction ? { transaction } : {}) },
  );
  return row?.there === true;
}

/** What a browser is told of itself. */
export async function readSession({ store, browser, demo }: Accounts, { request }: Pick<Exchange, 'request'>): Promise<Session> {
  const who = await whoIn(store, request, demo);
  const bench = await benchOf(store, browser, request);
  return {
    signedIn: who
      ? { id: who.id, name: who.name, role: who.role, by: who.how, fresh: who.fresh, hasPin: who.hasPin, hasFactor: who.hasFactor }
      : null,
    setUp: !demo && !(await isSetUp(store)),
    demo,
    erasedAt: await lastErasure(store),
    bench: bench ? { name: bench.name, people: await peopleOf(store, bench) } : null,
  };
}

export async function benchOf(store: Store, browser: Browser, request: Request): Promise<BenchRow | null> {
  const token = browser.benchToken(request);
  return token === undefined ? null : store.models.benches.findOne({ where: { tokenHash: tokenHash(token), endedAt: null } });
}

/** Who may sign in here with a PIN now. */
export async function peopleOf(store: Store, bench: BenchRow): Promise<{ id: string; name: string }[]> {
  return store.sequelize.query<{ id: string; name: string }>(
    `SELECT p.id, p.name FROM bench_people b JOIN people p ON p.id = b.person_id JOIN accounts a ON a.person_id = p.id
     WHERE b.bench_id = $1 AND b.password_at > $2 AND b.wrong_pins < $3 AND p.left_at IS NULL AND a.pin_hash IS NOT NULL ORDER BY p.name`,
    { bind: [bench.id, new Date(store.now().getTime() - pinLimits.passwordEvery), pinLimits.wrong], type: QueryTypes.SELECT },
  );
}

/** A new session, whatever was there before: nobody can have put its number into the browser. */
export async function begin({ store }: Accounts, request: Request, data: Partial<Request['session']>): Promise<void> {
  await told((done) => request.session.regenerate(done));
  const now = store.now().getTime();
  Object.assign(request.session, { at: now, seenAt: now, ...data });
  await told((done) => request.session.save(done));
}

async function end(request: Request): Promise<void> {
  await told((done) => request.session.regenerate(done));
}

/** From this machine itself, and not through a proxy on it. */
const isOwnMachine = (request: Request): boolean =>
  /^(?:::ffff:)?127[.]|^::1$/.test(request.socket.remoteAddress ?? '') && request.headers['x-forwarded-for'] === undefined;

/** Throws needs-tls: a password is never taken over a line that others can read. */
export function requireEncrypted({ encrypted }: Accounts, request: Request): void {
  // The proxy in front says so; it is believed on loopback only.
  if (encrypted ? !request.secure : !isOwnMachine(request)) throw new ApiError('needs-tls');
}

async function accountNamed(store: Store, name: string): Promise<{ person: PersonRow; account: AccountRow } | undefined> {
  const people = await store.models.people.findAll({ where: { leftAt: null } });
  const person = people.find((one) => one.name.toLowerCase() === name.trim().toLowerCase());
  const account = person && (await store.models.accounts.findByPk(person.id));
  return person && account ? { person, account } : undefined;
}

/** Uses a code up, once, whoever else sends it in the same instant. Throws code-needed or wrong-code. */
async function requireFactor(
  { store }: Accounts,
  account: AccountRow,
  code: string | undefined,
  from: { address: string | undefined },
): Promise<void> {
  if (account.factorSecret === null && (await store.models.passkeys.count({ where: { personId: account.personId } })) === 0) return;
  if (code === undefined) throw new ApiError('code-needed');
  const used = await factorUsed(account, code, store.now());
  if (!used) throw new ApiError('wrong-code');
  const { recoveryHashes, factorStep } = used;
  const [taken] = await store.models.accounts.update(used, {
    where: {
      personId: account.personId,
      ...(factorStep === undefined ? { recoveryHashes: account.recoveryHashes } : { factorStep: { [Op.lt]: factorStep } }),
    },
  });
  if (taken === 0) throw new ApiError('wrong-code');
  if (recoveryHashes !== undefined) await record(store, 'recovery-code-used', { person: account.personId, ...from });
}

/** Name and password, and the second factor where there is one. Throws wrong-sign-in, code-needed, wrong-code, too-many-attempts, needs-tls. */
export async function signIn(
  accounts: Accounts,
  { name, password, code }: { readonly name: string; readonly password: string; readonly code?: string | undefined },
  exchange: Exchange,
): Promise<Session> {
  const { request } = exchange;
  requireEncrypted(accounts, request);
  const { store, attempts, browser } = accounts;
  const from = fromOf(request);
  const found = await accountNamed(store, name);
  const mark = found && browser.knownAs(request, found.person.id);
  const keys = [
    mark === undefined ? (['strangers', name.trim().toLowerCase().slice(0, 100)] as const) : (['known', mark] as const),
    ['address', network(request.ip)] as const,
  ];
  try {
    await attempts.take(keys);
  } catch (error) {
    await record(store, 'sign-in-held', { ...from, person: found?.person.id });
    throw error;
  }
  try {
    if (!(await isSecret(password, found?.account.passwordHash)) || !found) throw new ApiError('wrong-sign-in');
    await requireFactor(accounts, found.account, code, from);
  } catch (error) {
    if (error instanceof ApiError && error.code === 'code-needed' && found) {
      await attempts.giveBack(keys);
      request.session.factor = { person: found.person.id, to: 'sign-in', at: store.now().getTime() };
    } else if (error instanceof ApiError) {
      // A name that is nobody’s may be a password in the wrong field: it is not kept.
      await record(store, 'sign-in-refused', { ...from, person: found?.person.id });
    }
    throw error;
  }
  await attempts.giveBack(keys);
  if (mark !== undefined) await attempts.forget('known', mark);
  await finishSigningIn(accounts, found.person.id, exchange);
  return readSession(accounts, { request });
}

/** Whoever has shown all that is asked of them is in. Throws wrong-sign-in for somebody who was let go meanwhile. */
export async function finishSigningIn(accounts: Accounts, person: string, { request, response }: Exchange): Promise<void> {
  const { store, browser } = accounts;
  if ((await store.models.people.count({ where: { id: person, leftAt: null } })) === 0) throw new ApiError('wrong-sign-in');
  const now = store.now();
  await begin(accounts, request, { person, how: 'password', confirmedAt: now.getTime() });
  browser.know(request, response, person);
  const bench = await benchOf(store, browser, request);
  if (bench) await store.models.benchPeople.upsert({ benchId: bench.id, personId: person, passwordAt: now, wrongPins: 0 });
  await store.models.accounts.update({ lastSignIn: now }, { where: { personId: person } });
  await record(store, 'signed-in', { ...fromOf(request), person });
}

/** Throws pin-not-here, wrong-sign-in, too-many-attempts. */
export async function signInByPin(
  accounts: Accounts,
  { person, pin }: { readonly person: string; readonly pin: string },
  { request }: Exchange,
): Promise<Session> {
  requireEncrypted(accounts, request);
  const { store, attempts, browser } = accounts;
  const from = fromOf(request);
  const keys = [['address', network(request.ip)] as const];
  await attempts.take(keys);
  const bench = await benchOf(store, browser, request);
  const here = bench && (await peopleOf(store, bench)).some(({ id }) => id === person);
  if (!here) throw new ApiError('pin-not-here');
  // Counted before it is looked at: two at once are two.
  const [counted] = await store.models.benchPeople.update(
    { wrongPins: store.sequelize.literal('wrong_pins + 1') },
    { where: { benchId: bench.id, personId: person, wrongPins: { [Op.lt]: pinLimits.wrong } } },
  );
  if (counted === 0) throw new ApiError('pin-not-here');
  const account = await store.models.accounts.findByPk(person);
  if (!(await isSecret(pin, account?.pinHash))) {
    await record(store, 'pin-refused', { ...from, person }, bench.name);
    throw new ApiError('wrong-sign-in');
  }
  const now = store.now();
  await attempts.giveBack(keys);
  await store.models.benchPeople.update({ wrongPins: 0 }, { where: { benchId: bench.id, personId: person } });
  await store.models.benches.update({ lastUsed: now }, { where: { id: bench.id } });
  await begin(accounts, request, { person, how: 'pin', bench: bench.id });
  await record(store, 'signed-in-by-pin', { ...from, person }, bench.name);
  return readSession(accounts, { request });
}

/** Somebody of the demo, from this machine only. Throws not-allowed, unknown-person. */
export async function signInToDemo(
  accounts: Accounts,
  { person }: { readonly person?: string | undefined },
  { request }: Exchange,
): Promise<Session> {
  const { store, demo } = accounts;
  if (!demo || !isOwnMachine(request)) throw new ApiError('not-allowed');
  const people = await store.models.people.findAll({ where: { leftAt: null }, order: [['name', 'ASC']] });
  const chosen = people.find(({ id }) => id === person) ?? (person === undefined ? people[0] : undefined);
  if (!chosen) throw new ApiError('unknown-person');
  await begin(accounts, request, { person: chosen.id, how: 'demo' });
  return readSession(accounts, { request });
}

/** Also where nobody was signed in. */
export async function signOut(accounts: Accounts, { request }: Exchange): Promise<Session> {
  const who = whoAsks(request);
  await end(request);
  if (who) await record(accounts.store, 'signed-out', { ...fromOf(request), person: who.id });
  return readSession(accounts, { request });
}

/** The password once more, before what is not taken back. Throws as `signIn` does. */
export async function confirmSelf(
  accounts: Accounts,
  { password, code }: { readonly password: string; readonly code?: string | undefined },
  exchange: Exchange,
): Promise<Session> {
  const { store, attempts } = accounts;
  const { request } = exchange;
  const who = requireWho(request);
  const from = { ...fromOf(request), person: who.id };
  const keys = [['known', `confirm ${who.id}`] as const];
  await attempts.take(keys);
  const account = await store.models.accounts.findByPk(who.id);
  try {
    if (!account || !(await isSecret(password, account.passwordHash))) throw new ApiError('wrong-sign-in');
    await requireFactor(accounts, account, code, from);
  } catch (error) {
    if (error instanceof ApiError && error.code === 'code-needed') {
      await attempts.giveBack(keys);
      request.session.factor = { person: who.id, to: 'confirm', at: store.now().getTime() };
    }
    throw error;
  }
  await finishConfirming(accounts, who.id, exchange);
  return readSession(accounts, { request });
}

/** Whoever is signed in has shown once more who they are. */
export async function finishConfirming({ store, attempts }: Accounts, person: string, { request }: Exchange): Promise<void> {
  await attempts.forget('known', `confirm ${person}`);
  request.session.confirmedAt = store.now().getTime();
  await record(store, 'confirmed', { ...fromOf(request), person });
}
