/** The bench by keys alone, on simulated sets: every layout to a proven assembly; the safety walk; timers; two people; looking back. */
import { expect, test } from './support/app.ts';
import { answer, choose, seedJob, takeIn, walk } from './support/steps.ts';
import { layouts, workToProof } from './support/simulated.ts';

// Two of them with the page loaded anew before every answer: the ledger knows all there is to know.
test.describe('worked by keys alone to a proven assembly', () => {
  for (const one of layouts)
    test(one.layout, async ({ page, app }) => {
      const worked = await workToProof(page, app, one, { reload: one.layout === 'oled' || one.layout === 'separate-driver' });
      expect(worked.proven).toBe(one.assembly);
      expect(worked.clicks).toBe(0);
      expect(worked.answers).toBeGreaterThan(0);
    });
});

const changes = (page: import('@playwright/test').Page) => page.locator('[data-test="ledger"] [data-kind="set.changed"]');

test('a cut is walked to: nothing is answered before, what is out is listed, and the next step puts it back', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Restart loop/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  await answer(page, 'look.glass', 'clean');
  const cut = page.locator('[data-test="next"][data-step="cut.picture"]');
  if ((await cut.count()) === 0) await page.getByTestId('others').locator('[data-step="cut.picture"]').click();
  await page.keyboard.press('c');
  await expect(page.getByTestId('walk')).toHaveAttribute('data-move', 'down');
  await page.keyboard.press('1');
  await expect(page.locator('[data-kind="test.answered"]')).toHaveCount(1);
  expect(await walk(page)).toEqual(['down', 'change', 'power']);
  await expect(page.getByTestId('out')).toContainText('Not as delivered: Picture cable');
  await expect(page.locator('[data-node="harness.picture"][data-out="true"]')).toHaveCount(1);
  // Reload in the middle: the ledger knows how far it was.
  await page.reload();
  await expect(cut).toBeVisible();
  await expect(page.getByTestId('walk')).toHaveCount(0);
  await page.keyboard.press('2');
  await expect(page.locator('[data-kind="test.answered"]')).toHaveCount(2);
  await page.keyboard.press('s');
  await expect(page.getByTestId('set-state')).toContainText('Picture cable');
  await answer(page, 'rail.standby', 'in-range');
  await expect(page.getByTestId('out')).toContainText('Nothing disconnected');
});

test('the wrong order is recorded only as overridden, and a result with a forgotten plug is void', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Restart loop/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  await answer(page, 'rail.standby', 'in-range');
  await expect(page.getByTestId('plug')).toHaveAttribute('data-plugged', 'true');
  await page.keyboard.press('g');
  await expect(page.getByTestId('objections')).toContainText('Remove the wrist strap before plugging in');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('objections')).toHaveCount(0);
  const before = await changes(page).count();
  await page.locator('[data-node="harness.panel-left"]').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('x');
  await expect(page.getByTestId('objections')).toContainText('Set is plugged in. Do not connect or disconnect Left panel ribbon');
  await expect(changes(page)).toHaveCount(before);
  await page.getByTestId('done-anyway').click();
  await expect(changes(page)).toHaveCount(before + 1);
  await expect(changes(page).first()).toContainText('Override');
  await expect(page.getByTestId('out')).toContainText('Left panel ribbon');
  // Answered in spite of the walk: void, and says so.
  await page.keyboard.press('Escape');
  const other = page.getByTestId('others').locator('[data-step="cut.picture"]').first();
  await other.or(page.locator('[data-test="next"][data-step="cut.picture"]')).first().click();
  await page.keyboard.press('a');
  await expect(page.getByTestId('anyway-told')).toBeVisible();
  await page.keyboard.press('2');
  await expect(page.locator('[data-kind="test.answered"]').first()).toContainText('Invalid: still disconnected');
});

