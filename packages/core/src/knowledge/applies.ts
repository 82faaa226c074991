/** What of the pack a layout has: which faults, tests, objects and repairs, told from its nodes and points alone. */
import type { Fault, Layout, Pack, Repair, SetMatch, Step, TestDefinition } from './schema.ts';

/** Where a fault is, in a layout: `assembly` is what is swapped there, `home` what it belongs to by its work. */
export interface PlacedFault extends Fault {
  readonly home: string;
}

const objectPlace = '$of';

/** Every place a step goes to, as written. */
export function placesOf(step: Step): readonly string[] {
  if ('pull' in step) return step.pull;
  if ('restore' in step) return step.restore;
  if ('bridge' in step) return [step.bridge[0], step.bridge[1]];
  if ('force' in step) return [step.force];
  if ('measure' in step || 'fit' in step) return [step.at];
  for (const key of [
    'tape',
    'warm',
    'chill',
    'clean',
    'read',
    'write',
    'lift',
    'load',
    'look',
    'listen',
    'torch',
    'tap',
    'squeeze',
  ] as const) {
    const place = (step as Partial<Record<typeof key, string>>)[key];
    if (place !== undefined) return [place];
  }
  return [];
}

/** Whether the layout has it: an assembly, a harness, or a point. */
export const hasPlace = (layout: Layout, place: string): boolean => layout.assemblies.includes(place) || layout.points[place] !== undefined;

/** Objects of a test that this layout has; empty for a test without an object. */
export function objectsOf(test: Pick<TestDefinition, 'of'>, layout: Layout): readonly string[] {
  return (test.of?.options ?? []).filter((id) => hasPlace(layout, id));
}

/** A test belongs to a layout that it names (or names none) and that has every place it goes to. */
export function testFits(pack: Pick<Pack, 'places'>, test: TestDefinition, layout: Layout): boolean {
  if (test.scope.layouts && !test.scope.layouts.includes(layout.id)) return false;
  if (test.scope.needs && !test.scope.needs.every((id) => layout.assemblies.includes(id))) return false;
  if (test.of && objectsOf(test, layout).length === 0) return false;
  const there = (place: string): boolean => place === objectPlace || pack.places.includes(place) || hasPlace(layout, place);
  // Of several plugs pulled together, those that a layout has are pulled.
  return test.do.every((step) => ('pull' in step || 'restore' in step ? placesOf(step).some(there) : placesOf(step).every(there)));
}

/** Frequency word of a fault in a layout; undefined where the layout doesn't have it. */
export function frequencyIn(fault: Fault, layout: Layout): string | undefined {
  const word = fault.frequency[layout.id] ?? fault.frequency['*'];
  if (word === undefined || word === 'none') return undefined;
  if (!(fault.needs ?? []).every((id) => layout.assemblies.includes(id))) return undefined;
  return layout.assemblies.includes(placeOf(fault.assembly, layout)) ? word : undefined;
}

/** Where an assembly sits in this layout: itself, or the board it is merged into. */
export const placeOf = (assembly: string, layout: Layout): string => layout.merges[assembly] ?? assembly;

/** A repair on a layout, with the node or point that hands go to. */
export type PlacedRepair = Omit<Repair, 'at'> & { readonly place: string };

/** Faults that a layout can have, each on the assembly that bears it there (`home`: the one it belongs to by its work). */
export function faultsIn(pack: Pack, layout: Layout): PlacedFault[] {
  return pack.faults
    .filter((fault) => frequencyIn(fault, layout) !== undefined)
    .map((fault) => ({ ...fault, home: fault.assembly, assembly: placeOf(fault.assembly, layout) }));
}

/** A whole board is swapped only where it is one; what is mended on it goes along where it is merged into another. */
export function repairsIn(pack: Pack, layout: Layout): PlacedRepair[] {
  return pack.repairs
    .filter((repair) => {
      if (repair.layouts && !repair.layouts.includes(layout.id)) return false;
      const whole = repair.kind === 'replace';
      return layout.assemblies.includes(whole ? repair.assembly : placeOf(repair.assembly, layout));
    })
    .map(({ at, ...repair }) => {
      const assembly = placeOf(repair.assembly, layout);
      return { ...repair, assembly, place: at !== undefined && layout.points[at] !== undefined ? at : assembly };
    });
}

/** Symptoms as other layouts would call them too: what was told, and whatever shows as it here. */
export function knownAs(symptoms: Iterable<string>, layout: Layout | undefined): Set<string> {
  const told = new Set(symptoms);
  for (const [elsewhere, here] of Object.entries(layout?.showsAs ?? {})) if (told.has(here)) told.add(elsewhere);
  return told;
}

/** What is known of the very set, for scopes finer than the layout. */
export interface SetIdentity {
  readonly family?: string | undefined;
  readonly model?: string | undefined;
  readonly version?: string | undefined;
  readonly year?: number | undefined;
}

/** Whether a match certainly holds, certainly doesn't, or can't be told because the set's plate isn't known so far. */
export function matchSet(match: SetMatch, set: SetIdentity): 'yes' | 'no' | 'unknown' {
  const parts: ('yes' | 'no' | 'unknown')[] = [];
  const part = (wanted: boolean, known: boolean, fits: () => boolean): void => {
    if (wanted) parts.push(!known ? 'unknown' : fits() ? 'yes' : 'no');
  };
  part(match.family !== undefined, set.family !== undefined, () => match.family === set.family);
  part(match.models !== undefined, set.model !== undefined, () => match.models?.includes(set.model ?? '') ?? false);
  part(match.versions !== undefined, set.version !== undefined, () => match.versions?.includes(set.version ?? '') ?? false);
  part(match.years !== undefined, set.year !== undefined, () => {
    const [from, to] = match.years ?? [0, 0];
    const year = set.year ?? 0;
    return year >= from && year <= to;
  });
  return parts.includes('no') ? 'no' : parts.includes('unknown') ? 'unknown' : 'yes';
}

/**
 * Whether the test was made for this set. A set outside `only` or inside `except` is out; one that isn't known well enough to
 * tell is out of `only` no more than in `except`: it is given the benefit of the doubt.
 */
export function inScope(scope: TestDefinition['scope'], set: SetIdentity): boolean {
  if (scope.except?.some((match) => matchSet(match, set) === 'yes')) return false;
  return !scope.only || scope.only.some((match) => matchSet(match, set) !== 'no');
}
