/** Words of the pack's scale into probabilities. */
import type { Pack } from './schema.ts';

/** Word for what is left of a row. */
export const rest = 'rest';

/** What a row that is written in words may sum to before it is taken for a wrong word. */
export const rowSumRange = { least: 0.8, most: 1.25 } as const;

/** A row of words as numbers. */
export interface RowNumbers {
  /** One probability per outcome, in the order asked for; sums to 1. */
  readonly likelihoods: readonly number[];
  /** What the words summed to before normalising; 1 where a `rest` filled the row. */
  readonly sum: number;
  readonly unknownWords: readonly string[];
  readonly restCount: number;
}

/**
 * A row of words over `outcomes` as probabilities. Outcomes the row leaves out count as `never`, which is small and
 * not zero, so that no single answer can make the truth impossible.
 */
export function rowNumbers(scale: Pack['scale'], outcomes: readonly string[], row: Readonly<Record<string, string>>): RowNumbers {
  const floor = Math.min(...Object.values(scale.likelihood));
  const unknownWords: string[] = [];
  let restCount = 0;
  let written = 0;
  const weights = outcomes.map((outcome) => {
    const word = row[outcome];
    if (word === undefined) return floor;
    if (word === rest) {
      restCount += 1;
      return Number.NaN;
    }
    const weight = scale.likelihood[word];
    if (weight === undefined) {
      unknownWords.push(word);
      return floor;
    }
    written += weight;
    return weight;
  });
  const remaining = Math.max(floor, 1 - written);
  const filled = weights.map((weight) => (Number.isNaN(weight) ? remaining : weight));
  const total = filled.reduce((a, b) => a + b, 0);
  return {
    likelihoods: filled.map((weight) => weight / total),
    sum: restCount > 0 ? written + remaining : written,
    unknownWords,
    restCount,
  };
}
