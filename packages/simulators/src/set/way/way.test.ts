/** Each stage of the way from mains to picture, by what electronics says of it (values from memory). */
import { describe, expect, test } from '@jest/globals';
import { compilePack } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { emptyBench, type BenchState } from '../bench.ts';
import { healthyBody, type Body } from '../body.ts';
import { propagate, wayOf } from '../propagate.ts';
import type { Way } from './volts.ts';

const compiled = compilePack(await readPackFolder(new URL('../../../../../knowledge', import.meta.url).pathname));

interface Wanted {
  readonly layout?: string;
  readonly family?: string;
  readonly body?: (body: Body) => void;
  readonly bench?: (bench: BenchState) => void;
  readonly ask?: 'none' | 'key' | 'remote' | 'any';
}
function madeOf({ layout = 'led-tcon', family, body: harm, bench: set }: Wanted) {
  const body = healthyBody();
  harm?.(body);
  const bench = emptyBench();
  bench.plugged = true;
  bench.on = true;
  set?.(bench);
  const build = { layout: compiled.layouts.get(layout)!, family: family === undefined ? undefined : compiled.families.get(family) };
  return { build, body, bench };
}
const way = (wanted: Wanted = {}): Way => {
  const { build, body, bench } = madeOf(wanted);
  return wayOf(build, body, bench, wanted.ask ?? 'any');
};
const scene = (wanted: Wanted = {}) => {
  const { build, body, bench } = madeOf(wanted);
  return propagate(build, body, bench, wanted.ask ?? 'any');
};
const out =
  (...nodes: string[]) =>
  (bench: BenchState): void =>
    nodes.forEach((node) => bench.out.add(node));

describe('standby', () => {
  test('a good set: there, and steady under main’s start', () => {
    const { standby } = way();
    expect(standby).toMatchObject({ mains: true, bulk: true, link: true, awake: true, standbyIdle: 1, standbyStart: 1 });
  });
  test.each<[string, Wanted, Partial<Way['standby']>]>([
    ['unplugged', { bench: (one) => (one.plugged = false) }, { mains: false, standbyIdle: 0, awake: false }],
    ['fuse open: mains but no bulk', { body: (one) => (one.fuseOpen = true) }, { mains: true, bulk: false, standbyIdle: 0 }],
    ['main out: standby there, nobody wakes', { bench: out('main') }, { link: false, standbyIdle: 1, awake: false }],
    ['cord broken', { body: (one) => (one.cord = { ohms: 1e9, flaky: false }) }, { mains: false }],
  ])('%s', (_, wanted, expected) => expect(way(wanted).standby).toMatchObject(expected));
  test('a weak supply holds at idle and sags under the start', () => {
    const { standby } = way({ body: (one) => (one.standby.limitAmperes = 0.3) });
    expect(standby.standbyIdle).toBe(1);
    expect(standby.standbyStart).toBeLessThan(0.88);
  });
  test('main’s shorted regulator pulls it down, and it comes back with main out', () => {
    const shorted = (one: Body): void => void (one.main.regulator = 'shorted');
    expect(way({ body: shorted }).standby.standbyIdle).toBeLessThan(0.5);
    expect(way({ body: shorted, bench: out('main') }).standby.standbyIdle).toBe(1);
  });
});

describe('who is heard, and PS_ON', () => {
  test.each<[string, Wanted, Partial<Way['command']>]>([
    ['asked by key', { ask: 'key' }, { psOnByMain: true, psOn: true }],
    ['not asked', { ask: 'none' }, { psOnByMain: false, psOn: false }],
    [
      'a dead key: the remote still starts it',
      { ask: 'remote', body: (one) => (one.keys.contact = false) },
      { psOnByMain: true, answersKey: false },
    ],
    ['a dead key, asked by key', { ask: 'key', body: (one) => (one.keys.contact = false) }, { psOnByMain: false }],
    ['eye dead, asked by remote', { ask: 'remote', body: (one) => (one.keys.eye = false) }, { psOnByMain: false, answersKey: true }],
    [
      'forced with main out',
      { ask: 'none', bench: (one) => (out('main')(one), one.bridged.push(['standby', 'ps-on'])) },
      { forced: true, psOn: true, psOnByMain: false },
    ],
    ['main gives no PS_ON', { body: (one) => (one.main.givesPsOn = false) }, { psOnByMain: false, answersKey: true }],
  ])('%s', (_, wanted, expected) => expect(way(wanted).command).toMatchObject(expected));
});

describe('the main rail', () => {
  test.each<[string, Wanted, Partial<Way['rail']>]>([
    ['a good set', {}, { railFed: true, railGood: true, overloaded: false }],
    ['the rail’s own stage dead', { body: (one) => (one.rail.starts = false) }, { railFed: false, railGood: false }],
    [
      'a shorted T-con pulls it down',
      { body: (one) => (one.tcon.supplyShortOhms = 0.5) },
      { shortedNow: true, overloaded: true, railGood: false },
    ],
    [
      'the same with the picture cable out',
      { body: (one) => (one.tcon.supplyShortOhms = 0.5), bench: out('harness.picture') },
      { overloaded: false, railGood: true },
    ],
    ['a shorted audio stage', { body: (one) => (one.main.audioShortOhms = 0.5) }, { overloaded: true }],
    ['a weak rail carries less, and lives without main’s load', { body: (one) => (one.rail.limitAmperes = 1.5) }, { overloaded: true }],
  ])('%s', (_, wanted, expected) => expect(way(wanted).rail).toMatchObject(expected));
  test('dried capacitors: low and unsteady until warm', () => {
    const dry = (one: Body): void => void (one.rail.esrOhms = 4);
    expect(way({ body: dry }).rail).toMatchObject({ drySupply: true, railGood: false });
    expect(way({ body: dry, bench: (one) => one.warmth.set('set', 40) }).rail).toMatchObject({ drySupply: false, railGood: true });
  });
});

