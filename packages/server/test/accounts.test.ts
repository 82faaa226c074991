/** Who gets in, as whom, and what they may then do: against a real PostgreSQL, with a clock of its own. */
import { createHmac } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import {
  accountSchema,
  auditSchema,
  mayUse,
  roles,
  routeAccess,
  routes,
  sessionSchema,
  type Operation,
  type Role,
  type RouteDescription,
} from '@veglia/contract';
import { Secret, TOTP } from 'otpauth';
import { v7 as uuidv7 } from 'uuid';
import { pino } from 'pino';
import { openDoor } from '../src/accounts/door.ts';
import { createApp } from '../src/app.ts';
import { dropOldAttempts } from '../src/accounts/attempts.ts';
import { firstOwnerCode } from '../src/accounts/join.ts';
import { stepOfCode } from '../src/accounts/factor.ts';
import { pinLimits } from '../src/accounts/signIn.ts';
import {
  ask,
  askUnknown,
  codeOf,
  confirmOwner,
  cookiesOf,
  draft,
  intake,
  noon,
  openTestApp,
  testAddress,
  testHosts,
  testPassword,
  type TestApp,
} from './support/testApp.ts';
import { TestBrowser } from './support/browser.ts';

let now = noon;
let running: TestApp;
beforeAll(async () => {
  running = await openTestApp({ now: () => now });
});
afterAll(() => running.close());
const minutes = (n: number): number => n * 60_000;
const pass = (ms: number): void => void (now = new Date(now.getTime() + ms));

/** A browser of this shop. */
class Browser extends TestBrowser {
  constructor() {
    super(running.app);
  }
}
const owner = () => ask(running.app);
const confirmed = (): Promise<void> => confirmOwner(running.app);
let made = 0;
/** Somebody new, with a password, in a browser of their own. */
async function somebody(
  role: Role,
  password = `quiet harbour ${role} lanterns ${made}`,
): Promise<{ id: string; name: string; password: string; browser: Browser }> {
  await confirmed();
  const id = uuidv7();
  const name = `Person ${(made += 1)}`;
  expect((await owner().post('/api/accounts').send({ id, name, role })).status).toBe(201);
  const { code } = (await owner().post(`/api/accounts/${id}/invitation`).send({})).body as { code: string };
  const browser = new Browser();
  expect(codeOf(await browser.send('post', '/api/session/join', { code, password }))).toBe('ok');
  return { id, name, password, browser };
}
async function bench(of: { browser: Browser; id: string }, pin: string, name = 'Bench two'): Promise<void> {
  expect(codeOf(await of.browser.send('post', '/api/session/bench', { name }))).toBe('ok');
  expect(codeOf(await of.browser.send('put', '/api/session/own-pin', { pin }))).toBe('ok');
}
beforeEach(async () => {
  // A day later each: nothing of one test's wrong attempts is left, and the owner is in.
  await running.store.sequelize.query('DELETE FROM attempts');
  const reply = await owner().get('/api/session');
  if (sessionSchema.parse(reply.body).signedIn === null) throw new Error('the owner fell out');
});

