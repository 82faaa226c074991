import { compilePack } from '@veglia/core';
import { describe, expect, test } from '@jest/globals';
import { readCompiled, shippedPackFolder } from './input.ts';
import { packReport } from './packReport.ts';

describe('what a pack says of itself', () => {
  test('no two faults of the shipped book need a swap; without the cuts some do, and a test nothing asks for is named', async () => {
    const { compiled } = await readCompiled(shippedPackFolder);
    const whole = packReport(compiled, 1);
    expect(whole.onlyASwapTellsApart).toEqual([]);
    const { pack } = compiled;
    // A torch that lights nothing else, and a swap: the backlight's parts can't be told from each other any more.
    const poor = compilePack({ ...pack, tests: pack.tests.filter(({ id }) => ['torch', 'swap.known-good', 'heat.all-but'].includes(id)) });
    const report = packReport(poor, 1);
    const pairs = report.onlyASwapTellsApart.filter(({ layout, symptom }) => layout === 'separate-driver' && symptom === 'sound-dark');
    expect(pairs.length).toBeGreaterThan(0);
    for (const { faults } of pairs) expect(faults[0]).not.toBe(faults[1]);
    // Two hours a round: no play by cost asks for it.
    expect(whole.neverRecommended).toContain('heat.all-but');
    expect(whole.neverRecommended).not.toContain('torch');
  });
});
