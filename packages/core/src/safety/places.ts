/** What of a layout lies inside the cover, what is hot, and where a charge has to be read. */
import { stageOfPlace, type CompiledPack } from '../knowledge/index.ts';
import type { BodyOf, SetState } from '../ledger/index.ts';

const pointOf = (place: string, layoutId: string, compiled: CompiledPack) => compiled.layouts.get(layoutId)?.points[place];

/** Whether the charge has to be read below the limit before anything is moved there. */
export function isHot(place: string, layoutId: string, compiled: CompiledPack): boolean {
  const layout = compiled.layouts.get(layoutId);
  if (layout?.hotInside && stageOfPlace(place, layoutId, compiled) > 0) return true;
  const point = pointOf(place, layoutId, compiled);
  return point ? point.hot : compiled.pack.assemblies.some((one) => one.id === place && one.hot === true);
}

/** Whether iron or hot air may go to a part: unplugged with its rails down, and the charge measured where the board is hot, or where it isn't said which it is. */
export function mayWorkOn(
  place: string | undefined,
  state: Pick<SetState, 'plugged' | 'railsDown' | 'verified'>,
  layoutId: string | undefined,
  compiled: CompiledPack,
): boolean {
  if (state.plugged) return false;
  if (state.verified) return true;
  return state.railsDown && place !== undefined && layoutId !== undefined && !isHot(place, layoutId, compiled);
}

/** Points to read before a set of this layout counts as verified; a layout that names none has its main capacitor read. */
export function chargePoints(layoutId: string | undefined, compiled: CompiledPack): readonly string[] {
  const points = Object.entries(compiled.layouts.get(layoutId ?? '')?.points ?? {});
  const named = points.filter(([, point]) => point.verify === true).map(([id]) => id);
  return named.length > 0 ? named : ['bulk'];
}

/** Of a set, what can be left in it. */
export type CanBeLeft = Pick<SetState, 'out' | 'bridged' | 'taped' | 'lifted' | 'atMemory'>;

/**
 * What is not as it was delivered: plugs out, bridges, tape, parts taken off, what a programmer left on a memory; in one order, each as one string.
 */
export function stillOut(state: CanBeLeft): string[] {
  return [
    ...state.out,
    ...state.bridged.map((pair) => `bridge ${[...pair].sort().join(' ')}`),
    ...state.taped.map((id) => `tape ${id}`),
    ...state.lifted.map(({ name, what }) => `${what} ${name}`),
    ...(state.atMemory ?? []).flatMap(({ name, what }) => (what === undefined ? [] : [`${what} ${name}`])),
  ].sort();
}

/** Everything a change moves: plugs, bridges, tape, and boards that parts are taken off. */
export const movedBy = (change: BodyOf<'set.changed'>): string[] => [
  ...(change.pulled ?? []),
  ...(change.restored ?? []),
  ...(change.bridged ?? []).flat(),
  ...(change.unbridged ?? []).flat(),
  ...(change.taped ?? []),
  ...(change.untaped ?? []),
  ...(change.lifted ?? []).flatMap(({ on }) => (on === undefined ? [] : [on])),
];
