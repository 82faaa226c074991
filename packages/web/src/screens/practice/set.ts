/** The made-up set of the practice job: which it is, and what it shows at each step. No screen in here. */
import type { NewJobInput } from '@veglia/contract';
import { expectedAt, instruments, liveEntries, runInstrument, type Body, type CompiledPack, type Entry, type NextStep } from '@veglia/core';
import { SimulatedSet, type Asked, type RepairResult } from '@veglia/simulators/set';

/** A short way to a proof: two looks from outside, the cover off, a reading, a board. */
const practice = { layout: 'led-tcon', family: 'quorvane.qk3', fault: 'tcon.fuse-open', seed: 5 } as const;

/** As it stands after the repairs in the ledger. Throws RangeError where the pack knows no such set. */
export function practiceSet(compiled: CompiledPack, entries: readonly Entry[]): SimulatedSet {
  const layout = compiled.layouts.get(practice.layout);
  const family = compiled.families.get(practice.family);
  if (!layout || !family) throw new RangeError(`the pack has no ${practice.layout} of ${practice.family}`);
  const set = new SimulatedSet({ layout, family, faults: [practice.fault], seed: practice.seed });
  for (const { body } of liveEntries(entries)) {
    const repair = body.kind === 'repair.done' && body.result !== 'not-tried' ? repairOf(compiled, body.repair) : undefined;
    if (repair) set.repair(repair);
  }
  return set;
}
const repairOf = (compiled: CompiledPack, id: string) => compiled.repairsOf.get(practice.layout)?.find((one) => one.id === id);

/** Whether this pack can be practised with. */
export function canPractise(compiled: CompiledPack): boolean {
  try {
    return practiceSet(compiled, []).complaint() !== undefined;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

/** The check-in of the practice job; no customer. Ids and time are the caller’s. */
export function practiceRequest(compiled: CompiledPack, by: string, at: string, newId: () => string, shelf: string): NewJobInput {
  const family = compiled.families.get(practice.family);
  const symptom = practiceSet(compiled, []).complaint();
  const bodies: Body[] = [
    { kind: 'job.opened', v: 3, set: { layout: practice.layout, family: practice.family } },
    { kind: 'symptom.reported', v: 2, symptoms: symptom === undefined ? [] : [symptom] },
    { kind: 'set.shelved', v: 1, shelf },
  ];
  return {
    id: newId(),
    by,
    customer: null,
    plate: { maker: family?.maker ?? '', model: family?.models[0] ?? '', serial: '' },
    entries: bodies.map((body) => ({ id: newId(), at, basedOn: 0, body })),
  };
}

/** What is seen when this step is done. */
export type Shown =
  | { readonly kind: 'outcome'; readonly outcome: string; readonly nth: number }
  | { readonly kind: 'repair'; readonly result: RepairResult; readonly nth: number }
  | { readonly kind: 'code'; readonly groups: readonly number[] }
  | { readonly kind: 'layout'; readonly layout: string }
  | { readonly kind: 'nothing' };

const results: readonly RepairResult[] = ['cured', 'unchanged', 'changed'];

/** `nth`: of the answers on the screen, from 0. */
export function shownBy(step: NextStep, compiled: CompiledPack, entries: readonly Entry[]): Shown {
  const set = practiceSet(compiled, entries);
  if (step.kind === 'layout') return { kind: 'layout', layout: practice.layout };
  if (step.kind === 'blink') return { kind: 'code', groups: set.blink()?.groups ?? [] };
  if (step.kind === 'repair') {
    const repair = repairOf(compiled, step.id);
    if (!repair) return { kind: 'nothing' };
    const result = set.repair(repair);
    return { kind: 'repair', result, nth: results.indexOf(result) };
  }
  const test = step.kind === 'test' ? compiled.tests.get(step.id) : undefined;
  if (!test) return { kind: 'nothing' };
  const { outcome } = set.perform(test, step.of);
  return { kind: 'outcome', outcome, nth: test.observe.outcomes.findIndex(({ id }) => id === outcome) };
}

/** What the probes are on at a point while this step is measured, volts and ohms; undefined for a step that doesn’t read it. */
export function probesAt(
  step: NextStep,
  at: string,
  compiled: CompiledPack,
  entries: readonly Entry[],
): { readonly volts: number; readonly ohms: number | null } | undefined {
  const test = step.kind === 'test' ? compiled.tests.get(step.id) : undefined;
  const reading =
    test &&
    practiceSet(compiled, entries)
      .perform(test, step.of)
      .readings.findLast(({ point }) => point === at);
  if (!reading) return undefined;
  if (reading.ohms !== undefined) return { volts: 0, ohms: reading.ohms };
  const { volts = 0 } = expectedAt(at, practice.layout, compiled, compiled.families.get(practice.family));
  return { volts: Number((reading.value * volts).toFixed(3)), ohms: null };
}

/** What stands in an instrument's fields after one more reading on the practice set: a search is read where it asks to be. */
export function fieldsShown(
  instrument: string,
  typed: Readonly<Record<string, string>>,
  compiled: CompiledPack,
  entries: readonly Entry[],
): Record<string, string> {
  const known = instruments.find(({ id }) => id === instrument);
  const outcome = known && runInstrument(known, typed);
  const asked = outcome?.ok ? askedBy(outcome.report.findings) : {};
  return practiceSet(compiled, entries).onInstrument(instrument, typed, asked) ?? {};
}
/** Where a report wants to be read next. */
function askedBy(findings: readonly { readonly code: string; readonly values: Readonly<Record<string, string | number>> }[]): Asked {
  const at = findings.find(({ code }) => code === 'short-read-next' || code === 'short-read-again')?.values.at;
  const lines = findings.find(({ code }) => code === 'mask-next')?.values.uncover;
  return {
    ...(typeof at === 'number' ? { at } : {}),
    ...(lines === undefined ? {} : { uncovered: String(lines).split(', ').map(Number) }),
  };
}
