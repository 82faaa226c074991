import { createHash } from 'node:crypto';
import type { Page } from '@playwright/test';
import { ownHeader } from '@veglia/contract';
import { v7 as uuidv7 } from 'uuid';
import { expect, test } from './support/app.ts';
import { choose, seedJob } from './support/steps.ts';

/** Bytes that don't repeat, the same each time. */
const dump = (seed: string, length: number): Buffer => {
  const parts: Buffer[] = [];
  for (let at = 0; at < length; at += 32) parts.push(createHash('sha256').update(`${seed}${at}`).digest());
  return Buffer.concat(parts).subarray(0, length);
};
const hashOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex').slice(0, 12);
const step = (page: Page, name: string) => expect(page.locator(`[data-test="flash-step"][data-step="${name}"]`)).toBeVisible();
const record = (page: Page) => page.getByTestId('record-step').click();
const file = (page: Page, bytes: Buffer, name = 'u402.bin') =>
  page.getByTestId('dump-file').first().setInputFiles({ name, mimeType: 'application/octet-stream', buffer: bytes });

test('a chip is flashed: nothing is written before the dump is stored twice over, and the Bench knows of it', async ({ page }) => {
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'QK3-50', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: 'quorvane.qk3' }, mayLoseData: true },
    { kind: 'symptom.reported', v: 2, symptoms: ['restart-loop'], seen: true },
    { kind: 'set.changed', v: 3, stage: 'back-off', plugged: true },
  ]);
  const own = dump('own', 70_000);
  const better = dump('better', 70_000);
  await page.goto(`/jobs/${id}/flash`);
  await page.getByLabel('Name on the board').fill('U402');
  await page.getByLabel('Marking on the chip').fill('GX25Q05');
  await page.getByTestId('start-session').click();

  await step(page, 'supply');
  await page.getByTestId('read-cautions').click();
  await page.getByTestId('io-volts').fill('1V8');
  await page.getByTestId('programmer-volts').fill('3V3');
  await record(page);
  await expect(page.locator('[data-finding="programmer-too-high"]')).toBeVisible();
  await page.getByTestId('programmer-volts').fill('1.8');
  await record(page);

  await step(page, 'entered');
  // A clip goes on once the set is unplugged and its rails are down.
  await expect(page.getByTestId('flash-unsafe')).toHaveAttribute('data-unsafe', 'unplug-first');
  await page.getByTestId('make-safe').click();
  await expect(page.getByTestId('flash-unsafe')).toHaveAttribute('data-unsafe', 'down-first');
  await page.getByTestId('make-safe').click();
  await record(page);
  await expect(page.getByTestId('out')).toContainText('U402');

  await step(page, 'identified');
  await page.locator('[data-result="found"]').click();
  await expect(page.getByTestId('flash-answered')).toContainText('Identify the memory: Found');
  await step(page, 'read');
  await file(page, own);
  await expect(page.getByTestId('reads').getByRole('listitem')).toHaveCount(1);
  // One read opens nothing.
  await page.locator('[data-aim="erased"]').click();
  await expect(page.locator('[data-gate="read-again-first"]')).toBeVisible();
  await expect(page.getByTestId('record-step')).toHaveCount(0);
  await page.locator('[data-aim="read"]').click();
  await file(page, own);
  await expect(page.getByTestId('flash-answered')).toContainText('Dump the memory twice: Equal');

  await step(page, 'chosen');
  // An image is judged against the board and the panel that will be driven.
  await page.getByTestId('target-open').click();
  await page.getByLabel('Board number').fill('QX-510');
  await page.getByLabel('Panel, from its label').fill('VL50-A');
  await page.getByTestId('record-target').click();
  await expect(page.getByTestId('target-known')).toHaveText('board QX-510, panel VL50-A');
  await page.getByText('Image file', { exact: true }).first().click();
  await page.getByLabel('Name of the image').fill('Library image of another board');
  await page.getByLabel('Board (optional)').fill('QX-999');
  await file(page, dump('another', 70_000), 'another.bin');
  await expect(page.getByTestId('fit')).toHaveAttribute('data-fit', 'does-not-fit');
  await expect(page.locator('[data-point="board-other"]')).toHaveText(/Other board: set QX-510, image QX-999[.]/);
  // Nothing of this set is taken for a fact of somebody else's file.
  await expect(page.locator('[data-point="panel-unknown"]')).toBeVisible();
  await record(page);
  await page.locator('[data-aim="erased"]').click();
  await expect(page.locator('[data-gate="does-not-fit"]')).toBeVisible();
  await page.locator('[data-aim="chosen"]').click();
  await page.getByText('Image file', { exact: true }).first().click();
  await page.getByLabel('Name of the image').fill('Library image of the same board');
  await page.getByLabel('Board (optional)').fill('qx510');
  await page.getByLabel('Panel (optional)').fill('VL50-A');
  await file(page, better, 'good.bin');
  await expect(page.getByTestId('fit')).toHaveAttribute('data-fit', 'unsure');
  await expect(page.locator('[data-point="untried"]')).toBeVisible();
  await expect(page.locator('.el-select', { has: page.getByLabel('Image in the library') })).toContainText(hashOf(better));
  await record(page);
  await step(page, 'erased');
  if ((await page.getByTestId('read-cautions').count()) > 0) await page.getByTestId('read-cautions').click();
  await record(page);
  // By keys: what has one result to give is one key.
  await step(page, 'blank');
  await page.keyboard.press('1');
  await step(page, 'programmed');
  await page.locator('body').click({ position: { x: 2, y: 400 } });
  await page.keyboard.press('Space');
  await step(page, 'verified');
  await file(page, dump('wrong', 70_000));
  await expect(page.locator('[data-finding="verify-failed"]')).toBeVisible();
  for (const again of ['erased', 'blank', 'programmed']) {
    await step(page, again);
    if (again === 'blank') await page.locator('[data-result="blank"]').click();
    else await record(page);
  }
  await step(page, 'verified');
  await file(page, better);

  await step(page, 'way-out');
  await page.getByText('Supply off, before any wire').click();
  await page.getByText('No solder bridge left').click();
  await record(page);
  await expect(page.getByTestId('out')).toContainText('U402');
  for (const one of ['Supply off, before any wire', 'No solder bridge left', 'Clip off']) {
    const box = page.getByRole('checkbox', { name: one });
    if (!(await box.isChecked())) await page.getByText(one).click();
  }
  await record(page);
  await expect(page.getByTestId('out')).not.toContainText('U402');
  await step(page, 'started');
  await page.locator('[data-result="starts"]').click();
  await expect(page.getByTestId('flash-answered')).toContainText('Flash the library image');
  await step(page, 'setting');
  await page.getByLabel('Setting', { exact: true }).fill('Panel id');
  await page.getByLabel('Now', { exact: true }).fill('0');
  await choose(page, 'What the picture shows now (optional)', 'Doubled or split');
  await expect(page.getByTestId('setting-asked')).toContainText('panel id');
  await record(page);
  // Stepped on until the picture is right; what was tried stays in view.
  await expect(page.getByTestId('setting-tried')).toContainText('0 (Doubled or split)');
  await page.getByTestId('setting-next').click();
  await expect(page.getByLabel('Now', { exact: true })).toHaveValue('1');
  await choose(page, 'What the picture shows now (optional)', 'Right');
  await record(page);

  await page.goto(`/jobs/${id}`);
  await expect(page.locator('[data-test="ledger"] [data-kind="repair.done"]')).toHaveCount(1);
  await expect(page.getByTestId('next')).toHaveAttribute('data-step', 'prove-and-close');
});

