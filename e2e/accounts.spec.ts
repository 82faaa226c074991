/** Signing in as a shop does: the first owner, invitations, a bench with PINs, and being signed out in the middle of work. */
import AxeBuilder from '@axe-core/playwright';
import type { Browser, Page } from '@playwright/test';
import { expect, launch, owner, test } from './support/app.ts';
import { seedJob } from './support/steps.ts';

const opened = [
  { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
  { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] },
];
const plate = { maker: 'Oltrema', model: 'OT-1', serial: '' };
/** A browser in which nobody is signed in. */
async function fresh(browser: Browser, address: string): Promise<Page> {
  return (await browser.newContext({ baseURL: address, storageState: { cookies: [], origins: [] } })).newPage();
}
async function confirm(page: Page, password: string): Promise<void> {
  await page.getByTestId('confirm-self').getByLabel('Password', { exact: true }).fill(password);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('confirm-self')).toHaveCount(0);
}
/** Adds somebody on the owner’s screen and gives back the code that is shown. */
async function invite(page: Page, name: string, role: string): Promise<string> {
  await page.goto('/accounts');
  const form = page.getByTestId('add-person');
  await form.getByLabel('Name').fill(name);
  await form.getByLabel('Role').focus();
  await page.keyboard.press('ArrowDown');
  await page.locator('.el-select-dropdown__item', { hasText: role }).click();
  await form.getByRole('button', { name: 'Add' }).click();
  const asked = page.getByTestId('confirm-self');
  const row = page.getByTestId('accounts').getByRole('row').filter({ hasText: name });
  await expect(asked.or(row).first()).toBeVisible();
  if ((await asked.count()) > 0) await confirm(page, owner.password);
  await row.getByTestId('invite').click();
  return (await page.getByTestId('invitation').getByRole('strong').textContent()) ?? '';
}
async function join(page: Page, code: string, password: string): Promise<void> {
  await page.goto('/');
  const haveCode = page.getByRole('button', { name: 'I have a code' });
  const byPassword = page.getByRole('button', { name: 'With a password' });
  await expect(haveCode.or(byPassword).first()).toBeVisible();
  // A bench asks for a PIN first.
  if ((await byPassword.count()) > 0) await byPassword.click();
  await haveCode.click();
  await page.getByLabel('Code').fill(code);
  await page.getByLabel('New password').fill(password);
  await page.getByTestId('door-join').click();
  await expect(page.getByTestId('door')).toHaveCount(0);
}
const stored = async (page: Page, id: string): Promise<{ by: string; text: string }[]> => {
  const { entries } = (await (await page.request.get(`/api/jobs/${id}`)).json()) as {
    entries: { by: string; body: { kind: string; text?: string } }[];
  };
  return entries.flatMap(({ by, body }) => (body.kind === 'note.added' ? [{ by, text: body.text ?? '' }] : []));
};

test('the first owner comes in by the code of the console, and by no other', async ({ browser }) => {
  const app = await launch(false, false);
  const page = await fresh(browser, app.address);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Set up the first owner' })).toBeVisible();
  expect((await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze()).violations).toEqual([]);
  await page.getByLabel('Code').fill('AAAA-BBBB-CCCC-DDDD-EEEE');
  await page.getByLabel('Name').fill('Ottilie Brook');
  await page.getByLabel('New password').fill('password1234');
  await page.getByTestId('door-join').click();
  await expect(page.getByTestId('door-wrong')).toContainText('This code is wrong, used or expired.');
  await page.getByLabel('Code').fill(app.firstCode);
  await page.getByTestId('door-join').click();
  await expect(page.getByTestId('door-wrong')).toContainText('too easy to guess');
  await page.getByLabel('New password').fill('seven grey herons wading');
  await page.getByTestId('door-join').click();
  await expect(page.getByTestId('door')).toHaveCount(0);
  await expect(page.getByTestId('me')).toHaveText('Ottilie Brook');
  await app.end();
});