describe('the table of routes', () => {
  const asked = (operation: Operation): { method: 'get' | 'post' | 'put'; path: string } => {
    const { method, path } = routes[operation] as RouteDescription;
    return {
      method,
      path: path
        .replace(/:hash/g, 'f'.repeat(64))
        .replace(/:number/g, '1')
        .replace(/:\w+/g, () => uuidv7()),
    };
  };
  const operations = Object.keys(routes) as Operation[];

  test('names every route once; nobody signed out passes any but those of signing in', async () => {
    expect(Object.keys(routeAccess).sort()).toEqual([...operations].sort());
    const open = operations.filter((one) => routeAccess[one].who === 'open');
    expect(open.sort()).toEqual(['askPasskey', 'joinByCode', 'readSession', 'signIn', 'signInByPin', 'signInToDemo', 'usePasskey']);
    for (const operation of operations) {
      if (routeAccess[operation].who === 'open') continue;
      const { method, path } = asked(operation);
      const reply = await askUnknown(running.app)[method](path);
      expect([operation, reply.status, codeOf(reply)]).toEqual([operation, 401, 'signed-out']);
    }
  });

  test.each(roles)('for the role %s: what it may not do is refused, and what it may do is not', async (role) => {
    const { browser } = await somebody(role);
    for (const operation of operations.filter((one) => routeAccess[one].who !== 'open' && one !== 'signOut')) {
      const { method, path } = asked(operation);
      const { file } = routes[operation] as RouteDescription;
      const reply =
        method === 'get'
          ? await browser.get(path)
          : file !== undefined
            ? await askUnknown(running.app)
                [method](path)
                .set('cookie', browser.cookie)
                .type('application/octet-stream')
                .send(Buffer.from('x'))
            : await browser.send(method, path, { nonsense: true });
      const refused = reply.status === 403 && codeOf(reply) === 'not-allowed';
      expect([operation, refused]).toEqual([operation, !mayUse(role, operation)]);
      expect([operation, reply.status]).not.toEqual([operation, 401]);
    }
  });

  test('what a shop expects of it, whatever the table says', () => {
    const may = (role: Role, all: Operation[]): boolean[] => all.map((one) => mayUse(role, one));
    // Decided before the table was written: the counter takes in, calls and hands over; the bench works; the owner decides.
    const counter: Operation[] = [
      'takeIn',
      'searchCustomers',
      'receipt',
      'quotePaper',
      'invoicePaper',
      'sendMessage',
      'listStock',
      'orders',
    ];
    expect(may('counter', counter)).toEqual(counter.map(() => true));
    const work: Operation[] = ['startRun', 'sendImage', 'imageContent', 'readMeter', 'changeFamily', 'changeBlinkTable', 'changeBoard'];
    expect([may('counter', work), may('technician', work)]).toEqual([work.map(() => false), work.map(() => true)]);
    const decide: Operation[] = ['changeShop', 'addAccount', 'changeAccount', 'inviteAccount', 'endBench', 'listAudit', 'eraseImage'];
    expect([may('technician', decide), may('counter', decide), may('owner', decide)]).toEqual([
      decide.map(() => false),
      decide.map(() => false),
      decide.map(() => true),
    ]);
    for (const one of decide.filter((one) => one !== 'listAudit')) expect([one, routeAccess[one].fresh]).toEqual([one, true]);
  });
});

describe('what is written', () => {
  test('is by whoever is signed in, and by nobody else', async () => {
    const tech = await somebody('technician');
    const job = intake(tech.id);
    expect((await tech.browser.send('post', '/api/jobs', job)).status).toBe(201);
    const forged = await tech.browser.send('post', `/api/jobs/${job.id}/entries`, {
      by: running.person,
      entries: [draft({ kind: 'note.added', v: 1, text: 'as the owner' }, 2)],
    });
    expect([forged.status, codeOf(forged)]).toEqual([403, 'not-yours']);
    const { entries } = (await tech.browser.get(`/api/jobs/${job.id}`)).body as { entries: { by: string }[] };
    expect(new Set(entries.map(({ by }) => by))).toEqual(new Set([tech.id]));
  });

  const kinds: [string, Record<string, unknown> & { kind: string }, boolean][] = [
    ['a note', { kind: 'note.added', v: 1, text: 'called, no answer' }, true],
    ['a limit', { kind: 'limit.agreed', v: 2, limit: { amountMinor: 9000, currency: 'EUR' } }, true],
    ['another outlet tried with the cover on', { kind: 'test.answered', v: 2, test: 'outlet', outcome: 'unchanged', sure: 'sure' }, true],
    ['a fuse measured inside', { kind: 'test.answered', v: 2, test: 'fuse', outcome: 'open', sure: 'sure' }, false],
    ['a test that no book knows', { kind: 'test.answered', v: 2, test: 'no-such', outcome: 'x', sure: 'sure' }, false],
    ['that the charge is down', { kind: 'set.changed', v: 3, plugged: false, railsDown: true, verified: true }, false],
    ['a repair', { kind: 'repair.done', v: 2, repair: 'replace.power', result: 'cured' }, false],
    ['that a soak was passed', { kind: 'proof.soaked', v: 1, minutes: 240, result: 'passed' }, false],
  ];
  test.each(kinds)('at the counter: %s', async (_, body, may) => {
    const counter = await somebody('counter');
    const job = intake(counter.id);
    expect((await counter.browser.send('post', '/api/jobs', job)).status).toBe(201);
    const reply = await counter.browser.send('post', `/api/jobs/${job.id}/entries`, { by: counter.id, entries: [draft(body, 2)] });
    expect(codeOf(reply)).toBe(may ? 'ok' : 'not-allowed');
    const tech = await somebody('technician');
    expect(codeOf(await tech.browser.send('post', `/api/jobs/${job.id}/entries`, { by: tech.id, entries: [draft(body, 2)] }))).toBe('ok');
  });

  test('at the counter nobody undoes what a technician measured', async () => {
    const tech = await somebody('technician');
    const job = intake(tech.id);
    await tech.browser.send('post', '/api/jobs', job);
    const measured = draft({ kind: 'set.changed', v: 3, plugged: false }, 2);
    await tech.browser.send('post', `/api/jobs/${job.id}/entries`, { by: tech.id, entries: [measured] });
    const counter = await somebody('counter');
    const undo = draft({ kind: 'entry.retracted', v: 1, entry: measured.id, reason: 'not so' }, 3);
    expect(codeOf(await counter.browser.send('post', `/api/jobs/${job.id}/entries`, { by: counter.id, entries: [undo] }))).toBe(
      'not-allowed',
    );
  });
});

