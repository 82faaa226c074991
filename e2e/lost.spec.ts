/** Nothing typed is lost, whatever the server answers. */
import { readFileSync } from 'node:fs';
import { problemDocumentSchema } from '@veglia/contract';
import type { Page } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { expect, test } from './support/app.ts';
import { seedJob, walk } from './support/steps.ts';

const opened = [
  { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
  { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] },
];
async function onTheBench(page: Page): Promise<string> {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Oltrema', model: '', serial: '' } }, opened);
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('next')).toBeVisible();
  return id;
}
async function writeNote(page: Page, text: string): Promise<void> {
  await page.getByLabel('Note', { exact: true }).fill(text);
  await page.keyboard.press('Enter');
}
const stored = async (page: Page, id: string): Promise<string[]> => {
  const { entries } = (await (await page.request.get(`/api/jobs/${id}`)).json()) as { entries: { body: { text?: string } }[] };
  return entries.flatMap(({ body }) => (body.text === undefined ? [] : [body.text]));
};
/** Puts entries where those on their way are kept, as another day left them. */
async function leaveWaiting(page: Page, id: string, bodies: readonly object[]): Promise<void> {
  const { people } = (await (await page.request.get('/api/people')).json()) as { people: { id: string }[] };
  const waiting = bodies.map((body) => ({
    jobId: id,
    by: people[0]?.id,
    draft: { id: uuidv7(), at: new Date().toISOString(), basedOn: 2, body },
  }));
  await page.evaluate(async (all) => {
    const db = await new Promise<IDBDatabase>((resolve) => {
      const asked = indexedDB.open('veglia');
      asked.onsuccess = () => resolve(asked.result);
    });
    const transaction = db.transaction('waiting', 'readwrite');
    for (const one of all) transaction.objectStore('waiting').add(one);
    await new Promise<void>((resolve) => (transaction.oncomplete = () => resolve()));
    db.close();
  }, waiting);
}
const trouble = (code: 'internal' | 'database-unavailable') => ({
  status: code === 'internal' ? 500 : 503,
  contentType: 'application/problem+json',
  body: JSON.stringify(problemDocumentSchema.parse({ type: 'x', title: 'Trouble.', status: 500, code, requestId: 'r' })),
});

for (const [name, answer] of [
  ['a fault of its own', trouble('internal')],
  ['its database away', trouble('database-unavailable')],
  ['something between that is overloaded', { status: 429, headers: { 'retry-after': '3' }, body: 'slow down' }],
  ['a page of somebody else’s', { status: 502, contentType: 'text/html', body: '<h1>Bad gateway</h1>' }],
] as const)
  test(`a server with ${name} refuses nothing: the note waits and goes`, async ({ page }) => {
    const id = await onTheBench(page);
    await page.route('**/entries', (route) => (route.request().method() === 'POST' ? route.fulfill(answer) : route.continue()));
    await writeNote(page, 'cap at the corner is domed');
    await expect(page.getByTestId('not-reached')).toBeVisible();
    await expect(page.getByTestId('needs-you')).toHaveCount(0);
    expect(await stored(page, id)).toEqual([]);
    await page.unroute('**/entries');
    await page.getByRole('button', { name: 'Send now' }).click();
    await expect(page.getByTestId('not-reached')).toHaveCount(0);
    expect(await stored(page, id)).toEqual(['cap at the corner is domed']);
  });

test('more than one request holds goes in several: two hundred and one notes, and sixty long ones', async ({ page }) => {
  const id = await onTheBench(page);
  const short = Array.from({ length: 201 }, (_, n) => ({ kind: 'note.added', v: 1, text: `n${n}` }));
  const long = Array.from({ length: 60 }, (_, n) => ({ kind: 'note.added', v: 1, text: `l${n} ${'x'.repeat(3900)}` }));
  await leaveWaiting(page, id, [...short, ...long]);
  await page.goto('/settings');
  // Whichever screen is open: what was left here is sent.
  await expect(async () => expect((await stored(page, id)).length).toBe(261)).toPass({ timeout: 30_000 });
  expect((await stored(page, id)).slice(0, 201)).toEqual(short.map(({ text }) => text));
});

