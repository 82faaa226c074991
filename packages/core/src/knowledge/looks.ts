/** The layout before the back is off: how common each is, moved by what can be seen from outside. */
import { rowNumbers } from './scale.ts';
import type { Pack } from './schema.ts';

/**
 * Probabilities over layouts, each above 0, summing to 1. `seen` is look id -> answer id; what isn't answered, or isn't known to the pack,
 * says nothing. `possible` narrows to those layouts, where the family is known.
 */
export function layoutProbabilitiesByLooks(
  pack: Pack,
  seen: Readonly<Record<string, string>>,
  possible: readonly string[] = pack.layouts.map(({ id }) => id),
): Record<string, number> {
  const weights = pack.layouts
    .filter(({ id }) => possible.includes(id))
    .map(({ id, frequency }): [string, number] => {
      const common = pack.scale.frequency[frequency] ?? 1;
      return [id, pack.looks.reduce((weight, look) => weight * likelihood(pack, look, seen[look.id], id), common)];
    });
  const total = weights.reduce((sum, [, weight]) => sum + weight, 0);
  return Object.fromEntries(weights.map(([id, weight]) => [id, weight / total]));
}

function likelihood(pack: Pack, look: Pack['looks'][number], answer: string | undefined, layoutId: string): number {
  const answers = look.answers.map(({ id }) => id);
  const place = answer === undefined ? -1 : answers.indexOf(answer);
  const row = look.rows.find(({ for: layouts }) => layouts.includes(layoutId) || layouts.includes('*'));
  return place < 0 || !row ? 1 : (rowNumbers(pack.scale, answers, row.likelihoods).likelihoods[place] ?? 1);
}
