/** `node scripts/pictures.mjs ADDRESS [NAME ...]`: takes the pictures of docs/screenshots from a running demo, 1280x800. */
import { chromium } from '@playwright/test';
import { inRoot } from './lib/paths.mjs';

const [, , address, ...only] = process.argv;
if (!address) throw new Error('usage: node scripts/pictures.mjs ADDRESS [NAME ...]');

const jobPath = async (page, number) => {
  const { jobs } = await (await page.request.get(`${address}/api/jobs`)).json();
  return `/jobs/${jobs.find((job) => job.number === number).jobId}`;
};

/** Name -> how to get there. */
const pictures = {
  shelves: async (page) => {
    await page.goto(`${address}/`);
    await page.getByRole('link', { name: 'Open job 1' }).waitFor();
  },
  counter: async (page) => {
    await page.goto(`${address}/jobs/new`);
    await page.getByLabel('Symptom').fill('black');
    await page.getByRole('option', { name: 'Sound, black screen' }).click();
    await page.keyboard.press('Escape');
    await page.getByLabel('In the customer’s own words').fill('Plays, but nothing to see since the storm.');
    await page.getByLabel('Maker').fill('Quorvane');
    await page.getByText('Storm', { exact: true }).click();
  },
  bench: async (page) => {
    await page.goto(address + (await jobPath(page, 2)));
    await page.getByText('Next step').waitFor();
  },
  close: async (page) => {
    await page.goto(`${address}${await jobPath(page, 2)}/close`);
    await page.getByText('Memory written').waitFor();
  },
};

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium' });
for (const [name, go] of Object.entries(pictures)) {
  if (only.length > 0 && !only.includes(name)) continue;
  const page = await browser.newPage({ bypassCSP: true, viewport: { width: 1280, height: 800 }, colorScheme: 'light' });
  await go(page);
  await page.waitForLoadState('networkidle');
  await page.addStyleTag({ content: '*, *::after { transition: none !important; }' });
  await page.screenshot({ path: inRoot(`docs/screenshots/${name}.png`) });
  await page.close();
}
await browser.close();
