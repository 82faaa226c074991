/**
 * What a job is likely to cost the customer, before it is begun: the way the tool would go, followed over the tree of answers,
 * with the bill at every end. A bill is labour, waits at their share, and parts; giving up ends it with what was spent by then.
 */
import { after, mass, moveAtOnce, opening, planRepairs, type DecisionModel, type Standing } from '../decision/index.ts';

/** One way a job may end. */
export interface BillEnd {
  /** Chance of this end. */
  readonly probability: number;
  /** Minor units; and of it parts, where the caller says what each repair’s part costs. */
  readonly minor: number;
  readonly parts?: number;
  readonly end: 'cured' | 'given-up';
}

/** A likely bill in a few figures, minor units. */
export interface BillSpread {
  /** A tenth, half and nine tenths of all ends lie at or below, minor units. */
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  /** Chance that the way ends with the set given up. */
  readonly givenUp: number;
  /** Of the ends in which it is cured, minor units; undefined where none is. */
  readonly curedMiddle?: number;
}

/** How far the tree is followed. */
export interface BillLimits {
  /** Branches lighter than this share are ended by the plan of repairs. */
  readonly leastShare: number;
  /** Standings looked at in all before every further branch is ended so. */
  readonly standings: number;
}

/** How likely a bill of at least `from` and under `to` is, minor units; the shares of all bars sum to 1. */
export interface BillBar {
  readonly from: number;
  readonly to: number;
  readonly cured: number;
  readonly givenUp: number;
}

/** A likely bill, and its bars. */
export interface LikelyBill extends BillSpread {
  /** Of the whole bill: what was spent already is in them, as it is not in `low`, `middle` and `high`. */
  readonly bars: readonly BillBar[];
}

/** Values of ours: some 0.2 s on the whole pack, so it belongs in a worker. */
export const usualBillLimits: BillLimits = { leastShare: 0.004, standings: 160 };

/** Ends of following the at-once way from here; probabilities sum to what the standing's probabilities sum to. */
export function billEnds(
  model: DecisionModel,
  at: Standing,
  limits: BillLimits = usualBillLimits,
  partOf?: (repair: number) => number,
): BillEnd[] {
  const own = (parts: number): { parts?: number } => (partOf ? { parts } : {});
  const ends: BillEnd[] = [];
  const least = mass(at.probabilities) * limits.leastShare;
  let left = limits.standings;
  // Heaviest branch first, so that a spent budget ends the light ones.
  const open: { at: Standing; spent: number; parts: number }[] = [{ at, spent: 0, parts: 0 }];
  for (let branch = open.shift(); branch; branch = open.shift()) {
    const { at: here, spent, parts } = branch;
    const total = mass(here.probabilities);
    if (total <= 0) continue;
    left -= 1;
    if (total < least || left < 0) {
      ends.push(...endsByRepairs(model, here, spent, parts, partOf));
      continue;
    }
    const move = moveAtOnce(model, here);
    if (move.kind === 'give-up') {
      ends.push({ probability: total, minor: spent, ...own(parts), end: 'given-up' });
      continue;
    }
    const { next } = after(model, here, move);
    const tried = move.kind === 'test' ? model.tests[move.index] : model.repairs[move.index];
    const paid = spent + (tried?.cost ?? 0) + opening(model, here.stage, tried?.stage ?? 0);
    const bought = parts + (move.kind === 'repair' ? (partOf?.(move.index) ?? 0) : 0);
    const cured = total - next.reduce((sum, one) => sum + mass(one.probabilities), 0);
    if (move.kind === 'repair' && cured > 0) ends.push({ probability: cured, minor: paid, ...own(bought), end: 'cured' });
    for (const one of next) if (mass(one.probabilities) > 0) open.push({ at: one, spent: paid, parts: bought });
    open.sort((a, b) => mass(b.at.probabilities) - mass(a.at.probabilities));
  }
  return ends;
}

function endsByRepairs(
  model: DecisionModel,
  from: Standing,
  spent: number,
  parts: number,
  partOf: ((repair: number) => number) | undefined,
): BillEnd[] {
  const own = (of: number): { parts?: number } => (partOf ? { parts: of } : {});
  const ends: BillEnd[] = [];
  let at = from;
  let paid = spent;
  let bought = parts;
  for (const index of planRepairs(model, from.probabilities, from.stage, from.repairsDone).sequence) {
    const before = mass(at.probabilities);
    const repair = model.repairs[index];
    paid += (repair?.cost ?? 0) + opening(model, at.stage, repair?.stage ?? 0);
    bought += partOf?.(index) ?? 0;
    at = after(model, at, { kind: 'repair', index }).next[0] ?? at;
    ends.push({ probability: before - mass(at.probabilities), minor: paid, ...own(bought), end: 'cured' });
  }
  const left = mass(at.probabilities);
  return left > 0 ? [...ends, { probability: left, minor: paid, ...own(bought), end: 'given-up' }] : ends;
}

/** Ends, perhaps of several layouts with their shares already in the probabilities, as one spread. Undefined where there are none. */
export function billSpread(ends: readonly BillEnd[]): BillSpread | undefined {
  const sorted = ends.filter(({ probability }) => probability > 0).sort((a, b) => a.minor - b.minor);
  const total = sorted.reduce((sum, { probability }) => sum + probability, 0);
  if (total <= 0) return undefined;
  const cured = sorted.filter(({ end }) => end === 'cured');
  const curedMiddle = quantile(cured, 0.5);
  return {
    low: quantile(sorted, 0.1) ?? 0,
    middle: quantile(sorted, 0.5) ?? 0,
    high: quantile(sorted, 0.9) ?? 0,
    givenUp: sorted.reduce((sum, { probability, end }) => sum + (end === 'given-up' ? probability : 0), 0) / total,
    ...(curedMiddle === undefined ? {} : { curedMiddle }),
  };
}

/** No more bars than can be told apart at a glance. */
const mostBars = 14;

/** The ends as bars of one width, which is 1, 2 or 5 times a power of ten; from the dearest bar to the cheapest none is left out. */
export function billBars(ends: readonly BillEnd[]): BillBar[] {
  const some = ends.filter(({ probability }) => probability > 0);
  const total = some.reduce((sum, { probability }) => sum + probability, 0);
  if (total <= 0) return [];
  const dearest = some.reduce((most, { minor }) => Math.max(most, minor), 0);
  const width = [1, 2, 5].flatMap((digit) => Array.from({ length: 10 }, (_, power) => digit * 10 ** power)).sort((a, b) => a - b);
  const step = width.find((one) => Math.floor(dearest / one) < mostBars) ?? dearest + 1;
  const bars = Array.from({ length: Math.floor(dearest / step) + 1 }, (_, index) => ({
    from: index * step,
    to: (index + 1) * step,
    cured: 0,
    givenUp: 0,
  }));
  for (const { minor, probability, end } of some) {
    const bar = bars[Math.floor(minor / step)];
    if (bar) bar[end === 'cured' ? 'cured' : 'givenUp'] += probability / total;
  }
  return bars;
}

/** Least bill at or below which this share of the ends lies; `ends` in rising order. */
function quantile(ends: readonly BillEnd[], share: number): number | undefined {
  const wanted = share * ends.reduce((sum, { probability }) => sum + probability, 0);
  let reached = 0;
  for (const { probability, minor } of ends) {
    reached += probability;
    if (reached >= wanted - 1e-12) return Math.round(minor);
  }
  return undefined;
}
