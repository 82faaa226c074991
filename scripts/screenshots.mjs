/**
 * `npm run screenshots [NAME ...]`: makes docs/screenshots anew from the demo data, 1280x800, on a server and a database of its own.
 * The web app must be built (`npm run demo` or `npm run test:e2e` do).
 */
import { chromium } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { demoServer } from './lib/demoServer.mjs';
import { ensureChromium } from './lib/install.mjs';
import { inRoot } from './lib/paths.mjs';
import { signIn } from './lib/signIn.mjs';
import { runMain, say } from './lib/say.mjs';

const jobPath = async (page, address, number) => {
  const { jobs } = await (await page.request.get(`${address}/api/jobs?limit=200`)).json();
  return `${address}/jobs/${jobs.find((job) => job.number === number).jobId}`;
};
/** Takes the first job whose card fits. */
const jobWhere = async (page, address, fits) => {
  const { jobs } = await (await page.request.get(`${address}/api/jobs?limit=200`)).json();
  return `${address}/jobs/${jobs.find(fits).jobId}`;
};

/** A memory of a set on the bench: supply measured too high for the chip, then right; clip on, identified, read once. */
async function flash(page, address) {
  const path = await jobWhere(page, address, (card) => card.state === 'on-the-bench' && card.symptoms.includes('restart-loop'));
  await page.goto(`${path}/flash`);
  await page.getByLabel('Name on the board').fill('U402');
  await page.getByLabel('Marking on the chip').fill('GX25Q32');
  await page.getByLabel('Size').fill('64 KiB');
  await page.locator('[data-test="start-session"]').click();
  const record = async () => page.locator('[data-test="record-step"]').click();
  const safe = async () => {
    await page.waitForTimeout(300);
    if ((await page.locator('[data-test="read-cautions"]').count()) > 0) await page.locator('[data-test="read-cautions"]').click();
    for (let n = 0; n < 4 && (await page.locator('[data-test="make-safe"]').count()) > 0; n += 1) {
      await page.locator('[data-test="make-safe"]').click();
      await page.waitForTimeout(300);
    }
  };
  await safe();
  await page.locator('[data-test="io-volts"]').fill('3.28');
  await page.locator('[data-test="programmer-volts"]').fill('3.3');
  await record();
  await safe();
  await record();
  await page.locator('[data-result="found"]').click();
  const bytes = Buffer.from(Array.from({ length: 65_536 }, (_, at) => (at * 7 + (at >> 8)) & 255));
  await page.locator('[data-test="dump-file"]').setInputFiles({ name: 'u402.bin', mimeType: 'application/octet-stream', buffer: bytes });
  await page.locator('[data-test="reads"]').waitFor();
  await page.evaluate('scrollTo(0, 0)');
}

/** A supply with new capacitors: looked at so far, starts being counted; a job of its own. */
async function proof(page, address) {
  const { signedIn } = await (await page.request.get(`${address}/api/session`)).json();
  const start = (seconds, cold) => ({ kind: 'start.timed', v: 1, started: true, seconds, cold });
  const seen = (item) => ({ kind: 'proof.checked', v: 1, item, result: 'passed' });
  const bodies = [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: 'quorvane.qk3', sizeInch: 50 } },
    { kind: 'symptom.reported', v: 2, symptoms: ['slow-start'] },
    ...[45, 38, 52].map((seconds) => start(seconds, true)),
    { kind: 'set.changed', v: 3, stage: 'back-off', plugged: false, railsDown: true },
    { kind: 'repair.done', v: 2, repair: 'recap.power', result: 'cured' },
    { kind: 'set.changed', v: 3, plugged: true },
    ...['complaint', 'plain-colours', 'moving', 'sound', 'off-on', 'standby-dark'].map(seen),
    ...[4.2, 4.4, 4.1, 4.6].map((seconds, index) => start(seconds, index < 2)),
  ];
  const id = uuidv7();
  await page.request.post(`${address}/api/jobs`, {
    headers: { 'x-veglia': '1' },
    data: {
      id,
      by: signedIn.id,
      customer: null,
      plate: { maker: 'Quorvane', model: 'QK3-50', serial: 'QK3-00017' },
      entries: bodies.map((body) => ({ id: uuidv7(), at: new Date().toISOString(), basedOn: 0, body })),
    },
  });
  await page.goto(`${address}/jobs/${id}/proof`);
  await page.locator('[data-test="proof-list"]').waitFor();
}

