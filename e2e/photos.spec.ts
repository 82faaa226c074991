/** Photos at the counter: kept, refused, and read. */
import { fillIntake } from './support/steps.ts';
import { expect, test } from './support/app.ts';

test('a plate’s photo is read on this machine, and what it says is taken by one key each', async ({ page }) => {
  // A made-up plate, drawn by the browser itself.
  await page.setContent(
    '<div id="plate" style="width:900px;padding:30px;background:#fff;color:#000;font:44px Arial"><b>QUORVANE</b><br>Model: QK3-50<br>Serial No. Q350-7741<br>230V 50Hz 95W</div>',
  );
  const plate = await page.locator('#plate').screenshot();
  await page.goto('/jobs/new');
  await page.getByTestId('photo-file').setInputFiles({ name: 'plate.png', mimeType: 'image/png', buffer: plate });
  const photos = page.getByTestId('photos');
  await expect(photos.getByRole('img', { name: 'rating plate: plate.png' })).toBeVisible();
  const asked: string[] = [];
  page.on('request', (request) => asked.push(new URL(request.url()).host));
  await photos.getByRole('button', { name: 'Read text' }).click();
  await expect(photos.getByRole('button', { name: /Model: QK3-50/ })).toBeVisible({ timeout: 90_000 });
  // Nothing was asked of anybody else.
  expect([...new Set(asked)].every((host) => host === new URL(page.url()).host || host === '')).toBe(true);
  const before = await photos.getByRole('button', { name: /^\d? ?(Maker|Model|Serial number): / }).count();
  for (let taken = 0; taken < before; taken += 1) await page.keyboard.press('1');
  await expect(page.getByLabel('Model', { exact: true })).toHaveValue('QK3-50');
  await expect(page.getByLabel('Maker')).toHaveValue('Quorvane');
  await expect(page.getByLabel('Serial number')).toHaveValue(/^Q.?35.?/);
});

test('hostile files are refused with a clear message, and nothing is lost', async ({ page, app }) => {
  const before = await app.count('SELECT count(*) FROM files');
  let dialogs = 0;
  page.on('dialog', (dialog) => {
    dialogs += 1;
    void dialog.dismiss();
  });
  await page.goto('/jobs/new');
  await fillIntake(page, { symptoms: [/^Dead/], maker: 'Tassimar', words: 'silent as a stone' });
  const files = page.getByTestId('photo-file');
  const refused = page.getByTestId('photo-refused');
  await files.setInputFiles({
    name: '<img src=x onerror=alert(1)>.png',
    mimeType: 'image/png',
    buffer: Buffer.from('<script>alert(1)</script>'),
  });
  await expect(refused).toContainText('<img src=x onerror=alert(1)>.png: Not a supported image');
  await files.setInputFiles({
    name: 'drawing.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)"/>'),
  });
  await expect(refused).toContainText('drawing.svg: Not a supported image');
  await files.setInputFiles({ name: 'huge.png', mimeType: 'image/png', buffer: Buffer.alloc(21 * 1024 * 1024, 7) });
  await expect(refused).toContainText('huge.png: larger than 20 MB');
  expect(await app.count('SELECT count(*) FROM files')).toBe(before);
  await expect(page.getByLabel('In the customer’s own words')).toHaveValue('silent as a stone');
  await page.getByTestId('save').click();
  await expect(page.getByTestId('saved')).toBeVisible();
  expect(dialogs).toBe(0);
});

const named = "SELECT count(*) FROM ledger_entries e JOIN files f ON f.id = (e.body->>'photo')::uuid WHERE e.kind = 'photo.added'";

test('a photo taken while the server is away waits here and is stored once it is back', async ({ page, app }) => {
  await page.setContent('<div id="plate" style="width:300px;height:100px;background:#a84">stain</div>');
  const stain = await page.locator('#plate').screenshot();
  await page.goto('/jobs/new');
  await fillIntake(page, { symptoms: [/^Dead/], maker: 'Tassimar' });
  const before = await app.count('SELECT count(*) FROM files');
  const namedBefore = await app.count(named);
  await app.stopServer();
  await page.getByTestId('photo-file').setInputFiles({ name: 'stain.png', mimeType: 'image/png', buffer: stain });
  await expect(page.getByTestId('photos').getByRole('img')).toBeVisible();
  await page.getByTestId('save').click();
  await expect(page.getByTestId('kept-here')).toBeVisible();
  await app.startServer();
  await page.getByRole('button', { name: 'Send now' }).click();
  await expect(page.getByTestId('intakes-wait')).toHaveCount(0);
  await expect.poll(() => app.count('SELECT count(*) FROM files'), { timeout: 20_000 }).toBe(before + 1);
  expect(await app.count(named)).toBe(namedBefore + 1);
});
