/** The simulated set: physics in, answers out. It must know no test by name and no likelihood. */
import { describe, expect, test } from '@jest/globals';
import { compilePack, type CompiledPack, type Pack } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { randomFrom, SimulatedSet, simulatedFaults } from './index.ts';

const pack: Pack = await readPackFolder(new URL('../../../../knowledge', import.meta.url).pathname);
const compiled = compilePack(pack);

interface Wanted {
  readonly layout?: string;
  readonly family?: string;
  readonly seed?: number;
}
const broken = (faults: readonly string[], { layout = 'led-tcon', family, seed = 1 }: Wanted = {}): SimulatedSet =>
  new SimulatedSet({
    layout: compiled.layouts.get(layout)!,
    family: family === undefined ? undefined : compiled.families.get(family),
    faults,
    seed,
  });
const asked = (set: SimulatedSet, id: string, of?: string): string => set.perform(compiled.tests.get(id)!, of).outcome;

/** The outcome of every test of the layout, by its place in the list, objects in turn. */
function allAnswers(source: CompiledPack, layoutId: string, fault: string, seed: number): string[] {
  const layout = source.layouts.get(layoutId)!;
  const set = new SimulatedSet({ layout, faults: [fault], seed });
  return source.testsOf.get(layoutId)!.flatMap((one) =>
    (one.of ? source.objectsOf(one, layoutId) : [undefined]).map((of) => {
      const { outcome } = set.perform(one, of, 0.1);
      return String(one.observe.outcomes.findIndex(({ id }) => id === outcome));
    }),
  );
}

test('every fault of the pack can be put into every layout that has it, and a healthy set has no symptom', () => {
  for (const layout of pack.layouts) {
    expect(broken([], { layout: layout.id }).complaint()).toBeUndefined();
    for (const family of pack.families.filter((one) => one.layouts.includes(layout.id))) {
      expect(broken([], { layout: layout.id, family: family.id }).complaint()).toBeUndefined();
    }
    for (const { id } of compiled.faultsOf.get(layout.id)!) {
      const complaints = [1, 2, 3, 4, 5, 6].map((seed) => broken([id], { layout: layout.id, seed }).complaint());
      expect({ layout: layout.id, id, shows: complaints.some((one) => one !== undefined) }).toEqual({ layout: layout.id, id, shows: true });
      for (const complaint of complaints) if (complaint !== undefined) expect(compiled.symptomIds).toContain(complaint);
    }
  }
  for (const { id } of pack.faults) expect(simulatedFaults).toContain(id);
});

test('likelihoods scrambled and tests renamed: the same answers, seed for seed', () => {
  const random = randomFrom(7);
  const words = Object.keys(pack.scale.likelihood);
  const other = structuredClone(pack);
  other.tests.forEach((one, index) => {
    one.id = `renamed.t${index}`;
    one.error = 'even';
    for (const block of one.likelihood) {
      for (const row of block.rows) {
        row.likelihoods = Object.fromEntries(
          Object.keys(row.likelihoods).map((outcome) => [outcome, words[Math.floor(random() * words.length)]!]),
        );
      }
    }
  });
  for (const fault of other.faults) fault.symptoms = { dead: 'even', blinking: 'even' };
  for (const layout of other.layouts) Object.assign(layout, { fixedList: [], proof: {} });
  const scrambled = compilePack(other);
  let compared = 0;
  for (const [layout, fault] of [
    ['led-tcon', 'main.audio-short'],
    ['oled', 'panel.rail-short-cap'],
    ['plasma', 'scan-buffers.shorted'],
    ['one-board', 'main.startup-memory'],
  ] as const) {
    for (const seed of [3, 4, 5]) {
      const plain = allAnswers(compiled, layout, fault, seed);
      compared += plain.length;
      expect(allAnswers(scrambled, layout, fault, seed)).toEqual(plain);
    }
  }
  expect(compared).toBeGreaterThan(400);
});

