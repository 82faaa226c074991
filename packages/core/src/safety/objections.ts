/** Why a change may hurt somebody or the set, from the state it is done in. Nothing is forbidden: it is then "overridden". */
import { safeVolts } from '../electrical/index.ts';
import { stageOfPlace, type CompiledPack } from '../knowledge/index.ts';
import { plugsAfter, type BodyOf, type SetState } from '../ledger/index.ts';
import { chargePoints, isHot, movedBy, stillOut } from './places.ts';

/** Why a change of the set is not safe as it stands. */
export const objectionCodes = [
  'opened-plugged',
  'opened-unverified',
  'moved-live',
  'moved-rails-up',
  'moved-unverified',
  'strap-plugged',
  'strap-unverified',
  'down-plugged',
  'verified-plugged',
  'not-read-everywhere',
  'over-the-limit',
  'list-not-shown',
] as const;
/** One of `objectionCodes`. */
export type ObjectionCode = (typeof objectionCodes)[number];

/** An objection, and what it is about. */
export interface Objection {
  readonly code: ObjectionCode;
  /** What it is about: a node, a point, or what is still out. */
  readonly id?: string;
  /** Volts read there. */
  readonly value?: number;
}

/**
 * `state` is what may be relied on (`standingAt`). Within one change the order is: unplug, look or measure, open, strap on, move,
 * strap off, plug in.
 */
export function objectionsTo(
  change: BodyOf<'set.changed'>,
  state: SetState,
  compiled: CompiledPack,
  layoutId: string | undefined,
): Objection[] {
  const found: Objection[] = [];
  const plugged = change.plugged === false ? false : state.plugged;
  const verified = !plugged && (change.verified ?? state.verified);
  const down = !plugged && (change.railsDown ?? (verified || state.railsDown));
  if (change.railsDown && plugged) found.push({ code: 'down-plugged' });
  if (change.verified) {
    if (plugged) found.push({ code: 'verified-plugged' });
    for (const point of chargePoints(layoutId, compiled)) {
      const volts = change.volts?.[point];
      if (volts === undefined) found.push({ code: 'not-read-everywhere', id: point });
      else if (Math.abs(volts) >= safeVolts) found.push({ code: 'over-the-limit', id: point, value: volts });
    }
  }
  if (plugged && compiled.stageIds.indexOf(change.stage ?? '') > state.stage)
    found.push({ code: 'opened-plugged', id: change.stage ?? '' });
  const opened = compiled.stageIds.indexOf(change.stage ?? '');
  if (!plugged && !verified && compiled.pack.stages.some((one, index) => one.verified && index > state.stage && index <= opened))
    found.push({ code: 'opened-unverified', id: change.stage ?? '' });
  if (change.strap) {
    if (plugged || change.plugged) found.push({ code: 'strap-plugged' });
    else if (!verified) found.push({ code: 'strap-unverified' });
  }
  for (const id of new Set(movedBy(change))) {
    if (layoutId !== undefined && stageOfPlace(id, layoutId, compiled) === 0) continue;
    if (plugged) found.push({ code: 'moved-live', id });
    else if (!down) found.push({ code: 'moved-rails-up', id });
    else if (!verified && layoutId !== undefined && isHot(id, layoutId, compiled)) found.push({ code: 'moved-unverified', id });
  }
  if (change.plugged && !state.plugged) {
    if (state.strap && change.strap !== false) found.push({ code: 'strap-plugged' });
    const left = stillOut(plugsAfter(state, change));
    const shown = [...(change.stillOut ?? [])].sort();
    if (left.join('|') !== shown.join('|')) found.push({ code: 'list-not-shown', id: left.join(', ') });
  }
  return found;
}
