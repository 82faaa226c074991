/** What was complained of as evidence: several symptoms of one set are mostly one reaction told twice, and told is not seen. */
import type { CompiledPack, Family, Manner, PlacedFault } from '../../knowledge/index.ts';

// Values of ours until the shop's closed jobs tell better ones.
/** The word written down is any word at all. */
const complaintError = 0.005;
/** Faults of no special kind: how often they come and go, show when cold only, or when warm only. */
const usualManner = { sometimes: 0.15, cold: 0.06, warm: 0.06 } as const;

/** What the set was said to do, and how. */
export interface Told {
  readonly complaints: readonly string[];
  /** Seen by the bench itself: named as what it is. */
  readonly seen?: boolean;
  readonly often?: 'always' | 'sometimes' | undefined;
  readonly temperature?: 'cold' | 'warm' | 'any' | undefined;
}

type Rows = Pick<CompiledPack, 'symptomLikelihoods' | 'symptomIds' | 'pack' | 'priorsIn' | 'faultsOf' | 'likelihoodWord'>;

/** P(a set with this fault is told of so); undefined: something not in the pack, which shows what the layout's sets show on average. */
export function toldGiven(
  fault: PlacedFault | undefined,
  layoutId: string,
  family: Family | undefined,
  told: Told,
  compiled: Rows,
): number {
  if (fault)
    return complaintGiven(compiled.symptomLikelihoods(layoutId, fault.id, family), told, compiled) * mannerGiven(fault, told, compiled);
  const probabilities = compiled.priorsIn(layoutId, family);
  return (compiled.faultsOf.get(layoutId) ?? []).reduce(
    (sum, one, index) => sum + (probabilities[index] ?? 0) * toldGiven(one, layoutId, family, told, compiled),
    0,
  );
}

function complaintGiven(row: readonly number[], { complaints, seen }: Told, compiled: Rows): number {
  // A light that blinks beside another symptom is a code, and evidence of its own.
  const own = complaints.length > 1 ? complaints.filter((id) => id !== 'blinking') : complaints;
  const shown = own.reduce((sum, id) => sum + (seen ? (row[compiled.symptomIds.indexOf(id)] ?? 0) : toldAs(id, row, compiled)), 0);
  return (1 - complaintError) * Math.min(1, shown) + complaintError / compiled.symptomIds.length;
}

/** P(this word is used | row of what is shown). */
function toldAs(word: string, row: readonly number[], { pack, symptomIds, likelihoodWord }: Rows): number {
  const place = symptomIds.indexOf(word);
  return pack.symptoms.reduce((sum, { toldAs: others = {} }, index) => {
    const shown = row[index] ?? 0;
    if (shown === 0) return sum;
    if (index !== place) return others[word] === undefined ? sum : sum + shown * likelihoodWord(others[word]);
    return sum + shown * (1 - Object.values(others).reduce((total, one) => total + likelihoodWord(one), 0));
  }, 0);
}

function mannerGiven(fault: PlacedFault, { often, temperature }: Told, compiled: Rows): number {
  const of = (kind: keyof Manner): number => {
    const own = fault.manner?.[kind];
    if (own !== undefined) return compiled.likelihoodWord(own);
    return Object.entries(fault.does ?? {}).reduce((sum, [id, percent]) => {
      const word = compiled.pack.classes.find((one) => one.id === id)?.manner?.[kind];
      return sum + (percent / 100) * (word === undefined ? usualManner[kind] : compiled.likelihoodWord(word));
    }, 0);
  };
  const frequency = often === 'sometimes' ? of('sometimes') : often === 'always' ? 1 - of('sometimes') : 1;
  const heat =
    temperature === 'cold' ? of('cold') : temperature === 'warm' ? of('warm') : temperature === 'any' ? 1 - of('cold') - of('warm') : 1;
  return (fault.does ? frequency : 1) * (fault.does ? Math.max(0.02, heat) : 1);
}
