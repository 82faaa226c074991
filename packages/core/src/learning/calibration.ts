/**
 * How well the probabilities held, from what was said at the time: `advice.shown` entries against the confirmed fault. Never from a
 * fresh fold: a tool that learns would look wiser afterwards than it was.
 */
import { liveEntries, type Entry } from '../ledger/index.ts';

/** Jobs whose answer was this likely, and how often it was right. */
export interface CalibrationTenth {
  /** Mean of the probabilities told in this tenth, share that came true, how many. */
  readonly told: number;
  readonly cameTrue: number;
  readonly n: number;
}

/** How right the probabilities were. */
export interface Calibration {
  readonly n: number;
  /** Mean squared error of the probabilities told (Brier 1950, Monthly Weather Review 78). */
  readonly brier: number;
  /** Mean gap between told and true, weighed by n; 0 to 1. */
  readonly gap: number;
  readonly tenths: readonly CalibrationTenth[];
}

/** Jobs without a confirmed fault, or where nothing was shown, count nothing. */
export function calibration(jobs: readonly (readonly Entry[])[]): Calibration {
  const pairs = jobs.flatMap((entries) => {
    const live = liveEntries(entries);
    const confirmed = live.findLast(({ body }) => body.kind === 'fault.confirmed')?.body;
    if (confirmed?.kind !== 'fault.confirmed') return [];
    return live.flatMap(({ body }) =>
      body.kind === 'advice.shown'
        ? body.top.map(({ id, probability }) => ({ probability, truth: id === confirmed.assembly ? 1 : 0 }))
        : [],
    );
  });
  return calibrationOf(pairs);
}

/** `probabilities` 0 to 1, `truth` 1 where it came true. */
export function calibrationOf(pairs: readonly { readonly probability: number; readonly truth: number }[]): Calibration {
  const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);
  const tenths = Array.from({ length: 10 }, (_, tenth): CalibrationTenth => {
    const own = pairs.filter(({ probability }) => Math.min(9, Math.floor(probability * 10)) === tenth);
    return { told: mean(own.map(({ probability }) => probability)), cameTrue: mean(own.map(({ truth }) => truth)), n: own.length };
  });
  return {
    n: pairs.length,
    brier: mean(pairs.map(({ probability, truth }) => (probability - truth) ** 2)),
    gap: tenths.reduce((sum, { told, cameTrue, n }) => sum + n * Math.abs(told - cameTrue), 0) / Math.max(1, pairs.length),
    tenths,
  };
}