describe('physics', () => {
  test('a short on a rail collapses it, and leaves with the board it sits on', () => {
    const set = broken(['scan-buffers.shorted'], { layout: 'plasma' });
    expect(asked(set, 'short.plug', 'scan-buffers')).toBe('short-leaves');
    // What hangs on a board goes with it.
    expect(asked(set, 'short.plug', 'scan-sustain')).toBe('short-leaves');
    expect(asked(set, 'short.plug', 'address')).toBe('short-stays');
    expect(asked(broken([], { layout: 'plasma' }), 'short.plug', 'address')).toBe('no-short');
  });

  test('light comes with the harness out where the family defaults on, and not where it does not', () => {
    const lit = { family: 'quorvane.qk3' };
    expect(asked(broken(['main.light-command'], lit), 'cut.power-main')).toBe('lit');
    expect(asked(broken(['strips.led-open'], lit), 'cut.power-main')).toBe('dark');
    expect(asked(broken(['main.light-command'], { family: 'pelorane.pt9' }), 'cut.power-main')).toBe('dark');
  });

  test('a bond heals warm, a memory cold, and neither the other way round', () => {
    expect(asked(broken(['main.bond-warm']), 'warm.processor')).toBe('heals');
    expect(asked(broken(['main.bond-warm']), 'chill.memory')).toBe('stays');
    const unsteady = Array.from({ length: 20 }, (_, seed) => broken(['main.startup-memory'], { seed })).find(
      (set) => asked(set, 'chill.memory') === 'heals',
    );
    expect(unsteady && asked(unsteady, 'warm.processor')).toBe('stays');
    // All warm but main: what is on main stays ill, what is elsewhere heals.
    expect(asked(broken(['main.bond-warm']), 'heat.all-but', 'main')).toBe('stays');
    expect(asked(broken(['main.bond-warm']), 'heat.all-but', 'power')).toBe('heals');
  });

  test('a known-good board takes its faults away only while it is in', () => {
    const set = broken(['tcon.bias-dead']);
    expect(asked(set, 'swap.known-good', 'tcon')).toBe('cured');
    expect(asked(set, 'swap.known-good', 'main')).toBe('unchanged');
    expect(set.complaint()).toBe('lit-blank');
  });

  test('a weak supply lives with less: unplugging is also unloading', () => {
    const alive = Array.from({ length: 12 }, (_, seed) => broken(['power.rail-sags'], { seed })).filter(
      (set) => asked(set, 'cut.light') === 'stays-on',
    );
    expect(alive.length).toBeGreaterThan(2);
  });

  test('a fixed tester at a small current passes what fails at full current', () => {
    const set = broken(['strips.weak-at-full']);
    expect(asked(set, 'strings.tester')).toBe('all-lit');
    expect(asked(set, 'strip.each')).not.toBe('all-good');
  });

  test('the code is the family’s for what the set noticed; no family, no code', () => {
    const seeds = Array.from({ length: 40 }, (_, seed) =>
      broken(['scan-sustain.shorted'], { layout: 'plasma', family: 'halmont.hp1', seed }),
    );
    const blinking = seeds.find((set) => set.complaint() === 'blinking');
    expect(blinking?.blink()?.groups).toEqual([6]);
    expect(broken(['scan-sustain.shorted'], { layout: 'plasma' }).blink()).toBeUndefined();
  });

  test('a repair ends what it replaces; another changes nothing; two faults show one after the other', () => {
    const repair = (id: string) => compiled.repairsOf.get('led-tcon')!.find((one) => one.id === id)!;
    const set = broken(['power.standby-dead', 'tcon.bias-dead'], { seed: 2 });
    expect(set.complaint()).toBe('dead');
    expect(set.repair(repair('replace.main'))).toBe('unchanged');
    expect(set.repair(repair('replace.power'))).toBe('changed');
    expect(set.complaint()).toBe('lit-blank');
    expect(set.repair(repair('replace.tcon'))).toBe('cured');
    expect(set.present).toEqual([]);
  });
});

test('the share of wrong answers is what was asked for', () => {
  let wrong = 0;
  const test = compiled.tests.get('rail.main')!;
  for (let seed = 0; seed < 2000; seed += 1) {
    const set = broken(['power.rails-dead'], { seed });
    if (set.perform(test, undefined, 0.05).outcome !== set.perform(test).outcome) wrong += 1;
  }
  // Binomial, 2000 at 0.05: four standard deviations are 39.
  expect(Math.abs(wrong - 100)).toBeLessThan(39);
});

test('a fault it can’t make, or one the layout has no place for, is refused', () => {
  expect(() => broken(['no.such'])).toThrow(RangeError);
  expect(() => broken(['scan-buffers.bar'])).toThrow(RangeError);
});
