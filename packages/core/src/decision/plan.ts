/**
 * Expected cost of repair: what a job still costs when from now on repairs are tried one after another, or the set is given
 * up. With repairs only, single faults and perfect repairs, trying in falling order of probability over cost is best
 * (Kalagnanam and Henrion 1990, Uncertainty in Artificial Intelligence 4); the sequence here is that order, told anew
 * after each repair that fails, with the opening of the set paid once.
 */
import { opening, type DecisionModel, type DecisionRepair } from './model.ts';

/** Repairs in the order they are tried in. */
export interface RepairPlan {
  /** Expected cost to the end. */
  readonly cost: number;
  /** Repairs by place in the model; after the last one the set is given up, if it isn't cured by then. */
  readonly sequence: readonly number[];
}

/** Chance below which a further repair isn't worth a thought, as a share of what is left. */
const negligible = 1e-4;

/** A model's repairs laid out flat, with room to work in; made once a model. */
interface Layout {
  readonly cost: Float64Array;
  readonly preference: Float64Array;
  readonly nuisance: Float64Array;
  readonly stage: Int32Array;
  /** Cures of repair r: places from `start[r]` to `start[r + 1]`. */
  readonly start: Int32Array;
  readonly hypothesis: Int32Array;
  readonly chance: Float64Array;
  /** Repairs that can cure hypothesis h: places from `backStart[h]` to `backStart[h + 1]`. */
  readonly backStart: Int32Array;
  readonly backRepair: Int32Array;
  readonly backChance: Float64Array;
  readonly left: Float64Array;
  readonly cured: Float64Array;
  readonly open: Uint8Array;
  readonly paid: Float64Array;
  readonly reachedAt: Float64Array;
  readonly order: Int32Array;
}

const layouts = new WeakMap<readonly DecisionRepair[], Layout>();

function layoutOf(repairs: readonly DecisionRepair[], hypotheses: number): Layout {
  const known = layouts.get(repairs);
  if (known?.left.length === hypotheses) return known;
  const count = repairs.length;
  const links = repairs.flatMap(({ cures }, repair) => cures.map((cure) => ({ ...cure, repair })));
  const start = new Int32Array(count + 1);
  repairs.forEach(({ cures }, index) => (start[index + 1] = (start[index] ?? 0) + cures.length));
  const back = [...links].sort((a, b) => a.hypothesis - b.hypothesis);
  const backStart = new Int32Array(hypotheses + 1);
  for (const { hypothesis } of back) backStart[hypothesis + 1] = (backStart[hypothesis + 1] ?? 0) + 1;
  for (let h = 0; h < hypotheses; h += 1) backStart[h + 1] = (backStart[h + 1] ?? 0) + (backStart[h] ?? 0);
  const made: Layout = {
    cost: Float64Array.from(repairs, ({ cost }) => cost),
    preference: Float64Array.from(repairs, ({ preference = 1 }) => preference),
    nuisance: Float64Array.from(repairs, ({ nuisance }) => nuisance),
    stage: Int32Array.from(repairs, ({ stage }) => stage),
    start,
    hypothesis: Int32Array.from(links, ({ hypothesis }) => hypothesis),
    chance: Float64Array.from(links, ({ chance }) => chance),
    backStart,
    backRepair: Int32Array.from(back, ({ repair }) => repair),
    backChance: Float64Array.from(back, ({ chance }) => chance),
    left: new Float64Array(hypotheses),
    cured: new Float64Array(count),
    open: new Uint8Array(count),
    paid: new Float64Array(count),
    reachedAt: new Float64Array(count),
    order: new Int32Array(count),
  };
  layouts.set(repairs, made);
  return made;
}

/**
 * `probabilities` need not sum to 1; the cost is weighed by what they sum to. Ties go to the repair named first. `row` multiplies the
 * probabilities where it is given: the plan once an outcome was seen.
 */
