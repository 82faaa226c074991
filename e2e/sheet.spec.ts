/** The rail sheet: points read together, only with the set made safe for them, judged, recorded, and weighed. */
import { expect, test } from './support/app.ts';
import { seedJob, verdictOf, walk } from './support/steps.ts';

test('readings of a plug are entered one after the other, named, recorded together and move the suspects', async ({ page }) => {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'QK3-50', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: 'quorvane.qk3' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['standby-no-start'], seen: true },
  ]);
  await page.goto(`/jobs/${id}`);
  const panel = page.getByTestId('next');
  await expect(panel).toBeVisible();
  await page.keyboard.press('+');
  const sheet = page.getByTestId('sheet');
  await sheet.getByTestId('sheet-standby').click();
  // The cover is on: nothing of it can be read, and the way there is one press away.
  await expect(sheet.locator('input[data-reading]')).toHaveCount(0);
  await sheet.locator('[data-point="standby"]').getByRole('button', { name: 'Go to step' }).click();
  await expect(sheet).toHaveCount(0);
  await expect(panel).toHaveAttribute('data-step', 'rail.standby');
  await page.keyboard.press('c');
  await expect(page.getByTestId('read-cautions')).toHaveCount(0);
  await walk(page);

  await page.keyboard.press('+');
  await sheet.getByTestId('sheet-standby').click();
  const standby = sheet.getByTestId('sheet-value-standby');
  await standby.fill('5V15');
  await expect(sheet.locator('[data-point="standby"] [data-level]')).toHaveText(/In range · -1.0 %/);
  await standby.press('Enter');
  await expect(sheet.getByTestId('sheet-value-ps-on')).toBeFocused();
  await page.keyboard.type('nonsense');
  await expect(sheet.locator('[data-point="ps-on"]')).toContainText('Not a reading.');
  await sheet.getByTestId('sheet-value-ps-on').fill('0.1');
  // A digit beside a field is no answer to the step behind.
  await sheet.getByTestId('sheet-record').focus();
  await page.keyboard.press('2');
  await sheet.getByTestId('sheet-record').click();
  const ledger = page.getByTestId('ledger');
  await expect(ledger.locator('[data-kind="reading.taken"]')).toHaveCount(2);
  await expect(ledger.locator('[data-kind="test.answered"]')).toHaveCount(1);
  await expect(standby).toHaveValue('');

  // The key pressed: PS_ON asks, and its rail doesn't come. What was read before stands beside it.
  const before = await verdictOf(page, 'power').innerText();
  await sheet.getByTestId('sheet-starting').click();
  await expect(sheet.locator('[data-point="ps-on"]')).toContainText('before: 0.1 V, standby');
  await sheet.getByTestId('sheet-value-ps-on').fill('3.1');
  await sheet.getByTestId('sheet-value-main-rail').fill('0.3');
  await expect(sheet.locator('[data-point="main-rail"] [data-level]')).toHaveText(/Missing/);
  await sheet.getByTestId('sheet-behaves-main-rail').selectOption('pulsing');
  await expect(sheet.locator('[data-point="main-rail"] [data-level]')).toHaveAttribute('data-level', 'pulsing');
  await sheet.getByTestId('sheet-behaves-main-rail').selectOption('steady');
  await sheet.getByTestId('sheet-record').click();
  await expect(ledger.locator('[data-kind="test.answered"]')).toHaveCount(3);
  await page.keyboard.press('Escape');
  await expect(sheet).toHaveCount(0);
  await expect(verdictOf(page, 'power')).not.toHaveText(before);
  await expect(page.locator('[data-test="suspects"] [data-assembly]').first()).toHaveAttribute('data-assembly', 'power');
  await expect(ledger).not.toContainText('Invalid:');
});
