/** The chip programmers of this server: those its settings name, and the stand-ins of the demo. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { Programmer } from '@veglia/contract';
import type { ChipProgrammer, CompiledPack, FlashAim } from '@veglia/core';
import { seedOf, SimulatedSet, soundChip } from '@veglia/simulators/set';
import { clipped, SimulatedProgrammer, type Clipped } from '@veglia/simulators/devices';
import { FlashromProgrammer, findFlashrom } from './flashromProgrammer.ts';

/** As the settings have it: a name to be shown, and the value of flashrom’s -p. */
export interface ProgrammerSetting {
  readonly name: string;
  readonly spec: string;
}

/** What a simulated programmer is told before each piece of work: whose chip is under its clip. */
export interface UnderClip {
  readonly session: string;
  readonly of: FlashAim['of'];
  readonly layout: string | undefined;
  readonly job: string;
  /** The likeliest fault of the job when its chip is first met. */
  readonly fault: string | undefined;
  readonly compiled: CompiledPack;
}
/** Both work on serial flash: nothing else answers them. */
export const reaches: Programmer['memories'] = ['spi-nor'];
/** A programmer of this server. */
export interface BenchProgrammer {
  readonly id: string;
  readonly name: string;
  readonly kind: Programmer['kind'];
  readonly driver: ChipProgrammer;
  /** Only the simulated one: puts the chip under its clip. */
  readonly clip?: (under: UnderClip) => void;
}

/** All of them, and what has to be let go of at the end. */
export interface Programmers {
  readonly all: readonly BenchProgrammer[];
  readonly close: () => Promise<void>;
}

/** Bytes a second: fast enough to be watched, slow enough to be broken off. */
const simulatedSpeed = 2 ** 20;
const emulatedChip = { name: 'W25Q128FV', bytes: 2 ** 24 } as const;

/** The chip of a job’s simulated set, with what its likeliest fault does to it; a sound one where its layout has no board for that. */
function chipUnder({ job, of, layout, fault, compiled }: UnderClip): Clipped {
  const seed = seedOf(1, job);
  const board = compiled.layouts.get(layout ?? '');
  if (of === 'good-one' || of === 'new-one' || !board) return clipped(soundChip());
  try {
    return clipped(new SimulatedSet({ layout: board, faults: fault === undefined ? [] : [fault], seed }).chip());
  } catch (error) {
    if (error instanceof RangeError) return clipped(soundChip());
    throw error;
  }
}

function simulated(): BenchProgrammer {
  const driver = new SimulatedProgrammer({ bytesPerSecond: simulatedSpeed, pause: (ms) => pause(ms), seed: 1 });
  const chips = new Map<string, Clipped>();
  const clip = (under: UnderClip): void => {
    const key = `${under.session} ${under.of ?? 'this'}`;
    const known = chips.get(key) ?? chipUnder(under);
    chips.set(key, known);
    driver.on = known;
  };
  return { id: 'simulated', name: 'Simulated programmer', kind: 'simulated', driver, clip };
}

/** A real flashing tool with a chip that it emulates itself, in a file of ours. */
function emulated(command: string, folder: string): BenchProgrammer {
  const image = path.join(folder, 'emulated.bin');
  writeFileSync(image, Buffer.alloc(emulatedChip.bytes, 0xff));
  const spec = `dummy:emulate=${emulatedChip.name},image=${image}`;
  return { id: 'emulated', name: 'flashrom, emulated chip', kind: 'flashrom', driver: new FlashromProgrammer(command, spec) };
}

/** Opens them; a setting without the command on this machine stays listed, and its work is not reached. */
export function openProgrammers(settings: readonly ProgrammerSetting[], demo: boolean): Programmers {
  const command = findFlashrom();
  const folder = demo && command !== undefined ? mkdtempSync(path.join(tmpdir(), 'veglia-emulated-')) : undefined;
  const all: BenchProgrammer[] = settings.map(({ name, spec }, index) => ({
    id: `programmer-${index + 1}`,
    name,
    kind: 'flashrom' as const,
    driver: new FlashromProgrammer(command ?? 'flashrom', spec),
  }));
  if (demo) all.push(simulated());
  if (folder !== undefined && command !== undefined) all.push(emulated(command, folder));
  return {
    all,
    async close() {
      await Promise.all(all.map(({ driver }) => driver.close()));
      if (folder !== undefined) rmSync(folder, { recursive: true, force: true });
    },
  };
}
