/** Charts: the same figures as a table, light and dark, and to take along. */
import { readFileSync } from 'node:fs';
import { expect, test } from './support/app.ts';
import { seedJob } from './support/steps.ts';

test('the probabilities over a job: opened from the ledger, read as a table, saved as SVG and PNG, closed by Esc', async ({ page }) => {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Norrask', model: 'D20-37', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] },
    { kind: 'note.added', v: 1, text: 'dusty inside' },
    { kind: 'test.answered', v: 2, test: 'torch', outcome: 'faint-picture', sure: 'sure' },
    { kind: 'test.answered', v: 2, test: 'led.output', outcome: 'none', sure: 'sure' },
  ]);
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('next')).toBeVisible();
  await page.getByTestId('course').click();
  const sheet = page.getByTestId('course-sheet');
  await expect(sheet.locator('svg')).toBeVisible();
  await expect(sheet.locator('svg')).toContainText('Backlight strips');
  await sheet.locator('summary').click();
  // A note moves nothing: complaint and two answers.
  await expect(sheet.locator('tbody tr')).toHaveCount(3);
  await expect(sheet.locator('tbody tr').first()).toContainText('Sound, black screen');

  const saved = async (which: string): Promise<Buffer> => {
    const [download] = await Promise.all([page.waitForEvent('download'), sheet.getByTestId(which).click()]);
    expect(download.suggestedFilename()).toMatch(/^job-\d+-probabilities[.](svg|png)$/);
    return readFileSync(await download.path());
  };
  expect((await saved('save-svg')).toString()).toMatch(/^<svg[\s\S]*Backlight strips[\s\S]*<\/svg>$/);
  const png = await saved('save-png');
  // PNG, third edition (W3C), 5.2: the signature; 11.2.1: width and height behind it.
  expect([...png.subarray(0, 8)]).toEqual([137, 80, 78, 71, 13, 10, 26, 10]);
  expect(png.readUInt32BE(16)).toBeGreaterThan(1200);

  // No key of the bench reaches through it.
  const step = await page.getByTestId('next').getAttribute('data-step');
  await page.keyboard.press('1');
  expect(await page.getByTestId('next').getAttribute('data-step')).toBe(step);
  await page.keyboard.press('Escape');
  await expect(sheet).toHaveCount(0);
  await expect(page.locator('[data-test="ledger"] [data-kind="test.answered"]')).toHaveCount(2);
});

test('a chart is drawn in the theme’s colours, and anew when they change', async ({ page }) => {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Norrask', model: 'D20-37', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] },
  ]);
  await page.goto(`/jobs/${id}/call`);
  const chart = page.getByTestId('chart');
  const inks = (): Promise<string[]> =>
    chart.locator('svg text').evaluateAll((all) => all.map((one) => one.getAttribute('fill') ?? getComputedStyle(one).fill));
  await expect(chart.locator('svg')).toBeVisible();
  const light = await inks();
  await page.getByRole('button', { name: 'Dark' }).click();
  await expect.poll(inks).not.toEqual(light);
  await chart.locator('summary').click();
  const shares = await chart.locator('tbody tr').evaluateAll((rows) => rows.map((row) => row.textContent ?? ''));
  expect(shares.length).toBeGreaterThan(2);
});
