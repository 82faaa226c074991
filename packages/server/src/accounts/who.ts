/** Who asks: from the session of a request, looked up anew each time, so that whoever is let go is out at once. */
import type { Role, SignedIn } from '@veglia/contract';
import { mayUse, routeAccess, type Operation } from '@veglia/contract';
import type { Request, RequestHandler } from 'express';
import { QueryTypes } from 'sequelize';
import { ApiError } from '../http/apiError.ts';
import type { Store } from '../store.ts';
import { record } from './audit.ts';
import { personNowColumns, type PersonNow } from './personNow.ts';
import { tokenHash } from './secrets.ts';
import { readWithSession, sessionLimits } from './sessions.ts';

/** Somebody who is signed in. */
export interface Who {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  readonly how: SignedIn['by'];
  readonly fresh: boolean;
  readonly hasPin: boolean;
  readonly hasFactor: boolean;
}

const known = new WeakMap<Request, Who>();
/** Who asks, once `identify` has looked. */
export const whoAsks = (request: Request): Who | undefined => known.get(request);
/** Throws signed-out. */
export function requireWho(request: Request): Who {
  const who = known.get(request);
  if (!who) throw new ApiError('signed-out');
  return who;
}

async function personNow(store: Store, person: string, bench: string | undefined): Promise<PersonNow | undefined> {
  const [row] = await store.sequelize.query<PersonNow>(
    `SELECT ${personNowColumns('$2::uuid')} FROM people p LEFT JOIN accounts a ON a.person_id = p.id WHERE p.id = $1`,
    { bind: [person, bench ?? null], type: QueryTypes.SELECT },
  );
  return row;
}

/**
 * Undefined where nobody is signed in, the session is over, or the person has left. `justRead`: the session was read this moment and not changed since, and the
 * person with it.
 */
export async function whoIn(store: Store, request: Request, demo: boolean, { justRead = false } = {}): Promise<Who | undefined> {
  const { session } = request;
  const { person, how, bench, at = 0, confirmedAt = 0, seenAt = 0 } = session;
  // What a demo let in is nobody once the database is a shop’s.
  if (person === undefined || how === undefined || (how === 'demo' && !demo)) return undefined;
  const now = store.now().getTime();
  const idle = how === 'pin' ? sessionLimits.idleByPin : sessionLimits.idle;
  if (now - at > sessionLimits.longest || now - seenAt > idle) return undefined;
  const row = (justRead ? readWithSession(request) : undefined) ?? (await personNow(store, person, bench));
  if (!row || row.left || row.bench_ended) return undefined;
  if (how !== 'demo' && (row.sessions_from === null || at < row.sessions_from.getTime())) return undefined;
  return {
    id: person,
    name: row.name,
    role: row.role,
    how,
    fresh: how === 'demo' || now - confirmedAt <= sessionLimits.fresh,
    hasPin: row.has_pin,
    hasFactor: row.has_factor,
  };
}

/**
 * Not by the session’s own saving: that writes all of it as it was when the request came, and would bring back a session that was ended meanwhile.
 */
const seen = (store: Store, sid: string, at: number): Promise<unknown> =>
  store.sequelize.query("UPDATE sessions SET sess = jsonb_set(sess::jsonb, '{seenAt}', to_jsonb($1::bigint))::json WHERE sid = $2", {
    bind: [at, tokenHash(sid)],
  });

/** Behind the session: looks who asks, and throws signed-out for all that is not about signing in. */
export function identify(store: Store, demo: boolean): RequestHandler {
  return async (request, _response, next) => {
    const who = await whoIn(store, request, demo, { justRead: true });
    if (who) {
      known.set(request, who);
      const now = store.now().getTime();
      if (now - (request.session.seenAt ?? 0) > sessionLimits.seenEvery) await seen(store, request.sessionID, now);
    }
    if (!who && !/^[/]session(?:[/]|$)/.test(request.path)) throw new ApiError('signed-out');
    next();
  };
}

/** Throws signed-out, not-allowed or sign-in-again; records what a role was refused. */
export async function requireAccess(store: Store, operation: Operation, request: Request): Promise<void> {
  const { who: allowed, fresh } = routeAccess[operation];
  if (allowed === 'open') return;
  const who = requireWho(request);
  if (!mayUse(who.role, operation)) {
    await record(store, 'refused', { person: who.id, address: request.ip }, operation);
    throw new ApiError('not-allowed');
  }
  if (fresh && !who.fresh) throw new ApiError('sign-in-again');
}

/** Throws not-yours where a body names somebody else as its writer. */
export function requireOwn(request: Request, body: unknown): void {
  const by = typeof body === 'object' && body !== null && 'by' in body ? body.by : undefined;
  if (typeof by === 'string' && by !== requireWho(request).id)
    throw new ApiError('not-yours', [{ code: 'unknown-id', where: 'by', value: by, expected: 'whoever is signed in' }]);
}
