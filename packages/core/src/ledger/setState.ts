/** What state the set on the bench is in, told from the ledger. */
import { stageOfPlace, type CompiledPack, type TestDefinition } from '../knowledge/index.ts';
import type { BodyOf, Lifted } from './bodies.ts';
import type { Entry } from './caseFile.ts';

/** When something was established, by whom, and where in the ledger. */
export interface Established {
  /** UTC, ISO 8601. */
  readonly at: string;
  readonly seq: number;
  readonly by: string;
}

/** What is on a memory, or that it is off its board, while it is read or written. */
export interface AtMemory {
  /** The memory as it is named on the board, and the session it was opened by. */
  readonly name: string;
  readonly session: string;
  readonly what?: 'clip' | 'wires' | 'clock-stop' | 'chip-off';
}

/** How the set stands on the bench, told from the ledger. */
export interface SetState {
  /** Index into the pack's stages: the furthest reached. */
  readonly stage: number;
  readonly plugged: boolean;
  /** Somebody recorded the plug itself; what a step done as written leaves behind then never unplugs it. */
  readonly plugTold?: boolean;
  readonly railsDown: boolean;
  readonly verified: boolean;
  readonly strap: boolean;
  readonly out: readonly string[];
  readonly bridged: readonly (readonly [string, string])[];
  readonly taped: readonly string[];
  /** Taken off a board and neither back nor replaced. */
  readonly lifted: readonly Lifted[];
  /** Memories that were worked on, and what of it is still on the set. */
  readonly atMemory?: readonly AtMemory[];
  /** Somebody looked and recorded it; `railsDown` and `verified` without these are only what a step done as written leaves behind. */
  readonly lookedDown?: Established | undefined;
  readonly measured?: (Established & { readonly volts: Readonly<Record<string, number>> }) | undefined;
}

/** A set as it comes over the counter: closed, unplugged, charge unknown. */
export const setOnArrival: SetState = {
  stage: 0,
  plugged: false,
  railsDown: false,
  verified: false,
  strap: false,
  out: [],
  bridged: [],
  taped: [],
  lifted: [],
};

const pair = (a: readonly [string, string]): string => [...a].sort().join(' ');
/** What says that the power may have changed. */
const powerKinds = new Set(['set.changed', 'test.answered', 'repair.done']);

/**
 * Somebody who hadn't seen that the rails were down, or the charge read, has done something meanwhile: neither may be relied on any
 * longer. Who wrote it knows what they did themselves.
 */
function withoutOvertaken(state: SetState, entry: Entry): SetState {
  const overtaken = (known: Established | undefined): boolean => known !== undefined && known.by !== entry.by && entry.basedOn < known.seq;
  if (!powerKinds.has(entry.body.kind) || (!overtaken(state.lookedDown) && !overtaken(state.measured))) return state;
  return { ...state, railsDown: false, verified: false, lookedDown: undefined, measured: undefined };
}

/** Plugs, bridges, tape and parts after a change. */
export function plugsAfter(
  state: SetState,
  change: BodyOf<'set.changed'>,
): Pick<SetState, 'out' | 'bridged' | 'taped' | 'lifted' | 'atMemory'> {
  const unbridged = new Set((change.unbridged ?? []).map(pair));
  return {
    out: union(state.out, change.pulled, change.restored),
    bridged: [...state.bridged.filter((one) => !unbridged.has(pair(one))), ...(change.bridged ?? [])],
    taped: union(state.taped, change.taped, change.untaped),
    lifted: withLifted(state.lifted, change.lifted, change.refitted),
    ...(state.atMemory ? { atMemory: state.atMemory } : {}),
  };
}

function withLifted(now: readonly Lifted[], added: readonly Lifted[] = [], refitted: readonly string[] = []): readonly Lifted[] {
  const kept = now.filter(({ name }) => !refitted.includes(name) && !added.some((one) => one.name === name));
  return [...kept, ...added].sort((a, b) => (a.name < b.name ? -1 : 1));
}

