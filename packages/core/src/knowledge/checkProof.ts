/** Rows of the proof: what they name has to be there, and each has the figure that its kind takes. */
import type { Problem } from '../problems.ts';
import { repairKinds, type Pack } from './schema.ts';

const figures = { starts: 'count', delay: 'count', soak: 'hours', days: 'days' } as const;

export function checkProof({ proof, assemblies, repairs, symptoms, cautions }: Pack, problems: Problem[]): void {
  const known = {
    assemblies: new Set(assemblies.map(({ id }) => id)),
    kinds: new Set<string>(repairKinds),
    parts: new Set(repairs.flatMap(({ part }) => part ?? [])),
    symptoms: new Set(symptoms.map(({ id }) => id)),
  };
  for (const row of proof) {
    const where = `proof/${row.id}`;
    for (const condition of row.when ?? [])
      for (const list of ['assemblies', 'kinds', 'parts', 'symptoms'] as const)
        for (const value of condition[list] ?? [])
          if (!known[list].has(value)) problems.push({ code: 'unknown-id', where: `${where}.when.${list}`, value, expected: list });
    for (const value of row.cautions ?? [])
      if (!cautions.some(({ id }) => id === value))
        problems.push({ code: 'unknown-id', where: `${where}.cautions`, value, expected: 'caution' });
    const figure = row.kind in figures ? figures[row.kind as keyof typeof figures] : undefined;
    if (figure !== undefined && row[figure] === undefined)
      problems.push({ code: 'schema', where: `${where}.${figure}`, expected: 'a number' });
    if ((row.cold ?? 0) > (row.count ?? 0)) problems.push({ code: 'schema', where: `${where}.cold`, expected: 'at most all of them' });
  }
}
