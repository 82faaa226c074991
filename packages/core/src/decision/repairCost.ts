/**
 * Expected cost of repair: what a job still costs when from now on repairs are tried one after another, or the set is
 * written off.
 *
 * Frame: decision-theoretic troubleshooting (Heckerman, Breese and Rommelse 1995, Communications of the ACM 38(3)). With
 * repairs only, single faults and perfect repairs, trying in falling order of probability over cost is best (Kalagnanam
 * and Henrion 1990); the sequence below is that order, recomputed after each repair that fails.
 */

export interface RepairOption {
  readonly id: string;
  /** Labour, money and risk together, in minor units; above zero. */
  readonly cost: number;
  /** P(the symptom goes | hypothesis), one per hypothesis. */
  readonly fixes: readonly number[];
}

export interface RepairModel {
  readonly repairs: readonly RepairOption[];
  /** What is lost when the set is given up, minor units. */
  readonly writeOff: number;
}

export interface RepairPlan {
  /** Expected cost to the end, minor units. */
  readonly cost: number;
  /** Repairs in order; the set is written off after the last one, if it isn't cured by then. */
  readonly sequence: readonly string[];
}

/** Chance below which a further repair is no longer worth a thought. */
const negligible = 1e-6;

/**
 * `odds` are probabilities of the hypotheses; they need not sum to 1 (what is missing is already cured). A repair that failed
 * may be in the sequence once only: what it left over, it would leave over again.
 */
export function planRepairs(model: RepairModel, odds: readonly number[]): RepairPlan {
  const steps: { id: string; cost: number; reached: number }[] = [];
  let left = [...odds];
  let reached = left.reduce((a, b) => a + b, 0);
  const open = new Set(model.repairs);
  while (reached > negligible && open.size > 0) {
    let best: { repair: RepairOption; cures: number } | undefined;
    for (const repair of open) {
      const cures = left.reduce((sum, p, index) => sum + p * (repair.fixes[index] ?? 0), 0);
      const better = !best || cures / repair.cost > best.cures / best.repair.cost;
      const tie = best !== undefined && cures / repair.cost === best.cures / best.repair.cost && repair.id < best.repair.id;
      if (better || tie) best = { repair, cures };
    }
    if (!best || best.cures <= negligible) break;
    const { repair, cures } = best;
    open.delete(repair);
    steps.push({ id: repair.id, cost: repair.cost, reached });
    left = left.map((p, index) => p * (1 - (repair.fixes[index] ?? 0)));
    reached -= cures;
  }
  // The set may be given up before any step: keep the beginning of the sequence that is cheapest with giving up behind it.
  let cost = Math.max(0, reached) * model.writeOff;
  let keep = steps.length;
  for (let index = steps.length - 1; index >= 0; index -= 1) {
    const step = steps[index];
    if (!step) continue;
    cost += step.reached * step.cost;
    const giveUp = step.reached * model.writeOff;
    if (giveUp <= cost) {
      cost = giveUp;
      keep = index;
    }
  }
  return { cost, sequence: steps.slice(0, keep).map((step) => step.id) };
}

export interface TestOption {
  /** P(outcome | hypothesis): one row an outcome, one entry a hypothesis. */
  readonly outcomes: readonly (readonly number[])[];
}

/** What knowing the outcome takes off the expected cost of repair, before the test's own cost; minor units, at least 0. */
export function grossSaving(model: RepairModel, odds: readonly number[], test: TestOption): number {
  const before = planRepairs(model, odds).cost;
  const after = test.outcomes.reduce(
    (sum, row) =>
      sum +
      planRepairs(
        model,
        odds.map((p, index) => p * (row[index] ?? 0)),
      ).cost,
    0,
  );
  // Where the greedy sequence isn't the best one, a test can look harmful; an answer may always be ignored.
  return Math.max(0, before - after);
}
