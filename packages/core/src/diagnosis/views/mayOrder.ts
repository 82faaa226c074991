/** Whether a part of this job may be ordered, with what the job has taken so far and what fitting it will take. */
import type { CompiledPack } from '../../knowledge/index.ts';
import { liveEntries, type CaseInput } from '../../ledger/index.ts';
import { orderRefused, type OrderRefusal } from '../../parts/index.ts';
import { priceOf } from '../advice/steps.ts';

/** A part to be ordered; minor units. */
export interface PartAsked {
  readonly assembly: string;
  readonly priceMinor: number;
}

/** Undefined: it may. `ownSet`: the shop’s own. `layoutId`: the likeliest. */
export function mayOrder(
  { entries, settings }: CaseInput,
  { assembly, priceMinor }: PartAsked,
  of: { readonly ownSet: boolean; readonly layoutId: string | undefined; readonly spentMinor: number },
  compiled: CompiledPack,
): { readonly why: OrderRefusal; readonly overMinor?: number } | undefined {
  const repair = compiled.repairsOf.get(of.layoutId ?? '')?.find((one) => one.assembly === assembly && one.kind === 'replace');
  return orderRefused(liveEntries(entries), {
    ownSet: of.ownSet,
    priceMinor,
    spentMinor: of.spentMinor,
    fittingMinor: priceOf({ handsOn: repair?.minutes ?? 0, wait: 0 }, settings).amountMinor,
    trifleMinor: settings.orderFreeMinor,
  });
}
