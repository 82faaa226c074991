/**
 * From flashes to a code: which gaps are pauses, which part groups, and how many flashes a group has.
 *
 * A code repeats: its flashes are the slots of a cycle, with an interval to each next one. A reading of a recording as a code is a way
 * through those slots, flash by flash, in which a slot may have been missed and a flash may have been none; each has its price. The sum
 * over all ways (a hidden Markov chain over slots, forward) is the likelihood of the code, and the odds between codes follow.
 */
import type { Pulse } from './trace.ts';
import type { LightColour } from './words.ts';

// Taken once: looked up millions of times, and slow to find where a test runs in a context of its own.
const { abs, exp, log, max, min, round, sqrt } = Math;

/** What kind of flashes these are: how well their times are known and how often one is missed or made up. */
export interface RhythmSource {
  /** Standard deviation of an interval between two flashes, seconds, that the source itself brings. */
  readonly jitterS: number;
  readonly missed: number;
  readonly extra: number;
  /** Whether the ends of flashes are known, and with them what is long and what is short. */
  readonly lengths: boolean;
}

export interface Stretch {
  readonly fromS: number;
  readonly toS: number;
}

export interface RhythmInput {
  readonly pulses: readonly Pulse[];
  readonly recorded: Stretch;
  readonly source: RhythmSource;
  /** Two kinds of flash where something else than length tells them apart (colour); a change of kind begins a group. */
  readonly kind?: (pulse: Pulse) => boolean | undefined;
  /** Log odds that nothing flashed in there; by default it can't be told. */
  readonly dark?: (fromS: number, toS: number) => number;
}

/** Flashes between two pauses, as they were seen: counts of its groups. `whole` where both its ends are certain. */
export interface Cycle {
  readonly groups: readonly number[];
  readonly whole: boolean;
  readonly fromS: number;
  readonly toS: number;
}

export interface Candidate {
  readonly groups: readonly number[];
  readonly odds: number;
}

export interface Rhythm {
  /** Best first, adding up to 1; empty where there is no pause to tell a count by. */
  readonly candidates: readonly Candidate[];
  readonly cycles: readonly Cycle[];
  /** Whole cycles in a row that have the best candidate's count. */
  readonly agreeing: number;
  /** Odds that there is no rhythm in them at all. */
  readonly atRandom: number;
  /** Seconds from flash to flash within a group, and of the pause between cycles. */
  readonly periodS: number;
  readonly pauseS: number | undefined;
  /** Spread of the time from cycle to cycle as a share of it, and the share of whole cycles that have the best candidate's count. */
  readonly unevenness: number;
  readonly agreement: number;
}

/** A pause is at least this many times a gap within a group. */
const gapRatio = 1.42;
/** Flashes called long last at least this many times the short ones. */
const longRatio = 1.75;
/** A count of one has no gap within to hold its pause against: its pause is this long, and this many times the flash. */
const lonePauseS = 1;
const lonePauseRatio = 2.1;
const mostGroups = 4;
/** Ways to split the flashes whose neighbours are looked at. */
const fewWays = 3;
const mostCount = 40;
/** Natural log: of a group more than needed, with a gap of its own to fit; and the share of a count that the model can't be trusted about (a set may do odd things). */
const groupPrice = 5.5;
const groupPriceOfTaps = 4;
const modelError = 0.004;
/** Natural log of the odds, before any flash is seen, that a light which flashes has no rhythm. */
const randomPrior = -2;
/** Of the logarithm of intervals. */
const leastRandomSpread = 0.35;

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length === 0
    ? Number.NaN
    : sorted.length % 2 === 1
      ? (sorted[middle] ?? 0)
      : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2;
};
/** Standard deviation by the median absolute deviation, 1.4826 for normal errors. */
const spread = (values: readonly number[], about: number): number => 1.4826 * median(values.map((value) => abs(value - about)));
const equal = (a: readonly number[], b: readonly number[]): boolean => a.length === b.length && a.every((n, i) => n === b[i]);

