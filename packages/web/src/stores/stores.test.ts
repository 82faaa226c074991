/** What the browser keeps and sends: nothing typed is lost, each thing is asked for once, and what is on the screen is what was written. */
import { fileURLToPath } from 'node:url';
import { afterEach, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { NewJobInput } from '@veglia/contract';
import { readPackFolder } from '@veglia/contract/node';
import type { Body } from '@veglia/core';
import { createPinia, setActivePinia } from 'pinia';
import { v7 as uuidv7 } from 'uuid';
import { PretendServer, pretendBrowser } from '../testing/browser.ts';
import type { Waiting } from './local.ts';

const hash = 'a'.repeat(64);
const pack = await readPackFolder(fileURLToPath(new URL('../../../../knowledge', import.meta.url)));
const server = new PretendServer();
const events = pretendBrowser(server);
// They look at the browser when they are read.
const { api, NotReached, reachedServer, signedInAs } = await import('../api.ts');
const { local, unsent } = await import('./local.ts');
const outbox = await import('./outbox.ts');
const { draftsOf, dropDraft, holdDraft, keepDraft } = await import('./drafts.ts');
const { useIntakes } = await import('./intakes.ts');
const { useJob } = await import('./job.ts');
const { usePacks } = await import('./packs.ts');
const { useSession } = await import('./session.ts');

const at = '2026-03-02T12:00:00.000Z';
const person = server.people[0]?.id ?? '';
const opened: Body = { kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: 'quorvane.qk3' } };
const dead: Body = { kind: 'symptom.reported', v: 2, symptoms: ['dead'] };
const note = (text: string): Body => ({ kind: 'note.added', v: 1, text });
const draftOf = (body: Body) => ({ id: uuidv7(), at, basedOn: 0, body });
const intake = (): NewJobInput => ({
  id: uuidv7(),
  by: person,
  customer: null,
  plate: { maker: 'Quorvane', model: 'QK3-50', serial: '' },
  entries: [draftOf(opened), draftOf(dead)],
});
/** A job the server has. */
async function job(): Promise<string> {
  const request = intake();
  const reply = await api.takeIn(request);
  if (!reply.ok) throw new Error(reply.problem.title);
  return request.id;
}
const waitingFor = (jobId: string, body: Body): Waiting => ({ jobId, by: person, draft: draftOf(body) });

beforeAll(() => server.setPack(hash, pack));
beforeEach(async () => {
  setActivePinia(createPinia());
  server.reachable = true;
  server.refuses.clear();
  server.asked.length = 0;
  signedInAs.value = person;
  const db = await local();
  for (const name of ['waiting', 'intakes', 'photos', 'drafts', 'kept'] as const) await db.clear(name);
  // Pauses between attempts are the engine's own and tested there.
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick', 'performance', 'Date'] });
});
afterEach(() => {
  outbox.outbox.stop();
  jest.useRealTimers();
});

describe('what is looked at', () => {
  test('is kept, and given again where the server is away; what was never seen is not there', async () => {
    expect(await api.people()).toEqual({ ok: true, value: server.people });
    server.reachable = false;
    expect(await api.people()).toEqual({ ok: true, value: server.people });
    expect(reachedServer.value).toBe(false);
    await expect(api.shop()).rejects.toBeInstanceOf(NotReached);
    server.reachable = true;
    await api.people();
    expect(reachedServer.value).toBe(true);
  });

  test('a pack is asked for once in a browser’s life and compiled once, however many ask', async () => {
    const packs = usePacks();
    const [one, other, current] = await Promise.all([packs.byHash(hash), packs.byHash(hash), packs.loadCurrent()]);
    expect(one).toBe(other);
    expect(current).toBe(one);
    expect(packs.current).toBe(one);
    setActivePinia(createPinia());
    server.reachable = false;
    expect((await usePacks().byHash(hash)).hash).toBe(hash);
    expect(server.asked.filter((one) => one.endsWith(hash))).toHaveLength(1);
    await expect(usePacks().byHash('b'.repeat(64))).rejects.toBeInstanceOf(NotReached);
  });

  test('a reply that is no job of ours is a fault, and not shown', async () => {
    const id = await job();
    const kept = server.jobs.get(id);
    if (!kept) throw new Error(id);
    server.jobs.set(id, { ...kept, number: 'seven' as unknown as number });
    await expect(api.job(id)).rejects.toThrow();
  });
});