test('a charge that reads high is not verified: two readings tell the wait', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-03-02T09:00:00Z') });
  await takeIn(page, { symptoms: [/^Dead/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  await answer(page, 'rail.standby', 'absent');
  await page.keyboard.press('u');
  // The next step is on the hot side: its walk asks for the charge, and the hand is in the field at once.
  const walking = page.getByTestId('walk');
  const field = walking.locator('[data-point="bulk"]');
  const light = walking.locator('[data-point="led-plug"]');
  await field.fill('310');
  await light.fill('2');
  await page.keyboard.press('Enter');
  await expect(walking.getByTestId('still-charged')).toContainText('310 V: dangerous (above 60 V)');
  await page.clock.runFor(60_000);
  await field.fill('155');
  await light.fill('2');
  await page.keyboard.press('Enter');
  // Halved in a minute: another 60 · log2(155/60) s = 82 s (exponential decay).
  await expect(walking.getByTestId('still-charged')).toContainText('in about 1:2');
  await field.fill('abc');
  await light.fill('2');
  await page.keyboard.press('Enter');
  await expect(walking.getByTestId('charge')).toContainText('“abc” is not a voltage');
  // An open string can leave its plug charged: one low reading of two is not enough.
  await field.fill('12');
  await light.fill('110');
  await page.keyboard.press('Enter');
  await expect(walking.getByTestId('still-charged')).toContainText('110 V: dangerous (above 60 V)');
  await field.fill('12');
  await light.fill('3');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('verified')).toContainText('12 V');
  // It lapses by the shop's time.
  await page.clock.runFor(31 * 60_000);
  await expect(page.getByTestId('verified')).toContainText('Charge not measured');
  await expect(page.getByTestId('rails')).toContainText('Rails check expired');
  // And is read anew from the state itself, whatever the next step is.
  await page.getByTestId('verified').click();
  await expect(page.getByTestId('set-state').getByTestId('charge')).toBeVisible();
});

test('timers run on after a reload and on the shelves, ring once, and bring their step forward', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-03-02T09:00:00Z') });
  await takeIn(page, { symptoms: [/^Dead/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  const long = page.getByTestId('others').locator('[data-step="reset-wait"]').first();
  if ((await page.locator('[data-test="next"][data-step="reset-wait"]').count()) === 0) await long.click();
  await page.keyboard.press('w');
  await expect(page.getByTestId('wait').first()).toContainText(/3:5\d|4:00/);
  await page.clock.runFor(60_000);
  await page.reload();
  await expect(page.getByTestId('wait').first()).toContainText(/2:5\d|3:00/);
  await page.goto('/');
  await expect(page.getByTestId('card-timer')).toContainText(/Power reset, short/);
  await page.clock.runFor(3 * 60_000 + 2000);
  await expect(page.getByTestId('ring')).toContainText('finished');
  expect(await page.title()).toContain('(1)');
  expect(await page.evaluate(() => document.documentElement.dataset.rings)).toBe('1');
  await page.getByTestId('ring').getByRole('link').click();
  await expect(page.locator('[data-test="next"][data-step="reset-wait"]')).toBeVisible();
  await page.keyboard.press('e');
  await expect(page.getByTestId('ring')).toHaveCount(0);
  await expect(page.locator('[data-kind="wait.ended"]')).toHaveCount(1);
});

test('two people: each other’s entries without reload; two answers to one step are both kept and shown as disagreeing', async ({
  page,
  browser,
  app,
}) => {
  const notes = "SELECT count(*) FROM ledger_entries WHERE kind = 'note.added'";
  const before = await app.count(notes);
  await takeIn(page, { symptoms: [/^Restart loop/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  const other = await (await browser.newContext()).newPage();
  await other.goto(page.url());
  await expect(other.getByTestId('next')).toBeVisible();
  await answer(page, 'look.glass', 'clean');
  await expect(other.locator('[data-test="ledger"] [data-kind="test.answered"]')).toHaveCount(1);
  // The server is really gone: both write; it comes back: all is there once, in one order.
  await app.stopServer();
  await page.getByLabel('Note', { exact: true }).fill('from the first');
  await page.keyboard.press('Enter');
  await other.getByLabel('Note', { exact: true }).fill('from the second');
  await other.keyboard.press('Enter');
  await expect(page.locator('[data-test="ledger"]')).toContainText('not sent yet');
  await expect(other.locator('[data-test="ledger"]')).toContainText('not sent yet');
  await app.startServer();
  for (const one of [page, other]) {
    await expect(one.locator('[data-test="ledger"]')).toContainText('from the first');
    await expect(one.locator('[data-test="ledger"]')).toContainText('from the second');
    await expect(one.getByTestId('unsent')).toHaveCount(0);
  }
  expect((await app.count(notes)) - before).toBe(2);
  const order = (one: typeof page) =>
    one.locator('[data-test="ledger"] li').evaluateAll((lines) => lines.map((line) => (line as HTMLElement).dataset.seq));
  expect(await order(page)).toEqual(await order(other));
  await app.stopServer();
  for (const [one, key] of [
    [page, 'cured'],
    [other, 'unchanged'],
  ] as const)
    await answer(one, 'outlet', key);
  await app.startServer();
  await expect(page.getByTestId('disagrees')).toHaveCount(2);
  await expect(other.getByTestId('disagrees')).toHaveCount(2);
  await other.context().close();
});

test('the ledger filters, leads to an entry, and shows all as of this entry', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Dead/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  const probability = () => page.locator('[data-test="suspects"] [data-assembly="power"] .probability').textContent();
  const first = await probability();
  await answer(page, 'outlet', 'unchanged');
  await answer(page, 'rail.standby', 'absent');
  await expect(page.getByTestId('effect').first()).toContainText('→');
  const now = await probability();
  expect(now).not.toBe(first);
  await page.getByTestId('ledger-filter').selectOption('told');
  await expect(page.locator('[data-test="ledger"] [data-kind="test.answered"]')).toHaveCount(0);
  await page.getByTestId('ledger-filter').selectOption('all');
  await page.getByTestId('look-back').click();
  await page.locator('[data-as-of="2"]').click();
  await expect(page.getByTestId('as-of')).toContainText('As of entry 2');
  expect(await probability()).toBe(first);
  await expect(page.getByTestId('next')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('next')).toBeVisible();
  expect(await probability()).toBe(now);
  await page.goto(`${page.url()}#e2`);
  await page.reload();
  await expect(page.locator('#e2')).toBeInViewport();
});

test('heat rounds answer their test, stimuli are kept, and what came off has to come back', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Restart loop/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  await page.keyboard.press('h');
  await page.getByLabel('Treated to, °C').fill('warm');
  await page.locator('[data-result="stays"]').click();
  await expect(page.getByTestId('heat')).toContainText('“warm” is not a temperature');
  await page.getByLabel('Treated to, °C').fill('41');
  await page.locator('[data-result="stays"]').click();
  await expect(page.locator('[data-kind="heat.round"]')).toContainText('41 °C');
  await expect(page.locator('[data-kind="test.answered"]')).toHaveCount(1);
  await choose(page, 'Treatment', 'Chilled');
  await expect(page.getByLabel('Treated to, °C')).toHaveValue('4');
  await page.getByLabel('Treated to, °C').fill('40');
  await page.locator('[data-result="heals"]').click();
  await expect(page.getByTestId('heat')).toContainText('below room temperature');
  await page.getByLabel('Treated to, °C').fill('3');
  await page.locator('[data-result="heals"]').click();
  await expect(page.locator('[data-kind="test.answered"]').first()).toContainText('Chill all but one');
  await page.keyboard.press('Escape');
  await page.getByTestId('job-number').click();
  await page.keyboard.press('j');
  await page.locator('[data-way="flex"]').click();
  await page.locator('[data-effect="went"]').click();
  await expect(page.locator('[data-kind="stimulus.tried"]')).toContainText(/Flex at .*: cleared/);
  await page.keyboard.press('z');
  const cover = page.locator('[data-part="cover"]');
  await cover.getByRole('textbox').fill('14');
  await cover.getByTestId('off').click();
  await expect(page.getByTestId('still-off')).toContainText('Back cover');
  await page.getByTestId('closing').click();
  await cover.getByRole('textbox').fill('13');
  await cover.getByTestId('on').click();
  await expect(cover).toContainText('1 missing');
});

test('photos at the bench: into the ledger, of a part that comes off, and with the place that was pressed', async ({ page, app }) => {
  await takeIn(page, { symptoms: [/^Restart loop/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  const picture = { name: 'inside.png', mimeType: 'image/png', buffer: await page.screenshot() };
  await page.keyboard.press('i');
  const sheet = page.getByTestId('photo-sheet');
  await expect(sheet.getByTestId('photo-file')).toBeFocused();
  await sheet.getByTestId('photo-file').setInputFiles({ ...picture, buffer: Buffer.from('no picture') });
  await expect(sheet.getByRole('alert')).toContainText('inside.png');
  await sheet.getByLabel('Caption').fill('screw bridge under the T-con');
  await sheet.getByTestId('photo-file').setInputFiles(picture);
  const line = page.locator('[data-test="ledger"] [data-kind="photo.added"]');
  await expect(line).toContainText('screw bridge under the T-con');
  await expect.poll(() => line.getByRole('img').evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(1280);
  await page.keyboard.press('z');
  const cover = page.locator('[data-part="cover"]');
  await cover.getByTestId('photo-file').setInputFiles(picture);
  await expect(cover.getByRole('img')).toBeVisible();
  await cover.getByRole('textbox').fill('201');
  await cover.getByTestId('off').click();
  await expect(page.getByTestId('teardown')).toContainText('“201” is not a count');
  await cover.getByRole('textbox').fill('14');
  await cover.getByTestId('off').click();
  await page.getByTestId('closing').click();
  await expect(cover.getByRole('img')).toBeVisible();
  await page.getByTestId('open-stimulus').click();
  await page.getByTestId('stimulus').getByTestId('photo-file').setInputFiles(picture);
  const marked = page.getByTestId('stimulus-photo-mark');
  await expect.poll(() => marked.getByRole('presentation').evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(1280);
  const box = await marked.boundingBox();
  await marked.click({ position: { x: (box?.width ?? 0) / 4, y: (box?.height ?? 0) / 2 } });
  await page.locator('[data-effect="went"]').click();
  await expect(page.locator('[data-kind="stimulus.tried"]')).toHaveCount(1);
  const where = (index: number): string =>
    `SELECT count(*) FROM ledger_entries WHERE kind = 'stimulus.tried' AND abs((body->'mark'->>${index})::float - ${index === 0 ? 0.25 : 0.5}) < 0.02`;
  await expect.poll(() => app.count(where(0))).toBe(1);
  expect(await app.count(where(1))).toBe(1);
});

test('large, keys, and the plan as a file of its own', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Dead/], maker: 'Oltrema', layout: 'LED, separate T-con' });
  await page.keyboard.press('?');
  await expect(page.getByTestId('keys')).toContainText('unplug or reconnect the selected connector');
  await page.keyboard.press('b');
  await expect(page.locator('.benchpage.far')).toHaveCount(1);
  await expect(page.locator('[data-test="suspects"]')).toBeHidden();
  await page.keyboard.press('b');
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByTestId('save-plan').click()]);
  const text = await (await import('node:fs/promises')).readFile(await file.path(), 'utf8');
  expect(file.suggestedFilename()).toMatch(/^plan-\d+\.svg$/);
  // One node an assembly, and nothing that only the page's style would tell.
  const nodes = [...text.matchAll(/data-node="([^"]+)"/g)].map((match) => match[1]);
  expect(nodes.length).toBe(new Set(nodes).size);
  expect(nodes).toEqual(expect.arrayContaining(['power', 'main', 'tcon', 'panel', 'harness.picture']));
  expect(text).not.toContain('var(--');
  expect(text).toContain('stroke="rgb');
});

test('refining and weighing back are done by the worker', async ({ page }) => {
  await takeIn(page, { symptoms: [/^Sound, black screen/], maker: 'Quorvane', family: 'Quorvane QK3' });
  await page.getByTestId('order-cost').waitFor();
  await answer(page, 'torch', 'faint-picture');
  await answer(page, 'cut.power-main', 'dark');
  await expect(page.getByTestId('effect').first()).toBeVisible();
  await expect(page.getByTestId('next')).toBeVisible();
  expect(page.workers().some((worker) => worker.url().includes('refine'))).toBe(true);
});

test('a part taken off stays in view, and the job isn’t closed as repaired without it', async ({ page }) => {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'X', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['restart-loop'], seen: true },
    { kind: 'set.changed', v: 3, plugged: false, stage: 'back-off', railsDown: true },
  ]);
  await page.goto(`/jobs/${id}`);
  await page.locator('[data-node="tcon"]').focus();
  await page.keyboard.press('Enter');
  await page.getByTestId('lifted-name').fill('C4;12');
  await page.getByRole('button', { name: 'Record part removed' }).click();
  await expect(page.getByTestId('lifted')).toContainText('“C4;12” is no part name');
  await page.getByTestId('lifted-name').fill('C412');
  await page.getByRole('button', { name: 'Record part removed' }).click();
  await expect(page.getByTestId('out')).toContainText('C412 removed');
  await page.goto(`/jobs/${id}/close`);
  await choose(page, 'Outcome', /^Repaired$/);
  await expect(page.getByTestId('left-out-closing')).toContainText('C412 removed');
  await page.goto(`/jobs/${id}`);
  await page.locator('[data-node="tcon"]').focus();
  await page.keyboard.press('Enter');
  await page.getByTestId('refit-C412').click();
  await expect(page.getByTestId('out')).toContainText('Nothing disconnected');
});
