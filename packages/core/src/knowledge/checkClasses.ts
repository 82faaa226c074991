/** What a pack says of mechanisms: shares that add up, nothing possible made next to impossible, nothing impossible without its law. */
import type { Problem } from '../problems.ts';
import { leastPossible } from './complaints.ts';
import type { Fault, Pack } from './schema.ts';

const sum = (shares: Readonly<Record<string, number>>): number => Object.values(shares).reduce((a, b) => a + b, 0);

/** Adds a problem for each class whose shares don't add up to 1000, are too small, or leave out a symptom without a law. */
export function checkClasses(pack: Pack, problems: Problem[]): void {
  const symptoms = new Map(pack.symptoms.map((one) => [one.id, one]));
  for (const { id, toldAs = {} } of pack.symptoms) {
    for (const [other, word] of Object.entries(toldAs)) {
      if (!symptoms.has(other)) problems.push({ code: 'unknown-id', where: `symptoms/${id}.toldAs`, value: other, expected: 'symptom' });
      if (pack.scale.likelihood[word] === undefined)
        problems.push({ code: 'word-unknown', where: `symptoms/${id}.toldAs`, value: word, expected: 'likelihood' });
    }
  }
  for (const { id, shares, layouts = {} } of pack.classes) {
    for (const [layout, row] of [['', shares], ...Object.entries(layouts)] as const) {
      const where = `classes/${id}.${layout === '' ? 'shares' : `layouts.${layout}`}`;
      if (layout !== '' && !pack.layouts.some((one) => one.id === layout))
        problems.push({ code: 'unknown-id', where, value: layout, expected: 'layout' });
      if (sum(row) !== 1000) problems.push({ code: 'row-sum', where, value: sum(row), expected: '1000' });
      for (const [symptom, share] of Object.entries(row)) {
        if (!symptoms.has(symptom)) problems.push({ code: 'unknown-id', where, value: symptom, expected: 'symptom' });
        if (share < leastPossible)
          problems.push({ code: 'too-rare', where: `${where}.${symptom}`, value: share, expected: String(leastPossible) });
      }
      for (const { id: symptom, law } of pack.symptoms) {
        if (!Object.hasOwn(row, symptom) && !law) problems.push({ code: 'never-without-law', where, value: symptom });
      }
    }
  }
}

/** Adds a problem where a fault's mix of classes doesn't add up to 100 percent or names none. */
export function checkMechanism(pack: Pack, fault: Fault, problems: Problem[]): void {
  const where = `faults/${fault.id}`;
  if (!fault.does && !fault.symptoms) problems.push({ code: 'schema', where, expected: 'does' });
  if (fault.does && fault.symptoms && !fault.reason) problems.push({ code: 'exception-without-reason', where, value: 'symptoms' });
  for (const mix of [fault.does, ...(fault.doesWhen ?? []).map(({ does }) => does)]) {
    if (!mix) continue;
    if (sum(mix) !== 100) problems.push({ code: 'row-sum', where: `${where}.does`, value: sum(mix), expected: '100' });
    for (const id of Object.keys(mix)) {
      if (!pack.classes.some((one) => one.id === id))
        problems.push({ code: 'unknown-id', where: `${where}.does`, value: id, expected: 'class' });
    }
  }
}
