/** Where hands go for a repair: written from the trade (common practice, no source), on the shipped layouts. */
import { describe, expect, test } from '@jest/globals';
import { stageOfPlace } from '../knowledge/index.ts';
import { setOnArrival } from '../ledger/index.ts';
import { caseOf, shipped } from '../testing/shipped.ts';
import { foldCase } from '../diagnosis/index.ts';
import { mayWorkOn, walkTo } from './index.ts';

const stageOfRepair = (id: string, layout: string): string | undefined => {
  const repair = shipped()
    .repairsOf.get(layout)
    ?.find((one) => one.id === id);
  return repair && shipped().stageIds[stageOfPlace(repair.place, layout, shipped())];
};

describe('a repair asks for the set to be opened as far as its part, not as its assembly', () => {
  test.each([
    // The row of bias capacitors lies on the T-con, or on the strip of board that the panel carries behind the cover.
    ['bias.capacitor', 'led-tcon', 'back-off'],
    ['bias.capacitor', 'led-tcon-on-panel', 'back-off'],
    // Contacts are covered at the ribbon’s end that is plugged in.
    ['clock.mask', 'led-tcon', 'back-off'],
    ['clock.mask', 'led-tcon-on-panel', 'back-off'],
    ['tcon.fuse', 'led-tcon', 'back-off'],
    ['recap.power', 'led-tcon', 'back-off'],
    ['replace.panel', 'led-tcon', 'panel-open'],
    ['replace.strips', 'led-tcon', 'panel-open'],
  ])('%s on %s: %s', (id, layout, stage) => {
    expect(stageOfRepair(id, layout)).toBe(stage);
  });
  test('no glass is lifted on the way to it, and none is charged for', () => {
    const opened = { ...setOnArrival, stage: 1, plugged: false, railsDown: true, verified: true };
    const moves = walkTo({ kind: 'repair', id: 'bias.capacitor' }, opened, shipped(), 'led-tcon')?.moves ?? [];
    expect(JSON.stringify(moves)).not.toContain('panel-open');
    const told = ['cut.picture=comes-alive', 'bias.rails=all-missing', 'bias.ohms=short', 'bias.walk=short-gone'];
    const step = foldCase(caseOf(['restart-loop'], told), shipped()).next.find(({ id }) => id === 'bias.capacitor');
    expect(step?.stage).toBe('back-off');
    // The work itself, and nothing for the glass.
    expect(step?.minutes).toBe(40);
  });
});

describe('iron or hot air goes to a part only of a set that is safe for it', () => {
  const down = { plugged: false, railsDown: true, verified: false };
  const may = (place: string | undefined, state: Parameters<typeof mayWorkOn>[1], layout = 'led-tcon') =>
    mayWorkOn(place, state, layout, shipped());
  test.each([
    ['plugged in, whatever was measured before', 'main', { plugged: true, railsDown: true, verified: true }, false],
    ['a cold board, rails down', 'main', down, true],
    ['a cold board, rails not down yet', 'main', { ...down, railsDown: false }, false],
    ['a hot board, rails down only', 'power', down, false],
    ['a hot board, its charge measured', 'power', { ...down, verified: true }, true],
    ['nobody said which board', undefined, down, false],
    ['nobody said which board, the charge measured', undefined, { ...down, verified: true }, true],
  ] as const)('%s', (_, place, state, expected) => {
    expect(may(place, state)).toBe(expected);
  });
  test('where hot and cold share a board there is no cold part', () => {
    expect(may('combo', down, 'one-board')).toBe(false);
  });
});
