/** Instruments by themselves: what is typed is understood as a bench writes it, refused with a reason, and kept in a job only when asked. */
import { expect, test } from './support/app.ts';
import { seedJob } from './support/steps.ts';

test('discharge, odd one out and masking by hand; nothing is lost on the way from one to the other', async ({ page }) => {
  await page.goto('/instruments');
  const result = page.getByTestId('result');
  await expect(result).toContainText('Still needed: Capacitance, F; Voltage, V; Resistance or ESR, Ω.');
  await page.getByTestId('field-farads').fill('150u');
  await page.getByTestId('field-volts').fill('much');
  await expect(page.getByTestId('instrument')).toContainText('“much” is no number in this unit');
  await page.getByTestId('field-volts').fill('400');
  await page.getByTestId('field-ohms').fill('2k2');
  await expect(page.getByTestId('instrument')).toContainText('2.2 kΩ');
  await expect(result.locator('[data-figure="joules"]')).toHaveText('12 J');
  await expect(result.locator('[data-figure="seconds"]')).toHaveText('626 ms');
  await page.getByTestId('instrument-siblings').click();
  await page.getByTestId('field-values').fill('2.7M 3M 2.5M 60k');
  await expect(result.locator('[data-finding="siblings-odd"]')).toContainText('Reading 4 of 4 is odd.');
  await page.getByTestId('instrument-discharge').click();
  await expect(page.getByTestId('field-volts')).toHaveValue('400');
  await page.getByTestId('instrument-mask').click();
  await page.getByTestId('example').click();
  await expect(result.locator('[data-finding="mask-next"]')).toContainText('Next trial: leave');
  await page.getByTestId('field-trials').fill('1-4 perhaps');
  await expect(result).toContainText('1-4 perhaps');
  await expect(page.getByTestId('keep')).toHaveCount(0);
});

test('opened from a job, the result goes into its ledger when asked', async ({ page }) => {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'X', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'], seen: true },
  ]);
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('next')).toBeVisible();
  await page.keyboard.press('+');
  await page.getByTestId('to-instruments').click();
  await page.getByTestId('instrument-string').click();
  await page.getByTestId('field-strips').fill('6');
  await page.getByTestId('field-leds').fill('10');
  await page.getByTestId('field-reading').fill('150');
  await page.getByTestId('keep').click();
  await expect(page.getByTestId('result')).toContainText('Added to the ledger as a note.');
  await page.getByRole('link', { name: 'Back to the job' }).click();
  await expect(page.getByTestId('ledger').locator('[data-kind="note.added"]')).toContainText('Low by 10 LEDs');
});
