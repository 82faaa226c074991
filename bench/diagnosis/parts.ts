/** The parts of the benchmark, each on its own so that two can run side by side. */
import { readPackFolder } from '@veglia/contract/node';
import {
  believe,
  calibrationOf,
  compilePack,
  countsOf,
  decideFrom,
  doubtfulAnswers,
  foldCase,
  recommend,
  refinedMove,
  withCounts,
  type Calibration,
  type CompiledPack,
  type Counts,
  type Entry,
} from '@veglia/core';
import { atOnce, play, randomFrom, seedOf, SimulatedSet, simulatedOpponent, smallModel } from '@veglia/simulators';
import { drawCases, type Case } from './cases.ts';
import { disturbed } from './disturb.ts';
import { ratiosOf } from './exact.ts';
import { playCase, usualSettings, ways, type Played, type World } from './policies.ts';
import { mean, quantile, ratio, type Estimate } from './statistics.ts';

export interface Size {
  readonly cases: number;
  readonly refinedCases: number;
  readonly models: number;
  readonly modelFaults: number;
  readonly modelTests: number;
  readonly learnedJobs: number;
  readonly seed: number;
}

export const full: Size = {
  cases: 3000,
  refinedCases: 500,
  models: 50,
  modelFaults: 10,
  modelTests: 6,
  learnedJobs: 2000,
  seed: 20_261_125,
};
export const quick: Size = { cases: 240, refinedCases: 40, models: 12, modelFaults: 8, modelTests: 5, learnedJobs: 300, seed: 20_261_125 };

/** Cost of a wrong part for the second row of the target, minor units: about an hour at the usual rate. */
const nuisanceMinor = 5000;

const knowledge = new URL('../../knowledge', import.meta.url).pathname;

export interface WayFigures {
  readonly way: string;
  readonly cases: number;
  readonly cost: Estimate;
  readonly costAgainstList: Estimate;
  readonly costAgainstListTo75: Estimate | undefined;
  readonly avoidableRemoved: number;
  readonly minutes: Estimate;
  readonly partsMinor: Estimate;
  readonly tests: Estimate;
  readonly wrongParts: Estimate;
  readonly wrongPartsAgainstList: Estimate;
  readonly firstPartRight: Estimate;
  readonly givenUp: Estimate;
  readonly right: Estimate;
  readonly thoughtMs: { readonly median: number; readonly p95: number };
}

const share = (list: readonly boolean[]): Estimate => mean(list.map(Number));

function figures(way: string, played: readonly Played[], list: readonly Played[], to75: readonly Played[] | undefined): WayFigures {
  const costs = (of: readonly Played[]): number[] => of.map((one) => one.play.costMinor);
  const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);
  const known = sum(list.map((one) => one.knownMinor));
  const thought = played.flatMap((one) => one.play.thought);
  return {
    way,
    cases: played.length,
    cost: mean(costs(played)),
    costAgainstList: ratio(costs(played), costs(list)),
    costAgainstListTo75: to75 && ratio(costs(played), costs(to75)),
    avoidableRemoved: (sum(costs(list)) - sum(costs(played))) / (sum(costs(list)) - known),
    minutes: mean(played.map((one) => one.play.minutes)),
    partsMinor: mean(played.map((one) => one.play.partsMinor)),
    tests: mean(played.map((one) => one.play.tests)),
    wrongParts: mean(played.map((one) => one.play.wrongParts)),
    wrongPartsAgainstList: ratio(
      played.map((one) => one.play.wrongParts),
      list.map((one) => one.play.wrongParts),
    ),
    firstPartRight: share(played.flatMap((one) => (one.play.firstPartRight === undefined ? [] : [one.play.firstPartRight]))),
    givenUp: share(played.map((one) => one.play.ending === 'given-up')),
    right: share(played.map((one) => one.right)),
    thoughtMs: { median: quantile(thought, 0.5), p95: quantile(thought, 0.95) },
  };
}

const listWays = ['fixed-list', 'fixed-list-to-.75'] as const;

function compare(cases: readonly Case[], names: readonly string[], world: World): { table: WayFigures[]; played: Map<string, Played[]> } {
  const played = new Map<string, Played[]>();
  for (const name of new Set([...listWays, ...names])) {
    const way = ways[name];
    if (way)
      played.set(
        name,
        cases.flatMap((one) => playCase(one, way, world) ?? []),
      );
  }
  const list = played.get('fixed-list') ?? [];
  const to75 = played.get('fixed-list-to-.75');
  return { table: [...played].map(([name, plays]) => figures(name, plays, list, name === 'fixed-list' ? undefined : to75)), played };
}

const allWays = ['random-order', 'repairs-only', 'information', 'cost'];

