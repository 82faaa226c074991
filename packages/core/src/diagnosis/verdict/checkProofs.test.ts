/** A proof that another fault passes is named. The planted proofs are wrong by practice: a fault elsewhere gives the same readings. */
import { describe, expect, test } from '@jest/globals';
import { compilePack, type Pack } from '../../knowledge/index.ts';
import { shipped, shippedPack } from '../../testing/shipped.ts';
import { hypothesesOf } from '../evidence/hypotheses.ts';
import { outcomeTable } from '../evidence/rows.ts';
import { passedProofs } from '../index.ts';

const withProof = (assembly: string, anyOf: Pack['layouts'][number]['proof'][string]['anyOf']) => {
  const pack = shippedPack();
  pack.layouts = pack.layouts.map((layout) =>
    layout.id === 'led-tcon' ? { ...layout, proof: { ...layout.proof, [assembly]: { anyOf, reason: { en: 'planted' } } } } : layout,
  );
  return passedProofs(compilePack(pack), ['led-tcon']).filter((one) => one.assembly === assembly);
};

describe('proofs that faults elsewhere pass', () => {
  test.each<[string, Pack['layouts'][number]['proof'][string]['anyOf'], RegExp]>([
    // A driver without supply or command gives no light either.
    ['strips', [[{ test: 'torch', outcomes: ['faint-picture'] }]], /^(?:driver|main|harness|power|outside)/],
    // A short behind it pulls the same rail down, and without the command it never comes.
    ['power', [[{ test: 'rail.main', outcomes: ['pulsing', 'absent'] }]], /^(?:outside|main|panel|tcon|strips|speakers)/],
    // Without a T-con to feed them the bias rails are gone as well.
    ['panel', [[{ test: 'bias.rails', outcomes: ['all-missing'] }]], /^(?:tcon|main)/],
  ])('%s on one reading', (assembly, anyOf, elsewhere) => {
    const [found] = withProof(assembly, anyOf);
    expect(found?.share).toBeGreaterThan(0.1);
    expect(found?.likeliest).toMatch(elsewhere);
  });

  test('a known-good part that cures is passed by nothing else so often', () => {
    expect(withProof('tcon', [[{ test: 'swap.known-good', of: 'tcon', outcomes: ['cured'] }]])).toEqual([]);
  });

  test('shares are over one in ten and under the whole, worst first', () => {
    const all = passedProofs(shipped(), ['led-tcon', 'plasma']);
    for (const { share } of all) expect(share > 0.1 && share < 1).toBe(true);
    expect(all.map(({ share }) => share)).toEqual([...all].map(({ share }) => share).sort((a, b) => b - a));
  });
});

test('observations of one way multiply: each more asked for leaves others less, and the share is that of a count by hand', () => {
  const way = [
    { test: 'torch', outcomes: ['faint-picture'] },
    { test: 'led.output', outcomes: ['none'] },
  ];
  const [one] = withProof('strips', [[way[0]!]]);
  const [both] = withProof('strips', [way]);
  // By hand: over all faults and symptoms, priors times what each shows times both answers.
  const compiled = shipped();
  const layout = compiled.layouts.get('led-tcon')!;
  const [own, all] = bothByHand(way);
  expect(both?.share).toBeCloseTo(1 - own / all, 6);
  expect(both?.share).not.toBeCloseTo(one?.share ?? 0, 2);
  expect(layout.id).toBe('led-tcon');
});

function bothByHand(way: readonly { test: string; outcomes: readonly string[] }[]): [number, number] {
  const compiled = shipped();
  const hypotheses = hypothesesOf({ 'led-tcon': 1 }, compiled, undefined);
  let [own, all] = [0, 0];
  for (const symptom of compiled.symptomIds) {
    const seen = { layoutProbabilities: { 'led-tcon': 1 }, symptoms: new Set([symptom]), family: undefined, hypotheses };
    const tables = way.map(({ test: id }) => outcomeTable(seen, compiled, compiled.tests.get(id)!, undefined).truth);
    hypotheses.forEach(({ fault, prior }, h) => {
      if (!fault) return;
      let p = prior * (compiled.symptomLikelihoods('led-tcon', fault.id)[compiled.symptomIds.indexOf(symptom)] ?? 0);
      way.forEach(({ test: id, outcomes }, index) => {
        p *= outcomes.reduce((sum, outcome) => sum + (tables[index]?.[compiled.outcomeIds(id).indexOf(outcome)]?.[h] ?? 0), 0);
      });
      all += p;
      if (fault.assembly === 'strips') own += p;
    });
  }
  return [own, all];
}
