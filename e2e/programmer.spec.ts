import type { Page } from '@playwright/test';
import { compilePack } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { seedOf, SimulatedSet } from '@veglia/simulators/set';
import { v7 as uuidv7 } from 'uuid';
import { expect, test } from './support/app.ts';
import { choose, seedJob } from './support/steps.ts';
import { inRoot } from '../scripts/lib/paths.mjs';

test.use({ withDemo: true });

const layout = compilePack(await readPackFolder(inRoot('knowledge'))).layouts.get('led-tcon');
/** The id of a job whose simulated set has a chip with weak cells. */
function weakJob(): string {
  for (;;) {
    const id = uuidv7();
    const seed = seedOf(1, id);
    if (seed % 2 === 0 && layout && new SimulatedSet({ layout, faults: ['main.startup-memory'], seed }).chip().weak.length > 0) return id;
  }
}
const step = (page: Page, name: string) => expect(page.locator(`[data-test="flash-step"][data-step="${name}"]`)).toBeVisible();
const start = async (page: Page): Promise<void> => {
  const before = await page.locator('[data-test="flash-step"]').getAttribute('data-did');
  await page.getByTestId('programmer-start').click();
  await expect(page.locator('[data-test="flash-step"]')).not.toHaveAttribute('data-did', before ?? '');
  await expect(page.getByTestId('programmer-progress')).toHaveCount(0);
};

test('a weak chip, worked by the programmer: warm reads differ, cold ones agree, a new chip is written, verified and starts', async ({
  page,
}) => {
  const session = uuidv7();
  const did = (one: object) => ({ kind: 'flash.step', v: 1, session, did: one });
  const { id } = await seedJob(
    page,
    { customer: null, plate: { maker: 'Quorvane', model: 'QK3-50', serial: '' } },
    [
      { kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: 'quorvane.qk3' }, mayLoseData: true },
      { kind: 'symptom.reported', v: 2, symptoms: ['slow-start'], seen: true },
      { kind: 'set.changed', v: 3, stage: 'back-off', railsDown: true },
      did({ step: 'opened', memory: 'spi-nor', name: 'U7', marking: 'VN25S8', areas: ['whole'], why: 'cold-clears', plan: 'rewrite' }),
      did({ step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['programmer'] }),
      did({ step: 'entered', way: 'clip' }),
    ],
    weakJob(),
  );
  await page.goto(`/jobs/${id}/flash`);
  await step(page, 'identified');
  await page.getByTestId('read-cautions').click();
  await page.getByTestId('programmer-start').click();
  await expect(page.getByTestId('programmer-result')).toContainText('Answers as VN25S8, 1 MiB');
  await expect(page.getByLabel('Identified as (optional)')).toHaveValue('VN25S8');
  await expect(page.getByTestId('code-says')).toContainText('maker not in the table, 1 MiB');
  await page.locator('[data-result="found"]').click();

  await step(page, 'read');
  for (let nth = 0; nth < 3; nth += 1) await start(page);
  await expect(page.locator('[data-finding="chip-failing"]')).toBeVisible();
  await page.getByText('Read cold').click();
  // Now and then a cold read has a wrong bit, too.
  while ((await page.locator('[data-test="flash-step"][data-step="read"]').count()) > 0) await start(page);
  // The content is saved; the chip is not written again.
  await step(page, 'opened');
  await choose(page, 'Plan', 'Program a new chip');
  await page.getByTestId('start-session').click();
  await step(page, 'chosen');
  // Only the dump that stands is offered, not the reads with the chip’s errors.
  await choose(page, 'Image in the library', /Own dump/);
  await page.getByTestId('record-step').click();
  await step(page, 'identified');
  await page.getByTestId('programmer-start').click();
  await expect(page.getByTestId('programmer-result')).toContainText('VN25S8');
  await page.locator('[data-result="found"]').click();
  // By key, as everything that is due.
  await step(page, 'blank');
  await page.locator('body').click({ position: { x: 2, y: 400 } });
  await page.keyboard.press('Space');
  await step(page, 'programmed');
  if ((await page.getByTestId('read-cautions').count()) > 0) await page.getByTestId('read-cautions').click();
  // Broken off, it is written from the beginning.
  await page.getByTestId('programmer-start').click();
  await page.getByTestId('programmer-cancel').click();
  await step(page, 'erased');
  await expect(page.locator('[data-finding="unfinished"]')).toBeVisible();
  await start(page);
  await step(page, 'blank');
  await start(page);
  await step(page, 'programmed');
  await start(page);
  await step(page, 'verified');
  await start(page);
  await step(page, 'way-out');
});
