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

function wordsToLikelihoods(pack: Pack, outcomes: readonly string[], row: Readonly<Record<string, string>>): number[] {
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

/** What sets with this fault show, symptom by symptom, added up from the pack's own numbers. */
function shownBy(pack: Pack, layout: Layout, fault: Pack['faults'][number], family: Family | undefined): Map<string, number> {
  const fits = (traits: Record<string, string[]>): boolean =>
    Object.entries(traits).every(([id, ok]) => ok.includes(family?.traits[id] ?? 'unknown'));
  const mix = (family && fault.doesWhen?.find(({ traits }) => fits(traits))?.does) ?? fault.does ?? {};
  const shown = new Map<string, number>();
  for (const one of pack.classes) {
    for (const [symptom, share] of Object.entries(one.layouts?.[layout.id] ?? one.shares)) {
      const here = layout.showsAs[symptom] ?? symptom;
      shown.set(here, (shown.get(here) ?? 0) + ((mix[one.id] ?? 0) * share) / 100_000);
    }
  }
  const top = [...shown].sort((a, b) => b[1] - a[1])[0]?.[0] ?? '';
  for (const [id, p] of shown) {
    if (p === 0 || p >= 0.005 || id === top) continue;
    shown.set(top, shown.get(top)! - (0.005 - p));
    shown.set(id, 0.005);
  }
  return shown;
}

/** P(these words are told | what is shown): told words of one set add; a word may be told for its neighbour. */
function toldOf(pack: Pack, shown: ReadonlyMap<string, number>, told: readonly string[]): number {
  let sum = 0;
  for (const { id, toldAs = {} } of pack.symptoms) {
    const elsewhere = Object.entries(toldAs).map(([word, often]) => [word, pack.scale.likelihood[often]!] as const);
    const stays = 1 - elsewhere.reduce((p, [, q]) => p + q, 0);
    for (const word of told) sum += (shown.get(id) ?? 0) * (word === id ? stays : (elsewhere.find(([other]) => other === word)?.[1] ?? 0));
  }
  return 0.995 * Math.min(1, sum) + 0.005 / pack.symptoms.length;
}

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

/** Fault id (and "not-in-the-book") -> probabilities. One layout, one symptom, no blink code, no retractions. */
export function bruteForceProbabilities(input: CaseInput, pack: Pack): Map<string, number> {
  const layout = pack.layouts.find((one) => one.id === input.set.layout)!;
  const family = pack.families.find((one) => one.id === input.set.family);
  const symptoms = new Set(input.entries.flatMap(({ body }) => (body.kind === 'symptom.reported' ? body.symptoms : [])));
  const elsewhere = (here: string): string[] => Object.entries(layout.showsAs).flatMap(([there, as]) => (as === here ? [there] : []));
  const namesHere = new Set([...symptoms].flatMap((id) => [id, ...elsewhere(id)]));
  const moved = new Set(
    input.entries.flatMap(({ body }) => {
      if (body.kind !== 'test.answered' || body.sure !== 'sure') return [];
      const test = pack.tests.find((one) => one.id === body.test)!;
      const swung = test.observe.outcomes.find(({ id }) => id === body.outcome)?.seen?.some(({ reading }) => reading?.swings === true);
      return swung === true ? test.do.flatMap((step) => ('measure' in step ? [step.at] : [])) : [];
    }),
  );
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
    // Another code with a board out says little until the old one was seen again; nobody here counts a code.
    const otherCode = test.observe.outcomes.some(({ id, seen }) => id === body.outcome && seen?.some(({ code }) => code === 'changed'));
    // Nobody said at which level the line asks, and nobody saw it move: one set in twenty-five is the other way round.
    const unsaid = (line: string): boolean => family?.traits[`${line}.active-low`] === undefined && !moved.has(line);
    const levels = test.observe.outcomes.some(({ seen }) => seen?.some(({ reading }) => reading?.asks !== undefined));
    const noEffect = test.observe.outcomes.find(({ id }) => id === body.outcome)?.seen === undefined;
    const turned = test.do.some((step) =>
      'measure' in step ? levels && unsaid(step.at) : 'force' in step && noEffect && unsaid(step.force),
    );
    const error = Math.max(
      pack.scale.likelihood[test.error]!,
      body.sure === 'think-so' ? 0.25 : 0,
      outside || otherCode ? 0.35 : 0,
      turned ? 0.04 : 0,
    );
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
  const told = symptoms.size > 1 ? [...symptoms].filter((id) => id !== 'blinking') : [...symptoms];
  const complaints = new Map(
    own.map((fault) => [fault.id, told.length === 0 ? 1 : toldOf(pack, shownBy(pack, layout, fault, family), told)] as const),
  );
  const complaint = (fault: Pack['faults'][number]): number => complaints.get(fault.id)!;
  const average = worlds.reduce((sum, { fault, prior }) => sum + (fault ? (prior / (1 - unknown)) * complaint(fault) : 0), 0);
  const kept = new Map<string, number[]>();
  const answersOf = (fault: Pack['faults'][number], look: Looks, pulled: readonly string[]): number[] => {
    const key = `${fault.id}/${look.test.id}/${look.of ?? ''}`;
    const known = kept.get(key);
    if (known) return known;
    const made = rowOf(fault, look, pulled);
    kept.set(key, made);
    return made;
  };
  const rowOf = (fault: Pack['faults'][number], look: Looks, pulled: readonly string[]): number[] => {
    const outcomes = look.test.observe.outcomes.map((outcome) => outcome.id);
    const seat = layout.merges[fault.assembly] ?? fault.assembly;
    const places = [...(look.of === seat ? ['@of'] : []), ...(pulled.length > 0 ? [classOf(layout, pulled, seat)] : [])];
    const kinds = Object.keys(fault.does ?? {});
    const does = kinds.length === 1 ? [`does:${kinds[0]!}`] : [];
    const keys = [
      ...places.map((place) => `${fault.id}${place}`),
      fault.id,
      ...does.flatMap((one) => [...places.map((place) => `${one}${place}`), one]),
      fault.assembly,
      seat,
      ...places,
      '*',
    ];
    const rows = blockFor(look.test, namesHere, family, layout.id).rows;
    const key = keys.find((one) => rows.some((row) => row.for.includes(one)));
    const row = rows.find((one) => key !== undefined && one.for.includes(key));
    return row ? wordsToLikelihoods(pack, outcomes, row.likelihoods) : outcomes.map(() => 1 / outcomes.length);
  };
  /** Something new answers as the sets of this symptom do on average. */
  const averages = new Map<string, number>();
  const averageOf = (look: Looks, pulled: readonly string[], at: number): number => {
    const key = `${look.test.id}/${look.of ?? ''}/${at}`;
    const known = averages.get(key);
    if (known !== undefined) return known;
    const all = worlds.flatMap(({ fault, prior }) => (fault ? [{ fault, weight: prior * complaint(fault) }] : []));
    const sum = all.reduce((total, { weight }) => total + weight, 0);
    const made = all.reduce((total, { fault, weight }) => total + (weight / sum) * answersOf(fault, look, pulled)[at]!, 0);
    averages.set(key, made);
    return made;
  };
  const weights = new Map<string, number>();
  for (const { fault, prior } of worlds) {
    const weight = prior * (fault ? complaint(fault) : told.length === 0 ? 1 : average);
    // Every combination of true outcomes is a world of its own; its weight is added up.
    const tests = [...looks.values()];
    const enumerate = (index: number, chance: number): number => {
      const look = tests[index];
      if (!look) return chance;
      const outcomes = look.test.observe.outcomes.map((outcome) => outcome.id);
      const pulled = look.test.do.flatMap((step) => ('pull' in step ? step.pull.map((one) => (one === '$of' ? look.of! : one)) : []));
      // Asked for once a branch of the tree: kept.
      const probabilities = fault ? answersOf(fault, look, pulled) : outcomes.map((_, at) => averageOf(look, pulled, at));
      return outcomes.reduce((sum, truth, at) => {
        const seen = look.seen.reduce((p, one) => p * (one.outcome === truth ? 1 - one.error : one.error / (outcomes.length - 1)), 1);
        return sum + enumerate(index + 1, chance * probabilities[at]! * seen);
      }, 0);
    };
    weights.set(fault?.id ?? 'not-in-the-book', enumerate(0, weight));
  }
  const sum = [...weights.values()].reduce((a, b) => a + b, 0);
  return new Map([...weights].map(([id, weight]) => [id, weight / sum]));
}
