/**
 * Several points read one after the other as the set stands: what belongs there, what each reading is called, and which answers of tests
 * they are. Answers go into the ledger as any other; what one follows from another is the pack's consequences, and counts once.
 */
import type { Body, BodyOf } from '../ledger/index.ts';
import type { CompiledPack, Family, TestDefinition } from '../knowledge/index.ts';
import { expectedAt, measuredBy, nothingThere, outcomeOfReading, type Behaviour, type Expected, type OnBoard } from './judge.ts';

/** How the set stands while it is read. */
export const sheetStates = ['unplugged', 'standby', 'starting', 'on'] as const;
/** One of `sheetStates`. */
export type SheetState = (typeof sheetStates)[number];

/** A point to be read. */
export interface SheetRow {
  readonly point: string;
  /** The plug or board it is on. */
  readonly on: string;
  readonly quantity: 'volts' | 'ohms';
  /** Several of one kind: one that is good tells nothing of the others, and so answers nothing. */
  readonly many: boolean;
  /** The reading may pulse or trip: asked for beside the number. */
  readonly unsteady: boolean;
  /** The test that reads this point: its make-safe steps and cautions are the row’s. */
  readonly test: string;
  /** The reading answers it; otherwise it is kept, beside one that is read in another state. */
  readonly answers: boolean;
}

/** What a reading is called. */
export const sheetLevels = ['in', 'low', 'high', 'missing', 'pulsing', 'trips', 'asks', 'rests', 'short', 'unknown'] as const;
/** One of `sheetLevels`; `unknown`: it can't be called anything yet. */
export type SheetLevel = (typeof sheetLevels)[number];

/** A reading of a row, judged. */
export interface Judgement {
  readonly level: SheetLevel;
  readonly expected: Expected;
  /** Of what belongs there, percent; only where a nominal value is known for this set. */
  readonly deviationPercent?: number;
  /** Answer of the row's test; left out where the number decides none. */
  readonly outcome?: string;
}

/** Taken where neither family nor print names one, percent (common practice, no source). */
export const usualTolerancePercent = 5;

/** Nothing is pulled, bridged, loaded or swapped for it: the number is read with the set as it is. */
const undisturbed = (test: TestDefinition): boolean =>
  test.do.every((step) => ['unplug', 'drain', 'power', 'press', 'measure', 'wait', 'look'].some((kind) => kind in step));
/** One rail of several can't stand for all of them. */
const ofMany = (test: TestDefinition): boolean =>
  test.observe.outcomes.some(({ seen }) => seen?.some(({ reading }) => reading?.missing !== undefined));
const swings = (test: TestDefinition): boolean =>
  test.observe.outcomes.some(({ seen }) => seen?.some(({ reading }) => reading?.swings === true));

/**
 * The points of a layout that one reading in this state answers a test of, plug by plug. In standby,
 * lines that have to move when the key is pressed are among them without a test: the reading before.
 */
export function sheetRows(compiled: CompiledPack, layoutId: string, state: SheetState): SheetRow[] {
  const points = compiled.layouts.get(layoutId)?.points ?? {};
  const rows = (compiled.testsOf.get(layoutId) ?? []).flatMap((test): SheetRow[] => {
    const measured = measuredBy(test);
    const point = measured && points[measured.at];
    if (!measured || !point || !undisturbed(test) || ofMany(test)) return [];
    const when = measured.in === 'verified' ? 'unplugged' : measured.in;
    // That a line moves is told by two readings: where it is read in one state only, its own step asks for both.
    if (swings(test) && when === 'standby') return [];
    const before = state === 'standby' && swings(test);
    if (when !== state && !before) return [];
    return [
      {
        point: measured.at,
        on: point.on,
        many: point.many ?? false,
        quantity: measured.measure === 'ohms' ? 'ohms' : 'volts',
        unsteady: measured.measure === 'volts-min-max',
        test: test.id,
        answers: !before,
      },
    ];
  });
  // Of several tests of one reading, the one that comes first answers.
  const once = rows.filter((row, index) => rows.findIndex((one) => one.point === row.point && one.quantity === row.quantity) === index);
  // Plug by plug, each in the order it is read; never by the order of a record’s keys: a store keeps none.
  const order = ({ point }: SheetRow): number => points[point]?.order ?? Number.MAX_SAFE_INTEGER;
  const ranked = [...once].sort((a, b) => order(a) - order(b));
  const places = [...new Set(ranked.map(({ on }) => on))];
  return ranked.sort((a, b) => places.indexOf(a.on) - places.indexOf(b.on));
}

