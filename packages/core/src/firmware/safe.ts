/** What a step on a memory asks of the set before hands, clips or a programmer's supply reach it. */
import { stageOfPlace, type CompiledPack } from '../knowledge/index.ts';
import type { Entry, FlashDid, SetState } from '../ledger/index.ts';
import { consentsFor, mayWorkOn, standingAt, type Consent } from '../safety/index.ts';
import { flashInstruments } from './answers.ts';
import { gatesOf, type FlashAim, type FlashGate, type FlashSession } from './session.ts';

/** Why the set is not ready for a step. */
export type FlashUnsafe = 'open-first' | 'unplug-first' | 'down-first' | 'measure-first';

const byHand = new Set<FlashDid['step']>(['entered', 'fitted', 'way-out']);
const byProgrammer = new Set<FlashDid['step']>(['identified', 'read', 'boot-config', 'erased', 'blank', 'programmed', 'verified']);

/** Assemblies a memory may sit on, the likelier one first. */
const boards = ['main', 'combo', 'logic', 'tcon'];
/** The board of a memory, where nobody said which. */
export const boardOfMemory = (compiled: CompiledPack, layoutId: string | undefined): string | undefined =>
  boards.find((id) => compiled.layouts.get(layoutId ?? '')?.assemblies.includes(id));

/** Index into the pack’s stages: how far a set has to be opened to reach it. A layout that isn’t known is opened to its first. */
export function stageOfMemory(compiled: CompiledPack, layoutId: string | undefined): number {
  const board = boardOfMemory(compiled, layoutId);
  return board === undefined || layoutId === undefined ? 1 : stageOfPlace(board, layoutId, compiled);
}

const changesContent = new Set<FlashDid['step']>(['erased', 'programmed', 'fitted']);

/**
 * Cautions of a step, by id: of opening that far, and of the pack’s tests that a memory is read for; of its repairs where the content changes. Nobody reaches
 * into the set for a choice on the screen or a menu.
 */
export function flashCautions({ step }: FlashAim, compiled: CompiledPack, layoutId: string | undefined): string[] {
  if (!changesContent.has(step) && !byHand.has(step) && !byProgrammer.has(step) && step !== 'supply' && step !== 'started') return [];
  const stages = compiled.pack.stages.slice(1, stageOfMemory(compiled, layoutId) + 1);
  const answers = (by: readonly { readonly instrument: string }[] = []): boolean =>
    by.some(({ instrument }) => flashInstruments.some((one) => one === instrument));
  const own = changesContent.has(step)
    ? compiled.pack.repairs.filter(({ flashes }) => flashes !== undefined)
    : [...compiled.tests.values()].filter(({ observe }) => observe.outcomes.some(({ by }) => answers(by)));
  return [...new Set([...stages, ...own].flatMap(({ cautions }) => cautions))];
}

/** What the customer has still to agree to: other content than the set’s own costs settings and accounts. `live`: entries that still count. */
export function flashConsents(
  { step }: FlashAim,
  session: FlashSession,
  live: readonly Entry[],
  state: Pick<SetState, 'stage'>,
  compiled: CompiledPack,
  layoutId: string | undefined,
): Consent[] {
  if (layoutId === undefined || !changesContent.has(step)) return [];
  const other = step === 'fitted' || session.areas.some(({ chosen }) => chosen !== undefined && chosen.source !== 'own-set');
  const repair = compiled.repairsOf.get(layoutId)?.find(({ flashes }) => flashes === 'other-content');
  if (!other || !repair) return [];
  return consentsFor({ kind: 'repair', id: repair.id }, live, state, compiled, layoutId).filter((one) => one === 'data');
}

/**
 * Undefined: the step may be done. A clip goes on and comes off like a plug inside; a programmer that feeds the chip never meets a set under power.
 * `state` is what may be relied on (`standingAt`).
 */
export function flashUnsafe(
  { step }: FlashAim,
  session: FlashSession,
  state: Pick<SetState, 'stage' | 'plugged' | 'railsDown' | 'verified'>,
  layoutId: string | undefined,
  compiled: CompiledPack,
): FlashUnsafe | undefined {
  const board = boardOfMemory(compiled, layoutId);
  if ((step === 'supply' || byHand.has(step)) && state.stage < stageOfMemory(compiled, layoutId)) return 'open-first';
  if (byProgrammer.has(step)) {
    const supply = session.did.findLast((one) => one.step === 'supply');
    return state.plugged && supply?.step === 'supply' && !supply.feeds.includes('board') ? 'unplug-first' : undefined;
  }
  if (!byHand.has(step)) return undefined;
  if (state.plugged) return 'unplug-first';
  if (!state.railsDown && !state.verified) return 'down-first';
  return mayWorkOn(board, state, layoutId, compiled) ? undefined : 'measure-first';
}

/** All that a step still asks for; `open` where it asks for nothing. */
export interface FlashReadiness {
  readonly open: boolean;
  readonly gates: readonly FlashGate[];
  readonly unsafe?: FlashUnsafe;
  /** Cautions that nobody has read in this job yet, by id. */
  readonly unread: readonly string[];
  readonly consents: readonly Consent[];
}

/**
 * Whether a step may be done at `now` (milliseconds): by its evidence, by the state of the set, by what was read and agreed to. What is shown and what is
 * carried out ask this one function. `live`: entries that still count.
 */
export function flashReadiness(
  aim: FlashAim,
  session: FlashSession,
  job: {
    readonly live: readonly Entry[];
    readonly set: SetState & { readonly layout?: string | undefined };
    readonly cautionsRead: readonly string[];
  },
  compiled: CompiledPack,
  { now, lapseMinutes }: { readonly now: number; readonly lapseMinutes?: number },
): FlashReadiness {
  const { layout } = job.set;
  const gates = gatesOf(session, aim);
  const unsafe = flashUnsafe(aim, session, standingAt(job.set, now, lapseMinutes), layout, compiled);
  const unread = flashCautions(aim, compiled, layout).filter((id) => !job.cautionsRead.includes(id));
  const consents = flashConsents(aim, session, job.live, job.set, compiled, layout);
  const open = gates.length === 0 && unsafe === undefined && unread.length === 0 && consents.length === 0;
  return { open, gates, ...(unsafe === undefined ? {} : { unsafe }), unread, consents };
}
