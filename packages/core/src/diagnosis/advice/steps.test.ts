/** What it takes to get to a step: opening, the plug, waiting for the charge; minutes as the pack and the safety rules have them. */
import { describe, expect, test } from '@jest/globals';
import { drainMinutes, type Procedure } from '../../knowledge/index.ts';
import { setOnArrival, type SetState } from '../../ledger/index.ts';
import { caseOf, shipped } from '../../testing/shipped.ts';
import { foldCase } from '../index.ts';
import { effortToReach, powerChangeMinutes, stopStep } from './steps.ts';

const compiled = shipped();
const plug = powerChangeMinutes;
const cover = compiled.pack.stages[1]!.minutes;
const drained = { plugged: false, railsDown: true, verified: true };
type Needs = Procedure['needs'];

test.each<[string, Needs, number, Partial<SetState>, { handsOn: number; wait: number }]>([
  ['as it stands, from outside', 'any', 0, { plugged: true }, { handsOn: 0, wait: 0 }],
  ['plugged, and it is', 'plugged', 0, { plugged: true }, { handsOn: 0, wait: 0 }],
  ['plugged, and it is not', 'plugged', 0, { plugged: false }, { handsOn: plug, wait: 0 }],
  ['unplugged, and it is plugged', 'unplugged', 0, { plugged: true }, { handsOn: plug, wait: 0 }],
  ['inside while plugged: out, open, in again', 'plugged', 1, { plugged: true }, { handsOn: cover + 2 * plug, wait: 0 }],
  ['inside, open already', 'plugged', 1, { plugged: true, stage: 1 }, { handsOn: 0, wait: 0 }],
  ['rails down, plugged', 'rails-down', 1, { plugged: true, stage: 1 }, { handsOn: plug, wait: drainMinutes['rails-down'] }],
  ['rails down, and they are', 'rails-down', 1, { ...drained, verified: false, stage: 1 }, { handsOn: 0, wait: 0 }],
  [
    'unplugged, rails not down yet',
    'rails-down',
    1,
    { plugged: false, railsDown: false, stage: 1 },
    { handsOn: 0, wait: drainMinutes['rails-down'] },
  ],
  ['measured, plugged', 'verified', 1, { plugged: true, stage: 1 }, { handsOn: plug, wait: drainMinutes.verified }],
  ['measured, and it was', 'verified', 1, { ...drained, stage: 1 }, { handsOn: 0, wait: 0 }],
  ['measured, rails down only', 'verified', 1, { ...drained, verified: false, stage: 1 }, { handsOn: 0, wait: drainMinutes.verified }],
])('%s', (_, needs, stage, state, expected) => {
  const procedure = { needs, stage } as Procedure;
  expect(effortToReach(procedure, { ...setOnArrival, ...state }, compiled)).toEqual(expected);
});

describe('the waits', () => {
  test('the charge takes longer than the rails', () => expect(drainMinutes.verified).toBeGreaterThan(drainMinutes['rails-down']));
});

describe('steps that are no test and no repair', () => {
  const settings = caseOf(['dead']).settings;
  test('which layout is it: half a minute’s look inside, the cover apart', () => {
    const [layout] = foldCase(
      caseOf(['dead'], [{ kind: 'set.changed', v: 3, stage: 'back-off', plugged: false }], {
        layout: { probabilities: { 'led-tcon': 0.6, oled: 0.4 } },
      }),
      compiled,
    ).next;
    expect([layout?.kind, layout?.minutes]).toEqual(['layout', 0.5]);
  });
  test('to stop takes no wait, and costs its minutes alone', () => {
    const stop = stopStep(compiled, settings);
    expect([stop.waitMinutes, stop.needs, stop.cautions, stop.would]).toEqual([0, 'any', [], []]);
    expect(stop.cost.amountMinor).toBe(Math.round((stop.minutes * settings.rateMinorPerHour) / 60));
  });
});