describe('signing in', () => {
  test('by name and password, whichever case the name is typed in; a wrong one is the same as no such name', async () => {
    const { name, password } = await somebody('technician');
    const browser = new Browser();
    expect(codeOf(await browser.signIn(name.toUpperCase(), `${password}x`))).toBe('wrong-sign-in');
    expect(codeOf(await browser.signIn('Nobody at all', password))).toBe('wrong-sign-in');
    expect((await browser.session()).signedIn).toBeNull();
    expect(codeOf(await browser.signIn(name.toUpperCase(), password))).toBe('ok');
    expect((await browser.session()).signedIn).toMatchObject({ name, role: 'technician', by: 'password', fresh: true });
  });

  test('gives the session a new number; the cookie is for this server alone, out of reach of scripts', async () => {
    const { name, password } = await somebody('technician');
    const planted = new Browser();
    await planted.signIn(name, 'wrong');
    const before = planted.cookie;
    const reply = await planted.signIn(name, password);
    expect(planted.cookie).not.toBe(before);
    for (const one of [reply.headers['set-cookie'] ?? []].flat()) expect(one).toMatch(/(?=.*; HttpOnly)(?=.*; SameSite=Strict)/);
    // The table holds nothing that opens anything.
    const sid = /veglia=s%3A([^.]+)/.exec(planted.cookie)?.[1] ?? '';
    expect(sid.length).toBeGreaterThan(40);
    const [rows] = await running.store.sequelize.query('SELECT sid, sess::text FROM sessions');
    expect(JSON.stringify(rows)).not.toContain(sid);
    const [kept] = await running.store.sequelize.query('SELECT * FROM accounts');
    expect(JSON.stringify(kept)).not.toContain(password);
    expect(JSON.stringify(kept)).toContain('$argon2id$v=19$m=19456,t=2,p=1$');
  });

  test('strangers who hammer at a name hold up strangers; whoever was in before in this browser gets in', async () => {
    const { name, password, browser } = await somebody('technician');
    await browser.send('post', '/api/session/end');
    const stranger = new Browser();
    for (let n = 0; n < 20; n += 1) expect(codeOf(await stranger.signIn(name, `guess ${n}`))).toBe('wrong-sign-in');
    const held = await stranger.signIn(name, password);
    expect([held.status, codeOf(held)]).toEqual([429, 'too-many-attempts']);
    expect(Number(held.headers['retry-after'])).toBeGreaterThan(60);
    // Making up a browser that is known helps nobody.
    const forger = new Browser();
    await forger.send('post', '/api/session/end');
    const forged = await askUnknown(running.app)
      .post('/api/session')
      .set('cookie', `veglia-known=${uuidv7()}.${'x'.repeat(22)}.${createHmac('sha256', 'guess').update('x').digest('base64url')}`)
      .send({ name, password });
    expect(codeOf(forged)).toBe('too-many-attempts');
    expect(codeOf(await browser.signIn(name, password))).toBe('ok');
    // Nobody else is held up by it, and it is over after a quarter of an hour by the database’s own count.
    const other = await somebody('technician');
    expect(codeOf(await new Browser().signIn(other.name, other.password))).toBe('ok');
  });

  test('many guesses at once are as many as one after the other; old counts and codes are cleared away', async () => {
    const { name } = await somebody('technician');
    const guesses = await Promise.all(Array.from({ length: 40 }, (_, n) => new Browser().signIn(name, `guess ${n}`)));
    const codes = guesses.map(codeOf);
    expect(codes.filter((code) => code === 'wrong-sign-in')).toHaveLength(20);
    expect(codes.filter((code) => code === 'too-many-attempts')).toHaveLength(20);
    const later = { ...running.store, now: () => new Date(Date.now() + 30 * 86_400_000) };
    await dropOldAttempts(later);
    const [[left]] = (await running.store.sequelize.query('SELECT count(*)::int AS n FROM attempts')) as [{ n: number }[], unknown];
    expect([left?.n, await running.store.models.invitations.count({ where: { usedAt: null } })]).toEqual([0, 0]);
  });

  test('signed out is signed out, whatever else was on its way', async () => {
    const { name, password } = await somebody('technician');
    for (let round = 0; round < 5; round += 1) {
      const browser = new Browser();
      await browser.signIn(name, password);
      const cookie = browser.cookie;
      // Long enough ago that the next request writes when it was seen.
      pass(minutes(2));
      const busy = Array.from({ length: 8 }, () => askUnknown(running.app).get('/api/people').set('cookie', cookie));
      await Promise.all([...busy, browser.send('post', '/api/session/end')]);
      expect((await askUnknown(running.app).get('/api/people').set('cookie', cookie)).status).toBe(401);
    }
  });

  test('a browser that is known may be wrong ten times, too', async () => {
    const { name, password, browser } = await somebody('technician');
    await browser.send('post', '/api/session/end');
    for (let n = 0; n < 10; n += 1) expect(codeOf(await browser.signIn(name, `guess ${n}`))).toBe('wrong-sign-in');
    expect(codeOf(await browser.signIn(name, password))).toBe('too-many-attempts');
    expect(codeOf(await new Browser().signIn(name, password))).toBe('ok');
  });

  test('ends after a working day, after hours of nothing, when signed out, and with a new password everywhere else', async () => {
    const { name, password, browser } = await somebody('technician');
    const start = now;
    const second = new Browser();
    await second.signIn(name, password);
    for (let n = 0; n < 5; n += 1) {
      pass(minutes(120));
      expect((await browser.session()).signedIn).not.toBeNull();
      await browser.get('/api/people');
    }
    expect((await second.session()).signedIn).toBeNull();
    pass(minutes(121));
    expect((await browser.session()).signedIn).toBeNull();
    now = start;
    const [here, there] = [new Browser(), new Browser()];
    await here.signIn(name, password);
    await there.signIn(name, password);
    pass(1000);
    expect(codeOf(await here.send('put', '/api/session/password', { password: 'another nine lanterns at sea' }))).toBe('ok');
    expect([(await here.session()).signedIn?.name, (await there.session()).signedIn]).toEqual([name, null]);
    await here.send('post', '/api/session/end');
    expect((await here.get('/api/jobs')).status).toBe(401);
    expect(codeOf(await here.signIn(name, password))).toBe('wrong-sign-in');
    now = start;
  });

  test.each(['short', 'password123456', 'Technician2026', 'qwertyuiop12', 'aaaaaaaaaaaaaa'])(
    'a password like “%s” is refused, and the code is not used up',
    async (weak) => {
      await confirmed();
      const id = uuidv7();
      await owner()
        .post('/api/accounts')
        .send({ id, name: `Weak ${weak}`, role: 'technician' });
      const { code } = (await owner().post(`/api/accounts/${id}/invitation`).send({})).body as { code: string };
      const browser = new Browser();
      expect(codeOf(await browser.send('post', '/api/session/join', { code, password: weak }))).toBe('weak-password');
      // As people type what they are read out.
      const typed = code.toLowerCase().replaceAll('-', ' ');
      expect(codeOf(await browser.send('post', '/api/session/join', { code: typed, password: 'seven grey herons wading' }))).toBe('ok');
      expect(codeOf(await new Browser().send('post', '/api/session/join', { code, password: 'seven grey herons wading' }))).toBe(
        'wrong-code',
      );
    },
  );
});

