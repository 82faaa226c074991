import { describe, expect, test } from '@jest/globals';
import type { FlashDid } from '../ledger/index.ts';
import { shipped } from '../testing/shipped.ts';
import { flashUnsafe } from './safe.ts';
import { foldFlash } from './session.ts';

const up = { stage: 1, plugged: true, railsDown: false, verified: false };
const off = { stage: 1, plugged: false, railsDown: false, verified: false };
const down = { stage: 1, plugged: false, railsDown: true, verified: false };
const measured = { stage: 1, plugged: false, railsDown: true, verified: true };

describe('before hands or a programmer reach a memory (common practice, no source)', () => {
  test.each<readonly [string, FlashDid['step'], 'programmer' | 'board', typeof up, string, string | undefined]>([
    ['the cover is on', 'supply', 'programmer', { ...off, stage: 0 }, 'led-tcon', 'open-first'],
    ['a clip on a live set', 'entered', 'programmer', up, 'led-tcon', 'unplug-first'],
    ['a clip with the rails still up', 'entered', 'programmer', off, 'led-tcon', 'down-first'],
    ['a clip on a cold board, rails down', 'entered', 'programmer', down, 'led-tcon', undefined],
    ['a clip where mains and memory share a board: measured first', 'entered', 'programmer', down, 'one-board', 'measure-first'],
    ['and measured', 'entered', 'programmer', measured, 'one-board', undefined],
    ['everything off again: the same', 'way-out', 'programmer', up, 'led-tcon', 'unplug-first'],
    ['a programmer that feeds the chip, and the set under power', 'read', 'programmer', up, 'led-tcon', 'unplug-first'],
    ['the set feeds the chip itself, on purpose', 'read', 'board', up, 'led-tcon', undefined],
    ['the first start is under power', 'started', 'programmer', up, 'led-tcon', undefined],
    ['the supply is measured under power', 'supply', 'programmer', up, 'led-tcon', undefined],
  ])('%s', (_, step, feeds, state, layout, wanted) => {
    const session = foldFlash('one', [
      { step: 'opened', memory: 'spi-nor', name: 'U1', areas: ['whole'], why: 'other', plan: 'rewrite' },
      { step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: [feeds] },
    ]);
    expect(session && flashUnsafe({ step }, session, state, layout, shipped())).toBe(wanted);
  });
});
