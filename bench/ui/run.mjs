/**
 * `npm run bench:ui`: how quick the screens are, in real Chromium on the built app, the real server and the demo's jobs. A table, and
 * bench/results/ui.json. First paint is cold (a fresh browser, nothing kept); a key's way is from the key to the frame that shows the new
 * odds. The web app must be built.
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import os from 'node:os';
import { chromium } from '@playwright/test';
import { ensureChromium } from '../../scripts/lib/install.mjs';
import { demoServer } from '../../scripts/lib/demoServer.mjs';
import { inRoot } from '../../scripts/lib/paths.mjs';
import { runMain } from '../../scripts/lib/say.mjs';

const turns = 15;
const assets = inRoot('packages/web/dist/assets');
const quantile = (values, share) => [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))];

/** Entry JavaScript: what index.html loads before anything is chosen, gzip, kB of 1024 bytes. */
function entryKilobytes() {
  const html = readFileSync(inRoot('packages/web/dist/index.html'), 'utf8');
  const names = [...html.matchAll(/(?:src|href)="\/assets\/([^"]+\.js)"/g)].map(([, name]) => name);
  if (names.length === 0) throw new Error('index.html names no script: is the web app built?');
  return names.reduce((sum, name) => sum + gzipSync(readFileSync(`${assets}/${name}`)).length, 0) / 1024;
}

/** Milliseconds to first contentful paint in a browser that has nothing yet. */
async function firstPaint(browser, url) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
  const page = await context.newPage();
  await page.goto(url);
  await page.locator('h1').first().waitFor();
  const [paint] = await page.evaluate("performance.getEntriesByName('first-contentful-paint').map((one) => one.startTime)");
  await context.close();
  return paint;
}

/** Milliseconds from a key to the first frame in which `read` gives something else. */
async function keyToChange(page, key, read) {
  await page.evaluate(
    `(() => {
      const now = () => (${read})();
      const before = now();
      window.took = new Promise((done) => {
        addEventListener('keydown', (event) => {
          const began = event.timeStamp;
          const look = () => (now() === before ? requestAnimationFrame(look) : done(performance.now() - began));
          requestAnimationFrame(look);
        }, { once: true, capture: true });
      });
    })()`,
  );
  await page.keyboard.press(key);
  return page.evaluate('window.took');
}

const counterOdds = `() => document.querySelector('[data-test="at-once"] [data-test="suspects"]')?.textContent ?? ''`;

async function counterKeys(browser, address) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const times = [];
  for (let turn = 0; turn < turns; turn += 1) {
    await page.goto(`${address}/jobs/new`);
    const anew = page.getByRole('button', { name: 'Start anew' });
    await page.getByLabel('Symptom').waitFor();
    if ((await anew.count()) > 0) await anew.click();
    await page.getByLabel('Symptom').fill('sound but no');
    await page.getByRole('option', { name: 'Sound, black screen' }).click();
    await page.keyboard.press('Escape');
    await page.locator('[data-test="bill"]').waitFor();
    await page.keyboard.press('Alt+a');
    times.push(await keyToChange(page, '1', counterOdds));
  }
  await page.close();
  return times;
}

async function benchKeys(browser, address) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const { jobs } = await (await page.request.get(`${address}/api/jobs`)).json();
  const open = jobs.filter((job) => job.state === 'on-the-bench' && job.next?.kind === 'test');
  const times = [];
  for (const { jobId } of open.slice(0, turns)) {
    await page.goto(`${address}/jobs/${jobId}`);
    await page.locator('[data-test="next"]').waitFor();
    if ((await page.locator('[data-test="read-cautions"]').count()) > 0) {
      await page.keyboard.press('c');
      await page.locator('[data-test="read-cautions"]').waitFor({ state: 'detached' });
    }
    await page.waitForLoadState('networkidle');
    times.push(await keyToChange(page, '1', `() => document.querySelector('[data-test="suspects"]')?.textContent ?? ''`));
  }
  await page.close();
  return times;
}

async function main() {
  const server = await demoServer();
  const browser = await chromium.launch({ executablePath: await ensureChromium() });
  const rows = [];
  const add = (measure, values, unit, target) =>
    rows.push({
      measure,
      n: values.length,
      median: Number(quantile(values, 0.5).toFixed(1)),
      p95: Number(quantile(values, 0.95).toFixed(1)),
      unit,
      target,
    });
  try {
    for (const [name, path] of [
      ['shelves', '/'],
      ['counter', '/jobs/new'],
      ['settings', '/settings'],
    ]) {
      const times = [];
      for (let turn = 0; turn < turns; turn += 1) times.push(await firstPaint(browser, `${server.address}${path}`));
      add(`first paint, cold: ${name}`, times, 'ms', 1500);
    }
    add('key to new odds: counter', await counterKeys(browser, server.address), 'ms', 100);
    add('key to new odds: bench', await benchKeys(browser, server.address), 'ms', 100);
    add('entry JavaScript, gzip', [entryKilobytes()], 'kB', 250);
    add(
      'all JavaScript, gzip',
      [
        readdirSync(assets)
          .filter((name) => name.endsWith('.js'))
          .reduce((sum, name) => sum + gzipSync(readFileSync(`${assets}/${name}`)).length, 0) / 1024,
      ],
      'kB',
      null,
    );
  } finally {
    await browser.close();
    await server.stop();
  }
  console.table(rows);
  const machine = { cpus: os.cpus().length, model: os.cpus()[0]?.model ?? '', node: process.version };
  writeFileSync(inRoot('bench/results/ui.json'), `${JSON.stringify({ at: new Date().toISOString(), machine, rows }, null, 2)}\n`);
}
runMain(main);
