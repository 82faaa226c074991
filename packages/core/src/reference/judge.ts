/** Reference cases folded, and held against what they expect. */
import { foldCase, type CaseFold, type NextStep } from '../diagnosis/index.ts';
import type { CompiledPack } from '../knowledge/index.ts';
import { parseCase } from '../ledger/index.ts';
import type { Expectation, ReferenceCase } from './format.ts';

/** An expectation, and whether it holds. */
export interface Judged {
  readonly case: string;
  readonly after: number;
  /** What was expected, in one line; with case and `after` it names the expectation. */
  readonly asked: string;
  readonly because: string;
  readonly holds: boolean;
  /** What the fold says instead. */
  readonly found: string;
}

const stepName = ({ kind, id, of }: NextStep): string => (kind === 'test' && of !== undefined ? `${id}:${of}` : id);
const named = (step: NextStep, ids: readonly string[]): boolean => ids.includes(step.id) || ids.includes(stepName(step));
const figure = (share: number): string => share.toFixed(3);

function asked(one: Expectation): string {
  const bounds =
    'min' in one || 'max' in one
      ? `${one.min === undefined ? '' : ` at least ${one.min}`}${one.max === undefined ? '' : ` at most ${one.max}`}`
      : '';
  if (one.what === 'probability' || one.what === 'fault') return `${one.what} ${one.of.join('+')}${bounds}`;
  if (one.what === 'verdict') return `verdict ${one.of} ${one.is === undefined ? `not ${one.not ?? ''}` : `is ${one.is}`}`;
  if (one.within !== undefined) return `one of the first ${one.within} is ${(one.hasOneOf ?? []).join(' or ')}`;
  const parts = Object.entries(one.first ?? {}).map(([key, value]) => `${key} ${[value].flat().join(' ')}`);
  return `first step ${parts.join(', ')}`;
}

function judge(one: Expectation, fold: CaseFold): { holds: boolean; found: string } {
  const top = fold.assemblies
    .slice(0, 4)
    .map(({ id, probability, verdict }) => `${id} ${figure(probability)} ${verdict}`)
    .join(', ');
  const steps = fold.next.slice(0, one.what === 'next' ? (one.within ?? 3) : 3);
  const ahead = steps.map(stepName).join(' > ');
  if (one.what === 'probability' || one.what === 'fault') {
    const rows = (one.what === 'probability' ? fold.assemblies : fold.faults).filter(({ id }) => one.of.includes(id));
    if (rows.length === 0) return { holds: false, found: `this set has none of them | ${top}` };
    const total = rows.reduce((sum, { probability }) => sum + probability, 0);
    return { holds: total >= (one.min ?? 0) && total <= (one.max ?? 1), found: `${figure(total)} | ${top}` };
  }
  if (one.what === 'verdict') {
    const row = fold.assemblies.find(({ id }) => id === one.of);
    if (!row) return { holds: false, found: `this set has no ${one.of}` };
    return {
      holds: one.is === undefined ? row.verdict !== one.not : row.verdict === one.is,
      found: `${row.verdict} at ${figure(row.probability)} | ${top}`,
    };
  }
  if (one.within !== undefined) return { holds: steps.some((step) => named(step, one.hasOneOf ?? [])), found: `${ahead} | ${top}` };
  const [first] = fold.next;
  const { kindNot, idIn, idNotIn = [], stageNot = [] } = one.first ?? {};
  const holds =
    (first?.kind ?? 'none') !== kindNot &&
    (idIn === undefined || (first !== undefined && named(first, idIn))) &&
    (first === undefined || (!named(first, idNotIn) && !stageNot.includes(first.stage)));
  return { holds, found: `${ahead} | ${top}` };
}

/** Every expectation of a case, in its order. Throws InputRefused where an entry can't be read. */
export function judgeCase(one: ReferenceCase, compiled: CompiledPack): Judged[] {
  const folds = new Map<number, CaseFold>();
  const foldAfter = (after: number): CaseFold => {
    const known = folds.get(after);
    if (known) return known;
    const { input } = parseCase({
      format: 'veglia-case',
      version: 2,
      set: one.set,
      settings: one.settings,
      entries: one.entries.slice(0, after),
    });
    const made = foldCase(input, compiled);
    folds.set(after, made);
    return made;
  };
  return one.expect.map((expectation) => {
    const after = expectation.after ?? one.entries.length;
    return { case: one.id, after, asked: asked(expectation), because: expectation.because, ...judge(expectation, foldAfter(after)) };
  });
}

/** How the list of known misses names an expectation. */
export const missName = ({ case: id, after, asked: what }: Pick<Judged, 'case' | 'after' | 'asked'>): string =>
  `${id}, after ${after}: ${what}`;