test('an invited technician writes under the own name; let go, they are out, and what they typed stays on the screen', async ({
  page,
  browser,
  app,
}) => {
  const code = await invite(page, 'Jory Pell', 'Technician');
  const { id } = await seedJob(page, { customer: null, plate }, opened);
  const theirs = await fresh(browser, app.address);
  await join(theirs, code, 'nine copper kettles whistling');
  await theirs.goto(`/jobs/${id}`);
  await theirs.getByLabel('Note', { exact: true }).fill('humming from the left');
  await theirs.keyboard.press('Enter');
  await expect.poll(() => stored(page, id)).toEqual([{ by: expect.any(String) as unknown as string, text: 'humming from the left' }]);
  await expect(theirs.locator('[data-kind="note.added"]')).toContainText('Jory Pell');
  // What is the owner’s to decide is not on their screens, nor behind the address.
  await theirs.goto('/settings');
  await expect(theirs.getByRole('link', { name: 'People and access' })).toHaveCount(0);
  await theirs.goto(`/jobs/${id}`);
  await expect(theirs.getByTestId('next')).toBeVisible();

  await page.getByTestId('accounts').getByRole('row').filter({ hasText: 'Jory Pell' }).getByRole('button', { name: 'Has left' }).click();
  await expect(page.getByTestId('accounts').getByRole('row').filter({ hasText: 'Jory Pell' })).toContainText('Left');
  await theirs.getByLabel('Note', { exact: true }).fill('and from the right');
  await theirs.keyboard.press('Enter');
  await expect(theirs.getByTestId('door')).toBeVisible();
  await theirs.getByLabel('Name').fill('Jory Pell');
  await theirs.getByLabel('Password', { exact: true }).fill('nine copper kettles whistling');
  await theirs.getByTestId('door-sign-in').click();
  await expect(theirs.getByTestId('door-wrong')).toContainText('Name, password or PIN is wrong.');
  // Back again: it goes as if nothing had been.
  await page.getByTestId('accounts').getByRole('row').filter({ hasText: 'Jory Pell' }).getByRole('button', { name: 'Is back' }).click();
  await expect(page.getByTestId('accounts').getByRole('row').filter({ hasText: 'Jory Pell' })).toContainText('Can sign in');
  await theirs.getByTestId('door-sign-in').click();
  await expect(theirs.getByTestId('door')).toHaveCount(0);
  await expect.poll(async () => (await stored(page, id)).map(({ text }) => text)).toEqual(['humming from the left', 'and from the right']);
  await expect(page.getByTestId('audit')).toContainText('Person is back');
});

test('a passkey is added, asked for after the password, and given up for a recovery code', async ({ page, browser, app }) => {
  const code = await invite(page, 'Ansel Vane', 'Owner');
  const address = app.address.replace('127.0.0.1', 'localhost');
  const theirs = await fresh(browser, address);
  const password = 'eleven blue ladders leaning';
  // Chromium's own authenticator, in software, that is touched at once.
  const devtools = await theirs.context().newCDPSession(theirs);
  await devtools.send('WebAuthn.enable');
  const { authenticatorId } = await devtools.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'usb',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  await join(theirs, code, password);
  await theirs.goto('/account');
  const sheet = theirs.getByTestId('passkeys');
  // A name too long is said before the key is touched.
  await sheet.getByLabel('What it is').fill('k'.repeat(61));
  await expect(sheet.getByText('1 character too many: at most 60.')).toBeVisible();
  await expect(sheet.getByTestId('add-passkey')).toBeDisabled();
  await sheet.getByLabel('What it is').fill('Key on my ring');
  await sheet.getByTestId('add-passkey').click();
  await expect(sheet.getByTestId('passkey')).toContainText('For localhost, not used yet');
  const codes = await theirs.getByTestId('factor').getByRole('listitem').allTextContents();
  expect(codes).toHaveLength(8);
  expect((await new AxeBuilder({ page: theirs }).withTags(['wcag2a', 'wcag2aa']).analyze()).violations).toEqual([]);
  await theirs.getByRole('button', { name: 'Lock' }).click();
  const signIn = async (): Promise<void> => {
    await expect(theirs.getByTestId('door')).toBeVisible();
    await theirs.getByTestId('door').getByLabel('Name').fill('Ansel Vane');
    await theirs.getByTestId('door').getByLabel('Password', { exact: true }).fill(password);
    await theirs.getByTestId('door-sign-in').click();
  };
  await signIn();
  await theirs.getByTestId('use-passkey').click();
  await expect(theirs.getByTestId('door')).toHaveCount(0);
  await expect(theirs.getByTestId('passkey')).toContainText('For localhost, last used');
  // Lost: the browser finds none, and a recovery code opens.
  await devtools.send('WebAuthn.setAutomaticPresenceSimulation', { authenticatorId, enabled: false });
  await devtools.send('WebAuthn.removeVirtualAuthenticator', { authenticatorId });
  await devtools.send('WebAuthn.addVirtualAuthenticator', {
    options: { protocol: 'ctap2', transport: 'usb', automaticPresenceSimulation: true },
  });
  await theirs.getByRole('button', { name: 'Lock' }).click();
  await signIn();
  await theirs.getByTestId('use-passkey').click();
  await expect(theirs.getByTestId('door-wrong')).toContainText('The passkey was not used.');
  await theirs.getByLabel('Code of your authenticator, or a recovery code').fill(codes[0] ?? '');
  await theirs.getByTestId('door-sign-in').click();
  await expect(theirs.getByTestId('door')).toHaveCount(0);
  await theirs.getByTestId('passkey').getByRole('button').click();
  await expect(theirs.getByTestId('passkey')).toHaveCount(0);
});