describe('a bench', () => {
  test('takes a PIN of whoever signed in there with a password; anywhere else a PIN is nothing', async () => {
    const tech = await somebody('technician');
    await bench(tech, '4711');
    await tech.browser.send('post', '/api/session/end');
    expect((await tech.browser.session()).bench).toEqual({ name: 'Bench two', people: [{ id: tech.id, name: tech.name }] });
    expect(codeOf(await new Browser().pin(tech.id, '4711'))).toBe('pin-not-here');
    const other = await somebody('technician');
    expect(codeOf(await tech.browser.pin(other.id, '4711'))).toBe('pin-not-here');
    expect(codeOf(await tech.browser.pin(tech.id, '4711'))).toBe('ok');
    expect((await tech.browser.session()).signedIn).toMatchObject({ id: tech.id, by: 'pin', fresh: false });
  });

  test('with a PIN the bench works, and what is not taken back asks for the password', async () => {
    const boss = await somebody('owner');
    await bench(boss, '90210');
    await boss.browser.send('post', '/api/session/end');
    await boss.browser.pin(boss.id, '90210');
    expect((await boss.browser.send('post', '/api/jobs', intake(boss.id))).status).toBe(201);
    expect(codeOf(await boss.browser.send('post', '/api/accounts', { id: uuidv7(), name: 'By PIN', role: 'owner' }))).toBe('sign-in-again');
    expect(codeOf(await boss.browser.send('post', '/api/session/confirm', { password: 'wrong' }))).toBe('wrong-sign-in');
    expect(codeOf(await boss.browser.send('post', '/api/session/confirm', { password: boss.password }))).toBe('ok');
    expect((await boss.browser.send('post', '/api/accounts', { id: uuidv7(), name: 'By password', role: 'technician' })).status).toBe(201);
    pass(minutes(16));
    expect(codeOf(await boss.browser.send('post', '/api/accounts', { id: uuidv7(), name: 'Too late', role: 'technician' }))).toBe(
      'sign-in-again',
    );
  });

  test('five wrong PINs, also at once, and it is the password again, for this person on this bench alone', async () => {
    const one = await somebody('technician');
    const two = await somebody('technician');
    await bench(one, '1470');
    await one.browser.send('post', '/api/session/end');
    await one.browser.signIn(two.name, two.password);
    await one.browser.send('put', '/api/session/own-pin', { pin: '2580' });
    await one.browser.send('post', '/api/session/end');
    const guesses = await Promise.all(Array.from({ length: 12 }, (_, n) => one.browser.pin(one.id, String(1000 + n))));
    expect(guesses.map(codeOf).filter((code) => code === 'wrong-sign-in')).toHaveLength(pinLimits.wrong);
    expect(codeOf(await one.browser.pin(one.id, '1470'))).toBe('pin-not-here');
    expect(codeOf(await one.browser.pin(two.id, '2580'))).toBe('ok');
    await one.browser.send('post', '/api/session/end');
    expect(codeOf(await one.browser.signIn(one.name, one.password))).toBe('ok');
    await one.browser.send('post', '/api/session/end');
    expect(codeOf(await one.browser.pin(one.id, '1470'))).toBe('ok');
  });

  test('asks for the password after thirty days, locks after an hour of nothing, and ends with its trust', async () => {
    const start = now;
    const tech = await somebody('technician');
    await bench(tech, '8642', 'Bench to be ended');
    await tech.browser.send('post', '/api/session/end');
    await tech.browser.pin(tech.id, '8642');
    pass(minutes(61));
    expect((await tech.browser.session()).signedIn).toBeNull();
    await tech.browser.pin(tech.id, '8642');
    now = new Date(start.getTime() + minutes(5));
    await confirmed();
    const { benches } = (await owner().get('/api/benches')).body as { benches: { id: string; name: string; ended: boolean }[] };
    const mine = benches.find(({ name }) => name === 'Bench to be ended');
    expect(
      codeOf(
        await owner()
          .post(`/api/benches/${mine?.id ?? ''}/end`)
          .send({}),
      ),
    ).toBe('ok');
    expect(await tech.browser.session()).toMatchObject({ signedIn: null, bench: null });
    expect(codeOf(await tech.browser.pin(tech.id, '8642'))).toBe('pin-not-here');
    const again = await somebody('technician');
    await bench(again, '8642');
    await again.browser.send('post', '/api/session/end');
    pass(pinLimits.passwordEvery + 1000);
    expect(codeOf(await again.browser.pin(again.id, '8642'))).toBe('pin-not-here');
    now = start;
  });
});

