/** Others' writing, told as it happens: what is there, not what it says. Reconnects by itself; then everybody looks afresh. */
import { livePath, liveMessageSchema, type LiveMessage } from '@veglia/contract';
import ReconnectingWebSocket from 'reconnecting-websocket';

type Listener = (message: LiveMessage) => void;
const listeners = new Set<Listener>();
let socket: ReconnectingWebSocket | undefined;

/** Called for each message until the returned function is called; a connection that came back counts as one. */
export function onLive(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Once for the page. */
export function startLive(): void {
  if (socket) return;
  const address = new URL(livePath, location.href);
  address.protocol = address.protocol === 'https:' ? 'wss:' : 'ws:';
  socket = new ReconnectingWebSocket(address.href, [], { minReconnectionDelay: 500, maxReconnectionDelay: 4000 });
  const tell = (message: LiveMessage): void => {
    for (const listener of listeners) listener(message);
  };
  let before = false;
  socket.addEventListener('open', () => {
    if (before) tell({ resync: true });
    before = true;
  });
  socket.addEventListener('message', ({ data }: MessageEvent<string>) => {
    const message = liveMessageSchema.safeParse(JSON.parse(data));
    if (message.success) tell(message.data);
  });
}
