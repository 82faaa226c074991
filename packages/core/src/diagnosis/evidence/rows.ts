/** P(answer | hypothesis) of a test, kept per circumstances: the same for every fold of the same kind of case. */
import { knownAs, type CompiledPack, type TestDefinition } from '../../knowledge/index.ts';
import { toldGiven } from './complaint.ts';
import { holds, type Circumstances } from './conditions.ts';
import { testKey, type Interpretation } from './interpretation.ts';

/** P(answer | hypothesis) of one test. */
export interface OutcomeTable {
  /** For an answer without error: one row an outcome, one entry a hypothesis. */
  readonly truth: readonly Float64Array[];
  /** The same with an honest answer's own error. */
  readonly told: readonly Float64Array[];
}

const tables = new WeakMap<CompiledPack, Map<string, OutcomeTable>>();

/** What the tables depend on beside test and object: layouts (and with them the hypotheses), symptoms, family. */
export function circumstancesKey(seen: Pick<Interpretation, 'layoutProbabilities' | 'symptoms' | 'family'>): string {
  return `${Object.keys(seen.layoutProbabilities).join(',')}|${[...seen.symptoms].sort().join(',')}|${seen.family?.id ?? ''}`;
}

/** Circumstances as a layout sees them: its own names for symptoms added. */
export function circumstancesIn(
  layoutId: string,
  seen: Pick<Interpretation, 'symptoms' | 'family'>,
  compiled: CompiledPack,
): Circumstances {
  return { symptoms: knownAs(seen.symptoms, compiled.layouts.get(layoutId)), family: seen.family, layoutId };
}

/** Hypotheses must be those of the circumstances' layouts, in the pack's order. */
export function outcomeTable(
  seen: Pick<Interpretation, 'layoutProbabilities' | 'symptoms' | 'family' | 'hypotheses'>,
  compiled: CompiledPack,
  test: TestDefinition,
  of: string | undefined,
  circumstances = circumstancesKey(seen),
): OutcomeTable {
  let own = tables.get(compiled);
  if (!own) tables.set(compiled, (own = new Map<string, OutcomeTable>()));
  const key = `${test.id}|${of ?? ''}|${circumstances}`;
  const known = own.get(key);
  if (known) return known;
  const error = compiled.likelihoodWord(test.error);
  const count = compiled.outcomeIds(test.id).length;
  const truth = Array.from({ length: count }, () => new Float64Array(seen.hypotheses.length).fill(1 / count));
  const perLayout = new Map<string, FaultRows | undefined>();
  const faultIndex = new Map<string, number>();
  seen.hypotheses.forEach(({ layoutId, fault }, h) => {
    if (!perLayout.has(layoutId)) perLayout.set(layoutId, faultRows(test, of, circumstancesIn(layoutId, seen, compiled), compiled));
    if (!fault) return;
    const rows = perLayout.get(layoutId);
    const index = faultIndex.get(layoutId) ?? 0;
    faultIndex.set(layoutId, index + 1);
    if (!rows) return;
    // Hypotheses stand in the order of the layout's faults; one alone is looked up.
    const place = rows.ids[index] === fault.id ? index : rows.ids.indexOf(fault.id);
    rows.likelihoods[place]?.forEach((p, outcome) => {
      const row = truth[outcome];
      if (row) row[h] = p;
    });
  });
  averageForUnknown(truth, seen, compiled, circumstances);
  const made = { truth, told: truth.map((row) => row.map((p) => (1 - error) * p + (error * (1 - p)) / (count - 1))) };
  own.set(key, made);
  return made;
}

/**
 * What the next look would be, given those there were: the truth behind them is one, and each look errs on its own. A test not looked at so
 * far answers as it is.
 */
