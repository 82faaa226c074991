/** The call sheet and the settings, in the real app. */
import { takeIn } from './support/steps.ts';
import { expect, test } from './support/app.ts';

test('the call sheet says what is known and the price in plain words, and keeps what they said with who and when', async ({
  page,
  app,
}) => {
  await takeIn(page, { symptoms: [/^Sound, black screen/], maker: 'Quorvane', family: 'Quorvane QK3', customer: 'Emeric Solvane' });
  await page.getByTestId('documents').locator('summary').click();
  await page.getByTestId('to-call').click();
  const sheet = page.getByTestId('call-sheet');
  await expect(sheet).toContainText('Emeric Solvane');
  await expect(sheet).toContainText(/We checked in your Quorvane on .*: Sound, black screen\./);
  await expect(page.getByTestId('call-price')).toContainText(/The total is likely to be/);
  await expect(sheet).toContainText('Ask: may settings and accounts be erased');
  // The price comes from the reckoning, and may be told otherwise; nonsense is said at its field.
  await page.getByLabel('From, EUR').fill('120');
  await page.getByLabel('To, EUR').fill('90');
  await page.getByTestId('told').click();
  await expect(page.getByText('“90” is not an amount above the lower one.')).toBeVisible();
  await page.getByLabel('To, EUR').fill('180');
  await page.getByTestId('told').click();
  await page.getByLabel('Spoken to').fill('his sister');
  await page.getByTestId('said-yes').click();
  await expect(page.getByTestId('quotes')).toContainText('Quoted: €120.00–€180.00');
  await expect(page.getByTestId('quotes')).toContainText(/Accepts\s*Repair by phone \(his sister\)/);
  // Shown at once, stored a moment later.
  await expect.poll(() => app.count("SELECT count(*) FROM ledger_entries WHERE kind IN ('quote.sent', 'quote.answered')")).toBe(2);
  // A name somebody gave is personal: it is not in the ledger itself.
  expect(await app.count("SELECT count(*) FROM ledger_entries WHERE body::text LIKE '%his sister%'")).toBe(0);
});

test('label and receipt open as PDF from the bench', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Dead/], maker: 'Tassimar' });
  for (const name of ['Label', 'Receipt']) {
    if (!(await page.getByRole('link', { name, exact: true }).isVisible())) await page.getByTestId('documents').locator('summary').click();
    const href = await page.getByRole('link', { name, exact: true }).getAttribute('href');
    const reply = await page.request.get(href ?? '');
    expect(reply.headers()['content-type']).toBe('application/pdf');
    expect((await reply.body()).subarray(0, 5).toString()).toBe('%PDF-');
  }
});

test('settings move prices and leave out what needs a tool that isn’t there; two who change them at once notice', async ({
  page,
  context,
}) => {
  await page.goto('/settings');
  await page.getByLabel('Labour rate per hour').fill('ninety');
  await page.getByTestId('store').click();
  await expect(page.getByText('“ninety” is not an amount')).toBeVisible();
  await expect(page.getByLabel('Labour rate per hour')).toHaveValue('ninety');
  const other = await context.newPage();
  await other.goto('/settings');
  await expect(other.getByLabel('Labour rate per hour')).toHaveValue('48');
  await page.getByLabel('Labour rate per hour').fill('96');
  await page.getByText('All tools in the knowledge pack').click();
  await page.getByText('LED strip tester').click();
  await page.getByTestId('store').click();
  await expect(page.getByText('Settings saved. Probabilities and prices')).toBeVisible();
  await other.getByLabel('Name on documents').fill('Another name');
  await other.getByTestId('store').click();
  // A timer of another job may ring at the same time.
  await expect(other.getByRole('alert').filter({ hasText: 'Someone else changed the settings' })).toBeVisible();
  await expect(other.getByLabel('Name on documents')).toHaveValue('Another name');
  await other.close();

  await takeIn(page, { symptoms: [/^Sound, black screen/], maker: 'Quorvane', family: 'Quorvane QK3' });
  await page.getByTestId('left-out').locator('summary').click();
  await expect(page.getByTestId('left-out').locator('[data-step="strings.tester"]')).toContainText('tool');
});
