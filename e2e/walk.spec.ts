/** A milliohm walk on the picture of a board: the demo's board has a rail marked, with a branch. */
import { expect, test } from './support/app.ts';

test.use({ withDemo: true });

test('parts are pressed along the track, a branch hangs where one was pressed before, and readings go where it is ringed', async ({
  page,
}) => {
  await page.goto('/instruments/short');
  await page.getByTestId('on-picture').click();
  const part = (name: string) => page.getByLabel(name, { exact: true });
  for (const name of ['C241', 'C242', 'C243', 'C244']) await part(name).click();
  await part('C242').click();
  await part('C249').click();
  await part('C250').click();
  await expect(page.getByTestId('field-names')).toHaveValue('C241 C242 C243 C244 C249 C250');
  await expect(page.getByTestId('field-branches')).toHaveValue('2: 5-6');
  const read = async (name: string, ohms: string): Promise<void> => {
    await part(name).click();
    await page.getByTestId('walk-reading').fill(ohms);
    await page.getByTestId('walk-reading').press('Enter');
  };
  await read('C241', 'about 300');
  await expect(page.getByTestId('walk-on-picture').getByRole('alert')).toContainText('290m');
  await expect(page.getByTestId('walk-reading')).toHaveValue('about 300');
  for (const [name, ohms] of [
    ['C241', '0.32'],
    ['C244', '345m'],
    ['C242', '0.29'],
    ['C250', '0.272'],
    ['C249', '0.25'],
  ] as const)
    await read(name, ohms);
  await expect(page.getByTestId('field-along')).toHaveValue('1 0.32; 4 345m; 2 0.29; 6 0.272; 5 0.25');
  await expect(page.locator('[data-figure="likeliest"]')).toHaveText('5');
  await page.getByTestId('walk-undo').click();
  await expect(page.getByTestId('field-along')).toHaveValue('1 0.32; 4 345m; 2 0.29; 5 0.25');
  await expect(page.getByTestId('field-branches')).toHaveValue('2: 5');
});

test('warm places are found on the picture of the board, by name and against a good set', async ({ page }) => {
  // As the board lies in its picture: one part as warm as in a good set, one that is known for nothing, and one that stays cold.
  const frame = (share: number): Buffer => {
    const spot = (x: number, y: number, at: readonly [number, number]): number =>
      Math.exp(-((x + 0.5 - at[0] * 120) ** 2 + (y + 0.5 - at[1] * 80) ** 2) / 6);
    return Buffer.from(
      Array.from({ length: 80 }, (_, y) =>
        Array.from({ length: 120 }, (__, x) =>
          (24 + ((x * 7 + y * 5) % 3) / 20 + share * (11 * spot(x, y, [0.592, 0.656]) + 9 * spot(x, y, [0.853, 0.281]))).toFixed(2),
        ).join(','),
      ).join('\n'),
    );
  };
  await page.goto('/instruments/thermal');
  const file = (name: string, buffer: Buffer) => ({ name, mimeType: 'text/csv', buffer });
  await page.getByTestId('add-pictures').setInputFiles([file('before.csv', frame(0)), file('after.csv', frame(1))]);
  await page.getByTestId('on-board').click();
  const press = async (which: string, x: number, y: number): Promise<void> => {
    const shown = page.locator(`[data-which="${which}"]`);
    const box = (await shown.boundingBox())!;
    await shown.click({ position: { x: box.width * x, y: box.height * y } });
  };
  await expect(page.getByTestId('place-next')).toContainText('temperature picture (A)');
  for (const [x, y] of [
    [0.1, 0.1],
    [0.9, 0.8],
  ] as const) {
    await press('warm', x, y);
    await expect(page.getByTestId('place-next')).toContainText('on the board');
    await press('board', x, y);
  }
  const result = page.getByTestId('result');
  await expect(result.locator('[data-finding="warm-as-good"]')).toContainText('1 Q231 (12 °C)');
  await expect(result.locator('[data-finding="warm-named"]')).toContainText('2 C249');
  await expect(result.locator('[data-finding="warm-cold"]')).toContainText('T901');
});