describe('entries on their way', () => {
  test('wait while the server is away, and go in the order of writing, together, once the network is back', async () => {
    const id = await job();
    server.reachable = false;
    const written = ['one', 'two', 'three'].map((text) => waitingFor(id, note(text)));
    for (const one of written) await outbox.put([one]);
    outbox.startOutbox();
    await outbox.outbox.flush();
    expect(await unsent()).toBe(3);
    server.reachable = true;
    server.asked.length = 0;
    events.dispatchEvent(new Event('online'));
    await outbox.outbox.flush();
    expect(await unsent()).toBe(0);
    expect(server.asked).toEqual([`POST /api/jobs/${id}/entries`]);
    expect(
      server.jobs
        .get(id)
        ?.entries.slice(2)
        .map((one) => one.id),
    ).toEqual(written.map(({ draft }) => draft.id));
  });

  test('one that is refused stays with its reason, the others go; sent again it is stored, discarded it is gone', async () => {
    const id = await job();
    const [good, bad, worse] = ['good', 'bad', 'worse'].map((text) => waitingFor(id, note(text)));
    if (!good || !bad || !worse) throw new Error('three');
    for (const one of [bad, worse]) server.refuses.set(one.draft.id, 'entries.1.body.text: too long');
    await outbox.put([good, bad, worse]);
    await outbox.outbox.flush();
    const left = await outbox.waitingFor(id);
    expect(left.map(({ draft, refused }) => [draft.id, refused !== undefined])).toEqual([
      [bad.draft.id, true],
      [worse.draft.id, true],
    ]);
    expect(await unsent()).toBe(0);
    server.refuses.clear();
    await outbox.tryAgain(left.slice(0, 1));
    await outbox.remove(left.slice(1));
    await outbox.outbox.flush();
    expect(await outbox.waitingFor(id)).toEqual([]);
    const texts = server.jobs.get(id)?.entries.map(({ body }) => (body as { text?: string }).text);
    expect(texts?.slice(2)).toEqual(['good', 'bad']);
  });
});

describe('whose they are', () => {
  test('nothing is sent under another name: what somebody else wrote waits until they are signed in here', async () => {
    const id = await job();
    const other = uuidv7();
    await outbox.put([waitingFor(id, note('mine')), { ...waitingFor(id, note('theirs')), by: other }]);
    await outbox.outbox.flush();
    expect((await outbox.waitingFor(id)).map(({ by }) => by)).toEqual([other]);
    signedInAs.value = undefined;
    await outbox.put([waitingFor(id, note('nobody is in'))]);
    await outbox.outbox.flush();
    expect(await outbox.waitingFor(id)).toHaveLength(2);
    signedInAs.value = other;
    await outbox.outbox.flush();
    expect((await outbox.waitingFor(id)).map(({ by }) => by)).toEqual([person]);
  });
});

describe('sets checked in', () => {
  test('without a server the set waits here and is checked in once; with one its job is given at once', async () => {
    const intakes = useIntakes();
    server.reachable = false;
    const request = intake();
    expect(await intakes.takeIn(request)).toEqual({});
    expect(intakes.waiting.map(({ id }) => id)).toEqual([request.id]);
    server.reachable = true;
    await intakes.flush();
    await intakes.flush();
    expect(intakes.waiting).toEqual([]);
    expect(server.jobs.get(request.id)?.entries).toHaveLength(2);
    const next = intake();
    expect((await intakes.takeIn(next)).job).toMatchObject({ id: next.id, number: server.jobs.size });
  });

  test('what is refused is told at the form and waits nowhere', async () => {
    const intakes = useIntakes();
    const request = intake();
    server.refuses.set(request.id, 'nobody of that id');
    expect((await intakes.takeIn(request)).refused).toContain('nobody of that id');
    expect(intakes.waiting).toEqual([]);
    expect(server.jobs.has(request.id)).toBe(false);
  });
});

