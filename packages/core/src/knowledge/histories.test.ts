import { describe, expect, test } from '@jest/globals';
import { shipped, shippedPack } from '../testing/shipped.ts';
import { checkPack, historiesTold, historyGiven } from './index.ts';

const given = (history: string, fault: string, layout = 'led-tcon'): number => {
  const compiled = shipped();
  const { pack, faultsOf } = compiled;
  const found = pack.histories.find(({ id }) => id === history);
  const placed = faultsOf.get(layout)?.find(({ id }) => id === fault);
  if (!found || !placed) throw new Error(`${history} or ${fault} is not in the pack`);
  return historyGiven(found, placed, pack, (word) => compiled.likelihoodWord(word));
};

describe('P(told | fault)', () => {
  test.each([
    ['a fault of its own before its class', 'dropped', 'strips.joint-open', 0.12],
    ['a kind of assembly: any plug', 'dropped', 'harness.keys.loose', 0.12],
    ['its class', 'dropped', 'panel.glass-cracked', 0.3],
    ['a mix of classes by their shares', 'smell', 'tcon.clock-dead', 0.02],
    ['nothing named: as otherwise', 'storm', 'strips.led-open', 0.02],
  ])('%s', (_, history, fault, expected) => {
    expect(given(history, fault)).toBeCloseTo(expected, 6);
  });

  test('another hand is told once, by its most particular word', () => {
    const { pack } = shipped();
    expect(historiesTold(pack, ['opened-before', 'boards-swapped', 'storm']).map(({ id }) => id)).toEqual(['storm', 'boards-swapped']);
    expect(historiesTold(pack, ['opened-before']).map(({ id }) => id)).toEqual(['opened-before']);
    expect(historiesTold(pack, ['no-such'])).toEqual([]);
  });
});

describe('the pack check', () => {
  const changed = (change: Partial<ReturnType<typeof shippedPack>['histories'][number]>) => {
    const pack = shippedPack();
    const [first, ...rest] = pack.histories;
    return checkPack({ ...pack, histories: [{ ...first!, ...change }, ...rest] }).filter(({ where }) => where.startsWith('histories/'));
  };
  test.each([
    ['a key that is nothing of the pack', { told: { 'no-such': 'rarely' } }, 'unknown-id'],
    ['a word that is not on the scale', { otherwise: 'often-ish' }, 'word-unknown'],
    ['a first test that is not there', { first: ['look.nowhere'] }, 'unknown-id'],
    ['two of one name', { id: 'storm' }, 'duplicate-id'],
  ])('refuses %s', (_, change, code) => {
    expect(changed(change).map((one) => one.code)).toContain(code);
  });
  test('accepts the shipped ones', () => {
    expect(changed({})).toEqual([]);
  });
});
