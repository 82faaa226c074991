/** A newer version of the app: asked for, never forced, and not before what was written is with the server. */
import { createServer, request, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test } from './support/app.ts';
import { seedJob } from './support/steps.ts';

test.use({ serviceWorkers: 'allow' });

test('a newer app is offered, waits for what is unsent, and then reloads', async ({ page, app }) => {
  // Stands before the server: `newer` is what a deployment does to the worker's script, `away` a network that is gone for entries.
  let newer = false;
  let away = false;
  const before = new URL(app.address);
  const front = createServer((asked: IncomingMessage, reply: ServerResponse) => {
    if (away && asked.method === 'POST') return void reply.writeHead(503, { 'retry-after': '1' }).end();
    const headers = asked.url === '/sw.js' ? { host: asked.headers.host, 'accept-encoding': 'identity' } : asked.headers;
    const onward = request({ host: before.hostname, port: before.port, path: asked.url, method: asked.method, headers }, (answer) => {
      if (asked.url !== '/sw.js' || !newer) return void answer.pipe(reply.writeHead(answer.statusCode ?? 502, answer.headers));
      const { 'content-length': _, etag: __, 'last-modified': ___, ...kept } = answer.headers;
      reply.writeHead(200, kept);
      answer.on('data', (part: Buffer) => reply.write(part)).on('end', () => reply.end('\n// newer\n'));
    });
    onward.on('error', () => reply.destroy());
    asked.pipe(onward);
  });
  await new Promise<void>((resolve) => front.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${(front.address() as AddressInfo).port}`;
  try {
    const { id } = await seedJob(page, { customer: null, plate: { maker: 'Norrask', model: 'D20-37', serial: '' } }, [
      { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
      { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] },
    ]);
    await page.goto(`${address}/jobs/${id}`);
    await expect(page.getByTestId('next')).toBeVisible();
    await page.evaluate(async () => void (await navigator.serviceWorker.ready));
    await expect(page.getByTestId('newer-app')).toHaveCount(0);

    newer = true;
    away = true;
    await page.getByPlaceholder('Note').fill('written while a newer app waits');
    await page.getByPlaceholder('Note').press('Enter');
    await page.evaluate(async () => void (await (await navigator.serviceWorker.ready).update()));
    await expect(page.getByTestId('newer-app')).toContainText('A new version of Veglia is ready.');
    await page.evaluate(() => Object.assign(window, { sameAsBefore: true }));
    const same = (): Promise<unknown> => page.evaluate(() => 'sameAsBefore' in window);
    await page.getByTestId('reload-app').click();
    await expect(page.getByTestId('newer-app')).toContainText('Reloads when 1 item has been sent.');
    expect(await same()).toBe(true);

    const reloaded = page.waitForEvent('load', { timeout: 60_000 });
    away = false;
    await reloaded;
    expect(await same()).toBe(false);
    await expect(page.getByTestId('ledger')).toContainText('written while a newer app waits');
    await expect(page.getByTestId('newer-app')).toHaveCount(0);
    expect(await app.count(`SELECT count(*) FROM ledger_entries WHERE job_id = '${id}' AND kind = 'note.added'`)).toBe(1);
  } finally {
    front.closeAllConnections();
    await new Promise((resolve) => front.close(resolve));
  }
});
