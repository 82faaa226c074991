/** Evidence -> probabilities over faults and assemblies, and what each entry did to them. */
import type { CompiledPack } from '../../knowledge/index.ts';
import type { CaseInput, Entry } from '../../ledger/index.ts';
import { interpret } from '../evidence/interpret.ts';
import { notInBook, testKey, type EvidenceUnit, type Interpretation } from '../evidence/interpretation.ts';
import { logOdds, posterior, rounded, softmax } from './posterior.ts';
import { circumstancesKey, outcomeTable } from '../evidence/rows.ts';
import { testUnits } from '../evidence/units.ts';

/** A case as probabilities, with what they were made from. */
export interface Belief {
  readonly interpretation: Interpretation;
  /** One per hypothesis; sums to 1. */
  readonly probabilities: readonly number[];
  /** Assembly id (and "not-in-the-book") -> probabilities; sums to 1. */
  readonly assemblies: ReadonlyMap<string, number>;
  /** Assembly ids, and for each hypothesis the place of its assembly among them. */
  readonly places: { readonly ids: readonly string[]; readonly of: readonly number[] };
  /** What the tables of outcomes are kept by. */
  readonly circumstances: string;
  /** Tests (with object) answered once whose answer is worth a second look now. */
  readonly askAgain: ReadonlySet<string>;
}

/**
 * A case as probabilities over hypotheses and assemblies (each sums to 1) under a pack. Deterministic: same entries, pack and
 * statistics, same answer.
 */
export function believe(input: CaseInput, compiled: CompiledPack): Belief {
  const interpretation = interpret(input, compiled);
  const probabilities = probabilitiesFrom(interpretation, interpretation.units);
  const assemblies = sumByAssembly(interpretation, probabilities);
  const ids = [...assemblies.keys()];
  const placeOf = new Map(ids.map((id, place) => [id, place]));
  const of = interpretation.hypotheses.map(({ fault }) => placeOf.get(fault?.assembly ?? notInBook) ?? 0);
  const made = { interpretation, probabilities, assemblies, places: { ids, of }, circumstances: circumstancesKey(interpretation) };
  return { ...made, askAgain: worthAsking(made, compiled) };
}

function probabilitiesFrom(interpretation: Interpretation, units: readonly EvidenceUnit[]): number[] {
  return posterior(
    interpretation.hypotheses.map((hypothesis) => hypothesis.prior),
    units.map((unit) => unit.logLikelihood),
  );
}

/** Probabilities of hypotheses, in their order, added up by assembly; the unknown fault stands under its own id. */
export function sumByAssembly(interpretation: Interpretation, probabilities: readonly number[]): Map<string, number> {
  const assemblies = new Map<string, number>();
  interpretation.hypotheses.forEach(({ fault }, index) => {
    const id = fault?.assembly ?? notInBook;
    assemblies.set(id, (assemblies.get(id) ?? 0) + (probabilities[index] ?? 0));
  });
  return assemblies;
}

/** What one entry did. */
export interface Influence {
  readonly entry: Entry;
  /** Assembly -> natural log-odds gained by this entry: with it, less without it. */
  readonly weights: ReadonlyMap<string, number>;
}

/**
 * What each entry did, by taking it out and believing again: the stated weight is exactly what the probabilities move when that
 * observation is struck from the case file. A test's answer touches its own unit only, so only that is made anew; what sets
 * the circumstances of others (symptom, code, repair) is read without from the start.
 */
export function influences(input: CaseInput, compiled: CompiledPack, belief: Belief): Influence[] {
  const { interpretation } = belief;
  const without = probabilitiesWithoutEntry(interpretation, compiled);
  const speaking = interpretation.units.flatMap((unit) => unit.entries.map((entry) => ({ entry, unit })));
  const seen = new Set<string>();
  return speaking
    .filter(({ entry }) => !seen.has(entry.id) && seen.add(entry.id))
    .sort((a, b) => a.entry.seq - b.entry.seq)
    .map(({ entry, unit }) => {
      const assemblies =
        unit.kind === 'test'
          ? sumByAssembly(interpretation, without(entry, unit))
          : believe({ ...input, entries: input.entries.filter((other) => other.id !== entry.id) }, compiled).assemblies;
      const weights = new Map<string, number>();
      for (const [id, probability] of belief.assemblies) weights.set(id, logOdds(probability) - logOdds(assemblies.get(id) ?? 0));
      return { entry, weights };
    });
}

/** Assembly -> natural log-odds that the symptom as a whole, whoever told or saw it, moved it by. */
export function complaintWeights(belief: Pick<Belief, 'interpretation' | 'assemblies'>): ReadonlyMap<string, number> {
  const { interpretation } = belief;
  const without = sumByAssembly(
    interpretation,
    probabilitiesFrom(
      interpretation,
      interpretation.units.filter(({ kind }) => kind !== 'symptom'),
    ),
  );
  return new Map([...belief.assemblies].map(([id, probability]) => [id, logOdds(probability) - logOdds(without.get(id) ?? 0)]));
}

/** Probabilities with one look taken out of the unit it belongs to, every other unit left as it is. */
export function probabilitiesWithoutEntry(seen: Interpretation, compiled: CompiledPack): (entry: Entry, unit: EvidenceUnit) => number[] {
  const all = seen.hypotheses.map(({ prior }, h) => seen.units.reduce((sum, unit) => sum + (unit.logLikelihood[h] ?? 0), Math.log(prior)));
  return (entry, unit) => {
    const left = unitWithout(seen, unit, entry, compiled);
    return softmax(
      all.map((log, h) => log - (unit.logLikelihood[h] ?? 0) + left.reduce((sum, one) => sum + (one.logLikelihood[h] ?? 0), 0)),
    );
  };
}

