/** Two people at one browser. */
import type { Page } from '@playwright/test';
import { takeIn } from './support/steps.ts';
import { expect, test } from './support/app.ts';

test.use({ withDemo: true });

/** Notes the server has, in its order. */
async function stored(page: Page): Promise<string[]> {
  const id = /jobs\/([0-9a-f-]+)/.exec(page.url())?.[1] ?? '';
  const { entries } = (await (await page.request.get(`/api/jobs/${id}`)).json()) as {
    entries: { body: { kind: string; text?: string } }[];
  };
  return (entries ?? []).flatMap(({ body }) => (body.kind === 'note.added' ? [body.text ?? ''] : []));
}

test('what two people wrote while the server was away is sent under their own names, and not before they are signed in', async ({
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
  // Only what whoever is signed in wrote is sent under that name; the other’s waits for them.
  await page.getByRole('button', { name: 'Send now' }).click();
  await expect.poll(() => stored(page)).toEqual(['first', 'third']);
  await who.selectOption({ label: 'Tobin Vexley' });
  await expect.poll(() => stored(page)).toEqual(['first', 'third', 'second']);
  await page.reload();
  await expect(notes.filter({ hasText: 'second' })).toContainText('Tobin Vexley');
  await expect(notes.filter({ hasText: 'third' })).toContainText('Ilse Marrow');
});
