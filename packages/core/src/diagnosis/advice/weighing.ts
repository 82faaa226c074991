/** Every test of the layout weighed once: its step as a screen shows it, what it tells, what it costs. */
import type { CompiledPack } from '../../knowledge/index.ts';
import type { Settings } from '../../ledger/index.ts';
import type { Belief } from '../belief/belief.ts';
import { expectedInformation } from './information.ts';
import { testKey } from '../evidence/interpretation.ts';
import { offerOf, offersOf, type Offer } from './offers.ts';
import { entropyBits, rounded } from '../belief/posterior.ts';
import { cautionsFor, priceOf, type NextStep } from './steps.ts';

/** A test and what it tells for its time. */
export interface Telling {
  readonly offer: Offer;
  /** Expected information about the assembly. */
  readonly bits: number;
  /** Information per minute, a waiting one counting less. */
  readonly score: number;
}

/** The same with its step and its price, minor units. */
export interface Scored extends Telling {
  readonly step: NextStep;
  readonly minor: number;
}

/** A step that was tried and couldn't be told drops behind the others. */
const unclearShare = 0.25;

/** Bits a minute, a waiting minute counting by the shop’s share. */
export const scoreOf = (bits: number, { effort, key }: Offer, { interpretation }: Belief, settings: Settings): number =>
  (bits / (effort.handsOn + effort.wait * settings.waitShare)) * (interpretation.unclear.has(key) ? unclearShare : 1);

/** Order of ties: by key, so that it is the same everywhere. */
export const compareKeys = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** Most telling for its time first; ties by key. */
export const byScore = <T extends Telling>(all: readonly T[]): T[] =>
  [...all].sort((a, b) => rounded(b.score) - rounded(a.score) || compareKeys(a.offer.key, b.offer.key));

/** Tests weighed once for one belief. */
export interface Weighing {
  /** Of every offer, and of what was weighed beside them, most telling first. */
  ranked(): Scored[];
  /** One test on one object, offered or not; undefined where the layout doesn't have it. */
  weigh(id: string, of: string | undefined): Scored | undefined;
}

/**
 * All that choosing a step needs of a belief, worked out once: offers with bits and cost, repairs, and the decision model over them.
 */
export function weighing(belief: Belief, compiled: CompiledPack, settings: Settings, layoutId: string): Weighing {
  const openBits = entropyBits([...belief.assemblies.values()]);
  const scored = (offer: Offer): Scored => {
    const { test, of, effort, procedure } = offer;
    const { bits, would } = expectedInformation(belief, compiled, test, of);
    const cost = priceOf(effort, settings);
    return {
      offer,
      step: {
        kind: 'test',
        id: test.id,
        ...(of === undefined ? {} : { of }),
        because: { code: 'most-bits-per-minute', bits, share: openBits > 0 ? bits / openBits : 0 },
        minutes: effort.handsOn,
        waitMinutes: effort.wait,
        cost,
        stage: compiled.stageIds[offer.stage] ?? '',
        needs: procedure.needs,
        cautions: cautionsFor(offer.stage, test.cautions, procedure.handled, belief, compiled),
        would,
      },
      bits,
      minor: cost.amountMinor,
      score: scoreOf(bits, offer, belief, settings),
    };
  };
  const weighed = new Map(offersOf(belief, compiled, settings, layoutId).map((offer) => [offer.key, scored(offer)]));
  return {
    ranked: () => byScore([...weighed.values()]),
    weigh(id, of) {
      const key = testKey(id, of);
      const known = weighed.get(key);
      const test = compiled.tests.get(id);
      if (known || !test || !compiled.fits(test, layoutId)) return known;
      const made = scored(offerOf(test, of, belief, compiled, settings, layoutId));
      weighed.set(key, made);
      return made;
    },
  };
}
