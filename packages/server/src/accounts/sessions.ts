/** Sessions in PostgreSQL. The cookie holds a number nobody can guess; the table holds only its SHA-256. */
import { randomBytes } from 'node:crypto';
import connectPgSimple from 'connect-pg-simple';
import type { Request, RequestHandler } from 'express';
import session, { type SessionData } from 'express-session';
import pg from 'pg';
import type { Store } from '../store.ts';
import { personNowColumns, type PersonNow } from './personNow.ts';
import { tokenHash } from './secrets.ts';

declare module 'express-session' {
  interface SessionData {
    person?: string;
    how?: 'password' | 'pin' | 'demo';
    /** Trusted bench it was begun on. */
    bench?: string;
    /** Milliseconds since 1970: signed in; password last asked for; last used. */
    at?: number;
    confirmedAt?: number;
    seenAt?: number;
    /** A password that was right and waits for the second factor, or a passkey that is being made; `challenge`: what it has to sign. */
    factor?: { person: string; to: 'add' | 'sign-in' | 'confirm'; at: number; challenge?: string };
  }
}

const hours = (n: number): number => n * 3_600_000;
/** Values of ours, milliseconds: a working day; an unused browser; an unused PIN bench; how long a password stands for what is not taken back. */
export const sessionLimits = { longest: hours(12), idle: hours(4), idleByPin: hours(1), fresh: hours(0.25), seenEvery: 60_000 } as const;

type Done = (error?: unknown) => void;
/** What tells by calling back, as a promise. */
export const told = (ask: (done: Done) => unknown): Promise<void> =>
  new Promise((resolve, reject) => {
    ask((error) =>
      error === undefined || error === null ? resolve() : reject(error instanceof Error ? error : new Error('session', { cause: error })),
    );
  });
const PgStore = connectPgSimple(session);
const readBeside = new WeakMap<Request, PersonNow>();
/** The person of the session that was read last for this request, as of then. Undefined where there is none. */
export const readWithSession = (request: Request): PersonNow | undefined => readBeside.get(request);
type Read = SessionData & { personNow?: PersonNow };
/** As connect-pg-simple has it, under the hash of the session’s id. Times are looked at by `who.ts`: nothing is written at each request. */
class HashedStore extends PgStore {
  readonly #pool: pg.Pool;
  constructor(pool: pg.Pool) {
    super({ pool, tableName: 'sessions', createTableIfMissing: false, disableTouch: true, ttl: sessionLimits.longest / 1000 });
    this.#pool = pool;
  }
  /** The person comes in the same statement: who asks is looked up at every request. */
  override get(sid: string, done: (error: unknown, data?: Read | null) => void): void {
    this.#pool
      .query<PersonNow & { sess: SessionData; known: boolean }>(
        `SELECT s.sess, p.id IS NOT NULL AS known, ${personNowColumns(`(s.sess->>'bench')::uuid`)}
           FROM sessions s LEFT JOIN people p ON p.id = (s.sess->>'person')::uuid LEFT JOIN accounts a ON a.person_id = p.id
          WHERE s.sid = $1 AND s.expire >= to_timestamp($2)`,
        [tokenHash(sid), Math.ceil(Date.now() / 1000)],
      )
      .then(
        ({ rows: [row] }) => {
          if (!row) return done(null);
          const { sess, known, ...personNow } = row;
          done(null, known ? { ...sess, personNow } : sess);
        },
        (error: unknown) => done(error),
      );
  }
  override createSession(request: Request, data: Read): session.Session & SessionData {
    if (data.personNow) readBeside.set(request, data.personNow);
    else readBeside.delete(request);
    // Out of this very object: what is in it is compared with the session at the end, and written where they differ.
    delete data.personNow;
    return super.createSession(request, data);
  }
  override set(sid: string, data: SessionData, done?: Done): void {
    super.set(tokenHash(sid), data, done);
  }
  override destroy(sid: string, done?: Done): void {
    super.destroy(tokenHash(sid), done);
  }
}

/** Reads and writes the session of a request. */
export interface Sessions {
  readonly middleware: RequestHandler;
  close(): Promise<void>;
}

/** Drawn once for all servers of a database; it only signs the cookie. */
export async function sessionSecret(store: Store): Promise<string> {
  const key = 'session-secret';
  await store.models.meta.findOrCreate({ where: { key }, defaults: { key, value: randomBytes(32).toString('base64url') } });
  const row = await store.models.meta.findByPk(key, { rejectOnEmpty: true });
  return row.value;
}

/** `encrypted`: reached by TLS only, here or at the proxy in front; the cookie then goes no other way. */
export function openSessions(databaseUrl: string, secret: string, encrypted: boolean): Sessions {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 4, connectionTimeoutMillis: 4000, keepAlive: true });
  // A connection that is idle while the database goes away: the next request gets another.
  pool.on('error', () => undefined);
  const kept = new HashedStore(pool);
  const middleware = session({
    store: kept,
    secret,
    name: encrypted ? '__Host-veglia' : 'veglia',
    genid: () => randomBytes(32).toString('base64url'),
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: encrypted, path: '/', maxAge: sessionLimits.longest },
  });
  return {
    middleware,
    async close() {
      // The types say that there is nothing to wait for; there may be.
      await Promise.resolve(kept.close());
      if (!pool.ended) await pool.end();
    },
  };
}
