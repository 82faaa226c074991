/** The quick line of a case: which tests this set has, and what they show where nothing is wrong. */
import { believe, circumstancesIn, plainOutcome } from '../diagnosis/index.ts';
import type { CompiledPack } from '../knowledge/index.ts';
import type { CaseInput } from '../ledger/index.ts';
import { readQuickLine, type QuickReading } from './quicklog.ts';

/** Where no layout is known at all, everything stays a note. */
export function readQuick(line: string, input: CaseInput, compiled: CompiledPack): QuickReading {
  const { interpretation } = believe(input, compiled);
  const { layoutId, family } = interpretation;
  if (layoutId === undefined) return { items: [], rest: line.trim() === '' ? [] : [line.trim()] };
  const now = circumstancesIn(layoutId, interpretation, compiled);
  return readQuickLine(line, { compiled, layoutId, family, plainOutcome: (test) => plainOutcome(test, now, compiled) });
}
