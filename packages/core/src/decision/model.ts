/**
 * A job as a decision: hypotheses with probabilities, tests that tell them apart, repairs that cure some of them, and giving up.
 * Numbers only; nothing here knows the trade.
 *
 * Frame: decision-theoretic troubleshooting (Heckerman, Breese and Rommelse 1995, Communications of the ACM 38(3)).
 * Costs are minor units of money. Stages nest: reaching one means having paid for those before it, once.
 */

/** A test of the model. */
export interface DecisionTest {
  readonly id: string;
  /** Own cost, the way to its stage apart; above zero. */
  readonly cost: number;
  readonly stage: number;
  /** Weighs against it in every choice, and is in no price. Left out: 0. */
  readonly hazard?: number;
  /** Shifts the order among what pays, never a cost: below 1 earlier. Left out: 1. */
  readonly preference?: number;
  /** P(outcome | hypothesis): one row an outcome, one entry a hypothesis; each hypothesis' column sums to 1. */
  readonly outcomes: readonly Float64Array[];
}

/** A repair of the model. */
export interface DecisionRepair {
  readonly id: string;
  /** Labour, money and risk, the way to its stage apart; above zero. */
  readonly cost: number;
  readonly stage: number;
  /** Shifts the order of the sequence, never a cost: below 1 earlier. Left out: 1. */
  readonly preference?: number;
  /** Further cost where it doesn't cure: a wrong part bought, the customer told twice. */
  readonly nuisance: number;
  /** The hypotheses it can cure, and P(the symptom goes | hypothesis) for each. */
  readonly cures: readonly { readonly hypothesis: number; readonly chance: number }[];
}

/** Tests and repairs of a job, what they cost and what they tell or cure. */
export interface DecisionModel {
  readonly tests: readonly DecisionTest[];
  readonly repairs: readonly DecisionRepair[];
  /** Cost of reaching each stage from the first; rising. */
  readonly stageCost: readonly number[];
  /** What is lost when the set is given up. */
  readonly writeOff: number;
}

/** Where a job stands. `probabilities` need not sum to 1: what is missing is already cured, or is another branch. */
export interface Standing {
  readonly probabilities: Float64Array;
  readonly stage: number;
  /** Tests and repairs by place in the model; done ones are not offered again. */
  readonly testsDone: ReadonlySet<number>;
  readonly repairsDone: ReadonlySet<number>;
}

/** What can be done where a job stands; `index` is the place in the model. */
export type Move =
  { readonly kind: 'test'; readonly index: number } | { readonly kind: 'repair'; readonly index: number } | { readonly kind: 'give-up' };

/** Cost of opening the set from one stage to another; 0 where it is open that far. */
export const opening = (model: DecisionModel, from: number, to: number): number =>
  to > from ? (model.stageCost[to] ?? 0) - (model.stageCost[from] ?? 0) : 0;

/** Sum of the probabilities. */
export function mass(probabilities: Float64Array): number {
  let sum = 0;
  for (const p of probabilities) sum += p;
  return sum;
}

/** Probabilities once this outcome was seen, its chance left in them. */
export function seen(probabilities: Float64Array, row: Float64Array): Float64Array {
  const after = new Float64Array(probabilities.length);
  for (let h = 0; h < probabilities.length; h += 1) after[h] = (probabilities[h] ?? 0) * (row[h] ?? 0);
  return after;
}

/** Probability of what is left once this repair didn't cure. */
export function failed(probabilities: Float64Array, repair: DecisionRepair): Float64Array {
  const after = Float64Array.from(probabilities);
  for (const { hypothesis, chance } of repair.cures) after[hypothesis] = (after[hypothesis] ?? 0) * (1 - chance);
  return after;
}
