/** Lights read: by taps, typed, from a trace, alone and in a job (camera and video: films.spec.ts). */
import type { Page } from '@playwright/test';
import { choose, takeIn } from './support/steps.ts';
import { traceCsv, type Blink } from './support/light.ts';
import { expect, test } from './support/app.ts';

const fourOne: Blink = { groups: [4, 1], onS: 0.3, offS: 0.3, partS: 0.9, pauseS: 2 };
const csv = (blink: Blink, cycles: number, name = 'light.csv') => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(traceCsv(blink, cycles)),
});

/** The page's clock stands still but for what is run: a slow machine taps as evenly as a quick one. */
async function tapAlong(page: Page, counts: readonly number[]): Promise<void> {
  await page.getByTestId('tap-pad').focus();
  await page.clock.pauseAt((await page.evaluate(() => Date.now())) + 2200);
  for (const count of counts) {
    for (let k = 0; k < count; k++) {
      await page.keyboard.press('b');
      await page.clock.runFor(k === count - 1 ? 2200 : 600);
    }
  }
  await page.clock.resume();
}
const read = (page: Page) => page.getByTestId('reading');

test('tapped along twice it is read; once it says what would settle it; a code the family doesn’t use is told with the nearest', async ({
  page,
}) => {
  await page.clock.install();
  await page.goto('/blink');
  await choose(page, 'Family', /^Quorvane QK3/);
  await tapAlong(page, [6]);
  await expect(read(page).getByTestId('code')).toHaveText(/^6/);
  await expect(read(page).getByTestId('sure')).toHaveText('not sure');
  await expect(read(page).getByTestId('advice')).toContainText('one more cycle');
  await page.keyboard.press('k');
  await tapAlong(page, [6]);
  await expect(read(page).getByTestId('sure')).toHaveText('read');
  await expect(read(page)).toContainText('After the last relay click: still blinking');
  await expect(read(page).getByTestId('meant')).toContainText('Main board self-check fails');
  await page.getByRole('button', { name: 'Start over' }).click();
  await tapAlong(page, [7, 7]);
  await expect(read(page)).toContainText('Quorvane QK3 has no such code');
  await expect(read(page).getByTestId('meant')).toContainText(/6 red|8 red/);
});

test('typed as it was seen; corrected by hand it says so', async ({ page }) => {
  await page.goto('/blink');
  await page.getByRole('tab', { name: 'Type' }).click();
  await page.getByLabel('What was seen').fill('3 long 2 short');
  await expect(read(page).getByTestId('code')).toHaveText('3-2');
  await page.getByLabel('What was seen').fill('no light');
  await expect(read(page).getByTestId('code')).toHaveText('no light');
  await page.getByRole('tab', { name: 'Trace (CSV)' }).click();
  await page.getByTestId('trace-file').setInputFiles(csv(fourOne, 3.2));
  await expect(read(page).getByTestId('code')).toHaveText('4-1, repeats');
  await expect(read(page).getByTestId('sure')).toHaveText('read');
  const chart = page.getByTestId('trace').getByTestId('chart').first();
  await expect(chart.locator('svg')).toBeVisible();
  // Flash by flash in the table behind it: three cycles of four and one, and the beginning of another.
  await chart.locator('summary').click();
  expect(await chart.locator('tbody tr').count()).toBeGreaterThanOrEqual(15);
  expect(await chart.locator('tbody tr').count()).toBeLessThanOrEqual(17);
  await read(page).getByTestId('correct').click();
  await page.getByLabel('Correct code').fill('5-1');
  await page.getByLabel('Correct code').press('Enter');
  await expect(read(page).getByTestId('code')).toHaveText('5-1');
  await expect(read(page).getByTestId('advice')).toContainText('by hand');
});

test('a file that is no trace is refused by row, and the one before is still there for another try', async ({ page }) => {
  await page.goto('/blink');
  await page.getByRole('tab', { name: 'Trace (CSV)' }).click();
  await page
    .getByTestId('trace-file')
    .setInputFiles({ name: 'x.csv', mimeType: 'text/csv', buffer: Buffer.from('time_s,level\n0,1\n0.1,<script>\n') });
  await expect(page.getByTestId('refusal')).toContainText('row 2');
  await page.getByTestId('trace-file').setInputFiles(csv(fourOne, 3.2));
  await expect(read(page).getByTestId('code')).toHaveText('4-1, repeats');
});

