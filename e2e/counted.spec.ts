/** Counted experience: told by people, it moves new jobs; a job that is open moves only when somebody says so. */
import { choose, takeIn, verdictOf } from './support/steps.ts';
import { expect, test } from './support/app.ts';

test('“I have mended 40 of these” moves the next job, and an open one only by its button', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Sound, lit blank/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  const open = page.url();
  const tcon = verdictOf(page, 'tcon');
  const before = Number.parseInt((await tcon.locator('.probability').textContent()) ?? '', 10);
  await expect(page.getByTestId('suspects').locator('..')).toContainText('Starting probabilities: from the knowledge pack');

  await page.getByRole('link', { name: 'Statistics' }).click();
  await expect(page.getByTestId('counted-jobs')).toContainText('No job closed with a confirmed fault yet');
  // Bad input is said at its field and nothing typed is lost.
  await page.getByLabel('Number of repairs').fill('many');
  await page.getByTestId('tell').click();
  await expect(page.getByText('“many” is not a number of repairs')).toBeVisible();
  await expect(page.getByText('Choose the fault.')).toBeVisible();
  await expect(page.getByLabel('Number of repairs')).toHaveValue('many');
  await page.getByLabel('Number of repairs').fill('40');
  await choose(page, 'Layout', 'LED, separate T-con');
  await page.getByLabel('Fault', { exact: true }).click();
  await page.getByLabel('Fault', { exact: true }).pressSequentially('T-con board, any');
  await page.keyboard.press('Enter');
  await page.getByTestId('tell').click();
  await expect(page.getByTestId('told')).toContainText('40 times T-con board, any fault');

  // The open job keeps its own until it is moved; then the ledger says so.
  await page.goto(open);
  await expect(tcon.locator('.probability')).toHaveText(`${before} %`);
  await page.getByRole('button', { name: 'Preview changes' }).click();
  await expect(page.getByTestId('newer')).toContainText(`T-con board: ${before} % now`);
  await page.getByTestId('move-pins').click();
  await expect(tcon).toContainText('n 0, field 40');
  await expect.poll(async () => Number.parseInt((await tcon.locator('.probability').textContent()) ?? '', 10)).toBeGreaterThan(before + 5);
  await expect(page.getByTestId('ledger').locator('[data-kind="pack.pinned"]')).toContainText('no. 1');
  await expect(page.getByTestId('newer')).toHaveCount(0);

  // A new job starts from them.
  await takeIn(page, { symptoms: [/^Sound, lit blank/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  await expect(verdictOf(page, 'tcon')).toContainText('field 40');

  // Undone, it counts no more.
  await page.getByRole('link', { name: 'Statistics' }).click();
  await page.getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.getByTestId('told')).toContainText('withdrawn');
});

test('the suggested step says why it stands before the next two', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Sound, black screen/], maker: 'Quorvane', family: 'Quorvane QK3' });
  await page.getByTestId('before').locator('summary').click();
  await expect(page.getByText('Why this comes before the next two')).toBeVisible();
  await expect(page.getByTestId('before').locator('p')).toHaveCount(2);
  await expect(page.getByTestId('before')).toContainText('Before “');
});
