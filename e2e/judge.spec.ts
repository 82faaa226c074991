/** The judge on the real app: another symptom after a repair, doubtful answers, the settled step, every layout on the bench. */
import { parseCase, stepsFor } from '@veglia/core';
import { expect, test } from './support/app.ts';
import { answer, book, seedJob, takeIn, verdictOf, walk } from './support/steps.ts';

test('a repair that brings another symptom: the bench asks which, and goes on from what still holds', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Dead/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  await answer(page, 'look.glass', 'clean');
  await answer(page, 'rail.standby', 'absent');
  const repair = page.locator('[data-step="replace.power"]').first();
  await repair.click();
  await expect(page.locator('[data-test="next"][data-step="replace.power"]')).toBeVisible();
  await walk(page);
  await page.keyboard.press('3');
  const asked = page.getByTestId('new-complaint');
  await expect(asked).toContainText('Symptom changed');
  await expect(page.getByTestId('next')).toHaveCount(0);
  await asked.getByRole('combobox', { name: 'New symptom' }).focus();
  await page.keyboard.press('ArrowDown');
  await page.getByRole('option', { name: /^Half picture/ }).click();
  await asked.getByRole('button', { name: 'Record symptom' }).click();
  await expect(page.getByTestId('ledger')).toContainText('Confirmed on the bench: Half picture');
  await expect(page.getByTestId('next')).toBeVisible();
  await expect(page.getByTestId('doubts')).toContainText('a second fault');
  // The new power board is hardly the next fault; the whole glass still clears the crack.
  await expect(verdictOf(page, 'power')).toHaveAttribute('data-verdict', 'cleared');
});

test('what the customer told is seen on the bench by one key, or is something else', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Dead/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  const line = page.getByTestId('complaint');
  await expect(line).toContainText('Reported: Dead');
  await page.getByTestId('complaint-other').click();
  await line.getByRole('combobox', { name: 'New symptom' }).focus();
  await page.keyboard.press('ArrowDown');
  await page.getByRole('option', { name: /^Standby LED/ }).click();
  await line.getByRole('button', { name: 'Record symptom' }).click();
  await expect(page.getByTestId('ledger')).toContainText('Confirmed on the bench: Standby LED on, won’t start');
  await expect(line).toHaveCount(0);
  await takeIn(page, { symptoms: [/^Many lines/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  await expect(verdictOf(page, 'keys')).not.toHaveAttribute('data-verdict', 'cleared');
  await page.keyboard.press('=');
  await expect(line).toHaveCount(0);
  await expect(verdictOf(page, 'keys')).toHaveAttribute('data-verdict', 'cleared');
});

test('the step on the screen is the settled one, as the command line gives it, and nothing swaps it', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Restart loop/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  // While the cover is on, what needs no screw comes first, by a rule of its own.
  await answer(page, 'rail.standby', 'in-range');
  const input = parseCase({
    format: 'veglia-case',
    version: 2,
    set: { layout: 'led-tcon' },
    entries: [
      { body: { kind: 'symptom.reported', v: 2, symptoms: ['restart-loop'] } },
      { body: { kind: 'set.changed', v: 3, plugged: true, stage: 'back-off' } },
      { body: { kind: 'test.answered', v: 2, test: 'rail.standby', outcome: 'in-range', sure: 'sure', walked: true } },
    ],
  }).input;
  const settled = stepsFor(input, book).next[0]?.id ?? '?';
  const next = page.getByTestId('next');
  await expect(next).toHaveAttribute('data-step', settled);
  await expect(page.getByTestId('effect').first()).toBeVisible();
  await expect(next).toHaveAttribute('data-step', settled);
});

test('which layout is it: one key, from drawings, first once the cover is off', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Sound, black screen/], maker: 'Oltrema' });
  // Somebody opened it and read a line: what the boards are is now a look away.
  await answer(page, 'bl-on', 'present');
  const next = page.locator('[data-test="next"][data-step="layout.found"]');
  await expect(next.locator('[data-layout] svg')).toHaveCount(book.pack.layouts.length);
  if ((await page.getByTestId('read-cautions').count()) > 0) await page.keyboard.press('c');
  await page.keyboard.press('1');
  await expect(page.getByTestId('ledger')).toContainText('Layout confirmed');
  await expect(page.getByTestId('layout')).not.toContainText('not sure');
  await expect(page.locator('[data-step="layout.found"]')).toHaveCount(0);
});

test('the most doubtful answers: on request', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Sound, black screen/], maker: 'Quorvane', family: 'Quorvane QK3' });
  await answer(page, 'strings.tester', 'one-dark');
  await answer(page, 'led.output', 'limit-then-off');
  await answer(page, 'cut.power-main', 'lit');
  const doubtful = page.getByTestId('doubtful');
  await doubtful.getByRole('button', { name: 'Most doubtful answers' }).click();
  await expect(doubtful.getByRole('listitem').first()).toContainText('Power board alone: unplug the power-main harness: Lit');
});

