import { describe, expect, test } from '@jest/globals';
import { certaintyCases, voteCases } from './majorityCases.ts';
import { bitCertainty, certainty, noVotes, readsNeeded, vote } from './majority.ts';

const bytesOf = (hex: string): Uint8Array => Uint8Array.from(Buffer.from(hex, 'hex'));

describe('several reads made one', () => {
  test.each(voteCases)('$name', ({ reads, bytes, unsteady, bits }) => {
    const out = new Uint8Array(bytes.length / 2);
    const votes = vote(reads.map(bytesOf), out);
    expect(Buffer.from(out).toString('hex')).toBe(bytes);
    expect([votes.unsteadyBytes, [votes.ones, votes.zeros]]).toEqual([unsteady, bits]);
    expect(votes.agreeing.reduce((sum, one) => sum + one, 0)).toBe(votes.ones + votes.zeros);
  });
  test('in pieces it is the same', () => {
    const reads = ['01ff23', '01fe27', '00ff23'].map(bytesOf);
    const whole = vote(reads, new Uint8Array(3));
    const parts = [0, 1, 2].reduce(
      (before, at) =>
        vote(
          reads.map((one) => one.subarray(at, at + 1)),
          new Uint8Array(1),
          before,
        ),
      noVotes(3),
    );
    expect(parts).toEqual(whole);
  });
  test('two reads are none, and reads of different length are refused', () => {
    expect(() => vote([bytesOf('00'), bytesOf('01')], new Uint8Array(1))).toThrow(RangeError);
    expect(() => vote([bytesOf('00'), bytesOf('01'), bytesOf('0101')], new Uint8Array(1))).toThrow(RangeError);
  });
});

describe('what a majority is worth', () => {
  test.each(certaintyCases)('$seen of $of', ({ seen, of, sure }) => {
    expect(bitCertainty(seen, of)).toBeCloseTo(sure, 12);
  });
  test('what it says holds: weak bits with a flip rate anywhere below one half, seven reads each', () => {
    let state = 15;
    const random = (): number => (state = (state * 1_103_515_245 + 12_345) % 2_147_483_648) / 2_147_483_648;
    const said = new Map<number, { bits: number; right: number }>();
    for (let bit = 0; bit < 40_000; bit += 1) {
      const flips = random() / 2;
      let wrong = 0;
      for (let read = 0; read < 7; read += 1) if (random() < flips) wrong += 1;
      if (wrong === 0 || wrong === 7) continue;
      const agree = Math.max(wrong, 7 - wrong);
      const one = said.get(agree) ?? { bits: 0, right: 0 };
      said.set(agree, { bits: one.bits + 1, right: one.right + (wrong < 3.5 ? 1 : 0) });
    }
    expect([...said.keys()].sort()).toEqual([4, 5, 6]);
    // Three standard errors of the smallest group are about 0.015.
    for (const [agree, { bits, right }] of said) expect(Math.abs(right / bits - bitCertainty(agree, 7))).toBeLessThan(0.02);
  });
  test('the whole is every bit of it', () => {
    const votes = { ...noVotes(5), agreeing: [0, 0, 0, 1, 2, 0] };
    expect(certainty(votes)).toBeCloseTo((42 / 64) * (57 / 64) ** 2, 12);
    expect(certainty(noVotes(3))).toBe(1);
  });
  test('reads still needed: more for more bits, none where it is sure enough, and no promise where a bit is a coin', () => {
    const of = (agreeing: number[]) => ({ ...noVotes(agreeing.length - 1), agreeing });
    const [one, many] = [readsNeeded(of([0, 0, 0, 0, 1, 0]), 0.99), readsNeeded(of([0, 0, 0, 0, 500, 0]), 0.99)];
    expect(one).toBeGreaterThan(5);
    expect(many).toBeGreaterThan(one ?? 99);
    expect(readsNeeded(noVotes(3), 0.99)).toBe(3);
    expect(readsNeeded(of([0, 0, 1, 0, 0]), 0.99)).toBeUndefined();
  });
});
