/** What is not to be had: said before anybody looks for it. */
import type { CompiledPack, Text } from '../knowledge/index.ts';

/** Why a part can’t be bought, or hardly. */
export type NotSold =
  | { readonly how: 'rarely' | 'never'; readonly why: Text }
  /** In this layout it is part of another assembly. */
  | { readonly how: 'part-of'; readonly of: string };

/** Undefined: nothing speaks against buying it. `fault`: the one it is most likely for, where one is. */
export function notSold(
  assembly: string,
  fault: string | undefined,
  layoutId: string | undefined,
  compiled: CompiledPack,
): NotSold | undefined {
  const merged = layoutId === undefined ? undefined : compiled.layouts.get(layoutId)?.merges?.[assembly];
  if (merged !== undefined) return { how: 'part-of', of: merged };
  const ofFault = fault === undefined ? undefined : compiled.faults.get(compiled.currentId(fault));
  if (ofFault?.assembly === assembly && ofFault.sold) return ofFault.sold;
  return compiled.pack.assemblies.find(({ id }) => id === assembly)?.sold;
}
