import type { Comparison, FieldProblem, Finding, NextStep, Problem } from '@veglia/core';
import { printMoney } from './money.ts';
import { instrumentWords, say, type Language, type Words } from './words/index.ts';

/** One of the core's problems as a sentence. */
export function problemSentence(problem: Problem, words: Words): string {
  const { code, ...values } = problem;
  return say(words.problem[code], {
    ...values,
    expected: problem.expected ?? (code === 'procedure-without-caution' ? 'a caution' : undefined),
  });
}

/** Why a step is proposed, as a sentence; `assembly` names an assembly. */
export function reasonSentence(step: NextStep, words: Words, assembly: (id: string) => string): string {
  const { code, share, of, position, savesMinor, toEndMinor } = step.because;
  const money = (minor: number | undefined): string | undefined =>
    minor === undefined ? undefined : printMoney({ amountMinor: minor, currency: step.cost.currency });
  const target = of ?? step.of;
  return say(words.reason[code], {
    share: `${Math.round(100 * (share ?? 0))} %`,
    minutes: Math.max(1, Math.round(step.minutes + step.waitMinutes)),
    hands: Number(step.minutes.toFixed(1)),
    of: target === undefined ? undefined : assembly(target),
    position,
    saves: money(savesMinor),
    toEnd: money(toEndMinor),
  });
}

/** Why one step stands before another, as a sentence; `name` names a step. */
export function comparisonSentence({ code, first, other }: Comparison, words: Words, name: (step: NextStep) => string): string {
  const { currency } = first.cost;
  const money = (amountMinor: number): string => printMoney({ amountMinor, currency });
  const share = (p: number | undefined): string => `${Math.round(100 * (p ?? 0))} %`;
  const minutes = (step: NextStep): number => Math.max(1, Math.round(step.minutes + step.waitMinutes));
  return say(words.comparison[code], {
    other: name(other),
    unit: `1 ${currency}`,
    mine: (first.because.perMinor ?? 0).toFixed(1),
    theirs: (other.because.perMinor ?? 0).toFixed(1),
    saves: money(first.because.savesMinor ?? 0),
    chance: share(first.because.chance),
    otherChance: share(other.because.chance),
    price: money(first.cost.amountMinor),
    otherPrice: money(other.cost.amountMinor),
    share: share(first.because.share),
    otherShare: share(other.because.share),
    minutes: minutes(first),
    otherMinutes: minutes(other),
    position: first.because.position,
    otherPosition: other.because.position,
  });
}

/** What an instrument found, as a sentence. */
export const findingSentence = ({ code, values }: Pick<Finding, 'code' | 'values'>, language: Language = 'en'): string =>
  say(instrumentWords[language].finding[code] ?? code, values);

/** What is wrong with a field, as a sentence. */
export function fieldProblemSentence({ field, code, typed, bound }: FieldProblem, language: Language = 'en'): string {
  const words = instrumentWords[language];
  return say(words.fieldProblem[code], { field: words.field[field] ?? field, typed, bound });
}
