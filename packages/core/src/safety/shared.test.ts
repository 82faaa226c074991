/** One-board sets: power and main share a board, so cold-side work is hot-side work there; common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import { foldCase } from '../diagnosis/index.ts';
import { setOnArrival, type SetState } from '../ledger/index.ts';
import { caseOf, shipped } from '../testing/shipped.ts';
import { walkTo } from './index.ts';

const compiled = shipped();
const opened: SetState = { ...setOnArrival, plugged: true, stage: 1 };

const unplugged = [
  ...['memory.read-twice', 'memory.compare', 'ohms.main-rails', 'bias.ohms', 'short.supply-pins', 'caps.esr', 'fuse'],
  ...['cut.picture', 'cut.panel-both', 'cut.panel-left', 'cut.panel-right', 'cut.light', 'loads-off', 'load.one', 'keys-out', 'code-again'],
  ...['chill.memory', 'warm.one', 'warm.processor', 'heat.all-but', 'reseat', 'speaker.ohms'],
];
const live = [
  'rail.standby',
  'rail.main',
  'rail.secondary',
  'key-line',
  'ps-on',
  'press.processor',
  'serial.log',
  'tcon.input',
  'flex.tcon',
];

const walkIn = (layout: string, id: string) => {
  const found = compiled.tests.get(id)!;
  const of = found.of?.required ? compiled.objectsOf(found, layout)[0] : undefined;
  return walkTo({ kind: 'test', id, ...(of === undefined ? {} : { of }) }, opened, compiled, layout)!.moves.flatMap(({ acts }) => acts);
};

describe('hands go in only after the charge was measured', () => {
  test.each(unplugged)('%s on one board', (id) => {
    const acts = walkIn('one-board', id).map(({ kind }) => kind);
    expect(acts).toContain('verify');
    expect(acts.indexOf('verify')).toBeGreaterThan(acts.indexOf('unplug'));
    const moved = acts.findIndex((kind) => ['pull', 'tape', 'bridge'].includes(kind));
    if (moved >= 0) expect(moved).toBeGreaterThan(acts.indexOf('verify'));
  });

  test('where main has a board of its own, cold-side work asks for rails down only', () => {
    const acts = walkIn('led-tcon', 'ohms.main-rails').map(({ kind }) => kind);
    expect(acts).toContain('rails-down');
    expect(acts).not.toContain('verify');
  });
});

describe('a live reading says that hot and cold share the board, and never "black on chassis"', () => {
  const cautionsOf = (layout: string, id: string): readonly string[] => {
    const { next, leftOut } = foldCase(caseOf(['standby-no-start'], [], { layout }), compiled, 'information', 'at-once');
    const step = [...next, ...leftOut.map((one) => one.step)].find((one) => one.kind === 'test' && one.id === id);
    return step?.cautions ?? [];
  };
  test.each(live)('%s on one board', (id) => {
    expect(cautionsOf('one-board', id)).toEqual(expect.arrayContaining(['shared-board', 'live-shared']));
    expect(cautionsOf('one-board', id)).not.toContain('live-cold');
  });
  test('the main capacitor live is primary work: isolation transformer, not alone', () => {
    expect(cautionsOf('one-board', 'bulk.volts')).toEqual(expect.arrayContaining(['live-hot', 'shared-board']));
  });
  test('apart, a live reading on the cold side is just that', () => {
    expect(cautionsOf('led-tcon', 'rail.main')).toContain('live-cold');
  });
});
