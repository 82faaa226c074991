/** Others' writing, told as it happens: what is there, not what it says. Reconnects by itself; then everybody looks afresh. */
import { livePath, liveMessageSchema, type LiveMessage, type LiveRequest } from '@veglia/contract';
import ReconnectingWebSocket from 'reconnecting-websocket';

/** A job's ledger has grown, or anything may have been missed. */
export type News = Exclude<LiveMessage, { jobs: unknown }>;
type Listener = (message: News) => void;
const listeners = new Set<Listener>();
let socket: ReconnectingWebSocket | undefined;

/** Called for each message until the returned function is called; a connection that came back counts as one. */
export function onLive(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** What is on the screen: told at once, where everything else may come a moment later. */
export function watchJob(id: string | undefined): void {
  if (id === watched) return;
  watched = id;
  sayWatched();
  for (const listener of leaving) listener();
}
let watched: string | undefined;
const leaving = new Set<() => void>();
/** Called when another job, or none, comes on the screen. */
export function onOtherJob(listener: () => void): void {
  leaving.add(listener);
}
function sayWatched(): void {
  // Before it is open, and after a break, opening it says so.
  if (socket?.readyState !== ReconnectingWebSocket.OPEN) return;
  const request: LiveRequest = { watch: watched === undefined ? [] : [watched] };
  socket.send(JSON.stringify(request));
}

/** Once for the page. */
export function startLive(): void {
  if (socket) return;
  const address = new URL(livePath, location.href);
  address.protocol = address.protocol === 'https:' ? 'wss:' : 'ws:';
  socket = new ReconnectingWebSocket(address.href, [], { minReconnectionDelay: 500, maxReconnectionDelay: 4000 });
  const tell = (message: News): void => {
    for (const listener of listeners) listener(message);
  };
  let before = false;
  socket.addEventListener('open', () => {
    sayWatched();
    if (before) tell({ resync: true });
    before = true;
  });
  socket.addEventListener('message', ({ data }: MessageEvent<string>) => {
    const message = liveMessageSchema.safeParse(JSON.parse(data));
    if (!message.success) return;
    if ('jobs' in message.data) for (const job of message.data.jobs) tell(job);
    else tell(message.data);
  });
}