test('what the server refuses is kept, named with its reason, saved, edited, sent again or let go; the rest goes on', async ({ page }) => {
  const id = await onTheBench(page);
  await leaveWaiting(page, id, [
    { kind: 'note.added', v: 1, text: 'before' },
    { kind: 'note.added', v: 1, text: 'y'.repeat(20_001) },
    { kind: 'test.answered', v: 2, test: 'torch', outcome: '', sure: 'sure' },
    { kind: 'note.added', v: 1, text: 'behind' },
  ]);
  await page.reload();
  const needs = page.getByTestId('needs-you');
  await expect(needs.getByRole('listitem')).toHaveCount(2);
  await expect(async () => expect(await stored(page, id)).toEqual(['before', 'behind'])).toPass();
  const [saved] = await Promise.all([page.waitForEvent('download'), needs.getByTestId('refused-save').first().click()]);
  expect(readFileSync(await saved.path(), 'utf8')).toContain('y'.repeat(20_001));
  // Looked at once the server has answered: on its way it is not among those that need somebody.
  await Promise.all([
    page.waitForResponse((reply) => reply.url().endsWith('/entries')),
    needs.getByTestId('refused-again').first().click(),
  ]);
  await expect(needs.getByRole('listitem')).toHaveCount(2);
  await needs.getByTestId('refused-edit').click();
  await expect(needs.getByRole('listitem')).toHaveCount(1);
  await expect(page.getByLabel('Note', { exact: true })).toHaveValue(/^y+$/);
  await writeNote(page, 'shorter');
  await expect(page.locator('[data-test="ledger"]')).toContainText('shorter');
  await needs.getByTestId('refused-discard').click();
  await expect(needs).toHaveCount(0);
  await expect(async () => expect(await stored(page, id)).toEqual(['before', 'behind', 'shorter'])).toPass();
});

test('a photo that meets a fault of the server stays, and goes later', async ({ page, app: _ }) => {
  let sent = 0;
  await page.route('**/api/photos/*', (route) => {
    if (route.request().method() !== 'PUT') return route.continue();
    sent += 1;
    return sent === 1 ? route.fulfill(trouble('internal')) : route.continue();
  });
  await page.goto('/jobs/new');
  await page.clock.install();
  await page
    .locator('input[type="file"]')
    .first()
    .setInputFiles({
      name: 'plate.png',
      mimeType: 'image/png',
      buffer: Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64'),
    });
  await expect.poll(() => sent).toBe(1);
  await expect(page.getByTestId('photo-refused')).toHaveCount(0);
  await expect(page.getByTestId('needs-you')).toHaveCount(0);
  await page.clock.fastForward(1500);
  await expect.poll(() => sent).toBe(2);
});

test('an answer is kept even where the page is left in the instant it shows', async ({ page }) => {
  for (let round = 0; round < 3; round += 1) {
    const id = await onTheBench(page);
    await expect(page.getByTestId('settling')).toHaveCount(0);
    await page.keyboard.press('c');
    await walk(page);
    await page.evaluate(() => {
      const key = document.querySelector('[data-test="next"] [data-outcome] kbd')?.textContent.trim().toLowerCase() ?? '';
      new MutationObserver((_, seen) => {
        if (!document.querySelector('[data-test="ledger"] [data-kind="test.answered"]')) return;
        seen.disconnect();
        location.href = '/settings';
      }).observe(document.body, { childList: true, subtree: true });
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    });
    await page.waitForURL('**/settings');
    await expect
      .poll(async () =>
        ((await (await page.request.get(`/api/jobs/${id}`)).json()) as { entries: { body: { kind: string } }[] }).entries.map(
          ({ body }) => body.kind,
        ),
      )
      .toContain('test.answered');
  }
});

test('an answer is kept even where the browser’s store is not through with it when the page is left', async ({ page }) => {
  const id = await onTheBench(page);
  await page.keyboard.press('c');
  await walk(page);
  // Everything before is stored and sent; from here on the store is held up until the page is gone.
  await expect(page.getByTestId('unsent')).toHaveCount(0);
  await page.evaluate(
    () =>
      new Promise<void>((held) => {
        indexedDB.open('veglia').onsuccess = ({ target }) => {
          const store = (target as IDBOpenDBRequest).result.transaction('waiting', 'readwrite').objectStore('waiting');
          const again = (): void => void (store.get(0).onsuccess = again);
          store.get(0).onsuccess = () => (held(), again());
        };
      }),
  );
  await page.keyboard.press('1');
  await expect(page.locator('[data-kind="test.answered"]')).toHaveCount(1);
  // Damaged ones keep nothing from opening.
  await page.evaluate(() => localStorage.setItem('veglia.on-its-way.damaged', '[{'));
  await page.reload();
  await expect(page.locator('[data-kind="test.answered"]')).toHaveCount(1);
  await expect
    .poll(async () => JSON.stringify(await (await page.request.get(`/api/jobs/${id}`)).json()).split('"test.answered"').length - 1)
    .toBe(1);
  expect(await page.evaluate(() => Object.keys(localStorage).filter((key) => key.startsWith('veglia.on-its-way')))).toEqual([]);
});