describe('a second factor', () => {
  // RFC 6238, appendix B, SHA-1, eight digits: the last six are what an authenticator of six digits shows.
  test.each([
    [59, '287082'],
    [1_111_111_109, '081804'],
    [1_111_111_111, '050471'],
    [1_234_567_890, '005924'],
    [2_000_000_000, '279037'],
    [20_000_000_000, '353130'],
  ])('at %d s the code of the standard’s secret is %s', (seconds, code) => {
    const secret = Secret.fromLatin1('12345678901234567890').base32;
    expect(stepOfCode(secret, code, new Date(seconds * 1000), 0)).toBe(Math.floor(seconds / 30));
    expect(stepOfCode(secret, code, new Date(seconds * 1000), Math.floor(seconds / 30))).toBeUndefined();
    expect(stepOfCode(secret, code, new Date((seconds + 90) * 1000), 0)).toBeUndefined();
  });

  test('is asked for besides the password; each code counts once, also twice at once; a recovery code opens once', async () => {
    const boss = await somebody('owner');
    const started = await boss.browser.send('post', '/api/session/factor');
    const { secret, address } = started.body as { secret: string; address: string };
    expect(address).toMatch(/^otpauth:\/\/totp\/Veglia:/);
    const codeNow = (): string => new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: now.getTime() });
    // Begun and not confirmed, it asks nothing.
    expect(codeOf(await new Browser().signIn(boss.name, boss.password))).toBe('ok');
    expect(codeOf(await boss.browser.send('put', '/api/session/factor', { code: '000000' }))).toBe('wrong-code');
    const { codes } = (await boss.browser.send('put', '/api/session/factor', { code: codeNow() })).body as { codes: string[] };
    expect(new Set(codes).size).toBe(8);
    const browser = new Browser();
    expect(codeOf(await browser.signIn(boss.name, boss.password))).toBe('code-needed');
    expect((await browser.session()).signedIn).toBeNull();
    // The code that confirmed it is used up.
    expect(codeOf(await browser.signIn(boss.name, boss.password, codeNow()))).toBe('wrong-code');
    pass(30_000);
    const both = await Promise.all([new Browser(), new Browser()].map((one) => one.signIn(boss.name, boss.password, codeNow())));
    expect(both.map(codeOf).sort()).toEqual(['ok', 'wrong-code']);
    expect(codeOf(await browser.signIn(boss.name, boss.password, codes[3]?.toLowerCase()))).toBe('ok');
    expect(codeOf(await new Browser().signIn(boss.name, boss.password, codes[3]))).toBe('wrong-code');
    // The wrong password says nothing of the factor.
    expect(codeOf(await new Browser().signIn(boss.name, 'wrong', codes[4]))).toBe('wrong-sign-in');
    expect(codeOf(await boss.browser.send('post', '/api/session/factor/end'))).toBe('ok');
    expect(codeOf(await new Browser().signIn(boss.name, boss.password))).toBe('ok');
  });
});