/** State after one entry. Plugging in ends "rails down" and "verified": whatever was measured before is over. */
export function stateAfter(before: SetState, entry: Entry, compiled: CompiledPack, layoutId: string | undefined): SetState {
  const state = withoutOvertaken(before, entry);
  const { body } = entry;
  if (body.kind === 'flash.step') return { ...state, atMemory: atMemoryAfter(state.atMemory ?? [], body) };
  if (body.kind === 'set.changed') {
    const stage = body.stage === undefined ? -1 : compiled.stageIds.indexOf(body.stage);
    const plugged = body.plugged ?? state.plugged;
    const now: Established = { at: entry.at, seq: entry.seq, by: entry.by };
    const down = body.railsDown ?? body.verified;
    return {
      stage: Math.max(state.stage, stage),
      plugged,
      plugTold: body.plugged !== undefined || state.plugTold === true,
      railsDown: plugged ? false : (body.railsDown ?? (body.verified === true || state.railsDown)),
      verified: plugged ? false : (body.verified ?? state.verified),
      strap: body.strap ?? state.strap,
      ...plugsAfter(state, body),
      lookedDown: plugged || down === false ? undefined : down === true ? now : state.lookedDown,
      measured: plugged || body.verified === false ? undefined : body.verified ? { ...now, volts: body.volts ?? {} } : state.measured,
    };
  }
  if (body.kind === 'repair.done' && body.result !== 'not-tried' && layoutId !== undefined) {
    const repair = compiled.repairsOf.get(layoutId)?.find((one) => one.id === compiled.currentId(body.repair));
    const stage = repair ? stageOfPlace(repair.place, layoutId, compiled) : 0;
    // Another board comes with all its parts; another part takes the place of the one that was taken off.
    const goes = ({ name, on }: Lifted): boolean => name === repair?.part || (repair?.kind === 'replace' && on === repair.assembly);
    const lifted = state.lifted.filter((one) => !goes(one));
    return { ...(body.anyway ? unsure(state) : state), stage: Math.max(state.stage, stage), lifted };
  }
  if (body.kind === 'test.answered' && body.outcome !== 'not-possible' && layoutId !== undefined) {
    const test = compiled.tests.get(compiled.currentId(body.test));
    if (!test || !compiled.fits(test, layoutId)) return state;
    const off = liftedFor(test, body.outcome).map((name) => ({ name, what: 'part' as const, ...onOf(name, layoutId, compiled) }));
    const lifted = withLifted(state.lifted, off);
    if (body.walked) return { ...state, lifted };
    const procedure = compiled.procedure(test, layoutId, body.of);
    const written = procedure.endsPlugged ?? (procedure.needs === 'plugged' ? true : state.plugged);
    const plugged = written || (state.plugged && state.plugTold === true);
    const stage = Math.max(state.stage, procedure.stage);
    if (plugged || body.anyway) return { ...unsure(state), stage, plugged, lifted };
    const drained = procedure.needs === 'rails-down' || procedure.needs === 'verified' || procedure.pulled.length > 0;
    const verified = state.verified || procedure.needs === 'verified';
    return { ...state, stage, plugged, lifted, railsDown: state.railsDown || drained, verified };
  }
  return state;
}

const putOn = { clip: 'clip', 'in-place': 'wires', lifted: 'chip-off', socket: 'chip-off' } as const;
const takesOff = { 'clip-off': 'clip', 'wires-off': 'wires', 'clock-runs': 'clock-stop', 'chip-fitted': 'chip-off' } as const;

/** What is on memories after a step: another clip takes the place of the first, and a chip that is off its board has none on it. */
function atMemoryAfter(now: readonly AtMemory[], { session, did }: BodyOf<'flash.step'>): readonly AtMemory[] {
  const others = now.filter((one) => one.session !== session);
  const own = now.filter((one) => one.session === session);
  const name = did.step === 'opened' ? did.name : own[0]?.name;
  if (name === undefined) return now;
  const on = new Set(own.flatMap(({ what }) => what ?? []));
  if (did.step === 'entered') {
    if (did.way !== 'in-place') for (const what of ['clip', 'chip-off'] as const) on.delete(what);
    on.add(putOn[did.way]);
    if (did.clockStopped === true) on.add('clock-stop');
  } else if (did.step === 'way-out')
    for (const one of did.checked) if (one !== 'supply-off' && one !== 'bridges-none') on.delete(takesOff[one]);
  return [...others, { name, session }, ...[...on].map((what) => ({ name, session, what }))];
}

/** What a test has taken off a board when it is answered: nothing where the answer is a number read before anything was. */
function liftedFor(test: TestDefinition, outcome: string): string[] {
  const decided = test.observe.outcomes.find(({ id }) => id === outcome)?.seen?.[0];
  const nth = decided && 'reading' in decided ? decided.reading?.n : undefined;
  const ends = nth === undefined ? test.do.length : (test.do.flatMap((step, index) => ('measure' in step ? [index] : []))[nth - 1] ?? 0);
  const known = test.observe.outcomes.some(({ id }) => id === outcome);
  return known ? test.do.slice(0, ends).flatMap((step) => ('lift' in step ? [step.lift] : [])) : [];
}

const onOf = (place: string, layoutId: string, compiled: CompiledPack): { readonly on?: string } => {
  const on = compiled.layouts.get(layoutId)?.points[place]?.on;
  return on === undefined ? {} : { on };
};

const unsure = (state: SetState): SetState => ({
  ...state,
  railsDown: false,
  verified: false,
  lookedDown: undefined,
  measured: undefined,
});

function union(now: readonly string[], added: readonly string[] = [], removed: readonly string[] = []): string[] {
  const result = new Set([...now, ...added]);
  for (const id of removed) result.delete(id);
  return [...result].sort();
}
