/**
 * A code as the slots of a cycle, and the likelihood of flashes under it: the sum over all ways through the slots, flash by flash, in which a
 * slot may have been missed and a flash may have been none (a hidden Markov chain over slots, forward).
 */
import type { Event, RhythmInput, RhythmSource, Split } from './events.ts';
import { median, spread } from './statistics.ts';

// Taken once: looked up millions of times, and slow to find where a test runs in a context of its own.
const { abs, exp, log, max, min, sqrt } = Math;

/** Of the logarithm of intervals. */
const leastRandomSpread = 0.35;

/** A code as slots: from each to the next an interval, and how sure of it. The last leads over the pause to the first. */
export interface Template {
  readonly groups: readonly number[];
  readonly intervalS: readonly number[];
  readonly sigmaS: readonly number[];
  readonly long: readonly (boolean | undefined)[];
  readonly lengthS: readonly number[];
}

/** Times of a code’s slots, seconds. */
export interface Timing {
  readonly periodS: readonly number[];
  readonly periodSigmaS: number;
  readonly partS: number;
  readonly pauseS: number;
  readonly pauseSigmaS: number;
  readonly kinds: readonly (boolean | undefined)[];
  readonly lengths: readonly number[];
}

/**
 * One cycle of a code as flashes: intervals and their spread in seconds, which are long, how long each is. `groups`: flashes in each
 * group.
 */
export function templateOf(groups: readonly number[], timing: Timing): Template {
  const intervalS: number[] = [];
  const sigmaS: number[] = [];
  const long: (boolean | undefined)[] = [];
  const lengthS: number[] = [];
  groups.forEach((count, group) => {
    for (let k = 0; k < count; k++) {
      const end = k === count - 1;
      const lastGroup = group === groups.length - 1;
      const period = timing.periodS[group] ?? timing.periodS[0] ?? 0.5;
      intervalS.push(!end ? period : lastGroup ? timing.pauseS : timing.partS);
      sigmaS.push(end && lastGroup ? timing.pauseSigmaS : timing.periodSigmaS);
      long.push(timing.kinds[group]);
      lengthS.push(timing.lengths[group] ?? period / 2);
    }
  });
  return { groups, intervalS, sigmaS, long, lengthS };
}

/** Medians over the cycles that a split has, of flashes in the places they have in it. */
export function timingOf(found: Split, groups: readonly number[], source: RhythmSource, fallbackPauseS: number): Timing {
  const { bursts, cycles } = found;
  const periods: number[][] = groups.map(() => []);
  const kinds: (boolean | undefined)[] = groups.map(() => undefined);
  const lengths: number[][] = groups.map(() => []);
  const parts: number[] = [];
  const pauses: number[] = [];
  const all: number[] = [];
  bursts.forEach((burst, index) => {
    const itsGroups = cycles[index]?.groups ?? [];
    let at = 0;
    itsGroups.forEach((count, group) => {
      // Groups are counted from the end where the beginning was cut off.
      const place = cycles[index]?.whole === false && index === 0 ? groups.length - itsGroups.length + group : group;
      for (let k = 0; k < count; k++, at++) {
        const event = burst[at];
        const next = burst[at + 1];
        if (!event) continue;
        lengths[place]?.push(event.offS - event.onS);
        if (kinds[place] === undefined) kinds[place] = event.long;
        if (!next) continue;
        if (k < count - 1) {
          periods[place]?.push(next.onS - event.onS);
          all.push(next.onS - event.onS);
        } else parts.push(next.onS - event.onS);
      }
    });
    const next = bursts[index + 1]?.[0];
    const last = burst.at(-1);
    if (next && last) pauses.push(next.onS - last.onS);
  });
  const period = all.length > 0 ? median(all) : min(fallbackPauseS / 3, 0.6);
  // One odd member of few says nothing of the rest: what the source brings is the floor.
  const deviations = periods.flatMap((list) => list.map((value) => value - median(list)));
  // A hand's jitter is what it is: more than that is another interval taken for one within a group.
  const widest = source.lengths ? period * 0.25 : source.jitterS * Math.SQRT2 * 1.3;
  const periodSigma = max(source.jitterS * Math.SQRT2, min(spread(deviations.length > 2 ? deviations : [0], 0), widest), 0.012);
  const pause = pauses.length > 0 ? median(pauses) : fallbackPauseS;
  return {
    periodS: periods.map((list) => (list.length > 0 ? median(list) : period)),
    periodSigmaS: periodSigma,
    partS: parts.length > 0 ? median(parts) : sqrt(period * pause),
    pauseS: pause,
    pauseSigmaS: max(periodSigma, min(pauses.length > 1 ? spread(pauses, pause) : pause * 0.1, pause * 0.2), pause * 0.03),
    kinds,
    lengths: lengths.map((list) => (list.length > 0 ? median(list) : period / 2)),
  };
}

const logNormal = (residual: number, sigma: number): number => {
  const z = abs(residual) / sigma;
  if (z > 22) return farOff - log(sigma);
  // A little of a broad bell: an odd interval is odd, not impossible.
  return log(0.98 * exp(-0.5 * z * z) + (0.02 * exp(-0.5 * (z / 5) ** 2)) / 5 + 1e-9) - log(sigma * sqrt(2 * Math.PI));
};
/** What is left of the bells so far out, as below. */
const farOff = log(1e-9) - 0.5 * log(2 * Math.PI);
const logAdd = (a: number, b: number): number => {
  const high = max(a, b);
  return high === Number.NEGATIVE_INFINITY ? high : high + log(exp(a - high) + exp(b - high));
};

