/** Numbers on the bench. What a technician concludes is common practice, no source; rails are the invented families' own. */
import { describe, expect, test } from '@jest/globals';
import { shipped } from '../testing/shipped.ts';
import { expectedAt, measurementsOf, outcomeOfReading, outcomeOfReadings, type Expected, type Typed } from './index.ts';

const compiled = shipped();
const read = (
  id: string,
  typed: Typed,
  { layout = 'led-tcon', family = '', printed }: { layout?: string; family?: string; printed?: number | 'nothing' } = {},
) => {
  const found = compiled.tests.get(id)!;
  const at = found.do.flatMap((step) => ('measure' in step ? [step.at] : [])).at(-1)!;
  return outcomeOfReading(found, typed, expectedAt(at, layout, compiled, compiled.families.get(family), printed));
};

describe('a number of a set nobody wrote down', () => {
  test.each<[string, string, number, number | undefined, string | undefined]>([
    // Sets of the world have 3.3, 5, 7.5 V and more in standby: without a print about 3 V is the least that is accepted.
    ['standby, 3.3 V', 'rail.standby', 3.3, undefined, 'in-range'],
    ['standby, 5.1 V', 'rail.standby', 5.1, undefined, 'in-range'],
    ['standby, 7.5 V', 'rail.standby', 7.5, undefined, 'in-range'],
    ['standby, 2.1 V', 'rail.standby', 2.1, undefined, 'low'],
    ['standby, 0.1 V', 'rail.standby', 0.1, undefined, 'absent'],
    ['standby, 3.3 V where 5.2 is printed', 'rail.standby', 3.3, 5.2, 'low'],
    ['standby, 5.2 V where 5.2 is printed', 'rail.standby', 5.2, 5.2, 'in-range'],
    // A main rail may be 12, 13, 19 or 24 V; a light plug 30 to 250 V; a bias rail 5 to 35 V.
    ['big rail, 12.3 V', 'rail.main', 12.3, undefined, undefined],
    ['big rail, 12.3 V where 12 is printed', 'rail.main', 12.3, 12, 'in-range'],
    ['big rail, 12.97 V where 13 is printed', 'rail.main', 12.97, 13, 'in-range'],
    ['big rail, nothing', 'rail.main', 0.2, undefined, 'absent'],
    ['light plug, 60 V', 'led.output', 60, undefined, undefined],
    ['light plug, nothing at any instant', 'led.output', 0, undefined, 'none'],
    ['light plug, 60 V where 110 is known', 'led.output', 60, 110, 'far-low'],
    ['bias, 17 V', 'bias.rails', 17, undefined, undefined],
    ['driver supply, 24 V', 'driver.supply', 24, undefined, undefined],
    // Logic lines are 3.3 or 5 V everywhere.
    ['BL_ON, 3.2 V', 'bl-on', 3.2, undefined, 'present'],
    ['BL_ON, 5 V', 'bl-on', 5, undefined, 'present'],
    ['BL_ON, 0.1 V', 'bl-on', 0.1, undefined, 'absent'],
  ])('%s', (_, id, value, printed, outcome) =>
    expect(
      read(
        id,
        { value },
        { ...(printed === undefined ? {} : { printed }), ...(id === 'driver.supply' ? { layout: 'separate-driver' } : {}) },
      ),
    ).toBe(outcome),
  );

  test('pulsing needs no nominal; a unit that the test doesn’t read is refused; ohms need none', () => {
    expect(read('rail.main', { value: 8, behaves: 'pulsing' })).toBe('pulsing');
    expect(read('rail.main', { value: 8, unit: 'ohms' })).toBeUndefined();
    expect(read('fuse', { value: 0.3, unit: 'ohms' })).toBe('intact');
    expect(read('fuse', { value: 4.7e6 })).toBe('open');
    expect(read('torch', { value: 3 })).toBeUndefined();
    // Before and behind the fuse: one number doesn't say which.
    expect(read('tcon.input', { value: 0 }, { printed: 12 })).toBeUndefined();
  });
});

describe('a number of a family that is written down', () => {
  const qk3 = { family: 'quorvane.qk3' };
  test.each<[string, number, string | undefined]>([
    ['rail.standby', 5.2, 'in-range'],
    ['rail.standby', 3.3, 'low'],
    ['rail.main', 12.4, 'in-range'],
    ['rail.main', 24, undefined],
  ])('%s at %d V', (id, value, outcome) => expect(read(id, { value }, qk3)).toBe(outcome));
  test('stands above what somebody says is printed', () =>
    expect(read('rail.standby', { value: 3.3 }, { ...qk3, printed: 3.3 })).toBe('low'));
});

