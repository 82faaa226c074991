/**
 * A number read on the bench, and the outcome it stands for. It is held against the family's rail, else against what is printed on the
 * board; what is merely usual decides nothing but "nothing there", unless it holds for nearly every set.
 */
import {
  activeLevel,
  asksAt,
  type ActiveLevel,
  type CompiledPack,
  type Family,
  type Seen,
  type TestDefinition,
} from '../knowledge/index.ts';

/** How it is known what belongs at a point. */
export const expectedSources = ['board', 'family', 'printed', 'usual', 'at-least', 'unknown'] as const;
/** One of `expectedSources`. */
export type ExpectedSource = (typeof expectedSources)[number];

/** What belongs at a point. */
export interface Expected {
  /** Volts; undefined where nothing is known but that it may be anything. */
  readonly volts: number | undefined;
  readonly source: ExpectedSource;
  /** Name of the family's rail, and its tolerance in percent. */
  readonly rail?: string;
  readonly tolerancePercent?: number;
  /** What a good set reads there to chassis, unplugged, Ω; from the family only. */
  readonly ohms?: number;
  /** Of a line that commands: at which level it asks; left out: not known. */
  readonly active?: ActiveLevel;
}

/** How a voltage behaves. */
export const behaviours = ['steady', 'pulsing', 'trips'] as const;
/** One of `behaviours`. */
export type Behaviour = (typeof behaviours)[number];

/** A reading as typed; `value` in volts or ohms. */
export interface Typed {
  readonly value: number;
  /** Left out: as the test measures. */
  readonly unit?: 'volts' | 'ohms' | undefined;
  readonly behaves?: Behaviour | undefined;
}

/** Below this nothing is there, whatever belongs there, volts (common practice, no source). */
export const nothingThere = 0.5;

/** A wire that should swing and reads at least this share of its usual value has moved (value of ours). */
const swungShare = 0.6;

/** A step of a test that reads the meter. */
export type Measurement = Extract<TestDefinition['do'][number], { measure: unknown }>;

/** What a test reads on the meter, in order; empty for one that reads none. */
export const measurementsOf = (test: TestDefinition): readonly Measurement[] =>
  test.do.flatMap((step) => ('measure' in step ? [step] : []));

/** The measurement that a test's answer is told by; undefined for tests that read no meter, or more than once: one number doesn't answer those. */
export function measuredBy(test: TestDefinition): Measurement | undefined {
  const [only, ...more] = measurementsOf(test);
  return more.length > 0 ? undefined : only;
}

/** What the shop’s own document of this very board says of a point. */
export interface OnBoard {
  readonly volts?: number | undefined;
  /** What a good one reads there to chassis, unplugged, Ω. */
  readonly ohms?: number | undefined;
}

/** What belongs at a point, and how that is known. `printed`: volts printed on the board, or that nothing is. */
export function expectedAt(
  point: string,
  layoutId: string,
  compiled: CompiledPack,
  family: Family | undefined,
  printed?: number | 'nothing',
  board: OnBoard = {},
): Expected {
  const level = activeLevel(point, family);
  const active = level === 'unknown' ? {} : { active: level };
  const rail = family?.rails.find((one) => one.point === point);
  const ownOhms = board.ohms === undefined ? {} : { ohms: board.ohms };
  if (board.volts !== undefined) {
    const ohms = board.ohms ?? rail?.ohms;
    return { volts: board.volts, source: 'board', ...(ohms === undefined ? {} : { ohms }), ...active };
  }
  if (rail) {
    const { name, nominalVolts, tolerancePercent, ohms } = rail;
    return {
      volts: nominalVolts,
      source: 'family',
      rail: name,
      tolerancePercent,
      ...(ohms === undefined ? {} : { ohms }),
      ...ownOhms,
      ...active,
    };
  }
  if (typeof printed === 'number') return { volts: printed, source: 'printed', ...ownOhms, ...active };
  const own = compiled.layouts.get(layoutId)?.points[point];
  if (own?.firm && own.volts !== undefined) return { volts: own.volts, source: 'usual', ...ownOhms, ...active };
  if (own?.atLeast !== undefined) return { volts: own.atLeast, source: 'at-least', ...ownOhms, ...active };
  return { volts: own?.volts, source: 'unknown', ...ownOhms, ...active };
}

/** Undefined where the number decides nothing: what is printed there has to be known first, or no outcome is seen like that. */
export function outcomeOfReading(test: TestDefinition, typed: Typed, expected: Expected): string | undefined {
  const measured = measuredBy(test);
  if (!measured) return undefined;
  const ohms = measured.measure === 'ohms';
  const active = expected.active ?? 'unknown';
  const volts = (share: number): string | undefined => byShare(test, share, { ohms: false, active });
  if (typed.unit !== undefined && (typed.unit === 'ohms') !== ohms) return undefined;
  if (typed.behaves === 'pulsing' || typed.behaves === 'trips') return unsteadyOutcome(test);
  if (ohms) return ohmsOutcome(test, typed.value, expected.ohms);
  const there = Math.abs(typed.value) >= nothingThere;
  if (!there) return volts(0);
  switch (expected.source) {
    case 'unknown':
      return undefined;
    case 'at-least':
      // Nothing printed: enough is as good as right, too little is too little.
      return volts(typed.value >= (expected.volts ?? 0) ? 1 : Math.min(typed.value / (expected.volts ?? 1), 0.9));
    default:
      return expected.volts === undefined || expected.volts === 0 ? undefined : volts(typed.value / expected.volts);
  }
}

