/** What a camera sees: lights and labels, in films that run in real time. */
import { chromium, type Browser } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ensurePoppler } from '../scripts/lib/install.mjs';
import { writeFilm, writePictureFilm } from './support/light.ts';
import { takeIn } from './support/steps.ts';
import { expect, test } from './support/app.ts';

const withFilm = (film: string): Promise<Browser> =>
  chromium.launch({
    executablePath: process.env.VEGLIA_WHOLE_CHROMIUM ?? '/usr/bin/chromium',
    args: ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream', `--use-file-for-fake-video-capture=${film}`],
  });

test.describe('with a camera', () => {
  let folder: string;
  test.beforeAll(() => void (folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-film-'))));
  test.afterAll(() => rmSync(folder, { recursive: true, force: true }));

  test('the light in its picture is followed and read', async ({ app }) => {
    const film = path.join(folder, 'light.y4m');
    writeFilm(film, { groups: [3], onS: 0.3, offS: 0.3, partS: 0.9, pauseS: 2 });
    const browser = await withFilm(film);
    try {
      const page = await browser.newPage();
      await page.goto(`${app.address}/blink`);
      await page.getByRole('tab', { name: 'Camera' }).click();
      await page.locator('[data-test="camera-on"]').click();
      await page.locator('[data-test="film-frame"] video').waitFor();
      // Five cycles of 3.5 s, the film runs in real time. A machine that loses frames spoils some, and the reader then says that it
      // isn't sure: a person looks again.
      await expect(async () => {
        await page.locator('[data-test="record"]').click();
        await expect(page.locator('.figure', { hasText: /^(1[89]|[2-9]\d) s$/ })).toBeVisible({ timeout: 60_000 });
        await page.locator('[data-test="stop"]').click();
        await expect(page.locator('[data-test="code"]')).toHaveText(/^3( white)?, repeats$/);
        await expect(page.locator('[data-test="sure"]')).toHaveText('read', { timeout: 5000 });
      }).toPass({ timeout: 150_000 });
    } finally {
      await browser.close();
    }
  });

  test('a printed label is held before it, and its job opens', async ({ page, app }) => {
    await takeIn(page, { symptoms: [/^Dead/], maker: 'Tassimar' });
    const job = /\/jobs\/[0-9a-f-]{36}/.exec(page.url())?.[0] ?? '';
    await page.getByTestId('documents').locator('summary').click();
    const href = await page.getByRole('link', { name: 'Label', exact: true }).getAttribute('href');
    const pdf = path.join(folder, 'label.pdf');
    writeFileSync(pdf, await (await page.request.get(href ?? '')).body());
    const poppler = path.dirname((await ensurePoppler()) ?? '');
    execFileSync(path.join(poppler, 'pdftoppm'), ['-gray', '-r', '150', '-singlefile', pdf, path.join(folder, 'label')]);
    const film = path.join(folder, 'label.y4m');
    writePictureFilm(film, readFileSync(path.join(folder, 'label.pgm')));
    const browser = await withFilm(film);
    try {
      const shelves = await browser.newPage();
      await shelves.goto(app.address);
      await shelves.locator('[data-test="scan-on"]').click();
      await shelves.waitForURL(`**${job}`);
      await expect(shelves.locator('[data-test="next"]')).toBeVisible();
    } finally {
      await browser.close();
    }
  });

  test('refused, or none there: said plainly, with what to do', async ({ app }) => {
    for (const [args, words] of [
      [['--use-fake-device-for-media-stream'], 'Camera access was denied'],
      [[], 'No camera found'],
    ] as const) {
      const browser = await chromium.launch({
        executablePath: process.env.VEGLIA_WHOLE_CHROMIUM ?? '/usr/bin/chromium',
        args: [...args],
      });
      const page = await browser.newPage();
      await page.goto(`${app.address}/blink`);
      await page.getByRole('tab', { name: 'Camera' }).click();
      await page.locator('[data-test="camera-on"]').click();
      await expect(page.locator('[data-test="film-problem"]')).toContainText(words);
      await page.getByRole('tab', { name: 'Tap' }).click();
      await expect(page.locator('[data-test="tap-pad"]')).toBeVisible();
      await browser.close();
    }
  });
});

test('a video is read frame by frame, faster than it plays and alike on a slow machine; what is no video is told', async ({ page }) => {
  await page.goto('/blink');
  // Not as a script of the page: it takes none but its own.
  await page.evaluate(
    `${readFileSync('node_modules/mediabunny/dist/bundles/mediabunny.min.cjs', 'utf8')}; globalThis.Mediabunny = Mediabunny;`,
  );
  // Two flashes of 0.4 s, a pause of 1.6: four cycles of 2.8 s at 30 pictures a second, each with its time.
  const base64 = await page.evaluate(async () => {
    const { Output, WebMOutputFormat, BufferTarget, CanvasSource } = (window as unknown as { Mediabunny: typeof import('mediabunny') })
      .Mediabunny;
    const canvas = document.createElement('canvas');
    canvas.width = 160;
    canvas.height = 120;
    const context = canvas.getContext('2d')!;
    const target = new BufferTarget();
    const output = new Output({ format: new WebMOutputFormat(), target });
    const source = new CanvasSource(canvas, { codec: 'vp8', bitrate: 2_000_000 });
    output.addVideoTrack(source, { frameRate: 30 });
    await output.start();
    for (let frame = 0; frame < 345; frame += 1) {
      const inCycle = (frame / 30) % 2.8;
      context.fillStyle = '#555';
      context.fillRect(0, 0, 160, 120);
      context.fillStyle = inCycle > 0.8 && inCycle < 2 && (inCycle - 0.8) % 0.8 < 0.4 ? '#fff' : '#222';
      context.beginPath();
      context.arc(80, 60, 9, 0, 7);
      context.fill();
      await source.add(frame / 30, 1 / 30);
    }
    await output.finalize();
    let text = '';
    for (const byte of new Uint8Array(target.buffer!)) text += String.fromCharCode(byte);
    return btoa(text);
  });
  const file = Buffer.from(base64, 'base64');
  const choose = (name: string, buffer: Buffer) => page.getByTestId('video-file').setInputFiles({ name, mimeType: 'video/webm', buffer });
  const code = page.getByTestId('reading').getByTestId('code');
  await page.getByRole('tab', { name: 'Video' }).click();
  await choose('light.webm', file);
  // The player is no part of it: what plays loses frames on a busy machine.
  await page.evaluate(() => (HTMLMediaElement.prototype.play = () => Promise.reject(new Error('played'))));
  await page.getByTestId('record').click();
  await expect(code).toHaveText(/^2( white)?, repeats$/);
  await expect(page.getByTestId('sure')).toHaveText('read');
  await choose('x.webm', Buffer.from('no film at all'));
  await expect(page.getByTestId('film-problem')).toContainText('can’t play');
});
