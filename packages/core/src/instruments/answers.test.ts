import { describe, expect, test } from '@jest/globals';
import { flashInstruments } from '../firmware/index.ts';
import { shipped } from '../testing/shipped.ts';
import { answerCases } from './answerCases.ts';
import { instrumentAnswers, instrumentChange, instruments, instrumentsFor, runInstrument } from './index.ts';

describe('what an instrument’s result answers', () => {
  test.each(answerCases)('$instrument: $name', ({ instrument, typed, answers }) => {
    const outcome = runInstrument(
      instruments.find(({ id }) => id === instrument)!,
      typed,
    );
    expect(outcome.ok).toBe(true);
    if (!outcome.ok) return;
    const found = instrumentAnswers(instrument, outcome.report, shipped().tests.values());
    expect(found.map((one) => [one.test, one.outcome])).toEqual(answers ? [answers] : []);
  });
  test('something still needed answers nothing, whatever else was found', () => {
    const found = { findings: [{ code: 'short-gone', tone: 'good' as const, values: {} }], needs: [] };
    expect(instrumentAnswers('short', found, shipped().tests.values())).toHaveLength(1);
    expect(instrumentAnswers('short', { ...found, needs: ['capacitors'] }, shipped().tests.values())).toEqual([]);
  });
  test('the pack names instruments there are, and a result for one answer of a test only', () => {
    const ids = [...instruments.map(({ id }) => id), ...flashInstruments];
    let named = 0;
    for (const one of shipped().tests.values()) {
      const pairs = one.observe.outcomes.flatMap(({ by }) => (by ?? []).map(({ instrument, finding }) => `${instrument} ${finding}`));
      expect(new Set(pairs).size).toBe(pairs.length);
      for (const instrument of instrumentsFor(one)) expect(ids).toContain(instrument);
      named += pairs.length;
    }
    expect(named).toBeGreaterThan(10);
    const beside = shipped().pack.repairs.flatMap((repair) => instrumentsFor(repair));
    for (const instrument of beside) expect(ids).toContain(instrument);
    // What the step is done with stands beside it: a row of capacitors is walked, contacts are masked.
    expect(instrumentsFor(shipped().pack.repairs.find(({ id }) => id === 'bias.capacitor')!)[0]).toBe('short');
    expect(instrumentsFor(shipped().pack.repairs.find(({ id }) => id === 'clock.mask')!)).toEqual(['mask']);
  });
});

describe('what a result changes of the set', () => {
  const found = (code: string) => ({ findings: [{ code, tone: 'good' as const, values: {} }] });
  const chip = { chip: 'U402' };
  test('a chip that is off is missing, on its board, once; the one that is fitted takes its place', () => {
    expect(instrumentChange(found('chip-off-done'), chip, [], 'main')).toEqual({ lifted: [{ name: 'U402', what: 'part', on: 'main' }] });
    expect(instrumentChange(found('chip-pads-lifted'), chip, [])).toEqual({ lifted: [{ name: 'U402', what: 'part' }] });
    expect(instrumentChange(found('chip-off-done'), chip, [{ name: 'U402' }])).toBeUndefined();
    expect(instrumentChange(found('chip-on-done'), chip, [{ name: 'U402' }])).toEqual({ refitted: ['U402'] });
  });
  test('before it is off, or where another is missing, nothing changes', () => {
    expect(instrumentChange(found('chip-off-may'), chip, [])).toBeUndefined();
    expect(instrumentChange(found('chip-turned'), chip, [{ name: 'U402' }])).toBeUndefined();
    expect(instrumentChange(found('chip-on-done'), chip, [{ name: 'U7' }])).toBeUndefined();
  });
});
