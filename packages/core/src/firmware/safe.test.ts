import { describe, expect, test } from '@jest/globals';
import type { Entry, FlashDid } from '../ledger/index.ts';
import { shipped } from '../testing/shipped.ts';
import { flashCautions, flashConsents, flashUnsafe } from './safe.ts';
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

describe('what is read and agreed to before', () => {
  const cautions = (step: FlashDid['step']): string[] => flashCautions({ step }, shipped(), 'led-tcon');
  test('at the chip: its own supply, live and cold; where the content changes: that it is lost; at a choice on the screen: nothing', () => {
    for (const step of ['supply', 'entered', 'read', 'way-out'] as const)
      expect(cautions(step)).toEqual(expect.arrayContaining(['live-cold', 'cold-cut', 'chip']));
    for (const step of ['erased', 'programmed', 'fitted'] as const)
      expect(cautions(step)).toEqual(expect.arrayContaining(['chip', 'solder', 'data']));
    expect(cautions('read')).not.toContain('data');
    for (const step of ['chosen', 'setting', 'opened'] as const) expect(cautions(step)).toEqual([]);
  });

  const image = '0192f000-0000-7000-8000-00000000f1a5';
  const entry = (body: Entry['body']): Entry => ({ id: 'e1', seq: 1, at: '2026-03-01T08:00:00Z', by: 'ada', basedOn: 0, body });
  const agreed = entry({ kind: 'consent.given', v: 1, to: 'data' });
  test.each<readonly [string, FlashDid['step'], 'own-set' | 'dealer', readonly Entry[], readonly string[]]>([
    ['other content is the customer’s to agree to', 'erased', 'dealer', [], ['data']],
    ['and was agreed to', 'erased', 'dealer', [agreed], []],
    ['its own content loses nothing', 'erased', 'own-set', [], []],
    ['another chip carries other content', 'fitted', 'own-set', [], ['data']],
    ['reading loses nothing', 'read', 'dealer', [], []],
  ])('%s', (_, step, source, live, wanted) => {
    const session = foldFlash('one', [
      { step: 'opened', memory: 'spi-nor', name: 'U1', areas: ['whole'], why: 'other', plan: 'rewrite' },
      { step: 'chosen', area: 'whole', sha256: 'a'.repeat(64), bytes: 9, image, source, fit: 'fits' },
    ]);
    expect(session && flashConsents({ step }, session, live, { stage: 1 }, shipped(), 'led-tcon')).toEqual(wanted);
  });
});
