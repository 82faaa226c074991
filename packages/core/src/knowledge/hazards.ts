/** What a step can do to somebody or to the set, told from its verbs and from where it goes. */
import type { PlacedRepair } from './applies.ts';
import type { Hazard, Layout, Pack, Step, TestDefinition } from './schema.ts';

const liveStates = ['standby', 'starting', 'on', 'forced'];
/** Places that are pressed or tapped from outside, with the glass behind them. */
const aroundGlass = ['glass', 'cover', 'frame', 'screen'];

/** What a step’s places are looked up in. */
export interface Reach {
  readonly layout: Layout;
  readonly pack: Pick<Pack, 'assemblies' | 'stages'>;
  readonly of: string | undefined;
}

/** A place of a step; `$of` stands for the object it is done on. */
export const placeIn = (place: string, { of }: Reach): string => (place === '$of' ? (of ?? place) : place);

/** Behind the cover; a point lies where its node does. */
export function isInside(place: string, reach: Reach): boolean {
  const at = placeIn(place, reach);
  const { access, points } = reach.layout;
  const stage = access[at] ?? access[points[at]?.on ?? ''];
  return stage !== undefined && reach.pack.stages.findIndex(({ id }) => id === stage) > 0;
}

/** Whether a hand at this place is on the mains side: by its point, its assembly, or a layout that is hot inside. */
export function isHotPlace(place: string, reach: Reach): boolean {
  const at = placeIn(place, reach);
  const point = reach.layout.points[at];
  if (!isInside(place, reach)) return false;
  return reach.layout.hotInside === true || (point ? point.hot : reach.pack.assemblies.some(({ id, hot }) => id === at && hot === true));
}

/** Of one step, with the set plugged in or not as the steps before it left it. */
export function hazardsOfStep(step: Step, plugged: boolean, reach: Reach): Hazard[] {
  const inside = (place: string): boolean => isInside(place, reach);
  const hot = (place: string): Hazard[] => (isHotPlace(place, reach) ? ['hot'] : []);
  if ('pull' in step) return step.pull.some(inside) ? ['plugs', ...step.pull.flatMap(hot)] : [];
  if ('restore' in step) return step.restore.some(inside) ? ['plugs', ...step.restore.flatMap(hot)] : [];
  if ('tape' in step) return ['plugs'];
  if ('force' in step || 'bridge' in step) return ['forcing'];
  if ('measure' in step) {
    if (!liveStates.includes(step.in)) return hot(step.at);
    const point = reach.layout.points[placeIn(step.at, reach)];
    return !inside(step.at) ? [] : point?.hot ? ['live-hot'] : ['live'];
  }
  if ('clean' in step) return inside(step.clean) ? ['solvent', ...hot(step.clean)] : [];
  if ('fit' in step)
    return [
      ...(step.fit === 'universal' ? (['substitute'] as const) : []),
      ...(inside(step.at) ? (['plugs'] as const) : []),
      ...hot(step.at),
    ];
  if ('lift' in step) return ['solder'];
  if ('warm' in step) return ['warm'];
  if ('chill' in step) return ['cold'];
  if ('squeeze' in step) return aroundGlass.includes(step.squeeze) ? ['tap'] : [];
  if ('tap' in step) return aroundGlass.includes(step.tap) ? ['tap'] : inside(step.tap) && plugged ? ['live'] : [];
  if ('look' in step) return step.look === 'processor' ? ['hot-part'] : [];
  if ('press' in step) return ['reset', 'update'].includes(step.press) ? ['data'] : [];
  if ('read' in step) return step.read === 'serial' ? ['live'] : ['chip'];
  if ('write' in step) return ['chip', 'data'];
  return [];
}

/** Where hands or clips go in a step. */
export const handsTo = (step: Step): readonly string[] => {
  if ('pull' in step) return step.pull;
  if ('restore' in step) return step.restore;
  if ('clean' in step) return [step.clean];
  if ('fit' in step) return [step.at];
  if ('lift' in step) return [step.lift];
  if ('tape' in step) return [step.tape];
  if ('force' in step) return [step.force];
  if ('bridge' in step) return [step.bridge[0], step.bridge[1]];
  if ('measure' in step && (step.in === 'verified' || step.in === 'unplugged')) return [step.at];
  return [];
};

/** All hazards of a test on one object, each once. */
export function hazardsOfTest(test: Pick<TestDefinition, 'do'>, reach: Reach): Hazard[] {
  let plugged = false;
  const found = new Set<Hazard>();
  for (const step of test.do) {
    if ('unplug' in step) plugged = false;
    if ('power' in step) plugged = true;
    for (const hazard of hazardsOfStep(step, plugged, reach)) found.add(hazard);
  }
  return [...found];
}

/** What a kind of repair is done by. */
export function hazardsOfRepair(repair: Pick<PlacedRepair, 'kind' | 'place'>, reach: Reach): Hazard[] {
  if (!isInside(repair.place, reach)) return repair.kind === 'drain' ? ['data'] : [];
  const hot: Hazard[] = isHotPlace(repair.place, reach) ? ['hot'] : [];
  switch (repair.kind) {
    case 'part':
      return ['solder', ...hot];
    case 'reflash':
      return ['chip', ...hot];
    case 'reseat':
      return ['plugs', 'solvent', ...hot];
    case 'drain':
      return ['data'];
    case 'replace':
      return ['plugs', ...hot];
    default:
      return hot;
  }
}
