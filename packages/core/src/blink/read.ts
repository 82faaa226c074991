/** A light's recording, or taps in time with it, read: the code or why there is none, what else it may be, and what would settle it. */
import { darkness, pulsesOf } from './flashes.ts';
import { colourCourse, litCourse, type LitCourse } from './light.ts';
import type { Cycle } from './events.ts';
import { colourOf, rhythmOf, type Candidate, type Rhythm } from './rhythm.ts';
import { traceProblem, type LightTrace, type Pulse, type Tap, type TraceProblem } from './trace.ts';
import type { BlinkAfter, LightColour } from './words.ts';

/** What the light did, where that isn't a code. */
export const blinkKinds = ['code', 'steady', 'single-flash', 'no-pause', 'no-pattern', 'start-attempts'] as const;
/** What kind of light it was. */
export type BlinkKind = (typeof blinkKinds)[number];

/** What to do for a surer reading. */
export const blinkAdvice = [
  'read',
  'one-more-cycle',
  'watch-longer',
  'count-again',
  'nothing-blinks',
  'too-faint',
  'too-slow-a-camera',
  'maybe-start-attempts',
] as const;
/** What would settle the reading. */
export type BlinkAdvice = (typeof blinkAdvice)[number];

/** What a recording or a tapping was read as. */
export interface BlinkResult {
  readonly kind: BlinkKind;
  readonly reading?: {
    readonly groups: readonly number[];
    readonly colour?: LightColour;
    readonly after?: BlinkAfter;
    readonly probability: number;
    /** Probability of at least .95, and two equal cycles in a row. */
    readonly sure: boolean;
  };
  /** What else it may have been, likeliest first. */
  readonly alternatives: readonly Candidate[];
  /** Whole cycles in a row that agree. */
  readonly cycles: number;
  readonly advice: BlinkAdvice;
  readonly pulses: readonly Pulse[];
  readonly seen: readonly Cycle[];
  /** Seconds from flash to flash, and of the pause. */
  readonly periodS?: number;
  readonly pauseS?: number;
  /** Lit and dark as told apart, where a trace was read. */
  readonly course?: LitCourse;
}

/** A recording read, or why it can’t be. */
export type TraceReading = BlinkResult | { readonly refused: TraceProblem };

/** Probability from which a count is called sure, and equal cycles in a row it takes: common practice, no source, for the two. */
export const sureProbability = 0.95;
/** Equal cycles in a row before a code counts as read (common practice, no source). */
export const sureCycles = 2;
/** Of the whole cycles seen, so many must have the count; and one of one or two flashes must come this evenly. Values of ours. */
const leastAgreement = 0.6;
const slightUnevenness = 0.12;
const slightAgreement = 0.95;
/** Log likelihood a sample must gain by two states for there to be a blinking light at all, and all samples together. */
const leastGain = 0.005;
const leastGainInAll = 14;
/** A flash as long as this is no flash: the light stands, seconds; and times the usual length. */
const standsS = 1.6;
const standsRatio = 3.2;
/** Nobody makes a code so long; common practice, no source. */
const longRun = 15;

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? Number.NaN;

/** What is usual among the shorter: a standing light or a pause is surer than any flash. */
const lowerUsual = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) * 0.35)] ?? 0;

/** Long stretches at the ends are a light that stands before or after. */
function standing(pulses: readonly Pulse[]): { flashes: Pulse[]; before: Pulse | undefined; after: Pulse | undefined } {
  const usual = median(pulses.map((one) => one.offS - one.onS));
  const stands = (one: Pulse | undefined): boolean =>
    one !== undefined && one.offS - one.onS > standsS && (pulses.length < 3 || one.offS - one.onS > standsRatio * usual);
  const flashes = [...pulses];
  const before = flashes.length > 1 && stands(flashes[0]) ? flashes.shift() : undefined;
  const after = flashes.length > 1 && stands(flashes.at(-1)) ? flashes.pop() : undefined;
  return { flashes, before, after };
}

