/**
 * A pack made ready for arithmetic: ids looked up, words turned into numbers, cuts expanded over each layout's graph.
 * Compile once, use for every fold. Nothing here depends on a job.
 */
import { faultsIn, frequencyIn, objectsOf, repairsIn, testFits, type PlacedFault, type PlacedRepair } from './applies.ts';
import { hashPack } from './hash.ts';
import { complaintsOf, variantsOf } from './complaints.ts';
import { classifyCut, type CutClass } from './graph.ts';
import { deriveProcedure, type Procedure } from './procedure.ts';
import { rowNumbers } from './scale.ts';
import type { Family, Fault, Layout, LikelihoodBlock, Pack, TestDefinition } from './schema.ts';

/** A pack made ready to be looked up in. */
export interface CompiledPack {
  readonly pack: Pack;
  readonly hash: string;
  readonly stageIds: readonly string[];
  readonly layouts: ReadonlyMap<string, Layout>;
  readonly faults: ReadonlyMap<string, Fault>;
  readonly tests: ReadonlyMap<string, TestDefinition>;
  readonly families: ReadonlyMap<string, Family>;
  readonly symptomIds: readonly string[];
  /** A layout's faults, each with the assembly it sits on there. */
  readonly faultsOf: ReadonlyMap<string, readonly PlacedFault[]>;
  readonly testsOf: ReadonlyMap<string, readonly TestDefinition[]>;
  readonly repairsOf: ReadonlyMap<string, readonly PlacedRepair[]>;
  /** Whether the layout has what the test goes to. */
  fits(test: TestDefinition, layoutId: string): boolean;
  objectsOf(test: TestDefinition, layoutId: string): readonly string[];
  /** Starting probability of each of a layout's faults, in the order of `faultsOf`; sums to 1. */
  readonly priors: ReadonlyMap<string, readonly number[]>;
  /** The same for a family, where its own closed jobs have moved it. */
  priorsIn(layoutId: string, family?: Family): readonly number[];
  /** P(symptom | fault) in a layout and family, in the order of `symptomIds`; empty where the layout doesn't have the fault. */
  symptomLikelihoods(layoutId: string, faultId: string, family?: Family): readonly number[];
  likelihoodWord(word: string): number;
  /** A row of words over a test's outcomes as probabilities. */
  rowLikelihoods(test: TestDefinition, row: Readonly<Record<string, string>>): readonly number[];
  outcomeIds(testId: string): readonly string[];
  /** P(outcome | fault) over the test's outcomes, for one likelihood block. */
  outcomeLikelihoods(test: TestDefinition, block: LikelihoodBlock, layoutId: string, faultId: string, of?: string): readonly number[];
  /** `family` decides from where a line is forced; without it, as most sets are. */
  procedure(test: TestDefinition, layoutId: string, of?: string, family?: Family): Procedure;
  currentId(id: string): string;
}

/** Row that speaks for a fault, most specific first: fault where it is or is cut off
 * (`fault@of`, `fault@beyond`), fault, what it does (`does:class@of`, `does:class`), what it belongs to and where it sits (likewise), the test's object, cut class, everything. */
export function selectRow(
  block: LikelihoodBlock,
  fault: Pick<PlacedFault, 'id' | 'assembly' | 'home' | 'does'>,
  cut: CutClass | undefined,
  of: string | undefined,
): LikelihoodBlock['rows'][number] | undefined {
  const kinds = Object.keys(fault.does ?? {});
  // A fault that may be of several kinds is asked by what it is.
  const does = kinds.length === 1 ? kinds.map((id) => `does:${id}`) : [];
  const here = [...(of === fault.assembly ? ['@of'] : []), ...(cut ? [`@${cut}`] : [])];
  const at = (id: string): string[] => [...here.map((one) => `${id}${one}`), id];
  const keys = [...at(fault.id), ...does.flatMap(at), ...at(fault.home), ...at(fault.assembly), ...here, '*'];
  for (const key of keys) {
    const row = block.rows.find((candidate) => candidate.for.includes(key));
    if (row) return row;
  }
  return undefined;
}

function memo<T>(cache: Map<string, T>, key: string, make: () => T): T {
  const found = cache.get(key);
  if (found !== undefined) return found;
  const made = make();
  cache.set(key, made);
  return made;
}

/** A trait the family doesn't state has the value `unknown`. */
export const traitsHold = (traits: Readonly<Record<string, readonly string[]>>, family: Family | undefined): boolean =>
  Object.entries(traits).every(([trait, values]) => values.includes(family?.traits[trait] ?? 'unknown'));

