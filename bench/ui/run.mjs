/**
 * `npm run bench:ui`: how quick the screens are, in real Chromium on the built app, the real server and the demo's jobs. A table, and
 * bench/results/ui.json. First paint is cold (a fresh browser, nothing kept); a key's way is from the key to the frame that shows the new
 * probabilities. The web app must be built.
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import os from 'node:os';
import { chromium } from '@playwright/test';
import { ensureChromium } from '../../scripts/lib/install.mjs';
import { demoServer } from '../../scripts/lib/demoServer.mjs';
import { inRoot } from '../../scripts/lib/paths.mjs';
import { runMain } from '../../scripts/lib/say.mjs';
import { signIn } from '../../scripts/lib/signIn.mjs';
import { storeLongJob } from './longJob.ts';
import { peopleAtOnce } from './people.mjs';

/** Of whoever is signed in; set once the server is there. */
const storageState = { cookies: [], origins: [] };
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
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block', storageState });
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
          const look = () => {
            const took = performance.now() - began;
            if (now() !== before) done(took);
            else if (took > 10_000) done(null);
            else requestAnimationFrame(look);
          };
          requestAnimationFrame(look);
        }, { once: true, capture: true });
      });
    })()`,
  );
  await page.keyboard.press(key);
  const took = await page.evaluate('window.took');
  if (took !== null) return took;
  const shot = inRoot('test-results/bench-ui-stuck.png');
  await page.screenshot({ path: shot });
  throw new Error(`Key ${key} changed nothing on ${page.url()} within 10 s; picture: ${shot}`);
}

const counterProbability = `() => document.querySelector('[data-test="at-once"] [data-test="suspects"]')?.textContent ?? ''`;

async function counterKeys(browser, address) {
  const times = [];
  for (let turn = 0; turn < turns; turn += 1) {
    // A browser of its own each turn: no draft of the turn before is taken up.
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block', storageState });
    const page = await context.newPage();
    await page.goto(`${address}/jobs/new`);
    await page.waitForLoadState('networkidle');
    await page.getByLabel('Symptom').fill('sound but no');
    await page.getByRole('option', { name: 'Sound, black screen' }).click();
    await page.keyboard.press('Escape');
    await page.locator('[data-test="bill"]').waitFor();
    await page.keyboard.press('Alt+a');
    times.push(await keyToChange(page, '1', counterProbability));
    await context.close();
  }
  return times;
}

/** To where a step can be answered: cautions acknowledged, the set made safe. */
async function ready(page) {
  await page.locator('[data-test="next"]').waitFor();
  if ((await page.locator('[data-test="read-cautions"]').count()) > 0) {
    await page.keyboard.press('c');
    await page.locator('[data-test="read-cautions"]').waitFor({ state: 'detached' });
  }
  const changes = page.locator('[data-test="ledger"] [data-kind="set.changed"]');
  for (let moves = 0; moves < 10 && (await page.locator('[data-test="walk"]').count()) > 0; moves += 1) {
    const before = await changes.count();
    if ((await page.locator('[data-test="walk"]').getAttribute('data-move')) === 'verify') {
      for (const field of await page.locator('[data-test="charge"] input').all()) await field.fill('4');
      await page.keyboard.press('Enter');
    } else await page.keyboard.press('Space');
    while ((await changes.count()) === before) await page.waitForTimeout(10);
  }
  await page.waitForLoadState('networkidle');
}
const planAndNext = `() => (document.querySelector('svg.plan')?.textContent ?? '') + (document.querySelector('[data-test="next"] h1')?.textContent ?? '') + document.querySelectorAll('[data-test="ledger"] li').length`;

/** Chromium names tasks from 50 ms up; what it names is kept on the page. */
const keepLongTasks = () => {
  globalThis.longTasks = [];
  new PerformanceObserver((list) => globalThis.longTasks.push(...list.getEntries())).observe({ type: 'longtask' });
};

/** Waits till the next step is settled; the longest task since then on the page's own thread, ms, 0 with none of 50 or over. */
async function longestWhileRefining(page) {
  const since = await page.evaluate('performance.now()');
  await page.locator('[data-test="settling"]').waitFor({ state: 'hidden' });
  await page.waitForLoadState('networkidle');
  return page.evaluate(
    (from) => Math.max(0, ...globalThis.longTasks.filter((one) => one.startTime >= from).map((one) => one.duration)),
    since,
  );
}

/** Answers on one job before the next is taken: so that the ledger stays near two hundred, and there is something left to ask. */
const answersEach = 3;

/** On long ledgers: each turn answers whatever is asked (a repair: it changed nothing), and what it moved has to be on the screen. */
async function longKeys(browser, address) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, storageState });
  await page.addInitScript(keepLongTasks);
  const times = [];
  const tasks = [];
  for (let turn = 0; turn < turns; turn += 1) {
    if (turn % answersEach === 0) await page.goto(`${address}/jobs/${await storeLongJob(address)}`);
    await ready(page);
    if ((await page.locator('[data-test="next"] [data-outcome]').count()) === 0) {
      await page.keyboard.press('s');
      await ready(page);
    }
    const outcomes = await page.locator('[data-test="next"] [data-outcome]').evaluateAll((all) => all.map((one) => one.dataset.outcome));
    times.push(await keyToChange(page, String(Math.max(0, outcomes.indexOf('unchanged')) + 1), planAndNext));
    tasks.push(await longestWhileRefining(page));
  }
  await page.close();
  return { times, tasks };
}

async function benchKeys(browser, address) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, storageState });
  const { jobs } = await (await page.request.get(`${address}/api/jobs`)).json();
  const open = jobs.filter((job) => job.state === 'on-the-bench' && job.next?.kind === 'test');
  const times = [];
  for (const { jobId } of open.slice(0, turns)) {
    await page.goto(`${address}/jobs/${jobId}`);
    await ready(page);
    if ((await page.locator('[data-test="next"] [data-outcome]').count()) === 0) continue;
    // An answer may leave every shown figure as it was: the ledger's new line and the next step are looked for too.
    times.push(await keyToChange(page, '1', planAndNext));
  }
  await page.close();
  return times;
}

async function main() {
  const server = await demoServer();
  storageState.cookies = (await signIn(server.address)).cookies;
  const browser = await chromium.launch({ executablePath: (await ensureChromium()).small });
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
    add('key to new probabilities: counter', await counterKeys(browser, server.address), 'ms', 100);
    add('key to new probabilities: bench', await benchKeys(browser, server.address), 'ms', 100);
    const long = await storeLongJob(server.address);
    const longPaints = [];
    for (let turn = 0; turn < turns; turn += 1) longPaints.push(await firstPaint(browser, `${server.address}/jobs/${long}`));
    add('first paint, cold: bench, 200 entries', longPaints, 'ms', 1500);
    const keys = await longKeys(browser, server.address);
    add('key to new probabilities and plan: bench, 200 entries', keys.times, 'ms', 100);
    add('longest task on the page while refining (0: none of 50 or over)', keys.tasks, 'ms', 50);
    const { times, lost } = await peopleAtOnce(server.address);
    add('an entry reaching another, ten people on ten jobs', times, 'ms', 300);
    add('entries lost among ten people', [lost], '', 0);
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
