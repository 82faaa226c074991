/** Two people at one browser. */
import { takeIn } from './support/steps.ts';
import { expect, test } from './support/app.ts';

test.use({ withDemo: true });

test('what two people wrote while the server was away is sent in the order of writing, each under their own name', async ({
  page,
  app,
}) => {
  await takeIn(page, { symptoms: [/^Restart loop/], maker: 'Oltrema' });
  const who = page.getByLabel('Technician');
  const notes = page.locator('[data-kind="note.added"]');
  const note = async (person: string, text: string): Promise<void> => {
    const before = await notes.count();
    await who.selectOption({ label: person });
    await page.getByPlaceholder('Note').fill(text);
    await page.getByRole('button', { name: 'Add note' }).click();
    await expect(notes).toHaveCount(before + 1);
  };
  await app.stopServer();
  await note('Ilse Marrow', 'first');
  await note('Tobin Vexley', 'second');
  await note('Ilse Marrow', 'third');
  await expect(page.getByTestId('not-reached')).toBeVisible();
  await app.startServer();
  await page.getByRole('button', { name: 'Send now' }).click();
  await expect(page.getByTestId('not-reached')).toHaveCount(0);
  await page.reload();
  // Newest first.
  await expect(notes).toHaveText([/third.*Ilse Marrow/s, /second.*Tobin Vexley/s, /first.*Ilse Marrow/s]);
});