/** Where the long stretches between flashes are lit, the light winks: what counts is the dark. */
function winks(pulses: readonly Pulse[]): boolean {
  const lit = pulses.slice(1, -1).map((one) => one.offS - one.onS);
  const dark = pulses.slice(1).map((one, i) => one.onS - (pulses[i]?.offS ?? 0));
  if (lit.length < 3 || dark.length < 3) return false;
  const shortDark = median(dark);
  const longest = (values: readonly number[]): number => [...values].sort((a, b) => b - a)[1] ?? 0;
  return longest(lit) > 2.2 * median(lit) && longest(lit) > 2.2 * shortDark && Math.max(...dark) < 1.5 * shortDark;
}

function adviceFor(rhythm: Rhythm, reading: BlinkResult['reading'], flashes: number): BlinkAdvice {
  if (!reading) return flashes < 2 ? 'watch-longer' : 'count-again';
  if (reading.sure) return 'read';
  const { groups } = reading;
  if (reading.after !== 'repeats' && groups.length === 1 && (groups[0] ?? 0) >= longRun) return 'maybe-start-attempts';
  if (reading.probability < 0.6) return 'count-again';
  return 'one-more-cycle';
}

interface Told {
  readonly rhythm: Rhythm;
  readonly pulses: readonly Pulse[];
  readonly endsLit: boolean;
  readonly recordedToS: number;
  readonly recordedFromS: number;
  readonly course?: LitCourse;
}

function resultOf({ rhythm, pulses, endsLit, recordedFromS, recordedToS, course }: Told): BlinkResult {
  const common = { pulses, seen: rhythm.cycles, ...(course ? { course } : {}) };
  const best = rhythm.candidates[0];
  const last = pulses.at(-1);
  const trailing = last ? recordedToS - last.offS : 0;
  if (!best) {
    if (pulses.length === 1) {
      const dark = trailing > 3 && (pulses[0]?.onS ?? 0) - recordedFromS >= 0;
      return { ...common, kind: dark ? 'single-flash' : 'no-pattern', alternatives: [], cycles: 0, advice: 'watch-longer' };
    }
    return { ...common, kind: 'no-pause', alternatives: [], cycles: 0, advice: 'watch-longer' };
  }
  if (rhythm.atRandom > 0.5) {
    return { ...common, kind: 'no-pattern', alternatives: rhythm.candidates.slice(0, 5), cycles: 0, advice: 'count-again' };
  }
  const repeats = rhythm.cycles.length > 1;
  const pause = rhythm.pauseS ?? Math.max(1.5, 3 * rhythm.periodS);
  const after: BlinkAfter | undefined = endsLit
    ? 'steady'
    : repeats && trailing < 2.5 * pause
      ? 'repeats'
      : trailing > 2 * pause || trailing > 5
        ? 'dark'
        : repeats
          ? 'repeats'
          : undefined;
  const colour = colourOf(pulses);
  // One flash and then nothing is told as what it is; more than one cycle makes it a count of one.
  if (pulses.length === 1 && after === 'dark') {
    return { ...common, kind: 'single-flash', alternatives: [], cycles: 0, advice: 'watch-longer' };
  }
  // One or two flashes again and again are what flicker and noise look like, too: a set keeps time, they don't.
  const slight = best.groups.length === 1 && (best.groups[0] ?? 0) <= 2;
  const steadyEnough =
    !slight || (rhythm.agreeing >= sureCycles + 1 && rhythm.unevenness <= slightUnevenness && rhythm.agreement >= slightAgreement);
  const sure = best.probability >= sureProbability && rhythm.agreeing >= sureCycles && rhythm.agreement >= leastAgreement && steadyEnough;
  const reading = { groups: best.groups, ...(colour ? { colour } : {}), ...(after ? { after } : {}), probability: best.probability, sure };
  const long = !repeats && after === 'dark' && best.groups.length === 1 && (best.groups[0] ?? 0) >= longRun;
  return {
    ...common,
    kind: long ? 'start-attempts' : 'code',
    reading,
    alternatives: rhythm.candidates.slice(1, 6),
    cycles: rhythm.agreeing,
    advice: long ? 'maybe-start-attempts' : adviceFor(rhythm, reading, pulses.length),
    periodS: rhythm.periodS,
    ...(rhythm.pauseS === undefined ? {} : { pauseS: rhythm.pauseS }),
  };
}

