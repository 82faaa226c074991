import type { Problem } from '@veglia/core';
import { say, type Words } from './words/index.ts';

/** One of the core's problems as a sentence. */
export function problemSentence(problem: Problem, words: Words): string {
  const { code, ...values } = problem;
  return say(words.problem[code], {
    ...values,
    expected: problem.expected ?? (code === 'procedure-without-caution' ? 'a caution' : undefined),
  });
}