/** Polarity by family: common practice. A PWM line's mean is what its duty leaves of it, so DIM asks from less. */
describe('a line that is active low', () => {
  const line = (trait: string): ReturnType<typeof shipped> => {
    const family = { ...compiled.families.get('quorvane.qk3')!, traits: { [trait]: 'yes' as const } };
    return { ...compiled, families: new Map([[family.id, family]]) };
  };
  const level = (id: string, trait: string, value: number): string | undefined => {
    const pack = line(trait);
    const found = pack.tests.get(id)!;
    const at = found.do.flatMap((step) => ('measure' in step ? [step.at] : [])).at(-1)!;
    return outcomeOfReading(found, { value }, expectedAt(at, 'led-tcon', pack, pack.families.get('quorvane.qk3')));
  };
  test.each([
    ['bl-on', 'bl-on.active-low', 0.1, 'present'],
    ['bl-on', 'bl-on.active-low', 3.3, 'absent'],
    ['bl-on', 'ps-on.active-low', 3.3, 'present'],
    ['dim', 'dim.active-low', 0.2, 'present'],
    ['dim', 'dim.active-low', 3.2, 'absent'],
    ['dim', 'bl-on.active-low', 1.6, 'present'],
    ['ps-on', 'ps-on.active-low', 0.1, 'moves'],
    ['ps-on', 'ps-on.active-low', 3.2, 'stays'],
    ['ps-on', 'bl-on.active-low', 3.2, 'moves'],
    ['ps-on', 'bl-on.active-low', 0.1, 'stays'],
  ])('%s with %s yes, %d V: %s', (id, trait, value, outcome) => expect(level(id, trait, value)).toBe(outcome));
});

describe('more than one number in a step', () => {
  const outcome = (id: string, values: (number | undefined)[], expected: Expected = { volts: undefined, source: 'unknown' }) => {
    const found = compiled.tests.get(id)!;
    const at = measurementsOf(found).map((one) => one.at);
    return outcomeOfReadings(
      found,
      values.map((value, index) => (value === undefined ? undefined : { value, at: at[index]!, expected })),
    );
  };
  const printed: Expected = { volts: 12, source: 'printed' };
  test.each([
    // Before and behind the T-con's fuse; without a print a few volts may be all or half of it.
    ['tcon.input', [0.1], printed, 'none'],
    ['tcon.input', [11.8, 0.1], printed, 'one-side'],
    ['tcon.input', [11.8, 11.7], printed, 'both'],
    ['tcon.input', [11.8], printed, undefined],
    ['tcon.input', [undefined, 0], printed, undefined],
    ['tcon.input', [5.1, 0], undefined, undefined],
    ['tcon.input', [0, 0], undefined, 'none'],
    // Sustain, address, then both again with the plug out.
    ['short.plug', [3, 900, 4000, 900], undefined, 'short-leaves'],
    ['short.plug', [900, 4, 900, 2000], undefined, 'short-leaves'],
    ['short.plug', [3, 900, 2.8, 900], undefined, 'short-stays'],
    ['short.plug', [700, 900, 800, 900], undefined, 'no-short'],
    ['short.plug', [3, 900], undefined, undefined],
    ['short.plug', [700, 900], undefined, 'no-short'],
    ['bias.walk', [700], undefined, 'no-short'],
    ['bias.walk', [4, 4.1], undefined, 'short-stays'],
    ['bias.walk', [4, 650], undefined, 'short-gone'],
    ['fuse', [0.3], undefined, 'intact'],
    ['fuse', [undefined], undefined, undefined],
  ] as const)('%s %j: %s', (id, values, expected, wanted) => expect(outcome(id, [...values], expected)).toBe(wanted));
});

describe('ohms that the family states', () => {
  const ohms = (value: number, good?: number) =>
    outcomeOfReading(
      compiled.tests.get('main.input-ohms')!,
      { value },
      { volts: 12, source: 'family', ...(good === undefined ? {} : { ohms: good }) },
    );
  test.each([
    // Many boards read some ten ohms there when they are well.
    [22, undefined, 'low'],
    [22, 24, 'not-low'],
    [13, 24, 'not-low'],
    [2, 24, 'low'],
    // Not short, and yet far from what belongs there.
    [90, 1200, undefined],
    [700, 1200, 'not-low'],
    [3000, 1200, 'not-low'],
  ])('%d Ω where %p belongs: %s', (value, good, wanted) => expect(ohms(value, good)).toBe(wanted));

  test('are the rail’s own', () => {
    const family = [...compiled.families.values()].find(({ rails }) => rails.some((rail) => rail.ohms !== undefined));
    const rail = family?.rails.find((one) => one.ohms !== undefined);
    expect(expectedAt(rail?.point ?? '', family?.layouts[0] ?? '', compiled, family).ohms).toBe(rail?.ohms);
    expect(rail?.ohms).toBeGreaterThan(0);
  });
});

describe('what belongs there, and how that is known', () => {
  test.each([
    ['standby', 'quorvane.qk3', undefined, { volts: 5.2, source: 'family', rail: '5V2_STB', tolerancePercent: 5, ohms: 2200 }],
    ['standby', '', 3.5, { volts: 3.5, source: 'printed' }],
    ['standby', '', 'nothing', { volts: 3, source: 'at-least' }],
    ['bl-on', '', undefined, { volts: 3.3, source: 'usual' }],
    ['bl-on', 'quorvane.qk3', undefined, { volts: 3.3, source: 'usual', active: 'high' }],
    ['main-rail', '', undefined, { volts: 12, source: 'unknown' }],
  ] as const)('%s of %p, printed %p', (point, family, printed, expected) =>
    expect(expectedAt(point, 'led-tcon', compiled, compiled.families.get(family), printed)).toEqual(expected),
  );
});
