/** What the shop has seen of images and settings: on which board and panel, and whether the set started. */
import type { FlashDid } from '../ledger/index.ts';
import { samePrinted } from './fit.ts';
import type { FlashSession } from './session.ts';

type Target = Pick<Extract<FlashDid, { step: 'target' }>, 'board' | 'panel'>;

/** An image that was written into a set whose board is known, and what the set did then. */
export interface FlashTrial {
  readonly sha256: string;
  readonly board: string;
  readonly panel?: string | undefined;
  readonly revision?: string | undefined;
  readonly result: NonNullable<FlashSession['started']>;
}
/** A setting that a started set was left with; `sets`: how many. */
export interface WonSetting {
  readonly name: string;
  readonly to: string;
  readonly sets: number;
}

/** What the set is, as it was written down last. */
export const targetOf = ({ did }: Pick<FlashSession, 'did'>): Extract<FlashDid, { step: 'target' }> | undefined =>
  did.findLast((one): one is Extract<FlashDid, { step: 'target' }> => one.step === 'target');

/** Trials of a session: each image that was chosen, written, and started on. */
export function trialsOf(session: FlashSession): FlashTrial[] {
  const target = targetOf(session);
  const { started } = session;
  if (target?.board === undefined || started === undefined) return [];
  const { board, panel, revision } = target;
  return session.areas
    .filter(({ chosen, programmed }) => chosen !== undefined && programmed === chosen.sha256)
    .map(({ programmed }) => ({
      sha256: programmed ?? '',
      board,
      ...(panel === undefined ? {} : { panel }),
      ...(revision === undefined ? {} : { revision }),
      result: started,
    }));
}

/**
 * How often an image started a set of this board and panel, and how often it made one worse. A set that went on as before says nothing of the image: its
 * fault was elsewhere.
 */
export function hitsAndMisses(sha256: string, target: Target, trials: readonly FlashTrial[]): { hits: number; misses: number } {
  const such = trials.filter(
    (one) => one.sha256 === sha256 && samePrinted(one.board, target.board) && samePrinted(one.panel, target.panel),
  );
  return { hits: such.filter(({ result }) => result === 'starts').length, misses: such.filter(({ result }) => result === 'failed').length };
}

/** Settings of sets of this board and panel that started, the commonest first; of each set what it was left with. */
export function wonSettings(sessions: readonly FlashSession[], target: Target): WonSetting[] {
  const sets = new Map<string, WonSetting>();
  for (const session of sessions) {
    const of = targetOf(session);
    if (session.started !== 'starts' || !samePrinted(of?.board, target.board) || !samePrinted(of?.panel, target.panel)) continue;
    const left = new Map<string, string>();
    for (const one of session.did) if (one.step === 'setting') left.set(one.name.toLowerCase(), one.to);
    for (const [name, to] of left) {
      const key = `${name}\n${to.toLowerCase()}`;
      sets.set(key, { name, to, sets: (sets.get(key)?.sets ?? 0) + 1 });
    }
  }
  return [...sets.values()].sort((a, b) => b.sets - a.sets || (a.name < b.name ? -1 : 1));
}
