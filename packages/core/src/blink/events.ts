/** Flashes in time: pauses between cycles, groups within them, long and short; what a flaw in the recording joined. */
import { median } from './statistics.ts';
import type { Pulse } from './trace.ts';

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

/** A stretch of a recording, seconds. */
export interface Stretch {
  readonly fromS: number;
  readonly toS: number;
}

/** What a rhythm is looked for in. Times in seconds. */
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

/** A code has no more groups than this (value of ours). */
export const mostGroups = 4;
/** A pause is at least this many times a gap within a group. */
const gapRatio = 1.42;
/** Flashes called long last at least this many times the short ones. */
const longRatio = 1.75;
/** Where sorted values jump by more than the ratio and more than errors explain: the middles of the jumps, ascending. */
export function jumps(values: readonly number[], errorS: number, leastS: number): number[] {
  const sorted = [...values].sort((a, b) => a - b);
  const found: number[] = [];
  for (let i = 1; i < sorted.length; i++) {
    const [a, b] = [sorted[i - 1] ?? 0, sorted[i] ?? 0];
    if (b / max(a, errorS) > gapRatio && b - a > leastS) found.push(sqrt(max(a, errorS) * b));
  }
  return found;
}

/** A flash on its way to a code; `long` where flashes are of two kinds. */
export interface Event {
  readonly onS: number;
  readonly offS: number;
  readonly long: boolean | undefined;
  readonly logOdds: number;
}

/** Two lengths, where there are two: the threshold between them that leaves least spread within. Neither may be a handful of strays. */
export function longThreshold(lengths: readonly number[], errorS: number): number | undefined {
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

/** One way to part flashes into cycles. */
export interface Split {
  readonly bursts: readonly (readonly Event[])[];
  readonly cycles: Cycle[];
  /** Gaps that a burst may hold. */
  readonly within: number;
  readonly part: number | undefined;
}

/** Seconds between two flashes: dark time where their lengths are known, otherwise from onset to onset. */
export const gapOf = (a: Event, b: Event, lengths: boolean): number => (lengths ? b.onS - a.offS : b.onS - a.onS);

/** Bursts between gaps over `pause`, their groups parted by gaps over `part` or where long turns to short. */
export function split(events: readonly Event[], pause: number, part: number | undefined, recorded: Stretch, lengths: boolean): Split {
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

/** What a split's cycles say, most often said first; whole ones weigh more. */
export function tallied(cycles: readonly Cycle[]): number[][] {
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
export function partedInPlace(found: Split, count: number): { found: Split; groups: number[] } | undefined {
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
export function parted(pulses: readonly Pulse[], input: RhythmInput): Pulse[] {
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
