/** Rules of the bench before any arithmetic, and the settled step. Rules: common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import { hazardsOfTest } from '../knowledge/index.ts';
import { hazardOf } from './advice/cost.ts';
import { caseOf, shipped, type Told } from '../testing/shipped.ts';
import { foldCase, stepsFor, type NextStep } from './index.ts';

const opened = { kind: 'set.changed', v: 3, stage: 'back-off' };
const steps = (symptom: string, told: readonly Told[], set: Record<string, unknown> = {}, settings = {}): readonly NextStep[] => {
  const input = caseOf([symptom], told, set);
  return foldCase({ ...input, settings: { ...input.settings, ...settings } }, shipped()).next;
};
const named = ({ kind, id, of, because }: NextStep) => `${kind} ${id}${of === undefined ? '' : ` ${of}`} (${because.code})`;

describe('before money is spent', () => {
  // A short that leaves with the ribbons is the panel's, by a capacitor on its edge or by a film: the walk along the rail tells which.
  const short: Told[] = [opened, 'short.supply-pins=short-leaves', 'bias.ohms=short'];
  test('a part on the panel’s edge is not bought at even chances while the walk along the rail tells', () => {
    const next = steps('lit-blank', short);
    expect(next[0]?.kind).toBe('test');
    const walk = next.findIndex(({ id }) => id === 'bias.walk');
    expect(walk).toBeGreaterThanOrEqual(0);
    expect(walk).toBeLessThan(next.findIndex(({ id }) => id === 'bias.capacitor'));
    expect(steps('lit-blank', [...short, 'bias.walk=short-gone'])[0]?.id).toBe('bias.capacitor');
  });

  // One misread answer, and the set would be given up for its panel.
  const panel: Told[] = [opened, 'menu=menu-bad', 'bar.width=band-across', 'pattern.own=none', 'squeeze=picture-changes'];
  test('no set is given up while a cheap test still tells something', () => {
    const next = steps('lit-blank', panel);
    const stop = next.findIndex(({ kind }) => kind === 'stop');
    expect(stop).not.toBe(0);
    expect(next[0]?.kind).toBe('test');
  });
  test('once the labour has eaten a quarter of the set’s value, the question comes first', () => {
    const dear = steps('lit-blank', panel, {}, { rateMinorPerHour: 96_000 });
    expect(dear.find(({ kind }) => kind === 'stop')).toBeDefined();
    expect(
      dear
        .slice(
          0,
          dear.findIndex(({ kind }) => kind === 'stop'),
        )
        .map(({ because }) => because.code),
    ).not.toContain('most-bits-per-minute');
  });
  test('stopping for the panel is put with the panel’s figure', () => {
    const stop = steps('film-bar', ['menu=menu-bad', 'bar.width=one-film']).find(({ kind }) => kind === 'stop');
    expect(stop?.because.code).toBe('panel-question');
    expect(stop?.because.toEndMinor).toBeGreaterThan(30_000);
  });

  test('a verdict that hangs on one reading alone is not proven; a cure is no reading', () => {
    const verdict = (told: Told[], symptom = 'sound-dark') => foldCase(caseOf([symptom], told), shipped()).assemblies[0];
    const swapped = verdict(['swap.known-good:speakers=cured'], 'no-sound');
    expect(swapped).toMatchObject({ id: 'speakers', verdict: 'proven' });
  });
});

describe('which layout is it', () => {
  const unsure = { layout: { probabilities: { 'led-tcon': 0.6, 'one-board': 0.4 } } };
  test('first once the cover is off, and never where it is known', () => {
    expect(named(steps('sound-dark', [opened], unsure)[0]!)).toBe('layout layout.found (layout-first)');
    expect(steps('sound-dark', [opened]).some(({ kind }) => kind === 'layout')).toBe(false);
    expect(
      steps('sound-dark', [opened, { kind: 'layout.found', v: 1, layout: 'led-tcon' }], unsure).some(({ kind }) => kind === 'layout'),
    ).toBe(false);
    const nearly = { layout: { probabilities: { 'led-tcon': 0.97, 'one-board': 0.03 } } };
    expect(steps('sound-dark', [opened], nearly).some(({ kind }) => kind === 'layout')).toBe(false);
  });
  test('with the cover on it waits while what needs no screw leads, and comes with its opening before the first step inside', () => {
    const closed = steps('sound-dark', [], unsure);
    expect(closed[0]?.because.code).toBe('outside-first');
    expect(closed.some(({ kind }) => kind === 'layout')).toBe(false);
    // Between these two the cheapest first step is one inside.
    const either = { layout: { probabilities: { 'led-tcon': 0.5, 'led-tcon-on-main': 0.5 } } };
    const inside = steps('sound-dark', [], either, { schools: { cover: 'open-first' } });
    expect(named(inside[0]!)).toBe('layout layout.found (layout-first)');
    expect(inside[0]?.minutes).toBeGreaterThan(8);
    expect(inside[0]?.cautions).toContain('back-off');
  });
  test('a code that may go, a cure and a crack come before it', () => {
    expect(steps('blinking', [opened], unsure)[0]?.kind).toBe('blink');
    expect(steps('sound-dark', [opened, 'look.glass=cracked'], unsure)[0]?.id).toBe('give-up');
  });
});

describe('hazard', () => {
  const compiled = shipped();
  test('is told from what a step does: live and hot, a line driven, an iron, the glass out', () => {
    const of = (id: string, layout = 'led-tcon') => hazardOf(compiled.tests.get(id)!, undefined, layout, compiled);
    expect([
      of('torch'),
      of('cut.power-main'),
      of('bl-on'),
      of('led.output'),
      of('forced-start'),
      of('bias.walk'),
      of('strip.each'),
    ]).toEqual([0, 0, 0, 1, 1, 1, 1]);
    // On one board every live point inside is the light plug's neighbour, and only what is hot itself counts.
    expect(of('bulk.volts', 'one-board')).toBe(1);
  });
  test('weighs against a step in the order and is in no price', () => {
    const dangerous = ({ kind, id }: NextStep): boolean =>
      kind === 'test' && hazardOf(compiled.tests.get(id)!, undefined, 'led-tcon', compiled) > 0;
    const told: Told[] = [opened, 'torch=faint-picture'];
    const [free, dear] = [0, 50_000].map((hazardMinor) => steps('sound-dark', told, {}, { hazardMinor }));
    const pays = (next: readonly NextStep[]) => next.filter((step) => step.because.code === 'least-cost');
    expect(pays(free!).some(dangerous)).toBe(true);
    expect(pays(dear!).some(dangerous)).toBe(false);
    for (const step of free!) {
      const same = dear!.find(({ kind, id, of }) => kind === step.kind && id === step.id && of === step.of);
      if (same) expect([step.id, same.cost]).toEqual([step.id, step.cost]);
    }
  });
  test('a price of 0, a preference or a shortcut takes no caution away', () => {
    const all = (settings: object) => {
      const input = caseOf(['sound-dark'], [opened]);
      const { next, leftOut } = foldCase({ ...input, settings: { ...input.settings, ...settings } }, compiled);
      return new Map([...next, ...leftOut.map(({ step }) => step)].map((step) => [`${step.kind} ${step.id} ${step.of ?? ''}`, step]));
    };
    const usual = all({});
    for (const settings of [{ hazardMinor: 0 }, { schools: { cover: 'open-first' } }, { wrongPartMinor: 0, rateMinorPerHour: 0 }]) {
      for (const [key, { cautions, needs }] of all(settings)) {
        const before = usual.get(key);
        if (before) expect([key, cautions, needs]).toEqual([key, before.cautions, before.needs]);
      }
    }
    expect(usual.get('test led.output ')?.cautions).toContain('led-volts');
    expect(
      hazardsOfTest(compiled.tests.get('led.output')!, { layout: compiled.layouts.get('led-tcon')!, pack: compiled.pack, of: undefined }),
    ).toContain('live-hot');
  });
});

describe('settled', () => {
  const cases: [string, Told[]][] = [
    ['sound-dark', [opened]],
    ['restart-loop', [opened, 'rail.standby=in-range']],
    ['starts-then-stops', [opened, 'rail.main=pulsing']],
    ['no-sound', [opened]],
    ['standby-no-start', [opened, 'rail.standby=in-range', 'ps-on=stays']],
    ['lit-blank', [opened, 'tcon.input=both']],
  ];
  test.each(cases)('%s: fold, worker and command line give the same steps, twice the same', (symptom, told) => {
    const input = caseOf([symptom], told);
    const fold = foldCase(input, shipped());
    expect(stepsFor(input, shipped()).next).toEqual(fold.next);
    expect(stepsFor(input, shipped(), 'cost', 'settled').next).toEqual(fold.next);
  });
  test('the search over chains changes the first step somewhere, and drops none', () => {
    const differ = cases.filter(([symptom, told]) => {
      const input = caseOf([symptom], told);
      const [once, settled] = (['at-once', 'settled'] as const).map((depth) => stepsFor(input, shipped(), 'cost', depth).next);
      const ids = (next: readonly NextStep[]) =>
        new Set(next.filter(({ kind }) => kind === 'test').map(({ id, of }) => `${id} ${of ?? ''}`));
      for (const id of ids(once!)) expect(ids(settled!).has(id)).toBe(true);
      return once![0]?.id !== settled![0]?.id || once![0]?.of !== settled![0]?.of;
    });
    expect(differ.length).toBeGreaterThan(0);
  });
});
