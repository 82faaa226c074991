/** The thinnest path through everything: counter, bench, close, shelves, and all of it there after a restart. */
import { choose, answer, leaveProofOut, seedJob, takeInByHand, verdictOf, walk } from './support/steps.ts';
import { expect, test } from './support/app.ts';

test('a set from the counter to a closed job survives a restart of server and database', async ({ page, app }) => {
  const number = await takeInByHand(page, {
    symptoms: [/^Sound, black screen/],
    words: 'It talks, but I see nothing.',
    maker: 'Quorvane',
    model: 'QK3-50',
    family: 'Quorvane QK3',
    customer: 'Petronel Ashby',
  });
  await expect(verdictOf(page, 'strips')).toHaveAttribute('data-verdict', 'suspect');

  await answer(page, 'look.glass', 'clean');
  await answer(page, 'torch', 'faint-picture');
  await answer(page, 'cut.power-main', 'dark');
  await expect(verdictOf(page, 'strips')).toHaveAttribute('data-verdict', 'suspect');
  await answer(page, 'led.output', 'limit-then-off');
  await answer(page, 'strings.tester', 'one-dark');
  // A plug that makes no contact reads the same.
  await expect(verdictOf(page, 'strips')).not.toHaveAttribute('data-verdict', 'proven');
  await answer(page, 'reseat', 'unchanged', 'harness.light');
  await expect(verdictOf(page, 'strips')).toHaveAttribute('data-verdict', 'proven');
  await expect(page.getByTestId('next')).toHaveAttribute('data-step', 'replace.strips');

  // The glass has to come out: its cautions first, then one key says how the repair went.
  await page.keyboard.press('1');
  await expect(page.locator('[data-kind="repair.done"]')).toHaveCount(0);
  await page.keyboard.press('c');
  await expect(page.getByTestId('read-cautions')).toHaveCount(0);
  await walk(page);
  await page.keyboard.press('1');
  await expect(page.locator('[data-kind="repair.done"]')).toContainText('Replace all backlight strips: symptom cleared');

  await page.getByTestId('to-close').click();
  await expect(page.getByTestId('part-assembly')).toContainText(/strips/i);
  await page.getByLabel('Part number on the board').fill('QKS-50-4');
  await page.getByLabel('Price, EUR').fill('46.50');
  await page.getByRole('button', { name: 'Record part' }).click();
  await expect(page.getByTestId('recorded')).toContainText('QKS-50-4');
  await choose(page, 'Memory', 'Serial EEPROM');
  await page.getByLabel('Image').fill('own dump, read twice the same');
  await page.getByRole('button', { name: 'Record flash' }).click();
  await expect(page.getByTestId('recorded')).toContainText('own dump');

  await choose(page, 'Outcome', /^Repaired$/);
  await choose(page, 'Confirmed fault', /An LED open/);
  await choose(page, 'How it was confirmed', /Measured on the part/);
  await page.getByLabel('Remarks').fill('Nothing left; soaked four hours.');
  // Nothing closes before the ground screws were looked at.
  await page.getByTestId('close-job').click();
  await expect(page.getByTestId('closing-checks').getByRole('alert')).toBeVisible();
  await page.getByTestId('ground-screws-passed').click();
  await page.getByTestId('close-job').click();
  await expect(page.getByTestId('unproven').getByRole('alert')).toBeVisible();
  await expect(page.getByTestId('unproven')).toContainText('Strips lit by the set');
  // Looked at elsewhere here; what was typed is still there on the way back.
  await page.getByTestId('to-proof').click();
  await leaveProofOut(page);
  await page.getByTestId('proof-to-close').click();
  await expect(page.getByLabel('Remarks')).toHaveValue('Nothing left; soaked four hours.');
  await expect(page.getByTestId('unproven')).toHaveCount(0);
  await page.getByTestId('close-job').click();
  await expect(page.getByText('This job is closed: Repaired.')).toBeVisible();

  await app.stopServer();
  app.stopDatabase();
  await app.startDatabase();
  await app.startServer();

  await page.goto('/');
  await expect(page.locator('[data-shelf="closed"] details')).toHaveCount(1);
  // Open by itself where no set is left to be worked on.
  const folded = page.locator('[data-shelf="closed"] details:not([open]) > summary');
  if ((await folded.count()) > 0) await folded.click();
  const card = page.locator(`[data-shelf="closed"] [data-job="${number}"]`);
  await expect(card).toContainText('Quorvane QK3-50');
  await expect(card).toContainText('Repaired');
  await card.click();
  const ledger = page.getByTestId('ledger');
  await expect(ledger.locator('[data-kind="test.answered"]')).toHaveCount(6);
  await expect(ledger.locator('[data-kind="part.fitted"]')).toContainText('€46.50');
  await expect(ledger.locator('[data-kind="flash.done"]')).toContainText('Serial EEPROM');
  await expect(ledger.locator('[data-kind="fault.confirmed"]')).toContainText('An LED open');
  await expect(ledger.locator('[data-kind="job.closed"]')).toContainText('soaked four hours');
  await expect(ledger.locator('[data-kind="symptom.reported"]')).toContainText('It talks, but I see nothing.');
});

test('a modification is recorded with its wires drawn; a colour that misleads is named; the label is a PDF', async ({ page, request }) => {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'X', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'], seen: true },
  ]);
  await page.goto(`/jobs/${id}/close`);
  await page.getByTestId('add-modification').click();
  const form = page.getByTestId('modification');
  await form.getByLabel('What was built in').fill('Outside light driver');
  await form.getByLabel('Wires, a line each').fill('P4.1 driver: 24 V');
  await expect(form).toContainText('“P4.1 driver: 24 V” is no wire');
  await form.getByLabel('Wires, a line each').fill('P4.1 > driver +: 24 V, black\nP4.2 > driver -: GND, black');
  await expect(form.getByTestId('drawing')).toBeVisible();
  await expect(form.getByTestId('misleads')).toHaveText(/24 V on a black wire misleads/);
  await form.getByRole('button', { name: 'Record modification' }).click();
  await expect(form).toContainText('Enter how it is taken out again.');
  await form.getByLabel('How to undo it').fill('Pull both wires.');
  await form.getByRole('button', { name: 'Record modification' }).click();
  await expect(page.getByTestId('recorded')).toContainText('Modification recorded: Outside light driver');
  const paper = await page.getByTestId('modification-pdf').getAttribute('href');
  const reply = await request.get(paper ?? '');
  expect(reply.headers()['content-type']).toBe('application/pdf');
});
