/** What was pressed and what it did is evidence. Rules: common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped } from '../../testing/shipped.ts';
import { foldCase } from '../index.ts';
import { answerOf } from './stimulus.ts';

const tried = (way: string, at: string, effect: string) => ({ kind: 'stimulus.tried', v: 1, way, at, effect });
const probability = (symptom: string, told: (string | Record<string, unknown>)[], of: string): number =>
  foldCase(caseOf([symptom], told), shipped()).assemblies.find(({ id }) => id === of)?.probability ?? 0;

describe('a stimulus is the test it amounts to', () => {
  const answer = (way: string, at: string, effect: string, layout = 'led-tcon') =>
    answerOf(tried(way, at, effect) as never, shipped(), layout);
  test.each([
    ['press', 'tcon', 'came', { test: 'flex.tcon', outcome: 'changes' }],
    ['flex', 'tcon', 'stayed', { test: 'flex.tcon', outcome: 'nothing' }],
    ['squeeze', 'panel', 'went', { test: 'squeeze', outcome: 'picture-changes' }],
    ['warm', 'main', 'went', { test: 'warm.one', of: 'main', outcome: 'heals' }],
    ['warm', 'tcon', 'stayed', { test: 'warm.one', of: 'tcon', outcome: 'stays' }],
    // Somewhere on the board: what changed tells of its processor's bonds, what didn't may have missed them.
    ['press', 'main', 'went', { test: 'press.processor', outcome: 'changes' }],
    ['press', 'main', 'stayed', undefined],
    ['chill', 'main', 'went', { test: 'chill.memory', outcome: 'heals' }],
    ['chill', 'main', 'came', undefined],
    ['press', 'tcon', 'cant-tell', undefined],
    ['press', 'speakers', 'came', undefined],
  ])('%s at %s, %s', (way, at, effect, expected) => expect(answer(way, at, effect)).toEqual(expected));

  test('an OLED panel is not squeezed, so no squeeze is read there', () =>
    expect(answer('squeeze', 'panel', 'went', 'oled')).toBeUndefined());
});

describe('and moves the probabilities as that test does', () => {
  test('a picture that answers a press on the T-con is the T-con or its plugs', () => {
    for (const symptom of ['half-picture', 'many-lines', 'lit-blank']) {
      const side = (told: (string | Record<string, unknown>)[]) =>
        ['tcon', 'harness.picture', 'harness.panel-left', 'harness.panel-right'].reduce(
          (sum, id) => sum + probability(symptom, told, id),
          0,
        );
      expect([symptom, side([tried('press', 'tcon', 'came')]) > side([])]).toEqual([symptom, true]);
      expect(side([tried('press', 'tcon', 'came')])).toBeCloseTo(side(['flex.tcon=changes']), 9);
    }
  });
  test('warm air on main that heals points to main; nothing said is nothing changed; the test is not asked again', () => {
    expect(probability('slow-start', [tried('warm', 'main', 'went')], 'main')).toBeGreaterThan(probability('slow-start', [], 'main'));
    expect(probability('slow-start', [tried('warm', 'main', 'cant-tell')], 'main')).toBe(probability('slow-start', [], 'main'));
    const { leftOut } = foldCase(caseOf(['half-picture'], [tried('squeeze', 'panel', 'went')]), shipped());
    expect(leftOut.find(({ step }) => step.id === 'squeeze')?.code).toBe('answered');
  });
  test('nothing under a press weighs less than the test done as written', () => {
    const before = probability('half-picture', [], 'panel');
    const pressed = probability('half-picture', [tried('squeeze', 'panel', 'stayed')], 'panel');
    const tested = probability('half-picture', ['squeeze=nothing'], 'panel');
    expect(tested).toBeLessThan(pressed);
    expect(pressed).toBeLessThan(before);
  });
});
