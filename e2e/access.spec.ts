/** What axe (Deque's rules for WCAG 2 A and AA) finds on every screen, light and dark; and what works without a mouse. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { choose } from './support/steps.ts';
import { expect, test } from './support/app.ts';

test.use({ withDemo: true });

const jobOf = async (page: Page, state: string): Promise<string> => {
  const { jobs } = (await (await page.request.get('/api/jobs?limit=200')).json()) as { jobs: { jobId: string; state: string }[] };
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
  [
    'bench with its cautions acknowledged',
    async (page) => {
      await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}`);
      await expect(page.getByTestId('next')).toBeVisible();
      await page.getByTestId('others').locator('button').first().click();
      for (let press = 0; press < 2 && (await page.getByTestId('cautions-line').count()) === 0; press += 1) await page.keyboard.press('c');
      await expect(page.getByTestId('cautions-line')).toBeVisible();
    },
  ],
  [
    'rail sheet',
    async (page) => {
      await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}`);
      await expect(page.getByTestId('next')).toBeVisible();
      await page.keyboard.press('+');
      await page.getByTestId('sheet-standby').click();
      await expect(page.locator('[data-point="standby"]')).toBeVisible();
    },
  ],
  ['practice job offered', async (page) => (await page.goto('/'), await expect(page.getByTestId('practice-offer')).toBeVisible())],
  [
    'stock',
    async (page) => {
      await page.goto('/stock');
      await expect(page.getByTestId('image')).toContainText('SHA-256');
      await expect(page.getByTestId('hex')).toContainText('00000000');
    },
  ],
  ['own account', async (page) => (await page.goto('/account'), await expect(page.getByTestId('set-pin')).toBeVisible())],
  [
    'people and access',
    async (page) => (await page.goto('/accounts'), await expect(page.getByTestId('accounts')).toContainText('Wenna Harrow')),
  ],
  [
    'a customer about to be erased',
    async (page) => {
      await page.goto('/customers');
      await page.getByLabel('Name').fill('ma');
      await page.getByRole('button', { name: 'Search' }).click();
      await page.getByTestId('consider').first().click();
      await expect(page.getByTestId('erase')).toBeVisible();
    },
  ],
  ['licences', async (page) => (await page.goto('/settings/licences'), await expect(page.getByTestId('notice').first()).toBeVisible())],
  ['boards', async (page) => (await page.goto('/boards'), await expect(page.getByTestId('boards')).toContainText('QKP-2250'))],
  [
    'a board',
    async (page) => {
      await page.goto('/boards');
      await page.getByRole('link', { name: 'QKP-2250' }).click();
      await page.getByTestId('board-picture').getByRole('button').first().click();
      await expect(page.getByTestId('mark')).toBeVisible();
    },
  ],
  [
    'instruments',
    async (page) => {
      await page.goto('/instruments/string');
      await page.getByTestId('example').click();
      await expect(page.getByTestId('result')).toContainText('Low by');
    },
  ],
  [
    'a milliohm walk, drawn',
    async (page) => {
      await page.goto('/instruments/short');
      await page.getByTestId('example').click();
      await expect(page.getByTestId('chart').locator('svg')).toBeVisible();
    },
  ],
  [
    'contacts to cover',
    async (page) => {
      await page.goto('/instruments/mask');
      await page.getByTestId('example').click();
      await expect(page.getByTestId('contacts')).toBeVisible();
    },
  ],
  [
    'temperature pictures',
    async (page) => (await page.goto('/instruments/thermal'), await expect(page.getByTestId('warmth')).toBeVisible()),
  ],
  ['families', async (page) => (await page.goto('/families'), await expect(page.getByTestId('families')).toContainText('Quorvane QK3'))],
  [
    'a family',
    async (page) => {
      await page.goto('/families/quorvane.qk3');
      await expect(page.getByTestId('rail-row').first()).toBeVisible();
    },
  ],
  ['close', async (page) => void (await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}/close`))],
  ['call', async (page) => void (await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}/call`))],
  [
    'parts of a job',
    async (page) => {
      await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}/parts`);
      await page.getByLabel('Number on the board').fill('QKP-2250');
      await page.getByText('Other source').click();
      await expect(page.getByTestId('offers')).toBeVisible();
    },
  ],
  [
    'orders',
    async (page) => {
      await page.goto('/parts');
      await expect(page.getByRole('heading', { name: 'Parts' })).toBeVisible();
    },
  ],
  [
    'parts in stock',
    async (page) => {
      await page.goto('/parts/stock');
      await page.getByTestId('add-item').click();
      await expect(page.getByTestId('item-form')).toBeVisible();
    },
  ],
  [
    'repair or not',
    async (page) => {
      await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}/worth`);
      await expect(page.getByTestId('break-even')).toBeVisible();
    },
  ],
  [
    'hand over',
    async (page) => {
      await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}/handover`);
      await expect(page.getByTestId('papers')).toBeVisible();
    },
  ],
  [
    'flash',
    async (page) => {
      await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}/flash`);
      await page.getByLabel('Name on the board').fill('U402');
      await page.getByTestId('start-session').click();
      await expect(page.getByTestId('flash-step')).toBeVisible();
    },
  ],
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
  [
    'proof',
    async (page) => {
      await page.goto(`/jobs/${await jobOf(page, 'on-the-bench')}/proof`);
      await page.locator('[data-test="proof-list"] [data-item="starts"] button').click();
      await expect(page.getByTestId('clock')).toBeVisible();
    },
  ],
  ['test pictures', async (page) => void (await page.goto('/pictures'))],
  ['counted', async (page) => void (await page.goto('/experience'))],
  ['settings', async (page) => void (await page.goto('/settings'))],
];

const sizes = [
  ['the bench', 1280, 800],
  ['an upright tablet', 800, 1280],
  ['a phone', 390, 844],
  ['200 % zoom of 1280x800', 640, 400],
] as const;

// One look at each screen: in both colour schemes, then at every width.
for (const [name, go] of screens)
  test(`${name}: nothing serious in light or dark, and nothing hangs over the side`, async ({ page }) => {
    await go(page);
    await expect(page.locator('h1').first()).toBeVisible();
    await page.waitForLoadState('networkidle');
    const found = async (tags: AxeBuilder): Promise<string[]> => {
      const { violations, passes } = await tags.analyze();
      expect(passes.length).toBeGreaterThan(0);
      const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical');
      return serious.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => String(target)).join(' | ')}`);
    };
    expect(await found(new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']))).toEqual([]);
    // Colour is all that the scheme changes.
    await page.emulateMedia({ colorScheme: 'dark' });
    expect(await found(new AxeBuilder({ page }).withRules(['color-contrast', 'link-in-text-block']))).toEqual([]);
    await page.emulateMedia({ colorScheme: 'light' });
    for (const [size, width, height] of sizes) {
      await page.setViewportSize({ width, height });
      const over = (): Promise<number> =>
        page.evaluate(() => Math.max(0, document.documentElement.scrollWidth - document.documentElement.clientWidth));
      await expect.poll(over, { message: `on ${size}` }).toBe(0);
    }
  });
