/** The reference cases of the first issue, played on the real app. */
import { answer, fillIntake, takeIn, verdictOf, walk } from './support/steps.ts';
import { expect, test } from './support/app.ts';

test('a standby light that won’t start is led to the main board by the rails on it', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Standby LED on, won’t start/], maker: 'Oltrema', model: 'OL-7140', layout: 'LED, separate T-con' });
  await answer(page, 'look.glass', 'clean');
  await answer(page, 'remote-key', 'neither');
  await answer(page, 'rail.standby', 'in-range');
  await answer(page, 'key-line', 'moves');
  await answer(page, 'ps-on', 'moves');
  await answer(page, 'rail.main', 'in-range');
  await answer(page, 'rail.secondary', 'one-missing');
  const main = verdictOf(page, 'main');
  await expect(main).not.toHaveAttribute('data-verdict', 'proven');
  await answer(page, 'reseat', 'unchanged', 'harness.power-main');
  await answer(page, 'loads-off', 'unchanged');
  await answer(page, 'cut.picture', 'unchanged');
  await expect(main).toHaveAttribute('data-verdict', 'proven');
  await expect(page.locator('[data-test="next"]')).toHaveAttribute('data-step', 'replace.main');
  // What moved it is there to read.
  await main.getByRole('button').click();
  await expect(main).toContainText('Main’s own rails: One missing');
  // On the plan it is told by shape: proven has the double frame.
  await expect(page.locator('svg.plan [data-node="main"] rect.double')).toHaveCount(1);
});

test('sound but dark: light with the harness out and no command points to main; the backlight is ruled out and never proven', async ({
  page,
}) => {
  await takeIn(page, { symptoms: [/^Sound, black screen/], maker: 'Quorvane', family: 'Quorvane QK3' });
  const strips = verdictOf(page, 'strips');
  const steps: [string, string, string?][] = [
    ['look.glass', 'clean'],
    ['torch', 'faint-picture'],
    ['cut.power-main', 'lit'],
    ['bl-on', 'absent'],
    ['reseat', 'unchanged', 'harness.power-main'],
  ];
  for (const [step, outcome, of] of steps) {
    await expect(strips).not.toHaveAttribute('data-verdict', 'proven');
    await answer(page, step, outcome, of);
  }
  await expect(strips).toHaveAttribute('data-verdict', 'cleared');
  // Accused first, and not proven: the picture side may keep the command away, and it was never cut.
  await expect(page.locator('[data-test="suspects"] [data-assembly]').first()).toHaveAttribute('data-assembly', 'main');
  await expect(verdictOf(page, 'main')).not.toHaveAttribute('data-verdict', 'proven');
});

test('a wrong answer is undone with a reason; both stay in the ledger and the probabilities are as before', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Sound, black screen/], maker: 'Quorvane', family: 'Quorvane QK3' });
  const strips = verdictOf(page, 'strips').locator('.probability');
  const before = await strips.textContent();
  await answer(page, 'cut.power-main', 'lit');
  await expect(verdictOf(page, 'strips')).not.toContainText(before ?? '?');
  const entry = page.locator('[data-test="ledger"] [data-kind="test.answered"]');
  await entry.getByRole('button', { name: /Undo/ }).click();
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
  await expect(page.getByText('Enter a reason.')).toBeVisible();
  await page.getByLabel('Reason (the entry stays in the ledger, marked as undone)').fill('looked at the wrong hole');
  await page.keyboard.press('Enter');
  await expect(entry).toContainText('undone: looked at the wrong hole');
  await expect(page.locator('[data-kind="entry.retracted"]')).toHaveCount(1);
  await expect(strips).toHaveText(before ?? '?');
});

test('a step with the back off cannot be answered before its cautions are read and recorded; once a job', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Dead/], maker: 'unknown' });
  const standby = page.locator('[data-test="next"][data-step="rail.standby"]');
  if ((await standby.count()) === 0) await page.getByTestId('others').locator('[data-step="rail.standby"]').click();
  await expect(standby).toBeVisible();
  await expect(page.getByTestId('cautions')).toContainText('Local codes, the maker’s service manual and licensed people take precedence');
  await page.keyboard.press('1');
  await expect(page.locator('[data-kind="test.answered"]')).toHaveCount(0);
  await page.getByTestId('read-cautions').click();
  await expect(page.locator('[data-kind="caution.read"]')).toHaveCount(1);
  await walk(page);
  await page.keyboard.press('3');
  await expect(page.locator('[data-kind="test.answered"]')).toContainText('Standby rail: Absent');
  // The next inside step shows its cautions too, and asks for no second reading.
  await page
    .locator('[data-test="others"] [data-step="standby-unloaded"], [data-test="next"][data-step="standby-unloaded"]')
    .first()
    .click();
  await expect(page.getByTestId('cautions')).toContainText('Switch off, unplug, wait for the rails to drop');
  await expect(page.getByTestId('read-cautions')).toHaveCount(0);
});