async function intake(page, address) {
  await page.goto(`${address}/jobs/new`);
  await page.getByLabel('Symptom').fill('sound but no');
  await page.getByRole('option', { name: 'Sound, black screen' }).click();
  await page.keyboard.press('Escape');
  await page.getByLabel('In the customer’s own words').fill('Plays, but nothing to see since the storm.');
  await page.getByLabel('Maker').fill('Quorvane');
  await page.getByText('Storm or surge', { exact: true }).click();
  await page.locator('[data-test="bill"]').waitFor();
  await page.evaluate('scrollTo(0, 0)');
}

/** A simulated light of a family, read. */
async function light(page, address) {
  await page.goto(`${address}/blink`);
  await page.getByLabel('Family', { exact: true }).focus();
  await page.keyboard.type('QK3');
  await page.getByRole('option', { name: 'Quorvane QK3' }).click();
  await page.getByRole('tab', { name: 'Simulated' }).click();
  await page.locator('[data-simulate="three-one"]').click();
  await page.locator('[data-test="code"]').waitFor();
  await page.locator('[data-test="blink-table"]').waitFor();
}
/** A set that restarts, both panel ribbons out: walked there by keys, once for all pictures. */
async function cutWalked(page, address) {
  await page.goto(await jobWhere(page, address, (card) => card.state === 'on-the-bench' && card.symptoms.includes('restart-loop')));
  await page.locator('[data-test="next"]').waitFor();
  if ((await page.locator('[data-test="read-cautions"]').count()) > 0) {
    await page.keyboard.press('c');
    await page.locator('[data-test="read-cautions"]').waitFor({ state: 'detached' });
  }
  const walk = page.locator('[data-test="walk"]');
  const changes = page.locator('[data-test="ledger"] [data-kind="set.changed"]');
  for (let moves = 0; moves < 6 && (await walk.count()) > 0; moves += 1) {
    const before = await changes.count();
    await page.keyboard.press('Space');
    await changes.nth(before).waitFor();
  }
  await page.locator('[data-test="effect"]').first().waitFor();
  await page.locator('[data-test="unsent"]').first().waitFor({ state: 'detached' });
  await page.evaluate('scrollTo(0, 0)');
}

