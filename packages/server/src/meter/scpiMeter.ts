/**
 * A bench meter on the network, one line out and one line in. States: closed, connecting, open. It always holds that at most one question is under
 * way, and that after a time-out the connection is dropped: a late answer must never be taken for the next one.
 */
import { connect, type Socket } from 'node:net';
import {
  formatQuery,
  identityQuery,
  parseIdentity,
  parseReply,
  type Meter,
  type MeterFunction,
  type MeterIdentity,
  type MeterReading,
  type MeterTrouble,
} from '@veglia/core';

/** Where a meter listens, and how long an answer may take, milliseconds. */
export interface ScpiAddress {
  readonly host: string;
  readonly port: number;
  readonly timeoutMs: number;
}

/** An answer longer than this is none. */
const longestAnswer = 4096;

/** A meter by TCP. */
export class ScpiMeter implements Meter {
  readonly #address: ScpiAddress;
  #socket: Socket | undefined;
  #before: Promise<unknown> = Promise.resolve();

  constructor(address: ScpiAddress) {
    this.#address = address;
  }

  async identify(): Promise<MeterIdentity | MeterTrouble> {
    const line = await this.#ask(identityQuery);
    return typeof line === 'string' ? parseIdentity(line) : line;
  }

  async measure(what: MeterFunction, range?: number): Promise<MeterReading | MeterTrouble> {
    const line = await this.#ask(formatQuery(what, range));
    return typeof line === 'string' ? parseReply(what, line) : line;
  }

  close(): Promise<void> {
    this.#drop();
    return Promise.resolve();
  }

  #drop(): void {
    this.#socket?.destroy();
    this.#socket = undefined;
  }

  #ask(line: string): Promise<string | MeterTrouble> {
    const asked = this.#before.then(() => this.#exchange(line));
    this.#before = asked.catch(() => undefined);
    return asked;
  }

  #exchange(line: string): Promise<string | MeterTrouble> {
    return new Promise((resolve) => {
      const { host, port, timeoutMs } = this.#address;
      // Broken off since the last question: tried afresh.
      const kept = this.#socket?.destroyed === false ? this.#socket : undefined;
      let opened = kept !== undefined;
      const socket = kept ?? connect({ host, port });
      let text = '';
      const end = (result: string | MeterTrouble): void => {
        clearTimeout(timer);
        socket.off('data', onData).off('error', onError).off('close', onClose).off('connect', onConnect);
        // Nobody listens between two questions: an error then must not end the process.
        socket.on('error', () => undefined);
        if (typeof result === 'string') this.#socket = socket;
        else {
          socket.destroy();
          this.#socket = undefined;
        }
        resolve(result);
      };
      const onConnect = (): void => {
        opened = true;
        socket.write(`${line}\n`);
      };
      const onData = (chunk: Buffer): void => {
        text += chunk.toString('latin1');
        const at = text.indexOf('\n');
        if (at >= 0) end(text.slice(0, at).trim());
        else if (text.length > longestAnswer) end({ kind: 'not-understood', detail: text.slice(0, 80) });
      };
      const onError = (error: NodeJS.ErrnoException): void =>
        end({ kind: opened ? 'broken-off' : 'not-reached', detail: error.code ?? '' });
      const onClose = (): void => end({ kind: opened ? 'broken-off' : 'not-reached', detail: '' });
      const timer = setTimeout(() => end({ kind: opened ? 'timed-out' : 'not-reached', detail: '' }), timeoutMs);
      socket.on('data', onData).on('error', onError).on('close', onClose);
      if (opened) socket.write(`${line}\n`);
      else socket.on('connect', onConnect);
    });
  }
}
