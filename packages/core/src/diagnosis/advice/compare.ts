/** Why the first step stands before the second and the third: the figures the order was made by, side by side. */
import type { NextStep } from './steps.ts';

/** Why one step stands before another. */
export const comparisonCodes = [
  'code-cant-wait',
  'split-before-part',
  'saves-more-for-its-price',
  'test-before-part',
  'part-before-test',
  'cures-more-for-its-price',
  'other-does-not-pay',
  'tells-more-for-its-time',
  'earlier-on-list',
  'proven-before-test',
  'outside-before-inside',
  'tells-before-part',
  'cheaper-chain',
] as const;
/** One of `comparisonCodes`. */
export type ComparisonCode = (typeof comparisonCodes)[number];

/** Two steps, and why the first stands first. */
export interface Comparison {
  readonly code: ComparisonCode;
  readonly first: NextStep;
  readonly other: NextStep;
}

/** The first of `next` against the two behind it; a pair of which nothing can be said is left out. */
export function compareSteps(next: readonly NextStep[]): Comparison[] {
  const [first, ...others] = next;
  if (!first) return [];
  return others.slice(0, 2).flatMap((other): Comparison[] => {
    const code = codeOf(first, other);
    return code === undefined ? [] : [{ code, first, other }];
  });
}

function codeOf(first: NextStep, other: NextStep): ComparisonCode | undefined {
  const mine = first.because;
  const theirs = other.because;
  switch (mine.code) {
    case 'code-first':
      return 'code-cant-wait';
    case 'needed-for-proof':
      return theirs.code === 'needed-for-proof' ? undefined : 'split-before-part';
    case 'proven':
      return other.kind === 'test' ? 'proven-before-test' : undefined;
    case 'least-cost':
      if (theirs.code === 'least-cost')
        return (mine.perMinor ?? 0) >= (theirs.perMinor ?? 0) ? 'saves-more-for-its-price' : 'cheaper-chain';
      if (theirs.code === 'does-not-pay') return 'other-does-not-pay';
      return other.kind === 'repair' ? 'test-before-part' : undefined;
    case 'chain':
      return 'cheaper-chain';
    case 'cheaper-than-testing':
      if (theirs.code === 'least-cost') return 'cheaper-chain';
      if (theirs.code === 'does-not-pay') return 'other-does-not-pay';
      if (other.kind === 'repair') return 'cures-more-for-its-price';
      return other.kind === 'test' ? 'part-before-test' : undefined;
    case 'history-first':
      return 'outside-before-inside';
    case 'outside-first':
      return theirs.code === 'outside-first' ? 'tells-more-for-its-time' : 'outside-before-inside';
    case 'most-bits-per-minute':
      if (other.kind === 'repair') return 'tells-before-part';
      return theirs.code === 'most-bits-per-minute' ? 'tells-more-for-its-time' : undefined;
    case 'list-order':
      return theirs.code === 'list-order' ? 'earlier-on-list' : undefined;
    default:
      return undefined;
  }
}
