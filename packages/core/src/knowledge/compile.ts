/**
 * A pack made ready for arithmetic: ids looked up, words turned into numbers, cuts expanded over each layout's graph.
 * Compile once, use for every fold. Nothing here depends on a job.
 */
import { hashPack } from './hash.ts';
import { classifyCut, type CutClass } from './graph.ts';
import { deriveProcedure, type Procedure } from './procedure.ts';
import { rowNumbers } from './scale.ts';
import type { Family, Fault, Layout, LikelihoodBlock, Pack, TestDefinition } from './schema.ts';

export interface CompiledPack {
  readonly pack: Pack;
  readonly hash: string;
  readonly stageIds: readonly string[];
  readonly layouts: ReadonlyMap<string, Layout>;
  readonly faults: ReadonlyMap<string, Fault>;
  readonly tests: ReadonlyMap<string, TestDefinition>;
  readonly families: ReadonlyMap<string, Family>;
  readonly symptomIds: readonly string[];
  readonly faultsOf: ReadonlyMap<string, readonly Fault[]>;
  /** Starting probability of each of a layout's faults, in the order of `faultsOf`; sums to 1. */
  readonly startingOdds: ReadonlyMap<string, readonly number[]>;
  /** P(symptom | fault) by fault id, in the order of `symptomIds`. */
  readonly symptomOdds: ReadonlyMap<string, readonly number[]>;
  likelihoodWord(word: string): number;
  outcomeIds(testId: string): readonly string[];
  /** P(outcome | fault) over the test's outcomes, for one likelihood block. */
  outcomeOdds(test: TestDefinition, block: LikelihoodBlock, layoutId: string, faultId: string, of?: string): readonly number[];
  procedure(test: TestDefinition, layoutId: string, of?: string): Procedure;
  currentId(id: string): string;
}

/** Row that speaks for a fault, most specific first: fault, assembly, the test's object, cut class, everything. */
export function selectRow(
  block: LikelihoodBlock,
  fault: Pick<Fault, 'id' | 'assembly'>,
  cut: CutClass | undefined,
  of: string | undefined,
): LikelihoodBlock['rows'][number] | undefined {
  const keys = [fault.id, fault.assembly, ...(of === fault.assembly ? ['@of'] : []), ...(cut ? [`@${cut}`] : []), '*'];
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

/** The pack must have passed `checkPack`; an unchecked one may throw TypeError here. */
export function compilePack(pack: Pack): CompiledPack {
  const byId = <T extends { id: string }>(items: readonly T[]): Map<string, T> => new Map(items.map((item) => [item.id, item]));
  const layouts = byId(pack.layouts);
  const tests = byId(pack.tests);
  const faults = byId(pack.faults);
  const stageIds = pack.stages.map((stage) => stage.id);
  const symptomIds = pack.symptoms.map((symptom) => symptom.id);
  const faultsOf = new Map<string, readonly Fault[]>();
  const startingOdds = new Map<string, readonly number[]>();
  for (const layout of pack.layouts) {
    const own = pack.faults.filter((fault) => fault.frequency[layout.id] !== undefined);
    const weights = own.map((fault) => pack.scale.frequency[fault.frequency[layout.id] ?? ''] ?? 0);
    const total = weights.reduce((a, b) => a + b, 0);
    faultsOf.set(layout.id, own);
    startingOdds.set(
      layout.id,
      weights.map((weight) => weight / total),
    );
  }
  const symptomOdds = new Map(
    pack.faults.map((fault) => [fault.id, rowNumbers(pack.scale, symptomIds, fault.symptoms).odds]),
  );
  const cuts = new Map<string, Map<string, CutClass>>();
  const rows = new Map<string, readonly number[]>();
  const procedures = new Map<string, Procedure>();
  const outcomes = new Map(pack.tests.map((test) => [test.id, test.observe.outcomes.map((outcome) => outcome.id)]));

  const layoutOf = (id: string): Layout => {
    const layout = layouts.get(id);
    if (!layout) throw new TypeError(`layout ${id} is not in this pack`);
    return layout;
  };
  const procedure = (test: TestDefinition, layoutId: string, of?: string): Procedure =>
    memo(procedures, `${test.id}|${layoutId}|${of ?? ''}`, () => deriveProcedure(test, layoutOf(layoutId), stageIds, of));

  return {
    pack,
    hash: hashPack(pack),
    stageIds,
    layouts,
    faults,
    tests,
    families: byId(pack.families),
    symptomIds,
    faultsOf,
    startingOdds,
    symptomOdds,
    likelihoodWord: (word) => pack.scale.likelihood[word] ?? Math.min(...Object.values(pack.scale.likelihood)),
    outcomeIds: (testId) => outcomes.get(testId) ?? [],
    outcomeOdds(test, block, layoutId, faultId, of) {
      const key = `${test.id}|${test.likelihood.indexOf(block)}|${layoutId}|${faultId}|${of ?? ''}`;
      return memo(rows, key, () => {
        const fault = faults.get(faultId);
        const pulled = procedure(test, layoutId, of).pulled;
        const layout = layoutOf(layoutId);
        const classes = memo(cuts, `${layoutId}|${pulled.join(',')}`, () => classifyCut(layout, pulled));
        const cut = fault && pulled.length > 0 ? classes.get(fault.assembly) : undefined;
        const row = fault && selectRow(block, fault, cut, of);
        const ids = outcomes.get(test.id) ?? [];
        return row ? rowNumbers(pack.scale, ids, row.odds).odds : ids.map(() => 1 / ids.length);
      });
    },
    procedure,
    currentId: (id) => pack.aliases[id] ?? id,
  };
}