/** What a reading is called. `printed`: volts on the board. */
export function judgeRow(
  row: SheetRow,
  value: number,
  behaves: Behaviour,
  compiled: CompiledPack,
  layoutId: string,
  {
    family,
    printed,
    board,
  }: { readonly family?: Family | undefined; readonly printed?: number | undefined; readonly board?: OnBoard | undefined } = {},
): Judgement {
  const expected = expectedAt(row.point, layoutId, compiled, family, printed, board);
  const test = row.answers ? compiled.tests.get(row.test) : undefined;
  const outcome = test && outcomeOfReading(test, { value, behaves }, expected);
  // Of many, one that is short or open is an answer; that none is, and that all have their volts, is said only by all of them.
  const found = row.quantity === 'ohms' && test?.observe.outcomes.find(({ id }) => id === outcome)?.seen !== undefined;
  const answer = (level: SheetLevel): { readonly outcome?: string } =>
    outcome === undefined || (row.many && !found) || contradicts(level, test, outcome) ? {} : { outcome };
  const told = (level: SheetLevel): Judgement => ({ level, expected, ...answer(level) });
  if (row.quantity === 'ohms') return told(ohmsLevel(test, outcome));
  if (behaves !== 'steady') return told(behaves);
  // Before the key nothing belongs there yet.
  if (!test) return told('unknown');
  const known = expected.source !== 'unknown' && expected.source !== 'at-least' && (expected.volts ?? 0) > 0;
  const level = voltsLevel(value, expected, test, outcome);
  const isRail = known && level !== 'asks' && level !== 'rests';
  return { ...told(level), ...(isRail ? { deviationPercent: (value / (expected.volts ?? 1) - 1) * 100 } : {}) };
}

/** Outside the rail's own tolerance and yet within what the test calls good, or the other way round: the number alone decides neither. */
function contradicts(level: SheetLevel, test: TestDefinition | undefined, outcome: string): boolean {
  if (level !== 'low' && level !== 'high' && level !== 'in') return false;
  const good = isGood(test, outcome);
  return good !== undefined && good !== (level === 'in');
}

/** Whether an answer is what is seen at the nominal value; undefined where it is told by no range around one. */
function isGood(test: TestDefinition | undefined, outcome: string | undefined): boolean | undefined {
  const seen = test?.observe.outcomes.find(({ id }) => id === outcome)?.seen ?? [];
  const ranges = seen.flatMap(({ reading }) => [reading?.ratio, reading?.peak].filter((range) => range !== undefined));
  return ranges.length === 0 ? undefined : ranges.some(([least, most]) => least <= 1 && most >= 1);
}

function voltsLevel(
  value: number,
  { volts, source, tolerancePercent = usualTolerancePercent }: Expected,
  test: TestDefinition,
  outcome: string | undefined,
): SheetLevel {
  const moved = test.observe.outcomes.find(({ seen }) => seen?.some(({ reading }) => reading?.swings ?? reading?.asks));
  if (moved) return outcome === undefined ? 'unknown' : outcome === moved.id ? 'asks' : 'rests';
  if (Math.abs(value) < nothingThere) return 'missing';
  if (volts === undefined || source === 'unknown') return 'unknown';
  if (source === 'at-least') return value < volts ? 'low' : 'in';
  // What holds for most sets has no tolerance of its own: the test's is taken.
  if (source === 'usual') return isGood(test, outcome) === true ? 'in' : value < volts ? 'low' : 'high';
  const percent = (value / volts - 1) * 100;
  return percent < -tolerancePercent ? 'low' : percent > tolerancePercent ? 'high' : 'in';
}

/** An answer that is seen at few ohms is a short, one that is seen at many is too much; what else remains is as it belongs. */
function ohmsLevel(test: TestDefinition | undefined, outcome: string | undefined): SheetLevel {
  if (!test || outcome === undefined) return 'unknown';
  const seen = test.observe.outcomes.find(({ id }) => id === outcome)?.seen;
  const least = seen?.map(({ reading }) => reading?.ohms?.[0]).find((one) => one !== undefined);
  return seen === undefined ? 'in' : least === undefined ? 'unknown' : least === 0 ? 'short' : 'high';
}

/** A reading that was typed in a row. */
export interface SheetTaken {
  readonly row: SheetRow;
  readonly value: number;
  readonly behaves: Behaviour;
  readonly judged: Judgement;
  /** The pin as it is named on the board. */
  readonly pin?: string | undefined;
}

/** Entries of a sheet: every reading, and the answers they are, in the order of the rows. */
export function sheetBodies(taken: readonly SheetTaken[], state: SheetState, measured: boolean): Body[] {
  return taken.flatMap(({ row, value, behaves, judged, pin }): Body[] => {
    const reading: BodyOf<'reading.taken'> = {
      kind: 'reading.taken',
      v: 2,
      quantity: row.quantity,
      at: row.point,
      value,
      state: state === 'unplugged' && measured ? 'verified' : state,
      ...(pin === undefined ? {} : { pin }),
    };
    if (!row.answers || judged.outcome === undefined) return [reading];
    const raw = `${value} ${row.quantity === 'ohms' ? 'Ω' : 'V'}${behaves === 'steady' ? '' : `, ${behaves}`}`;
    return [reading, { kind: 'test.answered', v: 2, test: row.test, outcome: judged.outcome, sure: 'sure', raw }];
  });
}
