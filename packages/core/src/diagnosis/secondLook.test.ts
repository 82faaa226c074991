/** What is asked again, bought again and looked at first after something went otherwise than thought. */
import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped, type Told } from '../testing/shipped.ts';
import { believe, foldCase, type CaseFold } from './index.ts';
import { nextLook, outcomeTable } from './evidence/rows.ts';

const fold = (symptoms: string[], told: Told[]): CaseFold => foldCase(caseOf(symptoms, told), shipped());
const repair = (id: string, result: 'unchanged' | 'changed'): Told => ({ kind: 'repair.done', repair: id, result });
const ids = (one: CaseFold): string[] => one.next.map(({ id }) => id);
const probability = (one: CaseFold, id: string): number => one.faults.find((fault) => fault.id === id)?.probability ?? 0;

// The outlet "cured" it, wrongly: all the rest says power.
const misled: Told[] = ['outlet=cured', 'rail.standby=absent', 'standby-unloaded=still-absent', 'cord.ohms=through'];

describe('a test isn’t asked again unless something changed', () => {
  test('with nothing changed it is not on the list', () => {
    expect(ids(fold(['dead'], ['outlet=unchanged', 'clicks=none']))).not.toContain('outlet');
    expect(believe(caseOf(['dead'], ['outlet=unchanged', 'clicks=none']), shipped()).askAgain.size).toBe(0);
  });

  test('a repair that cured nothing is a change: what fits worst may be asked once more, and only once', () => {
    const failed = [...misled, repair('set-right.outside', 'unchanged')];
    const { askAgain } = believe(caseOf(['dead'], failed), shipped());
    expect([...askAgain]).toContain('outlet');
    expect(askAgain.size).toBeLessThanOrEqual(3);
    expect(fold(['dead'], failed).leftOut.map(({ code, step }) => `${code} ${step.id}`)).not.toContain('answered outlet');
    const again = believe(caseOf(['dead'], [...failed, 'outlet=unchanged']), shipped());
    expect(again.askAgain.has('outlet')).toBe(false);
    expect(again.assemblies.get('power')!).toBeGreaterThan(believe(caseOf(['dead'], failed), shipped()).assemblies.get('power')!);
  });
});

test('a second look at the same is told as such: it agrees far more often than a first one would', () => {
  const belief = believe(caseOf(['dead'], ['outlet=cured']), shipped());
  const { tests } = shipped();
  const outlet = tests.get('outlet')!;
  const cured = shipped().outcomeIds('outlet').indexOf('cured');
  const first = outcomeTable(belief.interpretation, shipped(), outlet, undefined, belief.circumstances).told[cured]!;
  const second = nextLook(belief.interpretation, shipped(), outlet, undefined, belief.circumstances)[cured]!;
  const h = belief.interpretation.hypotheses.findIndex(({ fault }) => fault?.id === 'power.standby-dead');
  expect(first[h]!).toBeLessThan(0.02);
  // Either the set is so or the look was wrong, about evenly: half of the second looks agree.
  expect(second[h]!).toBeGreaterThan(0.3);
  const none = nextLook(belief.interpretation, shipped(), tests.get('clicks')!, undefined, belief.circumstances);
  expect(none).toBe(outcomeTable(belief.interpretation, shipped(), tests.get('clicks')!, undefined, belief.circumstances).told);
});

describe('a board that didn’t cure', () => {
  const shown: Told[] = ['rail.standby=absent', 'standby-unloaded=still-absent', 'fuse=intact', 'outlet=unchanged', 'cord.ohms=through'];

  test('is not bought again', () => {
    expect(ids(fold(['dead'], [...shown, repair('replace.power', 'unchanged')]))).not.toContain('replace.power');
  });

  test('but where a reading of its proof, taken after it, says the same again', () => {
    const told = [...shown, repair('replace.power', 'unchanged'), 'standby-unloaded=still-absent' as Told];
    expect(ids(fold(['dead'], told))).toContain('replace.power');
    // And a second one that didn't is the last.
    expect(ids(fold(['dead'], [...told, repair('replace.power', 'unchanged'), 'rail.standby=absent']))).not.toContain('replace.power');
  });
});

test('another symptom right after a repair: what was just handled comes first', () => {
  const anew = fold(['sound-dark'], [repair('replace.strips', 'changed'), { kind: 'symptom.reported', symptoms: ['half-picture'] }]);
  const plain = fold(['half-picture'], []);
  const gain = (id: string): number => probability(anew, id) / probability(plain, id);
  expect(gain('harness.panel-right.loose') / gain('tcon.half-dead')).toBeCloseTo(6, 5);
});

describe('how a symptom is told', () => {
  const given = (body: object): CaseFold => foldCase(caseOf([], [{ kind: 'symptom.reported', ...body }]), shipped());

  test('two symptoms of one set add: they never make a fault that shows either less likely than the rarer one does', () => {
    const both = probability(given({ symptoms: ['sound-dark', 'flash-then-dark'] }), 'strips.led-open');
    const either = [given({ symptoms: ['sound-dark'] }), given({ symptoms: ['flash-then-dark'] })].map((one) =>
      probability(one, 'strips.led-open'),
    );
    expect(both).toBeGreaterThan(Math.min(...either));
    expect(both).toBeLessThan(Math.max(...either));
  });

  test('only when cold speaks for what heals warm, only when warm for what runs hot', () => {
    const plain = given({ symptoms: ['restart-loop'] });
    const cold = given({ symptoms: ['restart-loop'], temperature: 'cold' });
    const warm = given({ symptoms: ['restart-loop'], temperature: 'warm' });
    expect(probability(cold, 'main.bond-warm')).toBeGreaterThan(2 * probability(plain, 'main.bond-warm'));
    expect(probability(warm, 'main.bond-warm')).toBeLessThan(probability(plain, 'main.bond-warm'));
    expect(probability(warm, 'main.heatsink-pad')).toBeGreaterThan(2 * probability(plain, 'main.heatsink-pad'));
  });

  test('what comes and goes is no broken glass', () => {
    const plain = given({ symptoms: ['many-lines'] });
    const sometimes = given({ symptoms: ['many-lines'], often: 'sometimes' });
    expect(probability(sometimes, 'panel.bond-intermittent')).toBeGreaterThan(probability(plain, 'panel.bond-intermittent'));
    expect(probability(sometimes, 'panel.glass-cracked')).toBeLessThan(probability(plain, 'panel.glass-cracked'));
  });
});