/** Colours that are in the trace often enough, and for long enough at a time, to be a light and not a slip. */
function coloursOf(trace: LightTrace): LightColour[] {
  const seen = new Map<LightColour, { samples: number; runs: number }>();
  trace.colours?.forEach((colour, i, all) => {
    if (colour === undefined) return;
    const { samples, runs } = seen.get(colour) ?? { samples: 0, runs: 0 };
    seen.set(colour, { samples: samples + 1, runs: runs + (all[i - 1] === colour ? 0 : 1) });
  });
  const told = [...seen.values()].reduce((sum, { samples }) => sum + samples, 0);
  return [...seen]
    .filter(([, { samples, runs }]) => samples >= Math.max(2, 0.03 * told) && samples >= 1.5 * runs)
    .map(([colour]) => colour);
}

/** Of the usual certainty, a flash or a gap with less than this share is a flaw in the light's course and none of its own. */
const flawShare = 0.22;

/** Flashes without splinters: gaps too doubtful to be one are closed, flashes too doubtful left out; those cut off by an end may be weak. */
function withoutFlaws(pulses: readonly Pulse[], course: LitCourse): Pulse[] {
  const dark = darkness(course);
  const gaps = pulses.slice(1).map((one, i) => dark(pulses[i]?.offS ?? 0, one.onS));
  const usualGap = lowerUsual(gaps);
  const joined: Pulse[] = [];
  pulses.forEach((one, i) => {
    const before = joined.at(-1);
    if (before && (gaps[i - 1] ?? 0) < flawShare * usualGap)
      joined[joined.length - 1] = { ...before, offS: one.offS, logOdds: before.logOdds + one.logOdds };
    else joined.push(one);
  });
  const usual = lowerUsual(joined.map((one) => one.logOdds));
  return joined.filter(
    (one, i) =>
      one.logOdds > Math.max(1.2, flawShare * usual) ||
      ((i === 0 || i === joined.length - 1) && one.logOdds > 2 && one.offS - one.onS > 0 && touches(one, course)),
  );
}
const touches = (one: Pulse, { timesS }: LitCourse): boolean => one.onS <= (timesS[1] ?? 0) || one.offS >= (timesS.at(-2) ?? 0);

function readCourse(
  trace: LightTrace,
  course: LitCourse & { frameS: number },
  colour?: LightColour,
  kind?: (pulse: Pulse) => boolean | undefined,
): BlinkResult {
  const fromS = trace.timesS[0] ?? 0;
  const toS = trace.timesS.at(-1) ?? 0;
  const n = trace.timesS.length;
  const steady: BlinkResult = { kind: 'steady', alternatives: [], cycles: 0, advice: 'nothing-blinks', pulses: [], seen: [], course };
  if (course.contrast === 0 || course.gain < leastGain || course.gain * n < leastGainInAll) return steady;
  let pulses = withoutFlaws(pulsesOf(course), course);
  if (colour !== undefined) pulses = pulses.map((one) => ({ ...one, colour }));
  if (pulses.length === 0) return steady;
  let read: LitCourse = course;
  if (winks(pulses)) {
    read = { ...course, lit: course.lit.map((one) => 1 - one), evidence: course.evidence.map((one) => -one) };
    pulses = withoutFlaws(pulsesOf(read), read);
  }
  const { flashes, before, after } = standing(pulses);
  const source = { jitterS: Math.max(course.frameS * 0.45, 0.008), missed: 0.004, extra: 0.004, lengths: true };
  const recorded = { fromS: before?.offS ?? fromS, toS: after?.onS ?? toS };
  const rhythm = rhythmOf({ pulses: flashes, recorded, source, dark: darkness(read), ...(kind ? { kind } : {}) });
  const result = resultOf({
    rhythm,
    pulses: flashes,
    endsLit: after !== undefined,
    recordedFromS: recorded.fromS,
    recordedToS: toS,
    course,
  });
  // Two samples to a flash and two to a gap are the least that can be counted (Nyquist, 1928; Shannon, 1949).
  const shortest = Math.min(median(flashes.map((one) => one.offS - one.onS)), rhythm.periodS / 2);
  const slow = result.reading && !result.reading.sure && shortest < 1.5 * course.frameS;
  const faint = result.reading && !result.reading.sure && course.contrast < 1.5 * course.noise;
  return slow ? { ...result, advice: 'too-slow-a-camera' } : faint ? { ...result, advice: 'too-faint' } : result;
}

