/** The milliohm walk. What is expected was written first: walkCases.ts. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { drawMeter, drawRail, ohmsAlong, readWith, type ShortedRail } from './railGenerator.ts';
import { runInstrument } from '../instruments/instrument.ts';
import { short } from '../instruments/short.ts';
import { nextPoint, walkProbabilities } from './shortWalk.ts';
import { twoShorts } from './twoShorts.ts';
import { branchCases, impossibleBranches, twoShortCases, walkCases } from './walkCases.ts';
import { branchesText, railWithBranches } from './branches.ts';

const fixture = JSON.parse(readFileSync(new URL('./fixture-ngspice.json', import.meta.url), 'utf8')) as {
  source: string;
  rails: (ShortedRail & { ohms: number[] })[];
};

/** Any even and reproducible numbers will do (Park and Miller). */
function numbers(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

describe('a milliohm walk', () => {
  test.each(walkCases)('$name', ({ capacitors, readings, short, least = 0, most = 1 }) => {
    const found = walkProbabilities(
      capacitors,
      readings.map(([at, ohms]) => ({ at, ohms })),
    );
    const top = Math.max(...found);
    expect(found.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1);
    if (short !== null) expect(found.indexOf(top)).toBe(short);
    expect(top).toBeGreaterThanOrEqual(least);
    expect(top).toBeLessThanOrEqual(most);
  });
  test('a row turned round is the same row', () => {
    const readings = [
      { at: 0, ohms: 0.31 },
      { at: 3, ohms: 0.24 },
      { at: 7, ohms: 0.29 },
    ];
    const turned = walkProbabilities(
      8,
      readings.map(({ at, ohms }) => ({ at: 7 - at, ohms })),
    );
    expect([...turned].reverse()).toEqual(walkProbabilities(8, readings).map((one) => expect.closeTo(one, 6)));
  });
  test('every point read on drawn rails: right far more often than the lowest reading, and as sure as it is right', () => {
    let right = 0;
    let said = 0;
    const rails = 60;
    for (let seed = 1; seed <= rails; seed += 1) {
      const random = numbers(seed * 7919);
      const rail = drawRail(12, 1, random);
      const meter = drawMeter(random);
      const readings = ohmsAlong(rail).map((ohms, at) => ({ at, ohms: readWith(meter, ohms, random) }));
      const found = walkProbabilities(12, readings);
      const top = Math.max(...found);
      said += top;
      if (found.indexOf(top) === rail.shorts[0]?.at) right += 1;
    }
    expect(right / rails).toBeGreaterThan(0.8);
    expect(Math.abs(said - right) / rails).toBeLessThan(0.1);
  });
  test('six readings of twenty-four, each where it tells most, find it', () => {
    let right = 0;
    const rails = 12;
    for (let seed = 1; seed <= rails; seed += 1) {
      const random = numbers(seed * 15_485_863);
      const rail = drawRail(24, 1, random);
      const meter = drawMeter(random);
      const truth = ohmsAlong(rail);
      const readings: { at: number; ohms: number }[] = [];
      for (let n = 0; n < 6; n += 1) {
        const { at } = nextPoint(24, readings, random);
        readings.push({ at, ohms: readWith(meter, truth[at] ?? 0, random) });
      }
      const found = walkProbabilities(24, readings);
      if (found.indexOf(Math.max(...found)) === rail.shorts[0]?.at) right += 1;
    }
    expect(right).toBeGreaterThanOrEqual(10);
  });
  test('a place the row has not got, and a reading below nothing, are refused', () => {
    expect(() => walkProbabilities(4, [{ at: 4, ohms: 0.1 }])).toThrow(RangeError);
    expect(() => walkProbabilities(4, [{ at: 0, ohms: -0.1 }])).toThrow(RangeError);
  });
});

describe('a rail with branches', () => {
  test.each(branchCases)('$name', ({ capacitors, branches, readings, short: wanted, least = 0, most = 1, next }) => {
    const rail = railWithBranches(capacitors, branches);
    const read = readings.map(([number, ohms]) => ({ at: number - 1, ohms }));
    const found = walkProbabilities(rail, read);
    const top = Math.max(...found);
    expect(found.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1);
    if (wanted !== null) expect(found.indexOf(top) + 1).toBe(wanted);
    expect(top).toBeGreaterThanOrEqual(least);
    expect(top).toBeLessThanOrEqual(most);
    if (next) expect(next).toContain(nextPoint(rail, read, numbers(7919)).at + 1);
  });
  test.each(impossibleBranches)('$branches on $capacitors is refused, and named', ({ capacitors, branches }) => {
    const outcome = runInstrument(short, { capacitors, branches });
    expect(outcome).toMatchObject({ ok: false, problems: [{ code: 'cannot-be' }] });
    if (!outcome.ok) expect(branches).toContain(outcome.problems[0]?.typed);
  });
  test('numbered another way it is the same rail', () => {
    const one = railWithBranches(7, '2: 5-7');
    const other = railWithBranches(7, '2: 3-5');
    const toOther = [0, 1, 5, 6, 2, 3, 4];
    const readings = [
      { at: 0, ohms: 0.3 },
      { at: 3, ohms: 0.33 },
      { at: 5, ohms: 0.22 },
    ];
    const found = walkProbabilities(one, readings);
    const again = walkProbabilities(
      other,
      readings.map(({ at, ohms }) => ({ at: toOther[at] ?? 0, ohms })),
    );
    expect(toOther.map((at) => again[at])).toEqual(found.map((probability) => expect.closeTo(probability, 9)));
  });
  test('any tree is written as branches, and read again', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 0.999, noNaN: true }), { minLength: 1, maxLength: 20 }), (shares) => {
        const on = shares.map((share, at) => (at === 0 ? -1 : Math.floor(share * at)));
        expect(railWithBranches(on.length, branchesText(on))).toEqual(on);
      }),
    );
    expect(branchesText(railWithBranches(9, '2: 5-7; 6: 8-9'))).toBe('2: 5-7; 6: 8-9');
    expect(branchesText(railWithBranches(9, ''))).toBe('');
  });
  test('parts are named as printed, and a name too many is refused', () => {
    const along = '1 0.291; 2 0.247; 3 0.222; 4 0.26; 5 0.28';
    const found = runInstrument(short, { names: 'C31 C32, C33; C34 C35', along });
    expect(found.ok && found.report.findings[0]).toMatchObject({ code: 'short-found', values: { capacitor: 'C33 (3)' } });
    expect(runInstrument(short, { names: 'C31 C32', capacitors: 3 })).toMatchObject({ ok: false });
  });
  test('all read on drawn rails: right as often as said', () => {
    let [right, said] = [0, 0];
    const rails = 40;
    const on = railWithBranches(12, '3: 7-9; 8: 10-12');
    for (let seed = 1; seed <= rails; seed += 1) {
      const random = numbers(seed * 104_729);
      const rail = { ...drawRail(12, 1, random), on: on.slice(1) };
      const meter = drawMeter(random);
      const found = walkProbabilities(
        on,
        ohmsAlong(rail).map((ohms, at) => ({ at, ohms: readWith(meter, ohms, random) })),
      );
      const top = Math.max(...found);
      said += top;
      if (found.indexOf(top) === rail.shorts[0]?.at) right += 1;
    }
    expect(right / rails).toBeGreaterThan(0.8);
    expect(Math.abs(said - right) / rails).toBeLessThan(0.12);
  });
});

