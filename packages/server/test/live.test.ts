/** Others' writing, told over a WebSocket: against a real PostgreSQL and a real socket. */
import type { IncomingMessage } from 'node:http';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { livePath, liveMessageSchema, type LiveMessage } from '@veglia/contract';
import { WebSocket } from 'ws';
import { ask, draft, intake, openListening } from './support/testApp.ts';

let running: Awaited<ReturnType<typeof openListening>>;
let address: string;

beforeAll(async () => {
  running = await openListening();
  address = `127.0.0.1:${running.port}`;
});
afterAll(() => running.close());

interface Listening {
  readonly heard: LiveMessage[];
  /** Resolves with the first message that fits, heard already or later. */
  until(fits: (message: LiveMessage) => boolean): Promise<LiveMessage>;
  say(text: string): void;
  /** Says which jobs are on its screen. */
  watch(...jobs: string[]): void;
  close(): void;
}
async function listen(origin?: string): Promise<Listening> {
  const socket = new WebSocket(`ws://${address}${livePath}`, {
    headers: { cookie: running.cookie },
    ...(origin === undefined ? {} : { origin }),
  });
  const heard: LiveMessage[] = [];
  const waiting: { fits: (message: LiveMessage) => boolean; tell: (message: LiveMessage) => void }[] = [];
  socket.on('message', (data: Buffer) => {
    const message = liveMessageSchema.parse(JSON.parse(data.toString()));
    heard.push(message);
    for (const one of waiting) if (one.fits(message)) one.tell(message);
  });
  await new Promise<void>((resolve, reject) => {
    socket.once('open', resolve);
    socket.once('error', reject);
  });
  return {
    heard,
    until: (fits) => {
      const there = heard.find(fits);
      return there ? Promise.resolve(there) : new Promise((tell) => waiting.push({ fits, tell }));
    },
    say: (text) => socket.send(text),
    watch: (...jobs) => socket.send(JSON.stringify({ watch: jobs })),
    close: () => socket.terminate(),
  };
}
const addNote = (job: string, text: string) =>
  ask(running.app)
    .post(`/api/jobs/${job}/entries`)
    .send({ by: running.person, entries: [note(text)] })
    .expect(200);
const takeIn = async (): Promise<string> => {
  const job = intake(running.person);
  await ask(running.app).post('/api/jobs').send(job).expect(201);
  return job.id;
};
const note = (text: string) => draft({ kind: 'note.added', v: 1, text }, 2);

describe('who listens', () => {
  test('a socket opens for whoever is signed in, and for nobody else', async () => {
    const opens = (cookie: string): Promise<string> =>
      new Promise((resolve) => {
        const socket = new WebSocket(`ws://${address}${livePath}`, { headers: { cookie } });
        socket.once('open', () => (socket.terminate(), resolve('open')));
        socket.once('error', (error) => resolve(error.message));
      });
    expect(await opens(running.cookie)).toBe('open');
    for (const cookie of ['', 'veglia=s%3Amade-up.x', running.cookie.replace(/veglia=s%3A./, 'veglia=s%3A_')])
      expect(await opens(cookie)).toMatch(/401/);
  });
  test('whoever was let go is looked up again, and hears nothing more', async () => {
    const still = await running.door.watch({ headers: { cookie: running.cookie }, url: livePath } as IncomingMessage);
    expect(await still?.()).toBe(true);
    await running.store.models.people.update({ leftAt: new Date() }, { where: { id: running.person } });
    expect(await still?.()).toBe(false);
    await running.store.models.people.update({ leftAt: null }, { where: { id: running.person } });
  });
});