describe('drafts', () => {
  test('are kept as plain data, newest first, and dropped by name', async () => {
    await keepDraft('intake-1', { maker: 'Quorvane', gone: undefined });
    await new Promise((resolve) => setImmediate(resolve));
    await (await local()).put('drafts', { name: 'intake-2', at: '2999-01-01T00:00:00.000Z', content: {} });
    await keepDraft('other', {});
    expect((await draftsOf('intake-')).map(({ name, content }) => [name, content])).toEqual([
      ['intake-2', {}],
      ['intake-1', { maker: 'Quorvane' }],
    ]);
    await dropDraft('intake-2');
    expect((await draftsOf('intake-')).map(({ name }) => name)).toEqual(['intake-1']);
  });

  test('belong to one tab at a time', async () => {
    const letGo = await holdDraft('intake-1');
    expect(letGo).toBeDefined();
    expect(await holdDraft('intake-1')).toBeUndefined();
    letGo?.();
    await new Promise((resolve) => setImmediate(resolve));
    const again = await holdDraft('intake-1');
    expect(again).toBeDefined();
    again?.();
  });
});

describe('the job on the bench', () => {
  const answered: Body = { kind: 'test.answered', v: 2, test: 'outlet', outcome: 'unchanged', sure: 'sure' };
  async function onBench(id: string) {
    await useSession().load();
    const store = useJob();
    await store.open(id);
    return store;
  }

  test('is folded with its pack; an answer is on the screen before it is stored, behind what was advised', async () => {
    const id = await job();
    const store = await onBench(id);
    expect(store.fold?.symptoms).toEqual(['dead']);
    expect(store.entries.map(({ seq }) => seq)).toEqual([1, 2]);
    const writing = store.write(answered);
    expect(store.entries.map(({ body }) => body.kind)).toEqual(['job.opened', 'symptom.reported', 'advice.shown', 'test.answered']);
    await writing;
    expect(store.waiting).toEqual([]);
    expect(server.jobs.get(id)?.entries.map(({ body }) => body.kind)).toEqual(store.entries.map(({ body }) => body.kind));
    expect(store.lastSeq).toBe(4);
  });

  test('goes on without a server: what was seen before opens, what is written stays and is sent later, once', async () => {
    const id = await job();
    await onBench(id);
    setActivePinia(createPinia());
    server.reachable = false;
    const store = await onBench(id);
    expect(store.reached).toBe(false);
    await store.write(note('written in the cellar'));
    expect(store.entries.at(-1)?.body).toEqual(note('written in the cellar'));
    expect(store.waiting).toHaveLength(1);
    server.reachable = true;
    await store.flush();
    await store.flush();
    expect(store.waiting).toEqual([]);
    expect(server.jobs.get(id)?.entries.filter(({ body }) => body.kind === 'note.added')).toHaveLength(1);
  });

  test('that isn’t there is said to be missing; one that was never seen can’t be opened without a server', async () => {
    expect((await onBench(uuidv7())).missing).toBe(true);
    setActivePinia(createPinia());
    server.reachable = false;
    const store = await onBench(uuidv7());
    expect([store.missing, store.reached, store.job]).toEqual([false, false, undefined]);
  });

  test('an entry the server refuses leaves the ledger, stays with its reason, and can be sent again or let go', async () => {
    const id = await job();
    const store = await onBench(id);
    const spy = jest.spyOn(server, 'fetch');
    spy.mockImplementation(async (address, init) => {
      if (init?.method === 'POST' && address.endsWith('/entries')) {
        const sent = JSON.parse(init.body as string) as { entries: { id: string }[] };
        for (const one of sent.entries) server.refuses.set(one.id, 'body.text: too long');
      }
      return PretendServer.prototype.fetch.call(server, address, init);
    });
    await store.write(note('refused'));
    spy.mockRestore();
    expect(store.refused).toHaveLength(1);
    expect(store.entries.map(({ body }) => body.kind)).not.toContain('note.added');
    server.refuses.clear();
    await store.sendRefusedAgain(store.refused);
    expect(store.refused).toEqual([]);
    expect(store.entries.at(-1)?.body).toEqual(note('refused'));
  });
});
