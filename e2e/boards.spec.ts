/** Boards: marked once on a picture, then the step shows the spot and what belongs there, and readings of good ones are kept. */
import { expect, test } from './support/app.ts';
import { choose, seedJob, walk } from './support/steps.ts';

test('a board is added, its plug marked by pointing, used at the bench, and grows by a reading', async ({ page, app }) => {
  await page.setContent(
    '<div id="board" style="width:800px;height:500px;background:#754"><b style="position:absolute;left:200px;top:90px">CN1</b></div>',
  );
  const picture = await page.locator('#board').screenshot();
  await page.goto('/boards');
  await page.getByTestId('add-board').click();
  await expect(page.getByText('Enter the number printed on the board.')).toBeVisible();
  await page.getByLabel('Printed number').fill('PW-4410');
  await choose(page, 'Layout', 'LED, separate T-con');
  await choose(page, 'Board', 'Power board');
  await page.getByTestId('add-board').click();
  await expect(page.getByRole('heading', { name: 'PW-4410' })).toBeVisible();
  // From the photos of a job: copied, and one of its own.
  const photo = crypto.randomUUID();
  await page.request.put(`/api/photos/${photo}`, {
    headers: { 'x-veglia': '1', 'content-type': 'application/octet-stream' },
    data: picture,
  });
  const source = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'Y', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['dead'] },
    { kind: 'photo.added', v: 2, photo, of: 'board' },
  ]);
  await page.getByTestId('job-photos').click();
  await page.getByTestId('job-photos-number').fill('x');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“x” is no job number.')).toBeVisible();
  await page.getByTestId('job-photos-number').fill(String(source.number));
  await page.keyboard.press('Enter');
  await page.getByTestId('job-photo').click();
  const shown = page.getByTestId('board-picture');
  await expect(shown.locator('img')).toBeVisible();

  await page.getByTestId('mark-connector').click();
  await expect(page.getByTestId('mark-asks')).toHaveText(/pin 1/);
  const box = await shown.boundingBox();
  if (!box) throw new Error('no picture');
  await page.mouse.click(box.x + box.width * 0.25, box.y + box.height * 0.2);
  await expect(page.getByTestId('mark-asks')).toHaveText(/last pin/);
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.2);
  await page.keyboard.type('CN1');
  await choose(page, 'Belongs to', 'Power-main harness');
  await page.getByLabel('Labels from pin 1 on, separated by spaces').fill('5V3SB 5V3SB GND PS-ON');
  await page.keyboard.press('Tab');
  const mark = page.getByTestId('mark');
  await expect(mark.locator('[data-pin]')).toHaveCount(4);
  await expect(mark.locator('[data-pin="4"] select')).toContainText('PS_ON at the power-main plug');
  await mark.locator('[data-pin="1"]').getByTestId('expect-on').fill('five');
  await page.keyboard.press('Tab');
  await expect(mark).toContainText('“five” is no reading.');
  await mark.locator('[data-pin="1"]').getByTestId('expect-on').fill('5.3');
  await page.getByTestId('mark-done').click();
  // Not saved, and a reload loses nothing.
  await page.reload();
  await expect(page.getByTestId('save-bar')).toContainText('were not saved are back');
  await expect(shown.getByRole('button')).toHaveCount(4);
  await page.getByTestId('save-board').click();
  await expect(page.getByTestId('save-bar')).toContainText('Version 2 saved.');
  expect(await app.count('SELECT count(*) FROM board_versions')).toBe(2);

  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'X', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['standby-no-start'], seen: true },
  ]);
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('next')).toBeVisible();
  await page.keyboard.press('+');
  const sheet = page.getByTestId('sheet');
  await sheet.getByTestId('board-found').click();
  await sheet.getByTestId('board-number').fill('pw-4410');
  await sheet.getByTestId('record-board').click();
  await expect(page.getByTestId('ledger').locator('[data-kind="board.found"]')).toContainText('PW-4410');
  await sheet.getByTestId('sheet-standby').click();
  await expect(sheet.locator('[data-point="standby"]')).toContainText('5.3 V, this board');
  await sheet.locator('[data-point="standby"]').getByRole('button', { name: 'Go to step' }).click();
  await page.keyboard.press('c');
  await walk(page);
  // The spot is ringed, and what belongs there is known without asking what is printed.
  await expect(page.getByTestId('spot')).toContainText('CN1 pin 1, 5V3SB');
  await expect(page.getByTestId('reading-printed')).toHaveCount(0);

  await page.keyboard.press('+');
  await sheet.getByTestId('sheet-standby').click();
  await sheet.getByTestId('sheet-value-standby').fill('5.25');
  await sheet.getByTestId('sheet-value-cn1.2').fill('0.02');
  await expect(sheet.locator('[data-point="standby"]')).toContainText('Pins of this rail differ');
  await sheet.getByTestId('sheet-value-cn1.2').fill('5.26');
  await expect(sheet.locator('[data-point="standby"]')).toContainText('In range');
  await sheet.getByTestId('sheet-good').check();
  await sheet.getByTestId('sheet-record').click();
  await expect(sheet.getByTestId('sheet-learned')).toContainText('PW-4410');
  const ledger = page.getByTestId('ledger');
  await expect(ledger.locator('[data-kind="reading.taken"]')).toHaveCount(2);
  await expect(ledger.locator('[data-kind="reading.taken"]').first()).toContainText('CN1 pin');
  await expect(ledger.locator('[data-kind="test.answered"]')).toHaveCount(1);
  await sheet.getByRole('link', { name: 'Open' }).click();
  await shown.getByRole('button', { name: 'CN1 1 5V3SB' }).click();
  await expect(mark.locator('[data-pin="1"]')).toContainText('5.25 (1 good)');
});

