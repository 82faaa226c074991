/**
 * Expected cost of repair: what a job still costs when from now on repairs are tried one after another, or the set is given
 * up. With repairs only, single faults and perfect repairs, trying in falling order of probability over cost is best
 * (Kalagnanam and Henrion 1990, Uncertainty in Artificial Intelligence 4); the sequence here is that order, told anew
 * after each repair that fails, with the opening of the set paid once.
 */
import { mass, opening, type DecisionModel, type DecisionRepair } from './model.ts';

export interface RepairPlan {
  /** Expected cost to the end. */
  readonly cost: number;
  /** Repairs by place in the model; after the last one the set is given up, if it isn't cured by then. */
  readonly sequence: readonly number[];
}

/** Chance below which a further repair isn't worth a thought, as a share of what is left. */
const negligible = 1e-5;

interface Links {
  /** Hypothesis -> the repairs that can cure it. */
  readonly repairsOf: readonly (readonly { readonly repair: number; readonly chance: number }[])[];
}

const links = new WeakMap<readonly DecisionRepair[], Links>();

function linksOf(model: DecisionModel, hypotheses: number): Links {
  const known = links.get(model.repairs);
  if (known) return known;
  const repairsOf: { repair: number; chance: number }[][] = Array.from({ length: hypotheses }, () => []);
  model.repairs.forEach(({ cures }, repair) => {
    for (const { hypothesis, chance } of cures) repairsOf[hypothesis]?.push({ repair, chance });
  });
  const made = { repairsOf };
  links.set(model.repairs, made);
  return made;
}

/** `odds` need not sum to 1; the cost is weighed by what they sum to. Ties go to the repair named first. */
export function planRepairs(model: DecisionModel, odds: Float64Array, stage = 0, done: ReadonlySet<number> = nothing): RepairPlan {
  const { repairsOf } = linksOf(model, odds.length);
  const count = model.repairs.length;
  const left = Float64Array.from(odds);
  const cures = new Float64Array(count);
  const open: boolean[] = [];
  model.repairs.forEach((repair, index) => {
    open.push(!done.has(index));
    let sum = 0;
    for (const { hypothesis, chance } of repair.cures) sum += (left[hypothesis] ?? 0) * chance;
    cures[index] = sum;
  });
  const start = mass(odds);
  let reached = start;
  let now = stage;
  const order: number[] = [];
  const paid: number[] = [];
  const reachedAt: number[] = [];
  while (reached > start * negligible) {
    let best = -1;
    let bestRate = 0;
    for (let index = 0; index < count; index += 1) {
      if (!open[index]) continue;
      const repair = model.repairs[index];
      const cured = cures[index] ?? 0;
      if (!repair || cured <= start * negligible) continue;
      const price = (repair.cost + opening(model, now, repair.stage)) * reached + repair.nuisance * (reached - cured);
      const rate = cured / price;
      if (rate > bestRate) {
        best = index;
        bestRate = rate;
      }
    }
    const repair = model.repairs[best];
    if (best < 0 || !repair) break;
    const cured = cures[best] ?? 0;
    order.push(best);
    reachedAt.push(reached);
    paid.push((repair.cost + opening(model, now, repair.stage)) * reached + repair.nuisance * Math.max(0, reached - cured));
    now = Math.max(now, repair.stage);
    open[best] = false;
    for (const { hypothesis, chance } of repair.cures) {
      const gone = (left[hypothesis] ?? 0) * chance;
      left[hypothesis] = (left[hypothesis] ?? 0) - gone;
      for (const other of repairsOf[hypothesis] ?? []) cures[other.repair] = (cures[other.repair] ?? 0) - gone * other.chance;
    }
    reached -= cured;
  }
  // The set may be given up before any step: keep the beginning of the sequence that is cheapest with giving up behind it.
  let cost = Math.max(0, reached) * model.writeOff;
  let keep = order.length;
  for (let index = order.length - 1; index >= 0; index -= 1) {
    cost += paid[index] ?? 0;
    const giveUp = (reachedAt[index] ?? 0) * model.writeOff;
    if (giveUp <= cost) {
      cost = giveUp;
      keep = index;
    }
  }
  return { cost, sequence: order.slice(0, keep) };
}

const nothing: ReadonlySet<number> = new Set();
