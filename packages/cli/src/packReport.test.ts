import { compilePack } from '@veglia/core';
import { describe, expect, test } from '@jest/globals';
import { readCompiled, shippedPackFolder } from './input.ts';
import { packReport } from './packReport.ts';

describe('what a pack says of itself', () => {
  test('what only a swap tells apart is what the trade swaps for; without the cuts it is more, and a test nothing asks for is named', async () => {
    const { compiled } = await readCompiled(shippedPackFolder);
    const whole = packReport(compiled, 0);
    const named = new Set(whole.onlyASwapTellsApart.map(({ faults }) => faults.join(' or ')));
    expect([...named].sort()).toEqual(
      [
        // Wrong data looks the same whoever made it wrong.
        'main.picture-out or tcon.clock-dead',
        'main.picture-out or tcon.data-corrupt',
        // A supply that main doesn't give, or that the T-con pulls down: ohms to chassis with the cable out would tell, and aren't in the pack.
        'main.panel-switch or tcon.supply-short',
        // A bar of the plasma's glass and of the board that drives it.
        'panel.film-across or scan-buffers.bar',
        'panel.film-left or address.bar',
        'panel.film-right or address.bar',
        // A worn lamp trips its inverter: a lamp is put in its place.
        'driver.arcing or strips.lamp-worn',
        'driver.trips or strips.lamp-worn',
      ].sort(),
    );
    const { pack } = compiled;
    // A torch that lights nothing else, and a swap: the backlight's parts can't be told from each other any more.
    const poor = compilePack({ ...pack, tests: pack.tests.filter(({ id }) => ['torch', 'swap.known-good', 'heat.all-but'].includes(id)) });
    const pairs = packReport(poor, 1, ['separate-driver']).onlyASwapTellsApart.filter(({ symptom }) => symptom === 'sound-dark');
    expect(pairs.length).toBeGreaterThan(0);
    for (const { faults } of pairs) expect(faults[0]).not.toBe(faults[1]);
  });

  test('a test that tells nothing is never asked for; the torch is', async () => {
    const { compiled } = await readCompiled(shippedPackFolder);
    const { pack } = compiled;
    const torch = pack.tests.find(({ id }) => id === 'torch')!;
    const idle = {
      ...torch,
      id: 'idle-look',
      likelihood: [{ rows: [{ for: ['*'], likelihoods: Object.fromEntries(torch.observe.outcomes.map(({ id }) => [id, 'even'])) }] }],
    };
    const { neverRecommended } = packReport(compilePack({ ...pack, tests: [...pack.tests, idle] }), 1, ['separate-driver']);
    expect(neverRecommended).toContain('idle-look');
    expect(neverRecommended).not.toContain('torch');
  });
});
