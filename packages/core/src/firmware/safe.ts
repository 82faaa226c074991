/** What a step on a memory asks of the set before hands, clips or a programmer's supply reach it. */
import { stageOfPlace, type CompiledPack } from '../knowledge/index.ts';
import type { FlashDid, SetState } from '../ledger/index.ts';
import { mayWorkOn } from '../safety/index.ts';
import type { FlashAim, FlashSession } from './session.ts';

/** Why the set is not ready for a step. */
export type FlashUnsafe = 'open-first' | 'unplug-first' | 'down-first' | 'measure-first';

const byHand = new Set<FlashDid['step']>(['entered', 'fitted', 'way-out']);
const byProgrammer = new Set<FlashDid['step']>(['identified', 'read', 'erased', 'blank', 'programmed', 'verified']);

/** Assemblies a memory may sit on, the likelier one first. */
const boards = ['main', 'combo', 'logic', 'tcon'];
/** The board of a memory, where nobody said which. */
export const boardOfMemory = (compiled: CompiledPack, layoutId: string | undefined): string | undefined =>
  boards.find((id) => compiled.layouts.get(layoutId ?? '')?.assemblies.includes(id));

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
  const opened = board === undefined || layoutId === undefined ? 1 : stageOfPlace(board, layoutId, compiled);
  if ((step === 'supply' || byHand.has(step)) && state.stage < opened) return 'open-first';
  if (byProgrammer.has(step)) {
    const supply = session.did.findLast((one) => one.step === 'supply');
    return state.plugged && supply?.step === 'supply' && !supply.feeds.includes('board') ? 'unplug-first' : undefined;
  }
  if (!byHand.has(step)) return undefined;
  if (state.plugged) return 'unplug-first';
  if (!state.railsDown && !state.verified) return 'down-first';
  return mayWorkOn(board, state, layoutId, compiled) ? undefined : 'measure-first';
}