describe('main’s start', () => {
  test('good: runs, nothing noticed', () => {
    expect(way().start).toMatchObject({
      converters: 'none',
      coreUp: true,
      course: { starts: true, stops: false, restarts: false, late: false },
    });
  });
  test.each<[string, (body: Body) => void, Partial<Way['start']['course']>]>([
    ['a dead start-up memory: nothing starts', (one) => (one.main.memory.state = 'dead'), { starts: false }],
    ['a damaged image: start attempts', (one) => (one.main.flash.damaged = 'start'), { restarts: true }],
    ['a key that switches off', (one) => (one.keys.stuck = 'switches-off'), { starts: true, stops: true }],
  ])('%s', (_, body, expected) => expect(way({ body }).start.course).toMatchObject(expected));
  test('a missing converter: fed, and the core stays down', () => {
    expect(way({ body: (one) => (one.main.converter = 'one-open') }).start).toMatchObject({
      mainFed: true,
      converters: 'one',
      coreUp: false,
    });
  });
});

describe('the panel side', () => {
  test('good: fed, bias up', () => expect(way().panel).toMatchObject({ panelFed: true, tconFed: true, biasUp: true }));
  test('T-con fuse open: supply in, nothing behind it', () => {
    expect(way({ body: (one) => (one.tcon.fuseOpen = true) }).panel).toMatchObject({ panelFed: true, tconFed: false, biasUp: false });
  });
  test('a shorted bias capacitor on one side: down with that ribbon in, up with it out or with the capacitor lifted', () => {
    const short = (one: Body): void => void Object.assign(one.panel.railShort, { at: 'capacitor', side: 'left', shows: 'blank' });
    expect(way({ body: short }).panel.biasUp).toBe(false);
    expect(way({ body: short, bench: out('harness.panel-left') }).panel.biasUp).toBe(true);
    expect(way({ body: short, bench: out('harness.panel-right') }).panel.biasUp).toBe(false);
    expect(way({ body: short, bench: (one) => one.lifted.add('bias-capacitor') }).panel.biasUp).toBe(true);
  });
  test('a clock short restarts the set until the lines are taped', () => {
    const short = (one: Body): void => void (one.panel.clockShort = 'loop');
    expect(way({ body: short }).panel.course).toMatchObject({ restarts: true, notice: 'panel' });
    expect(way({ body: short, bench: (one) => one.taped.add('clock-lines') }).panel.course.restarts).toBe(false);
  });
});

describe('the light', () => {
  test('good: commanded, driven, lit', () => expect(way().backlight).toMatchObject({ commanded: true, driverFed: true, light: 'on' }));
  test('no command from main: fed and dark, lit once forced', () => {
    const silent = (one: Body): void => void (one.main.lightCommand = false);
    expect(way({ body: silent }).backlight).toMatchObject({ commanded: false, driverFed: true, light: 'off' });
    expect(way({ body: silent, bench: (one) => one.bridged.push(['standby', 'bl-on']) }).backlight.light).toBe('on');
  });
  test('harness out: the light comes by itself only where the family defaults on', () => {
    const apart = { ask: 'none' as const, bench: out('harness.power-main') };
    expect(way({ ...apart, family: 'quorvane.qk3' }).backlight.light).toBe('on');
    expect(way(apart).backlight.light).toBe('off');
  });
  test('one open LED darkens all, and is noticed', () => {
    const { backlight } = way({ body: (one) => Object.assign(one.strips, { open: 'led', flashes: false }) });
    expect(backlight).toMatchObject({ light: 'off', course: { notice: 'light' } });
  });
});

describe('what is seen and heard', () => {
  test('good', () =>
    expect(scene()).toMatchObject({ alive: true, sound: true, picture: 'good', light: 'on', input: 'works', network: 'works' }));
  test('dark: sound goes on, and with the menu open a lamp shows the picture', () => {
    const dark = (one: Body): void => void Object.assign(one.strips, { open: 'led', flashes: false, stopsSet: false });
    expect(scene({ body: dark })).toMatchObject({ sound: true, picture: 'none', light: 'off' });
    expect(scene({ body: dark, bench: (one) => (one.pressed = 'menu') }).picture).toBe('faint');
  });
  test('speakers out: silent, headphones are not', () => {
    expect(scene({ bench: out('speakers') })).toMatchObject({ sound: false, headphones: true });
  });
  test('a lost board ground shows in the picture', () => {
    expect(scene({ bench: out('harness.ground') }).picture).toBe('lines');
  });
  test('a jig in main’s place draws a pattern on an OLED panel', () => {
    expect(scene({ layout: 'oled', ask: 'none', bench: (one) => one.fitted.set('main', 'jig') }).picture).toBe('good');
  });
});
