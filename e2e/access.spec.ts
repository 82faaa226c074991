/** What axe (Deque's rules for WCAG 2 A and AA) finds on every screen, light and dark; and what works without a mouse. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { choose } from './support/steps.ts';
import { expect, test } from './support/app.ts';

test.use({ withDemo: true });
// Eight screens in one test, each looked at by some ninety rules.
test.describe.configure({ timeout: 300_000 });

const jobOf = async (page: Page, state: string): Promise<string> => {
  const { jobs } = (await (await page.request.get('/api/jobs')).json()) as { jobs: { jobId: string; state: string }[] };
  return jobs.find((job) => job.state === state)?.jobId ?? '';
};
const screens: [string, (page: Page) => Promise<void>][] = [
  ['shelves', async (page) => void (await page.goto('/'))],
  [
    'counter',
    async (page) => {
      await page.goto('/jobs/new');
      await page.getByLabel('Symptom').fill('sound but no');
      await page.getByRole('option', { name: 'Sound, black screen' }).click();
      await page.keyboard.press('Escape');
      await expect(page.getByTestId('bill')).toBeVisible();
    },
  ],
  ['bench', async (page) => void (await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}`))],
  ['close', async (page) => void (await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}/close`))],
  ['call', async (page) => void (await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}/call`))],
  [
    'lights',
    async (page) => {
      await page.goto('/blink');
      await choose(page, 'Family', /^Quorvane QK3/);
      await page.getByRole('tab', { name: 'Simulated' }).click();
      await page.locator('[data-simulate="six"]').click();
      await expect(page.getByTestId('code')).toBeVisible();
      await page.getByTestId('table-edit').click();
    },
  ],
  ['counted', async (page) => void (await page.goto('/experience'))],
  ['settings', async (page) => void (await page.goto('/settings'))],
];

for (const scheme of ['light', 'dark'] as const) {
  test(`nothing serious on any screen, ${scheme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme });
    for (const [name, go] of screens) {
      await go(page);
      await expect(page.locator('h1').first()).toBeVisible();
      await page.waitForLoadState('networkidle');
      const { violations, passes } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']).analyze();
      expect(passes.length).toBeGreaterThan(8);
      const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical');
      const told = serious.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => String(target)).join(' | ')}`);
      expect([name, told]).toEqual([name, []]);
    }
  });
}

for (const [name, width, height] of [
  ['an upright tablet', 800, 1280],
  ['a phone', 390, 844],
  ['200 % zoom of 1280x800', 640, 400],
] as const) {
  test(`nothing hangs over the side on ${name}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    for (const [screen, go] of screens) {
      await go(page);
      await expect(page.locator('h1').first()).toBeVisible();
      await page.waitForLoadState('networkidle');
      const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
      expect([screen, Math.max(0, over)]).toEqual([screen, 0]);
    }
  });
}
