/** Messages to customers: a gateway of the shop’s choice over HTTP, or the stand-in of the demo. It gets an address and a text, and nothing else. */
import type { BodyOf } from '@veglia/core';
import { SimulatedMessenger } from '@veglia/simulators/devices';

/** What became of a message. */
export type MessageResult = BodyOf<'message.sent'>['result'];
/** What messages go through. Never throws: what went wrong is an answer. */
export interface Messenger {
  send(to: string, text: string): Promise<MessageResult>;
}

/** A gateway is waited for so many milliseconds (value of ours). */
const usualTimeoutMs = 6000;

/** POST of `{ "to", "text" }` as JSON; any 2xx is sent, any 4xx refused. */
export function httpMessenger(address: string, timeoutMs = usualTimeoutMs): Messenger {
  return {
    async send(to, text) {
      try {
        const response = await fetch(address, {
          method: 'POST',
          redirect: 'error',
          signal: AbortSignal.timeout(timeoutMs),
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ to, text }),
        });
        await response.body?.cancel();
        if (response.ok) return 'sent';
        return response.status < 500 ? 'refused' : 'unreachable';
      } catch {
        return 'unreachable';
      }
    },
  };
}

/** The messenger of this server, and the way to let go of it; the demo has a stand-in where none is named. Throws what the system throws. */
export async function openMessenger(
  address: string | undefined,
  demo: boolean,
): Promise<{ readonly messenger: Messenger | undefined; close(): Promise<void> }> {
  if (address !== undefined) return { messenger: httpMessenger(address), close: () => Promise.resolve() };
  if (!demo) return { messenger: undefined, close: () => Promise.resolve() };
  const simulated = new SimulatedMessenger();
  return { messenger: httpMessenger(await simulated.listen()), close: () => simulated.close() };
}
