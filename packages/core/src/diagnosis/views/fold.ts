/**
 * The fold: ledger in, everything that is decided out. Screens, server, command line and statistics read this and
 * nothing else. Same entries + pack + engine = same answer.
 */
import type { CompiledPack } from '../../knowledge/index.ts';
import type { CaseInput } from '../../ledger/index.ts';
import { countedFor } from '../../learning/index.ts';
import { badFit, influences } from '../belief/belief.ts';
import { notInBook, type Doubt, type Unused } from '../evidence/interpretation.ts';
import type { Depth } from '../advice/cheapest.ts';
import type { LeftOut, Policy } from '../advice/next.ts';
import { mayHideSecond, twoFaults } from '../belief/pairs.ts';
import { rounded } from '../belief/posterior.ts';
import type { NextStep } from '../advice/steps.ts';
import { proofOf } from '../verdict/proof.ts';
import { rulingEntry, ruledOut, type MissingStep, type Verdict } from '../verdict/verdict.ts';
import { briefOf, byProbability, type Brief } from './brief.ts';

/** Rises when the same case may fold to other numbers. */
export const engine = 'veglia-core/11';

/** An entry that moved an assembly’s probability. */
export interface Because {
  /** Entry id and seq. */
  readonly entry: string;
  readonly seq: number;
  /** Natural log-odds this entry moved the assembly by. */
  readonly weight: number;
}

/** An assembly as a screen shows it. */
export interface AssemblyView {
  readonly id: string;
  readonly probability: number;
  readonly verdict: Verdict;
  /** Closed jobs of this layout behind its priors, and counted experience told, apart. */
  readonly n?: { readonly jobs: number; readonly told: number };
  /** For likely-not-split: the quickest way left to the proof; empty where this set offers none. */
  readonly missing?: readonly MissingStep[];
  /** For cleared: the entry that ruled it out. Never a symptom alone, however much it weighed. */
  readonly ruledOutBy?: string;
  readonly because: readonly Because[];
}

/** A fault as a screen shows it. */
export interface FaultView {
  readonly id: string;
  /** What is swapped for it in the likeliest layout that has it. */
  readonly assembly?: string;
  readonly probability: number;
}

/** A case, folded: what `veglia case fold` prints. */
export interface CaseFold {
  readonly engine: string;
  readonly pack: string;
  /** Number of the counts the job was opened with. */
  readonly snapshot?: number;
  readonly assemblies: readonly AssemblyView[];
  readonly faults: readonly FaultView[];
  readonly set: Brief['set'];
  readonly spent: Brief['spent'];
  readonly doubts: readonly Doubt[];
  readonly next: readonly NextStep[];
  readonly leftOut: readonly LeftOut[];
  readonly unused: readonly Unused[];
  readonly cautionsRead: readonly string[];
  /** Symptoms the case now goes by: after a change, those told since. */
  readonly symptoms: readonly string[];
  readonly closed: boolean;
}

/** Influences smaller than this move no probabilities anyone would see. */
const leastWeight = 0.02;
/** Two faults are spoken of once they are likelier than one. */
const likelierThanOne = 0.5;

/** `depth` at once: for a screen that shows probabilities now and lets a worker settle the steps. */
export function foldCase(input: CaseInput, book: CompiledPack, policy: Policy = 'cost', depth: Depth = 'settled'): CaseFold {
  const { counts } = input;
  const { compiled, belief, set, spent, next, leftOut } = briefOf(input, book, policy, depth);
  const { interpretation } = belief;
  const { thresholds } = compiled.pack;
  const moved = influences(input, compiled, belief);
  const two = twoFaults(input, belief, compiled);
  const hidden = mayHideSecond(input, compiled);
  const assemblies = [...belief.assemblies]
    .map(([id, probability]): AssemblyView => {
      const because = moved
        .map(({ entry, weights }) => ({ entry: entry.id, seq: entry.seq, weight: weights.get(id) ?? 0 }))
        .filter((one) => Math.abs(one.weight) >= leastWeight)
        .sort((a, b) => rounded(Math.abs(b.weight)) - rounded(Math.abs(a.weight)) || a.seq - b.seq);
      const proof = proofOf(belief, id, compiled);
      if (proof) {
        return {
          id,
          probability,
          verdict: proof.met ? 'proven' : 'likely-not-split',
          ...(proof.met ? {} : { missing: proof.missing }),
          because,
        };
      }
      // After a surge or a fall a second fault may be hidden until power returns: as that too it has to be unlikely.
      const involved = hidden ? Math.max(probability, two?.involved.get(id) ?? 0) : probability;
      if (!ruledOut(id, involved, thresholds.cleared, moved, interpretation, belief))
        return { id, probability, verdict: 'suspect', because };
      const by = rulingEntry(id, moved);
      return { id, probability, verdict: 'cleared', ...(by === undefined ? {} : { ruledOutBy: by }), because };
    })
    .map((one): AssemblyView => {
      const { layoutId } = interpretation;
      return counts && layoutId !== undefined ? { ...one, n: countedFor(counts, compiled, layoutId, one.id) } : one;
    })
    .sort(byProbability);

  const faultProbabilities = new Map<string, number>();
  const seats = new Map<string, string>();
  interpretation.hypotheses.forEach(({ fault, layoutId: hypothesisLayout }, index) => {
    const id = fault?.id ?? notInBook;
    if (fault && (hypothesisLayout === interpretation.layoutId || !seats.has(id))) seats.set(id, fault.assembly);
    faultProbabilities.set(id, (faultProbabilities.get(id) ?? 0) + (belief.probabilities[index] ?? 0));
  });
  const faults = [...faultProbabilities]
    .map(([id, probability]): FaultView => {
      const assembly = seats.get(id);
      return { id, probability, ...(assembly === undefined ? {} : { assembly }) };
    })
    .sort(byProbability);

  const unknown = belief.assemblies.get(notInBook) ?? 0;
  const doubts: Doubt[] = [...interpretation.doubts];
  if (unknown > badFit) doubts.push({ code: 'fits-nothing-well', value: unknown });
  if (two && two.probability > likelierThanOne) doubts.push({ code: 'may-be-two', value: two.probability });
  return {
    engine,
    pack: compiled.hash,
    ...(counts ? { snapshot: counts.snapshot } : {}),
    assemblies,
    faults,
    set,
    spent,
    doubts,
    next,
    leftOut,
    unused: interpretation.unused,
    cautionsRead: [...interpretation.cautionsRead].sort(),
    symptoms: [...interpretation.symptoms],
    closed: interpretation.closed,
  };
}