function unitWithout(seen: Interpretation, unit: EvidenceUnit, entry: Entry, compiled: CompiledPack): EvidenceUnit[] {
  // A test that shares its cause with no other, seen once: nothing is left.
  if (unit.entries.length === 1) return [];
  const rest = new Map(
    (unit.readings ?? [])
      .map((key) => [key, (seen.readings.get(key) ?? []).filter((look) => look.entry.id !== entry.id)] as const)
      .filter(([, looks]) => looks.length > 0),
  );
  return testUnits(rest, { ...seen, compiled }, []);
}

/** An answer's chance, told by all the others, and the leave-one-out odds that it was wrong. */
export interface AnswerDoubt {
  readonly entry: Entry;
  readonly key: string;
  readonly chance: number;
  readonly score: number;
}

/** How well each answer fits with all the others; in no order. */
export function answerDoubts(belief: Omit<Belief, 'askAgain'>, compiled: CompiledPack): AnswerDoubt[] {
  const { interpretation } = belief;
  const without = probabilitiesWithoutEntry(interpretation, compiled);
  return interpretation.units
    .filter(({ kind }) => kind === 'test')
    .flatMap((unit) =>
      unit.entries.flatMap((entry): AnswerDoubt[] => {
        const { body } = entry;
        const test = body.kind === 'test.answered' ? compiled.tests.get(compiled.currentId(body.test)) : undefined;
        if (body.kind !== 'test.answered' || !test) return [];
        const probabilities = without(entry, unit);
        const outcomes = compiled.outcomeIds(test.id);
        const row = outcomeTable(interpretation, compiled, test, body.of, belief.circumstances).truth[outcomes.indexOf(body.outcome)];
        const chance = probabilities.reduce((sum, p, h) => sum + p * (row?.[h] ?? 0), 0);
        const others = Math.max(1, outcomes.length - 1);
        return [{ entry, key: testKey(test.id, body.of), chance, score: (1 - chance) / (others * Math.max(chance, 1e-12)) }];
      }),
    );
}

/** Without the answer it hangs on, an assembly falls below this (value of ours: it is then no likelier than all else together). */
const hangsBelow = 0.3;

/**
 * The belief without the one answer that this assembly hangs on: without it, it would be no suspect to buy a part for. Undefined where none
 * alone carries it.
 */
export function withoutKeystone(assembly: string, belief: Belief, compiled: CompiledPack): Belief | undefined {
  const { interpretation, places } = belief;
  const place = places.ids.indexOf(assembly);
  const without = probabilitiesWithoutEntry(interpretation, compiled);
  let least = hangsBelow;
  let found: number[] | undefined;
  for (const unit of interpretation.units) {
    if (unit.kind !== 'test') continue;
    for (const entry of unit.entries) {
      // What ended the symptom is no reading that may have been misread.
      if (entry.body.kind === 'test.answered' && entry.body.outcome === 'cured') continue;
      const probabilities = without(entry, unit);
      const left = probabilities.reduce((sum, p, h) => sum + (places.of[h] === place ? p : 0), 0);
      if (left < least) [least, found] = [left, probabilities];
    }
  }
  return found && { ...belief, probabilities: found, assemblies: sumByAssembly(interpretation, found) };
}

/** So many answers are looked at again (value of ours): the most doubtful ones. */
const secondLooks = 3;
/** Over this the pack explains the case badly: a second fault, a wrong answer, or something new (value of ours). */
export const badFit = 0.25;

/**
 * A test isn't asked again unless something changed. A repair that cured nothing has changed something, and so has a case that the pack
 * explains badly: then the answers that fit worst with all the others are worth a second look, once.
 */
function worthAsking(belief: Omit<Belief, 'askAgain'>, compiled: CompiledPack): ReadonlySet<string> {
  const { units, readings } = belief.interpretation;
  const failed = Math.max(0, ...units.filter(({ kind }) => kind === 'repair').map(({ entries }) => entries[0]?.seq ?? 0));
  const misfit = (belief.assemblies.get(notInBook) ?? 0) > badFit;
  if (failed === 0 && !misfit) return new Set();
  const once = (key: string): boolean => (readings.get(key)?.length ?? 0) === 1;
  return new Set(
    answerDoubts(belief, compiled)
      .filter(({ entry, key, score }) => once(key) && score > 1 && (misfit || entry.seq < failed))
      .sort((a, b) => rounded(b.score) - rounded(a.score) || a.entry.seq - b.entry.seq)
      .slice(0, secondLooks)
      .map(({ key }) => key),
  );
}

/** What always holds of a belief; run by tests and by the server in development. Throws on a bug of ours. */
export function assertBelief(belief: Belief): void {
  const sum = belief.probabilities.reduce((a, b) => a + b, 0);
  // Rounding of some hundred additions stays far below this.
  if (Math.abs(sum - 1) > 1e-9) throw new Error(`probabilities sum to ${sum}`);
  if (belief.probabilities.some((p) => !(p >= 0 && p <= 1))) throw new Error('probabilities outside 0..1');
}