/** Name -> how to get there, and where it isn't the usual light window of 1280x800. */
const pictures = {
  instruments: {
    go: async (page, address) => {
      await page.goto(`${address}/instruments/short`);
      await page.locator('[data-test="example"]').click();
      await page.locator('[data-test="chart"] svg').waitFor();
    },
  },
  flash: { go: flash },
  families: {
    go: async (page, address) => {
      await page.goto(`${address}/families/quorvane.qk3`);
      await page.locator('[data-test="rail-row"]').first().waitFor();
    },
  },
  boards: {
    go: async (page, address) => {
      await page.goto(`${address}/boards`);
      await page.getByText('QKP-2250').click();
      await page.locator('[data-test="board-picture"] img').waitFor();
      await page.locator('[data-test="board-picture"] button').first().click();
      await page.locator('[data-test="mark"]').waitFor();
    },
  },
  shelves: {
    go: async (page, address) => {
      await page.goto(`${address}/`);
      await page.locator('[data-test="across"] .lane a').first().waitFor();
    },
  },
  counter: { go: intake },
  bench: {
    go: async (page, address) => {
      await cutWalked(page, address);
    },
  },
  'bench-dark': {
    go: async (page, address) => {
      await page.goto(await jobWhere(page, address, (card) => card.layout === 'plasma' && card.state === 'on-the-bench'));
      await page.getByText('Next step').waitFor();
    },
    dark: true,
  },
  call: {
    go: async (page, address) => {
      await page.goto(
        `${await jobWhere(page, address, (card) => card.state === 'on-the-bench' && card.layout === 'separate-driver')}/call`,
      );
      await page.locator('[data-test="call-price"]').waitFor();
    },
  },
  close: {
    go: async (page, address) => {
      await page.goto(`${await jobPath(page, address, 2)}/close`);
      await page.getByText('Firmware flashed').waitFor();
    },
  },
  lights: { go: light },
  stock: {
    go: async (page, address) => {
      await page.goto(`${address}/stock`);
      await page.locator('[data-test="images"] button').nth(1).click();
      await page.getByLabel('Compare with').click();
      await page.getByRole('option', { name: /kept before a repair/ }).click();
      await page.locator('[data-test="compared"]').waitFor();
      await page.locator('.differs').first().waitFor();
    },
  },
  parts: {
    go: async (page, address) => {
      await page.goto(`${await jobWhere(page, address, (card) => card.parts.some(({ state }) => state === 'on-order'))}/parts`);
      await page.locator('[data-test="ask-offers"]').click();
      await page.locator('[data-test="put-offer"]').first().waitFor();
    },
  },
  orders: {
    go: async (page, address) => {
      await page.goto(`${address}/parts`);
      await page.locator('[data-test="on-order"]').waitFor();
    },
  },
  worth: {
    go: async (page, address) => {
      await page.goto(`${await jobWhere(page, address, (card) => card.layout === 'one-board' && card.parts.length > 0)}/worth`);
      await page.getByLabel('Price, EUR').fill('35');
      await page.getByRole('button', { name: 'Compare' }).click();
      await page.locator('[data-option="workaround"]').waitFor();
      await page.locator('[data-test="chart"] svg').waitFor();
    },
  },
  handover: {
    go: async (page, address) => {
      await page.goto(`${await jobPath(page, address, 1)}/handover`);
      await page.locator('[data-test="bill"] table').waitFor();
    },
  },
  settings: {
    go: async (page, address) => {
      await page.goto(`${address}/settings`);
      await page.getByLabel('Name on documents').waitFor();
    },
  },
  /** The last: they check in jobs. */
  proof: { go: proof },
  practice: {
    go: async (page, address) => {
      await page.goto(address);
      await page.locator('[data-test="practice-start"]').click();
      await page.locator('.el-tour__title').waitFor();
      for (let stop = 0; stop < 5; stop += 1) await page.locator('.el-tour__content .el-button--primary:visible').click();
      await page.locator('[data-test="practice-key"]').waitFor();
    },
  },
};

async function main() {
  const only = process.argv.slice(2);
  const { small: executablePath } = await ensureChromium();
  const server = await demoServer();
  const { address } = server;
  const { cookies } = await signIn(address);
  const browser = await chromium.launch({ executablePath });
  try {
    for (const [name, { go, dark, viewport = { width: 1280, height: 800 } }] of Object.entries(pictures)) {
      if (only.length > 0 && !only.includes(name)) continue;
      const page = await browser.newPage({
        storageState: { cookies, origins: [] },
        bypassCSP: true,
        viewport,
        colorScheme: dark ? 'dark' : 'light',
      });
      if (name !== 'practice') await page.addInitScript(() => localStorage.setItem('veglia.practice.over', 'yes'));
      await go(page, address);
      await page.waitForLoadState('networkidle');
      await page.addStyleTag({ content: '*, *::after { transition: none !important; }' });
      await page.screenshot({ path: inRoot(`docs/screenshots/${name}.png`) });
      await page.close();
      say(`docs/screenshots/${name}.png`);
    }
  } finally {
    await browser.close();
    await server.stop();
  }
}
runMain(main);
