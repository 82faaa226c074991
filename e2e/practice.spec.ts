/** The first use: a practice job on demo data, from the offer to the working set, by the keys that the coach names. */
import { readFileSync } from 'node:fs';
import { inRoot } from '../scripts/lib/paths.mjs';
import { expect, test } from './support/app.ts';

const webPackage = JSON.parse(readFileSync(inRoot('packages/web/package.json'), 'utf8')) as { dependencies: Record<string, string> };

test.use({ withDemo: true });

test('the practice job is offered, shown round, and worked to a working set by the keys it names', async ({ page }) => {
  await page.goto('/');
  await page.getByTestId('practice-start').click();
  const coach = page.getByTestId('practice-coach');
  await expect(coach).toBeVisible();
  // Looking round: no key reaches the Bench behind it.
  const round = page.locator('.el-tour__title');
  await expect(round).toHaveText('State of the set');
  const answers = page.locator('[data-test="ledger"] [data-kind="test.answered"]');
  await page.keyboard.press('1');
  for (const stop of ['Next step', 'Suspects', 'Ledger', 'Practice set']) {
    await page.getByRole('button', { name: 'Next', exact: true }).click();
    await expect(page.locator('.el-tour__title', { hasText: stop })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(round).toHaveCount(0);
  await expect(answers).toHaveCount(0);
  // The instruments are read on the practice set as well: nothing is stored unless asked.
  await page.keyboard.press('.');
  await page.getByTestId('which-instrument').selectOption('bias');
  await page.getByTestId('practice-read').click();
  await expect(page.locator('[data-finding="bias-none"]')).toBeVisible();
  await page.getByTestId('which-instrument').selectOption('thermal');
  await page.getByTestId('practice-read').click();
  await expect(page.getByTestId('picture')).toHaveCount(2);
  await expect(page.locator('[data-finding="warm-first"]')).toContainText('from the left');
  await page.getByTestId('open-work').click();
  await expect(page.getByTestId('in-job')).toHaveCount(0);
  const entries = page.locator('[data-test="ledger"] > li');
  const panel = page.getByTestId('next');
  let read: string[] = [];
  let logged = false;
  let taken = false;
  for (let presses = 0; (await panel.getAttribute('data-step')) !== 'prove-and-close'; presses += 1) {
    expect(presses).toBeLessThan(25);
    if (!taken && (await panel.getAttribute('data-step')) === 'tcon.fuse') {
      // One more look before the fuse is replaced: a step of the list, with the keys that the coach names for it.
      taken = true;
      await page.getByTestId('others').locator('[data-step="bias.rails"]').first().click();
      await expect(page.locator('[data-test="next"][data-step="bias.rails"]')).toBeVisible();
      continue;
    }
    const key = ((await page.getByTestId('practice-key').textContent()) ?? '').trim();
    const before = await entries.count();
    if (/^\d$/.test(key) && (await panel.getAttribute('data-step')) === 'bias.rails') {
      // A log of a rail: there for an instant is not absent.
      const log = ['time_s,volts', ...[0, 0, 16, 17, 0.2, 0, 0, 0].map((volts, index) => `${index / 10},${volts}`)].join('\n');
      await page.getByTestId('capture-file').setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from(log) });
      await expect(page.getByTestId('capture-said')).toContainText('There for 0.2 s at 17 V, then gone: it trips.');
      await expect(page.getByTestId('reading-value')).toHaveValue('17');
      await expect(page.getByTestId('reading-behaves')).toHaveValue('trips');
      logged = true;
    }
    const fields = await page.getByTestId('reading-value').all();
    if (/^\d$/.test(key) && (await panel.getAttribute('data-step')) === 'tcon.input') {
      // By the meter: its probes are where the cursor is, and the made-up set is at the probes.
      for (const field of fields) {
        const touched = page.waitForResponse((response) => response.url().endsWith('/api/meter/simulated'));
        await field.focus();
        await touched;
        await page.keyboard.press('F2');
        await expect(field).toHaveValue(/^\d/);
      }
      read = await Promise.all(fields.map((field) => field.inputValue()));
      await page.getByTestId('reading-printed').fill('12');
      await page.getByRole('button', { name: 'Record reading' }).click();
    } else if (key === '↵') {
      for (const field of await page.getByTestId('walk').getByRole('textbox').all()) await field.fill('0.4');
      await page.keyboard.press('Enter');
    } else await page.keyboard.press(key === 'Space' ? key : key.toLowerCase());
    await expect.poll(() => entries.count()).toBeGreaterThan(before);
    await expect(page.getByTestId('settling')).toHaveCount(0);
  }
  expect(logged).toBe(true);
  // The supply stands before its fuse, and nothing behind it.
  expect(read.map(Number)).toEqual([expect.closeTo(12, 0), expect.closeTo(0, 0)]);
  expect(await answers.count()).toBeGreaterThan(2);
  await expect(page.locator('[data-test="suspects"] [data-verdict="proven"]')).toHaveAttribute('data-assembly', 'tcon');
  await page.getByTestId('practice-end').click();
  await expect(coach).toHaveCount(0);
});

test('who declines isn’t asked again, and finds it in the settings', async ({ page }) => {
  await page.goto('/');
  await page.getByTestId('practice-decline').click();
  await expect(page.getByTestId('practice-offer')).toHaveCount(0);
  await page.reload();
  await expect(page.locator('[data-shelf="open"]')).toBeVisible();
  await expect(page.getByTestId('practice-offer')).toHaveCount(0);
  await page.goto('/settings');
  await expect(page.getByTestId('about').getByTestId('practice-start')).toBeVisible();
});

test('what is built in is named with its licence, and the API can be read', async ({ page }) => {
  await page.goto('/settings');
  const [reference] = await Promise.all([page.waitForEvent('popup'), page.getByRole('link', { name: 'API reference' }).click()]);
  await expect(reference.getByText('/api/jobs/{id}/entries').first()).toBeVisible();
  await reference.close();
  await page.getByRole('link', { name: 'Licences' }).click();
  const notices = page.getByTestId('notice');
  await expect(notices.first()).toBeVisible();
  // Each package the app depends on; of what those bring along, a sample from the workers and one from the fonts.
  const own = Object.keys(webPackage.dependencies).filter((name) => !name.startsWith('@veglia/'));
  expect(own.length).toBeGreaterThan(20);
  const named = await notices.evaluateAll((all) => all.map((one) => (one as HTMLElement).dataset.package));
  expect(own.filter((name) => !named.includes(name))).toEqual([]);
  await page.locator('[data-package="vue"] summary').click();
  await expect(page.locator('[data-package="vue"] pre')).toContainText('Permission is hereby granted');
});
