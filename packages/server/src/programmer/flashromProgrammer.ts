/**
 * A programmer that the command flashrom drives. Each piece of work is one or two calls of it, without a shell, in a folder of its own that is gone
 * afterwards. It always holds that one call is under way at most, and that none outlives `close`.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { createReadStream, createWriteStream, existsSync } from 'node:fs';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  flashromArguments,
  readFlashrom,
  type ChipFound,
  type ChipImage,
  type ChipProgrammer,
  type ChipRead,
  type ChipVerified,
  type FlashromResult,
  type FlashromWork,
  type ProgrammerReady,
  type ProgrammerTrouble,
  type ProgrammerWork,
  type StopSignal,
} from '@veglia/core';

/** Its output is a few hundred lines at most; what is longer keeps its end. */
const mostOutput = 1_000_000;
/** Told to stop, it is given so long before it is stopped, milliseconds. */
const graceMs = 5000;
const fileName = 'chip.bin';

/** Where Debian puts it: not in the path of everybody. */
const places = [...(process.env.PATH ?? '').split(path.delimiter), '/usr/sbin', '/sbin', '/usr/local/sbin'];
/** The command, or undefined where it isn’t installed. */
export const findFlashrom = (): string | undefined =>
  places
    .filter((one) => path.isAbsolute(one))
    .map((one) => path.join(one, 'flashrom'))
    .find((one) => existsSync(one));

const undone: ProgrammerTrouble = { kind: 'not-understood', detail: '' };

/** A programmer by the value of flashrom’s -p. */
export class FlashromProgrammer implements ChipProgrammer {
  readonly #command: string;
  readonly #spec: string;
  #working = false;
  #child: ChildProcess | undefined;

  constructor(command: string, spec: string) {
    this.#command = command;
    this.#spec = spec;
  }

