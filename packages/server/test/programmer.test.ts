/** Chip programmers: the command flashrom on chips that it emulates, and work on the memory of a job with its gates. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { newJobSchema, type ProgrammerRun, type StartRun } from '@veglia/contract';
import { flashSessions, gatesOf, liveEntries, nextFlashStep, type ChipProgrammer, type FlashDid, type FlashSession } from '@veglia/core';
import { programmerConformance, type ProgrammerRig } from '@veglia/core/testing/programmer';
import { goodContent, seedOf, SimulatedSet, soundChip, type Chip } from '@veglia/simulators/set';
import { clipped, SimulatedProgrammer } from '@veglia/simulators/devices';
import { pino } from 'pino';
import { v7 as uuidv7 } from 'uuid';
import { createApp } from '../src/app.ts';
import { chunksOf } from '../src/files/store.ts';
import { listImages, publishImage } from '../src/images/images.ts';
import { receive } from '../src/images/uploads.ts';
import { append, readLedger } from '../src/jobs/ledger.ts';
import { takeIn } from '../src/jobs/jobs.ts';
import { FlashromProgrammer, findFlashrom } from '../src/programmer/flashromProgrammer.ts';
import { openProgrammers } from '../src/programmer/programmers.ts';
import { ProgrammerRuns } from '../src/programmer/runs.ts';
import { takeRun } from '../src/programmer/shelf.ts';
import { ask, draft, intake, openTestApp, testAddress, testHosts, type TestApp } from './support/testApp.ts';

const same = (a: Uint8Array | undefined, b: Uint8Array | undefined): boolean =>
  a !== undefined && b !== undefined && Buffer.compare(a, b) === 0;
const command = findFlashrom() ?? 'flashrom';
/** Chips that flashrom emulates: a small one, and one whose protection it emulates as well. */
const small = { emulate: 'M25P10.RES', chip: 'M25P10', bytes: 2 ** 17 } as const;
const protectable = { emulate: 'W25Q128FV', chip: 'W25Q128.V', bytes: 2 ** 24 } as const;

function emulatedRig(wanted: { readonly protectable: boolean }): Promise<ProgrammerRig> {
  const { emulate, chip, bytes } = wanted.protectable ? protectable : small;
  const folder = mkdtempSync(path.join(tmpdir(), 'veglia-conformance-'));
  const image = path.join(folder, 'chip.bin');
  writeFileSync(image, Buffer.alloc(bytes, 0xff));
  let spec = `dummy:emulate=${emulate},image=${image}`;
  /** What is plugged changes between two calls: a programmer for each. */
  const inner = (): FlashromProgrammer => new FlashromProgrammer(command, spec);
  let driver = inner();
  const programmer: ChipProgrammer = {
    probe: (work) => driver.probe(work),
    identify: (work) => driver.identify(work),
    read: (work) => driver.read(work),
    erase: (work) => driver.erase(work),
    program: (content, work) => driver.program(content, work),
    verify: (content, work) => driver.verify(content, work),
    close: () => driver.close(),
  };
  const plug = (as: string): Promise<void> => {
    spec = as;
    driver = inner();
    return Promise.resolve();
  };
  return Promise.resolve({
    programmer,
    bytes,
    chip,
    content: () => Promise.resolve(new Uint8Array(readFileSync(image))),
    fill: (content) => Promise.resolve(writeFileSync(image, content)),
    unplug: (what) => plug(what === 'chip' ? 'dummy' : 'nosuch'),
    protect: () => plug(`${spec},hwwp=yes,spi_status=0x9c`),
    close: async () => {
      await driver.close();
      rmSync(folder, { recursive: true, force: true });
    },
  });
}

programmerConformance('flashrom', emulatedRig);

