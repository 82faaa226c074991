/**
 * The judge in workshops the pack hasn't seen: drawn cases, half of them of families nobody wrote down, meters 3 % off, 5 % wrong answers,
 * 5 % second faults. Prints a table and writes bench/results/worlds.json.
 *
 *   npm run bench:worlds -- [--cases 2001] [--seeds 1,2,3] [--world varied|flat]
 */
import { fork } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { readPackFolder } from '@veglia/contract/node';
import {
  calibrationOf,
  compilePack,
  defaultSettings,
  expectedInformation,
  minutesToStage,
  offersOf,
  believe,
  stageOfPlace,
  type CompiledPack,
} from '@veglia/core';
import {
  drawWorldCase,
  fixedList,
  play,
  settled,
  simulatedHome,
  SimulatedSet,
  simulatedOpponent,
  worldErrors,
  worlds,
  type Choice,
  type Play,
  type Way,
  type World,
  type WorldCase,
} from '@veglia/simulators';
import { mean, ratio, shown, type Estimate } from './statistics.ts';

interface Batch {
  readonly world: World;
  readonly seed: number;
  readonly from: number;
  readonly to: number;
}

/** What of one case the figures need; sent between processes. */
interface Case {
  readonly world: World;
  readonly layout: string;
  readonly faults: readonly string[];
  readonly places: readonly string[];
  readonly known: boolean;
  readonly complaint: string;
  readonly play: Omit<Play, 'entries' | 'firstMove'>;
  readonly list: number;
  readonly first: string;
  /** A step outside the set qualified at the start, and the first move was one. */
  readonly outsideOpen: boolean;
  readonly outsideFirst: boolean;
  /** The cheapest way that cures it costs less than the set is worth. */
  readonly worthIt: boolean;
}

const compiled: CompiledPack = compilePack(await readPackFolder(new URL('../../knowledge', import.meta.url).pathname));
const layouts = compiled.pack.layouts.map((layout) => ({
  layout,
  // Rare layouts are drawn more often than they come, or they would hardly be measured.
  weight: Math.sqrt(compiled.pack.scale.frequency[layout.frequency] ?? 1),
}));

/** Symptoms the pack has no word for yet are told by the nearest it has. */
const told = (complaint: string | undefined): string | undefined =>
  complaint === 'bar-across' && !compiled.symptomIds.includes(complaint) ? 'film-bar' : complaint;

const outsideMinutes = 3;

function isOutside(choice: Choice | undefined): boolean {
  return choice?.kind === 'test' && choice.offer.stage <= 0;
}

function run(one: WorldCase, way: Way): { result: Play; set: SimulatedSet } | undefined {
  const layout = compiled.layouts.get(one.layoutId);
  if (!layout) return undefined;
  const made = (): SimulatedSet => new SimulatedSet({ ...one, layout });
  const set = made();
  if (set.complaint() === undefined) return undefined;
  const opponent = simulatedOpponent(set, worldErrors);
  const result = play({
    opponent: { ...opponent, complaint: () => told(opponent.complaint()) },
    way,
    compiled,
    set: { layout: one.layoutId, ...(one.familyId === undefined ? {} : { family: one.familyId }) },
    settings: defaultSettings,
    seed: one.seed,
  });
  return { result, set: made() };
}

function measured(one: WorldCase, world: World): Case | undefined {
  const layout = compiled.layouts.get(one.layoutId);
  const played = run(one, settled);
  const list = run(one, fixedList());
  if (!layout || !played || !list) return undefined;
  const { entries, firstMove, ...rest } = played.result;
  const facts = { layout: one.layoutId, ...(one.familyId === undefined ? {} : { family: one.familyId }) };
  const belief = believe({ set: facts, settings: defaultSettings, entries: entries.slice(0, 1) }, compiled);
  const offers = offersOf(belief, compiled, defaultSettings, one.layoutId).filter(({ left }) => left === undefined);
  const cheap = (compiled.repairsOf.get(one.layoutId) ?? [])
    .filter((repair) => played.set.wouldCure(repair))
    .map(
      (repair) =>
        repair.partShare * defaultSettings.newSetMinor +
        ((repair.minutes + minutesToStage(stageOfPlace(repair.place, one.layoutId, compiled), belief.interpretation.state, compiled)) /
          60) *
          defaultSettings.rateMinorPerHour,
    );
  return {
    world,
    layout: one.layoutId,
    faults: one.faults,
    places: one.faults.map((id) => layout.merges[simulatedHome(id) ?? ''] ?? simulatedHome(id) ?? ''),
    known: one.familyId !== undefined,
    complaint: played.set.complaint() ?? '',
    play: rest,
    list: list.result.costMinor,
    first: !firstMove
      ? ''
      : firstMove.kind === 'test'
        ? firstMove.offer.test.id
        : firstMove.kind === 'repair'
          ? firstMove.repair.id
          : 'give-up',
    outsideOpen: offers.some(
      (offer) =>
        offer.stage <= 0 &&
        offer.effort.handsOn <= outsideMinutes &&
        expectedInformation(belief, compiled, offer.test, offer.of).bits > 0.02,
    ),
    outsideFirst: isOutside(firstMove),
    worthIt: Math.min(Number.POSITIVE_INFINITY, ...cheap) < defaultSettings.newSetMinor,
  };
}

