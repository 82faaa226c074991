/**
 * Which contacts to cover next, when some of a row start the set over and over: a start with exactly the guilty ones covered is looked for.
 *
 * A trial uncovers some lines and leaves the rest covered: it starts where no guilty line is among the uncovered ones. What is known are cells of lines
 * that are alike, and how many guilty ones may lie in each. Over these states the expected number of trials is computed by dynamic programming, exactly for
 * trials that split one cell. Trials over several cells save a twentieth more and take minutes to compute.
 */

/** How often one, two, three lines are guilty at once (common practice, no source). */
const guiltyShares = [0.85, 0.12, 0.03] as const;
/** More lines than a row has, and than the table can hold. */
export const mostLines = 20;

/**
 * What is known: cells of lines that are alike, and how many guilty ones may lie in each of them (one pattern, one number a cell). Lines that are innocent
 * are in no cell.
 */
interface State {
  readonly sizes: readonly number[];
  readonly patterns: readonly (readonly number[])[];
}
/** What is best, and what it comes to. */
interface Plan {
  readonly expected: number;
  readonly worst: number;
  /** How many to uncover of each cell; left out where everything is known. */
  readonly take?: readonly number[];
}

const choose = (n: number, k: number): number => {
  if (k < 0 || k > n) return 0;
  let value = 1;
  for (let i = 1; i <= k; i += 1) value = (value * (n - k + i)) / i;
  return Math.round(value);
};
const sum = (list: readonly number[]): number => list.reduce((total, one) => total + one, 0);
const textOf = (list: readonly number[]): string => list.join(',');

/** Cells of one line or none, and pairs of cells that nothing tells apart, are put in order: states that are alike become the same. */
function canonical(state: State): { readonly state: State; readonly of: readonly number[] } {
  let cells = state.sizes.map((size, index) => ({ size, from: [index], column: state.patterns.map((one) => one[index] ?? 0) }));
  // Never guilty: of no concern any more.
  cells = cells.filter(({ size, column }) => size > 0 && column.some((one) => one > 0));
  for (let merged = true; merged;) {
    merged = false;
    search: for (const [a, first] of cells.entries())
      for (const second of cells.slice(a + 1)) {
        if (!alike(cells, first, second)) continue;
        const rest = cells.filter((one) => one !== first && one !== second);
        cells = [
          ...rest,
          {
            size: first.size + second.size,
            from: [...first.from, ...second.from],
            column: first.column.map((one, row) => one + (second.column[row] ?? 0)),
          },
        ];
        merged = true;
        break search;
      }
  }
  const rank = ({ size, column }: (typeof cells)[number]): string => `${String(size).padStart(3, '0')} ${textOf([...column].sort())}`;
  cells = cells.sort((a, b) => (rank(a) < rank(b) ? -1 : rank(a) > rank(b) ? 1 : 0));
  const rows = new Set(state.patterns.map((_, row) => textOf(cells.map(({ column }) => column[row] ?? 0))));
  const patterns = [...rows].sort().map((text) => (text === '' ? [] : text.split(',').map(Number)));
  const of = state.sizes.map((_, index) => cells.findIndex(({ from }) => from.includes(index)));
  return { state: { sizes: cells.map(({ size }) => size), patterns }, of };
}

interface Column {
  readonly size: number;
  readonly column: readonly number[];
}
/** Whether only the sum of two cells is known: then they are one. */
function alike(cells: readonly Column[], first: Column, second: Column): boolean {
  const others = cells.filter((one) => one !== first && one !== second);
  const seen = new Map<string, Set<number>>();
  first.column.forEach((own, row) => {
    const key = `${textOf(others.map(({ column }) => column[row] ?? 0))}|${own + (second.column[row] ?? 0)}`;
    const set = seen.get(key) ?? new Set<number>();
    set.add(own);
    seen.set(key, set);
  });
  return [...seen].every(([key, owns]) => {
    const total = Number(key.split('|')[1]);
    for (let own = Math.max(0, total - second.size); own <= Math.min(total, first.size); own += 1) if (!owns.has(own)) return false;
    return true;
  });
}

const keyOf = ({ sizes, patterns }: State): string => `${textOf(sizes)};${patterns.map(textOf).join(' ')}`;

/** The best way for a row of so many lines, by what it costs on average or at worst. */
export class MaskPlanner {
  readonly #lines: number;
  readonly #by: 'expected' | 'worst';
  readonly #known = new Map<string, Plan>();
  readonly #bits = new Map<string, number>();

  /** Throws RangeError for a row of none, or of more than `mostLines`. */
  constructor(lines: number, by: 'expected' | 'worst' = 'expected') {
    if (!Number.isInteger(lines) || lines < 1 || lines > mostLines) throw new RangeError(`${lines} lines: 1 to ${mostLines}`);
    this.#lines = lines;
    this.#by = by;
  }

  /** States that were looked at. */
  get states(): number {
    return this.#known.size;
  }

