/** P(next answer | fault) after the looks there were, against Bayes' rule written out. */
import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped } from '../../testing/shipped.ts';
import { interpret } from './interpret.ts';
import { circumstancesKey, nextLook, outcomeTable } from './rows.ts';

const compiled = shipped();
const rows = (told: string[], id: string) => {
  const seen = interpret(caseOf(['standby-no-start'], told), compiled);
  const found = compiled.tests.get(id)!;
  const key = circumstancesKey(seen);
  return { next: nextLook(seen, compiled, found, undefined, key), table: outcomeTable(seen, compiled, found, undefined, key), found };
};

describe.each([['rail.standby'], ['rail.secondary']])('%s', (id) => {
  const first = compiled.outcomeIds(id)[0]!;
  test.each([[[]], [[`${id}=${first}`]], [[`${id}=${first}`, `${id}=${compiled.outcomeIds(id)[1]}`]]])(
    'after %p the answers add up to 1',
    (told) => {
      const { next } = rows(told, id);
      for (let h = 0; h < next[0]!.length; h += 1) expect(next.reduce((sum, row) => sum + row[h]!, 0)).toBeCloseTo(1, 9);
    },
  );

  test('one look already: the truth behind it is likelier, and the next look errs anew', () => {
    const { next, table, found } = rows([`${id}=${first}`], id);
    const error = compiled.likelihoodWord(found.error);
    const others = compiled.outcomeIds(id).length - 1;
    for (let h = 0; h < next[0]!.length; h += 1) {
      const weights = table.truth.map((row, place) => row[h]! * (place === 0 ? 1 - error : error / others));
      const total = weights.reduce((a, b) => a + b, 0);
      weights.forEach((weight, place) => {
        const p = weight / total;
        expect(next[place]![h]).toBeCloseTo((1 - error) * p + (error * (1 - p)) / others, 9);
      });
      if (table.truth[0]![h]! > 0.01) expect(next[0]![h]).toBeGreaterThanOrEqual(table.told[0]![h]! - 1e-9);
    }
  });
});

test('readings that share a cause of error are still chances: over all their answers together they come to one', () => {
  const outcomes = (id: string): readonly string[] => shipped().outcomeIds(id);
  const totals = new Map<number, number>();
  for (const command of outcomes('bl-on'))
    for (const dim of outcomes('dim')) {
      const { units } = interpret(caseOf(['sound-dark'], [`bl-on=${command}`, `dim=${dim}`]), shipped());
      const [unit] = units.filter(({ kind }) => kind === 'test');
      expect(units.filter(({ kind }) => kind === 'test')).toHaveLength(1);
      unit?.logLikelihood.forEach((log, h) => totals.set(h, (totals.get(h) ?? 0) + Math.exp(log)));
    }
  for (const total of totals.values()) expect(total).toBeCloseTo(1, 9);
});

test('a count that is off by one from every code is told', () => {
  const doubts = (groups: number[]) =>
    interpret(
      caseOf(['blinking'], [{ kind: 'blink.read', v: 2, groups, cycles: 2, how: 'eye' }], { family: 'quorvane.qk3' }),
      shipped(),
    ).doubts.filter(({ code }) => code === 'count-not-in-table');
  const codes = shipped()
    .families.get('quorvane.qk3')!
    .blink.map(({ groups }) => groups.join('-'));
  const [known] = shipped().families.get('quorvane.qk3')!.blink;
  expect(doubts([...known!.groups])).toEqual([]);
  const near = [known!.groups[0]! + 1, ...known!.groups.slice(1)];
  expect(codes).not.toContain(near.join('-'));
  expect(doubts(near)).toHaveLength(1);
});