/** A good set's ohms at a point spread with the meter and its polarity: from this share of them up they are as they belong (value of ours). */
const asBelongs = 0.5;

/** A point that reads low on a good set as well is not short; far below what belongs there and yet no short decides nothing. */
function ohmsOutcome(test: TestDefinition, value: number, good: number | undefined): string | undefined {
  const alone = byShare(test, value, { ohms: true, active: 'unknown' });
  if (good === undefined) return alone;
  const atRest = byShare(test, Number.MAX_VALUE, { ohms: true, active: 'unknown' });
  return value >= good * asBelongs ? atRest : alone === atRest ? undefined : alone;
}

/** A reading at a point, with what belongs there. */
export interface Taken extends Typed {
  readonly at: string;
  readonly expected: Expected;
}

/**
 * The outcome that several numbers of one test stand for, in the order they are read; `undefined` among them: not read. The first outcome that
 * is certain to be seen so while none before it is left open; undefined where what is missing would decide.
 */
export function outcomeOfReadings(test: TestDefinition, taken: readonly (Taken | undefined)[]): string | undefined {
  const wanted = measurementsOf(test);
  if (wanted.length === 1) return taken[0] && outcomeOfReading(test, taken[0], taken[0].expected);
  for (const { id, seen } of test.observe.outcomes.filter((one) => one.seen !== undefined)) {
    const held = (seen ?? []).map(({ reading }) =>
      reading ? readingHolds(reading, taken.slice(0, wanted.length), wanted.length) : undefined,
    );
    if (held.includes(true)) return id;
    if (held.includes(undefined)) return undefined;
  }
  return test.observe.outcomes.find(({ seen }) => seen === undefined)?.id;
}

/** Whether one of several numbers is as an outcome wants it; undefined: not known. */
function readingHolds(wanted: Read, taken: readonly (Taken | undefined)[], count: number): boolean | undefined {
  const index = (wanted.n ?? count) - 1;
  const one = taken[index];
  if (!one || wanted.missing !== undefined || wanted.steady !== undefined) return undefined;
  const within = (range: readonly [number, number], value: number): boolean => value >= range[0] && value <= range[1];
  if (wanted.ohms) {
    const { ohms } = wanted;
    const first = within(ohms, one.value);
    if (wanted.leaves === undefined) return first;
    const again = taken.slice(index + 1).find((later) => later?.at === one.at);
    if (!first) return !wanted.leaves;
    return again && wanted.leaves === !within(ohms, again.value);
  }
  const share = shareOf(one);
  const ranges = [wanted.ratio, wanted.peak].filter((range) => range !== undefined);
  return share === undefined || ranges.length === 0 ? undefined : ranges.every((range) => within(range, share));
}

/** Volts as a share of what belongs there; undefined where that isn't known. */
function shareOf({ value, expected }: Taken): number | undefined {
  if (Math.abs(value) < nothingThere) return 0;
  const known = expected.source !== 'unknown' && expected.source !== 'at-least';
  return known && expected.volts ? value / expected.volts : undefined;
}

/** Pulsing or tripping is told by its being unsteady, whatever belongs there; only where one outcome alone is seen so. */
function unsteadyOutcome(test: TestDefinition): string | undefined {
  const unsteady = test.observe.outcomes.filter(({ seen }) => seen?.some(({ reading }) => reading?.steady === false));
  return unsteady.length === 1 ? unsteady[0]?.id : undefined;
}

type Read = NonNullable<Seen['reading']>;

/** The first outcome that would have to be seen like this; a reading outside all of them is not guessed at. */
function byShare(test: TestDefinition, share: number, { ohms, active }: { ohms: boolean; active: ActiveLevel }): string | undefined {
  const fits = (range: readonly [number, number] | undefined): boolean => range === undefined || (share >= range[0] && share <= range[1]);
  const readings = test.observe.outcomes.flatMap(({ seen }) => (seen ?? []).flatMap(({ reading }) => (reading ? [reading] : [])));
  const holds = (reading: Read | undefined): boolean => {
    if (!reading || reading.missing !== undefined || reading.leaves === true || reading.steady === false) return false;
    if (ohms) return reading.ohms !== undefined && fits(reading.ohms);
    // After the key a line that should swing is where it asks, or it hasn't moved.
    if (reading.swings !== undefined) return reading.swings === asksAt(share, swungShare, active);
    if (reading.asks !== undefined) return asksAt(share, reading.asks, active);
    return (reading.ratio !== undefined || reading.peak !== undefined) && fits(reading.ratio) && fits(reading.peak);
  };
  const named = test.observe.outcomes.find(({ seen }) => seen?.some(({ reading }) => holds(reading)));
  if (named) return named.id;
  // The outcome that is what else remains: less volts than any other asks for, never more; ohms on either side; a line that doesn't ask.
  const least = Math.min(...readings.flatMap(({ ratio, peak }) => [ratio?.[0], peak?.[0]].filter((one) => one !== undefined)));
  const byLevel = readings.some(({ asks, swings }) => asks !== undefined || swings !== undefined);
  const remains = ohms ? readings.some((reading) => reading.ohms) : byLevel || share < least;
  return remains ? test.observe.outcomes.find(({ seen }) => seen === undefined)?.id : undefined;
}
