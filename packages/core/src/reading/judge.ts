/**
 * A number read on the bench, and the outcome it stands for. It is held against the family's rail, else against what is printed on the
 * board; what is merely usual decides nothing but "nothing there", unless it holds for nearly every set.
 */
import type { CompiledPack, Family, Seen, TestDefinition } from '../knowledge/index.ts';

export const expectedSources = ['family', 'printed', 'usual', 'at-least', 'unknown'] as const;
export type ExpectedSource = (typeof expectedSources)[number];

export interface Expected {
  /** Volts; undefined where nothing is known but that it may be anything. */
  readonly volts: number | undefined;
  readonly source: ExpectedSource;
  /** Name of the family's rail, and its tolerance in percent. */
  readonly rail?: string;
  readonly tolerancePercent?: number;
}

export const behaviours = ['steady', 'pulsing', 'trips'] as const;
export type Behaviour = (typeof behaviours)[number];

export interface Typed {
  readonly value: number;
  /** Left out: as the test measures. */
  readonly unit?: 'volts' | 'ohms' | undefined;
  readonly behaves?: Behaviour | undefined;
}

/** Below this nothing is there, whatever belongs there, volts (common practice, no source). */
const nothingThere = 0.5;
/** A wire that should swing and reads at least this share of its usual value has moved (value of ours). */
const swungShare = 0.6;

/** The measurement that a test's answer is told by; undefined for tests that read no meter, or more than once: one number doesn't answer those. */
export function measuredBy(test: TestDefinition) {
  const [only, ...more] = test.do.flatMap((step) => ('measure' in step ? [step] : []));
  return more.length > 0 ? undefined : only;
}

/** What belongs at a point, and how that is known. `printed`: volts printed on the board, or that nothing is. */
export function expectedAt(
  point: string,
  layoutId: string,
  compiled: CompiledPack,
  family: Family | undefined,
  printed?: number | 'nothing',
): Expected {
  const rail = family?.rails.find((one) => one.point === point);
  if (rail) return { volts: rail.nominalVolts, source: 'family', rail: rail.name, tolerancePercent: rail.tolerancePercent };
  if (typeof printed === 'number') return { volts: printed, source: 'printed' };
  const own = compiled.layouts.get(layoutId)?.points[point];
  if (own?.firm && own.volts !== undefined) return { volts: own.volts, source: 'usual' };
  if (own?.atLeast !== undefined) return { volts: own.atLeast, source: 'at-least' };
  return { volts: own?.volts, source: 'unknown' };
}

/** Undefined where the number decides nothing: what is printed there has to be known first, or no outcome is seen like that. */
export function outcomeOfReading(test: TestDefinition, typed: Typed, expected: Expected): string | undefined {
  const measured = measuredBy(test);
  if (!measured) return undefined;
  const ohms = measured.measure === 'ohms';
  if (typed.unit !== undefined && (typed.unit === 'ohms') !== ohms) return undefined;
  if (typed.behaves === 'pulsing' || typed.behaves === 'trips') return unsteadyOutcome(test);
  if (ohms) return byShare(test, typed.value, true);
  const there = Math.abs(typed.value) >= nothingThere;
  if (!there) return byShare(test, 0, false);
  switch (expected.source) {
    case 'unknown':
      return undefined;
    case 'at-least':
      // Nothing printed: enough is as good as right, too little is too little.
      return byShare(test, typed.value >= (expected.volts ?? 0) ? 1 : Math.min(typed.value / (expected.volts ?? 1), 0.9), false);
    default:
      return expected.volts === undefined || expected.volts === 0 ? undefined : byShare(test, typed.value / expected.volts, false);
  }
}

/** Pulsing or tripping is told by its being unsteady, whatever belongs there; only where one outcome alone is seen so. */
function unsteadyOutcome(test: TestDefinition): string | undefined {
  const unsteady = test.observe.outcomes.filter(({ seen }) => seen?.some(({ reading }) => reading?.steady === false));
  return unsteady.length === 1 ? unsteady[0]?.id : undefined;
}

type Read = NonNullable<Seen['reading']>;

/** The first outcome that would have to be seen like this; a reading outside all of them is not guessed at. */
function byShare(test: TestDefinition, share: number, ohms: boolean): string | undefined {
  const fits = (range: readonly [number, number] | undefined): boolean => range === undefined || (share >= range[0] && share <= range[1]);
  const readings = test.observe.outcomes.flatMap(({ seen }) => (seen ?? []).flatMap(({ reading }) => (reading ? [reading] : [])));
  const holds = (reading: Read | undefined): boolean => {
    if (!reading || reading.missing !== undefined || reading.leaves === true || reading.steady === false) return false;
    if (ohms) return reading.ohms !== undefined && fits(reading.ohms);
    if (reading.swings !== undefined) return reading.swings === share >= swungShare;
    return (reading.ratio !== undefined || reading.peak !== undefined) && fits(reading.ratio) && fits(reading.peak);
  };
  const named = test.observe.outcomes.find(({ seen }) => seen?.some(({ reading }) => holds(reading)));
  if (named) return named.id;
  // The outcome that is what else remains: less volts than any other asks for, never more; ohms on either side.
  const least = Math.min(
    ...readings.flatMap(({ ratio, peak, swings }) =>
      [ratio?.[0], peak?.[0], swings ? swungShare : undefined].filter((one) => one !== undefined),
    ),
  );
  const remains = ohms ? readings.some((reading) => reading.ohms) : share < least;
  return remains ? test.observe.outcomes.find(({ seen }) => seen === undefined)?.id : undefined;
}
