/** Passkeys as the second factor: what a password alone no longer opens, and what is no passkey of whoever asks. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { passkeysSchema, type Passkey } from '@veglia/contract';
import type { Response } from 'supertest';
import { passkeyPatience } from '../src/accounts/passkeys.ts';
import { Authenticator } from './support/authenticator.ts';
import { TestBrowser } from './support/browser.ts';
import { ask, codeOf, confirmOwner, noon, openTestApp, testPassword, type TestApp } from './support/testApp.ts';

const host = 'bench.example.org';
const here = { origin: `http://${host}`, rp: host };
let now = noon;
let running: TestApp;
beforeAll(async () => {
  running = await openTestApp({ now: () => now });
});
afterAll(() => running.close());
const pass = (ms: number): void => void (now = new Date(now.getTime() + ms));

const from = (name: string | undefined = host): TestBrowser => new TestBrowser(running.app, name);
interface Offered {
  readonly options: { readonly challenge: string; readonly allowCredentials?: readonly { readonly id: string }[] } | null;
}
const optionsOf = (reply: Response) => (reply.body as Offered).options;
const challengeOf = (reply: Response): string => optionsOf(reply)?.challenge ?? 'none';

/** The owner, in a browser of their own, past the password. */
async function pastPassword(browser = from()): Promise<TestBrowser> {
  expect(codeOf(await browser.signIn('Technician', testPassword))).toBe('code-needed');
  return browser;
}
const asked = (browser: TestBrowser): Promise<Response> => browser.send('post', '/api/session/passkey/ask');
const used = (browser: TestBrowser, passkey: object): Promise<Response> => browser.send('post', '/api/session/passkey', { passkey });
const signInWith = async (key: Authenticator): Promise<Response> => {
  const browser = await pastPassword();
  return used(browser, key.use({ ...here, challenge: challengeOf(await asked(browser)) }));
};
async function add(browser: TestBrowser, key: Authenticator, name: string): Promise<Response> {
  const offered = await browser.send('post', '/api/session/passkeys/offer');
  return browser.send('post', '/api/session/passkeys', { name, passkey: key.make({ ...here, challenge: challengeOf(offered) }) });
}
const passkeys = async (browser: TestBrowser): Promise<Passkey[]> =>
  passkeysSchema.parse((await browser.get('/api/session/passkeys')).body).passkeys;

let owner: TestBrowser;
let key: Authenticator;
let codes: string[];
/** One key, on an account that asks for nothing else. */
beforeEach(async () => {
  await running.store.models.passkeys.destroy({ where: {} });
  await running.store.models.accounts.update({ factorSecret: null, recoveryHashes: [] }, { where: {} });
  owner = from();
  expect(codeOf(await owner.signIn('Technician', testPassword))).toBe('ok');
  key = new Authenticator();
  const added = await add(owner, key, 'Key ring');
  expect(codeOf(added)).toBe('ok');
  codes = (added.body as { codes: string[] }).codes;
});

