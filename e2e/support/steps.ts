/** What a technician does, in a few words. */
import { ownHeader, type NewJobInput } from '@veglia/contract';
import { readPackFolder } from '@veglia/contract/node';
import { compilePack } from '@veglia/core';
import { expect, type Page } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { inRoot } from '../../scripts/lib/paths.mjs';

export interface Intake {
  readonly symptoms: readonly RegExp[];
  readonly words?: string;
  readonly maker?: string;
  readonly model?: string;
  readonly family?: string;
  readonly layout?: string;
  readonly customer?: string;
  readonly blink?: string;
}

async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  const chosen = typeof option === 'string' ? option : new RegExp(option.source.replace(/^\^/, ''));
  // By keyboard: a click meets the placeholder, or a list that is still closing. On a machine under load a click on the list has been
  // seen to be lost: looked at, and done again.
  await expect(async () => {
    await field.focus();
    await page.keyboard.press('ArrowDown');
    await page.getByRole('option', { name: option }).click({ timeout: 5000 });
    await expect(page.locator('.el-select').filter({ has: field })).toContainText(chosen, { timeout: 2000 });
  }).toPass({ timeout: 60_000 });
}

export { choose };

export async function fillIntake(page: Page, intake: Intake): Promise<void> {
  for (const [index, symptom] of intake.symptoms.entries()) {
    const chosen = page.getByTestId('symptoms').locator('.el-tag');
    // On a machine under load a click on the list has been seen to be lost: looked at, and done again.
    await expect(async () => {
      if ((await chosen.count()) <= index) await choose(page, 'Symptom', symptom);
      await page.keyboard.press('Escape');
      await expect(chosen).toHaveCount(index + 1, { timeout: 2000 });
    }).toPass({ timeout: 60_000 });
  }
  if (intake.words !== undefined) await page.getByLabel('In the customer’s own words').fill(intake.words);
  if (intake.blink !== undefined) {
    await page.getByLabel('Blink count').fill(intake.blink);
    await page.getByText('Counted twice, same result').click();
  }
  if (intake.family !== undefined) await choose(page, 'Family', intake.family);
  if (intake.layout !== undefined) await choose(page, 'Layout', intake.layout);
  if (intake.maker !== undefined) await page.getByLabel('Maker').fill(intake.maker);
  if (intake.model !== undefined) await page.getByLabel('Model').fill(intake.model);
  if (intake.customer === undefined) await page.getByText('No customer (own set').click();
  else await page.getByLabel('Name', { exact: true }).fill(intake.customer);
}

/** The shipped pack: what the screens name is found in it. */
export const book = compilePack(await readPackFolder(inRoot('knowledge')));

/** Stores a job as the app would, without its screens; returns its id. */
export async function seedJob(
  page: Page,
  body: Omit<NewJobInput, 'id' | 'by' | 'entries'>,
  bodies: readonly object[],
  id = uuidv7(),
): Promise<{ id: string; number: number }> {
  const { signedIn } = (await (await page.request.get('/api/session')).json()) as { signedIn: { id: string } };
  const entries = bodies.map((one) => ({ id: uuidv7(), at: new Date().toISOString(), basedOn: 0, body: one }));
  const reply = await page.request.post('/api/jobs', { headers: { [ownHeader]: '1' }, data: { id, by: signedIn.id, ...body, entries } });
  expect([reply.status(), await reply.text()]).toEqual([201, expect.any(String)]);
  return { id, number: ((await reply.json()) as { number: number }).number };
}

/** Leaves out of the proof of repair what can be left out, for tests that are about something else. */
export async function leaveProofOut(page: Page): Promise<void> {
  await page.getByTestId('leave-rest').click();
  await page.getByTestId('leave-it').last().click();
  await expect(page.getByTestId('leave-rest')).toHaveCount(0);
}

