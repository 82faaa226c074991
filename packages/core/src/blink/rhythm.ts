/**
 * From flashes to a code: which gaps are pauses, which part groups, and how many flashes a group has.
 *
 * A code repeats: its flashes are the slots of a cycle, with an interval to each next one. A reading of a recording as a code is a way
 * through those slots, flash by flash, in which a slot may have been missed and a flash may have been none; each has its price. The sum
 * over all ways (a hidden Markov chain over slots, forward) is the likelihood of the code, and the probabilities between codes follow.
 */
import {
  gapOf,
  jumps,
  longThreshold,
  mostGroups,
  parted,
  partedInPlace,
  split,
  tallied,
  type Cycle,
  type Event,
  type RhythmInput,
  type Split,
} from './events.ts';
import { likelihood, randomLikelihood, templateOf, timingOf, type Timing } from './slots.ts';
import { median, sameCounts, spread } from './statistics.ts';
import type { Pulse } from './trace.ts';
import type { LightColour } from './words.ts';

// Taken once: looked up millions of times, and slow to find where a test runs in a context of its own.
const { exp, max, min } = Math;

/** A count that the flashes may be, groups in order, and its probability. */
export interface Candidate {
  readonly groups: readonly number[];
  readonly probability: number;
}

/** How the flashes follow each other, and the counts that go with it. */
export interface Rhythm {
  /** Best first, adding up to 1; empty where there is no pause to tell a count by. */
  readonly candidates: readonly Candidate[];
  readonly cycles: readonly Cycle[];
  /** Whole cycles in a row that have the best candidate's count. */
  readonly agreeing: number;
  /** Probability that there is no rhythm in them at all. */
  readonly atRandom: number;
  /** Seconds from flash to flash within a group, and of the pause between cycles. */
  readonly periodS: number;
  readonly pauseS: number | undefined;
  /** Spread of the time from cycle to cycle as a share of it, and the share of whole cycles that have the best candidate's count. */
  readonly unevenness: number;
  readonly agreement: number;
}
/** A count of one has no gap within to hold its pause against: its pause is this long, and this many times the flash. */
const lonePauseS = 1;
const lonePauseRatio = 2.1;
/** Ways to split the flashes whose neighbours are looked at. */
const fewWays = 3;
const mostCount = 40;
/** Natural log: of a group more than needed, with a gap of its own to fit; and the share of a count that the model can't be trusted about (a set may do odd things). */
const groupPrice = 5.5;
const groupPriceOfTaps = 4;
const modelError = 0.004;
/** Natural log of the odds, before any flash is seen, that a light which flashes has no rhythm. */
const randomPrior = -2;

const neighbours = (groups: readonly number[]): number[][] =>
  groups.flatMap((count, index) =>
    [count - 1, count + 1]
      .filter((other) => other >= 1 && other <= mostCount)
      .map((other) => groups.map((one, at) => (at === index ? other : one))),
  );

/** The code in flashes, with probabilities over what else it may have been. */
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
    probability:
      ((weights[index] ?? 0) / sum) * (1 - modelError) + (near.some((one) => sameCounts(one, groups)) ? modelError / near.length : 0),
  }));
  const { cycles } = best.found;
  const whole = cycles.filter((one) => one.whole);
  const turns = cycles.slice(1).map((one, i) => one.fromS - (cycles[i]?.fromS ?? 0));
  let agreeing = 0;
  let run = 0;
  for (const cycle of cycles) {
    run = cycle.whole && sameCounts(cycle.groups, best.groups) ? run + 1 : 0;
    agreeing = max(agreeing, run);
  }
  return {
    candidates: candidates.sort((a, b) => b.probability - a.probability).filter(({ probability }) => probability >= 0.0005),
    cycles,
    agreeing,
    atRandom: random / sum,
    periodS: best.timing.periodS[0] ?? Number.NaN,
    pauseS: cycles.length > 1 ? best.timing.pauseS : undefined,
    unevenness: turns.length > 1 ? spread(turns, median(turns)) / median(turns) : 0,
    agreement: whole.filter(({ groups }) => sameCounts(groups, best.groups)).length / max(1, whole.length),
  };
}

/** The colour of most of the flashes, where they have one. */
export function colourOf(pulses: readonly Pulse[]): LightColour | undefined {
  const counts = new Map<LightColour, number>();
  for (const { colour } of pulses) if (colour !== undefined) counts.set(colour, (counts.get(colour) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))[0]?.[0];
}
