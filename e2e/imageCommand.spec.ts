/** `veglia image add|export|fit` against the running server. */
import { execFile } from 'node:child_process';
import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { goodContent } from '@veglia/simulators/set';
import { v7 as uuidv7 } from 'uuid';
import { inRoot } from '../scripts/lib/paths.mjs';
import { expect, test } from './support/app.ts';

test.use({ withDemo: true });

const call = (...args: string[]): Promise<{ code: number; out: unknown }> =>
  new Promise((resolve) => {
    execFile(process.execPath, [inRoot('packages/cli/bin/veglia.js'), 'image', ...args], (error, stdout) =>
      resolve({ code: typeof error?.code === 'number' ? error.code : 0, out: stdout === '' ? undefined : JSON.parse(stdout) }),
    );
  });

test('an image goes in by the command, is judged, comes out as it was, and is seen in the stock', async ({ page, app }) => {
  const folder = await mkdtemp(path.join(tmpdir(), 'veglia-command-'));
  const file = path.join(folder, 'bought.bin');
  const bytes = Buffer.from(goodContent(31));
  await writeFile(file, bytes);
  const server = ['--server', app.address];
  const facts = ['--by', 'ilse marrow', '--name', 'bought by command', '--board', 'QKM-3107', '--revision', 'B', '--panel', 'VP-43-A'];
  const id = uuidv7();
  const added = await call('add', file, ...server, ...facts, '--id', id);
  expect(added).toMatchObject({ code: 0, out: { id, size: bytes.length, facts: { source: 'dealer', board: 'QKM-3107' } } });
  const { sha256 } = added.out as { sha256: string };
  // Sent again it is the same one: nothing arrives twice.
  expect(await call('add', file, ...server, ...facts, '--id', id)).toMatchObject({ code: 0, out: { id, sha256 } });

  const fit = await call('fit', ...server, '--board', 'qkm 3107', '--revision', 'B', '--panel', 'VP-43-A', '--size', '1 MiB');
  expect((fit.out as { id: string; fit: string; points: { code: string }[] }[]).find((one) => one.id === id)).toMatchObject({
    fit: 'unsure',
    points: expect.arrayContaining([expect.objectContaining({ code: 'untried' })]),
  });
  expect(await call('fit', ...server, '--board', 'other', '--size', 'large')).toMatchObject({ code: 1 });

  const to = path.join(folder, 'out.bin');
  // The first half is there already, from a call that broke off.
  await writeFile(`${to}.part`, bytes.subarray(0, 400_000));
  expect(await call('export', sha256.slice(0, 16), to, ...server)).toMatchObject({ code: 0, out: { sha256, size: bytes.length } });
  expect(Buffer.compare(await readFile(to), bytes)).toBe(0);
  expect((await call('export', sha256.slice(0, 16), to, ...server)).code).toBe(1);
  // What was broken off of another image is no beginning of this one.
  const wrong = path.join(folder, 'wrong.bin');
  await writeFile(`${wrong}.part`, Buffer.alloc(1000));
  expect((await call('export', id, wrong, ...server)).code).toBe(1);
  expect((await call('export', id, wrong, ...server)).code).toBe(0);
  expect((await call('add', file, ...server, '--by', 'nobody', '--name', 'x')).code).toBe(1);
  expect((await call('add', file, '--server', 'http://127.0.0.1:1', ...facts)).code).toBe(1);

  await page.goto('/stock');
  await page.getByLabel('Search').fill(sha256.slice(0, 10));
  await expect(page.getByTestId('images').getByRole('button')).toHaveCount(1);
  await expect(page.getByTestId('images')).toContainText('bought by command');
});
