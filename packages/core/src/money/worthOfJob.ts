/** Repair or not, for a case as it stands: ends of the likely way on, what one more check is worth, and what each option leaves the customer. */
import { believe, decideFrom, spentSoFar } from '../diagnosis/index.ts';
import { testValues } from '../decision/index.ts';
import { bookFor } from '../learning/index.ts';
import type { CompiledPack } from '../knowledge/index.ts';
import type { CaseInput } from '../ledger/index.ts';
import { billEnds, usualBillLimits } from './bill.ts';
import { repairOrNot, type Worth, type WorthFacts } from './worth.ts';

/** What the ledger does not say; minor units. */
export type WorthAsked = Pick<WorthFacts, 'feeMinor' | 'newSetMinor' | 'ageYears' | 'donorMinor' | 'offers' | 'pace'>;
/** Options of a case, and the check that is worth most before a part is bought: what it saves, less what it costs. */
export interface JobWorth extends Worth {
  readonly check?: { readonly id: string; readonly worthMinor: number; readonly costMinor: number };
}

/** Undefined where nothing is known to be wrong, a repair cleared it, or the job is closed. Takes some tenths of a second: for a worker. */
export function worthOfJob(input: CaseInput, book: CompiledPack, asked: WorthAsked, random: () => number): JobWorth | undefined {
  const compiled = bookFor(input, book);
  const belief = believe(input, compiled);
  const { interpretation } = belief;
  if (interpretation.closed || interpretation.cured || interpretation.units.length === 0) return undefined;
  const from = decideFrom(belief, compiled, input.settings);
  if (!from) return undefined;
  const { model, at, plan, repairs } = from.decision;
  const partOf = (index: number): number => (repairs[index]?.partShare ?? 0) * input.settings.newSetMinor;
  const way = billEnds(model, at, usualBillLimits, partOf).map((end) => ({ ...end, parts: end.parts ?? 0 }));
  // Behind cracked glass nothing else that is put right gives a set that can be used.
  const glass = repairs.findIndex(({ question }) => question === true);
  const ends =
    interpretation.cracked && glass >= 0
      ? [{ probability: 1, minor: model.repairs[glass]?.cost ?? 0, parts: partOf(glass), end: 'cured' as const }]
      : way;
  const spentMinor = spentSoFar(input, compiled, interpretation.layoutId).total.amountMinor;
  const worth = repairOrNot({ ...asked, ends, spentMinor }, input.settings.rateMinorPerHour, random);
  const total = at.probabilities.reduce((sum, one) => sum + one, 0) || 1;
  const checks = testValues(model, at, plan)
    .map(({ index, cost, saves }) => ({
      id: model.tests[index]?.id ?? '',
      worthMinor: Math.round((saves - cost) / total),
      costMinor: Math.round(cost / total),
    }))
    .sort((a, b) => b.worthMinor - a.worthMinor || (a.id < b.id ? -1 : 1));
  const [best] = interpretation.cracked ? [] : checks;
  return { ...worth, ...(best && best.worthMinor > 0 ? { check: best } : {}) };
}