test('a bench is trusted, locked and opened with a PIN; what decides over others asks for the password', async ({ page, browser, app }) => {
  const code = await invite(page, 'Sabra Wick', 'Owner');
  const bench = await fresh(browser, app.address);
  const password = 'six slow barges upriver';
  await join(bench, code, password);
  await bench.goto('/account');
  await bench.getByLabel('Name of the bench').fill('Window bench');
  await bench.getByTestId('trust-bench').click();
  await expect(bench.getByTestId('bench-is')).toContainText('Window bench');
  await bench.getByLabel('New PIN').fill('12');
  await bench.getByTestId('set-pin').click();
  await expect(bench.getByTestId('account-wrong')).toContainText('4 to 8 digits');
  await bench.getByLabel('New PIN').fill('2468');
  await bench.getByTestId('set-pin').click();
  await expect(bench.getByTestId('account-said')).toContainText('PIN set.');
  await bench.getByTestId('lock').click();
  await expect(bench.getByTestId('pin-pad')).toContainText('PIN of Sabra Wick');
  expect((await new AxeBuilder({ page: bench }).withTags(['wcag2a', 'wcag2aa']).analyze()).violations).toEqual([]);
  for (const digit of '1357') await bench.keyboard.press(digit);
  await bench.keyboard.press('Enter');
  await expect(bench.getByRole('alert')).toContainText('wrong');
  for (const digit of '2468') await bench.getByTestId('pin-pad').getByRole('button', { name: digit, exact: true }).click();
  await bench.getByTestId('pin-ok').click();
  await expect(bench.getByTestId('door')).toHaveCount(0);
  await bench.goto('/accounts');
  await bench.getByTestId('add-person').getByLabel('Name').fill('Someone new');
  await bench.getByTestId('add-person').getByRole('button', { name: 'Add' }).click();
  await expect(bench.getByTestId('confirm-self')).toBeVisible();
  await bench.keyboard.press('Escape');
  await expect(bench.getByTestId('accounts-wrong')).toContainText('Enter your password again first');
  await bench.getByTestId('add-person').getByRole('button', { name: 'Add' }).click();
  await bench.getByTestId('confirm-self').getByLabel('Password', { exact: true }).fill('six slow barges');
  await bench.keyboard.press('Enter');
  await expect(bench.getByTestId('confirm-self').getByRole('alert')).toHaveText('Password or code is wrong. Nothing was changed.');
  await confirm(bench, password);
  await expect(bench.getByTestId('accounts')).toContainText('Someone new');
});

test('signed out in the middle of an answer: it is kept, and goes once they are in again', async ({ page, app, browser }) => {
  const code = await invite(page, 'Linnet Dray', 'Technician');
  const bench = await fresh(browser, app.address);
  const password = 'four wooden ladders leaning';
  await join(bench, code, password);
  const { id } = await seedJob(page, { customer: null, plate }, opened);
  await bench.goto(`/jobs/${id}`);
  await expect(bench.getByTestId('next')).toBeVisible();
  await bench.context().clearCookies();
  await bench.getByLabel('Note', { exact: true }).fill('typed before the door closed');
  await bench.keyboard.press('Enter');
  await expect(bench.getByTestId('door')).toBeVisible();
  await expect(bench.getByTestId('door')).toContainText('What Linnet Dray was working on stays open behind this');
  expect(await stored(page, id)).toEqual([]);
  await bench.getByLabel('Name').fill('linnet dray');
  await bench.getByLabel('Password', { exact: true }).fill(password);
  await bench.keyboard.press('Enter');
  await expect(bench.getByTestId('door')).toHaveCount(0);
  await expect.poll(async () => (await stored(page, id)).map(({ text }) => text)).toEqual(['typed before the door closed']);
});

