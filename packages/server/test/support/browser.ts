/** A browser as far as signing in goes: keeps cookies, and asks the server by one name. */
import { sessionSchema, type Session } from '@veglia/contract';
import type { Express } from 'express';
import type { Response, Test } from 'supertest';
import { askUnknown, cookiesOf } from './testApp.ts';

/** `host`: the name it asks for; left out, supertest's own. */
export class TestBrowser {
  readonly #app: Express;
  readonly #host: string | undefined;
  #cookies = new Map<string, string>();
  constructor(app: Express, host?: string) {
    this.#app = app;
    this.#host = host;
  }
  #from(asked: Test): Test {
    const withCookie = asked.set('cookie', this.cookie);
    return this.#host === undefined ? withCookie : withCookie.set('host', this.#host);
  }
  async #keep(asked: Promise<Response>): Promise<Response> {
    const reply = await asked;
    for (const one of cookiesOf(reply).split('; ').filter(Boolean)) {
      const at = one.indexOf('=');
      this.#cookies.set(one.slice(0, at), one.slice(at + 1));
    }
    return reply;
  }
  get cookie(): string {
    return [...this.#cookies].map(([name, value]) => `${name}=${value}`).join('; ');
  }
  forget(name: string): void {
    this.#cookies.delete(name);
  }
  async get(path: string): Promise<Response> {
    return this.#keep(Promise.resolve(this.#from(askUnknown(this.#app).get(path))));
  }
  async send(method: 'post' | 'put', path: string, body: object = {}): Promise<Response> {
    return this.#keep(Promise.resolve(this.#from(askUnknown(this.#app)[method](path)).send(body)));
  }
  signIn(name: string, password: string, code?: string): Promise<Response> {
    return this.send('post', '/api/session', { name, password, ...(code === undefined ? {} : { code }) });
  }
  pin(person: string, pin: string): Promise<Response> {
    return this.send('post', '/api/session/pin', { person, pin });
  }
  async session(): Promise<Session> {
    return sessionSchema.parse((await this.get('/api/session')).body);
  }
}
