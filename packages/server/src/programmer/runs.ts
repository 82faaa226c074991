/**
 * Work of a programmer on the memory of a job.
 *
 * Always holds: nothing is done on a chip while its step is not open; before the content is touched the ledger says so; what came of it is in the ledger
 * before the run has ended, whoever still looks on. A dump is stored and published before it is an entry.
 */
import { setTimeout as after } from 'node:timers';
import { flashWords, stepOfWork, type Programmer, type ProgrammerRun, type RunResult, type StartRun } from '@veglia/contract';
import {
  DumpReader,
  flashBodies,
  flashReadiness,
  flashSessions,
  foldCase,
  InputRefused,
  liveEntries,
  oddOf,
  sizeOf,
  type AreaState,
  type ChipImage,
  type FlashAim,
  type FlashDid,
  type ProgrammerTrouble,
} from '@veglia/core';
import type { Logger } from 'pino';
import { v7 as uuidv7 } from 'uuid';
import { chunksOf } from '../files/store.ts';
import { ApiError } from '../http/apiError.ts';
import { safeError } from '../http/log.ts';
import { mostImageBytes, publishImage, readImage } from '../images/images.ts';
import { receive } from '../images/uploads.ts';
import { append, caseOfJob, findJob, readLedger } from '../jobs/ledger.ts';
import { requirePerson } from '../people.ts';
import { readShop } from '../shop.ts';
import type { Store } from '../store.ts';
import { cancelRun, findRun, runsUnderWay, sayEveryMs, sayRun, takeRun } from './shelf.ts';
import { reaches, type BenchProgrammer, type Programmers } from './programmers.ts';

/** Ended runs that are remembered: whoever left comes back within a day’s work. */
const mostKept = 200;
/** A programmer may take ten minutes, and what its chip takes at 10 kB/s: slower than any that is used (value of ours). */
const longestMs = (bytes: number): number => 600_000 + bytes / 10;
const usualBytes = 2 ** 26;

interface Open {
  readonly run: Run;
  readonly asked: StartRun;
  readonly area: AreaState | undefined;
}
type Run = { -readonly [K in keyof ProgrammerRun]: ProgrammerRun[K] };

/** The work under way, and what came of what was done before. */
export class ProgrammerRuns {
  readonly #store: Store;
  readonly #programmers: Programmers;
  readonly #log: Logger;
  readonly #runs = new Map<string, Run>();
  readonly #stops = new Map<string, AbortController>();
  readonly #ends = new Map<string, Promise<void>>();
  /** Programmer -> the run it is at. */
  readonly #busy = new Map<string, string>();
  /** Sessions whose chip is worked on: two programmers never reach for one. */
  readonly #sessions = new Set<string>();
  #saying: NodeJS.Timeout | undefined;