/** A job on the bench, stored by the API; returns its number. Counter tests go by the screen: `takeInByHand`. */
export async function takeIn(page: Page, intake: Omit<Intake, 'blink'>): Promise<string> {
  const { pack } = book;
  const layoutId = pack.layouts.find(({ name }) => name.en === intake.layout)?.id;
  const family = pack.families.find(
    ({ maker, models }) => intake.family === `${maker} ${models[0] ?? ''}` || intake.family?.startsWith(`${maker} `),
  );
  const layout =
    layoutId ??
    (family ? { probabilities: Object.fromEntries(family.layouts.map((one) => [one, 1 / family.layouts.length])) } : { probabilities: {} });
  const symptoms = intake.symptoms.map((wanted) => pack.symptoms.find(({ name }) => wanted.test(name.en))?.id);
  const { id, number } = await seedJob(
    page,
    {
      customer: intake.customer === undefined ? null : { name: intake.customer, contact: '' },
      plate: { maker: intake.maker ?? 'unknown', model: intake.model ?? '', serial: '' },
    },
    [
      { kind: 'job.opened', v: 3, set: { layout, ...(family ? { family: family.id } : {}) } },
      { kind: 'symptom.reported', v: 2, symptoms, ...(intake.words === undefined ? {} : { words: intake.words }) },
    ],
  );
  await page.goto(`/jobs/${id}`);
  await expect(page.getByTestId('next')).toBeVisible();
  return String(number);
}

/** Takes a set in at the Counter and opens it on the bench; returns the job's number. */
export async function takeInByHand(page: Page, intake: Intake): Promise<string> {
  await page.goto('/jobs/new');
  await fillIntake(page, intake);
  await page.getByTestId('save').click();
  const saved = await page.getByTestId('saved').textContent();
  const number = /Job (\d+) checked in/.exec(saved ?? '')?.[1];
  expect(number).toBeDefined();
  await page.getByTestId('to-bench').click();
  await expect(page.getByTestId('next')).toBeVisible();
  return number ?? '';
}

/** Goes the way to the step on the screen, move by move, by keys: what is asked is done, and a charge reads 4 V. */
export async function walk(page: Page): Promise<string[]> {
  const moves: string[] = [];
  const panel = page.getByTestId('walk');
  const changes = page.locator('[data-test="ledger"] [data-kind="set.changed"]');
  while ((await panel.count()) > 0) {
    const move = (await panel.getAttribute('data-move')) ?? '';
    const before = await changes.count();
    if (move === 'verify') {
      for (const field of await panel.getByRole('textbox').all()) await field.fill('4');
      await page.keyboard.press('Enter');
    } else await page.keyboard.press('Space');
    await expect(changes).toHaveCount(before + 1);
    moves.push(move);
    expect(moves.length).toBeLessThan(12);
  }
  return moves;
}

/** Takes this step if it isn't the suggested one already, reads its cautions if they are new, and answers it by its key. */
export async function answer(page: Page, step: string, outcome: string, of?: string): Promise<void> {
  const panel = page.getByTestId('next');
  const wanted = of === undefined ? `[data-step="${step}"]` : `[data-step="${step}"][data-of="${of}"]`;
  const there = page.locator(`[data-test="next"]${wanted}`);
  // The steps come settled from the worker.
  await expect(page.getByTestId('settling')).toHaveCount(0);
  if ((await there.count()) === 0) {
    const listed = page.getByTestId('others').locator(wanted).first();
    const closed = page.locator('details[data-test="left-out"]:not([open]) > summary');
    if ((await listed.count()) === 0 && (await closed.count()) > 0) await closed.click();
    await listed.or(page.getByTestId('left-out').locator(wanted).first()).click();
  }
  await expect(there).toBeVisible();
  const unread = page.getByTestId('read-cautions');
  if ((await unread.count()) > 0) {
    await expect(panel.locator(`[data-outcome="${outcome}"]:enabled`)).toHaveCount(0);
    await page.keyboard.press('c');
    await expect(unread).toHaveCount(0);
  }
  await walk(page);
  const before = await page.locator('[data-test="ledger"] [data-kind="test.answered"]').count();
  const key = await panel.locator(`[data-outcome="${outcome}"] kbd`).textContent();
  await page.keyboard.press((key ?? '').trim().toLowerCase());
  await expect(page.locator('[data-test="ledger"] [data-kind="test.answered"]')).toHaveCount(before + 1);
}

export const verdictOf = (page: Page, assembly: string) => page.locator(`[data-test="suspects"] [data-assembly="${assembly}"]`);