describe('flashrom beside the conformance', () => {
  const left = (): string[] => readdirSync(tmpdir()).filter((name) => name.startsWith('veglia-flashrom-'));
  let rig: ProgrammerRig;
  beforeEach(async () => {
    rig = await emulatedRig({ protectable: false });
  });
  afterEach(() => rig.close());

  test('what it wrote is on the emulated chip byte for byte, and its folder is gone', async () => {
    const before = left();
    const content = goodContent(4).slice(0, small.bytes);
    await rig.programmer.program({
      bytes: content.length,
      content: async function* () {
        await Promise.resolve();
        yield content;
      },
    });
    expect(Buffer.from(await rig.content()).equals(Buffer.from(content))).toBe(true);
    expect(left()).toEqual(before);
  });
  test('the code of a chip that has one comes with its name', async () => {
    const image = path.join(mkdtempSync(path.join(tmpdir(), 'veglia-code-')), 'chip.bin');
    writeFileSync(image, Buffer.alloc(protectable.bytes, 0xff));
    expect(await new FlashromProgrammer(command, `dummy:emulate=W25Q128FV,image=${image}`).identify()).toEqual({
      kind: 'found',
      chip: 'W25Q128.V',
      maker: 'Winbond',
      // JEDEC identification of that chip, as its data sheet has it: EF 40 18.
      code: 'ef4018',
      bytes: protectable.bytes,
    });
    rmSync(path.dirname(image), { recursive: true });
  });
  test('two that answer alike are named, and one of them may be picked', async () => {
    const two = new FlashromProgrammer(command, 'dummy:emulate=SST25VF040.REMS');
    expect(await two.identify()).toEqual({ kind: 'several-chips', detail: '', chips: ['SST25LF040A', 'SST25VF040'] });
    expect(await two.identify({ chip: 'SST25VF040' })).toMatchObject({ kind: 'found', chip: 'SST25VF040', bytes: 2 ** 19 });
  });
  test('a command that isn’t there is not reached', async () => {
    expect(await new FlashromProgrammer('/nowhere/flashrom', 'dummy').probe()).toEqual({ kind: 'not-reached', detail: 'ENOENT' });
  });
  test('a message on one pipe in the middle of a line of the other is read all the same', async () => {
    const torn = path.join(mkdtempSync(path.join(tmpdir(), 'veglia-torn-')), 'flashrom');
    const lines = [
      "printf 'Using clock_gettime for '",
      'sleep 0.05',
      `printf 'Error: Unknown programmer "x". Valid choices are:\\n' >&2`,
      'sleep 0.05',
    ];
    writeFileSync(torn, ['#!/bin/sh', ...lines, "printf 'delay loops.\\n'", 'exit 1', ''].join('\n'), { mode: 0o755 });
    expect(await new FlashromProgrammer(torn, 'x').probe()).toMatchObject({ kind: 'not-reached' });
    rmSync(path.dirname(torn), { recursive: true });
  });
  test('told to stop, the command is gone', async () => {
    const slow = path.join(mkdtempSync(path.join(tmpdir(), 'veglia-slow-')), 'flashrom');
    writeFileSync(slow, '#!/bin/sh\nexec sleep 60\n', { mode: 0o755 });
    const stop = new AbortController();
    const asked = new FlashromProgrammer(slow, 'dummy').identify({ signal: stop.signal });
    setImmediate(() => stop.abort());
    expect(await asked).toEqual({ kind: 'cancelled', detail: '' });
    rmSync(path.dirname(slow), { recursive: true });
  });
});