test('somebody else’s version is never overwritten; a board goes out as a file and comes back whole', async ({ page }) => {
  const board = { format: 'veglia-board', version: 1, id: crypto.randomUUID(), number: 'TC-9', assembly: 'tcon', layout: 'led-tcon' };
  const people = (await (await page.request.get('/api/people')).json()) as { people: { id: string }[] };
  const by = people.people[0]?.id;
  const put = (version: number, notes: string) =>
    page.request.put(`/api/boards/${board.id}`, {
      headers: { 'x-veglia': '1' },
      data: { by, version, reason: 'x', board: { ...board, notes } },
    });
  expect((await put(0, '')).status()).toBe(200);
  await page.goto(`/boards/${board.id}`);
  await page.getByTestId('add-card').click();
  await page.getByRole('button', { name: 'Add known fault' }).click();
  await expect(page.getByText('Enter what the set shows.')).toBeVisible();
  await page.getByLabel('What the set shows').fill('Half a picture, warm corner');
  await page.getByLabel('Proof in two minutes').fill('Press the left plug: the picture comes whole');
  await page.getByRole('button', { name: 'Add known fault' }).click();
  await expect(page.locator('[data-card]')).toContainText('It was this: 0');
  await page.getByRole('button', { name: 'It was this' }).click();
  await expect(page.locator('[data-card]')).toContainText('It was this: 1');
  expect((await put(1, 'theirs')).status()).toBe(200);
  await page.getByTestId('save-board').click();
  await expect(page.getByTestId('save-bar')).toContainText('Someone else changed this board.');
  await expect(page.locator('[data-card]')).toHaveCount(1);
  await page.getByTestId('discard').click();
  await expect(page.getByLabel('Notes')).toHaveValue('theirs');

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export' }).click();
  const file = await (await download).path();
  await page.goto('/boards');
  await page
    .getByTestId('import-board')
    .setInputFiles({ name: 'bad.json', mimeType: 'application/json', buffer: Buffer.from('{"format":"veglia-boards"}') });
  await expect(page.getByRole('alert')).toContainText('file');
  await page.getByTestId('import-board').setInputFiles(file);
  await expect(page.getByText('TC-9 imported.')).toBeVisible();
});
