/** A technician at work: asks the way, does it, writes it down, until the set is cured or given up. */
import {
  believe,
  minutesToStage,
  notInBook,
  proofOf,
  stageOfPlace,
  type Belief,
  type Body,
  type BodyOf,
  type CaseInput,
  type CompiledPack,
  type Entry,
  type SetFacts,
  type Settings,
} from '@veglia/core';
import { randomFrom, seedOf } from '../set/index.ts';
import type { Opponent } from './opponent.ts';
import type { Choice, Way } from './ways.ts';

/** How a case is played. */
export interface PlayOptions {
  readonly opponent: Opponent;
  readonly way: Way;
  readonly compiled: CompiledPack;
  readonly set: SetFacts;
  readonly settings: Settings;
  readonly seed: number;
  /** Writes a changed symptom down as if it were the same fault still: for measuring what starting anew is worth. */
  readonly asOneFault?: boolean;
  /** Moves after which nobody goes on. */
  readonly most?: number;
}

/** An assembly as it was told to the bench, and whether as proven. */
export interface Told {
  readonly id: string;
  readonly probability: number;
  readonly proven: boolean;
}

/** A case, played to its end. */
export interface Play {
  readonly entries: readonly Entry[];
  readonly ending: 'cured' | 'given-up' | 'too-long';
  /** Labour, waits and parts, and the set when it was given up; minor units. */
  readonly costMinor: number;
  readonly minutes: number;
  readonly partsMinor: number;
  readonly tests: number;
  /** Parts bought, and those that no fault of the set called for. */
  readonly parts: number;
  readonly wrongParts: number;
  readonly firstPartRight: boolean | undefined;
  /** The likeliest assembly before each move, with its probability, and whether it was called proven. */
  readonly told: readonly Told[];
  /** What was called proven when the first part was bought; undefined: no part, or nothing proven. */
  readonly provenAtPart: string | undefined;
  readonly firstMove: Choice | undefined;
  /** Milliseconds each choice took. */
  readonly thought: readonly number[];
}

/** Trying everything after a cure that didn't hold, minutes. */
const proveMinutes = 10;
/** A count that no family's table has, for sets that keep none. */
const countOfNoTable = 7;
/** Counting two cycles of a blinking light, minutes. */
const blinkMinutes = 2;

/** A case from complaint to end, chosen by `way` and answered by `opponent`. */
export function play(
  { opponent, way, compiled, set, settings, seed, asOneFault = false, most = 60 }: PlayOptions,
  clock: () => number = () => 0,
): Play {
  const entries: Entry[] = [];
  const write = (body: Body): void => {
    const seq = entries.length + 1;
    entries.push({ id: `entry-${seq}`, seq, at: '2026-01-01T00:00:00Z', by: 'player', basedOn: seq - 1, body });
  };
  const random = randomFrom(seedOf(seed, 'player'));
  const rate = settings.rateMinorPerHour / 60;
  let cost = 0;
  let minutes = 0;
  let partsMinor = 0;
  let tests = 0;
  let parts = 0;
  let wrongParts = 0;
  let firstPartRight: boolean | undefined;
  const told: Told[] = [];
  let provenAtPart: string | undefined;
  let firstMove: Choice | undefined;
  const thought: number[] = [];
  const spend = (handsOn: number, wait = 0): void => {
    minutes += handsOn;
    cost += (handsOn + wait * settings.waitShare) * rate;
  };
  const report = (): void => {
    const complaint = opponent.complaint();
    if (complaint !== undefined) write({ kind: 'symptom.reported', v: 2, symptoms: [complaint] });
  };
  const ended = (ending: Play['ending']): Play => ({
    entries,
    ending,
    costMinor: cost,
    minutes,
    partsMinor,
    tests,
    parts,
    wrongParts,
    firstPartRight,
    told,
    provenAtPart,
    firstMove,
    thought,
  });

  let read: BodyOf<'blink.read'> | undefined;
  report();
  for (let move = 0; move < most; move += 1) {
    const input: CaseInput = { set, settings, entries };
    const started = clock();
    const belief = believe(input, compiled);
    const { layoutId, symptoms, blinkRead, state } = belief.interpretation;
    if (layoutId === undefined) return ended('given-up');
    if (symptoms.has('blinking') && !blinkRead) {
      const code = opponent.blink();
      spend(blinkMinutes);
      const colour = code?.colour as 'red' | undefined;
      const after = code?.after as 'repeats' | undefined;
      read = {
        kind: 'blink.read',
        v: 3,
        groups: code ? [...code.groups] : [countOfNoTable],
        ...(colour ? { colour } : {}),
        ...(after ? { after } : {}),
        cycles: 2,
      };
      write(read);
      continue;
    }
    const choice: Choice = way(belief, compiled, settings, layoutId, random);
    thought.push(clock() - started);
    const top = topOf(belief, compiled);
    told.push(top);
    firstMove ??= choice;
    if (choice.kind === 'give-up') {
      cost += settings.newSetMinor;
      return ended('given-up');
    }
    if (choice.kind === 'prove') {
      const last = entries.findLast(({ body }) => body.kind === 'test.answered')?.body;
      const test = last?.kind === 'test.answered' ? compiled.tests.get(last.test) : undefined;
      if (opponent.complaint() === undefined || (test && last?.kind === 'test.answered' && opponent.staysCured(test, last.of)))
        return ended('cured');
      // It was no cure: the symptom is back on the bench.
      spend(proveMinutes);
      report();
      continue;
    }
    if (choice.kind === 'test') {
      const { offer } = choice;
      tests += 1;
      spend(offer.effort.handsOn, offer.effort.wait);
      const outcome = opponent.perform(offer.test, offer.of);
      write({
        kind: 'test.answered',
        v: 2,
        test: offer.test.id,
        ...(offer.of === undefined ? {} : { of: offer.of }),
        outcome,
        sure: 'sure',
      });
      // Refitted, the board lets the old code come back: looked at, or another code with it out says little.
      if (read && outcome === 'changed') write(read);
      continue;
    }
    const { repair } = choice;
    const part = Math.round(repair.partShare * settings.newSetMinor);
    spend(repair.minutes + minutesToStage(stageOfPlace(repair.place, layoutId, compiled), state, compiled));
    cost += part;
    partsMinor += part;
    if (part > 0) {
      const right = opponent.wouldCure(repair);
      if (parts === 0 && top.proven) provenAtPart = top.id;
      parts += 1;
      if (!right) wrongParts += 1;
      firstPartRight ??= right;
    }
    const result = opponent.repair(repair);
    write({ kind: 'repair.done', v: 2, repair: repair.id, result: asOneFault && result === 'changed' ? 'unchanged' : result });
    if (result === 'cured') return ended('cured');
    if (result === 'changed' && !asOneFault) report();
  }
  cost += settings.newSetMinor;
  return ended('too-long');
}

function topOf(belief: Belief, compiled: CompiledPack): Told {
  const [top] = [...belief.assemblies].filter(([id]) => id !== notInBook).sort((a, b) => b[1] - a[1]);
  const id = top?.[0] ?? notInBook;
  return { id, probability: top?.[1] ?? 0, proven: proofOf(belief, id, compiled)?.met === true };
}
