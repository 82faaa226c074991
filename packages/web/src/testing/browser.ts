/** For tests without a browser: its database and locks, and a server that keeps jobs in memory and can be taken away. */
import 'fake-indexeddb/auto';
import { jobSettings, usualShopSettings, type Job, type ProblemDocument, type Person, type Session } from '@veglia/contract';
import type { Pack } from '@veglia/core';

interface Draft {
  readonly id: string;
  readonly body: { readonly kind: string };
}
const json = (status: number, body: unknown): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });

/** Answers what the stores ask for, as the real routes do; what is asked for is in `asked`, in order. */
export class PretendServer {
  reachable = true;
  readonly asked: string[] = [];
  readonly jobs = new Map<string, Job>();
  readonly people: Person[] = [{ id: '0190a8f2-0000-7000-8000-0000000000aa', name: 'Ilse Marrow', role: 'owner', left: false }];
  /** Ids of entries or jobs that are refused, with the sentence. */
  readonly refuses = new Map<string, string>();
  readonly #packs = new Map<string, Pack>();
  #current = '';

  setPack(hash: string, pack: Pack): void {
    this.#packs.set(hash, pack);
    this.#current = hash;
  }

  session(): Session {
    const [{ id, name, role } = { id: '', name: '', role: 'owner' as const }] = this.people;
    const signedIn = { id, name, role, by: 'password' as const, fresh: true, hasPin: false, hasFactor: false };
    return { signedIn, setUp: false, demo: false, erasedAt: null, bench: null };
  }

  problem(status: number, code: ProblemDocument['code'], problems: ProblemDocument['problems'] = []): Response {
    return json(status, { type: 'about:blank', title: `refused: ${code}`, status, code, requestId: 'r', problems });
  }

  async fetch(address: string, init: RequestInit = {}): Promise<Response> {
    const method = init.method ?? 'GET';
    this.asked.push(`${method} ${address}`);
    await Promise.resolve();
    if (!this.reachable) throw new TypeError('fetch failed');
    const body = typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined;
    const path = address.replace(/[?].*$/, '');
    if (path === '/api/session') return json(200, this.session());
    if (path === '/api/people') return json(200, { people: this.people });
    if (path === '/api/packs/current') return json(200, { hash: this.#current });
    const pack = this.#packs.get(path.replace('/api/packs/', ''));
    if (pack) return json(200, pack);
    if (method === 'POST' && path === '/api/jobs') return this.#takeIn(body as { id: string; entries: Draft[] });
    const [, id = '', rest] = /^[/]api[/]jobs[/]([^/]+)([/]entries)?$/.exec(path) ?? [];
    const job = this.jobs.get(id);
    if (!job) return this.problem(404, path.startsWith('/api/jobs') ? 'unknown-job' : 'not-found');
    if (rest === undefined) return json(200, job);
    if (method === 'POST') return this.#append(job, body as { by: string; entries: Draft[] });
    const after = Number(new URLSearchParams(address.split('?')[1]).get('after'));
    return json(200, { entries: job.entries.filter(({ seq }) => seq > after), lastSeq: job.entries.length });
  }

  #takeIn(body: { id: string; entries: Draft[] }): Response {
    const why = this.refuses.get(body.id);
    if (why !== undefined) return this.problem(422, 'unknown-person', [{ code: 'unknown-id', where: 'by', sentence: why }]);
    const job = { ...this.emptyJob(body.id), entries: [] };
    this.jobs.set(body.id, job);
    const kept = this.#store(job, this.people[0]?.id ?? '', body.entries);
    return json(201, kept);
  }

  #append(job: Job, { by, entries }: { by: string; entries: Draft[] }): Response {
    const problems = entries.flatMap(({ id }, place) => {
      const sentence = this.refuses.get(id);
      return sentence === undefined ? [] : [{ code: 'schema', where: `entries.${place}.body.text`, sentence }];
    });
    if (problems.length > 0) return this.problem(400, 'bad-request', problems);
    const before = job.entries.length;
    const kept = this.#store(job, by, entries);
    return json(200, { entries: kept.entries.slice(before), lastSeq: kept.entries.length });
  }

  #store(job: Job, by: string, drafts: readonly Draft[]): Job {
    const known = new Set(job.entries.map(({ id }) => id));
    const fresh = drafts.filter(({ id }) => !known.has(id));
    const entries = [...job.entries, ...fresh.map((draft, index) => ({ ...draft, by, seq: job.entries.length + index + 1 }))];
    const kept = { ...job, entries } as Job;
    this.jobs.set(job.id, kept);
    return kept;
  }

  /** A job without entries, under the newest pack. */
  emptyJob(id: string): Job {
    return {
      id,
      number: this.jobs.size + 1,
      openedAt: '2026-03-02T12:00:00.000Z',
      customer: null,
      plate: { maker: 'Quorvane', model: 'QK3-50', serial: '' },
      packHash: this.#current,
      snapshot: 0,
      settings: jobSettings(usualShopSettings),
      entries: [],
    };
  }
}

/** Names that somebody holds, and those who wait for each. */
class PretendLocks {
  readonly #held = new Map<string, Promise<unknown>>();

  async request(name: string, first: unknown, second?: unknown): Promise<unknown> {
    const ifAvailable = second !== undefined && (first as { ifAvailable?: boolean }).ifAvailable === true;
    const run = (second ?? first) as (lock: object | null) => unknown;
    const before = this.#held.get(name);
    if (ifAvailable && before) return run(null);
    const mine = (async (): Promise<unknown> => {
      await before?.catch(() => undefined);
      return run({ name });
    })();
    this.#held.set(name, mine);
    try {
      return await mine;
    } finally {
      if (this.#held.get(name) === mine) this.#held.delete(name);
    }
  }
}

/** Installs them for this test file. Events such as `online` are sent by `dispatchEvent` of what is returned. */
export function pretendBrowser(server: PretendServer): EventTarget {
  const events = new EventTarget();
  const put = (name: string, value: unknown): void => void Object.defineProperty(globalThis, name, { value, configurable: true });
  put('navigator', { locks: new PretendLocks() });
  const storage = new Map<string, string>();
  put('localStorage', {
    getItem: (name: string) => storage.get(name) ?? null,
    setItem: (name: string, value: string) => void storage.set(name, value),
    removeItem: (name: string) => void storage.delete(name),
  });
  // Node’s keeps a process alive.
  put('BroadcastChannel', undefined);
  put('document', { documentElement: { classList: { toggle: () => undefined } } });
  put('fetch', (address: string, init?: RequestInit) => server.fetch(address, init));
  put('addEventListener', events.addEventListener.bind(events));
  put('removeEventListener', events.removeEventListener.bind(events));
  return events;
}
