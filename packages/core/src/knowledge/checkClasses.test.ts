/** What the check says of mechanisms that can't be right. */
import { describe, expect, test } from '@jest/globals';
import { shipped } from '../testing/shipped.ts';
import { checkPack } from './check.ts';
import { complaintsOf, leastPossible } from './complaints.ts';
import type { Pack } from './schema.ts';

const copy = (): Pack => structuredClone(shipped().pack);
const classOf = (pack: Pack, id: string) => pack.classes.find((one) => one.id === id)!;
const faultOf = (pack: Pack, id: string) => pack.faults.find((one) => one.id === id)!;

describe('a spoilt mechanism is refused', () => {
  const spoilt: [string, (pack: Pack) => unknown, object][] = [
    ['shares that don’t add up', (pack) => (classOf(pack, 'light-open').shares['sound-dark'] = 600), { code: 'row-sum', expected: '1000' }],
    [
      'something possible made next to impossible',
      (pack) => Object.assign(classOf(pack, 'light-open').shares, { dead: leastPossible - 1, 'sound-dark': 651 }),
      { code: 'too-rare', value: leastPossible - 1 },
    ],
    ['a complaint nobody knows', (pack) => (classOf(pack, 'light-open').shares.purple = 5), { code: 'unknown-id', value: 'purple' }],
    [
      'a layout nobody knows',
      (pack) => (classOf(pack, 'bias-trip').layouts = { tube: { dead: 1000 } }),
      { code: 'unknown-id', value: 'tube' },
    ],
    [
      'something impossible without a law of physics',
      (pack) => delete pack.symptoms.find(({ id }) => id === 'many-lines')!.law,
      { code: 'never-without-law', value: 'many-lines' },
    ],
    [
      'a word for a neighbour that no scale has',
      (pack) => (pack.symptoms[0]!.toldAs = { 'sound-dark': 'perhaps' }),
      { code: 'word-unknown', value: 'perhaps' },
    ],
    ['a fault of no class', (pack) => delete faultOf(pack, 'strips.led-open').does, { code: 'schema', expected: 'does' }],
    ['a mix that is no whole', (pack) => (faultOf(pack, 'strips.led-open').does = { 'light-open': 90 }), { code: 'row-sum', value: 90 }],
    ['a class nobody knows', (pack) => (faultOf(pack, 'strips.led-open').does = { spent: 100 }), { code: 'unknown-id', value: 'spent' }],
    [
      'a row of its own without a reason',
      (pack) => (faultOf(pack, 'strips.led-open').symptoms = { dead: 'always' }),
      { code: 'exception-without-reason', value: 'symptoms' },
    ],
    [
      'an answer’s row for a class nobody knows',
      (pack) => pack.tests.find(({ id }) => id === 'torch')!.likelihood[0]!.rows[0]!.for.push('does:spent'),
      { code: 'unknown-id', value: 'does:spent' },
    ],
  ];
  test.each(spoilt)('%s', (_, spoil, problem) => {
    const pack = copy();
    spoil(pack);
    expect(checkPack(pack)).toContainEqual(expect.objectContaining(problem));
  });
});

describe('symptoms follow from classes', () => {
  const { pack } = shipped();
  const layout = (id: string) => pack.layouts.find((one) => one.id === id)!;
  const at = (row: readonly number[], id: string): number => row[pack.symptoms.findIndex((one) => one.id === id)]!;

  test('one class: its shares; what it leaves out is impossible', () => {
    const [row] = complaintsOf(pack, layout('led-tcon'), faultOf(pack, 'strips.led-open'));
    expect(at(row!, 'sound-dark')).toBeCloseTo(0.65, 9);
    expect(at(row!, 'many-lines')).toBe(0);
    expect(row!.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
  });

  test('several classes: the mix, and nothing possible falls under the least', () => {
    const [row] = complaintsOf(pack, layout('led-tcon'), faultOf(pack, 'harness.power-main.loose'));
    expect(row!.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
    for (const p of row!) if (p > 0) expect(p).toBeGreaterThanOrEqual(leastPossible / 1000 - 1e-12);
  });

  test('a self-lit screen shows lit and blank as black', () => {
    const [row] = complaintsOf(pack, layout('oled'), faultOf(pack, 'tcon.bias-dead'));
    expect(at(row!, 'lit-blank')).toBe(0);
    expect(at(row!, 'sound-dark')).toBeCloseTo(0.525 + 0.24, 9);
  });

  test('traits and rows of its own stand above its classes', () => {
    const rows = complaintsOf(pack, layout('led-tcon'), faultOf(pack, 'tcon.fuse-open'));
    expect(rows).toHaveLength(2);
    expect(at(rows[1]!, 'sound-dark')).toBeGreaterThan(2 * at(rows[0]!, 'sound-dark'));
    const own = { ...faultOf(pack, 'strips.led-open'), symptoms: { dead: 'always' } };
    expect(at(complaintsOf(pack, layout('led-tcon'), own)[0]!, 'dead')).toBeGreaterThan(0.9);
  });
});
