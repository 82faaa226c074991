/** A person's data as an owner handles it: handed over as a file, erased on the server and on every bench. */
import { readFileSync } from 'node:fs';
import { unzipSync, strFromU8 } from 'fflate';
import { expect, test } from './support/app.ts';
import { seedJob } from './support/steps.ts';

const closed = [
  { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
  { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'], words: 'his aunt dropped it' },
  { kind: 'note.added', v: 1, text: 'rings after six, ask for Leopold' },
  { kind: 'job.closed', v: 2, outcome: 'handed-back', minutes: 10 },
  { kind: 'set.collected', v: 1, who: 'Leopold himself' },
];
const plate = { maker: 'Oltrema', model: 'OT-1', serial: 'SER-4711-77' };

test('a customer is handed over as a file, then erased; a bench that looked at the job keeps nothing of them', async ({
  page,
  app,
  browser,
}) => {
  const name = 'Leopold Wetherstone';
  const { id } = await seedJob(page, { customer: { name, contact: '01632 960733' }, plate }, closed);
  const other = await seedJob(page, { customer: { name: 'Petronel Ashby', contact: '' }, plate: { ...plate, serial: '' } }, [
    ...closed.slice(0, 2),
    { kind: 'note.added', v: 1, text: `her neighbour ${name} carried it in` },
  ]);
  // Another bench has the job open.
  const bench = await (await browser.newContext({ baseURL: app.address, storageState: app.signedIn })).newPage();
  await bench.goto(`/jobs/${id}`);
  await expect(bench.getByText('rings after six')).toBeVisible();
  const keptOnBench = (): Promise<string> =>
    bench.evaluate(
      () =>
        new Promise<string>((resolve, reject) => {
          const opening = indexedDB.open('veglia');
          opening.onerror = () => reject(new Error('not opened'));
          opening.onsuccess = () => {
            const all = opening.result.transaction('kept').objectStore('kept').getAll();
            all.onsuccess = () => resolve(JSON.stringify(all.result));
          };
        }),
    );
  expect(await keptOnBench()).toContain('Leopold');

  await page.goto('/settings');
  await page.getByRole('link', { name: 'Customers' }).click();
  await expect(page.getByRole('heading', { name: 'Customers' })).toBeVisible();
  await page.getByLabel('Name').fill('wetherstone');
  await page.keyboard.press('Enter');
  const line = page.getByTestId('customers').getByRole('listitem');
  await expect(line).toContainText('1 job');
  const saving = page.waitForEvent('download');
  await line.getByRole('button', { name: 'Save as file' }).click();
  const download = await saving;
  expect(download.suggestedFilename()).toBe('Leopold-Wetherstone.zip');
  const files = unzipSync(readFileSync(await download.path()));
  expect(strFromU8(files['customer.json'] ?? new Uint8Array())).toContain('his aunt dropped it');

  await line.getByTestId('consider').click();
  await expect(page.getByTestId('erase')).toContainText('can’t be undone');
  await page.getByTestId('erase-now').click();
  const done = page.getByTestId('erased');
  await expect(done).toContainText('Erased.');
  await expect(done.getByRole('link', { name: `Job ${other.number}` })).toBeVisible();
  await page.getByLabel('Name').press('Enter');
  await expect(page.getByTestId('customers')).toContainText('No customer fits');
  await page.screenshot({ path: '/tmp/s2.png' });

  // The bench learns of it as of any entry, without being touched.
  await expect(bench.getByText('rings after six')).toHaveCount(0);
  await expect(bench.getByText('[erased]').first()).toBeVisible();
  await bench.goto('/');
  await expect.poll(keptOnBench).not.toMatch(/rings after six|his aunt|01632 960733|SER-4711-77/);
  await bench.context().close();
});

test('a customer whose set is still here is not erased, and the screen says which job', async ({ page }) => {
  const { number } = await seedJob(page, { customer: { name: 'Ottilie Brandreth', contact: '' }, plate }, closed.slice(0, 3));
  await page.goto('/customers');
  await page.getByLabel('Name').fill('Ottilie');
  await page.keyboard.press('Enter');
  await page.getByTestId('consider').click();
  await page.getByTestId('erase-now').click();
  const wrong = page.getByTestId('customers-wrong');
  await expect(wrong).toContainText(`Job ${number} is open`);
  await expect(page.getByTestId('erase')).toBeVisible();
});