test('"can’t tell" is an answer; the order switches between probabilities and the fixed list; a blinking set is asked for its code first', async ({
  page,
}) => {
  await takeIn(page, { symptoms: [/^Blinking standby LED/], maker: 'Quorvane', family: 'Quorvane QK3' });
  const panel = page.getByTestId('next');
  await expect(panel).toHaveAttribute('data-step', 'blink.read');
  await page.getByRole('tab', { name: 'Type' }).click();
  await page.getByLabel('What was seen').fill('6 or so');
  await expect(panel).toContainText('“6 or so” not recognised');
  await page.getByLabel('What was seen').fill('6');
  await page.getByText('Counted twice, same result').click();
  await page.getByTestId('take').click();
  await expect(page.locator('[data-kind="blink.read"]')).toContainText('Blink code 6, 2 matching cycles');
  await expect(verdictOf(page, 'main').locator('.probability')).toHaveText(/[6789]\d %/);
  await expect(panel).toContainText(/[.\d]+ min without opening the set resolves about \d+ %/);
  await page.getByTestId('order-fixed').click();
  await expect(panel).toContainText('on the fixed list');
  await page.getByTestId('order-cost').click();
  await page.keyboard.press('o');
  await expect(panel).toContainText('Most information for the time');
  const probability = await verdictOf(page, 'main').locator('.probability').textContent();
  if ((await page.getByTestId('read-cautions').count()) > 0) await page.keyboard.press('c');
  await walk(page);
  await page.keyboard.press('0');
  await expect(page.locator('[data-kind="test.answered"]')).toContainText('Can’t tell');
  await expect(verdictOf(page, 'main').locator('.probability')).toHaveText(probability ?? '?');
});

test('server and database stopped in the middle: nothing typed is lost, and the job goes on', async ({ page, app }) => {
  await takeIn(page, { symptoms: [/^Restart loop/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  await answer(page, 'look.glass', 'clean');
  await app.stopServer();
  app.stopDatabase();
  // The answer is taken, folded and kept, and said to be waiting.
  await answer(page, 'cut.picture', 'comes-alive');
  await expect(page.getByTestId('not-reached')).toContainText('unavailable');
  await expect(verdictOf(page, 'main')).toBeVisible();
  await app.startDatabase();
  await app.startServer();
  await page.getByRole('button', { name: 'Send now' }).click();
  await expect(page.getByTestId('not-reached')).toHaveCount(0);
  await page.reload();
  const answered = page.locator('[data-kind="test.answered"]');
  await expect(answered).toHaveCount(2);
  await answer(page, 'cut.panel-both', 'comes-alive');
  await expect(answered).toHaveCount(3);
});

test('what waits survives a closed tab', async ({ page, context, app }) => {
  await takeIn(page, { symptoms: [/^Restart loop/], maker: 'Oltrema' });
  const { pathname } = new URL(page.url());
  await app.stopServer();
  await answer(page, 'look.glass', 'clean');
  await expect(page.getByTestId('not-reached')).toBeVisible();
  await page.close();
  await app.startServer();
  const again = await context.newPage();
  await again.goto(pathname);
  await expect(again.locator('[data-kind="test.answered"]')).toHaveCount(1);
  await again.reload();
  await expect(again.locator('[data-kind="test.answered"]')).toHaveCount(1);
});

test('the database alone gone: said so, and the answer arrives once it is back', async ({ page, app }) => {
  await takeIn(page, { symptoms: [/^Restart loop/], maker: 'Oltrema' });
  app.stopDatabase();
  await answer(page, 'look.glass', 'clean');
  await expect(page.getByTestId('not-reached')).toBeVisible({ timeout: 20_000 });
  expect(await (await page.request.get('/readyz')).json()).toEqual({ status: 'database-unavailable' });
  await app.startDatabase();
  await expect(page.getByTestId('not-reached')).toHaveCount(0, { timeout: 20_000 });
  await page.reload();
  await expect(page.locator('[data-kind="test.answered"]')).toHaveCount(1);
});

test('bad input at the counter: a clear message at each field, nothing typed lost', async ({ page }) => {
  await page.goto('/jobs/new');
  await page.getByLabel('In the customer’s own words').fill('A long story about a goat.');
  await page.getByLabel('Blink count').fill('three or so');
  await page.getByLabel('Size, inch').fill('huge');
  await page.getByTestId('save').click();
  for (const message of [
    'Choose at least one symptom.',
    '“three or so” is not a blink code',
    '“huge” is not a size',
    'Maker is missing',
    'Customer name is missing',
  ]) {
    await expect(page.getByText(message)).toBeVisible();
  }
  await expect(page.getByLabel('In the customer’s own words')).toHaveValue('A long story about a goat.');
  await expect(page.getByLabel('Blink count')).toHaveValue('three or so');
  // Mended field by field, it is checked in.
  await page.getByLabel('Blink count').fill('3');
  await page.getByLabel('Size, inch').fill('43');
  await fillIntake(page, { symptoms: [/^Slow or random start/], maker: 'unknown', customer: 'Ottoline Marsh' });
  await page.getByTestId('save').click();
  await expect(page.getByTestId('saved')).toContainText(/Job \d+ checked in/);
});

test('a job that does not exist, and an address that does not', async ({ page }) => {
  await page.goto('/jobs/0192f000-0000-7000-8000-00000000dead');
  await expect(page.getByText('Job not found.')).toBeVisible();
  await page.goto('/no/such/place');
  await expect(page.getByText('Page not found.')).toBeVisible();
});