describe('ohms along a rail', () => {
  // Computed by ngspice through scripts/reference/ngspice.ts.
  test.each(fixture.rails)('as ngspice has them: $segments.length segments, shorts $shorts, on $on', ({ ohms, ...rail }) => {
    expect(fixture.source).toMatch(/^ngspice-\d/);
    const found = ohmsAlong(rail);
    expect(found.length).toBe(ohms.length);
    // A gigaohm to ground keeps ngspice's matrix from being singular: nine digits agree.
    for (const [node, one] of found.entries()) expect(Math.abs(one / (ohms[node] ?? 0) - 1)).toBeLessThan(1e-7);
  });
  test('by hand: one short, the copper between adds', () => {
    expect(ohmsAlong({ segments: [0.01, 0.02], shorts: [{ at: 1, ohms: 0.1 }] })).toEqual([
      expect.closeTo(0.11),
      expect.closeTo(0.1),
      expect.closeTo(0.12),
    ]);
  });
  test('by hand: two shorts at the ends are side by side in the middle', () => {
    const [first, middle] = ohmsAlong({
      segments: [0.1, 0.1],
      shorts: [
        { at: 0, ohms: 0.1 },
        { at: 2, ohms: 0.1 },
      ],
    });
    expect(middle).toBeCloseTo(0.1);
    expect(first).toBeCloseTo(1 / (1 / 0.1 + 1 / 0.3));
  });
});

describe('one short or two', () => {
  test.each(twoShortCases)('$name', ({ capacitors, ohms, shorts }) => {
    const along = ohms.flatMap((one, at) => (one === null ? [] : [`${at + 1} ${one}`])).join('; ');
    const outcome = runInstrument(short, { capacitors, along });
    const said = outcome.ok ? outcome.report.findings.find(({ code }) => code === 'short-two') : undefined;
    expect(said && [said.values.first, said.values.second]).toEqual(shorts ? shorts.map((at) => at + 1) : undefined);
  });
  test('each capacitor’s probabilities are whole, and a row turned round is the same row', () => {
    const readings = (twoShortCases[1]?.ohms ?? []).map((ohms, at) => ({ at, ohms: ohms ?? 0 }));
    const found = twoShorts(11, readings);
    for (const all of [found.first, found.second]) expect(all.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1);
    const turned = twoShorts(
      11,
      readings.map(({ at, ohms }) => ({ at: 10 - at, ohms })),
    );
    expect(turned.first.map((_, at) => turned.second[10 - at])).toEqual(found.first.map((one) => expect.closeTo(one, 3)));
    expect(Math.log(turned.factor)).toBeCloseTo(Math.log(found.factor), 1);
  });
});