describe('accounts', () => {
  test('whoever leaves is out at once, and what they wrote stays theirs; they may come back', async () => {
    const tech = await somebody('technician');
    const job = intake(tech.id);
    await tech.browser.send('post', '/api/jobs', job);
    await confirmed();
    expect(codeOf(await owner().put(`/api/accounts/${tech.id}`).send({ left: true }))).toBe('ok');
    expect((await tech.browser.get('/api/jobs')).status).toBe(401);
    expect(codeOf(await new Browser().signIn(tech.name, tech.password))).toBe('wrong-sign-in');
    expect(codeOf(await owner().post(`/api/accounts/${tech.id}/invitation`).send({}))).toBe('not-found');
    const { entries } = (await owner().get(`/api/jobs/${job.id}`)).body as { entries: { by: string }[] };
    expect(entries[0]?.by).toBe(tech.id);
    expect(codeOf(await owner().put(`/api/accounts/${tech.id}`).send({ left: false }))).toBe('ok');
    pass(1000);
    expect(codeOf(await new Browser().signIn(tech.name, tech.password))).toBe('ok');
  });

  test('a role changed holds at the next request', async () => {
    const tech = await somebody('technician');
    await confirmed();
    await owner().put(`/api/accounts/${tech.id}`).send({ role: 'counter' });
    expect(codeOf(await tech.browser.get('/api/images'))).toBe('not-allowed');
  });

  test('the last owner can neither leave nor stop being one, also where two do it to each other at once', async () => {
    await confirmed();
    const people = (await owner().get('/api/accounts')).body as { accounts: unknown[] };
    const owners = people.accounts
      .map((one) => accountSchema.parse(one))
      .filter(({ role, state }) => role === 'owner' && state === 'active');
    // Whoever else is an owner of the tests before goes first.
    for (const one of owners.filter(({ id }) => id !== running.person))
      expect(codeOf(await owner().put(`/api/accounts/${one.id}`).send({ left: true }))).toBe('ok');
    expect(codeOf(await owner().put(`/api/accounts/${running.person}`).send({ left: true }))).toBe('last-owner');
    expect(codeOf(await owner().put(`/api/accounts/${running.person}`).send({ role: 'counter' }))).toBe('last-owner');
    const second = await somebody('owner');
    const both = await Promise.all([
      owner().put(`/api/accounts/${second.id}`).send({ role: 'technician' }),
      second.browser.send('put', `/api/accounts/${running.person}`, { role: 'technician' }),
    ]);
    expect(both.map(codeOf).filter((code) => code === 'ok')).toHaveLength(1);
    await running.store.models.people.update({ role: 'owner' }, { where: { id: running.person } });
  });

  test('two people of one name could not be told apart', async () => {
    await confirmed();
    const first = { id: uuidv7(), name: 'Odalys Fenn', role: 'technician' };
    expect((await owner().post('/api/accounts').send(first)).status).toBe(201);
    expect(
      codeOf(
        await owner()
          .post('/api/accounts')
          .send({ ...first, id: uuidv7(), name: 'odalys fenn' }),
      ),
    ).toBe('entry-conflict');
    expect(
      (
        await owner()
          .post('/api/accounts')
          .send({ ...first, id: uuidv7(), name: ' ' })
      ).status,
    ).toBe(400);
  });

  test('an invitation holds a week, and only the newest of a person', async () => {
    await confirmed();
    const id = uuidv7();
    await owner().post('/api/accounts').send({ id, name: 'Invited twice', role: 'technician' });
    const invite = async (): Promise<string> =>
      ((await owner().post(`/api/accounts/${id}/invitation`).send({})).body as { code: string }).code;
    const [old, fresh] = [await invite(), await invite()];
    const join = (code: string) => new Browser().send('post', '/api/session/join', { code, password: 'eleven wet ropes on deck' });
    expect(codeOf(await join(old))).toBe('wrong-code');
    const start = now;
    pass(8 * 86_400_000);
    expect(codeOf(await join(fresh))).toBe('wrong-code');
    now = start;
    expect(codeOf(await join(fresh))).toBe('ok');
  });

  test('what was done is on record, cannot be changed, and holds nothing secret', async () => {
    const tech = await somebody('technician');
    await new Browser().signIn(tech.name, 'a wrong guess of mine');
    await new Browser().signIn('my password by mistake', 'x');
    await tech.browser.get('/api/audit');
    const { lines } = (await owner().get('/api/audit')).body as { lines: unknown[] };
    const read = lines.map((one) => auditSchema.parse(one));
    expect(read.slice(0, 3).map(({ what, who }) => [what, who])).toEqual([
      ['refused', tech.name],
      ['sign-in-refused', null],
      ['sign-in-refused', tech.name],
    ]);
    expect(read.map(({ what }) => what)).toEqual(expect.arrayContaining(['invited', 'joined', 'account-made', 'confirmed']));
    expect(JSON.stringify(lines)).not.toMatch(/wrong guess|by mistake/);
    for (const sql of ['UPDATE audit SET what = $$x$$', 'DELETE FROM audit', 'TRUNCATE audit'])
      await expect(running.store.sequelize.query(sql)).rejects.toThrow(/permission denied|append-only/);
  });
});

