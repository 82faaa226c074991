/**
 * A bench meter that isn't there: a TCP server that answers as one does, with what is at its probes. States: answering, silent (reads and never
 * answers), garbled (answers with what is no reading). It always holds that a line is answered once or never.
 */
import { createServer, type AddressInfo, type Socket } from 'node:net';
import { formatNumber, identityQuery, overRangeNumber, parseQuery, type MeterFunction } from '@veglia/core';

/** What the probes are on: volts and ohms; null is more than the meter shows. */
export type Probes = Readonly<Record<MeterFunction, number | null>>;

/** Nothing connected. */
export const openProbes: Probes = { 'dc-volts': 0, 'ac-volts': 0, ohms: null, diode: null, continuity: null };

/** Largest reading of each function where no range is asked for; as small bench meters have (value of ours). */
const largest: Probes = { 'dc-volts': 1000, 'ac-volts': 750, ohms: 1e8, diode: 3, continuity: 1000 };

/** Longest line it takes; what is longer breaks the connection off. */
const longestLine = 1024;

/** A meter listening on loopback. */
export class SimulatedMeter {
  readonly #server = createServer((socket) => this.#serve(socket));
  readonly #sockets = new Set<Socket>();
  #probes: Probes = openProbes;
  mode: 'answering' | 'silent' | 'garbled' = 'answering';
  /** Questions that came. */
  asked: string[] = [];

  /** Port 0: any free one. Throws what the system throws. */
  async listen(port = 0): Promise<number> {
    await new Promise<void>((resolve, reject) => {
      this.#server.once('error', reject);
      this.#server.listen(port, '127.0.0.1', resolve);
    });
    return (this.#server.address() as AddressInfo).port;
  }

  /** Puts the probes on something; what isn't named stays open. */
  touch(probes: Partial<Probes>): void {
    this.#probes = { ...openProbes, ...probes };
  }

  /** Breaks every connection off. */
  drop(): void {
    for (const socket of this.#sockets) socket.destroy();
  }

  async close(): Promise<void> {
    this.drop();
    await new Promise<void>((resolve) => this.#server.close(() => resolve()));
  }

  #serve(socket: Socket): void {
    this.#sockets.add(socket);
    socket.on('close', () => this.#sockets.delete(socket));
    socket.on('error', () => socket.destroy());
    socket.setEncoding('latin1');
    const errors: string[] = [];
    let rest = '';
    socket.on('data', (text: string) => {
      rest += text;
      const lines = rest.split('\n');
      rest = lines.pop() ?? '';
      if (rest.length > longestLine) return socket.destroy();
      for (const line of lines) {
        const reply = this.#answer(line.trim(), errors);
        if (reply !== undefined && this.mode !== 'silent') socket.write(`${this.mode === 'garbled' ? '%%%' : reply}\n`);
      }
    });
  }

  #answer(line: string, errors: string[]): string | undefined {
    this.asked.push(line);
    if (line === '') return undefined;
    if (line.toUpperCase() === identityQuery) return 'Veglia,Simulated meter,0,1.0';
    if (/^:?SYST(?:EM)?:ERR(?:OR)?\?$/i.test(line)) return errors.shift() ?? '0,"No error"';
    const query = parseQuery(line);
    if (!query) {
      if (!/^[*](?:RST|CLS)$/i.test(line)) errors.push('-113,"Undefined header"');
      return undefined;
    }
    const value = this.#probes[query.function];
    const most = query.range === undefined ? (largest[query.function] ?? 0) : query.range * 1.2;
    return value === null || Math.abs(value) > most ? overRangeNumber : formatNumber(value);
  }
}