  /** All lines covered starts, none covered doesn't: one to three of them are guilty. */
  start(): State {
    return { sizes: [this.#lines], patterns: guiltyShares.map((_, index) => [index + 1]).filter(([k = 0]) => k <= this.#lines) };
  }

  #weight({ sizes, patterns }: State): number {
    return patterns.reduce((total, pattern) => {
      const k = sum(pattern);
      return (
        total +
        pattern.reduce((ways, own, cell) => ways * choose(sizes[cell] ?? 0, own), (guiltyShares[k - 1] ?? 0) / choose(this.#lines, k))
      );
    }, 0);
  }

  /** The way on from a state; `take` counts the cells of its own order. */
  plan(given: State): Plan & { /** Cell of that order, for each that was given; -1: innocent. */ readonly of: readonly number[] } {
    const { state, of } = canonical(given);
    return { ...this.#settle(state), of };
  }

  #settle(state: State): Plan {
    const key = keyOf(state);
    const known = this.#known.get(key);
    if (known) return known;
    let best: Plan = { expected: 0, worst: 0 };
    // One pattern that fills or leaves each cell whole: everything is known.
    const [only, ...more] = state.patterns;
    if (more.length > 0 || only?.some((own, cell) => own !== 0 && own !== state.sizes[cell])) {
      best = { expected: Infinity, worst: Infinity };
      const whole = this.#weight(state);
      for (const { take, starts, least } of this.#moves(state, whole)) {
        // No way from there can be better than its entropy says.
        if (this.#by === 'expected' && least >= best.expected - 1e-9) continue;
        const [a, b] = [
          this.#settle(canonical(outcome(state, take, 'starts')).state),
          this.#settle(canonical(outcome(state, take, 'loops')).state),
        ];
        const expected = 1 + (starts / whole) * a.expected + (1 - starts / whole) * b.expected;
        const worst = 1 + Math.max(a.worst, b.worst);
        const mean = expected - best.expected;
        const better = this.#by === 'worst' ? worst < best.worst || (worst === best.worst && mean < -1e-12) : mean < -1e-12;
        if (better) best = { expected, worst, take };
      }
    }
    this.#known.set(key, best);
    return best;
  }

  /** Bits that are still to be learned: a trial has two outcomes, so no way is shorter on average (Shannon). */
  #entropy(state: State): number {
    const key = keyOf(state);
    const known = this.#bits.get(key);
    if (known !== undefined) return known;
    const whole = this.#weight(state);
    const bits = state.patterns.reduce((total, pattern) => {
      const k = sum(pattern);
      const one = (guiltyShares[k - 1] ?? 0) / choose(this.#lines, k) / whole;
      const ways = pattern.reduce((product, own, cell) => product * choose(state.sizes[cell] ?? 0, own), 1);
      return total - ways * one * Math.log2(one);
    }, 0);
    this.#bits.set(key, bits);
    return bits;
  }

  #moves(state: State, whole: number): readonly { readonly take: readonly number[]; readonly starts: number; readonly least: number }[] {
    const none = state.sizes.map(() => 0);
    const all = state.sizes.flatMap((size, cell) =>
      Array.from({ length: size }, (_, less) => none.map((own, at) => (at === cell ? less + 1 : own))),
    );
    const open = all.flatMap((take) => {
      const started = outcome(state, take, 'starts');
      const starts = this.#weight(started);
      // One that can only come out one way tells nothing.
      if (starts <= whole * 1e-9 || starts >= whole * (1 - 1e-9)) return [];
      const share = starts / whole;
      const least = 1 + share * this.#entropy(started) + (1 - share) * this.#entropy(outcome(state, take, 'loops'));
      return [{ take, starts, least }];
    });
    open.sort((a, b) => a.least - b.least);
    return open;
  }
}

/** Uncovered lines are innocent where it starts; where it loops, at least one of them is guilty. */
function outcome({ sizes, patterns }: State, take: readonly number[], result: 'starts' | 'loops'): State {
  const kept = sizes.map((size, cell) => size - (take[cell] ?? 0));
  if (result === 'starts')
    return { sizes: kept, patterns: patterns.filter((pattern) => pattern.every((own, cell) => own <= (kept[cell] ?? 0))) };
  const split = patterns.flatMap((pattern) => {
    let parts: number[][] = [[]];
    pattern.forEach((own, cell) => {
      const [most = 0, rest = 0] = [take[cell], kept[cell]];
      parts = parts.flatMap((before) =>
        Array.from({ length: own + 1 }, (_, bare) => bare)
          .filter((bare) => bare <= most && own - bare <= rest)
          .map((bare) => [...before, bare, own - bare]),
      );
    });
    return parts.filter((part) => part.some((own, index) => index % 2 === 0 && own > 0));
  });
  return { sizes: sizes.flatMap((_, cell) => [take[cell] ?? 0, kept[cell] ?? 0]), patterns: split };
}

/** A trial: lines that were left uncovered, numbered from 1, and what the set did. */
export interface MaskTrial {
  readonly uncovered: readonly number[];
  readonly result: 'started' | 'looped' | 'started-with-flaw';
}

/** What to do next. */
export interface MaskAdvice {
  /** Lines that are guilty for sure; and lines that are innocent. */
  readonly guilty: readonly number[];
  readonly innocent: readonly number[];
  /** Probability of each line, from the first. */
  readonly probability: readonly number[];
  /** Uncover these in the next trial, beside the innocent ones; left out where everything is known, or nothing fits. */
  readonly uncover?: readonly number[];
  /** Cover these: the rest, or at the end the guilty ones. */
  readonly cover: readonly number[];
  readonly expectedLeft: number;
  readonly worstLeft: number;
  /** Trials that can’t all be right: one of these numbers, from 1, is to be done again. */
  readonly contradiction?: readonly number[];
}

/** Every set of one to three lines of a row, as bits. */
function setsOf(lines: number): { readonly bits: number; readonly weight: number }[] {
  const all: { bits: number; weight: number }[] = [];
  const add = (bits: number, from: number, size: number): void => {
    if (size > 0) all.push({ bits, weight: (guiltyShares[size - 1] ?? 0) / choose(lines, size) });
    if (size === guiltyShares.length) return;
    for (let line = from; line < lines; line += 1) add(bits | (1 << line), line + 1, size + 1);
  };
  add(0, 0, 0);
  return all;
}

/**
 * The next trial of a row. `hits`: how often each line was guilty in this family before; those with more are taken first. Throws RangeError for a line
 * the row hasn’t got.
 */
export function adviseMask(
  lines: number,
  trials: readonly MaskTrial[],
  { hits = [], by = 'expected' }: { readonly hits?: readonly number[]; readonly by?: 'expected' | 'worst' } = {},
): MaskAdvice {
  const planner = new MaskPlanner(lines, by);
  const bitsOf = (list: readonly number[]): number =>
    list.reduce((bits, line) => {
      if (!Number.isInteger(line) || line < 1 || line > lines) throw new RangeError(`line ${line} of ${lines}`);
      return bits | (1 << (line - 1));
    }, 0);
  const seen = trials.map(({ uncovered, result }) => ({ bits: bitsOf(uncovered), loops: result === 'looped' }));
  const fits = (set: number, among: typeof seen): boolean => among.every(({ bits, loops }) => ((set & bits) !== 0) === loops);
  const liked = (set: number): number => 1 + hits.reduce((sum, n, line) => sum + ((set >> line) & 1 ? n : 0), 0);
  const all = setsOf(lines);
  const left = all.filter(({ bits }) => fits(bits, seen));
  const numbers = Array.from({ length: lines }, (_, index) => index + 1);
  if (left.length === 0) {
    const contradiction = seen.flatMap((_, index) =>
      all.some(({ bits }) =>
        fits(
          bits,
          seen.filter((__, at) => at !== index),
        ),
      )
        ? [index + 1]
        : [],
    );
    return {
      guilty: [],
      innocent: [],
      probability: numbers.map(() => Number.NaN),
      cover: numbers,
      expectedLeft: Number.NaN,
      worstLeft: Number.NaN,
      contradiction,
    };
  }
  const total = left.reduce((sum, { bits, weight }) => sum + weight * liked(bits), 0);
  const probability = numbers.map(
    (line) => left.reduce((sum, { bits, weight }) => (bits & (1 << (line - 1)) ? sum + weight * liked(bits) : sum), 0) / total,
  );
  const sure = (line: number): boolean => left.every(({ bits }) => (bits & (1 << (line - 1))) !== 0);
  const clean = (line: number): boolean => left.every(({ bits }) => (bits & (1 << (line - 1))) === 0);
  const guilty = numbers.filter(sure);
  const innocent = numbers.filter(clean);
  // Lines that every trial treated alike are one cell; what may lie in them is what is left.
  const bySet = new Map<number, number[]>();
  for (const line of numbers.filter((one) => !innocent.includes(one))) {
    const own = seen.reduce((set, { bits }, index) => (bits & (1 << (line - 1)) ? set | (1 << index) : set), 0);
    bySet.set(own, [...(bySet.get(own) ?? []), line]);
  }
  const cells = [...bySet.values()];
  const patterns = left.map(({ bits }) => cells.map((list) => list.filter((line) => bits & (1 << (line - 1))).length));
  const unlike = [...new Set(patterns.map(textOf))].map((text) => text.split(',').map(Number));
  const plan = planner.plan({ sizes: cells.map((list) => list.length), patterns: unlike });
  const common = { guilty, innocent, probability, expectedLeft: plan.expected, worstLeft: plan.worst };
  if (!plan.take) return { ...common, cover: guilty };
  const { take, of } = plan;
  const uncover = take
    .flatMap((count, cell) => {
      const own = cells.flatMap((list, index) => (of[index] === cell ? list : []));
      // Those that were guilty before stay covered the longest: a start then clears more at once.
      return own.sort((x, y) => (hits[x - 1] ?? 0) - (hits[y - 1] ?? 0) || x - y).slice(0, count);
    })
    .sort((x, y) => x - y);
  return { ...common, uncover, cover: numbers.filter((line) => !uncover.includes(line) && !innocent.includes(line)) };
}
