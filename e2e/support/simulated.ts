/** A simulated set on the bench: what it shows is answered by keys, until an assembly is proven. */
import { SimulatedSet } from '@veglia/simulators';
import { expect, type Page } from '@playwright/test';
import type { RunningApp } from './app.ts';
import { book, seedJob, walk } from './steps.ts';

export interface Broken {
  readonly layout: string;
  readonly fault: string;
  /** What has to be proven: where that fault sits in this layout. */
  readonly assembly: string;
}

/** One fault a layout; between them they go through light walks, heavy walks, bridges, swaps and live readings. */
export const layouts: readonly Broken[] = [
  { layout: 'led-tcon', fault: 'driver.trips', assembly: 'power' },
  { layout: 'led-tcon-on-main', fault: 'main.light-command', assembly: 'main' },
  { layout: 'led-tcon-on-panel', fault: 'tcon.fuse-open', assembly: 'panel' },
  { layout: 'separate-driver', fault: 'panel.rail-short-cap', assembly: 'panel' },
  { layout: 'one-board', fault: 'power.fuse-open', assembly: 'combo' },
  { layout: 'oled', fault: 'power.rails-dead', assembly: 'power' },
  { layout: 'plasma', fault: 'power.rails-dead', assembly: 'power' },
];

/** A set that wants more answers than this is not being narrowed down. */
const mostAnswers = 14;

export interface Worked {
  readonly proven: string | null;
  readonly answers: number;
  /** Presses of a mouse or finger; keys that press a button don't count. */
  readonly clicks: number;
}

/** `reload`: the page is loaded anew before every answer, and has to show what it showed. */
export async function workToProof(page: Page, app: RunningApp, { layout, fault }: Broken, { reload = false } = {}): Promise<Worked> {
  const family = book.pack.families.find((one) => one.layouts.includes(layout));
  const drawn = book.layouts.get(layout);
  if (!drawn || !family) throw new RangeError(layout);
  const set = new SimulatedSet({ layout: drawn, family, faults: [fault], seed: 5 });
  const complaint = set.complaint();
  if (complaint === undefined) throw new RangeError(fault);
  const { id } = await seedJob(page, { customer: null, plate: { maker: family.maker, model: family.models[0] ?? '', serial: '' } }, [
    { kind: 'job.opened', v: 3, set: { layout, family: family.id } },
    { kind: 'symptom.reported', v: 2, symptoms: [complaint] },
  ]);
  await page.goto(`/jobs/${id}`);
  const panel = page.getByTestId('next');
  await expect(panel).toBeVisible();
  const countClicks = (): Promise<void> =>
    page.evaluate(() => {
      const scope = window as unknown as { clicks: number };
      scope.clicks = 0;
      addEventListener('click', ({ detail, isTrusted }) => (scope.clicks += isTrusted && detail > 0 ? 1 : 0), { capture: true });
    });
  const clicked = (): Promise<number> => page.evaluate(() => (window as unknown as { clicks: number }).clicks);
  let clicks = 0;
  // Most information: the order that goes for proof before it goes for a part.
  async function byProbability(): Promise<void> {
    await countClicks();
    for (let press = 0; press < 3 && (await page.getByTestId('order-information').getAttribute('aria-pressed')) !== 'true'; press += 1)
      await page.keyboard.press('o');
  }
  await byProbability();
  const proven = page.locator('[data-test="suspects"] [data-verdict="proven"]');
  const answered = page.locator('[data-test="ledger"] [data-kind="test.answered"]');
  let answers = 0;
  for (; (await proven.count()) === 0 && answers < mostAnswers; answers += 1) {
    const step = (await panel.getAttribute('data-step')) ?? '';
    const of = (await panel.getAttribute('data-of')) ?? undefined;
    const test = book.tests.get(step);
    if (!test) throw new Error(`the bench asks for ${step}, which is no test`);
    if ((await page.getByTestId('read-cautions').count()) > 0) {
      await page.keyboard.press('c');
      await expect(page.getByTestId('read-cautions')).toHaveCount(0);
    }
    await walk(page);
    // What the step was begun for is still on the screen.
    await expect(panel).toHaveAttribute('data-step', step);
    if (reload) {
      const shown = async (): Promise<unknown> => [
        await page.getByTestId('suspects').innerText(),
        await page.getByTestId('set-state').innerText(),
        await answered.count(),
      ];
      const before = await shown();
      await expect(page.locator('[data-test="unsent"]')).toHaveCount(0);
      clicks += await clicked();
      await page.reload();
      await expect(panel).toBeVisible();
      await byProbability();
      await expect(panel).toHaveAttribute('data-step', step);
      await expect(page.getByTestId('walk')).toHaveCount(0);
      expect(await shown()).toEqual(before);
    }
    const { outcome } = set.perform(test, of, 0);
    const key = await panel.locator(`[data-outcome="${outcome}"] kbd`).textContent();
    await page.keyboard.press((key ?? '').trim().toLowerCase());
    await expect(answered).toHaveCount(answers + 1);
  }
  // Nothing that came in on the way is void.
  await expect(page.locator('[data-test="ledger"]')).not.toContainText('Invalid:');
  return {
    proven: (await proven.count()) > 0 ? await proven.first().getAttribute('data-assembly') : null,
    answers,
    clicks: clicks + (await clicked()),
  };
}