describe('a passkey', () => {
  test('is asked for besides the password, and ends the sign-in', async () => {
    expect((await owner.session()).signedIn?.hasFactor).toBe(true);
    const browser = await pastPassword();
    expect((await browser.session()).signedIn).toBeNull();
    expect((await browser.get('/api/jobs')).status).toBe(401);
    const reply = await asked(browser);
    expect(optionsOf(reply)?.allowCredentials?.map(({ id }) => id)).toEqual([key.id]);
    const before = browser.cookie;
    expect(codeOf(await used(browser, key.use({ ...here, challenge: challengeOf(reply) })))).toBe('ok');
    expect((await browser.session()).signedIn).toMatchObject({ name: 'Technician', by: 'password', fresh: true });
    expect(browser.cookie).not.toBe(before);
    expect((await passkeys(browser))[0]).toMatchObject({ name: 'Key ring', at: host, usedAt: now.toISOString() });
  });

  test('of eight recovery codes each opens once where it is lost; a second passkey brings none', async () => {
    expect(new Set(codes).size).toBe(8);
    expect(codeOf(await from().signIn('Technician', testPassword, codes[2]))).toBe('ok');
    expect(codeOf(await from().signIn('Technician', testPassword, codes[2]))).toBe('wrong-code');
    const second = new Authenticator();
    expect((await add(owner, second, 'Drawer')).body).toEqual({ codes: [] });
    expect(codeOf(await signInWith(second))).toBe('ok');
    expect(codeOf(await signInWith(key))).toBe('ok');
  });

  test('confirms whoever is signed in, before what is not taken back', async () => {
    pass(16 * 60_000);
    expect((await owner.session()).signedIn?.fresh).toBe(false);
    expect(codeOf(await owner.send('post', '/api/session/confirm', { password: testPassword }))).toBe('code-needed');
    expect(codeOf(await used(owner, key.use({ ...here, challenge: challengeOf(await asked(owner)) })))).toBe('ok');
    expect((await owner.session()).signedIn?.fresh).toBe(true);
  });

  test('removed opens nothing; with the last one its recovery codes go, and the password is enough again', async () => {
    const second = new Authenticator();
    await add(owner, second, 'Drawer');
    expect(codeOf(await owner.send('post', '/api/session/passkeys/end', { id: key.id }))).toBe('ok');
    expect(codeOf(await signInWith(key))).toBe('wrong-passkey');
    expect(codeOf(await owner.send('post', '/api/session/passkeys/end', { id: key.id }))).toBe('not-found');
    expect(codeOf(await owner.send('post', '/api/session/passkeys/end', { id: second.id }))).toBe('ok');
    expect(codeOf(await from().signIn('Technician', testPassword))).toBe('ok');
    expect((await running.store.models.accounts.findByPk(running.person))?.recoveryHashes).toEqual([]);
  });

  test('belongs to a name: by a number none is made, and under another name none is asked for', async () => {
    const byNumber = from('127.0.0.1:8000');
    const reply = passkeysSchema.parse((await owner.get('/api/session/passkeys')).body);
    expect(reply.possible).toBe(true);
    expect(codeOf(await byNumber.signIn('Technician', testPassword, codes[0]))).toBe('ok');
    expect(passkeysSchema.parse((await byNumber.get('/api/session/passkeys')).body).possible).toBe(false);
    expect(codeOf(await byNumber.send('post', '/api/session/passkeys/offer'))).toBe('needs-name');
    const elsewhere = await pastPassword(from('localhost:8000'));
    expect(optionsOf(await asked(elsewhere))).toBeNull();
  });

  test('is on record, added and removed', async () => {
    await owner.send('post', '/api/session/passkeys/end', { id: key.id });
    const lines = ((await owner.get('/api/audit')).body as { lines: { what: string; about: string | null }[] }).lines;
    for (const what of ['passkey-added', 'passkey-removed']) expect(lines.find((line) => line.what === what)?.about).toBe('Key ring');
  });

  test('goes with the whole second factor', async () => {
    expect(codeOf(await owner.send('post', '/api/session/factor/end'))).toBe('ok');
    expect(await passkeys(owner)).toEqual([]);
  });

  test('ten are enough', async () => {
    for (let n = 1; n < 10; n += 1) expect(codeOf(await add(owner, new Authenticator(), `Key ${n}`))).toBe('ok');
    expect(codeOf(await owner.send('post', '/api/session/passkeys/offer'))).toBe('too-many-passkeys');
  });
});

