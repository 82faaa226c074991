/**
 * Repair or not: what each option costs to its end, how it ends, and what the customer then has, side by side.
 *
 * A set loses its worth in a straight line to a tenth over ten years (value of ours, told with its figure on the screen). What was spent
 * already is in a repair’s bill; where the set is given up after all, the diagnostic fee is owed and not the hours, as the invoice has it.
 */
import type { BillEnd } from './bill.ts';
import type { BodyOf } from '../ledger/index.ts';

/** What a customer can choose. */
export type WorthOption = Exclude<NonNullable<BodyOf<'quote.answered'>['option']>, 'diagnose-only'>;

/** An option that somebody put a price on; minor units, the whole bill. */
export interface WorthOffer {
  readonly option: Exclude<WorthOption, 'repair' | 'hand-back'>;
  readonly minor: number;
  /** Chance that it works, and the share of the set’s use that is lost for good. */
  readonly works: number;
  readonly lossShare: number;
}
/** What is known when somebody asks; minor units of one currency. */
export interface WorthFacts {
  /** Of the way to the end from here, without what was spent. `parts`: of `minor`. */
  readonly ends: readonly (BillEnd & { readonly parts: number })[];
  readonly spentMinor: number;
  /** What is owed where the set goes back unrepaired. */
  readonly feeMinor: number;
  readonly newSetMinor: number;
  readonly ageYears: number | undefined;
  /** What its parts are worth. */
  readonly donorMinor: number;
  readonly offers: readonly WorthOffer[];
  /** Hands-on time of who is to do it, over the book’s; 1 where it is left out. */
  readonly pace?: number;
}
/** How an option ends. */
export interface OptionWorth {
  readonly option: WorthOption;
  /** The whole bill, what was spent included: expected, and a tenth and nine tenths of all ends. */
  readonly expectedMinor: number;
  readonly lowMinor: number;
  readonly highMinor: number;
  /** Chances: works as before, works with a loss, does not work. Sum 1. */
  readonly works: number;
  readonly withLoss: number;
  readonly fails: number;
  /** Expected worth of what the customer then has, less the bill. */
  readonly netMinor: number;
}
/** Options, the best first. */
export interface Worth {
  readonly options: readonly OptionWorth[];
  /** What the set is worth once it works as before. */
  readonly worksMinor: number;
  /** The dearest expected bill at which the repair is no worse than the next best; and minutes of labour that leaves beside the parts. */
  readonly breakEvenMinor: number;
  readonly breakEvenMinutes: number;
  /** Hands-on minutes to the end of the repair by the book, expected; waits at their share. */
  readonly minutesByBook: number;
}

const yearsOfUse = 10;
const leastShare = 0.1;
/** Where nobody knows how old it is. */
const usualAge = 5;
/** Share of a new set’s price that a set of this age is worth. */
export const worthShare = (ageYears: number | undefined): number => Math.max(leastShare, 1 - (0.9 * (ageYears ?? usualAge)) / yearsOfUse);

/** Labour still to come and prices turn out otherwise than foreseen: hands-on time by a factor of about e^±0.3, prices by ±15 % (values of ours). */
const labourSpread = 0.3;
const priceSpread = 0.15;
const draws = 4000;

