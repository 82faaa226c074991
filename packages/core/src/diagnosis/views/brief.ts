/**
 * What a list of jobs needs of a case: the likeliest assembly and how it stands, the next step, the set's state, what was spent. Without the
 * reasons, which cost a belief for each entry.
 */
import type { CompiledPack } from '../../knowledge/index.ts';
import type { CaseInput, SetState } from '../../ledger/index.ts';
import { bookFor } from '../../learning/index.ts';
import type { Depth } from '../advice/cheapest.ts';
import { recommend, type Policy, type Recommendation } from '../advice/next.ts';
import { believe, type Belief } from '../belief/belief.ts';
import { rounded } from '../belief/posterior.ts';
import { proofOf } from '../verdict/proof.ts';
import type { Verdict } from '../verdict/verdict.ts';
import { spentSoFar, type Spent } from './spent.ts';

/** What a list of jobs needs of a case. */
export interface Brief extends Recommendation {
  /** The pack with what the shop has counted. */
  readonly compiled: CompiledPack;
  readonly belief: Belief;
  /** The likeliest: what stands first is never ruled out. */
  readonly top?: { readonly id: string; readonly probability: number; readonly verdict: Verdict };
  readonly set: SetState & { readonly layout: string | undefined; readonly family?: string; readonly stageId: string };
  /** Hands-on time so far. */
  readonly spent: Spent;
}

/** Top assembly, next steps and verdict without the lists a screen draws: the cheap fold. `none`: without the next steps, which cost most of it. */
export function briefOf(input: CaseInput, book: CompiledPack, policy: Policy = 'cost', depth: Depth | 'none' = 'settled'): Brief {
  const compiled = bookFor(input, book);
  const belief = believe(input, compiled);
  const { interpretation } = belief;
  const [first] = [...belief.assemblies].map(([id, probability]) => ({ id, probability })).sort(byProbability);
  const proof = first && proofOf(belief, first.id, compiled);
  const verdict: Verdict = proof === undefined ? 'suspect' : proof.met ? 'proven' : 'likely-not-split';
  return {
    compiled,
    belief,
    ...(first ? { top: { ...first, verdict } } : {}),
    set: {
      ...interpretation.state,
      layout: interpretation.layoutId,
      ...(interpretation.family ? { family: interpretation.family.id } : {}),
      stageId: compiled.stageIds[interpretation.state.stage] ?? '',
    },
    spent: spentSoFar(input, compiled, interpretation.layoutId),
    ...(depth === 'none' ? { next: [], leftOut: [] } : recommend(belief, compiled, input.settings, policy, depth)),
  };
}

interface Likely {
  readonly id: string;
  readonly probability: number;
}
/** Likeliest first, by id where two are alike. */
export const byProbability = (a: Likely, b: Likely): number => rounded(b.probability) - rounded(a.probability) || (a.id < b.id ? -1 : 1);
