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
