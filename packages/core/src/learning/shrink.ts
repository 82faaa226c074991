/**
 * Counts into probabilities. Each level shrinks to the one above it: a family's probabilities to its layout's, a layout's to the pack's, by a
 * Dirichlet prior whose strength is the number of jobs the level above is worth. With nothing counted the pack stands.
 */
import type { CompiledPack, Family } from '../knowledge/index.ts';
import type { Counts } from '../ledger/index.ts';

// Strengths in jobs, values of ours: how many closed jobs outweigh the pack.
const bookStarting = 40;
const layoutStarting = 25;
const bookSymptoms = 20;
const bookOutcomes = 20;
/** Fewer outcomes counted of one fault and test than this say nothing yet. */
const enoughOutcomes = 5;

const cache = new WeakMap<CompiledPack, WeakMap<Counts, CompiledPack>>();

/** The same pack, its priors, symptoms and outcomes moved by what was counted. Ids it doesn't know are left out. */
export function withCounts(compiled: CompiledPack, counts: Counts): CompiledPack {
  let own = cache.get(compiled);
  if (!own) cache.set(compiled, (own = new WeakMap<Counts, CompiledPack>()));
  const known = own.get(counts);
  if (known) return known;
  const made = learn(compiled, counts);
  own.set(counts, made);
  return made;
}

/** The pack as a case is to be read with: moved by its own counts, where it has any. */
export const bookFor = (input: { readonly counts?: Counts }, book: CompiledPack): CompiledPack =>
  input.counts ? withCounts(book, input.counts) : book;

const shrunk = (prior: readonly number[], seen: readonly number[], strength: number): number[] => {
  const total = seen.reduce((a, b) => a + b, 0);
  return prior.map((p, index) => (strength * p + (seen[index] ?? 0)) / (strength + total));
};

function learn(compiled: CompiledPack, counts: Counts): CompiledPack {
  const priors = new Map<string, readonly number[]>();
  const byFamily = new Map<string, readonly number[]>();
  const symptoms = new Map<string, readonly number[]>();
  for (const { id } of compiled.pack.layouts) {
    const faults = compiled.faultsOf.get(id) ?? [];
    const book = compiled.priors.get(id) ?? [];
    const place = new Map(faults.map((fault, index) => [fault.id, index]));
    /** By fault; experience told of an assembly is spread over its faults as the pack has them. */
    const rows = [...counts.jobs, ...counts.told]
      .filter((row) => row.layout === id)
      .flatMap(({ family, symptom, fault, n }) => {
        const index = place.get(compiled.currentId(fault));
        if (index !== undefined) return [{ family, symptom, index, n }];
        const members = faults.flatMap((one, at) => (one.assembly === fault ? [at] : []));
        const weight = members.reduce((sum, at) => sum + (book[at] ?? 0), 0);
        return members.map((at) => ({ family, symptom, index: at, n: (n * (book[at] ?? 0)) / weight }));
      });
    const tally = (only: (row: { family?: string | undefined }) => boolean): number[] => {
      const seen = faults.map(() => 0);
      for (const row of rows) if (only(row)) seen[row.index] = (seen[row.index] ?? 0) + row.n;
      return seen;
    };
    const layoutProbabilities = shrunk(
      book,
      tally(() => true),
      bookStarting,
    );
    priors.set(id, layoutProbabilities);
    for (const family of compiled.pack.families.filter((one) => one.layouts.includes(id))) {
      const seen = tally((row) => row.family === family.id);
      if (seen.some((n) => n > 0)) byFamily.set(`${id}|${family.id}`, shrunk(layoutProbabilities, seen, layoutStarting));
    }
    for (const [at, fault] of faults.entries()) {
      const own = rows.filter(({ index, symptom }) => index === at && symptom !== undefined);
      if (own.length === 0) continue;
      symptoms.set(
        `${id}|${fault.id}`,
        compiled.symptomIds.map((symptom) => own.reduce((sum, row) => sum + (row.symptom === symptom ? row.n : 0), 0)),
      );
    }
  }
  const outcomes = new Map<string, Map<string, number>>();
  for (const row of counts.outcomes) {
    const key = `${row.layout}|${row.test}|${row.of ?? ''}|${compiled.currentId(row.fault)}`;
    const seen = outcomes.get(key) ?? new Map<string, number>();
    seen.set(row.outcome, (seen.get(row.outcome) ?? 0) + row.n);
    outcomes.set(key, seen);
  }
  return {
    ...compiled,
    priors,
    priorsIn: (layoutId: string, family?: Family) => byFamily.get(`${layoutId}|${family?.id ?? ''}`) ?? priors.get(layoutId) ?? [],
    symptomLikelihoods(layoutId, faultId, family) {
      const book = compiled.symptomLikelihoods(layoutId, faultId, family);
      const seen = symptoms.get(`${layoutId}|${faultId}`);
      return seen ? shrunk(book, seen, bookSymptoms) : book;
    },
    outcomeLikelihoods(test, block, layoutId, faultId, of) {
      const book = compiled.outcomeLikelihoods(test, block, layoutId, faultId, of);
      const seen = outcomes.get(`${layoutId}|${test.id}|${of ?? ''}|${faultId}`);
      const each = compiled.outcomeIds(test.id).map((outcome) => seen?.get(outcome) ?? 0);
      return each.reduce((a, b) => a + b, 0) >= enoughOutcomes ? shrunk(book, each, bookOutcomes) : book;
    },
  };
}

/** n behind an assembly's priors in a layout: closed jobs, and what was told, apart. */
export function countedFor(counts: Counts, compiled: CompiledPack, layoutId: string, assembly: string): { jobs: number; told: number } {
  const own = new Set((compiled.faultsOf.get(layoutId) ?? []).filter((fault) => fault.assembly === assembly).map(({ id }) => id));
  const sum = (rows: readonly { layout: string; fault: string; n: number }[]): number =>
    rows
      .filter((row) => row.layout === layoutId && (own.has(compiled.currentId(row.fault)) || row.fault === assembly))
      .reduce((total, row) => total + row.n, 0);
  return { jobs: sum(counts.jobs), told: sum(counts.told) };
}