/** Two colours with dark between them are one code in two colours; a standby light that gives way to another leaves none. */
function takeTurns({ colours }: LightTrace, lights: readonly LightColour[]): boolean {
  const all = colours?.length ?? 0;
  const share = (light: LightColour | undefined): number => (colours?.filter((one) => one === light).length ?? 0) / Math.max(1, all);
  return share(undefined) >= 0.2 && lights.every((light) => share(light) <= 0.5);
}

/** Reads a recording. Where several colours shine, each is read as a light of its own, and the one that blinks counts. */
export function readTrace(trace: LightTrace): TraceReading {
  const problem = traceProblem(trace);
  if (problem) return { refused: problem };
  const colours = coloursOf(trace);
  const plain = readCourse(trace, litCourse(trace));
  if (colours.length === 0) return plain;
  // A standby light that goes out while another blinks shines for the most part: the other is the one that speaks.
  const share = (colour: LightColour): number => trace.colours?.filter((one) => one === colour).length ?? 0;
  const [colour] = [...colours].sort((a, b) => share(a) - share(b) || (a < b ? -1 : 1));
  if (colour === undefined) return plain;
  const [one, other] = colours;
  if (one !== undefined && other !== undefined && takeTurns(trace, colours)) {
    const { reading, ...rest } = readCourse(trace, litCourse(trace), undefined, (pulse) =>
      pulse.colour === undefined ? undefined : pulse.colour === one,
    );
    // Of two colours the code has none of its own.
    if (reading) {
      const { groups, after, probability, sure } = reading;
      return { ...rest, reading: { groups, ...(after ? { after } : {}), probability, sure } };
    }
  }
  const byColour = readCourse(trace, colourCourse(trace, colour), colour);
  const tries =
    colours.length > 1 ? [byColour.reading ? byColour : plain] : [byColour, readCourse(trace, litCourse(trace, colour), colour), plain];
  const worth = ({ kind, reading, cycles }: BlinkResult): number =>
    reading ? 10 + Math.min(cycles, 3) + reading.probability : kind === 'steady' ? 0 : 1;
  const best = tries.reduce((a, b) => (worth(b) > worth(a) ? b : a));
  if (!best.reading) return best;
  // Level and colour are two witnesses: where both tell a code and not the same one, nothing is sure.
  const { groups, sure } = best.reading;
  const agreed = tries.every(({ reading }) => !reading || reading.groups.join() === groups.join());
  const advice = sure && !agreed ? 'count-again' : best.advice;
  return { ...best, advice, reading: { ...best.reading, colour, sure: sure && agreed } };
}

/** A hand in time with a light: how far a tap is off, seconds, and how often one is missed or doubled. Values of ours. */
const tapSource = { jitterS: 0.06, missed: 0.025, extra: 0.01 };
/** Two taps this close are one that bounced, seconds. */
const bounceS = 0.09;

/** Reads taps; `untilS` is when the person stopped watching. */
export function readTaps(taps: readonly Tap[], untilS?: number): BlinkResult {
  const inOrder = [...taps].sort((a, b) => a.atS - b.atS);
  const kept: Tap[] = [];
  for (const tap of inOrder) if (tap.atS - (kept.at(-1)?.atS ?? Number.NEGATIVE_INFINITY) > bounceS) kept.push(tap);
  const pulses = kept.map((tap): Pulse => ({ onS: tap.atS, offS: tap.atS, logOdds: Number.NaN }));
  const last = kept.at(-1)?.atS ?? 0;
  const toS = untilS ?? last;
  // Nobody taps before the light does: what came before the first tap was waiting.
  const fromS = (kept[0]?.atS ?? 0) - 60;
  if (pulses.length === 0) return { kind: 'steady', alternatives: [], cycles: 0, advice: 'nothing-blinks', pulses, seen: [] };
  const rhythm = rhythmOf({ pulses, recorded: { fromS, toS }, source: { ...tapSource, lengths: false } });
  return resultOf({ rhythm, pulses, endsLit: false, recordedFromS: fromS, recordedToS: toS });
}
