/** What has to be seen before a set leaves, by keys; what is missing or failed keeps it from being closed as repaired. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, test } from './support/app.ts';
import { choose, seedJob } from './support/steps.ts';

const start = (seconds: number) => ({ kind: 'start.timed', v: 1, started: true, seconds, cold: true });
/** Dried capacitors of a supply, replaced; the starts before were slow. */
async function atProof(page: Page): Promise<string> {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'QK3-50', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: 'quorvane.qk3' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['slow-start'], seen: true },
    start(45),
    start(38),
    start(52),
    { kind: 'set.changed', v: 3, stage: 'back-off', plugged: false, railsDown: true },
    { kind: 'repair.done', v: 2, repair: 'recap.power', result: 'cured' },
  ]);
  await page.goto(`/jobs/${id}`);
  await page.getByTestId('prove').click();
  await expect(page.getByTestId('proof-item')).toBeVisible();
  return id;
}
const item = (page: Page, id: string) => page.locator(`[data-test="proof-list"] [data-item="${id}"]`);
const due = (page: Page, id: string) => expect(page.locator(`[data-test="proof-item"][data-item="${id}"]`)).toBeVisible();

test('capacitors of a supply: checks, ten starts with the clock, a soak, insulation; then it is closed as repaired', async ({ page }) => {
  await page.clock.install();
  const id = await atProof(page);
  await due(page, 'complaint');
  // The set is unplugged: nothing is looked at before it has power again.
  await expect(page.locator('[data-result]')).toHaveCount(0);
  await page.keyboard.press('Space');
  for (const check of ['complaint', 'plain-colours', 'moving', 'sound', 'off-on', 'standby-dark']) {
    await due(page, check);
    await page.keyboard.press('1');
    await expect(item(page, check)).toHaveAttribute('data-state', 'passed');
  }
  await due(page, 'starts');
  for (let nth = 0; nth < 10; nth += 1) {
    if (nth < 5) await page.getByTestId('cold-start').click();
    await page.locator('h2.title').click();
    await page.keyboard.press('Space');
    await expect(page.getByTestId('clock')).toContainText('Picture is there');
    await page.clock.fastForward(4000 + nth * 100);
    await page.keyboard.press('Space');
    if (nth < 9)
      await expect(page.getByTestId('starts-seen')).toContainText(`${nth + 1} of 10 starts good, ${Math.min(nth + 1, 5)} of 5 cold`);
  }
  await expect(item(page, 'starts')).toHaveAttribute('data-state', 'passed');
  await item(page, 'delay').getByRole('button').click();
  // Three before, ten since, all of these faster: one of 286 arrangements.
  await expect(page.getByTestId('delays')).toContainText(/median 45 s \(3 starts\)[.] Since: median 4[.]\d+ s \(10 starts\)/);
  await expect(page.getByTestId('delays')).toContainText('0.3%');
  await expect(item(page, 'delay')).toHaveAttribute('data-state', 'passed');
  await item(page, 'soak').getByRole('button').click();
  await page.getByTestId('soak-timer').click();
  await expect(page.getByTestId('soak-runs')).toBeVisible();
  await page.clock.fastForward('01:30:00');
  await page.locator('h2.title').click();
  await page.keyboard.press('1');
  await expect(page.getByText('It has to run 2 h in one go.')).toBeVisible();
  await page.clock.fastForward('00:31:00');
  await page.keyboard.press('1');
  await expect(item(page, 'soak')).toHaveAttribute('data-state', 'passed');
  await due(page, 'warmth');
  await page.keyboard.press('c');
  await page.keyboard.press('1');
  // Screws and insulation on an unplugged set.
  await due(page, 'ground-screws');
  await expect(page.getByTestId('leave-out')).toHaveCount(0);
  await page.keyboard.press('Space');
  await page.keyboard.press('1');
  await due(page, 'insulation');
  await page.keyboard.press('1');
  await due(page, 'touch-current');
  // By the local rule it isn't asked for here; no other reason will do.
  await page.getByTestId('leave-out').click();
  await page.getByTestId('leave-it').click();
  await expect(item(page, 'touch-current')).toContainText('Not required by the local rule');
  await expect(page.getByTestId('proof-done')).toBeVisible();
  await page.getByTestId('proof-to-close').click();
  await choose(page, 'Outcome', /^Repaired$/);
  await expect(page.getByTestId('unproven')).toHaveCount(0);
  await expect(page.getByTestId('closing-checks')).toHaveCount(0);
  await page.getByTestId('close-job').click();
  await expect(page.getByText('This job is closed: Repaired.')).toBeVisible();
  // It comes back: the job is opened again, with the reason.
  await page.goto(`/jobs/${id}`);
  await page.getByTestId('job-changes').click();
  await page.getByTestId('reopen').click();
  await expect(page.getByText('Enter the reason. Nothing was changed.')).toBeVisible();
  await page.getByLabel('Why it is opened again').fill('slow again after two days');
  await page.getByTestId('reopen').click();
  await expect(page.getByTestId('to-close')).toBeVisible();
  await expect(page.locator('[data-kind="job.reopened"]')).toContainText('slow again after two days');
  // What was seen before it came back closes nothing now.
  await page.getByTestId('to-close').click();
  await choose(page, 'Outcome', /^Repaired$/);
  await expect(page.getByTestId('unproven')).toContainText('Original symptom gone');
});

test('shelf, date and limit are changed on the Bench, and what is spent is held against the limit', async ({ page }) => {
  const id = await atProof(page);
  await page.goto(`/jobs/${id}`);
  await page.getByTestId('job-changes').click();
  await page.getByLabel('Shelf', { exact: true }).fill('C 4');
  await page.getByLabel('May be spent, EUR').fill('much');
  await page.getByTestId('record-changes').click();
  await expect(page.getByTestId('changes-form').locator('.alarm')).toBeVisible();
  await page.getByLabel('May be spent, EUR').fill('15');
  await page.getByTestId('record-changes').click();
  await expect(page.getByTestId('changes-form')).toHaveCount(0);
  await expect(page.getByTestId('agreed')).toContainText('beyond what was agreed: €15.00');
  await expect(page.locator('[data-kind="set.shelved"]').first()).toContainText('C 4');
});

test('a start that fails is no repair, and a set with it leaves with a known flaw or not at all', async ({ page }) => {
  await atProof(page);
  await item(page, 'starts').getByRole('button').click();
  await page.keyboard.press('2');
  await expect(item(page, 'starts')).toHaveAttribute('data-state', 'failed');
  await page.getByTestId('leave-rest').click();
  await page.getByTestId('leave-it').last().click();
  await page.getByTestId('proof-to-close').click();
  await choose(page, 'Outcome', /^Repaired$/);
  await expect(page.getByTestId('unproven')).toContainText('Starts');
  await choose(page, 'Outcome', /known/);
  await expect(page.getByTestId('unproven')).toHaveCount(0);
});

test('test pictures: full screen, stepped by keys, and as a file of the panel’s size', async ({ page }) => {
  await page.goto('/pictures');
  await page.locator('[data-picture="gradient"]').click();
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByTestId('save-picture').click()]);
  expect(file.suggestedFilename()).toBe('9-gradient-1920x1080.png');
  // Width and height stand in the first part of a PNG.
  const bytes = await readFile(await file.path());
  expect([bytes.readUInt32BE(16), bytes.readUInt32BE(20)]).toEqual([1920, 1080]);
  await page.getByTestId('show-picture').click();
  await expect(page.getByTestId('stage')).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('[data-picture="steps"]')).toHaveAttribute('aria-pressed', 'true');
});