function playBatch({ world, seed, from, to }: Batch): Case[] {
  const cases: Case[] = [];
  for (let index = from; index < to; index += 1) {
    const one = measured(drawWorldCase(index, world, seed, layouts, compiled.pack.families), world);
    if (one) cases.push(one);
  }
  return cases;
}

const share = (list: readonly boolean[]): Estimate => mean(list.map(Number));

function figures(cases: readonly Case[]): Record<string, Estimate | number> {
  const proven = cases.flatMap((one) =>
    // One claim counts once, however often it was shown.
    [...new Set(one.play.told.filter((move) => move.proven).map(({ id }) => id))].map((id) => one.places.includes(id)),
  );
  const bought = cases.filter(({ play: { parts } }) => parts > 0);
  const gap = calibrationOf(
    cases.flatMap((one) => one.play.told.map(({ id, probability }) => ({ probability, truth: one.places.includes(id) ? 1 : 0 }))),
  ).gap;
  return {
    cases: cases.length,
    cured: share(cases.map((one) => one.play.ending === 'cured')),
    'right at the end': share(cases.map((one) => one.play.ending === 'cured' || (one.play.ending === 'given-up' && !one.worthIt))),
    'wrong among proven': share(proven.map((right) => !right)),
    'proven claims': proven.length,
    'rightly proven before the first part': share(
      bought.map((one) => one.play.provenAtPart !== undefined && one.places.includes(one.play.provenAtPart)),
    ),
    'given up although worth it': share(cases.map((one) => one.play.ending === 'given-up' && one.worthIt)),
    'given up': share(cases.map((one) => one.play.ending === 'given-up')),
    'wrong parts': mean(cases.map((one) => one.play.wrongParts)),
    'cost against the list': ratio(
      cases.map((one) => one.play.costMinor),
      cases.map((one) => one.list),
    ),
    tests: mean(cases.map((one) => one.play.tests)),
    minutes: mean(cases.map((one) => one.play.minutes)),
    'calibration gap': gap,
    'first step outside where one qualifies': share(cases.filter((one) => one.outsideOpen).map((one) => one.outsideFirst)),
  };
}

const child = process.argv[2] === '--child' ? process.argv[3] : undefined;
if (child !== undefined) {
  process.send?.(playBatch(JSON.parse(child) as Batch));
  process.disconnect();
} else {
  const { values } = parseArgs({
    options: { cases: { type: 'string' }, seeds: { type: 'string' }, world: { type: 'string' }, detail: { type: 'boolean' } },
  });
  const seeds = (values.seeds ?? '1,2,3').split(',').map(Number);
  const each = Math.ceil(Number(values.cases ?? 2001) / seeds.length);
  const wanted = worlds.filter((one) => values.world === undefined || values.world === one);
  const step = Math.ceil(each / 4);
  const batches = wanted.flatMap((world) =>
    seeds.flatMap((seed) =>
      Array.from({ length: Math.ceil(each / step) }, (_, index): Batch => ({
        world,
        seed,
        from: index * step,
        to: Math.min(each, (index + 1) * step),
      })),
    ),
  );
  const cases: Case[] = [];
  const lane = async (): Promise<void> => {
    for (let batch = batches.shift(); batch !== undefined; batch = batches.shift()) cases.push(...(await inProcess(batch)));
  };
  await Promise.all([lane(), lane()]);
  const results: Record<string, unknown> = {};
  for (const world of wanted) {
    const own = cases.filter((one) => one.world === world);
    for (const [name, list] of [
      [`${world}, one fault`, own.filter(({ faults }) => faults.length === 1)],
      [`${world}, two faults`, own.filter(({ faults }) => faults.length > 1)],
    ] as const) {
      const made = figures(list);
      results[name] = made;
      console.log(`\n## ${name}`);
      for (const [key, value] of Object.entries(made))
        console.log(`${key}: ${typeof value === 'number' ? value.toFixed(3) : shown(value)}`);
    }
  }
  if (values.detail) writeFileSync('/tmp/worlds-detail.json', JSON.stringify(cases));
  else
    writeFileSync(
      new URL('../results/worlds.json', import.meta.url),
      `${JSON.stringify({ at: new Date().toISOString(), seeds, each, results }, null, 1)}\n`,
    );
}

function inProcess(batch: Batch): Promise<Case[]> {
  return new Promise((resolve, reject) => {
    const worker = fork(fileURLToPath(import.meta.url), ['--child', JSON.stringify(batch)], { execArgv: ['--import', 'tsx'] });
    worker.once('message', (made) => resolve(made as Case[]));
    worker.once('error', reject);
    worker.once('exit', (code) => {
      if (code !== 0) reject(new Error(`a batch ended with ${code}`));
    });
  });
}
