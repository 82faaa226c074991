/** What the search over costs is told: the way to a test apart from the test, prices without preferences. */
import { expect, test } from '@jest/globals';
import { caseOf, shipped } from '../../testing/shipped.ts';
import { believe } from '../index.ts';
import { decisionOf } from './cost.ts';
import { offersOf } from './offers.ts';
import { minutesToStage } from './steps.ts';

const compiled = shipped();
const input = caseOf(['sound-dark'], [], { layout: 'led-tcon' });
const belief = believe(input, compiled);
const { settings } = input;
const offers = offersOf(belief, compiled, settings, 'led-tcon');
const decision = (change: object = {}) => decisionOf(belief, compiled, { ...settings, ...change }, 'led-tcon', offers);
const perMinute = settings.rateMinorPerHour / 60;

test('a test inside is priced without the cover, which is priced once for all that lies behind it', () => {
  const { model } = decision();
  const inside = offers.filter(({ stage }) => stage > 0);
  expect(inside.length).toBeGreaterThan(10);
  for (const { key, effort, stage } of inside) {
    const cover = minutesToStage(stage, belief.interpretation.state, compiled);
    expect(cover).toBeGreaterThan(0);
    const found = model.tests.find(({ id }) => id === key);
    const minutes = effort.handsOn - cover + effort.wait * settings.waitShare;
    expect([key, found?.cost]).toEqual([key, Math.max(1, Math.round(minutes * perMinute))]);
  }
  expect(model.stageCost[1]).toBeCloseTo(compiled.pack.stages[1]!.minutes * perMinute, 6);
});

test('a preference and a hazard shift no cost', () => {
  const costs = (change: object) => decision(change).model.tests.map(({ id, cost }) => [id, cost]);
  expect(costs({ hazardMinor: 5000 })).toEqual(costs({ hazardMinor: 0 }));
  expect(decision({ hazardMinor: 5000 }).model.tests.some(({ hazard }) => (hazard ?? 0) > 0)).toBe(true);
  const school = compiled.pack.schools.find(({ options }) => options.some(({ shifts }) => Object.keys(shifts).length > 0))!;
  for (const { id } of school.options) expect(costs({ schools: { [school.id]: id } })).toEqual(costs({}));
});

test('a wrong part is priced by its own price and the bother; a step without a part has none', () => {
  const repairs = decision({ wrongPartMinor: 6000, wrongPartShare: 0.15 }).model.repairs;
  const free = decision({ wrongPartMinor: 0, wrongPartShare: 0 }).model.repairs;
  for (const [index, { id, nuisance }] of repairs.entries()) {
    const part = compiled.pack.repairs.find((one) => one.id === id)!.partShare * settings.newSetMinor;
    expect([id, nuisance]).toEqual([id, part > 0 ? expect.closeTo(6000 + 0.15 * part, 6) : 0]);
    expect(free[index]?.nuisance).toBe(0);
  }
});