describe('the first start', () => {
  test('only whoever sees the console becomes the owner, once', async () => {
    const empty = await openTestApp();
    // This one has its owner from the start of the test; its own code came from the same place.
    expect(await firstOwnerCode(empty.store)).toBeUndefined();
    await empty.store.models.people.update({ leftAt: noon }, { where: {} });
    const reply = await askUnknown(empty.app).get('/api/session');
    expect(sessionSchema.parse(reply.body)).toMatchObject({ signedIn: null, setUp: true, demo: false });
    const join = (code: string, name?: string) =>
      askUnknown(empty.app)
        .post('/api/session/join')
        .send({ code, ...(name === undefined ? {} : { name }), password: testPassword });
    expect(codeOf(await join('AAAA-BBBB-CCCC-DDDD-EEEE', 'Mallory'))).toBe('wrong-code');
    const [one, two] = [await firstOwnerCode(empty.store), await firstOwnerCode(empty.store)];
    expect(codeOf(await join(one ?? ''))).toBe('bad-request');
    const both = await Promise.all([join(one ?? '', 'Ottilie Brook'), join(two ?? '', 'Mallory')]);
    expect(both.map(codeOf).sort()).toEqual(['ok', 'wrong-code']);
    expect(sessionSchema.parse((await askUnknown(empty.app).get('/api/session')).body).setUp).toBe(false);
    await empty.close();
  });

  test('nobody is anybody without a password unless it is a demo, and then from this machine only', async () => {
    expect(codeOf(await new Browser().send('post', '/api/session/demo'))).toBe('not-allowed');
    const demo = await openTestApp({ demo: true });
    const be = (headers: Record<string, string> = {}) => askUnknown(demo.app).post('/api/session/demo').set(headers).send({});
    const inside = await be();
    expect(codeOf(inside)).toBe('ok');
    // The same database as a shop’s: what the demo let in is out.
    const shop = await openDoor(demo.store, demo.appUrl, { demo: false, encrypted: false });
    const app = createApp({
      store: demo.store,
      door: shop,
      log: pino({ level: 'silent' }),
      hosts: testHosts,
      ownAddress: () => testAddress,
    });
    expect((await askUnknown(app).get('/api/jobs').set('cookie', cookiesOf(inside))).status).toBe(401);
    await shop.close();
    expect(codeOf(await be({ 'x-forwarded-for': '192.0.2.7' }))).toBe('not-allowed');
    await demo.close();
  });
});