for (const [layout, node] of [
  ['OLED', 'harness.tcon-power'],
  ['Plasma', 'scan-sustain'],
  ['One board: power and main together', 'combo'],
  ['Separate LED driver board', 'driver'],
] as const) {
  test(`${layout}: checked in, drawn, and led on`, async ({ page }) => {
    await takeIn(page, { symptoms: [/^Standby LED on, won’t start/], maker: 'Oltrema', layout });
    await expect(page.locator(`svg.plan [data-node="${node}"]`)).toHaveCount(1);
    await expect(page.getByTestId('next')).toContainText(/min/);
    await answer(page, 'look.glass', 'clean');
    await expect(page.getByTestId('next')).toBeVisible();
  });
}

test('a running warranty is asked for at the step that ends it, before the first move', async ({ page }) => {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Oltrema', model: '', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' }, warranty: 'running', mayLoseData: false },
    { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] },
  ]);
  await page.goto(`/jobs/${id}`);
  await page.locator('[data-step="bl-on"]').first().click();
  await expect(page.locator('[data-test="next"][data-step="bl-on"]')).toBeVisible();
  await page.keyboard.press('c');
  const consent = page.getByTestId('consent');
  await expect(consent).toContainText('warranty is still valid');
  await expect(page.getByTestId('walk')).toHaveCount(0);
  await page.keyboard.press('1');
  await expect(page.locator('[data-kind="test.answered"]')).toHaveCount(0);
  await consent.getByLabel('Agreed by').fill('Petronel Ashby');
  await page.getByTestId('consent-given').click();
  await expect(page.getByTestId('ledger')).toContainText('warranty may be voided');
  await expect(page.getByTestId('walk')).toBeVisible();
  await expect(consent).toHaveCount(0);
});

test('a number is held against the printed value, and the answer follows from it', async ({ page }) => {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Oltrema', model: '', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['starts-then-stops'] },
    { kind: 'set.changed', v: 3, plugged: true, stage: 'back-off' },
    { kind: 'caution.read', v: 1, cautions: book.pack.cautions.map((one) => one.id) },
  ]);
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('next')).toBeVisible();
  const listed = page.getByTestId('others').locator('[data-step="rail.main"]').first();
  if ((await page.locator('[data-test="next"][data-step="rail.main"]').count()) === 0) await listed.click();
  const reading = page.getByTestId('reading');
  await expect(reading).toContainText('Varies by set');
  await page.getByTestId('reading-value').fill('12.3');
  await expect(reading.getByRole('status')).toContainText('Not enough to decide');
  await expect(reading.getByRole('button', { name: 'Record reading' })).toBeDisabled();
  await page.getByTestId('reading-printed').fill('12');
  await expect(reading.getByRole('status')).toContainText('In range');
  await page.getByTestId('reading-behaves').selectOption('pulsing');
  await expect(reading.getByRole('status')).toContainText('Puls');
  await page.getByTestId('reading-behaves').selectOption('steady');
  await page.getByTestId('reading-value').press('Enter');
  const ledger = page.getByTestId('ledger');
  await expect(ledger.locator('[data-kind="test.answered"]')).toContainText('12.3 V, printed 12 V');
  await expect(ledger.locator('[data-kind="reading.taken"]')).toContainText('12.3 V');
});

test('two numbers of one step answer together, typed as a bench writes them', async ({ page }) => {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Oltrema', model: '', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['lit-blank'] },
    { kind: 'set.changed', v: 3, plugged: true, stage: 'back-off' },
    { kind: 'caution.read', v: 1, cautions: book.pack.cautions.map((one) => one.id) },
  ]);
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('next')).toBeVisible();
  if ((await page.locator('[data-test="next"][data-step="tcon.input"]').count()) === 0)
    await page.getByTestId('others').locator('[data-step="tcon.input"]').first().click();
  const reading = page.getByTestId('reading');
  const [before, behind] = [page.getByTestId('reading-value').nth(0), page.getByTestId('reading-value').nth(1)];
  await before.fill('12 Ω');
  await expect(reading.getByRole('status')).toContainText('not a reading in V');
  await before.fill('11V8');
  await expect(reading.getByRole('status')).toContainText('the printed value');
  await page.getByTestId('reading-printed').fill('12');
  await expect(reading.getByRole('status')).toContainText('Enter the next reading');
  await behind.fill('90mV');
  await expect(reading.getByRole('status')).toContainText('Result');
  await behind.press('Enter');
  const ledger = page.getByTestId('ledger');
  await expect(ledger.locator('[data-kind="test.answered"]')).toContainText('11.8 V, 0.09 V, printed 12 V');
  await expect(ledger.locator('[data-kind="reading.taken"]')).toHaveCount(2);
});
