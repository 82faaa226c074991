import { describe, expect, test } from '@jest/globals';
import { liveEntries, type Body, type Entry } from '../ledger/index.ts';
import { shipped } from '../testing/shipped.ts';
import { checksMissing, proofBeforeClosing, proofNeeds, proofOfRepair, type Proof } from './proof.ts';
import { proofCases, proofCourses, proofGates } from './proofCases.ts';
import { delaysCompared, failureBound } from './starts.ts';
import { boundCases, delayCases } from './startsCases.ts';

/** An entry an hour, so that a day holds many and a week is written down at once. */
const ledger = (bodies: readonly Body[], hours = 0.1): Entry[] =>
  bodies.map((body, index) => ({
    id: `e${index}`,
    seq: index + 1,
    at: new Date(Date.UTC(2026, 0, 5) + index * hours * 3_600_000).toISOString(),
    by: 'someone',
    basedOn: index,
    body,
  }));
const stageOf = (bodies: readonly Body[]): number => {
  const stage = bodies.findLast((one) => one.kind === 'set.changed' && one.stage !== undefined);
  return stage?.kind === 'set.changed' ? ['closed', 'back-off', 'panel-open'].indexOf(stage.stage ?? '') : 0;
};
const proof = (bodies: readonly Body[], layout = 'led-tcon', hours = 0.1): Proof => {
  expect(shipped().layouts.has(layout)).toBe(true);
  return proofOfRepair(liveEntries(ledger(bodies, hours)), { stage: stageOf(bodies) }, shipped());
};
const item = ({ items }: Proof, id: string) => items.find((one) => one.id === id);

describe('what has to be seen before a set leaves', () => {
  test.each(proofCases.map((one) => [one.name, one] as const))('%s', (_, { bodies, layout, asks, not, starts, soakHours, days }) => {
    const found = proof(bodies, layout);
    const ids = found.items.map(({ id }) => id);
    expect(ids).toEqual(expect.arrayContaining([...(asks ?? [])]));
    expect(ids.filter((id) => not?.includes(id))).toEqual([]);
    if (starts) expect(item(found, 'starts')).toMatchObject(starts);
    if (soakHours !== undefined) expect(item(found, 'soak')?.hours ?? null).toBe(soakHours);
    if (days !== undefined) expect(item(found, 'days')?.days ?? null).toBe(days);
  });
  test.each(proofCourses.map((one) => [one.name, one] as const))('%s', (_, { bodies, state, starts }) => {
    const found = proof(bodies);
    for (const [id, where] of Object.entries(state)) expect([id, item(found, id)?.state]).toEqual([id, where]);
    if (starts) expect(found.starts).toMatchObject(starts);
  });
  test.each(proofGates.map((one) => [one.name, one] as const))('%s', (_, { outcome, bodies, inTheWay }) => {
    expect(proofBeforeClosing({ outcome }, ledger(bodies), { stage: stageOf(bodies) }, shipped())).toEqual(inTheWay);
  });
});

const opened: Body = { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } };
const cleaned: readonly Body[] = [
  opened,
  { kind: 'symptom.reported', v: 2, symptoms: ['half-picture'] },
  { kind: 'set.changed', v: 3, stage: 'back-off' },
  { kind: 'repair.done', v: 2, repair: 'renew.picture', result: 'cured' },
];
const start = (started = true): Body => ({ kind: 'start.timed', v: 1, started, cold: true });

test('a week of daily starts is seven days, not seven starts; one that fails ends it', () => {
  const week = [...cleaned, ...Array.from({ length: 7 }, () => start())];
  expect([item(proof(week, 'led-tcon', 1), 'days')?.state, item(proof(week, 'led-tcon', 24), 'days')?.state]).toEqual(['open', 'passed']);
  expect(item(proof([...week, start(false)], 'led-tcon', 24), 'days')?.state).toBe('failed');
});
test('what is to come in minutes: hands and waiting apart', () => {
  const fresh = proof(cleaned);
  expect(item(fresh, 'days')).toMatchObject({ minutes: 14, waitMinutes: 0 });
  expect(item(fresh, 'starts')).toMatchObject({ minutes: 2, waitMinutes: 30 });
  expect(item(proof([...cleaned, start(), start()]), 'starts')).toMatchObject({ state: 'passed', minutes: 0, waitMinutes: 0 });
});
test('a safety check that was looked at in the proof is not asked for again at closing; one that failed is', () => {
  const bodies: Body[] = [...cleaned, { kind: 'proof.checked', v: 1, item: 'ground-screws', result: 'passed' }];
  expect(checksMissing({ outcome: 'repaired' }, ledger(cleaned), { stage: 1 }, shipped())).toEqual(['ground-screws']);
  expect(checksMissing({ outcome: 'repaired' }, ledger(bodies), { stage: 1 }, shipped())).toEqual([]);
  const loose: Body[] = [...bodies, { kind: 'proof.checked', v: 1, item: 'ground-screws', result: 'failed' }];
  expect(checksMissing({ outcome: 'repaired' }, ledger(loose), { stage: 1 }, shipped())).toEqual(['ground-screws']);
  // As it was answered before there was a proof.
  const open = proofBeforeClosing(
    { outcome: 'repaired', checked: { 'ground-screws': 'passed' } },
    ledger(cleaned),
    { stage: 1 },
    shipped(),
  );
  expect(open).not.toContain('ground-screws');
});
test('what needs power is not looked at on an unplugged set, and insulation is measured on nothing else', () => {
  const found = proof([...cleaned, { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' }, condition: ['storm'] }]);
  const needs = (id: string, plugged: boolean) => {
    const one = item(found, id);
    return one && proofNeeds(one, { plugged });
  };
  expect([needs('sound', false), needs('sound', true)]).toEqual(['plug-in', undefined]);
  expect([needs('insulation', true), needs('insulation', false)]).toEqual(['unplug', undefined]);
  expect([needs('ground-screws', true), needs('starts', true), needs('starts', false)]).toEqual(['unplug', undefined, undefined]);
});
test('a pack without rows asks for nothing but safety, as before', () => {
  const compiled = shipped();
  const without = { ...compiled, pack: { ...compiled.pack, proof: [] } };
  expect(proofBeforeClosing({ outcome: 'repaired' }, ledger(cleaned), { stage: 1 }, without)).toEqual([]);
  expect(checksMissing({ outcome: 'repaired' }, ledger(cleaned), { stage: 1 }, without)).toEqual(['ground-screws']);
});

describe('what starts say', () => {
  test.each(boundCases)('%i starts, %i failed: at most %f', (starts, failed, bound) => {
    expect(failureBound(starts, failed)).toBeCloseTo(bound, 3);
  });
  test('no start says nothing, and more failed than were tried is no count', () => {
    expect(() => failureBound(0, 0)).toThrow(RangeError);
    expect(() => failureBound(3, 4)).toThrow(RangeError);
    expect(failureBound(3, 3)).toBe(1);
  });
  test.each(delayCases.map((one) => [one.before.join(' '), one] as const))('%s', (_, { before, after, medians, byChance }) => {
    const found = delaysCompared(before, after);
    expect(found?.medians).toEqual(medians);
    expect(found?.byChance).toBeCloseTo(byChance, 10);
  });
  test('nothing before is nothing to compare with; of very many only the medians', () => {
    expect(delaysCompared([], [5])).toBeUndefined();
    expect(
      delaysCompared(
        Array.from({ length: 12 }, () => 30),
        Array.from({ length: 12 }, () => 5),
      ),
    ).toEqual({ medians: [30, 5] });
  });
});
