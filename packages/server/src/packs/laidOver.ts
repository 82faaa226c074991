/** What a shop keeps of its own, laid over a shipped pack: the newest of each family; what no longer fits stays out and is named. */
import { InputRefused, type Pack } from '@veglia/core';

/** A pack with what was laid over it. */
export interface LaidOver {
  readonly pack: Pack;
  /** Families whose document no longer fits. */
  readonly leftOut: string[];
}

/** `rows`: newest first. `lay` throws InputRefused for a document that doesn't fit. */
export function laidOver(
  shipped: Pack,
  rows: readonly { readonly family: string; readonly document: object }[],
  lay: (pack: Pack, document: object) => Pack,
): LaidOver {
  const seen = new Set<string>();
  const leftOut: string[] = [];
  let pack = shipped;
  for (const { family, document } of rows) {
    if (seen.has(family)) continue;
    seen.add(family);
    try {
      pack = lay(pack, document);
    } catch (error) {
      if (!(error instanceof InputRefused)) throw error;
      leftOut.push(family);
    }
  }
  return { pack, leftOut };
}