test('without a server someone else of the bench goes on; it is sent under their name once they have shown who they are', async ({
  page,
  browser,
  app,
}) => {
  const bench = await fresh(browser, app.address);
  const people = [
    ['Ruan Teller', 'five rusty anchors sinking', '1122'],
    ['Mabyn Crewe', 'eight tin whistles blowing', '3344'],
  ] as const;
  for (const [name, password, pin] of people) {
    await join(bench, await invite(page, name, 'Technician'), password);
    await bench.goto('/account');
    if ((await bench.getByTestId('trust-bench').count()) > 0) {
      await bench.getByLabel('Name of the bench').fill('Cellar bench');
      await bench.getByTestId('trust-bench').click();
      await expect(bench.getByTestId('bench-is')).toBeVisible();
    }
    await bench.getByLabel('New PIN').fill(pin);
    await bench.getByTestId('set-pin').click();
    await expect(bench.getByTestId('account-said')).toContainText('PIN set.');
    await bench.getByTestId('lock').click();
    await expect(bench.getByTestId('door')).toBeVisible();
  }
  const { id } = await seedJob(page, { customer: null, plate }, opened);
  await bench.getByRole('button', { name: 'Ruan Teller' }).click();
  for (const digit of '1122') await bench.keyboard.press(digit);
  await bench.keyboard.press('Enter');
  await expect(bench.getByTestId('door')).toHaveCount(0);
  await bench.goto(`/jobs/${id}`);
  await expect(bench.getByTestId('next')).toBeVisible();
  await app.stopServer();
  await bench.getByTestId('lock').click();
  await bench.getByRole('button', { name: 'Go on as Mabyn Crewe' }).click();
  await expect(bench.getByTestId('door')).toHaveCount(0);
  await bench.getByLabel('Note', { exact: true }).fill('written in the dark');
  await bench.keyboard.press('Enter');
  await expect(bench.locator('[data-kind="note.added"]')).toContainText('written in the dark');
  await app.startServer();
  // Whoever was signed in before is not whoever wrote since.
  await expect(bench.getByTestId('door')).toBeVisible({ timeout: 30_000 });
  expect(await stored(page, id)).toEqual([]);
  await bench.getByRole('button', { name: 'Mabyn Crewe' }).click();
  for (const digit of '3344') await bench.keyboard.press(digit);
  await bench.keyboard.press('Enter');
  await expect(bench.getByTestId('door')).toHaveCount(0);
  const { people: all } = (await (await page.request.get('/api/people')).json()) as { people: { id: string; name: string }[] };
  const mabyn = all.find(({ name }) => name === 'Mabyn Crewe')?.id ?? '';
  await expect.poll(() => stored(page, id)).toEqual([{ by: mabyn, text: 'written in the dark' }]);
});

test('locked while the server is away, a bench is still locked once it is back, also after a reload', async ({ page, browser, app }) => {
  const bench = await fresh(browser, app.address);
  await join(bench, await invite(page, 'Elowen Marsh', 'Technician'), 'seven damp matches burning');
  await app.stopServer();
  await bench.getByTestId('lock').click();
  await expect(bench.getByTestId('door')).toBeVisible();
  await app.startServer();
  await bench.reload();
  await expect(bench.getByTestId('door')).toBeVisible();
  expect((await bench.request.get('/api/jobs')).status()).toBe(401);
});

test('the counter takes in and calls; steps inside a set are not offered', async ({ page, browser, app }) => {
  const code = await invite(page, 'Perrin Ash', 'Counter');
  const { id } = await seedJob(page, { customer: { name: 'Maud Ferrigan', contact: '01632 960111' }, plate }, opened);
  const counter = await fresh(browser, app.address);
  await join(counter, code, 'two pale geese at dawn');
  await counter.goto(`/jobs/${id}`);
  await expect(counter.getByTestId('counter-only')).toBeVisible();
  await expect(counter.getByTestId('next')).toHaveCount(0);
  await expect(counter.getByRole('link', { name: 'Instruments' })).toHaveCount(0);
  await counter.getByTestId('counter-only').getByRole('link', { name: 'Call sheet' }).click();
  await expect(counter.getByTestId('call-sheet')).toBeVisible();
});