/** The pack must have passed `checkPack`; an unchecked one may throw TypeError here. */
/** `hash`: what the pack's document is known by, where that document was of an older version; left out, the pack's own. */
export function compilePack(pack: Pack, hash = hashPack(pack)): CompiledPack {
  const byId = <T extends { id: string }>(items: readonly T[]): Map<string, T> => new Map(items.map((item) => [item.id, item]));
  const layouts = byId(pack.layouts);
  const tests = byId(pack.tests);
  const faults = byId(pack.faults);
  const stageIds = pack.stages.map((stage) => stage.id);
  const symptomIds = pack.symptoms.map((symptom) => symptom.id);
  const faultsOf = new Map<string, readonly PlacedFault[]>();
  const placed = new Map<string, PlacedFault>();
  const priors = new Map<string, readonly number[]>();
  const testsOf = new Map<string, readonly TestDefinition[]>();
  const repairsOf = new Map<string, readonly PlacedRepair[]>();
  const fitting = new Set<string>();
  for (const layout of pack.layouts) {
    const own = faultsIn(pack, layout);
    const weights = own.map((fault) => pack.scale.frequency[frequencyIn(fault, layout) ?? ''] ?? 0);
    const total = weights.reduce((a, b) => a + b, 0);
    faultsOf.set(layout.id, own);
    for (const fault of own) placed.set(`${layout.id}|${fault.id}`, fault);
    priors.set(
      layout.id,
      weights.map((weight) => weight / total),
    );
    const fit = pack.tests.filter((test) => testFits(pack, test, layout));
    testsOf.set(layout.id, fit);
    for (const test of fit) fitting.add(`${layout.id}|${test.id}`);
    repairsOf.set(layout.id, repairsIn(pack, layout));
  }
  const symptomRows = new Map<string, readonly number[]>();
  for (const layout of pack.layouts) {
    for (const fault of faultsOf.get(layout.id) ?? []) {
      complaintsOf(pack, layout, fault).forEach((row, variant) => symptomRows.set(`${layout.id}|${fault.id}|${variant}`, row));
    }
  }
  const cuts = new Map<string, Map<string, CutClass>>();
  const rows = new Map<string, readonly number[]>();
  const procedures = new Map<string, Procedure>();
  const outcomes = new Map(pack.tests.map((test) => [test.id, test.observe.outcomes.map((outcome) => outcome.id)]));

  const layoutOf = (id: string): Layout => {
    const layout = layouts.get(id);
    if (!layout) throw new TypeError(`layout ${id} is not in this pack`);
    return layout;
  };
  const forces = new Set(pack.tests.filter((test) => test.do.some((step) => 'force' in step)).map(({ id }) => id));
  const procedure = (test: TestDefinition, layoutId: string, of?: string, family?: Family): Procedure => {
    const own = forces.has(test.id) ? family : undefined;
    return memo(procedures, `${test.id}|${layoutId}|${of ?? ''}|${own?.id ?? ''}`, () =>
      deriveProcedure(test, layoutOf(layoutId), stageIds, of, own),
    );
  };

  return {
    pack,
    hash,
    stageIds,
    layouts,
    faults,
    tests,
    families: byId(pack.families),
    symptomIds,
    faultsOf,
    testsOf,
    repairsOf,
    fits: (test, layoutId) => fitting.has(`${layoutId}|${test.id}`),
    objectsOf: (test, layoutId) => objectsOf(test, layoutOf(layoutId)),
    priors,
    priorsIn: (layoutId) => priors.get(layoutId) ?? [],
    symptomLikelihoods(layoutId, faultId, family) {
      const when = variantsOf(faults.get(faultId));
      const variant = family === undefined ? -1 : when.findIndex(({ traits }) => traitsHold(traits, family));
      return symptomRows.get(`${layoutId}|${faultId}|${variant + 1}`) ?? [];
    },
    likelihoodWord: (word) => pack.scale.likelihood[word] ?? Math.min(...Object.values(pack.scale.likelihood)),
    rowLikelihoods: (test, row) => rowNumbers(pack.scale, outcomes.get(test.id) ?? [], row).likelihoods,
    outcomeIds: (testId) => outcomes.get(testId) ?? [],
    outcomeLikelihoods(test, block, layoutId, faultId, of) {
      const key = `${test.id}|${test.likelihood.indexOf(block)}|${layoutId}|${faultId}|${of ?? ''}`;
      return memo(rows, key, () => {
        const fault = placed.get(`${layoutId}|${faultId}`);
        const pulled = procedure(test, layoutId, of).pulled;
        const layout = layoutOf(layoutId);
        const classes = memo(cuts, `${layoutId}|${pulled.join(',')}`, () => classifyCut(layout, pulled));
        const cut = fault && pulled.length > 0 ? classes.get(fault.assembly) : undefined;
        const row = fault && selectRow(block, fault, cut, of);
        const ids = outcomes.get(test.id) ?? [];
        return row ? rowNumbers(pack.scale, ids, row.likelihoods).likelihoods : ids.map(() => 1 / ids.length);
      });
    },
    procedure,
    currentId: (id) => pack.aliases[id] ?? id,
  };
}
