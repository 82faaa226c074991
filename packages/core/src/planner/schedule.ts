/**
 * What to do next across benches: attended steps fill other sets' waits.
 *
 * A set is a chain of steps; each wants a technician for some minutes and then, often, waits alone. Technicians are alike, and a step
 * once begun is finished. Scheduling theory knows this as parallel machines with chains and delays (hard in general), so an order is
 * built by simple rules and then bettered step by step; a test holds the distance from the best of all orders on small cases.
 */

/** A step of a set’s chain. */
export interface PlannedStep {
  readonly id: string;
  /** Hands-on minutes, the way there included. */
  readonly hands: number;
  /** Minutes it waits alone afterwards. */
  readonly wait: number;
}

/** A set on the plan. */
export interface PlannedSet {
  readonly id: string;
  /** Minutes until a running wait is over; 0 where somebody may go to it now. */
  readonly readyIn: number;
  /** Minutes until it was promised; left out: no date. Negative: too late already. */
  readonly dueIn?: number | undefined;
  /** In order; only what is known of its way. */
  readonly steps: readonly PlannedStep[];
}

/** A technician’s turn at a set. */
export interface Slot {
  readonly set: string;
  readonly step: string;
  readonly technician: number;
  /** Minutes from now. */
  readonly start: number;
  readonly end: number;
}

/** A plan over all sets. */
export interface DayPlan {
  readonly slots: readonly Slot[];
  /** Minutes of all sets past their promise, together. */
  readonly late: number;
  /** What is minimised: minutes until each set is through, and its lateness ten times over. */
  readonly cost: number;
}

/** A minute past a promise weighs as much as so many minutes of waiting in the shop: value of ours. */
export const lateWeight = 10;

/** An order of steps: the set of each turn, by index; a set's steps come in their own order. */
type Order = readonly number[];

/** Runs an order: each step with whoever is free first, as soon as its set is. */
function run(order: Order, sets: readonly PlannedSet[], technicians: number, slots?: Slot[]): number {
  const free = new Float64Array(technicians);
  const ready = Float64Array.from(sets, (set) => Math.max(0, set.readyIn));
  const at = new Int32Array(sets.length);
  for (const index of order) {
    const set = sets[index];
    const step = set?.steps[at[index] ?? 0];
    if (!set || !step) continue;
    let technician = 0;
    for (let t = 1; t < technicians; t += 1) if ((free[t] ?? 0) < (free[technician] ?? 0)) technician = t;
    const start = Math.max(free[technician] ?? 0, ready[index] ?? 0);
    const end = start + step.hands;
    free[technician] = end;
    ready[index] = end + step.wait;
    at[index] = (at[index] ?? 0) + 1;
    slots?.push({ set: set.id, step: step.id, technician, start, end });
  }
  return sets.reduce((sum, set, index) => {
    const through = ready[index] ?? 0;
    return sum + through + lateWeight * lateness(set, through);
  }, 0);
}

const lateness = (set: PlannedSet, through: number): number =>
  set.dueIn === undefined ? 0 : Math.max(0, through - Math.max(0, set.dueIn));

function planOf(order: Order, sets: readonly PlannedSet[], technicians: number): DayPlan {
  const slots: Slot[] = [];
  const cost = run(order, sets, technicians, slots);
  const late = sets.reduce((sum, set) => {
    const last = slots.findLast((slot) => slot.set === set.id);
    return sum + lateness(set, last ? last.end + (set.steps.at(-1)?.wait ?? 0) : Math.max(0, set.readyIn));
  }, 0);
  return { slots: slots.sort((a, b) => a.start - b.start || a.technician - b.technician || (a.set < b.set ? -1 : 1)), late, cost };
}

const total = (set: PlannedSet, part: 'hands' | 'wait'): number => set.steps.reduce((sum, step) => sum + step[part], 0);

/** Orders to begin with: each rule gives every set a rank, and always the lowest rank among sets that are ready goes next. */
const rules: ((set: PlannedSet) => number)[] = [
  (set) => (set.dueIn ?? 1e6) - total(set, 'hands') - total(set, 'wait'),
  (set) => total(set, 'hands') + total(set, 'wait'),
  (set) => (set.steps[0]?.hands ?? 0) - (set.steps[0]?.wait ?? 0),
  (set) => set.dueIn ?? 1e6,
  (set) => set.steps[0]?.hands ?? 0,
];

