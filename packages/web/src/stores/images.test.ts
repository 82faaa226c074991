/** A dump on its way to the server over a line that breaks. */
import { createHash } from 'node:crypto';
import { beforeEach, expect, test } from '@jest/globals';
import 'vue';
import { pretendBrowser, PretendServer } from '../testing/browser.ts';

pretendBrowser(new PretendServer());
const { sendDump } = await import('./images.ts');

const by = '0192f000-0000-7000-8000-000000000001';
const facts = { name: 'U402', memory: 'spi-nor', area: 'whole', source: 'own-set' } as const;
const bytes = Uint8Array.from({ length: 9 * 2 ** 20 + 5 }, (_, at) => (at * 7 + (at >> 9)) & 255);
const json = (status: number, body: unknown): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });

/** A server that keeps what arrives; `fault` says what becomes of a request that carries bytes, by its number. */
let arrived: Buffer;
let carried: number;
let fault: (nth: number) => 'none' | 'lost' | 'stored-but-unanswered' | 'refused';
beforeEach(() => {
  [arrived, carried] = [Buffer.alloc(0), 0];
  globalThis.fetch = async (address, init) => {
    const url = new URL(address as string, 'http://bench.example.org');
    if (url.pathname.endsWith('/received')) return json(200, { received: arrived.length });
    if (url.pathname.endsWith('/content')) {
      carried += 1;
      const what = fault(carried);
      if (what === 'lost') throw new TypeError('the line went');
      if (what === 'refused') return json(413, { type: 'about:blank', title: 'too large', status: 413, code: 'too-large', requestId: 'r' });
      if (Number(url.searchParams.get('at')) !== arrived.length) throw new Error('a gap');
      arrived = Buffer.concat([arrived, Buffer.from(await (init?.body as Blob).arrayBuffer())]);
      if (what === 'stored-but-unanswered') throw new TypeError('the reply went');
      return json(200, { received: arrived.length });
    }
    const said = JSON.parse(init?.body as string) as { size: number; sha256: string };
    const sha256 = createHash('sha256').update(arrived).digest('hex');
    if (said.size !== arrived.length || said.sha256 !== sha256) {
      // The next id begins with nothing.
      arrived = Buffer.alloc(0);
      return json(422, { type: 'about:blank', title: 'incomplete', status: 422, code: 'upload-incomplete', requestId: 'r' });
    }
    return json(200, {
      id: url.pathname.split('/').at(-1),
      size: said.size,
      sha256,
      crc32: '0',
      md5: '0',
      by,
      at: '2026-03-01T08:00:00Z',
      facts,
    });
  };
});
const send = (pauses: number[] = []) =>
  sendDump(new Blob([bytes]), { by, facts, pause: (milliseconds) => Promise.resolve(void pauses.push(milliseconds)) });

test.each<readonly [string, typeof fault, number]>([
  ['a line that holds', () => 'none', 0],
  ['a request that is lost', (nth) => (nth === 2 ? 'lost' : 'none'), 1],
  ['a request that arrives and is not answered: it is not sent twice', (nth) => (nth === 2 ? 'stored-but-unanswered' : 'none'), 1],
  ['every other request is lost', (nth) => (nth % 2 === 0 ? 'lost' : 'none'), 2],
])('%s: what is stored is what was sent', async (_, how, waits) => {
  fault = how;
  const pauses: number[] = [];
  const reply = await send(pauses);
  expect(reply.ok && reply.value.dump.sha256).toBe(createHash('sha256').update(bytes).digest('hex'));
  expect(arrived.equals(bytes)).toBe(true);
  expect(pauses).toHaveLength(waits);
});
test('a line that stays away is left to a person', async () => {
  fault = () => 'lost';
  await expect(send()).rejects.toThrow('the line went');
});
test('a refusal is a value', async () => {
  fault = () => 'refused';
  const reply = await send();
  expect(reply.ok ? '' : reply.problem.code).toBe('too-large');
});
test('broken off by hand', async () => {
  fault = () => 'none';
  const stop = new AbortController();
  const sent: number[] = [];
  const going = sendDump(new Blob([bytes]), { by, facts, signal: stop.signal, progress: (n) => (sent.push(n), stop.abort()) });
  await expect(going).rejects.toThrow();
  expect(sent).toEqual([4 * 2 ** 20]);
});

test('after a reload the same file goes on where it was: what arrived is not sent again', async () => {
  const kept = new Map<string, string>();
  const begun = {
    get: (file: string) => kept.get(file),
    set: (file: string, id: string) => void kept.set(file, id),
    delete: (file: string) => void kept.delete(file),
  };
  const file = (content: Uint8Array<ArrayBuffer> = bytes): File => new File([content], 'u402.bin', { lastModified: 5 });
  const stop = new AbortController();
  fault = () => 'none';
  await expect(sendDump(file(), { by, facts, begun, signal: stop.signal, progress: () => stop.abort() })).rejects.toThrow('abort');
  expect([arrived.length, kept.size]).toEqual([4 * 2 ** 20, 1]);
  const before = carried;
  const reply = await sendDump(file(), { by, facts, begun });
  expect(reply.ok && reply.value.dump.sha256).toBe(createHash('sha256').update(bytes).digest('hex'));
  expect([carried - before, arrived.equals(bytes), kept.size]).toEqual([2, true, 0]);
});
test('a file of the same name and size whose bytes are others is sent whole', async () => {
  const kept = new Map([[`u402.bin ${bytes.length} 5`, '0192f000-0000-7000-8000-00000000f1a5']]);
  const begun = {
    get: (file: string) => kept.get(file),
    set: (file: string, id: string) => void kept.set(file, id),
    delete: (file: string) => void kept.delete(file),
  };
  fault = () => 'none';
  arrived = Buffer.alloc(4 * 2 ** 20, 0x77);
  const reply = await sendDump(new File([bytes], 'u402.bin', { lastModified: 5 }), { by, facts, begun });
  expect(reply.ok && reply.value.dump.sha256).toBe(createHash('sha256').update(bytes).digest('hex'));
  expect([arrived.equals(bytes), kept.size]).toEqual([true, 0]);
});
