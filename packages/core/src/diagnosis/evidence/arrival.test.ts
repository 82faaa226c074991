/** What happened to a set, and what the bench itself saw it do; expectations from bench practice, common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped, type Told } from '../../testing/shipped.ts';
import { foldCase, type CaseFold } from '../index.ts';

const opened = (told: Record<string, unknown>): Told => ({ kind: 'job.opened', set: { layout: 'led-tcon' }, ...told });
const fold = (symptoms: string[], told: Told[] = [], set = {}): CaseFold =>
  foldCase(caseOf(symptoms, told, set), shipped(), 'cost', 'at-once');
const probability = (seen: CaseFold, ...ids: string[]): number =>
  seen.assemblies.filter(({ id }) => ids.includes(id)).reduce((sum, one) => sum + one.probability, 0);
const seen = (symptom: string): Told => ({ kind: 'symptom.reported', v: 2, symptoms: [symptom], seen: true });

describe('what happened to it', () => {
  test.each([
    ['a fall', 'half-picture', { condition: ['dropped'] }, ['panel', 'harness.panel-left', 'harness.panel-right', 'harness.picture']],
    ['a storm', 'one-input-dead', { condition: ['storm'] }, ['main', 'outside']],
    ['liquid', 'standby-no-start', { condition: ['liquid'] }, ['keys', 'harness.keys']],
    ['a burnt smell', 'dead', { condition: ['smell'] }, ['power', 'driver']],
    ['another hand', 'half-picture', { condition: ['opened-before'] }, ['harness.panel-left', 'harness.panel-right', 'harness.picture']],
    ['a memory written', 'standby-no-start', { earlierDid: ['memory-written'] }, ['main']],
  ])('%s makes likelier what it harms', (_, symptom, told, ids) => {
    expect(probability(fold([symptom], [opened(told)]), ...ids)).toBeGreaterThan(probability(fold([symptom], [opened({})]), ...ids) + 0.01);
  });

  test('told in two words it counts once', () => {
    const once = fold(['half-picture'], [opened({ condition: ['screws-missing'] })]);
    const twice = fold(['half-picture'], [opened({ condition: ['opened-before', 'screws-missing'] })]);
    expect(probability(twice, 'tcon')).toBeCloseTo(probability(once, 'tcon'), 9);
  });

  test('it speaks of the fault the set came with, not of the next one', () => {
    const next: Told[] = [{ kind: 'repair.done', v: 1, repair: 'replace.power', result: 'changed' }, seen('half-picture')];
    const dropped = fold(['dead'], [opened({ condition: ['smell'] }), ...next]);
    const plain = fold(['dead'], [opened({}), ...next]);
    expect(probability(dropped, 'tcon')).toBeCloseTo(probability(plain, 'tcon'), 9);
  });

  test('after a fall the glass is looked at first, once, and not where it is known to be cracked', () => {
    const fell = opened({ condition: ['dropped'] });
    const first = fold(['dead'], [fell]);
    expect(first.next[0]).toMatchObject({ id: 'look.glass', because: { code: 'history-first', of: 'dropped' } });
    expect(first.next.filter(({ id }) => id === 'look.glass')).toHaveLength(1);
    expect(fold(['dead'], [fell, 'look.glass=clean']).next[0]?.id).not.toBe('look.glass');
    expect(fold(['dead'], [opened({ condition: ['dropped', 'crack'] })]).next[0]?.id).toBe('give-up');
    expect(fold(['dead'], [opened({})]).next[0]?.id).not.toBe('look.glass');
  });

  test('after a storm nothing that needs power is ruled out by the first fault alone', () => {
    const told: Told[] = ['outlet=unchanged', 'fuse=open', 'fuse.short=short'];
    const verdict = (condition: string[]) =>
      fold(['dead'], [opened({ condition }), ...told]).assemblies.find(({ id }) => id === 'main')?.verdict;
    expect(verdict(['storm'])).toBe('suspect');
    expect(verdict([])).toBe('cleared');
  });
});

describe('seen by the bench', () => {
  test('what was told gives way, and says so', () => {
    const both = fold(['dead'], [seen('standby-no-start')]);
    expect(both.symptoms).toEqual(['standby-no-start']);
    expect(both.unused).toContainEqual(expect.objectContaining({ code: 'seen-otherwise' }));
    expect(probability(both, 'main')).toBeGreaterThan(probability(fold(['dead']), 'main'));
  });

  test('seen is surer than told: what a customer may have meant drops out', () => {
    const [shown, word] = shipped().pack.symptoms.flatMap(({ id, toldAs }) => Object.keys(toldAs ?? {}).map((as) => [id, as]))[0] ?? [];
    expect([shown, word]).toEqual([expect.any(String), expect.any(String)]);
    const entropy = (one: CaseFold): number => one.faults.reduce((sum, { probability: p }) => sum - p * Math.log2(p), 0);
    expect(entropy(fold([word ?? ''], [seen(word ?? '')]))).toBeLessThan(entropy(fold([word ?? ''])));
  });

  test('a picture symptom seen by the bench rules out; one told, and one without a picture, rule out nothing', () => {
    const cleared = (one: CaseFold): number => one.assemblies.filter(({ verdict }) => verdict === 'cleared').length;
    expect(cleared(fold(['many-lines']))).toBe(0);
    expect(cleared(fold(['many-lines'], [seen('many-lines')]))).toBeGreaterThan(2);
    expect(cleared(fold(['dead'], [seen('dead')]))).toBe(0);
  });

  test('after a repair that changed it the bench’s older word is of the older fault', () => {
    const after = fold(['dead'], [seen('dead'), { kind: 'repair.done', v: 1, repair: 'replace.power', result: 'changed' }]);
    expect(after.symptoms).toEqual([]);
  });
});
