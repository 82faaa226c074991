/** What state the set on the bench is in, told from the ledger. */
import type { CompiledPack } from '../knowledge/index.ts';
import type { Entry } from './caseFile.ts';

export interface SetState {
  /** Index into the pack's stages: the furthest reached. */
  readonly stage: number;
  readonly plugged: boolean;
  readonly railsDown: boolean;
  readonly verified: boolean;
  readonly strap: boolean;
  readonly out: readonly string[];
  readonly bridged: readonly (readonly [string, string])[];
  readonly taped: readonly string[];
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
};

const pair = (a: readonly [string, string]): string => [...a].sort().join(' ');

/** State after one entry. Plugging in ends "rails down" and "verified": whatever was measured before is over. */
export function stateAfter(state: SetState, entry: Entry, compiled: CompiledPack, layoutId: string | undefined): SetState {
  const { body } = entry;
  if (body.kind === 'set.changed') {
    const stage = body.stage === undefined ? -1 : compiled.stageIds.indexOf(body.stage);
    const plugged = body.plugged ?? state.plugged;
    const unbridged = new Set((body.unbridged ?? []).map(pair));
    return {
      stage: Math.max(state.stage, stage),
      plugged,
      railsDown: plugged ? false : (body.railsDown ?? (body.verified === true || state.railsDown)),
      verified: plugged ? false : (body.verified ?? state.verified),
      strap: body.strap ?? state.strap,
      out: union(state.out, body.pulled, body.restored),
      bridged: [...state.bridged.filter((one) => !unbridged.has(pair(one))), ...(body.bridged ?? [])],
      taped: union(state.taped, body.taped, body.untaped),
    };
  }
  if (body.kind === 'repair.done' && body.result !== 'not-tried' && layoutId !== undefined) {
    const repair = compiled.repairsOf.get(layoutId)?.find((one) => one.id === compiled.currentId(body.repair));
    const stage = compiled.stageIds.indexOf(compiled.layouts.get(layoutId)?.access[repair?.assembly ?? ''] ?? '');
    return { ...state, stage: Math.max(state.stage, stage) };
  }
  if (body.kind === 'test.answered' && body.outcome !== 'not-possible' && layoutId !== undefined) {
    const test = compiled.tests.get(compiled.currentId(body.test));
    if (!test || !compiled.fits(test, layoutId)) return state;
    const procedure = compiled.procedure(test, layoutId, body.of);
    const plugged = procedure.endsPlugged ?? (procedure.needs === 'plugged' ? true : state.plugged);
    const drained = !plugged && (procedure.needs === 'rails-down' || procedure.needs === 'verified' || procedure.pulled.length > 0);
    return {
      ...state,
      stage: Math.max(state.stage, procedure.stage),
      plugged,
      railsDown: plugged ? false : state.railsDown || drained,
      verified: plugged ? false : state.verified || procedure.needs === 'verified',
    };
  }
  return state;
}

function union(now: readonly string[], added: readonly string[] = [], removed: readonly string[] = []): string[] {
  const result = new Set([...now, ...added]);
  for (const id of removed) result.delete(id);
  return [...result].sort();
}
