/**
 * Whether each step's cautions cover what it does, and whether it does what they demand: a step that says "verify first" and measures
 * on a look alone contradicts itself.
 */
import type { Problem } from '../problems.ts';
import { objectsOf, repairsIn, testFits } from './applies.ts';
import { handsTo, hazardsOfRepair, hazardsOfTest, isHotPlace, isInside, placeIn, type Reach } from './hazards.ts';
import type { Caution, Demand, Hazard, Layout, Pack, Step, TestDefinition } from './schema.ts';

/** Adds a problem for each step that does what no caution of its covers, or contradicts one. */
export function checkCautions(pack: Pack, problems: Problem[]): void {
  // A pack from before cautions told what they cover is not judged by it.
  if (!pack.cautions.some(({ covers }) => covers)) return;
  for (const layout of pack.layouts) {
    for (const [wrong, right] of Object.entries(layout.instead ?? {})) {
      for (const id of [wrong, right])
        if (!pack.cautions.some((one) => one.id === id))
          problems.push({ code: 'unknown-id', where: `layouts/${layout.id}.instead`, value: id, expected: 'caution' });
    }
    for (const test of pack.tests.filter((one) => testFits(pack, one, layout))) {
      for (const of of test.of ? objectsOf(test, layout) : [undefined]) checkTestCautions(pack, layout, test, of, problems);
    }
    for (const repair of repairsIn(pack, layout)) {
      const reach: Reach = { layout, pack, of: undefined };
      const own = standing(repair.cautions, [repair.assembly], stageOf(repair.place, reach), reach, pack);
      uncovered(hazardsOfRepair(repair, reach), own, `repairs/${repair.id}.cautions`, layout, problems);
    }
  }
}

function checkTestCautions(pack: Pack, layout: Layout, test: TestDefinition, of: string | undefined, problems: Problem[]): void {
  const reach: Reach = { layout, pack, of };
  const where = `tests/${test.id}`;
  const stage = Math.max(0, ...test.do.flatMap(placesIn).map((place) => stageOf(placeIn(place, reach), reach)));
  const handled = test.do.flatMap(handsTo).map((place) => placeIn(place, reach));
  uncovered(hazardsOfTest(test, reach), standing(test.cautions, handled, stage, reach, pack), `${where}.cautions`, layout, problems);
  for (const caution of test.cautions.flatMap((id) => pack.cautions.filter((one) => one.id === id))) {
    if (caution.notOn?.includes(layout.id))
      problems.push({ code: 'caution-forbids', where: `${where}.scope`, value: layout.id, expected: caution.id });
    for (const demand of caution.demands ?? []) {
      if (!meets[demand](test, reach))
        problems.push({ code: 'caution-contradicted', where: `${where}.do`, value: `${caution.id}: ${demand}`, expected: layout.id });
    }
  }
}

const placesIn = (step: Step): readonly string[] =>
  Object.values(step as Record<string, unknown>).flatMap((value) =>
    typeof value === 'string' ? [value] : Array.isArray(value) ? value.filter((one) => typeof one === 'string') : [],
  );

function stageOf(place: string, { layout, pack }: Reach): number {
  const stage = layout.access[place] ?? layout.access[layout.points[place]?.on ?? ''];
  return pack.stages.findIndex(({ id }) => id === stage);
}

/** All cautions shown with a step: its own, those of the stages opened for it, its layout's. */
function standing(own: readonly string[], handled: readonly string[], stage: number, { layout }: Reach, pack: Pack): Caution[] {
  const touched = pack.assemblies.filter(({ id }) => handled.includes(id)).flatMap(({ cautions }) => cautions ?? []);
  const ids = [
    ...[...own, ...touched].map((id) => layout.instead?.[id] ?? id),
    ...pack.stages.slice(0, stage + 1).flatMap((one) => one.cautions),
    ...(stage > 0 ? (layout.cautions ?? []) : []),
  ];
  return pack.cautions.filter(({ id }) => ids.includes(id));
}

function uncovered(found: readonly Hazard[], cautions: readonly Caution[], where: string, layout: Layout, problems: Problem[]): void {
  for (const hazard of found) {
    if (!cautions.some(({ covers }) => covers?.includes(hazard)))
      problems.push({ code: 'hazard-without-caution', where, value: hazard, expected: layout.id });
  }
}

/** Walks the procedure with the power facts each step is done in. */
function everyStep(
  test: Pick<TestDefinition, 'do'>,
  holds: (step: Step, at: { plugged: boolean; down: boolean; verified: boolean; index: number }) => boolean,
): boolean {
  let plugged = false;
  let down = false;
  let verified = false;
  return test.do.every((step, index) => {
    const fine = holds(step, { plugged, down, verified, index });
    if ('unplug' in step) plugged = false;
    if ('power' in step) [plugged, down, verified] = [true, false, false];
    if ('drain' in step) [down, verified] = [true, verified || step.drain === 'verified'];
    return fine;
  });
}

const meets: Record<Demand, (test: TestDefinition, reach: Reach) => boolean> = {
  'rails-down-first': (test, reach) =>
    everyStep(test, (step, { down, verified }) => !handsTo(step).some((place) => isInside(place, reach)) || down || verified),
  'verified-first': (test, reach) =>
    everyStep(test, (step, { verified }) => !handsTo(step).some((place) => isHotPlace(place, reach)) || verified),
  // Clips go on while it is verified; after a live reading at a hot point it is unplugged and measured again.
  'clip-on': (test, reach) => {
    const live = test.do
      .map((step, index) => ({ step, index }))
      .filter(({ step }) => 'measure' in step && !['verified', 'unplugged'].includes(step.in) && isHotPlace(step.at, reach));
    return live.every(({ index }) => {
      const power = test.do.slice(0, index).findLastIndex((step) => 'power' in step);
      const before = test.do.slice(0, power).some((step) => 'drain' in step && step.drain === 'verified');
      const behind = test.do.slice(index + 1);
      const off = behind.findIndex((step) => 'unplug' in step);
      return before && off >= 0 && behind.slice(off).some((step) => 'drain' in step && step.drain === 'verified');
    });
  },
  'dry-first': (test, reach) =>
    test.do.every((step, index) => {
      if (!('chill' in step) && !('clean' in step && isInside(step.clean, reach))) return true;
      const behind = test.do.slice(index + 1);
      const power = behind.findIndex((one) => 'power' in one);
      return power < 0 || behind.slice(0, power).some((one) => 'wait' in one && one.wait > 0);
    }),
  'unplugged-touch': (test, reach) =>
    everyStep(test, (step, { plugged }) => {
      const place =
        'warm' in step ? step.warm : 'chill' in step ? step.chill : 'look' in step && step.look === 'processor' ? step.look : undefined;
      return place === undefined || !isInside(place, reach) || !plugged;
    }),
  'read-line-first': (test) => {
    const forced = test.do.flatMap((step) => ('force' in step ? [step.force] : []));
    const parted = (line: string): boolean => {
      const at = test.do.findIndex((step) => 'force' in step && step.force === line);
      return test.do
        .slice(0, at)
        .some((step) => ('tape' in step && step.tape === line) || ('pull' in step && step.pull.includes('harness.power-main')));
    };
    return forced.every(parted) && (forced.length === 0 || test.first !== undefined);
  },
};
