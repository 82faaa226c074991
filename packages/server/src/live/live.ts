/**
 * Tells browsers that a ledger has grown: `{ job, seq }` over a WebSocket at /api/live. Nothing is told but that; who lacks something
 * fetches it.
 *
 * What is on somebody's screen is told at once; of everything else a browser that says what it shows hears once in a while, gathered: with hundreds of them,
 * telling each of every entry would be most of what a server does.
 *
 * Server processes learn of each other's writing by LISTEN on one plain connection. While that is gone nothing is known of what was
 * written; once it is back, `{ resync: true }` makes every browser look for itself.
 */
import type { Server } from 'node:http';
import { ledgerChannel, liveMessageSchema, livePath, liveRequestSchema, mostNews, type LiveMessage } from '@veglia/contract';
import pg from 'pg';
import type { Logger } from 'pino';
import { WebSocket, WebSocketServer } from 'ws';
import type { Door } from '../accounts/door.ts';
import type { Hosts } from '../http/hosts.ts';

/** Messages to browsers, to be closed at the end. */
export interface Live {
  /** Resolves once the database is listened to for the first time. */
  readonly ready: Promise<void>;
  /** How many browsers there are. */
  sockets(): number;
  /** The database says what others write. */
  listening(): boolean;
  close(): Promise<void>;
}

/** Between two attempts to listen again, milliseconds. */
const retryAfter = 1000;
/** Browsers that vanished without a word are noticed by a ping that nothing answers, milliseconds. */
const pingEvery = 30_000;
/** For so long news of other jobs are gathered, milliseconds (value of ours). */
const gatherFor = 1000;

/** What is asked for: only this very path, with or without a query. Nothing is parsed that a browser could make unparsable. */
const isLivePath = (url: string | undefined): boolean => url?.split('?', 1)[0] === livePath;

/** What another process notified of, or undefined where it is none of our messages. */
function readNotification(payload: string | undefined): LiveMessage | undefined {
  return liveMessageSchema.safeParse(jsonOf(payload ?? '')).data;
}
function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** Opens the WebSocket on a server and listens to the database's channel; reconnects by itself until closed. `gather`: for how long news are gathered, milliseconds. */
export function openLive(
  server: Server,
  databaseUrl: string,
  log: Logger,
  hosts: Hosts,
  door: Pick<Door, 'watch'>,
  gather = gatherFor,
): Live {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: 1024 });
  const alive = new WeakSet<WebSocket>();
  const stillIn = new WeakMap<WebSocket, () => Promise<boolean>>();
  /** Jobs on the screen of each that has said so. */
  const watching = new WeakMap<WebSocket, ReadonlySet<string>>();
  server.on('upgrade', (request, socket, head) => {
    // Whoever asks may be gone in the middle of the reply: an error nobody listens to would end the process.
    socket.on('error', () => socket.destroy());
    const refuse = (status: string): void => {
      socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
    };
    if (!hosts.answersTo(request.headers.host)) return refuse('421 Misdirected Request');
    // A page of another origin must not listen in: browsers send where the page came from.
    if (!isLivePath(request.url) || !hosts.isOwnPage(request.headers.origin, request.headers.host)) return refuse('403 Forbidden');
    door
      .watch(request)
      .then((still) => {
        if (!still) return refuse('401 Unauthorized');
        sockets.handleUpgrade(request, socket, head, (client) => {
          alive.add(client);
          stillIn.set(client, still);
          client.on('pong', () => alive.add(client));
          client.on('message', (data: Buffer) => {
            const said = liveRequestSchema.safeParse(jsonOf(data.toString()));
            if (said.success) watching.set(client, new Set(said.data.watch));
          });
          client.on('error', () => client.terminate());
        });
      })
      .catch((error: unknown) => {
        log.warn({ err: error }, 'who wants to listen could not be looked up');
        refuse('503 Service Unavailable');
      });
  });
  /** Whoever signed out, or was let go, listens no longer. A database that is away decides nothing. */
  const lookAgain = (client: WebSocket): void => {
    stillIn
      .get(client)?.()
      .then((still) => {
        if (!still) client.terminate();
      })
      .catch(() => undefined);
  };
  const tell = (message: LiveMessage, whom: (watched: ReadonlySet<string> | undefined) => boolean = () => true): void => {
    const text = JSON.stringify(message);
    for (const client of sockets.clients) if (client.readyState === WebSocket.OPEN && whom(watching.get(client))) client.send(text);
  };
  const news = new Map<string, number>();
  let telling: NodeJS.Timeout | undefined;
  const tellNews = (): void => {
    telling = undefined;
    const jobs = [...news].map(([job, seq]) => ({ job, seq }));
    news.clear();
    tell(
      jobs.length > mostNews ? { resync: true } : { jobs },
      (watched) => watched !== undefined && jobs.some(({ job }) => !watched.has(job)),
    );
  };
  const tellGrown = (message: LiveMessage): void => {
    if (!('job' in message)) return tell(message);
    tell(message, (watched) => watched?.has(message.job) ?? true);
    news.set(message.job, Math.max(news.get(message.job) ?? 0, message.seq));
    telling ??= setTimeout(tellNews, gather).unref();
  };
  const pinging = setInterval(() => {
    for (const client of sockets.clients) {
      if (!alive.has(client)) client.terminate();
      else {
        alive.delete(client);
        client.ping();
        lookAgain(client);
      }
    }
  }, pingEvery);
  pinging.unref();

  let closed = false;
  let listener: pg.Client | undefined;
  let listening = false;
  let again: NodeJS.Timeout | undefined;
  let heard: () => void = () => undefined;
  const ready = new Promise<void>((resolve) => (heard = resolve));

  async function listen(): Promise<void> {
    const client = new pg.Client({ connectionString: databaseUrl, connectionTimeoutMillis: 4000, keepAlive: true });
    listener = client;
    const lost = (error?: Error): void => {
      if (closed || listener !== client) return;
      listener = undefined;
      listening = false;
      log.warn({ err: error }, 'the database is not listened to; trying again');
      client.end().catch(() => undefined);
      again = setTimeout(() => void listen(), retryAfter);
      again.unref();
    };
    client.on('error', lost);
    client.on('end', () => lost());
    client.on('notification', ({ payload }) => {
      const message = readNotification(payload);
      if (message) tellGrown(message);
      else log.warn('a notification that is none of ours was passed over');
    });
    try {
      await client.connect();
      await client.query(`LISTEN ${ledgerChannel}`);
      listening = true;
      heard();
      tell({ resync: true });
    } catch (error) {
      lost(error as Error);
    }
  }
  void listen();

  return {
    ready,
    sockets: () => sockets.clients.size,
    listening: () => listening,
    async close() {
      closed = true;
      clearInterval(pinging);
      clearTimeout(again);
      clearTimeout(telling);
      for (const client of sockets.clients) client.terminate();
      sockets.close();
      await listener?.end().catch(() => undefined);
    },
  };
}
