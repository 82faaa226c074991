/** What a reader is given: a light as it was filmed, or taps in time with it. All times in seconds, on one clock. */

import type { LightColour } from './words.ts';

/** Level is linear in the light that reached the camera, in any unit, with any offset. `colours` where known, one for each sample. */
export interface LightTrace {
  readonly timesS: readonly number[];
  readonly levels: readonly number[];
  readonly colours?: readonly (LightColour | undefined)[];
}

/** One press for each flash: when it began. How long a key is held says nothing of the light. */
export interface Tap {
  readonly atS: number;
}

/** One flash of the light. */
export interface Pulse {
  readonly onS: number;
  readonly offS: number;
  readonly colour?: LightColour;
  /** Natural logarithm of the odds that it was there at all; a tap has the odds of a tap. */
  readonly logOdds: number;
}

/** Why a recording can’t be read. */
export const traceProblems = ['too-short', 'not-finite', 'time-runs-back', 'lengths-differ', 'too-long'] as const;
/** One of `traceProblems`. */
export type TraceProblem = (typeof traceProblems)[number];

/** Below this nothing can be told; values of ours. */
const leastSamples = 8;
/** Ten minutes at 60 frames a second: what a reader is asked to hold at most. */
const mostSamples = 36_000;

/** What is wrong with it, or undefined. Equal times are let through (a camera may say one twice). */
export function traceProblem(trace: LightTrace): TraceProblem | undefined {
  const { timesS, levels, colours } = trace;
  if (timesS.length !== levels.length || (colours && colours.length !== levels.length)) return 'lengths-differ';
  if (timesS.length < leastSamples) return 'too-short';
  if (timesS.length > mostSamples) return 'too-long';
  if (![...timesS, ...levels].every(Number.isFinite)) return 'not-finite';
  return timesS.every((time, index) => index === 0 || time >= (timesS[index - 1] ?? 0)) ? undefined : 'time-runs-back';
}