describe('what was written', () => {
  test('is told to all who listen, as job and seq and nothing else', async () => {
    const job = await takeIn();
    const [one, two] = await Promise.all([listen(), listen(`http://${address}`)]);
    await ask(running.app)
      .post(`/api/jobs/${job}/entries`)
      .send({ by: running.person, entries: [note('a'), note('b')] })
      .expect(200);
    for (const listener of [one, two]) {
      expect(await listener.until((message) => 'job' in message && message.job === job)).toEqual({ job, seq: 4 });
      listener.close();
    }
  });

  test('what is on the screen comes at once, everything else gathered, and what is not said to be shown at once too', async () => {
    const [mine, other] = [await takeIn(), await takeIn()];
    const [bench, shelves, old] = await Promise.all([listen(), listen(), listen()]);
    bench.watch(mine.toUpperCase());
    shelves.watch();
    // What a browser says is taken in order: once this one is answered, both have been.
    await addNote(mine, 'first');
    await bench.until((message) => 'job' in message && message.seq === 3);
    await shelves.until((message) => 'jobs' in message);
    for (const text of ['a', 'b', 'c']) await addNote(other, text);
    await addNote(mine, 'second');
    const gathered = (job: string, seq: number) => (message: LiveMessage) =>
      'jobs' in message && message.jobs.some((one) => one.job === job && one.seq === seq);
    await Promise.all([shelves.until(gathered(other, 5)), shelves.until(gathered(mine, 4)), bench.until(gathered(other, 5))]);
    const alone = ({ heard }: Listening) => heard.flatMap((message) => ('job' in message ? [[message.job, message.seq]] : []));
    expect(alone(bench).filter(([, seq]) => Number(seq) > 2)).toEqual([
      [mine, 3],
      [mine, 4],
    ]);
    expect(alone(shelves).filter(([, seq]) => Number(seq) > 3)).toEqual([]);
    expect(alone(old)).toEqual(
      expect.arrayContaining([
        [other, 3],
        [other, 4],
        [other, 5],
        [mine, 4],
      ]),
    );
    expect(old.heard.some((message) => 'jobs' in message)).toBe(false);
    for (const one of [bench, shelves, old]) one.close();
  });

  test.each([
    '',
    'watch',
    '[]',
    '{"watch":"x"}',
    '{"watch":["x"]}',
    `{"watch":${JSON.stringify(Array(9).fill('01890000-0000-7000-8000-0000000000aa'))}}`,
  ])('a browser that says %j goes on hearing everything', async (said) => {
    const job = await takeIn();
    const listener = await listen();
    listener.say(said);
    await addNote(job, 'heard');
    expect(await listener.until((message) => 'job' in message && message.job === job && message.seq === 3)).toEqual({ job, seq: 3 });
    listener.close();
  });

  test('and is fetched from where one was: only what lacks', async () => {
    const job = await takeIn();
    await ask(running.app)
      .post(`/api/jobs/${job}/entries`)
      .send({ by: running.person, entries: [note('a'), note('b')] })
      .expect(200);
    const after = async (seq: number | string) => ask(running.app).get(`/api/jobs/${job}/entries?after=${seq}`);
    expect((await after(2)).body).toMatchObject({
      lastSeq: 4,
      entries: [
        { seq: 3, body: { text: 'a' } },
        { seq: 4, body: { text: 'b' } },
      ],
    });
    expect((await after(4)).body).toEqual({ entries: [], lastSeq: 4 });
    expect(await after('x')).toMatchObject({ status: 400, body: { code: 'bad-request' } });
    expect((await ask(running.app).get(`/api/jobs/${running.person}/entries`)).status).toBe(404);
  });
});

test('a page of another origin may not listen', async () => {
  await expect(listen('http://elsewhere.example')).rejects.toThrow('403');
});

test('the database’s connection lost: listened to again, and everybody told to look', async () => {
  const listener = await listen();
  await running.store.sequelize.query(
    "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query LIKE 'LISTEN%' AND datname = current_database()",
  );
  expect(await listener.until((message) => 'resync' in message)).toEqual({ resync: true });
  const job = await takeIn();
  expect(await listener.until((message) => 'job' in message && message.job === job)).toMatchObject({ job });
  listener.close();
});
