/** Memories worked by hand with files of another programmer: own content kept through a foreign image, an eMMC by its areas. */
import { createHash } from 'node:crypto';
import type { Page } from '@playwright/test';
import { goodContent, ownData } from '@veglia/simulators/set';
import { v7 as uuidv7 } from 'uuid';
import { expect, test } from './support/app.ts';
import { choose, seedJob } from './support/steps.ts';

test.use({ withDemo: true });

const step = (page: Page, name: string, area?: string) =>
  expect(page.locator(`[data-test="flash-step"][data-step="${name}"]${area === undefined ? '' : `[data-area="${area}"]`}`)).toBeVisible();
const attach = (page: Page, bytes: Uint8Array, name = 'dump.bin') =>
  page
    .getByTestId('dump-file')
    .first()
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(bytes) });
/** A job on the flash bench, its set safe to work on and everything read and agreed to; `did`: steps of its session. */
async function atBench(page: Page, did: readonly object[]): Promise<string> {
  const session = uuidv7();
  const { id } = await seedJob(page, { customer: null, plate: { maker: 'Quorvane', model: 'QK3-43', serial: 'QV-55102' } }, [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: 'quorvane.qk3' }, mayLoseData: true },
    { kind: 'symptom.reported', v: 2, symptoms: ['restart-loop'], seen: true },
    { kind: 'set.changed', v: 3, stage: 'back-off', plugged: false, railsDown: true },
    ...did.map((one) => ({ kind: 'flash.step', v: 1, session, did: one })),
  ]);
  await page.goto(`/jobs/${id}/flash`);
  return id;
}
const supply = { step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['programmer'] };

test('a damaged start memory takes the library’s image, and this set’s serial number and address stay its own', async ({ page }) => {
  const own = goodContent(21);
  const damaged = own.slice().fill(0xff, 0x3_0000, 0x4_0000);
  await atBench(page, [
    { step: 'opened', memory: 'spi-nor', name: 'U7', marking: 'VN25S8', areas: ['whole'], why: 'restart-loop', plan: 'rewrite' },
    { step: 'target', board: 'QKM-3107', revision: 'B', panel: 'VP-43-A', region: 'EU' },
    supply,
    { step: 'entered', way: 'clip' },
    { step: 'identified', of: 'this', result: 'found', chip: 'VN25S8', bytes: damaged.length },
  ]);
  await step(page, 'read');
  await page.getByTestId('read-cautions').click();
  // What the other programmer wrote of its work goes with the read.
  await page
    .getByTestId('log-file')
    .setInputFiles({ name: 'read.log', mimeType: 'text/plain', buffer: Buffer.from('Reading chip...\ndone.\n') });
  await expect(page.getByTestId('log-attached')).toContainText('2 lines');
  await attach(page, damaged);
  await expect(page.getByTestId('reads').getByRole('listitem')).toHaveCount(1);
  await attach(page, damaged);
  await step(page, 'chosen');
  await choose(page, 'Image in the library', /Quorvane QK3-43, bought/);
  const lost = page.getByTestId('own-lost');
  await expect(lost).toContainText('serial number, hardware address');
  await page.getByTestId('put-own').click();
  await page.getByTestId('record-step').click();
  await step(page, 'erased');
  // What is written now is the library's image with this set's own in it.
  const made = await page.evaluate(async () => {
    const { images } = (await (await fetch('/api/images')).json()) as { images: { id: string; facts: { ownFrom?: string } }[] };
    const id = images.find(({ facts }) => facts.ownFrom !== undefined)?.id ?? '';
    return { id, bytes: [...new Uint8Array(await (await fetch(`/api/images/${id}/content`)).arrayBuffer())] };
  });
  const text = new TextDecoder('latin1').decode(own.subarray(ownData.from, ownData.from + 64));
  const wanted = goodContent(13);
  for (const part of [/VN\d+/, /02:[0-9A-F:]+/].map((one) => one.exec(text)))
    if (part) wanted.set(own.subarray(ownData.from + part.index, ownData.from + part.index + part[0].length), ownData.from + part.index);
  expect(Buffer.compare(Buffer.from(made.bytes), Buffer.from(wanted))).toBe(0);

  // Where two sets of the board differ is the rest of it: compared in Stock, and marked in the dump.
  await page.goto(`/stock?image=${made.id}`);
  await expect(page.getByTestId('own-places').getByRole('listitem')).toHaveCount(2);
  await page.getByTestId('images').getByRole('button', { name: /U7/ }).first().click();
  await choose(page, 'Compare with', /Quorvane QK3-43, bought, QKM/);
  await expect(page.getByTestId('own-proposed')).toContainText('0xf');
  await page.getByTestId('mark-proposed').click();
  await expect(page.locator('[data-test="own-places"] [data-kind="serial"]')).toHaveCount(1);
  await expect(page.getByTestId('own-proposed')).toHaveCount(0);
  // A dump that holds a customer's data is marked by hand, and who said so stays on record.
  await page.getByTestId('facts').locator('summary').click();
  await page.getByTestId('fact-user-data').click();
  await page.getByTestId('change-facts').click();
  await expect(page.getByTestId('user-data')).toBeVisible();
  await expect(page.getByTestId('facts-before').getByRole('listitem')).toHaveCount(2);
  await expect(page.getByTestId('facts-before')).toContainText('marked as a customer’s data');
});

