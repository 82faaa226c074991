/** A gateway for messages on loopback: it keeps what it was given, ships for the demo and the tests, and can refuse or be away. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';

/** A message as it came. */
export interface ReceivedMessage {
  readonly to: string;
  readonly text: string;
}

/** The stand-in; `listen` gives its address. */
export class SimulatedMessenger {
  readonly received: ReceivedMessage[] = [];
  /** Answers 422 to whatever it is given. */
  refuses = false;
  readonly #server: Server;

  constructor() {
    this.#server = createServer((request, response) => {
      const chunks: Buffer[] = [];
      request.on('data', (chunk: Buffer) => chunks.push(chunk));
      request.on('end', () => {
        if (this.refuses) {
          response.writeHead(422).end();
          return;
        }
        this.received.push(JSON.parse(Buffer.concat(chunks).toString('utf8')) as ReceivedMessage);
        response.writeHead(202).end();
      });
    });
  }

  /** Address on loopback. */
  async listen(): Promise<string> {
    await new Promise<void>((resolve) => this.#server.listen(0, '127.0.0.1', resolve));
    return `http://127.0.0.1:${(this.#server.address() as AddressInfo).port}/messages`;
  }

  async close(): Promise<void> {
    this.#server.closeAllConnections();
    await new Promise((resolve) => this.#server.close(resolve));
  }
}
