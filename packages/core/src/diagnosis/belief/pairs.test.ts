import { expect, test } from '@jest/globals';
import { caseOf, shipped, type Told } from '../../testing/shipped.ts';
import { believe, foldCase, secondFaultProbability, twoFaults } from '../index.ts';

const two = (symptom: string, told: Told[]) => {
  const input = caseOf([symptom], told);
  return twoFaults(input, believe(input, shipped()), shipped());
};
const opened = (condition: string[]): Told => ({ kind: 'job.opened', set: { layout: 'led-tcon' }, condition });

test('one fault that explains everything needs no second', () => {
  expect(two('sound-dark', ['led.output=limit-then-off', 'strings.tester=one-dark'])?.probability).toBeLessThan(0.05);
  const fold = foldCase(caseOf(['sound-dark'], ['led.output=limit-then-off', 'strings.tester=one-dark']), shipped());
  expect(fold.doubts.map(({ code }) => code)).not.toContain('may-be-two');
});

test('two signs that no one fault shows together are put down to two, and the pair is named', () => {
  const told = ['caps.esr=high', 'look.inside=domed', 'rail.main=pulsing', 'rail.secondary=one-missing', 'ohms.main-rails=one-low'];
  const found = two('standby-no-start', told);
  expect(found?.faults).toEqual(['main.rail-missing', 'power.caps-dried']);
  expect(found?.probability).toBeGreaterThan(0.5);
  expect(foldCase(caseOf(['standby-no-start'], told), shipped()).doubts).toContainEqual(expect.objectContaining({ code: 'may-be-two' }));
});

test('liquid, storm and a fall raise the probabilities of a second fault', () => {
  const signs: Told[] = ['caps.esr=high', 'rail.secondary=one-missing'];
  const plain = two('standby-no-start', signs)!.probability;
  for (const harm of ['liquid', 'storm', 'dropped']) {
    expect(two('standby-no-start', [opened([harm]), ...signs])!.probability).toBeGreaterThan(plain);
  }
  expect(secondFaultProbability(caseOf(['dead'], [opened(['smell'])]), shipped())).toBe(
    secondFaultProbability(caseOf(['dead']), shipped()),
  );
});
