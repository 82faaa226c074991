import type { Page } from '@playwright/test';
import { expect, test } from './support/app.ts';
import { choose } from './support/steps.ts';

test.use({ withDemo: true });

const step = (page: Page, name: string) => expect(page.locator(`[data-test="flash-step"][data-step="${name}"]`)).toBeVisible();
const start = async (page: Page): Promise<void> => {
  const before = await page.locator('[data-test="flash-step"]').getAttribute('data-did');
  await page.getByTestId('programmer-start').click();
  await expect(page.locator('[data-test="flash-step"]')).not.toHaveAttribute('data-did', before ?? '');
  await expect(page.getByTestId('programmer-progress')).toHaveCount(0);
};

test('the demo’s weak chip, worked by the programmer from the Bench on: warm reads differ, cold ones agree, a new chip is written, verified and starts', async ({
  page,
}) => {
  await page.goto('/');
  await page.locator('#find').fill('DR8258');
  await page.locator('[data-job]', { hasText: 'NX-39' }).click();
  // The Bench got as far as the chip: cold it starts.
  await expect(page.locator('[data-test="next"][data-step="memory.identify"]')).toBeVisible();
  await page.getByTestId('work-flash').click();
  await page.getByLabel('Name on the board').fill('U7');
  await page.getByLabel('Marking on the chip').fill('VN25S8');
  await page.getByTestId('start-session').click();
  // Its supply is measured under power, and nothing is clipped on before the set is unplugged and its rails are down.
  await step(page, 'supply');
  await page.getByTestId('read-cautions').click();
  await page.getByTestId('io-volts').fill('3.3');
  await page.getByTestId('programmer-volts').fill('3.3');
  await page.getByTestId('record-step').click();
  await step(page, 'entered');
  for (const asked of ['unplug-first', 'down-first']) {
    await expect(page.getByTestId('flash-unsafe')).toHaveAttribute('data-unsafe', asked);
    await page.getByTestId('make-safe').click();
  }
  await page.getByTestId('record-step').click();
  await step(page, 'identified');
  await page.getByTestId('programmer-start').click();
  await expect(page.getByTestId('programmer-result')).toContainText('Answers as VN25S8, 1 MiB');
  await expect(page.getByLabel('Identified as (optional)')).toHaveValue('VN25S8');
  await expect(page.getByTestId('code-says')).toContainText('maker not in the table, 1 MiB');
  await page.locator('[data-result="found"]').click();

  await step(page, 'read');
  for (let nth = 0; nth < 3; nth += 1) await start(page);
  await expect(page.locator('[data-finding="chip-failing"]')).toBeVisible();
  await page.getByText('Read cold').click();
  // Now and then a cold read has a wrong bit, too.
  while ((await page.locator('[data-test="flash-step"][data-step="read"]').count()) > 0) await start(page);
  // The content is saved; the chip is not written again.
  await step(page, 'opened');
  await choose(page, 'Plan', 'Program a new chip');
  await page.getByTestId('start-session').click();
  await step(page, 'chosen');
  // Only the dump that stands is offered, not the reads with the chip’s errors.
  await choose(page, 'Image in the library', /Own dump/);
  await page.getByTestId('record-step').click();
  await step(page, 'identified');
  await page.getByTestId('programmer-start').click();
  await expect(page.getByTestId('programmer-result')).toContainText('VN25S8');
  await page.locator('[data-result="found"]').click();
  // By key, as everything that is due.
  await step(page, 'blank');
  await page.locator('body').click({ position: { x: 2, y: 400 } });
  await page.keyboard.press('Space');
  await step(page, 'programmed');
  if ((await page.getByTestId('read-cautions').count()) > 0) await page.getByTestId('read-cautions').click();
  // Broken off, it is written from the beginning.
  await page.getByTestId('programmer-start').click();
  await page.getByTestId('programmer-cancel').click();
  await step(page, 'erased');
  await expect(page.locator('[data-finding="unfinished"]')).toBeVisible();
  await start(page);
  await step(page, 'blank');
  await start(page);
  await step(page, 'programmed');
  await start(page);
  await step(page, 'verified');
  await start(page);
  await step(page, 'way-out');
  for (const tick of await page.getByTestId('flash-step').locator('.el-checkbox').all()) await tick.click();
  await page.getByTestId('record-step').click();
  await step(page, 'started');
  await page.locator('[data-result="starts"]').click();
  // What it came to is known on the Bench as well.
  await page.getByRole('link', { name: 'Back to the Bench' }).click();
  await expect(page.locator('[data-test="next"][data-step="prove-and-close"]')).toBeVisible();
});