/** Where sorted values jump by more than the ratio and more than errors explain: the middles of the jumps, ascending. */
function jumps(values: readonly number[], errorS: number, leastS: number): number[] {
  const sorted = [...values].sort((a, b) => a - b);
  const found: number[] = [];
  for (let i = 1; i < sorted.length; i++) {
    const [a, b] = [sorted[i - 1] ?? 0, sorted[i] ?? 0];
    if (b / max(a, errorS) > gapRatio && b - a > leastS) found.push(sqrt(max(a, errorS) * b));
  }
  return found;
}

interface Event {
  readonly onS: number;
  readonly offS: number;
  readonly long: boolean | undefined;
  readonly logOdds: number;
}

/** Two lengths, where there are two: the threshold between them that leaves least spread within. Neither may be a handful of strays. */
function longThreshold(lengths: readonly number[], errorS: number): number | undefined {
  const logs = lengths.map((length) => log(max(length, errorS))).sort((a, b) => a - b);
  const n = logs.length;
  const total = logs.reduce((a, b) => a + b, 0);
  let behind = 0;
  let best: { i: number; between: number } | undefined;
  for (let i = 1; i < n; i++) {
    behind += logs[i - 1] ?? 0;
    if (min(i, n - i) < max(2, n / 12)) continue;
    const between = i * (n - i) * (behind / i - (total - behind) / (n - i)) ** 2;
    if (!best || between > best.between) best = { i, between };
  }
  if (!best) return undefined;
  const [short, long] = [median(logs.slice(0, best.i)), median(logs.slice(best.i))];
  const [last, first] = [logs[best.i - 1] ?? 0, logs[best.i] ?? 0];
  const clear = exp(first) - exp(last) > 2 * errorS && first - last > log(1.25);
  return clear && long - short > log(longRatio) ? exp((first + last) / 2) : undefined;
}

interface Split {
  readonly bursts: readonly (readonly Event[])[];
  readonly cycles: Cycle[];
  /** Gaps that a burst may hold. */
  readonly within: number;
  readonly part: number | undefined;
}

const gapOf = (a: Event, b: Event, lengths: boolean): number => (lengths ? b.onS - a.offS : b.onS - a.onS);

/** Bursts between gaps over `pause`, their groups parted by gaps over `part` or where long turns to short. */
function split(events: readonly Event[], pause: number, part: number | undefined, recorded: Stretch, lengths: boolean): Split {
  const bursts: Event[][] = [];
  let last: Event | undefined;
  for (const event of events) {
    if (!last || gapOf(last, event, lengths) > pause) bursts.push([]);
    bursts.at(-1)?.push(event);
    last = event;
  }
  const cycles = bursts.map((burst, index): Cycle => {
    const groups: number[] = [];
    burst.forEach((event, at) => {
      const before = burst[at - 1];
      const parted =
        before &&
        ((part !== undefined && gapOf(before, event, lengths) > part) ||
          (before.long !== undefined && event.long !== undefined && before.long !== event.long));
      if (!before || parted) groups.push(1);
      else groups[groups.length - 1] = (groups.at(-1) ?? 0) + 1;
    });
    const fromS = burst[0]?.onS ?? 0;
    const toS = burst.at(-1)?.offS ?? 0;
    return {
      groups,
      fromS,
      toS,
      whole:
        (index > 0 || fromS - recorded.fromS > pause) &&
        (index < bursts.length - 1 || recorded.toS - (lengths ? toS : (burst.at(-1)?.onS ?? 0)) > pause),
    };
  });
  return { bursts, cycles, within: pause, part };
}

/** A code as slots: from each to the next an interval, and how sure of it. The last leads over the pause to the first. */
interface Template {
  readonly groups: readonly number[];
  readonly intervalS: readonly number[];
  readonly sigmaS: readonly number[];
  readonly long: readonly (boolean | undefined)[];
  readonly lengthS: readonly number[];
}

interface Timing {
  readonly periodS: readonly number[];
  readonly periodSigmaS: number;
  readonly partS: number;
  readonly pauseS: number;
  readonly pauseSigmaS: number;
  readonly kinds: readonly (boolean | undefined)[];
  readonly lengths: readonly number[];
}

