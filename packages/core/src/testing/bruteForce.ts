/**
 * For tests only: the belief by enumerating worlds, written straight from the pack's JSON and sharing no code with the
 * belief: own word sums, own cut classes (by walking every path), own row choice. Groups of tests are left out.
 */
import type { Family, Layout, LikelihoodBlock, Pack, TestDefinition } from '../knowledge/index.ts';
import type { CaseInput } from '../ledger/index.ts';

interface Looks {
  readonly test: TestDefinition;
  readonly of: string | undefined;
  readonly seen: { outcome: string; error: number }[];
}

function wordsToOdds(pack: Pack, outcomes: readonly string[], row: Readonly<Record<string, string>>): number[] {
  const least = Math.min(...Object.values(pack.scale.likelihood));
  const given = outcomes.map((outcome) => {
    const word = row[outcome];
    return word === undefined ? least : word === 'rest' ? undefined : pack.scale.likelihood[word]!;
  });
  const spent = outcomes.reduce(
    (sum, outcome) => sum + (row[outcome] !== undefined && row[outcome] !== 'rest' ? pack.scale.likelihood[row[outcome]]! : 0),
    0,
  );
  const weights = given.map((one) => one ?? Math.max(least, 1 - spent));
  return weights.map((one) => one / weights.reduce((a, b) => a + b, 0));
}

const symptomsOf = ({ symptoms, symptomsWhen }: Pack['faults'][number], family: Family | undefined): Readonly<Record<string, string>> =>
  (family &&
    symptomsWhen?.find(({ traits }) =>
      Object.entries(traits).every(([id, ok]) => (ok as string[]).includes(family.traits[id] ?? 'unknown')),
    )?.symptoms) ??
  symptoms;

/** Every path from the mains to the node, as lists of nodes. */
function pathsTo(layout: Layout, node: string, path: readonly string[] = ['outside']): string[][] {
  const here = path.at(-1)!;
  if (here === node) return [[...path]];
  return layout.feeds.filter(([from]) => from === here).flatMap(([, to]) => pathsTo(layout, node, [...path, to]));
}

function classOf(layout: Layout, pulled: readonly string[], node: string): string {
  if (pathsTo(layout, node).every((path) => path.some((one) => pulled.includes(one)))) return '@beyond';
  const feedsCut = pulled.some((cut) => pathsTo(layout, cut).some((path) => path.includes(node)));
  return feedsCut ? '@inside' : '@unrelated';
}

function blockFor(test: TestDefinition, symptoms: ReadonlySet<string>, family: Family | undefined, layoutId: string): LikelihoodBlock {
  return test.likelihood.find(
    ({ when }) =>
      (when?.layouts === undefined || when.layouts.includes(layoutId)) &&
      (when?.symptoms === undefined || when.symptoms.some((id) => symptoms.has(id))) &&
      Object.entries(when?.traits ?? {}).every(([trait, values]) => values.includes(family?.traits[trait] ?? 'unknown')),
  )!;
}

