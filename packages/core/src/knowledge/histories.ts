/** What happened to a set before it came here, as evidence: read off it at the counter, or told by who brings it. */
import type { Problem } from '../problems.ts';
import type { PlacedFault } from './applies.ts';
import type { History } from './historySchema.ts';
import type { Pack } from './schema.ts';

type Words = (word: string) => number;

/** P(this was told | fault). */
export function historyGiven({ told, otherwise }: History, fault: PlacedFault, pack: Pack, word: Words): number {
  const kind = pack.assemblies.find(({ id }) => id === fault.assembly)?.kind;
  const own = told[fault.id] ?? told[fault.assembly] ?? (kind === undefined ? undefined : told[kind]);
  if (own !== undefined) return word(own);
  const classes = Object.entries(fault.does ?? {});
  if (classes.length === 0) return word(otherwise);
  return classes.reduce((sum, [id, percent]) => sum + (percent / 100) * word(told[id] ?? otherwise), 0);
}

/** Those of the pack that were told, one of each kind. */
export function historiesTold(pack: Pack, told: readonly string[]): History[] {
  const found = pack.histories.filter(({ id }) => told.includes(id));
  return found.filter(({ kind }, index) => kind === undefined || !found.slice(index + 1).some((later) => later.kind === kind));
}

/** Adds a problem for each history that names something unknown or a word off the scale. */
export function checkHistories(pack: Pack, problems: Problem[]): void {
  const keys = new Set([
    ...pack.faults.map(({ id }) => id),
    ...pack.assemblies.flatMap(({ id, kind }) => [id, ...(kind === undefined ? [] : [kind])]),
    ...pack.classes.map(({ id }) => id),
  ]);
  for (const { id, told, otherwise, second, first = [] } of pack.histories) {
    const where = `histories/${id}`;
    for (const key of Object.keys(told)) {
      if (!keys.has(key)) problems.push({ code: 'unknown-id', where: `${where}.told`, value: key, expected: 'fault, assembly or class' });
    }
    for (const word of [...Object.values(told), otherwise, ...(second === undefined ? [] : [second])]) {
      if (pack.scale.likelihood[word] === undefined) problems.push({ code: 'word-unknown', where, value: word, expected: 'likelihood' });
    }
    for (const test of first) {
      if (!pack.tests.some((one) => one.id === test))
        problems.push({ code: 'unknown-id', where: `${where}.first`, value: test, expected: 'test' });
    }
  }
}
