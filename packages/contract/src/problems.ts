import type { NextStep, Problem } from '@veglia/core';
import { say, type Words } from './words/index.ts';

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
    minor === undefined ? undefined : `${(minor / 100).toFixed(2)} ${step.cost.currency}`;
  const target = of ?? step.of;
  return say(words.reason[code], {
    share: `${Math.round(100 * (share ?? 0))} %`,
    minutes: Math.max(1, Math.round(step.minutes + step.waitMinutes)),
    of: target === undefined ? undefined : assembly(target),
    position,
    saves: money(savesMinor),
    toEnd: money(toEndMinor),
  });
}