export function nextLook(
  seen: Interpretation,
  compiled: CompiledPack,
  test: TestDefinition,
  of: string | undefined,
  circumstances: string,
): readonly Float64Array[] {
  const { truth, told } = outcomeTable(seen, compiled, test, of, circumstances);
  const looks = seen.readings.get(testKey(test.id, of)) ?? [];
  if (looks.length === 0) return told;
  const outcomes = compiled.outcomeIds(test.id);
  const others = Math.max(1, outcomes.length - 1);
  const error = compiled.likelihoodWord(test.error);
  const given = outcomes.map((outcome) =>
    looks.reduce((product, look) => product * (look.body.outcome === outcome ? 1 - look.error : look.error / others), 1),
  );
  const next = outcomes.map(() => new Float64Array(seen.hypotheses.length));
  for (let h = 0; h < seen.hypotheses.length; h += 1) {
    const weights = outcomes.map((_, place) => (truth[place]?.[h] ?? 0) * (given[place] ?? 0));
    const total = weights.reduce((a, b) => a + b, 0);
    outcomes.forEach((_, place) => {
      const p = (weights[place] ?? 0) / total;
      const row = next[place];
      if (row) row[h] = (1 - error) * p + (error * (1 - p)) / others;
    });
  }
  return next;
}

const complaintWeights = new WeakMap<CompiledPack, Map<string, readonly number[]>>();

/** Weight of each fault once the symptom is known; the same for every test of the same circumstances. */
function weightsOf(
  { hypotheses, symptoms, family }: Pick<Interpretation, 'symptoms' | 'family' | 'hypotheses'>,
  compiled: CompiledPack,
  circumstances: string,
): readonly number[] {
  let own = complaintWeights.get(compiled);
  if (!own) complaintWeights.set(compiled, (own = new Map<string, readonly number[]>()));
  const known = own.get(circumstances);
  if (known) return known;
  const told = { complaints: [...symptoms] };
  const made = hypotheses.map(({ layoutId, fault, prior }) =>
    fault ? prior * (symptoms.size > 0 ? toldGiven(fault, layoutId, family, told, compiled) : 1) : 0,
  );
  own.set(circumstances, made);
  return made;
}

/** Something not in the pack answers as sets of its layout with this symptom do on average. */
function averageForUnknown(
  truth: readonly Float64Array[],
  { hypotheses, symptoms, family }: Pick<Interpretation, 'symptoms' | 'family' | 'hypotheses'>,
  compiled: CompiledPack,
  circumstances: string,
): void {
  const weights = weightsOf({ hypotheses, symptoms, family }, compiled, circumstances);
  hypotheses.forEach(({ layoutId, fault }, h) => {
    if (fault) return;
    const total = hypotheses.reduce((sum, one, index) => sum + (one.layoutId === layoutId ? (weights[index] ?? 0) : 0), 0);
    if (total === 0) return;
    for (const row of truth)
      row[h] = hypotheses.reduce(
        (sum, one, index) => sum + (one.layoutId === layoutId && one.fault ? ((weights[index] ?? 0) / total) * (row[index] ?? 0) : 0),
        0,
      );
  });
}

interface FaultRows {
  readonly ids: readonly string[];
  readonly likelihoods: readonly (readonly number[])[];
}

const faultTables = new WeakMap<CompiledPack, Map<string, FaultRows>>();

/** P(outcome | fault) of every fault of a layout, by the block that speaks; undefined where the test says nothing. */
function faultRows(test: TestDefinition, of: string | undefined, now: Circumstances, compiled: CompiledPack): FaultRows | undefined {
  const block = test.likelihood.find((one) => holds(one.when, now));
  if (!block || !compiled.fits(test, now.layoutId)) return undefined;
  let own = faultTables.get(compiled);
  if (!own) faultTables.set(compiled, (own = new Map<string, FaultRows>()));
  const key = `${now.layoutId}|${test.id}|${test.likelihood.indexOf(block)}|${of ?? ''}`;
  const known = own.get(key);
  if (known) return known;
  const faults = compiled.faultsOf.get(now.layoutId) ?? [];
  const made = {
    ids: faults.map(({ id }) => id),
    likelihoods: faults.map(({ id }) => compiled.outcomeLikelihoods(test, block, now.layoutId, id, of)),
  };
  own.set(key, made);
  return made;
}

/** The answer a set gives where nothing is wrong with what the test looks at: the likeliest of the row for everything else. */
export function plainOutcome(test: TestDefinition, now: Circumstances, compiled: CompiledPack): string | undefined {
  const block = test.likelihood.find((one) => holds(one.when, now));
  const row = block?.rows.find((one) => one.for.includes('*'));
  if (!row) return undefined;
  return compiled
    .rowLikelihoods(test, row.likelihoods)
    .map((p, index) => ({ p, outcome: compiled.outcomeIds(test.id)[index] }))
    .sort((a, b) => b.p - a.p)[0]?.outcome;
}
