/** What each entry did, against the belief without it. */
import { expect, test } from '@jest/globals';
import { caseOf, shipped } from '../../testing/shipped.ts';
import { believe, influences } from './belief.ts';
import { logOdds } from './posterior.ts';

test.each([
  ['single looks', ['torch=faint-picture', 'cut.power-main=lit']],
  ['the same looked at twice', ['torch=faint-picture', 'torch=faint-picture', 'bl-on=absent']],
  ['two looks that disagree', ['torch=faint-picture', 'torch=nothing']],
  ['looks that share a cause', ['heat.all-but:main=heals', 'heat.all-but:tcon=stays', 'heat.all-but:main=stays']],
])('%s: exactly what the probabilities move when the look is struck', (_, told) => {
  const input = caseOf(['sound-dark'], told);
  const belief = believe(input, shipped());
  const found = influences(input, shipped(), belief).filter(({ entry }) => entry.body.kind === 'test.answered');
  expect(found).toHaveLength(told.length);
  for (const { entry, weights } of found) {
    const without = believe({ ...input, entries: input.entries.filter(({ id }) => id !== entry.id) }, shipped());
    for (const [id, probability] of belief.assemblies)
      expect(weights.get(id)).toBeCloseTo(logOdds(probability) - logOdds(without.assemblies.get(id) ?? 0), 6);
  }
});
