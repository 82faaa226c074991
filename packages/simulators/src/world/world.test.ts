/** Workshops the pack hasn't seen: drawn, not tuned; what a set shows is its reaction, and physics still says what takes it away. */
import { describe, expect, test } from '@jest/globals';
import { compilePack } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { randomFrom, SimulatedSet, simulatedHome } from '../index.ts';
import type { Reaction } from '../set/shows.ts';
import { drawWorldCase, gamma, type World } from './world.ts';

const compiled = compilePack(await readPackFolder(new URL('../../../../knowledge', import.meta.url).pathname));
const layouts = compiled.pack.layouts.map((layout) => ({ layout, weight: 1 }));
const draw = (index: number, world: World = 'varied', seed = 1) => drawWorldCase(index, world, seed, layouts, compiled.pack.families);

const reaction = (shows: string, kind: string): Reaction => ({
  shows,
  kind,
  lightBehind: false,
  lightFirst: false,
  side: 'left',
  notice: undefined,
});
const broken = (fault: string, one: Reaction, layout = 'led-tcon') =>
  new SimulatedSet({ layout: compiled.layouts.get(layout)!, faults: [fault], seed: 3, reactions: new Map([[fault, one]]) });

test('a case is drawn the same again, and almost every set shows what was drawn', () => {
  expect(draw(5)).toEqual(draw(5));
  expect(draw(5).seed).not.toBe(draw(6).seed);
  const shown = Array.from({ length: 400 }, (_, index) => {
    const one = draw(index);
    const set = new SimulatedSet({ ...one, layout: compiled.layouts.get(one.layoutId)! });
    for (const id of one.faults) expect(simulatedHome(id)).toBeDefined();
    return one.faults.length > 1 || set.complaint() === one.reactions.get(one.faults[0]!)!.shows;
  });
  expect(shown.filter(Boolean).length).toBeGreaterThan(390);
});

test('about a twentieth has a second fault, half a family the shop knows, and strangers keep no table', () => {
  const all = Array.from({ length: 1500 }, (_, index) => draw(index));
  const share = (list: unknown[]): number => list.length / all.length;
  expect(share(all.filter(({ faults }) => faults.length === 2))).toBeGreaterThan(0.03);
  expect(share(all.filter(({ faults }) => faults.length === 2))).toBeLessThan(0.07);
  const strangers = all.filter(({ familyId }) => familyId === undefined);
  expect(Math.abs(share(strangers) - 0.5)).toBeLessThan(0.05);
  expect(strangers.every(({ family }) => family.blink.length === 0)).toBe(true);
  const on = strangers.filter(({ family }) => family.traits['light.defaults-on'] === 'yes').length / strangers.length;
  expect(Math.abs(on - 0.5)).toBeLessThan(0.15);
});

test('gamma draws have the mean and the variance of their shape (textbook: both equal it)', () => {
  const random = randomFrom(11);
  for (const shape of [0.04, 0.5, 1, 4]) {
    const drawn = Array.from({ length: 40_000 }, () => gamma(shape, random));
    const mean = drawn.reduce((a, b) => a + b, 0) / drawn.length;
    const variance = drawn.reduce((sum, x) => sum + (x - mean) ** 2, 0) / drawn.length;
    expect(Math.abs(mean / shape - 1)).toBeLessThan(0.1);
    expect(Math.abs(variance / shape - 1)).toBeLessThan(0.2);
  }
});

test('flat worlds are farther from the trade than varied ones', () => {
  const dead = (world: World): number =>
    Array.from({ length: 2500 }, (_, index) => draw(index, world)).filter(
      ({ faults, reactions }) => faults[0]?.startsWith('power.standby-dead') && reactions.get(faults[0])?.shows !== 'dead',
    ).length;
  expect(dead('flat')).toBeGreaterThan(2 * dead('varied'));
});

describe('a reaction changes what is seen, not what is true', () => {
  const outcomeOf = (set: SimulatedSet, id: string, of?: string): string => set.perform(compiled.tests.get(id)!, of).outcome;

  test('a shorted T-con that keeps a set from starting lets go with its cable out', () => {
    const set = broken('tcon.supply-short', reaction('standby-no-start', 'load-short'));
    expect(set.complaint()).toBe('standby-no-start');
    expect(outcomeOf(set, 'cut.picture')).toBe('comes-alive');
  });

  test('an open string may stop the set: a panel ribbon changes nothing of it, new strips do', () => {
    const set = broken('strips.led-open', reaction('starts-then-stops', 'light-open'));
    expect(set.complaint()).toBe('starts-then-stops');
    expect(outcomeOf(set, 'cut.panel-left')).not.toBe('comes-alive');
    for (let turn = 0; turn < 3 && set.present.length > 0; turn += 1) set.repair({ assembly: 'strips', kind: 'replace' });
    expect(set.complaint()).toBeUndefined();
  });

  test('a known-good board in its place takes fault and reaction away', () => {
    const set = broken('main.processor', reaction('lit-blank', 'main-dead'));
    expect(set.complaint()).toBe('lit-blank');
    expect(set.wouldCure({ assembly: 'main', kind: 'replace' })).toBe(true);
    expect(set.wouldCure({ assembly: 'tcon', kind: 'replace' })).toBe(false);
  });

  test('a set that comes late comes once it is left trying', () => {
    const set = broken('power.caps-dried', reaction('slow-start', 'supply-dried'));
    const waited = set.perform({
      do: [{ power: 'on' }, { wait: 5 }, { look: 'screen' }],
      observe: {
        outcomes: [
          { id: 'runs', name: { en: 'Runs' }, seen: [{ alive: true }] },
          { id: 'no', name: { en: 'No' } },
        ],
      },
    });
    expect(waited.outcome).toBe('runs');
  });
});
