/**
 * Ways of choosing the next move, to be measured side by side. The fixed list is what a careful trainee does: down the list,
 * the repair of whatever is proven as soon as it is, and after the list the top suspect is replaced.
 */
import {
  decideFrom,
  expectedInformation,
  offerOf,
  offersOf,
  proofOf,
  recommend,
  refinedMove,
  type Belief,
  type CompiledPack,
  type Depth,
  type Offer,
  type RefineOptions,
  type PlacedRepair,
  type Settings,
} from '@veglia/core';
import type { Random } from '../set/index.ts';

/** What a way does next. */
export type Choice =
  | { readonly kind: 'test'; readonly offer: Offer }
  | { readonly kind: 'repair'; readonly repair: PlacedRepair }
  | { readonly kind: 'prove' }
  | { readonly kind: 'give-up' };

/** A way of working: what to do where a case stands. */
export type Way = (belief: Belief, compiled: CompiledPack, settings: Settings, layoutId: string, random: Random) => Choice;

const giveUp: Choice = { kind: 'give-up' };

/** The first step a screen shows: what a technician who does as told does. */
const shownAs =
  (depth: Depth): Way =>
  (belief, compiled, settings, layoutId) => {
    const [first] = recommend(belief, compiled, settings, 'cost', depth).next;
    if (!first) return giveUp;
    if (first.kind === 'test') {
      const test = compiled.tests.get(first.id);
      return test ? { kind: 'test', offer: offerOf(test, first.of, belief, compiled, settings, layoutId) } : giveUp;
    }
    if (first.kind === 'repair') {
      const repair = compiled.repairsOf.get(layoutId)?.find(({ id }) => id === first.id);
      return repair ? { kind: 'repair', repair } : giveUp;
    }
    return first.id === 'prove-and-close' ? { kind: 'prove' } : giveUp;
  };

/** The step the tool shows at once. */
export const atOnce: Way = shownAs('at-once');
/** The step the tool settles on. */
export const settled: Way = shownAs('settled');

/** The step of a search with other limits. */
export const refined =
  (options?: RefineOptions): Way =>
  (belief, compiled, settings) => {
    const from = decideFrom(belief, compiled, settings);
    return from ? chosen(refinedMove(from.decision.model, from.decision.at, options), from) : giveUp;
  };

type From = NonNullable<ReturnType<typeof decideFrom>>;

function chosen(move: ReturnType<typeof refinedMove>, { decision, offers }: From): Choice {
  if (move.kind === 'test') {
    const offer = offers[move.index];
    return offer ? { kind: 'test', offer } : giveUp;
  }
  if (move.kind === 'repair') {
    const repair = decision.repairs[move.index];
    return repair ? { kind: 'repair', repair } : giveUp;
  }
  return giveUp;
}

const open = (belief: Belief, compiled: CompiledPack, settings: Settings, layoutId: string): Offer[] =>
  offersOf(belief, compiled, settings, layoutId).filter(({ left }) => left === undefined);

/** The likeliest assembly, "not in the pack" apart. */
function topAssembly(belief: Belief): { id: string; probability: number } | undefined {
  return [...belief.assemblies]
    .filter(([id]) => id !== 'not-in-the-book')
    .map(([id, probability]) => ({ id, probability }))
    .sort((a, b) => b.probability - a.probability || (a.id < b.id ? -1 : 1))[0];
}

/** Below this no suspect is worth a part (value of ours). */
const leastSuspicion = 0.02;

/** The repair of the top suspect that cures the most; a set that costs more to repair than a new one is given up. */
function replaceTop(belief: Belief, compiled: CompiledPack, settings: Settings): Choice {
  const from = decideFrom(belief, compiled, settings);
  if (!from) return giveUp;
  const { model, at, repairs } = from.decision;
  const suspects = [...belief.assemblies].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  for (const [id, probability] of suspects) {
    if (id === 'not-in-the-book' || probability < leastSuspicion) continue;
    const best = repairs
      .map((repair, index) => ({
        repair,
        index,
        cures: (model.repairs[index]?.cures ?? []).reduce((sum, one) => sum + (at.probabilities[one.hypothesis] ?? 0) * one.chance, 0),
      }))
      .filter(({ repair }) => repair.assembly === id)
      .sort((a, b) => b.cures - a.cures)[0];
    if (!best || best.cures < leastSuspicion) continue;
    if ((model.repairs[best.index]?.cost ?? 0) >= settings.newSetMinor) return giveUp;
    return { kind: 'repair', repair: best.repair };
  }
  return giveUp;
}

/** The layout’s fixed list, then the likeliest part. */
export const fixedList =
  (stopAt?: number): Way =>
  (belief, compiled, settings, layoutId) => {
    const top = topAssembly(belief);
    const settled = top && (stopAt === undefined ? proofOf(belief, top.id, compiled)?.met === true : top.probability >= stopAt);
    if (settled) return replaceTop(belief, compiled, settings);
    const offers = open(belief, compiled, settings, layoutId);
    for (const { test, of } of compiled.layouts.get(layoutId)?.fixedList ?? []) {
      const offer = offers.find((one) => one.test.id === test && one.of === of);
      if (offer) return { kind: 'test', offer };
    }
    return replaceTop(belief, compiled, settings);
  };

/** Information over minutes, then the top suspect once it is over the probabilities. */
export const information =
  (stopAt: number): Way =>
  (belief, compiled, settings, layoutId) => {
    const top = topAssembly(belief);
    if (top && top.probability >= stopAt) return replaceTop(belief, compiled, settings);
    const best = open(belief, compiled, settings, layoutId)
      .map((offer) => {
        const { bits } = expectedInformation(belief, compiled, offer.test, offer.of);
        return { offer, bits, rate: bits / Math.max(0.1, offer.effort.handsOn + offer.effort.wait * settings.waitShare) };
      })
      .sort((a, b) => b.rate - a.rate)[0];
    return best && best.bits > 0.01 ? { kind: 'test', offer: best.offer } : replaceTop(belief, compiled, settings);
  };

/** Any legal test, until something is proven: the least that a list has to beat. */
export const randomOrder: Way = (belief, compiled, settings, layoutId, random) => {
  const top = topAssembly(belief);
  if (top && proofOf(belief, top.id, compiled)?.met) return replaceTop(belief, compiled, settings);
  const offers = open(belief, compiled, settings, layoutId);
  const offer = offers[Math.floor(random() * offers.length)];
  return offer ? { kind: 'test', offer } : replaceTop(belief, compiled, settings);
};

/** Repairs by probability over cost, no tests. */
export const repairsOnly: Way = (belief, compiled, settings) => {
  const from = decideFrom(belief, compiled, settings);
  const [first] = from?.decision.plan.sequence ?? [];
  const repair = first === undefined ? undefined : from?.decision.repairs[first];
  return repair ? { kind: 'repair', repair } : giveUp;
};