test('a chip that reads otherwise each time: several reads are made one, and it goes onto a new chip', async ({ page }) => {
  const session = '0192f000-0000-7000-8000-00000000f1a5';
  const did = (one: object) => ({ kind: 'flash.step', v: 1, session, did: one });
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'QK3-50', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: 'quorvane.qk3' } },
    { kind: 'symptom.reported', v: 2, symptoms: ['restart-loop'], seen: true },
    { kind: 'set.changed', v: 3, stage: 'back-off', railsDown: true },
    did({ step: 'opened', memory: 'spi-nor', name: 'U7', areas: ['whole'], why: 'cold-clears', plan: 'rewrite' }),
    did({ step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['programmer'] }),
    did({ step: 'entered', way: 'clip' }),
    did({ step: 'identified', of: 'this', result: 'found' }),
  ]);
  await page.goto(`/jobs/${id}/flash`);
  await step(page, 'read');
  await page.getByTestId('read-cautions').click();
  const good = dump('good', 40_000);
  for (const [nth, at] of [100, 20_000, 39_999].entries()) {
    const read = Buffer.from(good);
    read[at] = (read[at] ?? 0) ^ 4;
    await file(page, read);
    await expect(page.getByTestId('reads').getByRole('listitem')).toHaveCount(nth + 1);
  }
  await expect(page.locator('[data-finding="chip-failing"]')).toBeVisible();
  await expect(page.getByTestId('flash-answered')).toContainText('Dump the memory twice: Differ');
  await page.getByTestId('combine-reads').click();
  await expect(page.getByTestId('combined')).toContainText('3 bytes');
  await page.getByTestId('use-combined').click();
  // The failing chip is never written again: the plan is changed first.
  await step(page, 'opened');
  await choose(page, 'Plan', 'Program a new chip');
  await page.getByTestId('start-session').click();
  await step(page, 'chosen');
  await choose(page, 'Image in the library', new RegExp(hashOf(good)));
  await record(page);
  await expect(page.getByTestId('flash-step').getByRole('heading')).toHaveText('Identify the new chip');
});