/** Flashes that are none, where there are any: so many a second. */
const extraPerS = 0.5;
/** At most this many slots or flashes in a row are taken for missed, or for made up. */
const mostMissed = 3;
const mostExtra = 2;

/** Log likelihood of the flashes under a code that repeats. */
export function likelihood(template: Template, events: readonly Event[], input: RhythmInput): number {
  const { source, recorded } = input;
  const n = template.intervalS.length;
  const logMissed = log(source.missed);
  const logExtra = log(source.extra);
  const logHit = log(1 - source.missed);
  const missedAt = (slot: number, onS: number): number => {
    const length = template.lengthS[slot] ?? 0.2;
    // Only the middle of the flash: its edges are soft, and its time is known to within some of it.
    const dark = input.dark ? input.dark(onS + 0.2 * length, onS + 0.8 * length) : 0;
    // Seen to be dark it can't have been missed; not seen at all, it may have been either way.
    return input.dark ? min(log(0.5), -0.7 * dark) + (dark > 3 ? logMissed / 2 : 0) : logMissed;
  };
  // A flash that was none stands at any time: its price is a density as that of one in its place is.
  const extraOf = (event: Event): number =>
    log(extraPerS) + (Number.isFinite(event.logOdds) ? max(logExtra - 1, min(-0.7, -0.7 * event.logOdds)) : logExtra);
  const kindFits = (event: Event, slot: number): number =>
    event.long === undefined || template.long[slot] === undefined || event.long === template.long[slot] ? 0 : log(0.02);
  const score = events.map(() => new Float64Array(n).fill(Number.NEGATIVE_INFINITY));
  const interval = (slot: number): number => template.intervalS[slot] ?? 0;
  let total = Number.NEGATIVE_INFINITY;
  const spareS = 3 * (template.sigmaS[0] ?? 0.1);

  events.forEach((event, i) => {
    const here = score[i];
    if (!here || event === undefined) return;
    // Beginnings: before the first flash there was nothing, as far back as was recorded.
    if (i <= mostExtra) {
      let extras = 0;
      for (let k = 0; k < i; k++) extras += extraOf(events[k] as Event);
      const lead = event.onS - recorded.fromS;
      for (let slot = 0; slot < n; slot++) {
        let back = 0;
        let price = extras - log(n);
        for (let k = slot - 1; k >= 0 && lead - back > interval(k) + spareS; k--) {
          back += interval(k);
          if (lead - back > 0) price += missedAt(k, event.onS - back);
        }
        here[slot] = logAdd(here[slot] ?? 0, price + logHit + kindFits(event, slot));
      }
    }
    for (let skipped = 0; skipped <= mostExtra && i - 1 - skipped >= 0; skipped++) {
      const from = i - 1 - skipped;
      const before = score[from];
      const was = events[from];
      if (!before || !was) continue;
      let extras = 0;
      for (let k = from + 1; k < i; k++) extras += extraOf(events[k] as Event);
      const passed = event.onS - was.onS;
      const hopeless = max(...before) - 30;
      for (let slot = 0; slot < n; slot++) {
        if ((before[slot] ?? 0) < hopeless) continue;
        let expected = 0;
        let variance = 0;
        let price = extras;
        for (let missed = 0; missed <= mostMissed; missed++) {
          const at = (slot + missed) % n;
          expected += interval(at);
          variance += (template.sigmaS[at] ?? 0) ** 2;
          const to = (slot + missed + 1) % n;
          const way = (before[slot] ?? 0) + price + logNormal(passed - expected, sqrt(variance)) + logHit + kindFits(event, to);
          here[to] = logAdd(here[to] ?? 0, way);
          if (expected > passed + spareS * 2) break;
          price += missedAt(to, was.onS + expected);
        }
      }
    }
    // Ends: after the last flash there was nothing more, to the end of the recording.
    const after = events.length - 1 - i;
    if (after <= mostExtra) {
      let extras = 0;
      for (let k = i + 1; k < events.length; k++) extras += extraOf(events[k] as Event);
      const trail = recorded.toS - event.onS;
      for (let slot = 0; slot < n; slot++) {
        let ahead = 0;
        let price = extras;
        for (let k = slot; k < n - 1; k++) {
          ahead += interval(k);
          if (ahead + spareS + (template.lengthS[k + 1] ?? 0) > trail) break;
          price += missedAt(k + 1, event.onS + ahead);
        }
        total = logAdd(total, (here[slot] ?? Number.NEGATIVE_INFINITY) + price);
      }
    }
  });
  return total;
}

/**
 * Log likelihood of the flashes as ones without rhythm, which make any count now and then: intervals spread log-normally, as widely as
 * they are, and never as narrowly as a set's processor spaces them.
 */
export function randomLikelihood(events: readonly Event[]): number {
  const logs = events.slice(1).map((event, i) => log(max(event.onS - (events[i]?.onS ?? 0), 0.02)));
  if (logs.length === 0) return 0;
  const mean = logs.reduce((a, b) => a + b, 0) / logs.length;
  const sigma = max(leastRandomSpread, sqrt(logs.reduce((sum, one) => sum + (one - mean) ** 2, 0) / logs.length));
  return logs.reduce((sum, one) => sum - 0.5 * ((one - mean) / sigma) ** 2 - log(sigma * sqrt(2 * Math.PI)) - one, 0);
}
