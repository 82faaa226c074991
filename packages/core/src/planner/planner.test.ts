import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bestPlan, minutesUntil, planDay, type PlannedSet } from './index.ts';

const set = (id: string, steps: [number, number][], more: Partial<PlannedSet> = {}): PlannedSet => ({
  id,
  readyIn: 0,
  steps: steps.map(([hands, wait], index) => ({ id: `${id}${index + 1}`, hands, wait })),
  ...more,
});
const order = (sets: PlannedSet[], technicians = 1): string =>
  planDay(sets, technicians)
    .slots.map(({ step }) => step)
    .join(' ');

describe('two technicians', () => {
  test('work beside each other: two sets of half an hour are done after half an hour', () => {
    const { slots } = planDay([set('a', [[30, 0]]), set('b', [[30, 0]])], 2);
    expect(slots.map(({ start, end }) => [start, end])).toEqual([
      [0, 30],
      [0, 30],
    ]);
  });
  test('who is free first takes the next', () => {
    const { slots } = planDay([set('a', [[10, 0]]), set('b', [[40, 0]]), set('c', [[60, 0]])], 2);
    expect(Math.max(...slots.map(({ end }) => end))).toBe(70);
  });
});

describe('one technician', () => {
  test('attended steps fill the other set’s wait', () => {
    // a waits 30 minutes after 2; b is worked on meanwhile.
    expect(
      order([
        set('a', [
          [2, 30],
          [10, 0],
        ]),
        set('b', [[20, 0]]),
      ]),
    ).toBe('a1 b1 a2');
    expect(
      planDay(
        [
          set('a', [
            [2, 30],
            [10, 0],
          ]),
          set('b', [[20, 0]]),
        ],
        1,
      ).slots.at(-1),
    ).toMatchObject({ start: 32, end: 42 });
  });
  test('shortest first brings the mean time down (Smith 1956: shortest processing time is optimal for the sum of completion times)', () => {
    const sets = [set('a', [[30, 0]]), set('b', [[5, 0]]), set('c', [[12, 0]])];
    expect(order(sets)).toBe('b1 c1 a1');
    // 5 + 17 + 47.
    expect(planDay(sets, 1).cost).toBe(69);
  });
  test('a promise that would be missed comes first', () => {
    expect(order([set('a', [[5, 0]]), set('b', [[30, 0]], { dueIn: 32 })])).toBe('b1 a1');
  });
  test('a set whose wait still runs is not gone to before it is over', () => {
    const { slots } = planDay([set('a', [[5, 0]], { readyIn: 12 }), set('b', [[3, 0]])], 1);
    expect(slots.map(({ step, start }) => [step, start])).toEqual([
      ['b1', 0],
      ['a1', 12],
    ]);
  });
  test('late already: counted as due now, and late by the time it takes', () => {
    expect(planDay([set('a', [[10, 0]], { dueIn: -500 })], 1)).toMatchObject({ late: 10 });
  });
  test('nothing to do is an empty plan; nobody to do it is refused', () => {
    expect(planDay([], 1)).toEqual({ slots: [], late: 0, cost: 0 });
    expect(() => planDay([], 0)).toThrow(RangeError);
  });
});

test('two technicians share the sets, and no one is at two at once', () => {
  const sets = [
    set('a', [
      [10, 5],
      [10, 0],
    ]),
    set('b', [[10, 0]]),
    set('c', [[20, 0]]),
  ];
  const { slots } = planDay(sets, 2);
  expect(new Set(slots.map(({ technician }) => technician)).size).toBe(2);
  for (const a of slots)
    for (const b of slots) if (a !== b && a.technician === b.technician) expect(a.end <= b.start || b.end <= a.start).toBe(true);
});

test.each([
  ['today at nine', '2026-03-02', 9 * 60, 480],
  ['today at four', '2026-03-02', 16 * 60, 60],
  ['today after hours', '2026-03-02', 20 * 60, 0],
  ['tomorrow, from four', '2026-03-03', 16 * 60, 540],
  ['yesterday', '2026-03-01', 9 * 60, -480],
])('working minutes until %s', (_, on, minute, expected) => {
  expect(minutesUntil(on, '2026-03-02', minute)).toBe(expected);
});

const anySet = (id: string): fc.Arbitrary<PlannedSet> =>
  fc
    .record({
      steps: fc.array(fc.tuple(fc.integer({ min: 1, max: 40 }), fc.constantFrom(0, 0, 2, 4, 15, 30, 60)), { minLength: 1, maxLength: 2 }),
      readyIn: fc.constantFrom(0, 0, 0, 10, 40),
      dueIn: fc.option(fc.integer({ min: -20, max: 200 }), { nil: undefined }),
    })
    .map(({ steps, ...more }) => set(id, steps, more));

test('within five hundredths of the best of all orders on the mean of small cases, and never a rule broken', () => {
  const ratios: number[] = [];
  fc.assert(
    fc.property(fc.tuple(anySet('a'), anySet('b'), anySet('c'), anySet('d')), fc.integer({ min: 1, max: 2 }), (sets, technicians) => {
      const plan = planDay(sets, technicians);
      for (const one of sets) {
        const own = plan.slots.filter((slot) => slot.set === one.id);
        expect(own.map(({ step }) => step)).toEqual(one.steps.map(({ id }) => id));
        own.forEach((slot, index) => {
          const before = own[index - 1];
          expect(slot.start).toBeGreaterThanOrEqual(before ? before.end + (one.steps[index - 1]?.wait ?? 0) : one.readyIn);
        });
      }
      ratios.push(plan.cost / bestPlan(sets, technicians).cost);
    }),
    { numRuns: 150, seed: 11 },
  );
  expect(ratios.length).toBeGreaterThanOrEqual(150);
  const mean = ratios.reduce((a, b) => a + b, 0) / ratios.length;
  expect(Math.min(...ratios)).toBeGreaterThan(1 - 1e-9);
  expect(mean).toBeLessThanOrEqual(1.05);
  expect(Math.max(...ratios)).toBeLessThan(1.3);
});
