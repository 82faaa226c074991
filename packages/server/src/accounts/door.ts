/** All that signing in needs, put together once for a process. */
import type { IncomingMessage } from 'node:http';
import type { Request, RequestHandler, Response } from 'express';
import type { Store } from '../store.ts';
import { openAttempts } from './attempts.ts';
import { browserOf } from './browser.ts';
import { openSessions, sessionSecret, told } from './sessions.ts';
import type { Accounts } from './signIn.ts';
import { identify, whoIn } from './who.ts';

/** Who is let in, and as whom. */
export interface Door {
  readonly accounts: Accounts;
  /** For every request under /api: its session, and who asks. Throws signed-out. */
  readonly middleware: readonly RequestHandler[];
  /** For a socket: undefined where nobody is signed in; otherwise looks again whether that still holds. */
  watch(request: IncomingMessage): Promise<(() => Promise<boolean>) | undefined>;
  close(): Promise<void>;
}

/** `encrypted`: people reach it by TLS only. */
export async function openDoor(
  store: Store,
  databaseUrl: string,
  { demo, encrypted }: { readonly demo: boolean; readonly encrypted: boolean },
): Promise<Door> {
  const secret = await sessionSecret(store);
  const sessions = openSessions(databaseUrl, secret, encrypted);
  // A socket has no response; what the session would write into one is not asked for.
  const withSession = (request: Request): Promise<void> => told((done) => sessions.middleware(request, {} as Response, done));
  return {
    accounts: { store, attempts: openAttempts(store), browser: browserOf(secret, encrypted), demo, encrypted },
    middleware: [sessions.middleware, identify(store, demo)],
    async watch(incoming) {
      const request = incoming as Request;
      await withSession(request);
      if (!(await whoIn(store, request, demo, { justRead: true }))) return undefined;
      return async () => {
        const there = await new Promise<boolean>((resolve) => request.session.reload((error: unknown) => resolve(!error)));
        return there && (await whoIn(store, request, demo, { justRead: true })) !== undefined;
      };
    },
    close: () => sessions.close(),
  };
}
