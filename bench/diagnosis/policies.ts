/** All ways over the same cases, on the pack and on the simulated set. */
import { curesOf, defaultSettings, planRepairs, decideFrom, believe, type CompiledPack, type Settings } from '@veglia/core';
import {
  atOnce,
  bookOpponent,
  fixedList,
  information,
  play,
  randomOrder,
  refined,
  repairsOnly,
  SimulatedSet,
  simulatedOpponent,
  type Opponent,
  type Play,
  type Way,
} from '@veglia/simulators';
import type { Case } from './cases.ts';

export const ways: Readonly<Record<string, Way>> = {
  'fixed-list': fixedList(),
  'fixed-list-to-.75': fixedList(0.75),
  'random-order': randomOrder,
  'repairs-only': repairsOnly,
  information: information(0.8),
  cost: atOnce,
  refined: refined(),
};

export interface Played {
  readonly case: Case;
  readonly play: Play;
  /** What it costs when the fault is known from the start. */
  readonly knownMinor: number;
  /** Cured, or given up where the true repair costs more than a new set. */
  readonly right: boolean;
}

export interface World {
  readonly opponent: 'book' | 'set';
  readonly errors: number;
  /** What the player believes in; the opponent is always drawn from `truth`. */
  readonly believed: CompiledPack;
  readonly truth: CompiledPack;
  readonly settings: Settings;
}

/** Plays one case; undefined where the fault shows nothing anyone would complain of. */
export function playCase(one: Case, way: Way, world: World): Played | undefined {
  const { truth, believed, settings, errors } = world;
  const layout = truth.layouts.get(one.layoutId);
  if (!layout) return undefined;
  const opponent: Opponent =
    world.opponent === 'book'
      ? bookOpponent(one, truth, errors)
      : simulatedOpponent(
          new SimulatedSet({ layout, family: truth.families.get(one.familyId ?? ''), faults: [one.fault.id], seed: one.seed }),
          errors,
        );
  if (opponent.complaint() === undefined) return undefined;
  const set = { layout: one.layoutId, ...(one.familyId === undefined ? {} : { family: one.familyId }) };
  const result = play({ opponent, way, compiled: believed, set, settings, seed: one.seed }, () => performance.now());
  const known = knownCost(one, truth, settings);
  const right = result.ending === 'cured' || (result.ending === 'given-up' && known.repairMinor >= settings.newSetMinor);
  return { case: one, play: result, knownMinor: known.minor, right };
}

/** Cheapest way when the fault is known: its repairs in order, or a new set. */
function knownCost(one: Case, compiled: CompiledPack, settings: Settings): { minor: number; repairMinor: number } {
  const belief = believe({ set: { layout: one.layoutId }, settings, entries: [] }, compiled);
  const from = decideFrom(belief, compiled, settings);
  if (!from) return { minor: settings.newSetMinor, repairMinor: settings.newSetMinor };
  const { model } = from.decision;
  const probabilities = new Float64Array(belief.probabilities.length);
  probabilities[belief.interpretation.hypotheses.findIndex(({ fault }) => fault?.id === one.fault.id)] = 1;
  const repairMinor = Math.min(
    ...from.decision.repairs.map((repair, index) => {
      const option = model.repairs[index];
      const cures = curesOf(repair, { layoutId: one.layoutId, fault: one.fault, prior: 1 }, compiled);
      return option && cures > 0.3 ? option.cost + (model.stageCost[option.stage] ?? 0) : Number.POSITIVE_INFINITY;
    }),
  );
  return { minor: planRepairs(model, probabilities).cost, repairMinor };
}

export const usualSettings: Settings = defaultSettings;