/** `random`: numbers from 0 to below 1; the same ones give the same figures. */
export function repairOrNot(asked: WorthFacts, rateMinorPerHour: number, random: () => number): Worth {
  const { pace = 1 } = asked;
  const facts = { ...asked, ends: asked.ends.map((end) => ({ ...end, minor: (end.minor - end.parts) * pace + end.parts })) };
  const worksMinor = facts.newSetMinor * worthShare(facts.ageYears);
  const repair = ofRepair(facts, worksMinor, random);
  const back: OptionWorth = {
    option: 'hand-back',
    expectedMinor: facts.feeMinor,
    lowMinor: facts.feeMinor,
    highMinor: facts.feeMinor,
    works: 0,
    withLoss: 0,
    fails: 1,
    netMinor: facts.donorMinor - facts.feeMinor,
  };
  const offered = facts.offers.map(({ option, minor, works, lossShare }): OptionWorth => ({
    option,
    expectedMinor: minor,
    lowMinor: minor,
    highMinor: minor,
    works: lossShare === 0 ? works : 0,
    withLoss: lossShare === 0 ? 0 : works,
    fails: 1 - works,
    netMinor: works * worksMinor * (1 - lossShare) + (1 - works) * facts.donorMinor - minor,
  }));
  const others = [back, ...offered];
  const next = Math.max(...others.map(({ netMinor }) => netMinor));
  const gross = repair ? repair.netMinor + repair.expectedMinor : 0;
  const parts = expected(facts, ({ parts: of }) => of);
  const breakEvenMinor = Math.round(gross - next);
  return {
    options: [...(repair ? [repair] : []), ...others].sort((a, b) => b.netMinor - a.netMinor || (a.option < b.option ? -1 : 1)),
    worksMinor: Math.round(worksMinor),
    breakEvenMinor,
    minutesByBook: rateMinorPerHour === 0 ? 0 : Math.round((expected(asked, ({ minor, parts: of }) => minor - of) / rateMinorPerHour) * 60),
    breakEvenMinutes: rateMinorPerHour === 0 ? 0 : Math.max(0, Math.round(((breakEvenMinor - parts) / rateMinorPerHour) * 60)),
  };
}

const expected = ({ ends }: WorthFacts, of: (end: WorthFacts['ends'][number]) => number): number => {
  const total = ends.reduce((sum, { probability }) => sum + probability, 0);
  return total === 0 ? 0 : ends.reduce((sum, end) => sum + end.probability * of(end), 0) / total;
};

/** Of an end, as foreseen. */
const billOf = (
  { end, minor }: WorthFacts['ends'][number],
  { spentMinor, feeMinor }: Pick<WorthFacts, 'spentMinor' | 'feeMinor'>,
): number => (end === 'cured' ? spentMinor + minor : feeMinor);

function ofRepair(facts: WorthFacts, worksMinor: number, random: () => number): OptionWorth | undefined {
  if (facts.ends.length === 0) return undefined;
  const works = expected(facts, ({ end }) => (end === 'cured' ? 1 : 0));
  const bill = expected(facts, (end) => billOf(end, facts));
  const bills = simulatedBills(facts, random);
  const at = (share: number): number => Math.round(bills[Math.min(bills.length - 1, Math.floor(share * bills.length))] ?? bill);
  return {
    option: 'repair',
    expectedMinor: Math.round(bill),
    lowMinor: at(0.1),
    highMinor: at(0.9),
    works,
    withLoss: 0,
    fails: 1 - works,
    netMinor: Math.round(works * worksMinor + (1 - works) * facts.donorMinor - bill),
  };
}

/** Whole bills of so many jobs like this one, in rising order: an end by its chance, its labour and its price each with its spread. */
export function simulatedBills(
  { ends, spentMinor, feeMinor }: Pick<WorthFacts, 'ends' | 'spentMinor' | 'feeMinor'>,
  random: () => number,
): Float64Array {
  const total = ends.reduce((sum, { probability }) => sum + probability, 0);
  const bills = new Float64Array(ends.length === 0 || total <= 0 ? 0 : draws);
  for (let draw = 0; draw < bills.length; draw += 1) {
    let left = random() * total;
    const end = ends.find(({ probability }) => (left -= probability) <= 0) ?? ends.at(-1);
    if (!end) continue;
    // Divided by its mean, so that the spread moves no expected value.
    const labour = Math.exp(labourSpread * gaussian(random) - labourSpread ** 2 / 2);
    const price = 1 + priceSpread * (2 * random() - 1);
    bills[draw] = end.end === 'cured' ? spentMinor + (end.minor - end.parts) * labour + end.parts * price : feeMinor;
  }
  return bills.sort();
}

/** Box and Muller, one of their two. */
const gaussian = (random: () => number): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