export function planRepairs(
  model: DecisionModel,
  probabilities: Float64Array,
  stage = 0,
  done: ReadonlySet<number> = nothing,
  row?: Float64Array,
): RepairPlan {
  const { order, steps, cost } = greedy(model, probabilities, stage, done, row);
  return { cost, sequence: Array.from(order.subarray(0, steps)) };
}

/** The plan's cost alone. */
export function planCost(
  model: DecisionModel,
  probabilities: Float64Array,
  stage: number,
  done: ReadonlySet<number>,
  row?: Float64Array,
): number {
  return greedy(model, probabilities, stage, done, row).cost;
}

function greedy(
  model: DecisionModel,
  probabilities: Float64Array,
  stage: number,
  done: ReadonlySet<number>,
  row: Float64Array | undefined,
): { order: Int32Array; steps: number; cost: number } {
  const at = layoutOf(model.repairs, probabilities.length);
  const { left, cured, open, paid, reachedAt, order } = at;
  const count = cured.length;
  let total = 0;
  for (let h = 0; h < probabilities.length; h += 1) {
    const p = row ? (probabilities[h] ?? 0) * (row[h] ?? 0) : (probabilities[h] ?? 0);
    left[h] = p;
    total += p;
  }
  const least = total * negligible;
  for (let r = 0; r < count; r += 1) {
    open[r] = done.has(r) ? 0 : 1;
    let sum = 0;
    for (let link = at.start[r] ?? 0, end = at.start[r + 1] ?? 0; link < end; link += 1) {
      sum += (left[at.hypothesis[link] ?? 0] ?? 0) * (at.chance[link] ?? 0);
    }
    cured[r] = sum;
  }
  let reached = total;
  let now = stage;
  let steps = 0;
  while (reached > least && reached > 0) {
    let best = -1;
    let bestRate = 0;
    for (let r = 0; r < count; r += 1) {
      const gain = cured[r] ?? 0;
      if (open[r] === 0 || gain <= least) continue;
      const price = ((at.cost[r] ?? 0) + opening(model, now, at.stage[r] ?? 0)) * reached + (at.nuisance[r] ?? 0) * (reached - gain);
      const rate = gain / price / (at.preference[r] ?? 1);
      if (rate > bestRate) {
        best = r;
        bestRate = rate;
      }
    }
    if (best < 0) break;
    const gain = cured[best] ?? 0;
    const place = at.stage[best] ?? 0;
    order[steps] = best;
    reachedAt[steps] = reached;
    paid[steps] = ((at.cost[best] ?? 0) + opening(model, now, place)) * reached + (at.nuisance[best] ?? 0) * Math.max(0, reached - gain);
    steps += 1;
    if (place > now) now = place;
    open[best] = 0;
    for (let link = at.start[best] ?? 0, end = at.start[best + 1] ?? 0; link < end; link += 1) {
      const h = at.hypothesis[link] ?? 0;
      const gone = (left[h] ?? 0) * (at.chance[link] ?? 0);
      left[h] = (left[h] ?? 0) - gone;
      for (let other = at.backStart[h] ?? 0, last = at.backStart[h + 1] ?? 0; other < last; other += 1) {
        const r = at.backRepair[other] ?? 0;
        cured[r] = (cured[r] ?? 0) - gone * (at.backChance[other] ?? 0);
      }
    }
    reached -= gain;
  }
  // The set may be given up before any step: keep the beginning of the sequence that is cheapest with giving up behind it.
  let cost = Math.max(0, reached) * model.writeOff;
  let keep = steps;
  for (let index = steps - 1; index >= 0; index -= 1) {
    cost += paid[index] ?? 0;
    const giveUp = (reachedAt[index] ?? 0) * model.writeOff;
    if (giveUp <= cost) {
      cost = giveUp;
      keep = index;
    }
  }
  return { order, steps: keep, cost };
}

const nothing: ReadonlySet<number> = new Set();
