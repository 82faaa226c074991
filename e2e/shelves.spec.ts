/** A day with many sets: the demo's shelves, the plan across benches, finding a set, and others' work as it happens. */
import { expect, test } from './support/app.ts';
import { walk } from './support/steps.ts';

test.use({ withDemo: true });

const card = (page: import('@playwright/test').Page, number: number | string) => page.locator(`.shelf [data-job="${number}"]`);

test('sets stand on their shelves to scale, with what each waits for, promises and timers', async ({ page }) => {
  await page.goto('/');
  await expect(page.locator('li.place[data-place="A 1"]')).toBeVisible();
  const running = page.getByTestId('card-timer').first();
  await expect(running).toContainText(/Reset wait \d+:\d\d/);
  await expect(page.getByText(/^overdue since /)).not.toHaveCount(0);
  await expect(page.getByText('waiting for the customer’s answer')).not.toHaveCount(0);
  // A 65-inch set is drawn larger than a 32-inch one, by just that.
  const widths = await page.locator('svg.silhouette').evaluateAll((drawn) =>
    drawn.map((one) => ({
      inch: Number(one.textContent?.replace(/\D/g, '')),
      width: Number(one.querySelector('rect')?.getAttribute('width')),
    })),
  );
  expect(new Set(widths.map(({ inch }) => inch)).size).toBeGreaterThan(2);
  for (const { inch, width } of widths) expect(width / inch).toBeCloseTo((widths[0]?.width ?? 0) / (widths[0]?.inch ?? 1), 6);
});

test('what to do next across benches: a line for each technician, and a step leads to its bench', async ({ page }) => {
  await page.goto('/');
  const lanes = page.locator('[data-test="across"] .lane');
  await expect(lanes).toHaveCount(2);
  await expect(lanes.first().locator('li').first()).toContainText('now');
  await page.getByTestId('technicians').selectOption('1');
  await expect(lanes).toHaveCount(1);
  await page.reload();
  await expect(lanes).toHaveCount(1);
  const first = lanes.first().locator('a').first();
  const number = await first.getAttribute('data-job');
  await first.click();
  await expect(page.getByTestId('job-number')).toHaveText(`Job ${number}`);
});

test('found by number, name, serial and family; a scanned label opens its job, one of elsewhere says so', async ({ page }) => {
  await page.goto('/');
  const { jobs } = (await (await page.request.get('/api/jobs?limit=200')).json()) as {
    jobs: { jobId: string; number: number; serial: string; state: string; customerName: string | null }[];
  };
  const one = jobs.find((job) => job.state !== 'closed' && job.serial !== '' && job.customerName !== null);
  if (!one) throw new Error('the demo has no open job with a customer');
  const find = page.getByRole('searchbox');
  for (const text of [one.serial, String(one.number)]) {
    await find.fill(text);
    await expect(page.locator('.shelf [data-job]')).toHaveCount(1);
    await expect(card(page, one.number)).toBeVisible();
  }
  await find.fill(one.customerName ?? '');
  await expect(card(page, one.number)).toBeVisible();
  await find.fill('no such set anywhere');
  await expect(page.getByText('No set matches “no such set anywhere”.')).toBeVisible();
  await find.fill('');
  await expect(page.getByTestId('across')).toBeVisible();
  // A scanner types the label's address and presses Enter.
  await find.fill(`http://elsewhere.example/jobs/0195f3c2-1111-7000-8000-00000000000a`);
  await page.keyboard.press('Enter');
  await expect(page.getByText('No job matches this label.')).toBeVisible();
  await find.fill(`${new URL(page.url()).origin}/jobs/${one.jobId}`);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('job-number')).toHaveText(`Job ${one.number}`);
});

test('an answer on a bench changes the shelves of another without reload', async ({ page, browser, baseURL }) => {
  await page.goto('/');
  const looking = await (await browser.newContext({ baseURL: baseURL ?? '' })).newPage();
  await looking.goto('/');
  const { jobs } = (await (await page.request.get('/api/jobs?limit=200')).json()) as {
    jobs: { jobId: string; number: number; state: string; next: { id: string; kind: string } | null }[];
  };
  const job = jobs.find((one) => one.state === 'taken-in' && one.next?.kind === 'test');
  if (!job) throw new Error('the demo has no set that was only taken in');
  await expect(card(looking, job.number)).toBeVisible();
  const before = await card(looking, job.number).locator('.next').textContent();
  await page.goto(`/jobs/${job.jobId}`);
  await expect(page.getByTestId('next')).toBeVisible();
  await walk(page);
  await page.keyboard.press('1');
  await expect(page.locator('[data-test="ledger"] [data-kind="test.answered"]')).toHaveCount(1);
  await expect(card(looking, job.number).locator('.next')).not.toHaveText(before ?? '');
  // On the way to the Shelves it looks for itself.
  await page.getByRole('link', { name: 'Shelves' }).first().click();
  await expect(card(page, job.number).locator('.next')).toHaveText((await card(looking, job.number).locator('.next').textContent()) ?? '');
  await looking.context().close();
});

test('a card that can’t be read is named and can be opened; the others stand where they stood', async ({ page }) => {
  let spoilt = 0;
  await page.route('**/api/jobs?state=open*', async (route) => {
    const reply = await route.fetch();
    const list = (await reply.json()) as { jobs: { number: number; state: string }[] };
    const [first] = list.jobs;
    if (first) [spoilt, first.state] = [first.number, 'somewhere else'];
    await route.fulfill({ response: reply, json: list });
  });
  await page.goto('/');
  const told = page.getByTestId('unreadable');
  await expect(told).toContainText('1 job summary can’t be read');
  await expect(page.locator('.shelf [data-job]')).not.toHaveCount(0);
  await told.getByRole('link', { name: String(spoilt) }).click();
  await expect(page.getByTestId('job-number')).toHaveText(`Job ${spoilt}`);
});
