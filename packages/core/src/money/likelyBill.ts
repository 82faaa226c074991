/** The bill of a case as it stands: each layout still possible is followed by itself, and counts by its probability. */
import { believe, decideFrom, spentSoFar } from '../diagnosis/index.ts';
import { bookFor } from '../learning/index.ts';
import type { CompiledPack } from '../knowledge/index.ts';
import type { CaseInput } from '../ledger/index.ts';
import { billBars, billEnds, billSpread, usualBillLimits, type LikelyBill } from './bill.ts';

/** Layouts less likely than this are left out: they can't move a tenth of the bill. */
const leastLayout = 0.03;

/** Undefined where nothing is known to be wrong, or the job is closed. Takes some tenths of a second: for a worker. */
export function likelyBill(input: CaseInput, book: CompiledPack): LikelyBill | undefined {
  const compiled = bookFor(input, book);
  const { interpretation } = believe(input, compiled);
  if (interpretation.closed || interpretation.units.length === 0) return undefined;
  if (interpretation.cured) {
    const { amountMinor } = spentSoFar(input, compiled, interpretation.layoutId).total;
    const bars = billBars([{ probability: 1, minor: amountMinor, end: 'cured' }]);
    return { low: 0, middle: 0, high: 0, givenUp: 0, curedMiddle: 0, bars };
  }
  const layouts = Object.entries(interpretation.layoutProbabilities).filter(([, probability]) => probability >= leastLayout);
  const limits = { ...usualBillLimits, standings: Math.ceil(usualBillLimits.standings / Math.sqrt(layouts.length)) };
  const ends = layouts.flatMap(([layout, share]) => {
    const alone = { ...input, set: { ...input.set, layout }, entries: input.entries.filter(({ body }) => body.kind !== 'layout.found') };
    const from = decideFrom(believe(alone, compiled), compiled, input.settings);
    return from
      ? billEnds(from.decision.model, from.decision.at, limits).map((end) => ({ ...end, probability: end.probability * share }))
      : [];
  });
  const spread = billSpread(ends);
  const { amountMinor } = spentSoFar(input, compiled, interpretation.layoutId).cost;
  return spread && { ...spread, bars: billBars(ends.map((end) => ({ ...end, minor: end.minor + amountMinor }))) };
}