describe('reached from other machines', () => {
  test('a password is taken by TLS only, and the cookie goes no other way', async () => {
    const door = await openDoor(running.store, running.appUrl, { demo: false, encrypted: true });
    const app = createApp({ store: running.store, door, log: pino({ level: 'silent' }), hosts: testHosts, ownAddress: () => testAddress });
    const { name, password } = await somebody('technician');
    const signIn = (headers: Record<string, string>) => askUnknown(app).post('/api/session').set(headers).send({ name, password });
    expect(codeOf(await signIn({}))).toBe('needs-tls');
    expect(codeOf(await signIn({ 'x-forwarded-proto': 'http', 'x-forwarded-for': '192.0.2.7' }))).toBe('needs-tls');
    const reply = await signIn({ 'x-forwarded-proto': 'https', 'x-forwarded-for': '192.0.2.7', host: 'bench.example.org' });
    expect(codeOf(reply)).toBe('ok');
    for (const one of reply.headers['set-cookie'] as unknown as string[]) expect(one).toMatch(/^__Host-veglia.*; Secure/);
    // Without TLS anywhere: this machine itself, and nobody through a proxy.
    const plain = askUnknown(running.app).post('/api/session').set('x-forwarded-for', '192.0.2.7').send({ name, password });
    expect(codeOf(await plain)).toBe('needs-tls');
    await door.close();
  });
});
