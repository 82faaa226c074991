/**
 * What follows from a test's `do`: stage, power state, waits, connectors out. Nothing of this is written twice in the
 * pack.
 *
 * Power is three separate facts (plugged, rails down, verified), never one level: a set can be unplugged with its
 * rails still up.
 */
import { hasPlace, placesOf } from './applies.ts';
import { handsTo } from './hazards.ts';
import { forcingOf, type Forcing } from './force.ts';
import type { Family, Layout, Step, TestDefinition } from './schema.ts';

/** Waits before the rails are taken to be down, and before the charge is measured, minutes (values of ours). */
export const drainMinutes = { 'rails-down': 2, verified: 4 } as const;

/** Power state a step is done in. */
export type PowerNeed = 'any' | 'plugged' | 'unplugged' | 'rails-down' | 'verified';

/** What a test or repair does to the set, told from its steps. */
export interface Procedure {
  /** Index into the pack's stages. */
  readonly stage: number;
  /** Power state the first step that cares about it asks for. */
  readonly needs: PowerNeed;
  /** Unplug and plug actions inside the procedure. */
  readonly powerChanges: number;
  readonly endsPlugged: boolean | undefined;
  /** Waiting the procedure itself asks for (drains included), minutes. */
  readonly waitMinutes: number;
  readonly pulled: readonly string[];
  readonly leftOut: readonly string[];
  readonly bridged: readonly (readonly [string, string])[];
  readonly taped: readonly string[];
  /** Where hands or clips go. */
  readonly handled: readonly string[];
  /** Lines driven from outside; their bridges are in `bridged` too. */
  readonly forced: readonly Forcing[];
  readonly liveInside: boolean;
  readonly touchesHot: boolean;
  readonly bridges: boolean;
  readonly changesTemperature: boolean;
  /** Pulls a connector inside after the procedure itself has plugged the set in and not unplugged it. */
  readonly pullsUnderPower: boolean;
  /** The first step that no set can be in the state for: a live reading unplugged, a dead one plugged in, a key pressed in vain. */
  readonly unreachable: string | undefined;
}

const ofPlace = '$of';

/** The one place a step goes to, where it has one; plugs and bridges are visited as they come. */
function stepPlace(step: Step): string | undefined {
  return 'pull' in step || 'restore' in step || 'bridge' in step ? undefined : placesOf(step)[0];
}

/** Of several plugs, those this layout has; a lone one is what it is. */
function ofLayout(items: readonly string[], layout: Layout): readonly string[] {
  const own = items.filter((item) => hasPlace(layout, item));
  return own.length > 0 ? own : items;
}

/** `of` is the object of a test that names one. Places the layout doesn't know lie outside the cover. */
export function deriveProcedure(
  test: Pick<TestDefinition, 'do'>,
  layout: Layout,
  stageIds: readonly string[],
  of?: string,
  family?: Family,
): Procedure {
  let stage = 0;
  let needs: PowerNeed = 'any';
  let plugged: boolean | undefined;
  let powerChanges = 0;
  let waitMinutes = 0;
  let liveInside = false;
  let touchesHot = false;
  const bridged: (readonly [string, string])[] = [];
  const taped: string[] = [];
  const forced: Forcing[] = [];
  let changesTemperature = false;
  let pullsUnderPower = false;
  let unreachable: string | undefined;
  const out = new Set<string>();
  const pulled = new Set<string>();

  const resolve = (place: string): string => (place === ofPlace ? (of ?? place) : place);
  const visit = (place: string): number => {
    const point = layout.points[place];
    if (point?.hot) touchesHot = true;
    const access = layout.access[place] ?? layout.access[point?.on ?? place];
    const index = access === undefined ? 0 : Math.max(0, stageIds.indexOf(access));
    stage = Math.max(stage, index);
    return index;
  };
  const ask = (need: PowerNeed): void => {
    if (needs === 'any' && plugged === undefined) needs = need;
  };

  for (const step of test.do) {
    const place = stepPlace(step);
    const inside = place === undefined ? 0 : visit(resolve(place));
    if ('unplug' in step) {
      if (plugged !== false) powerChanges += 1;
      if (plugged === undefined) ask('any');
      plugged = false;
    } else if ('power' in step) {
      if (plugged !== true) {
        if (plugged === false) powerChanges += 1;
        ask('plugged');
      }
      plugged = true;
    } else if ('press' in step) {
      if (plugged === false && step.press !== 'own-button') unreachable ??= `press ${step.press}`;
      if (plugged === undefined) ask('plugged');
    } else if ('drain' in step) {
      waitMinutes += drainMinutes[step.drain];
    } else if ('wait' in step) {
      waitMinutes += step.wait;
    } else if ('pull' in step) {
      for (const item of ofLayout(step.pull.map(resolve), layout)) {
        const index = visit(item);
        out.add(item);
        pulled.add(item);
        if (index > 0) {
          if (plugged === true) pullsUnderPower = true;
          ask('rails-down');
        }
      }
    } else if ('restore' in step) {
      for (const item of ofLayout(step.restore.map(resolve), layout)) {
        out.delete(item);
        if (visit(item) > 0 && plugged === true) pullsUnderPower = true;
      }
    } else if ('measure' in step) {
      const dead = step.in === 'verified' || step.in === 'unplugged';
      if (dead ? plugged === true : plugged === false || (step.in === 'forced' && bridged.length === 0))
        unreachable ??= `${step.measure} ${step.in}`;
      if (step.in === 'verified') ask('verified');
      else if (step.in === 'unplugged') ask('rails-down');
      else if (inside > 0 || layout.points[resolve(step.at)] !== undefined) liveInside = true;
    } else if ('bridge' in step) {
      bridged.push([step.bridge[0], step.bridge[1]]);
      visit(step.bridge[0]);
      visit(step.bridge[1]);
    } else if ('force' in step) {
      const forcing = forcingOf(step.force, layout, family);
      forced.push(forcing);
      bridged.push([forcing.from, forcing.line]);
      ask('rails-down');
    } else if ('tape' in step || 'lift' in step || 'load' in step) {
      if ('tape' in step) {
        out.add(step.tape);
        taped.push(step.tape);
      }
      ask('rails-down');
    } else if ('read' in step || 'write' in step) {
      if (plugged !== true) ask('rails-down');
    } else if ('warm' in step || 'chill' in step) {
      changesTemperature = true;
    } else if ('fit' in step || 'clean' in step) {
      ask(touchesHot ? 'verified' : 'rails-down');
    }
  }
  return {
    stage,
    needs,
    powerChanges,
    endsPlugged: plugged,
    waitMinutes,
    pulled: [...pulled],
    leftOut: [...out],
    liveInside,
    touchesHot,
    bridges: bridged.length > 0,
    bridged,
    taped,
    handled: [...new Set(test.do.flatMap(handsTo).map(resolve))],
    forced,
    changesTemperature,
    pullsUnderPower,
    unreachable,
  };
}
