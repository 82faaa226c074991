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