/** Fault id (and "not-in-the-book") -> odds. One layout, one complaint, no blink code, no retractions. */
export function bruteForceOdds(input: CaseInput, pack: Pack): Map<string, number> {
  const layout = pack.layouts.find((one) => one.id === input.set.layout)!;
  const family = pack.families.find((one) => one.id === input.set.family);
  const symptoms = new Set(input.entries.flatMap(({ body }) => (body.kind === 'symptom.reported' ? body.symptoms : [])));
  const elsewhere = (here: string): string[] => Object.entries(layout.showsAs).flatMap(([there, as]) => (as === here ? [there] : []));
  const namesHere = new Set([...symptoms].flatMap((id) => [id, ...elsewhere(id)]));
  const looks = new Map<string, Looks>();
  for (const { body } of input.entries) {
    if (body.kind !== 'test.answered') continue;
    const test = pack.tests.find((one) => one.id === body.test)!;
    const silenced = test.speaksOnlyIf.some(
      ({ needs }) =>
        (needs.symptoms !== undefined && !needs.symptoms.some((id) => namesHere.has(id))) ||
        Object.entries(needs.traits ?? {}).some(([trait, values]) => !values.includes(family?.traits[trait] ?? 'unknown')),
    );
    if (silenced) continue;
    const outside = test.scope.symptoms !== undefined && !test.scope.symptoms.some((id) => namesHere.has(id));
    const error = Math.max(pack.scale.likelihood[test.error]!, body.sure === 'think-so' ? 0.25 : 0, outside ? 0.35 : 0);
    const key = `${test.id}/${body.of ?? ''}`;
    const known = looks.get(key) ?? { test, of: body.of, seen: [] };
    known.seen.push({ outcome: body.outcome, error });
    looks.set(key, known);
  }

  const wordOf = (fault: Pack['faults'][number]): string | undefined => {
    const word = fault.frequency[layout.id] ?? fault.frequency['*'];
    const here = layout.assemblies.includes(layout.merges[fault.assembly] ?? fault.assembly);
    const needs = (fault.needs ?? []).every((id) => layout.assemblies.includes(id));
    return here && needs && word !== 'none' ? word : undefined;
  };
  const own = pack.faults.filter((fault) => wordOf(fault) !== undefined);
  const total = own.reduce((sum, fault) => sum + pack.scale.frequency[wordOf(fault)!]!, 0);
  const unknown = pack.thresholds.notInBook;
  const worlds = [
    ...own.map((fault) => ({ fault, prior: ((1 - unknown) * pack.scale.frequency[wordOf(fault)!]!) / total })),
    { fault: undefined, prior: unknown },
  ];
  const symptomIds = pack.symptoms.map((symptom) => symptom.id);
  const weights = new Map<string, number>();
  for (const { fault, prior } of worlds) {
    let weight = prior;
    for (const symptom of symptoms) {
      const row = fault ? wordsToOdds(pack, symptomIds, symptomsOf(fault, family)) : symptomIds.map(() => 1 / symptomIds.length);
      const least = Math.min(...row);
      const at = (id: string): number => row[symptomIds.indexOf(id)]!;
      // What shows as something else here shows as itself no more.
      const moved =
        layout.showsAs[symptom] !== undefined ? least : at(symptom) + elsewhere(symptom).reduce((sum, id) => sum + at(id) - least, 0);
      const told = fault ? moved : 1 / symptomIds.length;
      weight *= 0.97 * told + 0.03 / symptomIds.length;
    }
    // Every combination of true outcomes is a world of its own; its weight is added up.
    const tests = [...looks.values()];
    const enumerate = (index: number, chance: number): number => {
      const look = tests[index];
      if (!look) return chance;
      const outcomes = look.test.observe.outcomes.map((outcome) => outcome.id);
      const pulled = look.test.do.flatMap((step) => ('pull' in step ? step.pull.map((one) => (one === '$of' ? look.of! : one)) : []));
      const seat = fault ? (layout.merges[fault.assembly] ?? fault.assembly) : '';
      const places = fault ? [...(look.of === seat ? ['@of'] : []), ...(pulled.length > 0 ? [classOf(layout, pulled, seat)] : [])] : [];
      const keys = fault ? [...places.map((place) => `${fault.id}${place}`), fault.id, fault.assembly, seat, ...places, '*'] : [];
      const rows = blockFor(look.test, namesHere, family, layout.id).rows;
      const key = keys.find((one) => rows.some((row) => row.for.includes(one)));
      const row = rows.find((one) => key !== undefined && one.for.includes(key));
      const odds = row ? wordsToOdds(pack, outcomes, row.odds) : outcomes.map(() => 1 / outcomes.length);
      return outcomes.reduce((sum, truth, at) => {
        const seen = look.seen.reduce((p, one) => p * (one.outcome === truth ? 1 - one.error : one.error / (outcomes.length - 1)), 1);
        return sum + enumerate(index + 1, chance * odds[at]! * seen);
      }, 0);
    };
    weights.set(fault?.id ?? 'not-in-the-book', enumerate(0, weight));
  }
  const sum = [...weights.values()].reduce((a, b) => a + b, 0);
  return new Map([...weights].map(([id, weight]) => [id, weight / sum]));
}
