import { createHash } from 'node:crypto';
import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { beforeAll, expect, test } from '@jest/globals';
import { exitCodes, run } from './main.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'veglia-image-'));
});
const at = (name: string): string => path.join(folder, name);
async function file(name: string, data: Uint8Array | string): Promise<string> {
  await writeFile(at(name), data);
  return at(name);
}
async function call(...args: string[]): Promise<{ code: number; out: unknown }> {
  let out = '';
  const code = await run(['image', ...args], { out: (text) => (out += text), err: () => undefined });
  return { code, out: out === '' ? undefined : JSON.parse(out) };
}
const good = Uint8Array.from({ length: 3000 }, (_, index) => (index * 31) & 255);
const sha256 = createHash('sha256').update(good).digest('hex');
/** One bit of one byte changed. */
const flipped = (place: number): Uint8Array => good.with(place, (good[place] ?? 0) ^ 8);

test('a file is read, also packed, and its bytes are written beside it and over nothing', async () => {
  expect(await call('read', await file('good.bin', good))).toMatchObject({
    code: exitCodes.fine,
    out: { format: 'raw', bytes: 3000, sha256, packed: false },
  });
  expect(await call('read', await file('good.gz', gzipSync(good)), '--to', at('out.bin'))).toMatchObject({ out: { packed: true, sha256 } });
  expect(new Uint8Array(await readFile(at('out.bin')))).toEqual(good);
  expect((await call('read', at('good.gz'), '--to', at('out.bin'))).code).toBe(exitCodes.wrongInput);
});
test('hexadecimal text; a wrong line is named', async () => {
  const text = ':0100000041BE\n:0100040042B9\n:00000001FF\n';
  expect(await call('read', await file('good.hex', text))).toMatchObject({ out: { format: 'intel-hex', bytes: 5, gaps: [[1, 4]] } });
  const refused = await call('read', await file('bad.hex', text.replace('B9', 'B8')));
  expect([refused.code, JSON.stringify(refused.out).includes('line 2')]).toEqual([exitCodes.wrongInput, true]);
});
test('two are compared', async () => {
  expect(await call('compare', await file('a.bin', good), await file('b.bin', flipped(77)))).toMatchObject({
    out: { first: 77, differingBytes: 1, places: [{ from: 77, to: 78 }] },
  });
  expect(await call('compare', at('a.bin'), at('none.bin'))).toMatchObject({ code: exitCodes.wrongInput });
});
test('three reads are made one; two, or reads of different size, are refused', async () => {
  const reads = await Promise.all([5, 500, 2999].map((place, index) => file(`read${index}.bin`, flipped(place))));
  expect(await call('combine', at('made.bin'), ...reads)).toMatchObject({ code: exitCodes.fine, out: { reads: 3, unsteadyBytes: 3 } });
  expect(new Uint8Array(await readFile(at('made.bin')))).toEqual(good);
  expect((await call('combine', at('other.bin'), ...reads.slice(0, 2))).code).toBe(exitCodes.wrongInput);
  expect((await call('combine', at('other.bin'), ...reads, await file('short.bin', good.subarray(0, 9)))).code).toBe(exitCodes.wrongInput);
});
test('what it holds is told, and what is a person’s own is masked', async () => {
  const bytes = new Uint8Array(3 * 4096).fill(0xff);
  bytes.set(new TextEncoder().encode('boot 2.31 for ada@example.org'), 100);
  bytes.set(new TextEncoder().encode('at 02:1A:7F:30:12:9C,'), 209);
  bytes.set(gzipSync(good), 4096);
  expect(await call('identify', await file('holds.bin', bytes))).toEqual({
    code: exitCodes.fine,
    out: expect.objectContaining({
      bytes: 3 * 4096,
      signatures: [{ kind: 'gzip', at: 4096 }],
      versions: [{ at: 100, text: 'boot 2.31 for •••' }],
      own: [{ from: 212, to: 229, kind: 'address' }],
    }),
  });
  // A table that a chip gives of itself is no dump.
  expect(await call('identify', await file('table.bin', new TextEncoder().encode('SFDP')))).toEqual({
    code: exitCodes.fine,
    out: { bytes: 4, sfdp: { refused: 'cut-off' } },
  });
});