/** Probability of the likeliest assembly as told before each move, against what it was. */
function calibrated(played: readonly Played[], compiled: CompiledPack): Calibration & { readonly gapPoints: number } {
  const pairs = played.flatMap(({ case: one, play: { told } }) => {
    const seat = compiled.layouts.get(one.layoutId)?.merges[one.fault.home] ?? one.fault.home;
    return told.map(({ id, probability }) => ({ probability, truth: id === seat ? 1 : 0 }));
  });
  const made = calibrationOf(pairs);
  return { ...made, gapPoints: 100 * made.gap };
}

/** Jobs played and closed with their confirmed fault, as the shop would count them. */
function learnFrom(compiled: CompiledPack, count: number, seed: number): Counts {
  const jobs: { layout: string; family: string | undefined; entries: Entry[] }[] = [];
  for (const one of drawCases(compiled, count, seed)) {
    const layout = compiled.layouts.get(one.layoutId);
    if (!layout) continue;
    const set = new SimulatedSet({ layout, family: compiled.families.get(one.familyId ?? ''), faults: [one.fault.id], seed: one.seed });
    if (set.complaint() === undefined) continue;
    const result = play({
      opponent: simulatedOpponent(set, 0),
      way: atOnce,
      compiled,
      set: { layout: one.layoutId, ...(one.familyId === undefined ? {} : { family: one.familyId }) },
      settings: usualSettings,
      seed: one.seed,
    });
    const at = { id: `confirmed-${jobs.length}`, seq: result.entries.length + 1, at: '2026-01-01T00:00:00Z', by: 'bench', basedOn: 0 };
    const confirmed: Entry = { ...at, body: { kind: 'fault.confirmed', v: 1, assembly: one.fault.assembly, fault: one.fault.id } };
    jobs.push({ layout: one.layoutId, family: one.familyId, entries: [...result.entries, confirmed] });
  }
  return countsOf(
    jobs.map(({ layout, family, entries }) => ({ set: { layout, ...(family === undefined ? {} : { family }) }, entries })),
    compiled,
    1,
  );
}

