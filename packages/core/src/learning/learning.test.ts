import { describe, expect, test } from '@jest/globals';
import { foldCase, type CaseFold } from '../diagnosis/index.ts';
import type { Counts, Entry } from '../ledger/index.ts';
import { caseOf, shipped, type Told } from '../testing/shipped.ts';
import { calibration, calibrationOf, countsOf, mergeCounts, withCounts } from './index.ts';

const jobOf = (fault: string, symptom = 'sound-dark', set: Record<string, unknown> = {}) => {
  const input = caseOf([symptom], ['torch=faint-picture', { kind: 'fault.confirmed', assembly: 'main', fault }], set);
  return { set: input.set, entries: input.entries };
};
const probability = (fold: CaseFold, id: string): number => fold.assemblies.find((one) => one.id === id)!.probability;
const n = (fold: CaseFold, id: string) => fold.assemblies.find((one) => one.id === id)!.n;
const withThem = (counts: Counts, set: Record<string, unknown> = {}): CaseFold =>
  foldCase({ ...caseOf(['sound-dark'], [], set), counts }, shipped());

describe('learning from closed jobs', () => {
  test('thirty jobs with one fault move a new job’s priors, and n says so', () => {
    const counts = countsOf(
      Array.from({ length: 30 }, () => jobOf('main.light-command')),
      shipped(),
      4,
    );
    const before = foldCase(caseOf(['sound-dark']), shipped());
    const after = withThem(counts);
    expect(probability(after, 'main')).toBeGreaterThan(probability(before, 'main') * 3);
    expect(n(after, 'main')).toEqual({ jobs: 30, told: 0 });
    expect(n(after, 'strips')).toEqual({ jobs: 0, told: 0 });
    expect(after.snapshot).toBe(4);
    expect(before.snapshot).toBeUndefined();
  });

  test('a family learns more from its own jobs than its layout does, and another layout nothing', () => {
    const counts = countsOf(
      Array.from({ length: 12 }, () => jobOf('main.light-command', 'sound-dark', { family: 'quorvane.qk3' })),
      shipped(),
      1,
    );
    const gain = (set: Record<string, unknown>): number =>
      probability(withThem(counts, set), 'main') / probability(foldCase(caseOf(['sound-dark'], [], set), shipped()), 'main');
    expect(gain({ family: 'quorvane.qk3' })).toBeGreaterThan(gain({}));
    expect(gain({})).toBeGreaterThan(1.2);
    expect(gain({ layout: 'separate-driver' })).toBeCloseTo(1, 9);
  });

  test('counted experience weighs like jobs and is shown apart; of an assembly it is spread as the pack has it', () => {
    const told = (fault: string): Counts => ({
      snapshot: 1,
      jobs: [],
      told: [{ layout: 'led-tcon', fault, n: 20, by: 'a' }],
      outcomes: [],
    });
    const of = withThem(told('main'));
    expect(n(of, 'main')).toEqual({ jobs: 0, told: 20 });
    const before = foldCase(caseOf(['sound-dark']), shipped());
    expect(probability(of, 'main')).toBeGreaterThan(probability(before, 'main'));
    // Twenty told of one fault move it as twenty jobs do.
    const asJobs: Counts = { snapshot: 1, jobs: [{ layout: 'led-tcon', fault: 'tcon.bias-dead', n: 20 }], told: [], outcomes: [] };
    expect(withCounts(shipped(), told('tcon.bias-dead')).priors.get('led-tcon')).toEqual(
      withCounts(shipped(), asJobs).priors.get('led-tcon'),
    );
  });

  test('told with the symptom it came with, it speaks for that symptom more than without', () => {
    const told = (symptom?: string): Counts => ({
      snapshot: 1,
      jobs: [],
      told: [{ layout: 'led-tcon', ...(symptom === undefined ? {} : { symptom }), fault: 'tcon.bias-dead', n: 20, by: 'a' }],
      outcomes: [],
    });
    expect(probability(withThem(told('sound-dark')), 'tcon')).toBeGreaterThan(probability(withThem(told()), 'tcon'));
    expect(probability(withThem(told('half-picture')), 'tcon')).toBeLessThan(probability(withThem(told()), 'tcon'));
  });

  test('counts of single jobs, merged, are the counts of all of them, in whatever order', () => {
    const jobs = ['main.light-command', 'tcon.bias-dead', 'main.light-command'].map((fault, index) =>
      jobOf(fault, 'sound-dark', index === 2 ? { family: 'quorvane.qk3' } : {}),
    );
    const parts = jobs.map((job) => countsOf([job], shipped(), 0));
    const merged = mergeCounts(parts, [], 7);
    expect(merged).toEqual(mergeCounts([...parts].reverse(), [], 7));
    const all = countsOf(jobs, shipped(), 7);
    expect({ ...merged, jobs: new Set(merged.jobs), outcomes: new Set(merged.outcomes) }).toEqual({
      ...all,
      jobs: new Set(all.jobs),
      outcomes: new Set(all.outcomes),
    });
    expect(mergeCounts([...parts, ...parts], [], 7).jobs.map(({ n: times }) => times)).toEqual(
      merged.jobs.map(({ n: times }) => 2 * times),
    );
  });

  test('outcomes counted often enough move what a test is expected to show; a few do not', () => {
    const row = (times: number): number => {
      const learned = withCounts(shipped(), {
        snapshot: 1,
        jobs: [],
        told: [],
        outcomes: [{ layout: 'led-tcon', test: 'torch', fault: 'strips.led-open', outcome: 'nothing', n: times }],
      });
      const torch = learned.tests.get('torch')!;
      return learned.outcomeLikelihoods(torch, torch.likelihood.at(-1)!, 'led-tcon', 'strips.led-open')[
        learned.outcomeIds('torch').indexOf('nothing')
      ]!;
    };
    expect(row(3)).toBeCloseTo(row(1), 12);
    expect(row(40)).toBeGreaterThan(row(3) + 0.2);
  });

  test('priors stay probabilities, and an id the pack doesn’t know counts nothing', () => {
    const counts: Counts = {
      snapshot: 1,
      jobs: [
        { layout: 'led-tcon', fault: 'no.such', n: 9 },
        { layout: 'no-such', fault: 'tcon.bias-dead', n: 9 },
      ],
      told: [],
      outcomes: [],
    };
    const learned = withCounts(shipped(), counts);
    for (const [id, list] of learned.priors) {
      expect(list.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
      list.forEach((p, index) => expect(p).toBeCloseTo(shipped().priors.get(id)![index]!, 12));
    }
  });
});

test('a job counts only where its layout is certain and its fault was confirmed', () => {
  const confirmed = { kind: 'fault.confirmed', v: 1, assembly: 'strips', fault: 'strips.led-open' };
  const counted = (body: Told, set: Record<string, unknown> = { layout: 'led-tcon' }): number =>
    countsOf([caseOf(['sound-dark'], [body], set)], shipped(), 1).jobs.length;
  expect(counted(confirmed)).toBe(1);
  expect(counted(confirmed, { layout: { probabilities: { 'led-tcon': 0.9, oled: 0.1 } } })).toBe(0);
  expect(counted({ kind: 'fault.confirmed', v: 1, assembly: 'strips' })).toBe(0);
  expect(counted({ kind: 'note.added', v: 1, text: 'x' })).toBe(0);
});

describe('calibration', () => {
  test('Brier score and tenths of four forecasts, told by hand', () => {
    // (0.9-1)^2 + (0.9-1)^2 + (0.9-0)^2 + (0.2-0)^2 = 0.01 + 0.01 + 0.81 + 0.04 = 0.87; a quarter of it. Arithmetic, no source.
    const of = calibrationOf([
      { probability: 0.9, truth: 1 },
      { probability: 0.9, truth: 1 },
      { probability: 0.9, truth: 0 },
      { probability: 0.2, truth: 0 },
    ]);
    expect(of.brier).toBeCloseTo(0.2175, 12);
    expect(of.tenths[9]).toEqual({ told: expect.closeTo(0.9, 9) as unknown, cameTrue: expect.closeTo(2 / 3, 9) as unknown, n: 3 });
    expect(of.gap).toBeCloseTo((3 * (0.9 - 2 / 3) + 0.2) / 4, 9);
  });

  test('reads what was shown at the time, and a job without a confirmed fault counts nothing', () => {
    const shown = { kind: 'advice.shown', engine: 'e', top: [{ id: 'main', probability: 0.7, verdict: 'suspect' }] };
    const closed = caseOf(['sound-dark'], [shown, { kind: 'fault.confirmed', assembly: 'main' }]).entries;
    const open: readonly Entry[] = caseOf(['sound-dark'], [shown]).entries;
    const { n: count, brier } = calibration([closed, open]);
    expect(count).toBe(1);
    expect(brier).toBeCloseTo(0.09, 12);
  });
});