function byRule(rank: (set: PlannedSet) => number, sets: readonly PlannedSet[], technicians: number): number[] {
  const free = new Float64Array(technicians);
  const ready = sets.map((set) => Math.max(0, set.readyIn));
  const at = sets.map(() => 0);
  const order: number[] = [];
  const open = (): number[] => sets.flatMap((set, index) => ((at[index] ?? 0) < set.steps.length ? [index] : []));
  for (let left = open(); left.length > 0; left = open()) {
    let technician = 0;
    for (let t = 1; t < technicians; t += 1) if ((free[t] ?? 0) < (free[technician] ?? 0)) technician = t;
    const now = Math.max(free[technician] ?? 0, Math.min(...left.map((index) => ready[index] ?? 0)));
    const candidates = left.filter((index) => (ready[index] ?? 0) <= now);
    const next = candidates.reduce((best, index) => {
      const [a, b] = [sets[index], sets[best]];
      return a && b && rank(a) < rank(b) ? index : best;
    });
    const step = sets[next]?.steps[at[next] ?? 0];
    const end = now + (step?.hands ?? 0);
    free[technician] = end;
    ready[next] = end + (step?.wait ?? 0);
    at[next] = (at[next] ?? 0) + 1;
    order.push(next);
  }
  return order;
}

const elsewhere = (order: Order, from: number, to: number): number[] => {
  const moved = [...order];
  moved.splice(to, 0, ...moved.splice(from, 1));
  return moved;
};
const swapped = (order: Order, a: number, b: number): number[] =>
  order.map((turn, index) => (index === a ? (order[b] ?? turn) : index === b ? (order[a] ?? turn) : turn));
/** All turns of the set that is at `from`, together at `to`. */
const ahead = (order: Order, from: number, to: number): number[] => {
  const own = order.filter((turn) => turn === order[from]);
  const others = order.filter((turn) => turn !== order[from]);
  return [...others.slice(0, to), ...own, ...others.slice(to)];
};

/** Moves turns about as long as that betters the whole; turns of one set are alike, so its own order always holds. */
function bettered(order: number[], sets: readonly PlannedSet[], technicians: number, most: number): { order: number[]; cost: number } {
  let best = order;
  let cost = run(best, sets, technicians);
  let looks = 0;
  for (let improved = true; improved && looks < most;) {
    improved = false;
    for (let from = 0; from < best.length && looks < most; from += 1) {
      for (let to = 0; to < best.length; to += 1) {
        if (to === from || best[to] === best[from]) continue;
        for (const moved of [elsewhere(best, from, to), swapped(best, from, to), ahead(best, from, to)]) {
          const there = run(moved, sets, technicians);
          looks += 1;
          if (there < cost - 1e-9) {
            best = moved;
            cost = there;
            improved = true;
          }
        }
      }
    }
  }
  return { order: best, cost };
}

/** Looks at other orders, at most; with some dozens of sets a plan is then there within a fraction of a second. */
const mostLooks = 60_000;

/** Pure and without chance: the same sets give the same plan. Throws RangeError for fewer than one technician. */
export function planDay(sets: readonly PlannedSet[], technicians: number): DayPlan {
  if (technicians < 1) throw new RangeError('at least one technician');
  const ordered = [...sets].sort((a, b) => (a.id < b.id ? -1 : 1));
  const found = rules
    .map((rank) => bettered(byRule(rank, ordered, technicians), ordered, technicians, mostLooks / rules.length))
    .reduce((best, one) => (one.cost < best.cost - 1e-9 ? one : best));
  return planOf(found.order, ordered, technicians);
}

/** The best of all orders, by trying every one: for tests, and for very few sets. */
export function bestPlan(sets: readonly PlannedSet[], technicians: number): DayPlan {
  let best: number[] = [];
  let cost = Infinity;
  const left = sets.map((set) => set.steps.length);
  const turns = left.reduce((a, b) => a + b, 0);
  const order: number[] = [];
  const go = (): void => {
    if (order.length === turns) {
      const there = run(order, sets, technicians);
      if (there < cost) [cost, best] = [there, [...order]];
      return;
    }
    for (let index = 0; index < sets.length; index += 1) {
      if ((left[index] ?? 0) === 0) continue;
      left[index] = (left[index] ?? 0) - 1;
      order.push(index);
      go();
      order.pop();
      left[index] = (left[index] ?? 0) + 1;
    }
  };
  go();
  return planOf(best, sets, technicians);
}