const parts = {
  'book, clean': (compiled: CompiledPack, size: Size) =>
    compare(drawCases(compiled, size.cases, size.seed), allWays, {
      opponent: 'book',
      errors: 0,
      believed: compiled,
      truth: compiled,
      settings: usualSettings,
    }).table,

  'book, 5 % wrong answers': (compiled: CompiledPack, size: Size) =>
    compare(drawCases(compiled, size.cases, size.seed + 1), allWays, {
      opponent: 'book',
      errors: 0.05,
      believed: compiled,
      truth: compiled,
      settings: usualSettings,
    }).table,

  'book, numbers off by 30 %': (compiled: CompiledPack, size: Size) =>
    compare(drawCases(compiled, size.cases, size.seed + 2), ['cost'], {
      opponent: 'book',
      errors: 0,
      believed: disturbed(compiled, 0.3, size.seed),
      truth: compiled,
      settings: usualSettings,
    }).table,

  'simulated set, clean': (compiled: CompiledPack, size: Size) => {
    const world: World = { opponent: 'set', errors: 0, believed: compiled, truth: compiled, settings: usualSettings };
    const { table, played } = compare(drawCases(compiled, size.cases, size.seed + 3), allWays, world);
    const layouts = compiled.pack.layouts.map(({ id }) => {
      const of = (way: string): number[] =>
        (played.get(way) ?? []).filter((one) => one.case.layoutId === id).map((one) => one.play.costMinor);
      return {
        layout: id,
        cases: of('fixed-list').length,
        list: mean(of('fixed-list')).value,
        random: mean(of('random-order')).value,
        cost: mean(of('cost')).value,
      };
    });
    return { table, layouts, calibration: calibrated(played.get('cost') ?? [], compiled) };
  },

  'simulated set, 5 % wrong answers': (compiled: CompiledPack, size: Size) =>
    compare(drawCases(compiled, size.cases, size.seed + 4), allWays, {
      opponent: 'set',
      errors: 0.05,
      believed: compiled,
      truth: compiled,
      settings: usualSettings,
    }).table,

  'simulated set, numbers off by 30 %': (compiled: CompiledPack, size: Size) =>
    compare(drawCases(compiled, size.cases, size.seed + 5), ['cost'], {
      opponent: 'set',
      errors: 0,
      believed: disturbed(compiled, 0.3, size.seed),
      truth: compiled,
      settings: usualSettings,
    }).table,

  'a wrong part’s nuisance priced': (compiled: CompiledPack, size: Size) => {
    const world = (wrongPartMinor: number): World => ({
      opponent: 'set',
      errors: 0,
      believed: compiled,
      truth: compiled,
      settings: { ...usualSettings, wrongPartMinor },
    });
    const cases = drawCases(compiled, size.cases, size.seed + 6);
    const list = compare(cases, [], world(0)).played.get('fixed-list') ?? [];
    const way = ways.cost;
    const priced = way ? cases.flatMap((one) => playCase(one, way, world(nuisanceMinor)) ?? []) : [];
    return [figures(`cost, nuisance ${nuisanceMinor / 100}`, priced, list, undefined)];
  },

  refined: (compiled: CompiledPack, size: Size) => {
    const of = (opponent: 'book' | 'set', seed: number): WayFigures[] =>
      compare(drawCases(compiled, size.refinedCases, seed), ['cost', 'refined'], {
        opponent,
        errors: 0,
        believed: compiled,
        truth: compiled,
        settings: usualSettings,
      }).table;
    return { book: of('book', size.seed + 7), set: of('set', size.seed + 8) };
  },

  'against the exact optimum': (compiled: CompiledPack, size: Size) => {
    const ratios = [];
    for (let seed = 1; ratios.length < size.models && seed < 100 * size.models; seed += 1) {
      const model = smallModel(compiled, size.modelFaults, size.modelTests, seed);
      if (model) ratios.push(ratiosOf(model));
    }
    const of = (list: readonly number[]) => ({ mean: mean(list), p95: quantile(list, 0.95), worst: Math.max(...list) });
    return {
      models: ratios.length,
      faults: size.modelFaults,
      tests: size.modelTests,
      atOnce: of(ratios.map((one) => one.atOnce)),
      refined: of(ratios.map((one) => one.refined)),
    };
  },

  'calibration after learning': (compiled: CompiledPack, size: Size) => {
    const learned = withCounts(compiled, learnFrom(compiled, size.learnedJobs, size.seed + 9));
    const world: World = { opponent: 'set', errors: 0, believed: learned, truth: compiled, settings: usualSettings };
    const way = ways.cost;
    const played = way ? drawCases(compiled, size.cases, size.seed + 3).flatMap((one) => playCase(one, way, world) ?? []) : [];
    return { jobs: size.learnedJobs, cost: mean(played.map((one) => one.play.costMinor)), calibration: calibrated(played, compiled) };
  },

  'one wrong answer': (compiled: CompiledPack, size: Size) => {
    const world: World = { opponent: 'set', errors: 0, believed: compiled, truth: compiled, settings: usualSettings };
    const way = ways['fixed-list-to-.75'];
    const places: number[] = [];
    const answers: number[] = [];
    for (const one of way ? drawCases(compiled, size.cases, size.seed + 10) : []) {
      const played = way && playCase(one, way, world);
      const said = played?.play.entries.filter(({ body }) => body.kind === 'test.answered') ?? [];
      // With three answers or fewer every place is among the first three.
      if (!played || said.length < 5) continue;
      const random = randomFrom(seedOf(one.seed, 'wrong'));
      const wrong = said[Math.floor(random() * said.length)];
      if (wrong?.body.kind !== 'test.answered') continue;
      const { body } = wrong;
      const others = compiled.outcomeIds(body.test).filter((id) => id !== body.outcome);
      const outcome = others[Math.floor(random() * others.length)];
      if (outcome === undefined) continue;
      const entries = played.play.entries.map((entry) => (entry === wrong ? { ...entry, body: { ...body, outcome } } : entry));
      const input = {
        set: { layout: one.layoutId, ...(one.familyId === undefined ? {} : { family: one.familyId }) },
        settings: usualSettings,
        entries,
      };
      const place = doubtfulAnswers(input, compiled).findIndex(({ entry }) => entry.id === wrong.id);
      if (place < 0) continue;
      places.push(place);
      answers.push(said.length);
    }
    return {
      cases: places.length,
      answers: mean(answers).value,
      first: share(places.map((p) => p === 0)),
      firstThree: share(places.map((p) => p < 3)),
    };
  },

  'two faults': (compiled: CompiledPack, size: Size) => {
    const costs: { anew: number; single: number }[] = [];
    const right: boolean[] = [];
    for (const one of drawCases(compiled, Math.ceil(size.cases / 2), size.seed + 11)) {
      const layout = compiled.layouts.get(one.layoutId);
      const random = randomFrom(seedOf(one.seed, 'second'));
      const others = (compiled.faultsOf.get(one.layoutId) ?? []).filter(
        ({ assembly }) => assembly !== one.fault.assembly && assembly !== 'outside',
      );
      const second = others[Math.floor(random() * others.length)];
      if (!layout || !second || one.fault.assembly === 'outside') continue;
      const family = compiled.families.get(one.familyId ?? '');
      const played = (asOne: boolean) => {
        const set = new SimulatedSet({ layout, family, faults: [one.fault.id, second.id], seed: one.seed });
        if (set.complaint() === undefined) return undefined;
        return play({
          opponent: simulatedOpponent(set, 0),
          way: atOnce,
          compiled,
          set: { layout: one.layoutId, ...(family ? { family: family.id } : {}) },
          settings: usualSettings,
          seed: one.seed,
          asOneFault: asOne,
        });
      };
      const anew = played(false);
      const single = played(true);
      if (!anew || !single || !anew.entries.some(({ body }) => body.kind === 'repair.done' && body.result === 'changed')) continue;
      costs.push({ anew: anew.costMinor, single: single.costMinor });
      right.push(anew.ending === 'cured');
    }
    return {
      cases: costs.length,
      againstPretendingOne: ratio(
        costs.map((one) => one.anew),
        costs.map((one) => one.single),
      ),
      cured: share(right),
    };
  },

  time: (compiled: CompiledPack, size: Size) => {
    const firstMs: number[] = [];
    const atOnceMs: number[] = [];
    const refinedMs: number[] = [];
    const settledMs: number[] = [];
    const beliefMs: number[] = [];
    const timed = <T>(list: number[], run: () => T): T => {
      const started = performance.now();
      const made = run();
      list.push(performance.now() - started);
      return made;
    };
    for (const one of drawCases(compiled, 150, size.seed + 12)) {
      const layout = compiled.layouts.get(one.layoutId);
      if (!layout) continue;
      const complaint = new SimulatedSet({ layout, faults: [one.fault.id], seed: one.seed }).complaint();
      if (complaint === undefined) continue;
      const entries: Entry[] = [
        {
          id: 'a',
          seq: 1,
          at: '2026-01-01T00:00:00Z',
          by: 'bench',
          basedOn: 0,
          body: { kind: 'symptom.reported', v: 2, symptoms: [complaint] },
        },
      ];
      const input = { set: { layout: one.layoutId }, settings: usualSettings, entries };
      const belief = timed(beliefMs, () => believe(input, compiled));
      // The first fold under a symptom and family reads the pack's rows; later ones find them kept.
      timed(firstMs, () => recommend(belief, compiled, usualSettings, 'cost', 'at-once'));
      timed(atOnceMs, () => recommend(belief, compiled, usualSettings, 'cost', 'at-once'));
      timed(settledMs, () => recommend(belief, compiled, usualSettings, 'cost'));
      const from = decideFrom(belief, compiled, usualSettings);
      if (from) timed(refinedMs, () => refinedMove(from.decision.model, from.decision.at));
    }
    const long = longLedger(compiled, 200);
    const foldMs: number[] = [];
    const interpretMs: number[] = [];
    for (let turn = 0; turn < 25; turn += 1) {
      timed(interpretMs, () => believe(long, compiled));
      timed(foldMs, () => foldCase(long, compiled));
    }
    const p95 = (list: readonly number[]) => ({ median: quantile(list, 0.5), p95: quantile(list, 0.95) });
    return {
      firstOfItsKindMs: p95(firstMs),
      atOnceMs: p95(atOnceMs),
      refinedMs: p95(refinedMs),
      settledMs: p95(settledMs),
      beliefMs: p95(beliefMs),
      beliefOf200EntriesMs: p95(interpretMs),
      foldOf200EntriesMs: p95(foldMs),
    };
  },
} as const;