  constructor(store: Store, programmers: Programmers, log: Logger) {
    [this.#store, this.#programmers, this.#log] = [store, programmers, log];
  }

  async list(): Promise<Programmer[]> {
    const busy = await runsUnderWay(this.#store);
    return this.#programmers.all.map(({ id, name, kind }) => ({
      id,
      name,
      kind,
      memories: [...reaches],
      running: this.#busy.get(id) ?? busy.get(id) ?? null,
    }));
  }

  /** Also one of another process. Throws not-found. */
  async read(id: string): Promise<ProgrammerRun> {
    const run = this.#runs.get(id) ?? (await findRun(this.#store, id));
    if (!run) throw new ApiError('not-found');
    return run;
  }

  /** Throws not-found. A run that has ended stays as it is. */
  async cancel(id: string): Promise<ProgrammerRun> {
    const run = await this.read(id);
    if (this.#runs.has(id)) this.#stops.get(id)?.abort();
    else await cancelRun(this.#store, id);
    return run;
  }

  /** A sign of life of each run under way; one that another process wants stopped is stopped. */
  async say(): Promise<void> {
    for (const [id, stop] of this.#stops) {
      const run = this.#runs.get(id);
      if (run && (await sayRun(this.#store, run))) stop.abort();
    }
  }

  /** Until the run has ended. */
  async ended(id: string): Promise<ProgrammerRun> {
    await this.#ends.get(id);
    return this.read(id);
  }

  async close(): Promise<void> {
    for (const stop of this.#stops.values()) stop.abort();
    await Promise.all(this.#ends.values());
    await this.#programmers.close();
  }

  /** Throws not-found, unknown-job, unknown-person, step-not-open, programmer-busy, InputRefused. The same run asked for twice is one. */
  async start(programmerId: string, asked: StartRun): Promise<ProgrammerRun> {
    const known = this.#runs.get(asked.id) ?? (await findRun(this.#store, asked.id));
    if (known) return known;
    const programmer = this.#programmers.all.find(({ id }) => id === programmerId);
    if (!programmer) throw new ApiError('not-found');
    if (this.#busy.has(programmerId) || this.#sessions.has(asked.session)) throw new ApiError('programmer-busy');
    // Taken before anything is waited for: two that ask at once must not both find it free.
    this.#busy.set(programmerId, asked.id);
    this.#sessions.add(asked.session);
    try {
      const { open, bytes } = await this.#openRun(programmer, asked);
      await takeRun(this.#store, open.run);
      const stop = new AbortController();
      this.#stops.set(asked.id, stop);
      this.#runs.set(asked.id, open.run);
      this.#saying ??= setInterval(() => void this.say().catch(() => undefined), sayEveryMs);
      const overdue = after(() => stop.abort('overdue'), longestMs(bytes ?? usualBytes));
      const end = this.#work(programmer, open, stop.signal)
        .catch((error: unknown): RunResult => {
          this.#log.error({ err: safeError(error) }, 'a programmer’s work ended by an error');
          return { kind: 'broken-off', detail: '' };
        })
        .then(async (result) => {
          clearTimeout(overdue);
          await this.#end(
            programmerId,
            open.run,
            result.kind === 'cancelled' && stop.signal.reason === 'overdue' ? { ...result, kind: 'timed-out' } : result,
          );
        });
      this.#ends.set(asked.id, end);
      return open.run;
    } catch (error) {
      this.#busy.delete(programmerId);
      this.#sessions.delete(asked.session);
      throw error;
    }
  }

  async #end(programmerId: string, run: Run, result: RunResult): Promise<void> {
    run.endedAt = this.#store.now().toISOString();
    run.result = result;
    await sayRun(this.#store, run).catch((error: unknown) => this.#log.warn({ err: safeError(error) }, 'the end of a run was not stored'));
    this.#busy.delete(programmerId);
    this.#sessions.delete(run.session);
    this.#stops.delete(run.id);
    this.#ends.delete(run.id);
    if (this.#stops.size === 0) {
      clearInterval(this.#saying);
      this.#saying = undefined;
    }
    for (const id of [...this.#runs.keys()].slice(0, Math.max(0, this.#runs.size - mostKept)))
      if (!this.#stops.has(id)) this.#runs.delete(id);
  }

  /** Everything that is looked at before a chip is reached. */
  async #openRun(programmer: BenchProgrammer, asked: StartRun): Promise<{ open: Open; bytes: number | undefined }> {
    const store = this.#store;
    await requirePerson(store, asked.by);
    const job = await findJob(store, asked.job);
    const entries = await readLedger(store, asked.job);
    const live = liveEntries(entries);
    const session = flashSessions(live).find(({ id }) => id === asked.session);
    if (!session) throw new ApiError('not-found');
    if (!reaches.includes(session.opened.memory)) throw missing('programmer', 'a programmer for this kind of memory');
    const area = session.areas.find((one) => one.area === asked.area);
    if (asked.work !== 'identify' && !area) throw missing('area', 'an area of this session');
    if (asked.work === 'read' && asked.facts === undefined) throw missing('facts', 'what the dump is');
    const { compiled, input } = await caseOfJob(store, job, entries);
    const { set, cautionsRead, faults } = foldCase(input, compiled, 'cost', 'at-once');
    const aim: FlashAim = {
      step: stepOfWork[asked.work],
      ...(asked.work === 'identify' ? { of: asked.of ?? 'this' } : { area: area?.area ?? 'whole' }),
    };
    const { lapseMinutes } = (await readShop(store)).settings;
    const ready = flashReadiness(aim, session, { live, set, cautionsRead }, compiled, { now: store.now().getTime(), lapseMinutes });
    if (!ready.open) {
      const words = flashWords.en;
      const cautions = compiled.pack.cautions.filter(({ id }) => ready.unread.includes(id));
      throw new ApiError(
        'step-not-open',
        [
          ...ready.gates.map((gate) => words.gate[gate]),
          ...(ready.unsafe === undefined ? [] : [words.unsafe[ready.unsafe]]),
          ...cautions.map(({ text }) => text.en),
          ...(ready.consents.length > 0 ? [words.consentFirst] : []),
        ].map((value) => ({ code: 'not-open', where: asked.work, value })),
      );
    }
    const bytes = area === undefined ? undefined : (area.chosen?.bytes ?? sizeOf(session, area.area));
    // What is written goes onto the new chip where that is the plan.
    const writes = asked.work !== 'read' && asked.work !== 'identify';
    const of = aim.of ?? (writes && session.opened.plan === 'onto-new' ? 'new-one' : 'this');
    programmer.clip?.({ session: asked.session, of, layout: set.layout, job: asked.job, fault: faults[0]?.id, compiled });
    const run: Run = {
      id: asked.id,
      programmer: programmer.id,
      job: asked.job,
      session: asked.session,
      work: asked.work,
      area: area?.area ?? null,
      startedAt: store.now().toISOString(),
      endedAt: null,
      done: null,
      bytes: bytes ?? null,
      result: null,
    };
    return { open: { run, asked, area }, bytes };
  }

  /** A step, with what it answers: the ledger is read again, for others write to it meanwhile. */
  async #record({ asked }: Open, did: FlashDid): Promise<void> {
    const store = this.#store;
    const job = await findJob(store, asked.job);
    const entries = await readLedger(store, asked.job);
    const before = flashSessions(liveEntries(entries)).find(({ id }) => id === asked.session)?.did ?? [];
    const { compiled, input } = await caseOfJob(store, job, entries);
    const { layout } = foldCase(input, compiled, 'cost', 'at-once').set;
    const words = (id: string, outcome: string) => {
      const test = compiled.tests.get(id);
      return { test: test?.name.en ?? id, outcome: test?.observe.outcomes.find((one) => one.id === outcome)?.name.en ?? outcome };
    };
    const at = store.now().toISOString();
    const bodies = flashBodies(asked.session, did, before, { compiled, layout }, words);
    const drafts = bodies.map((body) => ({ id: uuidv7(), at, basedOn: job.lastSeq, body }));
    await append(store, asked.job, asked.by, drafts);
  }

  async #work(programmer: BenchProgrammer, open: Open, signal: AbortSignal): Promise<RunResult> {
    const { asked, run, area } = open;
    const { driver } = programmer;
    const work = {
      signal,
      chip: asked.chip,
      cold: asked.cold,
      progress: (done: number, bytes: number): void => void ([run.done, run.bytes] = [done, bytes]),
    };
    if (asked.work === 'identify' || !area) {
      const said = await driver.identify(work);
      return said.kind === 'found' ? said : plain(said);
    }
    const at = { area: area.area };
    /** The chip answers, and then the ledger says that its content is gone from here on; undefined: it may be touched. */
    const began = async (what: 'erase' | 'program'): Promise<RunResult | undefined> => {
      const there = await driver.identify(work);
      if (there.kind !== 'found') return plain(there);
      if (run.bytes !== null && there.bytes !== run.bytes) return { kind: 'size-differs', detail: `${there.bytes}` };
      await this.#record(open, { step: 'began', ...at, work: what, programmer: programmer.name.slice(0, 80) });
      return undefined;
    };

    switch (asked.work) {
      case 'read': {
        const read = await driver.read(work);
        return read.kind === 'read' ? this.#keep(open, read.content, at.area) : plain(read);
      }
      case 'blank': {
        const read = await driver.read(work);
        if (read.kind !== 'read') return plain(read);
        const first = await firstWritten(read.content);
        await this.#record(open, { step: 'blank', ...at, result: first === undefined ? 'blank' : 'not-blank', extent: 'whole' });
        return first === undefined ? { kind: 'blank' } : { kind: 'not-blank', first };
      }
      case 'erase': {
        const not = await began('erase');
        if (not) return not;
        const said = await driver.erase(work);
        if (said.kind === 'erased') await this.#record(open, { step: 'erased', ...at });
        return said.kind === 'erased' ? said : plain(said);
      }
      case 'program': {
        const image = await this.#imageOf(area);
        const not = await began('program');
        if (not) return not;
        const said = await driver.program(image, work);
        if (said.kind === 'programmed') await this.#record(open, { step: 'programmed', ...at, sha256: image.sha256 });
        return said.kind === 'programmed' ? said : plain(said);
      }
      case 'verify': {
        const image = await this.#imageOf(area);
        const said = await driver.verify(image, work);
        if (said.kind !== 'equal' && said.kind !== 'differs') return plain(said);
        const first = said.kind === 'differs' ? { first: said.first } : {};
        await this.#record(open, { step: 'verified', ...at, result: said.kind, extent: 'whole', ...first });
        return said;
      }
    }
  }

  /** The dump becomes an image, and only then an entry. */
  async #keep(open: Open, content: AsyncIterable<Uint8Array>, area: AreaState['area']): Promise<RunResult> {
    const { asked } = open;
    const store = this.#store;
    const id = uuidv7();
    const reader = new DumpReader();
    async function* hashed(): AsyncGenerator<Uint8Array> {
      for await (const part of content) {
        reader.add(part);
        yield part;
      }
    }
    await receive(store, id, 0, hashed(), mostImageBytes);
    const dump = reader.end();
    if (!asked.facts) throw new Error('a read without what it is');
    await publishImage(store, id, { by: asked.by, size: dump.bytes, sha256: dump.sha256, facts: asked.facts });
    await this.#record(open, {
      step: 'read',
      area,
      sha256: dump.sha256,
      bytes: dump.bytes,
      extent: 'whole',
      image: id,
      ...(asked.cold === true ? { cold: true } : {}),
      ...oddOf(dump),
    });
    return { kind: 'stored', image: id, sha256: dump.sha256, bytes: dump.bytes };
  }

  async #imageOf({ chosen }: AreaState): Promise<ChipImage & { readonly sha256: string }> {
    if (!chosen) throw new Error('no image chosen');
    const { size, sha256 } = await readImage(this.#store, chosen.image);
    // What the ledger names is what is written, or nothing is.
    if (sha256 !== chosen.sha256) throw new Error('the stored image is not the chosen one');
    return { bytes: size, sha256, content: () => chunksOf(this.#store, chosen.image) };
  }
}

const plain = ({ kind, detail, chips }: ProgrammerTrouble): RunResult => ({
  kind,
  detail,
  ...(chips === undefined ? {} : { chips: [...chips] }),
});
const missing = (where: string, expected: string): InputRefused => new InputRefused([{ code: 'schema', where, expected }]);

/** Place of the first byte that is not FF. */
async function firstWritten(content: AsyncIterable<Uint8Array>): Promise<number | undefined> {
  let at = 0;
  for await (const part of content) {
    const found = part.findIndex((byte) => byte !== 0xff);
    if (found >= 0) return at + found;
    at += part.length;
  }
  return undefined;
}
