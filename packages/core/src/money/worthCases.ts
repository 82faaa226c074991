/**
 * Repair or not, as a technician reckons it for a customer: written before the rule. Minor units. A repair worth its money is one after which
 * the customer has more than handing it back would leave: chance × what the set is then worth, less the bill. Arithmetic by hand, from
 * expected value as any textbook of decisions has it (no source beyond that).
 */
import type { WorthFacts } from './worth.ts';

const end = (probability: number, minor: number, how: 'cured' | 'given-up', parts = 0) => ({ probability, minor, parts, end: how });
const base: WorthFacts = {
  ends: [end(0.8, 10_000, 'cured', 4000), end(0.2, 6000, 'given-up')],
  spentMinor: 2000,
  feeMinor: 2500,
  newSetMinor: 40_000,
  ageYears: 4,
  donorMinor: 1000,
  offers: [],
};

/** What comes out. */
export interface WorthCase {
  readonly name: string;
  readonly facts: WorthFacts;
  readonly best: string;
  /** Of the repair, minor units to the nearest one. */
  readonly expected?: { readonly works: number; readonly cost: number; readonly net: number };
  /** The dearest bill at which the repair is still no worse than the next best. */
  readonly breakEven?: number;
  /** Hands-on minutes to the end by the book, at 48.00 an hour. */
  readonly minutesByBook?: number;
}
/** Worth after four years of ten: 1 − 0.09 × 4 = 0.64 of new, 25,600. */
export const worthCases: readonly WorthCase[] = [
  {
    // 0.8 × 25,600 + 0.2 × 1000 = 20,680; bill 0.8 × (10,000 + 2000) + 0.2 × 2500, the fee where it is given up. Handing back: 1000 − 2500.
    name: 'a board for a hundred in a set of four years: repair',
    facts: base,
    best: 'repair',
    expected: { works: 0.8, cost: 10_100, net: 10_580 },
    breakEven: 22_180,
    // 0.8 × (10,000 − 4000) + 0.2 × 6000 = 6000 of labour, at 80 a minute.
    minutesByBook: 75,
  },
  {
    // Labour of the repair 6000 × 1.2, its part as it was: 0.8 × (7200 + 4000 + 2000) + 0.2 × 2500. What it may cost at most stays.
    name: 'done by someone who takes a fifth longer: dearer by a fifth of the labour',
    facts: { ...base, pace: 1.2 },
    best: 'repair',
    expected: { works: 0.8, cost: 11_060, net: 9620 },
    breakEven: 22_180,
    minutesByBook: 75,
  },
  {
    name: 'a panel for most of a new one: hand back',
    facts: { ...base, ends: [end(0.9, 36_000, 'cured', 34_000), end(0.1, 4000, 'given-up')] },
    best: 'hand-back',
  },
  {
    name: 'the same board in a set of ten years, worth a tenth: hand back',
    facts: { ...base, ageYears: 10 },
    best: 'hand-back',
  },
  {
    name: 'no age known: taken for half worn',
    facts: { ...base, ageYears: undefined },
    best: 'repair',
  },
  {
    name: 'a workaround that loses a third and costs next to nothing',
    facts: { ...base, offers: [{ option: 'workaround', minor: 1500, works: 0.95, lossShare: 0.3 }] },
    best: 'workaround',
  },
  {
    name: 'a workaround that loses nearly all',
    facts: { ...base, offers: [{ option: 'workaround', minor: 1500, works: 0.95, lossShare: 0.9 }] },
    best: 'repair',
  },
  {
    name: 'its boards are wanted: worth more as a donor than it would be repaired',
    facts: { ...base, ageYears: 9, donorMinor: 12_000 },
    best: 'hand-back',
  },
];