function templateOf(groups: readonly number[], timing: Timing): Template {
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
function timingOf(found: Split, groups: readonly number[], source: RhythmSource, fallbackPauseS: number): Timing {
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
function likelihood(template: Template, events: readonly Event[], input: RhythmInput): number {
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
  const longest = max(...template.intervalS.slice(0, n - 1), 0);
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
        // Dark for long: the slot before would have been seen, unless it is the pause.
        if (slot > 0 && lead < longest) price -= 0;
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
function randomLikelihood(events: readonly Event[]): number {
  const logs = events.slice(1).map((event, i) => log(max(event.onS - (events[i]?.onS ?? 0), 0.02)));
  if (logs.length === 0) return 0;
  const mean = logs.reduce((a, b) => a + b, 0) / logs.length;
  const sigma = max(leastRandomSpread, sqrt(logs.reduce((sum, one) => sum + (one - mean) ** 2, 0) / logs.length));
  return logs.reduce((sum, one) => sum - 0.5 * ((one - mean) / sigma) ** 2 - log(sigma * sqrt(2 * Math.PI)) - one, 0);
}

const neighbours = (groups: readonly number[]): number[][] =>
  groups.flatMap((count, index) =>
    [count - 1, count + 1]
      .filter((other) => other >= 1 && other <= mostCount)
      .map((other) => groups.map((one, at) => (at === index ? other : one))),
  );

/** What a split's cycles say, most often said first; whole ones weigh more. */
function tallied(cycles: readonly Cycle[]): number[][] {
  const votes = new Map<string, { groups: readonly number[]; votes: number }>();
  for (const { groups, whole } of cycles) {
    const key = groups.join('-');
    votes.set(key, { groups, votes: (votes.get(key)?.votes ?? 0) + (whole ? 1 : 0.3) });
  }
  return [...votes.values()].sort((a, b) => b.votes - a.votes || b.groups.length - a.groups.length).map(({ groups }) => [...groups]);
}

/** Gaps between parts last at least this many times those within, on the mean of the cycles. */
const partRatio = 1.25;

/**
 * Groups that one cycle alone doesn't show: over all cycles of the same number of flashes the mean interval in each place is known better
 * than any one of them. Undefined where the places don't fall into two kinds.
 */
function partedInPlace(found: Split, count: number): { found: Split; groups: number[] } | undefined {
  const alike = found.bursts.filter((burst) => burst.length === count);
  if (count < 3 || alike.length < 2) return undefined;
  const means = Array.from({ length: count - 1 }, (_, place) =>
    median(alike.map((burst) => (burst[place + 1]?.onS ?? 0) - (burst[place]?.onS ?? 0))),
  );
  const sorted = [...means].sort((a, b) => a - b);
  let best: { at: number; jump: number } | undefined;
  for (let i = 1; i < sorted.length; i++) {
    const jump = (sorted[i] ?? 0) / (sorted[i - 1] ?? 1);
    if (sorted.length - i < mostGroups && (!best || jump > best.jump)) best = { at: ((sorted[i] ?? 0) + (sorted[i - 1] ?? 0)) / 2, jump };
  }
  if (!best || best.jump < partRatio) return undefined;
  const { at } = best;
  const groups = [1];
  for (const mean of means) {
    if (mean > at) groups.push(1);
    else groups[groups.length - 1] = (groups.at(-1) ?? 0) + 1;
  }
  const cycles = found.cycles.map((cycle, index) => (found.bursts[index]?.length === count ? { ...cycle, groups } : cycle));
  return { groups, found: { ...found, cycles } };
}

/** A gap in the frames can join two flashes: one as long as two and the gap between is two. */
function parted(pulses: readonly Pulse[], input: RhythmInput): Pulse[] {
  if (!input.source.lengths || pulses.length < 4) return [...pulses];
  const length = median(pulses.map((one) => one.offS - one.onS));
  const gaps = pulses.slice(1).map((one, i) => one.onS - (pulses[i]?.offS ?? 0));
  const short = min(...gaps.filter((gap) => gap > 0));
  const gap = median(gaps.filter((one) => one < 1.6 * short));
  const near = (value: number, to: number): boolean => abs(value - to) < max(0.25 * length, 1.5 * input.source.jitterS * 2);
  const odd = pulses.filter((one) => !near(one.offS - one.onS, length));
  // More than a few odd ones are long flashes, and mean something.
  if (odd.length > max(1, pulses.length / 8)) return [...pulses];
  return pulses.flatMap((one): Pulse[] => {
    const times = round((one.offS - one.onS + gap) / (length + gap));
    if (times < 2 || times > 3 || !near(one.offS - one.onS, times * length + (times - 1) * gap)) return [one];
    return Array.from({ length: times }, (_, k) => {
      const onS = one.onS + k * (length + gap);
      return { ...one, onS, offS: onS + length, logOdds: 1 };
    });
  });
}

/** The code in flashes, with odds over what else it may have been. */
export function rhythmOf(input: RhythmInput): Rhythm {
  const { source, recorded } = input;
  const pulses = parted(input.pulses, input);
  const nothing: Rhythm = {
    candidates: [],
    cycles: [],
    agreeing: 0,
    atRandom: 0,
    periodS: Number.NaN,
    pauseS: undefined,
    unevenness: 0,
    agreement: 0,
  };
  if (pulses.length === 0) return nothing;
  // What began before the recording or ends after it has no length.
  const cut = ({ onS, offS }: Pulse): boolean => onS - recorded.fromS < source.jitterS || recorded.toS - offS < source.jitterS;
  const lengths = pulses.filter((one) => !cut(one)).map((one) => one.offS - one.onS);
  const threshold = source.lengths ? longThreshold(lengths, source.jitterS) : undefined;
  const events = pulses.map((one): Event => ({
    onS: one.onS,
    offS: one.offS,
    logOdds: one.logOdds,
    long: input.kind ? input.kind(one) : threshold === undefined || cut(one) ? undefined : one.offS - one.onS >= threshold,
  }));
  const gaps = events.slice(1).map((event, i) => gapOf(events[i] as Event, event, source.lengths));
  const error = source.jitterS * (source.lengths ? 1 : 1.6);
  // Frames round a gap to whole ones, so that one value becomes two, a frame and a half apart; a hand spreads it.
  const steps = jumps(gaps, error, (source.lengths ? 3.6 : 1.4) * error);
  const shortest = gaps.length > 0 ? median(gaps.filter((gap) => gap <= (steps[0] ?? Infinity))) : Number.NaN;
  const typicalLength = median(events.map((one) => one.offS - one.onS));
  const blurredPauses = source.lengths || !Number.isFinite(shortest) ? [] : [1.5, 1.75, 2.1].map((times) => times * shortest);
  const thresholds = [...steps.slice(-4), ...blurredPauses.filter((one) => one < max(...gaps))].sort((a, b) => a - b);
  const lone = gaps.length > 0 && min(...gaps) > max(lonePauseS, source.lengths ? lonePauseRatio * typicalLength : 1.25);
  // One burst and nothing after it: the end of the recording is its pause, if it is long enough.
  const trailing = recorded.toS - (source.lengths ? (events.at(-1)?.offS ?? 0) : (events.at(-1)?.onS ?? 0));
  // A count of one goes on and on; where the flashes come to an end they were a run.
  if (lone && trailing < 1.6 * max(...gaps)) thresholds.unshift(min(...gaps) * 0.7);
  const onceOver = max(1.7 * (Number.isFinite(shortest) ? shortest : 0.5), 0.8);
  if (trailing > max(onceOver, max(0, ...gaps) * 1.2)) thresholds.push(max(onceOver, max(0, ...gaps) * 1.2));

  // Jitter blurs the step from a gap within a group to one between two: tried where it may be, the likelihood decides.
  const blurred = Number.isFinite(shortest) ? (source.lengths ? [1.5, 1.8] : [1.3, 1.5, 1.75]).map((times) => times * shortest) : [];
  const parts = (index: number, pause: number): number[] =>
    [...new Set([...thresholds.slice(0, index), ...blurred])].filter((one) => one < pause / 1.2);
  const price = source.lengths ? groupPrice : groupPriceOfTaps;
  const scored = new Map<string, { groups: readonly number[]; score: number; found: Split; timing: Timing }>();
  const score = (groups: readonly number[], found: Split): number => {
    const timing = timingOf(found, groups, source, max(found.within * 1.3, trailing));
    const value = likelihood(templateOf(groups, timing), events, input) - price * (groups.length - 1);
    const key = groups.join('-');
    const known = scored.get(key);
    if (!Number.isNaN(value) && (!known || value > known.score)) scored.set(key, { groups, score: value, found, timing });
    return value;
  };
  // First what each way to split them says itself; then, for the best few, what else each may be.
  const ways: { found: Split; seen: number[][]; score: number }[] = [];
  const tried = new Set<string>();
  for (const [index, pause] of thresholds.entries()) {
    for (const part of [undefined, ...parts(index, pause)]) {
      const found = split(events, pause, part, recorded, source.lengths);
      const same = found.cycles.map(({ groups, whole }) => `${groups.join('-')}${whole ? '' : '?'}`).join(' ');
      if (tried.has(same)) continue;
      tried.add(same);
      const seen = tallied(found.cycles).filter((groups) => groups.length <= mostGroups && groups.every((count) => count <= mostCount));
      if (seen[0]) ways.push({ found, seen, score: score(seen[0], found) });
      const parted = part === undefined && seen[0]?.length === 1 ? partedInPlace(found, seen[0][0] ?? 0) : undefined;
      if (parted) ways.push({ found: parted.found, seen: [parted.groups], score: score(parted.groups, parted.found) });
    }
  }
  for (const { found, seen } of ways.sort((a, b) => b.score - a.score).slice(0, fewWays)) {
    const others = new Map([...neighbours(seen[0] ?? []), ...seen.slice(1, 4)].map((groups) => [groups.join('-'), groups]));
    for (const groups of others.values()) score(groups, found);
  }
  const atRandom = randomLikelihood(events) + randomPrior;
  const ranked = [...scored.values()].sort((a, b) => b.score - a.score || a.groups.length - b.groups.length);
  const best = ranked[0];
  if (!best) return { ...nothing, periodS: median(events.slice(1).map((event, i) => event.onS - (events[i]?.onS ?? 0))) };
  const weights = ranked.map(({ score }) => exp(max(-40, score - best.score)));
  const random = events.length > 2 ? exp(min(40, max(-40, atRandom - best.score))) : 0;
  const sum = weights.reduce((a, b) => a + b, 0) + random;
  const near = neighbours(best.groups);
  const candidates = ranked.map(({ groups }, index) => ({
    groups,
    odds: ((weights[index] ?? 0) / sum) * (1 - modelError) + (near.some((one) => equal(one, groups)) ? modelError / near.length : 0),
  }));
  const { cycles } = best.found;
  const whole = cycles.filter((one) => one.whole);
  const turns = cycles.slice(1).map((one, i) => one.fromS - (cycles[i]?.fromS ?? 0));
  let agreeing = 0;
  let run = 0;
  for (const cycle of cycles) {
    run = cycle.whole && equal(cycle.groups, best.groups) ? run + 1 : 0;
    agreeing = max(agreeing, run);
  }
  return {
    candidates: candidates.sort((a, b) => b.odds - a.odds).filter(({ odds }) => odds >= 0.0005),
    cycles,
    agreeing,
    atRandom: random / sum,
    periodS: best.timing.periodS[0] ?? Number.NaN,
    pauseS: cycles.length > 1 ? best.timing.pauseS : undefined,
    unevenness: turns.length > 1 ? spread(turns, median(turns)) / median(turns) : 0,
    agreement: whole.filter(({ groups }) => equal(groups, best.groups)).length / max(1, whole.length),
  };
}

/** The colour of most of the flashes, where they have one. */
export function colourOf(pulses: readonly Pulse[]): LightColour | undefined {
  const counts = new Map<LightColour, number>();
  for (const { colour } of pulses) if (colour !== undefined) counts.set(colour, (counts.get(colour) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))[0]?.[0];
}