  probe(work: ProgrammerWork = {}): Promise<ProgrammerReady | ProgrammerTrouble> {
    return this.#alone(work, async (call) => {
      const said = await call('probe');
      return said.kind === 'ready' || isTrouble(said) ? said : undone;
    });
  }

  identify(work: ProgrammerWork = {}): Promise<ChipFound | ProgrammerTrouble> {
    return this.#alone(work, async (call) => {
      const found = await call('identify', work.chip);
      if (work.chip !== undefined) return found.kind === 'found' || isTrouble(found) ? found : undone;
      if (found.kind !== 'found') return isTrouble(found) ? found : undone;
      const named = await call('identify', found.chip);
      return named.kind === 'found' ? named : found;
    });
  }

  async read(work: ProgrammerWork = {}): Promise<ChipRead | ProgrammerTrouble> {
    // The folder goes when what is in it was read.
    const folder = await mkdtemp(path.join(tmpdir(), 'veglia-flashrom-'));
    const drop = (): Promise<void> => rm(folder, { recursive: true, force: true });
    const said = await this.#alone(
      work,
      async (call): Promise<ChipRead | ProgrammerTrouble> => {
        const done = await call('read', work.chip);
        if (done.kind !== 'done') return isTrouble(done) ? done : undone;
        const file = path.join(folder, fileName);
        // It ends well though the dump was not saved.
        const bytes = await stat(file).then(
          ({ size }) => size,
          () => 0,
        );
        if (bytes === 0) return { kind: 'broken-off', detail: '' };
        return { kind: 'read', bytes, content: gone(createReadStream(file), drop) };
      },
      folder,
    );
    if (said.kind !== 'read') await drop();
    return said;
  }

  erase(work: ProgrammerWork = {}): Promise<{ readonly kind: 'erased' } | ProgrammerTrouble> {
    return this.#alone(work, async (call) => {
      const said = await call('erase', work.chip);
      return said.kind === 'done' ? { kind: 'erased' as const } : isTrouble(said) ? said : undone;
    });
  }

  program(image: ChipImage, work: ProgrammerWork = {}): Promise<{ readonly kind: 'programmed' } | ProgrammerTrouble> {
    return this.#alone(work, async (call, save) => {
      await save(image);
      const said = await call('program', work.chip);
      return said.kind === 'done' ? { kind: 'programmed' as const } : isTrouble(said) ? said : undone;
    });
  }

  verify(image: ChipImage, work: ProgrammerWork = {}): Promise<ChipVerified | ProgrammerTrouble> {
    return this.#alone(work, async (call, save) => {
      await save(image);
      const said = await call('verify', work.chip);
      if (said.kind === 'differs') return said;
      return said.kind === 'done' ? { kind: 'equal' as const } : isTrouble(said) ? said : undone;
    });
  }

  close(): Promise<void> {
    this.#child?.kill('SIGKILL');
    return Promise.resolve();
  }

  async #alone<T>(
    { signal }: ProgrammerWork,
    does: (
      call: (work: FlashromWork, chip?: string) => Promise<FlashromResult>,
      save: (image: ChipImage) => Promise<void>,
    ) => Promise<T | ProgrammerTrouble>,
    given?: string,
  ): Promise<T | ProgrammerTrouble> {
    if (this.#working) return { kind: 'not-reached', detail: 'busy' };
    if (signal?.aborted === true) return { kind: 'cancelled', detail: '' };
    this.#working = true;
    const folder = given ?? (await mkdtemp(path.join(tmpdir(), 'veglia-flashrom-')));
    try {
      return await does(
        (work, chip) => this.#call(folder, work, chip, signal),
        (image) => pipeline(Readable.from(image.content()), createWriteStream(path.join(folder, fileName))),
      );
    } finally {
      this.#working = false;
      if (given === undefined) await rm(folder, { recursive: true, force: true });
    }
  }

  #call(cwd: string, work: FlashromWork, chip: string | undefined, signal: StopSignal | undefined): Promise<FlashromResult> {
    // Broken off while its folder was made or filled: nobody would tell the command any more.
    if (signal?.aborted === true) return Promise.resolve({ kind: 'cancelled', detail: '' });
    return new Promise((resolve) => {
      const child = spawn(this.#command, flashromArguments(work, this.#spec, fileName, chip), {
        cwd,
        env: { PATH: process.env.PATH, LC_ALL: 'C' },
        stdio: ['ignore', 'pipe', 'pipe'],
      });
      this.#child = child;
      // Each by itself: two pipes come in any order, and a line of one would stand in the middle of a line of the other.
      const said = { out: '', error: '' };
      child.stdout.on('data', (part: Buffer) => (said.out = (said.out + part.toString('latin1')).slice(-mostOutput)));
      child.stderr.on('data', (part: Buffer) => (said.error = (said.error + part.toString('latin1')).slice(-mostOutput)));
      let killing: NodeJS.Timeout | undefined;
      const stop = (): void => {
        child.kill('SIGTERM');
        killing = setTimeout(() => child.kill('SIGKILL'), graceMs);
      };
      signal?.addEventListener('abort', stop, { once: true });
      const end = (result: FlashromResult): void => {
        clearTimeout(killing);
        signal?.removeEventListener('abort', stop);
        this.#child = undefined;
        resolve(result);
      };
      child.once('error', (error: NodeJS.ErrnoException) => end({ kind: 'not-reached', detail: error.code ?? '' }));
      child.once('close', (code, ended) => {
        if (signal?.aborted === true) end({ kind: 'cancelled', detail: '' });
        else end(readFlashrom(work, ended === null ? (code ?? -1) : -1, `${said.out}\n${said.error}`));
      });
    });
  }
}

function isTrouble(said: FlashromResult): said is ProgrammerTrouble {
  return 'detail' in said;
}

async function* gone(content: AsyncIterable<Uint8Array>, drop: () => Promise<void>): AsyncGenerator<Uint8Array> {
  try {
    yield* content;
  } finally {
    await drop();
  }
}