describe('work on the memory of a job', () => {
  let app: TestApp;
  let driver: SimulatedProgrammer;
  let runs: ProgrammerRuns;
  beforeAll(async () => {
    app = await openTestApp();
  });
  afterAll(() => app.close());
  beforeEach(() => {
    driver = new SimulatedProgrammer({ bytesPerSecond: Infinity, pause: () => Promise.resolve(), seed: 5 });
    const all = [{ id: 'bench', name: 'Bench clip', kind: 'simulated' as const, driver }];
    runs = new ProgrammerRuns(app.store, { all, close: () => driver.close() }, pino({ level: 'silent' }));
  });
  afterEach(() => runs.close());

  const facts = { name: 'U402', memory: 'spi-nor', area: 'whole', source: 'own-set' } as const;
  const session = uuidv7();
  const everyCaution = async (): Promise<string[]> =>
    (await app.store.packs.compiled(await app.store.packs.currentHash())).pack.cautions.map(({ id }) => id);
  /** A job whose set lies open and dead, its chip reached and found. */
  async function bench(chip: Chip, more: readonly FlashDid[] = []): Promise<string> {
    driver.on = clipped(chip);
    const job = await takeIn(
      app.store,
      newJobSchema.parse(
        intake(app.person, {
          entries: [
            draft({ kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: 'quorvane.qk3' }, mayLoseData: true }),
            draft({ kind: 'symptom.reported', v: 2, symptoms: ['restart-loop'] }),
            draft({ kind: 'set.changed', v: 3, stage: 'back-off', plugged: false }),
            draft({ kind: 'set.changed', v: 3, railsDown: true }),
            draft({ kind: 'caution.read', v: 1, cautions: await everyCaution(), stage: 'back-off' }),
            draft({ kind: 'consent.given', v: 1, to: 'data' }),
          ],
        }),
      ),
      uuidv7,
    );
    await write(job.id, [
      { step: 'opened', memory: 'spi-nor', name: 'U402', areas: ['whole'], why: 'restart-loop', plan: 'rewrite' },
      { step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['programmer'] },
      { step: 'entered', way: 'clip', with: 'blue' },
      { step: 'identified', of: 'this', result: 'found', bytes: 2 ** 20 },
      ...more,
    ]);
    return job.id;
  }
  const write = (job: string, did: readonly FlashDid[]) =>
    append(
      app.store,
      job,
      app.person,
      did.map((one) => draft({ kind: 'flash.step', v: 1, session, did: one })),
    );
  const asked = (job: string, work: StartRun['work'], more: Partial<StartRun> = {}): StartRun => ({
    id: uuidv7(),
    by: app.person,
    job,
    session,
    work,
    ...(work === 'identify' ? {} : { area: 'whole' as const }),
    ...(work === 'read' ? { facts } : {}),
    ...more,
  });
  const run = async (job: string, work: StartRun['work'], more: Partial<StartRun> = {}): Promise<ProgrammerRun> => {
    const { id } = await runs.start('bench', asked(job, work, more));
    return runs.ended(id);
  };
  const sessionOf = async (job: string): Promise<FlashSession> => {
    const found = flashSessions(liveEntries(await readLedger(app.store, job))).at(-1);
    if (!found) throw new Error('no session');
    return found;
  };
  const due = async (job: string): Promise<string | undefined> => nextFlashStep(await sessionOf(job))?.step;
  async function choose(job: string, content: Uint8Array): Promise<void> {
    const image = uuidv7();
    await receive(app.store, image, 0, pieces(content), 2 ** 30);
    const { sha256, size } = await publishImage(app.store, image, {
      by: app.person,
      size: content.length,
      facts: { ...facts, source: 'own-library' },
    });
    await write(job, [{ step: 'chosen', area: 'whole', sha256, bytes: size, image, source: 'own-library', fit: 'fits' }]);
  }
  async function* pieces(content: Uint8Array): AsyncGenerator<Uint8Array> {
    await Promise.resolve();
    yield content;
  }
  const damaged = (): Chip => {
    const content = goodContent(8);
    content.fill(0xff, 0x3_0000, 0x4_0000);
    return soundChip(content);
  };

  test('read twice, erased, checked, written, verified: each result is in the ledger with its evidence, and the chip holds the image', async () => {
    const job = await bench(damaged());
    const before = driver.on?.content.slice() ?? new Uint8Array();
    const reads = [await run(job, 'read'), await run(job, 'read')].map(({ result }) => result);
    expect(reads[0]).toMatchObject({ kind: 'stored', bytes: 2 ** 20 });
    const [dump] = reads;
    if (dump?.kind !== 'stored') throw new Error('no dump');
    const kept: Buffer[] = [];
    for await (const part of chunksOf(app.store, dump.image)) kept.push(part);
    expect(Buffer.concat(kept).equals(before)).toBe(true);
    expect(await due(job)).toBe('chosen');
    await choose(job, goodContent(8));
    expect((await run(job, 'erase')).result).toEqual({ kind: 'erased' });
    expect((await run(job, 'blank')).result).toEqual({ kind: 'blank' });
    expect((await run(job, 'program')).result).toEqual({ kind: 'programmed' });
    expect((await run(job, 'verify')).result).toEqual({ kind: 'equal' });
    expect(await due(job)).toBe('way-out');
    expect(same(driver.on?.content, goodContent(8))).toBe(true);
    // Two equal reads are an answer on the Bench, as they are by hand.
    const answered = liveEntries(await readLedger(app.store, job)).flatMap(({ body }) =>
      body.kind === 'test.answered' ? [[body.test, body.outcome]] : [],
    );
    expect(answered).toContainEqual(['memory.read-twice', 'equal']);
  });

  test.each<readonly [string, StartRun['work'], (job: string) => Promise<unknown>, string]>([
    ['an erase before anything was read', 'erase', () => Promise.resolve(), 'The content is not read'],
    [
      'a write of nothing chosen',
      'program',
      async (job) => {
        await run(job, 'read');
        await run(job, 'read');
      },
      'The image to write is not chosen',
    ],
    [
      'a read with the set plugged in',
      'read',
      (job) => append(app.store, job, app.person, [draft({ kind: 'set.changed', v: 3, plugged: true })]),
      'Set is plugged in',
    ],
    [
      'a chip that is fed by two',
      'read',
      (job) => write(job, [{ step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['programmer', 'board'] }]),
      'More than one supply',
    ],
    [
      'a programmer set too high',
      'identify',
      (job) => write(job, [{ step: 'supply', ioVolts: 1.8, programmerVolts: 3.3, feeds: ['programmer'] }]),
      'above the chip’s I/O supply',
    ],
  ])('%s is refused, with what is missing, and the chip is not reached', async (_, work, prepare, sentence) => {
    const job = await bench(damaged());
    await prepare(job);
    const before = driver.on?.content.slice();
    const api = ask(
      createApp({
        store: app.store,
        door: app.door,
        log: pino({ level: 'silent' }),
        hosts: testHosts,
        ownAddress: () => testAddress,
        runs,
      }),
    );
    const reply = await api.post('/api/programmers/bench/runs').send(asked(job, work));
    expect([reply.status, (reply.body as { code: string }).code]).toEqual([409, 'step-not-open']);
    expect(JSON.stringify((reply.body as { problems: unknown }).problems)).toContain(sentence);
    expect(same(driver.on?.content, before)).toBe(true);
    expect(await runs.list()).toMatchObject([{ running: null }]);
  });

  test('a kind of memory that it can’t work on: refused, and the list says which it can', async () => {
    const job = await bench(damaged());
    await write(job, [{ step: 'opened', memory: 'emmc', name: 'U900', areas: ['user'], why: 'other', plan: 'keep-only' }]);
    await expect(runs.start('bench', asked(job, 'identify'))).rejects.toThrow('schema at programmer');
    expect(await runs.list()).toMatchObject([{ memories: ['spi-nor'] }]);
  });

  test('a caution nobody read, a consent nobody gave: the same', async () => {
    const job = await takeIn(app.store, newJobSchema.parse(intake(app.person)), uuidv7);
    await write(job.id, [
      { step: 'opened', memory: 'spi-nor', name: 'U402', areas: ['whole'], why: 'other', plan: 'rewrite' },
      { step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['programmer'] },
      { step: 'entered', way: 'clip' },
    ]);
    await append(app.store, job.id, app.person, [draft({ kind: 'set.changed', v: 3, stage: 'back-off', plugged: false })]);
    driver.on = clipped(soundChip());
    await expect(runs.start('bench', asked(job.id, 'identify'))).rejects.toThrow('step-not-open');
  });

  describe('broken at every step, nothing half-stored is a backup and the session goes on', () => {
    test.each([
      ['broken-off', 0],
      ['timed-out', 70_000],
      ['not-detected', 2 ** 20 - 1],
    ] as const)('%s after %i bytes', async (kind, afterBytes) => {
      const job = await bench(damaged());
      const images = async (): Promise<number> => (await listImages(app.store, undefined)).length;
      const at = await images();
      driver.fault = { work: 'read', afterBytes, kind };
      expect((await run(job, 'read')).result).toMatchObject({ kind });
      expect([await images(), await due(job)]).toEqual([at, 'read']);
      driver.fault = undefined;
      await run(job, 'read');
      await run(job, 'read');
      await choose(job, goodContent(8));

      driver.fault = { work: 'erase', afterBytes, kind };
      expect((await run(job, 'erase')).result).toMatchObject({ kind });
      expect(await due(job)).toBe('erased');
      expect(gatesOf(await sessionOf(job), { step: 'started' })).toContain('unfinished');
      driver.fault = undefined;
      await run(job, 'erase');
      await run(job, 'blank');

      driver.fault = { work: 'program', afterBytes, kind };
      expect((await run(job, 'program')).result).toMatchObject({ kind });
      expect(await due(job)).toBe('erased');
      driver.fault = undefined;
      for (const work of ['erase', 'blank', 'program'] as const) await run(job, work);

      driver.fault = { work: 'verify', afterBytes, kind };
      expect((await run(job, 'verify')).result).toMatchObject({ kind });
      expect(await due(job)).toBe('verified');
      driver.fault = undefined;
      expect((await run(job, 'verify')).result).toEqual({ kind: 'equal' });
    });

    test('an erase that never began (the chip went silent before) leaves the session as it was', async () => {
      const job = await bench(damaged());
      await run(job, 'read');
      await run(job, 'read');
      await choose(job, goodContent(8));
      driver.on = undefined;
      expect((await run(job, 'erase')).result).toEqual({ kind: 'not-detected', detail: '' });
      expect((await sessionOf(job)).areas[0]).toMatchObject({ unfinished: false, erased: false });
    });
    test('another chip than the one that was read is not erased', async () => {
      const job = await bench(damaged());
      await run(job, 'read');
      await run(job, 'read');
      await choose(job, goodContent(8));
      const other = soundChip(new Uint8Array(2 ** 19).fill(7));
      driver.on = clipped(other);
      expect((await run(job, 'erase')).result).toMatchObject({ kind: 'size-differs' });
      expect(same(driver.on.content, other.content)).toBe(true);
    });
    test('a database that fails while the dump is stored: no image, no entry, and the programmer is free again', async () => {
      const job = await bench(damaged());
      const { sequelize } = app.store;
      const genuine = sequelize.query.bind(sequelize);
      const failing = (...args: Parameters<typeof genuine>): unknown =>
        typeof args[0] === 'string' && args[0].includes('INSERT INTO chunks') ? Promise.reject(new Error('no space')) : genuine(...args);
      Object.assign(sequelize, { query: failing });
      const { result } = await run(job, 'read').finally(() => Object.assign(sequelize, { query: genuine }));
      expect(result).toEqual({ kind: 'broken-off', detail: '' });
      expect((await sessionOf(job)).areas[0]?.reads).toEqual([]);
      expect((await run(job, 'read')).result).toMatchObject({ kind: 'stored' });
    });
  });

  test('broken off by a person, it says so; asked for twice, it runs once; a second beside it is refused', async () => {
    const job = await bench(damaged());
    let release = (): void => undefined;
    const held = new Promise<void>((resolve) => (release = resolve));
    const slow = new SimulatedProgrammer({ bytesPerSecond: Infinity, pause: () => held, seed: 1 });
    slow.on = clipped(damaged());
    const own = new ProgrammerRuns(
      app.store,
      {
        all: [
          { id: 'slow', name: 'Slow', kind: 'simulated', driver: slow },
          { id: 'idle', name: 'Idle', kind: 'simulated', driver },
        ],
        close: () => slow.close(),
      },
      pino({ level: 'silent' }),
    );
    const first = asked(job, 'read');
    const started = await own.start('slow', first);
    expect(await own.start('slow', first)).toBe(started);
    await expect(own.start('slow', asked(job, 'read'))).rejects.toThrow('programmer-busy');
    // The same chip by another programmer: neither.
    await expect(own.start('idle', asked(job, 'read'))).rejects.toThrow('programmer-busy');
    expect(await own.list()).toMatchObject([{ running: first.id }, { running: null }]);
    await own.cancel(first.id);
    release();
    expect((await own.ended(first.id)).result).toEqual({ kind: 'cancelled', detail: '' });
    await own.close();
  });

  test('another process sees the run, may not take the programmer, and may break it off; one that is killed has broken off', async () => {
    const job = await bench(damaged());
    let release = (): void => undefined;
    const held = new Promise<void>((resolve) => (release = resolve));
    const slow = new SimulatedProgrammer({ bytesPerSecond: Infinity, pause: () => held, seed: 1 });
    slow.on = clipped(damaged());
    const processes = [1, 2].map(
      () =>
        new ProgrammerRuns(
          app.store,
          { all: [{ id: 'shared', name: 'Shared', kind: 'simulated', driver: slow }], close: () => Promise.resolve() },
          pino({ level: 'silent' }),
        ),
    );
    const [one, other] = processes as [ProgrammerRuns, ProgrammerRuns];
    const first = asked(job, 'read');
    await one.start('shared', first);
    expect(await other.read(first.id)).toMatchObject({ id: first.id, result: null });
    expect(await other.list()).toMatchObject([{ running: first.id }]);
    await expect(other.start('shared', asked(job, 'read'))).rejects.toThrow('programmer-busy');
    // Asked for again, and it comes to another process: the same run.
    expect(await other.start('shared', first)).toMatchObject({ id: first.id });
    await other.cancel(first.id);
    // Learnt with the next sign of life, a second later at most.
    await one.say();
    release();
    await one.ended(first.id);
    expect((await other.read(first.id)).result).toEqual({ kind: 'cancelled', detail: '' });

    // Killed in the middle: nothing more is heard of it.
    const lost = { ...(await other.read(first.id)), id: uuidv7(), endedAt: null, result: null };
    await takeRun(app.store, lost);
    expect((await other.read(lost.id)).result).toBeNull();
    await app.store.sequelize.query(`UPDATE programmer_runs SET seen_at = now() - interval '16 s' WHERE id = $1`, { bind: [lost.id] });
    expect((await other.read(lost.id)).result).toEqual({ kind: 'broken-off', detail: '' });
    await takeRun(app.store, { ...lost, id: uuidv7() });
    for (const process of processes) await process.close();
    await slow.close();
  });

  test('the demo has a programmer with the chip of the job’s simulated set, the same one each time, and a sound one for a new chip', async () => {
    const { all, close } = openProgrammers([], true);
    const simulated = all.find(({ id }) => id === 'simulated');
    const compiled = await app.store.packs.compiled(await app.store.packs.currentHash());
    const under = { session, layout: 'led-tcon', job: 'aaaa', fault: 'main.flash-content', compiled };
    const held = (of: 'this' | 'new-one') => {
      simulated?.clip?.({ ...under, of });
      return (simulated?.driver as SimulatedProgrammer).on;
    };
    const set = new SimulatedSet({
      layout: compiled.layouts.get('led-tcon')!,
      faults: ['main.flash-content'],
      seed: seedOf(1, 'aaaa'),
    });
    expect(same(held('this')?.content, set.chip().content)).toBe(true);
    expect(held('this')).toBe(held('this'));
    expect(held('new-one')?.content.every((byte) => byte === 0xff)).toBe(true);
    // A fault elsewhere in the set leaves its memory as it should be.
    simulated?.clip?.({ ...under, session: 'other', of: 'this', fault: 'tcon.fuse-open' });
    expect(same((simulated?.driver as SimulatedProgrammer).on?.content, goodContent(seedOf(1, 'aaaa')))).toBe(true);
    const emulated = all.find(({ id }) => id === 'emulated');
    expect(await emulated?.driver.identify()).toMatchObject({ kind: 'found', chip: 'W25Q128.V' });
    await close();
  });
});