describe('refused is', () => {
  test('a passkey without the password, and one for which nothing was asked', async () => {
    const browser = from();
    expect(codeOf(await asked(browser))).toBe('wrong-passkey');
    expect(codeOf(await used(browser, key.use({ ...here, challenge: 'AAAA' })))).toBe('wrong-passkey');
    await browser.signIn('Technician', 'wrong');
    expect(codeOf(await asked(browser))).toBe('wrong-passkey');
  });

  test.each<[string, (challenge: string) => object]>([
    ['another key', (challenge) => new Authenticator().use({ ...here, challenge })],
    ['another key under this one’s id', (challenge) => ({ ...new Authenticator().use({ ...here, challenge }), id: key.id, rawId: key.id })],
    ['another challenge', () => key.use({ ...here, challenge: 'c29tZXRoaW5nIGVsc2U' })],
    ['another page', (challenge) => key.use({ ...here, origin: 'http://bench.example.com', challenge })],
    ['another name', (challenge) => key.use({ ...here, rp: 'example.org', challenge })],
  ])('%s, and the challenge is used up', async (_, wrong) => {
    const browser = await pastPassword();
    const challenge = challengeOf(await asked(browser));
    expect(codeOf(await used(browser, wrong(challenge)))).toBe('wrong-passkey');
    expect(codeOf(await used(browser, key.use({ ...here, challenge })))).toBe('wrong-passkey');
    expect((await browser.session()).signedIn).toBeNull();
  });

  test('the same twice, also at once', async () => {
    const browser = await pastPassword();
    const signed = key.use({ ...here, challenge: challengeOf(await asked(browser)) });
    const both = await Promise.all([used(browser, signed), used(browser, signed)]);
    expect(both.map(codeOf).sort()).toEqual(['ok', 'wrong-passkey']);
  });

  test('what took longer than five minutes', async () => {
    const slow = await pastPassword();
    const challenge = challengeOf(await asked(slow));
    pass(passkeyPatience + 1);
    expect(codeOf(await used(slow, key.use({ ...here, challenge })))).toBe('wrong-passkey');
    const late = await pastPassword();
    pass(passkeyPatience + 1);
    expect(codeOf(await asked(late))).toBe('wrong-passkey');
  });

  test('what was signed in another browser', async () => {
    const [one, other] = [await pastPassword(), await pastPassword()];
    await asked(other);
    expect(codeOf(await used(other, key.use({ ...here, challenge: challengeOf(await asked(one)) })))).toBe('wrong-passkey');
  });

  test('a key that is somebody’s already, and one made for another challenge', async () => {
    expect(codeOf(await add(owner, key, 'Again'))).toBe('wrong-passkey');
    await owner.send('post', '/api/session/passkeys/offer');
    const stale = new Authenticator().make({ ...here, challenge: 'AAAA' });
    expect(codeOf(await owner.send('post', '/api/session/passkeys', { name: 'Stale', passkey: stale }))).toBe('wrong-passkey');
    expect(await passkeys(owner)).toHaveLength(1);
  });

  test('the challenge of a sign-in for adding a key, and the other way round', async () => {
    const offered = challengeOf(await owner.send('post', '/api/session/passkeys/offer'));
    expect(codeOf(await used(owner, key.use({ ...here, challenge: offered })))).toBe('wrong-passkey');
    pass(16 * 60_000);
    await owner.send('post', '/api/session/confirm', { password: testPassword });
    const toConfirm = challengeOf(await asked(owner));
    expect(
      codeOf(
        await owner.send('post', '/api/session/passkeys', {
          name: 'x',
          passkey: new Authenticator().make({ ...here, challenge: toConfirm }),
        }),
      ),
    ).toBe('sign-in-again');
  });

  test('whoever was let go between the password and the passkey', async () => {
    const id = '01890000-0000-7000-8000-0000000000bb';
    await confirmOwner(running.app).catch(() => undefined);
    await owner.send('post', '/api/accounts', { id, name: 'Wilmot Dace', role: 'technician' });
    const { code } = (await owner.send('post', `/api/accounts/${id}/invitation`)).body as { code: string };
    const theirs = from();
    const password = 'nine slow ferries at noon';
    expect(codeOf(await theirs.send('post', '/api/session/join', { code, password }))).toBe('ok');
    const theirKey = new Authenticator();
    expect(codeOf(await add(theirs, theirKey, 'Phone'))).toBe('ok');
    const browser = from();
    expect(codeOf(await browser.signIn('Wilmot Dace', password))).toBe('code-needed');
    const challenge = challengeOf(await asked(browser));
    expect(codeOf(await owner.send('put', `/api/accounts/${id}`, { left: true }))).toBe('ok');
    expect(codeOf(await used(browser, theirKey.use({ ...here, challenge })))).toBe('wrong-sign-in');
    // Another's key is none of theirs either way.
    const mine = await pastPassword();
    expect(codeOf(await used(mine, theirKey.use({ ...here, challenge: challengeOf(await asked(mine)) })))).toBe('wrong-passkey');
  });
});

test('an anonymous visitor can have nothing signed in the name of who is signed in', async () => {
  expect((await ask(running.app).get('/api/session/passkeys')).status).toBe(200);
  expect((await from().get('/api/session/passkeys')).status).toBe(401);
});