test('an eMMC onto a new chip: its boot registers are read, set alike, and only then it is tried', async ({ page }) => {
  const boot = goodContent(5).subarray(0, 0x4_0000);
  const dumped = {
    step: 'read',
    area: 'boot-1',
    sha256: createHash('sha256').update(boot).digest('hex'),
    bytes: boot.length,
    extent: 'whole',
  };
  await atBench(page, [
    { step: 'opened', memory: 'emmc', name: 'U900', areas: ['boot-1', 'boot-2'], why: 'rails-good-no-start', plan: 'onto-new' },
    supply,
    { step: 'entered', way: 'in-place' },
    { step: 'identified', of: 'this', result: 'found' },
    // The other boot area is kept, and on the new chip left as it comes.
    ...[0, 1].map(() => ({ ...dumped, area: 'boot-2', image: uuidv7() })),
    dumped,
  ]);
  await step(page, 'read', 'boot-1');
  await page.getByTestId('read-cautions').click();
  // The programmers of this server work on serial flash: none is offered.
  await expect(page.getByTestId('programmer')).toHaveCount(0);
  await attach(page, boot);
  await step(page, 'boot-config');
  await page.getByLabel('Partition configuration, byte 179').fill('0x48');
  await page.getByLabel('Boot bus conditions, byte 177').fill('0');
  await page.getByLabel('Reset function, byte 162').fill('01');
  await page.getByTestId('record-step').click();
  await expect(page.getByText('Two hexadecimal digits.')).toBeVisible();
  await page.getByLabel('Boot bus conditions, byte 177').fill('00');
  await expect(page.getByTestId('boot-says')).toHaveText('boots from boot area 1, acknowledges the boot, reset contact on for good.');
  await page.getByTestId('record-step').click();
  await step(page, 'chosen', 'boot-1');
  await page.getByTestId('record-step').click();
  await step(page, 'chosen', 'boot-2');
  await page.getByRole('button', { name: 'Leave this area as it is' }).click();
  await step(page, 'identified');
  await page.locator('[data-result="found"]').click();
  await step(page, 'blank');
  await page.locator('[data-result="blank"]').click();
  await step(page, 'programmed');
  if ((await page.getByTestId('read-cautions').count()) > 0) await page.getByTestId('read-cautions').click();
  await page.getByTestId('record-step').click();
  await step(page, 'verified');
  await attach(page, boot);
  await step(page, 'boot-config');
  await page.locator('[data-aim="started"]').click();
  await expect(page.locator('[data-gate="boot-config-first"]')).toBeVisible();
  await page.locator('[data-aim="boot-config"]').last().click();
  await expect(page.getByTestId('boot-old')).toContainText('48, 00, 01');
  await page.keyboard.press('1');
  await step(page, 'way-out');
});

test('a chip from another board: what differs between the boards is recorded before it is tried', async ({ page }) => {
  await atBench(page, [
    { step: 'opened', memory: 'eeprom', name: 'U31', marking: 'VN24S32', areas: ['whole'], why: 'other', plan: 'move' },
    supply,
    { step: 'entered', way: 'socket' },
    { step: 'identified', of: 'this', result: 'found' },
  ]);
  await step(page, 'read');
  await page.getByTestId('read-cautions').click();
  // Twice in one file: read as larger than it is, and no backup.
  const own = goodContent(6).subarray(0x100, 0x900);
  const twice = Buffer.concat([own, own]);
  await attach(page, twice);
  await attach(page, twice);
  await expect(page.locator('[data-finding="repeats-itself"]')).toBeVisible();
  await attach(page, own);
  await attach(page, own);
  await step(page, 'fitted');
  if ((await page.getByTestId('read-cautions').count()) > 0) await page.getByTestId('read-cautions').click();
  await page.getByLabel('Comes from').fill('donor board of a QK3-43');
  await page.getByTestId('record-step').click();
  await expect(page.getByText('Enter what differs')).toBeVisible();
  await page.getByLabel('What differs between the boards').fill('one coil beside the chip');
  await page.getByTestId('record-step').click();
  await step(page, 'way-out');
});