test('in a job: a reading moves the probabilities and is in the ledger; with a board out it is compared, and points to only once the old code is back', async ({
  page,
}) => {
  await page.clock.install();
  await takeIn(page, { symptoms: [/^Blinking standby LED/], maker: 'Quorvane', family: 'Quorvane QK3' });
  const probability = (id: string) => page.locator(`[data-assembly="${id}"] .probability`);
  const before = await probability('main').textContent();
  await tapAlong(page, [6, 6]);
  await page.getByTestId('take').click();
  await expect(page.locator('[data-kind="blink.read"]')).toContainText('Blink code 6');
  await expect(page.locator('[data-kind="blink.read"]')).toContainText('Tapped.');
  await expect(probability('main')).not.toHaveText(before ?? '?');

  await page.getByTestId('read-light').click();
  const injob = page.getByTestId('blink-in-job');
  await choose(page, 'Read with this disconnected', /^T-con/);
  await expect(injob).toContainText('T-con');
  await injob.getByRole('tab', { name: 'Type' }).click();
  await injob.getByLabel('What was seen').fill('3');
  await injob.getByText('Counted twice, same result').click();
  await expect(injob.getByRole('checkbox')).toBeChecked();
  await injob.getByTestId('take').click();
  await expect(injob.getByTestId('compared')).toContainText('Code before: 6, repeats. Now: a different code.');
  await expect(page.locator('[data-kind="test.answered"]')).toContainText('Different code');
  const doubts = page.getByTestId('doubts');
  await expect(doubts).toContainText('counts little until the original code returns');
  await injob.getByLabel('What was seen').fill('6');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-kind="blink.read"]')).toHaveCount(3);
  await expect(doubts.getByText('counts little until')).toHaveCount(0);
});

test('a swap before the code was read is warned of', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Blinking standby LED/], maker: 'Quorvane', family: 'Quorvane QK3' });
  await page.getByTestId('left-out').locator('summary').click();
  await page.getByTestId('left-out').locator('[data-step="reset-wait"]').click();
  await expect(page.getByTestId('code-in-danger')).toContainText('Read it first');
});

test('at the counter the reading fills the field, and goes along with its probability', async ({ page }) => {
  await page.goto('/jobs/new');
  await choose(page, 'Symptom', /^Blinking standby LED/);
  await page.keyboard.press('Escape');
  await page.getByTestId('read-light').click();
  await page.getByRole('tab', { name: 'Trace (CSV)' }).click();
  await page.getByTestId('trace-file').setInputFiles(csv(fourOne, 3.2));
  await page.getByTestId('take').click();
  await expect(page.getByLabel('Blink count')).toHaveValue('4-1, repeats');
  await page.getByLabel('Maker').fill('Quorvane');
  await page.getByText('No customer (own set').click();
  await page.getByTestId('save').click();
  await page.getByTestId('to-bench').click();
  await expect(page.locator('[data-kind="blink.read"]')).toContainText('Recording saved.');
});

test('a table is changed, checked in from a file after a dry run, and handed out; open jobs keep theirs', async ({ page }) => {
  await page.goto('/blink');
  await choose(page, 'Family', /^Oltrema C3/);
  const table = page.getByTestId('blink-table');
  const rows = table.locator('tbody tr');
  await expect(rows.first()).toBeVisible();
  const before = await rows.count();
  await page.getByTestId('table-edit').click();
  await table.getByRole('button', { name: 'Add row' }).click();
  await table.getByLabel(`Code ${before + 1}`).fill('3 3');
  await page.getByTestId('table-store').click();
  await expect(page.getByTestId('table-problems')).toContainText('source');
  await table.getByLabel(`Meaning ${before + 1}`).fill('Fan stands');
  await table.getByLabel(`Suspects ${before + 1}`).fill('fans=often');
  await table.getByLabel(`Source ${before + 1}`).fill('written inside a cover');
  await page.getByTestId('table-store').click();
  await expect(page.getByTestId('table-history')).toContainText(`${before + 1} rows`);
  await expect(table.locator('[data-row="code-3-3"]')).toContainText('Fan stands');

  const download = page.waitForEvent('download');
  await page.getByTestId('table-csv').click();
  const file = await (await download).path();
  await page.getByTestId('table-file').setInputFiles({
    name: 'spoilt.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'id,groups,meaning,suspects,source,date,by\na,4,x,strips=often,cover,2026-01-01,Me\nb,4,y,strips=often,cover,2026-01-01,Me\n',
    ),
  });
  await expect(page.getByTestId('table-problems')).toContainText('row 2 (b)');
  await page.getByTestId('table-file').setInputFiles(file);
  await expect(page.getByTestId('table-said')).toContainText(`${before + 1} rows, no problems`);
});
