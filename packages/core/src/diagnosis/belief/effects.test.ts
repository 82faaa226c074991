import { expect, test } from '@jest/globals';
import { caseOf, shipped } from '../../testing/shipped.ts';
import { asOf, believe, effectsOf, foldCase, goOnWithEffects } from '../index.ts';

const told = caseOf(
  ['sound-dark'],
  [{ kind: 'note.added', v: 1, text: 'dusty' }, 'torch=faint-picture', 'led.output=none', 'torch=nothing'],
);

test('each entry that can move probabilities has what it moved most, before and after; a note has none', () => {
  const effects = effectsOf(told, shipped());
  expect(effects.map(({ entry }) => entry)).toEqual(['entry-1', 'entry-3', 'entry-4', 'entry-5']);
  for (const { entry, id, before, after } of effects) {
    const seq = told.entries.find((one) => one.id === entry)!.seq;
    expect(after).toBeCloseTo(believe(asOf(told, seq), shipped()).assemblies.get(id)!, 12);
    expect(before).toBeCloseTo(believe(asOf(told, seq - 1), shipped()).assemblies.get(id)!, 12);
    for (const [other, probability] of believe(asOf(told, seq), shipped()).assemblies)
      expect(Math.abs(probability - (believe(asOf(told, seq - 1), shipped()).assemblies.get(other) ?? 0))).toBeLessThanOrEqual(
        Math.abs(after - before) + 1e-9,
      );
  }
});

test('as of this entry is the fold of what had been written by then', () => {
  const then = foldCase(asOf(told, 3), shipped());
  expect(then).toEqual(foldCase(caseOf(['sound-dark'], [{ kind: 'note.added', v: 1, text: 'dusty' }, 'torch=faint-picture']), shipped()));
});

test('gone on with, entry by entry, is the same as from the start; a ledger that did not only grow is worked out anew', () => {
  const more = caseOf(
    ['sound-dark'],
    ['torch=faint-picture', { kind: 'entry.retracted', v: 1, entry: 'entry-2', reason: 'slipped' }, 'led.output=none', 'torch=nothing'],
  );
  let sofar = goOnWithEffects(asOf(more, 1), shipped());
  for (let seq = 2; seq <= more.entries.length; seq += 1) {
    sofar = goOnWithEffects(asOf(more, seq), shipped(), sofar);
    expect(sofar.effects).toEqual(effectsOf(asOf(more, seq), shipped()));
  }
  expect(goOnWithEffects(told, shipped(), sofar).effects).toEqual(effectsOf(told, shipped()));
  const elsewhere = { ...more, set: { ...more.set, layout: 'oled' } };
  expect(goOnWithEffects(elsewhere, shipped(), sofar).effects).toEqual(effectsOf(elsewhere, shipped()));
});
