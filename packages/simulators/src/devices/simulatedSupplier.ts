/**
 * A supplier of parts on loopback that answers as `veglia-offers` (docs/formats.md): it ships for the demo and the tests, and can be out
 * of stock, offer the wrong number, be slow, fail, or answer what nobody can read. What it offers follows from the number alone.
 */
import { createServer, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { OffersReply } from '@veglia/contract';
import { numberKey } from '@veglia/core';
import { randomFrom, seedOf } from '../set/random.ts';

/** What it does when it is asked. */
export type SupplierManner = 'sound' | 'stock-out' | 'wrong-match' | 'slow' | 'failing' | 'unreadable';
/** What it sells. */
export interface SupplierOptions {
  readonly name: string;
  readonly manner?: SupplierManner;
  readonly currency?: string;
  /** Condition of what it sells, days until it is here, and how its prices stand to those of others. */
  readonly condition?: OffersReply['offers'][number]['condition'];
  readonly days?: number;
  readonly dearness?: number;
}

/** The stand-in; `listen` gives its address. */
export class SimulatedSupplier {
  readonly name: string;
  /** May be changed while it runs. */
  manner: SupplierManner;
  readonly #options: SupplierOptions;
  readonly #server: Server;
  readonly #held = new Set<ServerResponse>();

  constructor(options: SupplierOptions) {
    this.#options = options;
    this.name = options.name;
    this.manner = options.manner ?? 'sound';
    this.#server = createServer((request, response) => {
      const number = new URL(request.url ?? '/', 'http://localhost').searchParams.get('number') ?? '';
      this.#answer(number, response);
    });
  }

  /** Address on loopback. */
  async listen(): Promise<string> {
    await new Promise<void>((resolve) => this.#server.listen(0, '127.0.0.1', resolve));
    return `http://127.0.0.1:${(this.#server.address() as AddressInfo).port}/offers`;
  }

  async close(): Promise<void> {
    for (const response of this.#held) response.destroy();
    this.#server.closeAllConnections();
    await new Promise((resolve) => this.#server.close(resolve));
  }

  #answer(number: string, response: ServerResponse): void {
    if (this.manner === 'slow') {
      // Never answers: whoever asked gives up first.
      this.#held.add(response);
      return;
    }
    if (this.manner === 'failing') {
      response.writeHead(500).end();
      return;
    }
    response.writeHead(200, { 'content-type': 'application/json' });
    response.end(this.manner === 'unreadable' ? '<p>Back soon</p>' : JSON.stringify(this.#offers(number)));
  }

  #offers(number: string): OffersReply {
    const { name, currency = 'EUR', condition = 'new', days = 3, dearness = 1 } = this.#options;
    const random = randomFrom(seedOf(1, numberKey(number)));
    // Between 18 and 80 for whatever it is: a stand-in knows no trade.
    const price = Math.round((1800 + 6200 * random() ** 2) * dearness);
    return {
      format: 'veglia-offers',
      version: 1,
      offers: [
        {
          number: this.manner === 'wrong-match' ? `${number}-B` : number,
          title: `${number}, ${condition} (${name})`,
          condition,
          price: { amountMinor: price, currency },
          days,
          inStock: this.manner === 'stock-out' ? 0 : 1 + Math.floor(random() * 5),
          warrantyDays: condition === 'new' ? 365 : 90,
          returnDays: 14,
        },
      ],
    };
  }
}