/** A ledger of tests over and over, notes between. */
function longLedger(compiled: CompiledPack, count: number) {
  const tests = compiled.testsOf.get('led-tcon') ?? [];
  const entries: Entry[] = Array.from({ length: count }, (_, index): Entry => {
    const at = { id: `e${index}`, seq: index + 1, at: '2026-01-01T00:00:00Z', by: 'bench', basedOn: index };
    if (index === 0) return { ...at, body: { kind: 'symptom.reported', v: 2, symptoms: ['restart-loop'] } };
    if (index % 4 === 3) return { ...at, body: { kind: 'note.added', v: 1, text: 'as before' } };
    const test = tests[index % tests.length];
    const of = test?.of ? compiled.objectsOf(test, 'led-tcon')[0] : undefined;
    const outcome = test?.observe.outcomes.at(-1)?.id ?? 'cant-tell';
    return {
      ...at,
      body: { kind: 'test.answered', v: 2, test: test?.id ?? '', ...(of === undefined ? {} : { of }), outcome, sure: 'sure' },
    };
  });
  return { set: { layout: 'led-tcon' }, settings: usualSettings, entries };
}

export type PartName = keyof typeof parts;
export const partNames = Object.keys(parts) as PartName[];

export async function runPart(name: PartName, size: Size): Promise<unknown> {
  const compiled = compilePack(await readPackFolder(knowledge));
  return parts[name](compiled, size);
}