test('the library: an image is found by its board, compared with another bit for bit, and looked at where they differ', async ({
  page,
}) => {
  const { people } = (await (await page.request.get('/api/people')).json()) as { people: { id: string }[] };
  const size = 300_000;
  const one = dump('library', size);
  const other = Buffer.from(one);
  // One bit that rose and two that fell, far from each other.
  const [rises, falls] = [70_001, 250_000].map((from) =>
    one.findIndex((byte, at) => at >= from && (byte & 3) === (from === 70_001 ? 0 : 3)),
  );
  other[rises ?? 0] = (one[rises ?? 0] ?? 0) | 1;
  other[falls ?? 0] = (one[falls ?? 0] ?? 0) & ~3;
  for (const [bytes, name] of [
    [one, 'Kept from the hall set'],
    [other, 'Read a year later'],
  ] as const) {
    const id = uuidv7();
    const headers = { [ownHeader]: '1' };
    await page.request.put(`/api/images/${id}/content?at=0`, {
      headers: { ...headers, 'content-type': 'application/octet-stream' },
      data: bytes,
    });
    const facts = { name, memory: 'spi-nor', area: 'whole', source: 'own-library', board: 'QLB-7', panel: 'VL32-C' };
    expect((await page.request.put(`/api/images/${id}`, { headers, data: { by: people[0]?.id, size, facts } })).status()).toBe(200);
  }
  await page.goto('/stock');
  await page.getByLabel('Search').fill('qlb-7');
  await expect(page.getByTestId('images').getByRole('listitem')).toHaveCount(2);
  await page.getByRole('button', { name: /Kept from the hall set/ }).click();
  await expect(page.getByTestId('image')).toContainText(createHash('sha256').update(one).digest('hex'));
  await choose(page, 'Compare with', /Read a year later/);
  await expect(page.getByTestId('compared')).toContainText(
    `Bytes that differ: 2, in 2 places, the first at 0x${(rises ?? 0).toString(16)}`,
  );
  await expect(page.getByTestId('compared')).toContainText('Bits 0 to 1: 1, 1 to 0: 2');
  await expect(page.getByTestId('compared')).toContainText('2 of 5 blocks');
  await page.getByTestId('hex-place').click();
  await expect(page.getByTestId('hex').locator('.differs')).toHaveCount(2);
  await expect(page.getByTestId('hex').locator('.differs').first()).toHaveText((one[falls ?? 0] ?? 0).toString(16).padStart(2, '0'));
  await page.getByTestId('look-inside').click();
  await expect(page.getByTestId('content').getByTestId('chart').locator('svg')).toBeVisible();
  await expect(page.getByTestId('content')).toContainText('Recognised');
});
