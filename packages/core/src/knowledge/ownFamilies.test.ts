/** Families a shop keeps. What is expected was written first: familyCases.ts. */
import { describe, expect, test } from '@jest/globals';
import { InputRefused } from '../problems.ts';
import { shippedPack } from '../testing/shipped.ts';
import { coverCases, likeExpects } from './familyCases.ts';
import { foldCase, parseCase } from '../index.ts';
import {
  checkPack,
  compilePack,
  familiesCovering,
  familyHints,
  familyProblems,
  likeFamily,
  linkInstead,
  ribbonsOf,
  withFamily,
  type Family,
} from './index.ts';

const pack = shippedPack();
const other = pack.families.find(({ blink, rails }) => blink.length > 0 && rails.length > 0)!;
const own = {
  ...likeFamily({ ...other, remotes: ['7 1 2'], notes: [{ en: 'x' }] }, { id: 'aldwen.t1', name: 'Aldwen T1', maker: 'Aldwen' }),
  models: ['T1-32'],
};

test.each(coverCases)('covers: $name', ({ families, plate, found }) => {
  expect(familiesCovering(families as Family[], plate)).toEqual(found);
});

describe('like another, but', () => {
  test.each(likeExpects.same)('%s come along', (key) => expect(own[key]).toEqual(other[key]));
  test.each(likeExpects.empty.filter((one) => one !== 'models'))('%s do not', (key) => expect(own[key] ?? []).toEqual([]));
  test('it says what it was made from, and that nothing of it is confirmed', () => {
    expect(own.from).toBe(other.id);
    expect(own.source).toContain('not confirmed');
  });
});

describe('kept in the pack', () => {
  test('added: the pack has it, is right, and the others are as they were', () => {
    const next = withFamily(pack, own);
    expect(next.families).toHaveLength(pack.families.length + 1);
    expect(checkPack(next)).toEqual(checkPack(pack));
    expect(next.families.slice(0, -1)).toEqual(pack.families);
  });
  test('changed: its blink table stays, which has changes of its own', () => {
    const next = withFamily(pack, { ...other, maker: 'Else', blink: [] });
    const found = next.families.find(({ id }) => id === other.id)!;
    expect(found.maker).toBe('Else');
    expect(found.blink).toEqual(other.blink);
  });
  const bad: [string, (family: Family) => unknown, string][] = [
    ['no layout', (one) => ({ ...one, layouts: [] }), 'family.layouts'],
    ['a layout nobody knows', (one) => ({ ...one, layouts: ['led-tcon', 'cube'] }), 'family.layouts'],
    [
      'a rail where no layout of it has a point',
      (one) => ({ ...one, rails: [{ ...other.rails[0], point: 'nowhere' }] }),
      'family.rails.1.point',
    ],
    ['two rails of one id', (one) => ({ ...one, rails: [other.rails[0], other.rails[0]] }), 'family.rails.2.id'],
    [
      'a longest start shorter than the usual',
      (one) => ({ ...one, healthy: { ...one.healthy, longestStartSeconds: 1 } }),
      'family.healthy.longestStartSeconds',
    ],
    ['years the wrong way round', (one) => ({ ...one, scope: { years: [2020, 2010] } }), 'family.scope.years'],
    [
      'a code that accuses what nobody knows',
      (one) => ({ ...one, blink: [{ ...other.blink[0], suspects: { gremlin: 'often' } }] }),
      'family.blink 1',
    ],
    ['an unknown field', (one) => ({ ...one, colour: 'red' }), 'family'],
  ];
  test.each(bad)('%s is refused, and says where', (_, change, where) => {
    expect(familyProblems(change(own), pack).problems.map((one) => one.where)[0]).toContain(where);
    expect(() => withFamily(pack, change(own))).toThrow(InputRefused);
  });
});

test('a step shows what the family says for it, and no other does', () => {
  const family: Family = { ...other, service: [{ en: 'menu 1 3 7' }], remotes: ['code 0412'], jig: 'jig 4' };
  const hintsOf = (id: string): string[] =>
    familyHints(
      pack.tests.find((one) => one.id === id)!,
      family,
    );
  expect(hintsOf('service.setting')).toEqual(['menu 1 3 7', 'code 0412']);
  expect(hintsOf('pattern.own')).toEqual(['menu 1 3 7']);
  expect(hintsOf('remote-key')).toEqual(['code 0412']);
  expect(hintsOf('jig.oled')).toEqual(['jig 4']);
  expect(hintsOf('rail.main')).toEqual([]);
  expect(
    familyHints(
      pack.tests.find((one) => one.id === 'service.setting')!,
      undefined,
    ),
  ).toEqual([]);
});

describe('a set of a version that the family doesn’t cover', () => {
  const scoped = compilePack({
    ...pack,
    families: pack.families.map((one) =>
      one.id === 'quorvane.qk3' ? { ...one, scope: { versions: ['A'], years: [2015, 2019] as [number, number] } } : one,
    ),
  });
  const folded = (plate: object) =>
    foldCase(
      parseCase({
        format: 'veglia-case',
        version: 2,
        set: { layout: 'led-tcon', family: 'quorvane.qk3', ...plate },
        entries: [{ body: { kind: 'symptom.reported', symptoms: ['blinking'] } }, { body: { kind: 'blink.read', groups: [6], cycles: 3 } }],
      }).input,
      scoped,
    );
  const mainOf = (plate: object): number => folded(plate).assemblies.find(({ id }) => id === 'main')?.probability ?? 0;
  const told = (plate: object): boolean => folded(plate).doubts.some(({ code }) => code === 'outside-family');
  test('is told, and its code counts less but still counts', () => {
    expect([told({ version: 'B' }), told({ version: 'a' }), told({}), told({ year: 2021 }), told({ year: 2019 })]).toEqual([
      true,
      false,
      false,
      true,
      false,
    ]);
    const without = foldCase(
      parseCase({
        format: 'veglia-case',
        version: 2,
        set: { layout: 'led-tcon', family: 'quorvane.qk3', version: 'B' },
        entries: [{ body: { kind: 'symptom.reported', symptoms: ['blinking'] } }],
      }).input,
      scoped,
    ).assemblies.find(({ id }) => id === 'main')?.probability;
    expect(mainOf({ version: 'B' })).toBeLessThan(mainOf({ version: 'A' }) - 0.01);
    expect(mainOf({ version: 'B' })).toBeGreaterThan((without ?? 1) + 0.01);
  });
});

describe('ribbons of the panel', () => {
  // Common practice, no source: two ribbons, one for each half; or one, with a link from half to half.
  const compiled = compilePack(pack);
  const layout = (id: string) => compiled.layouts.get(id);
  const linked = { ...other, ribbons: 'link' } as Family;
  test('by layout, and a family that differs stands above it; where no ribbon is of one half nothing is said', () => {
    expect(ribbonsOf(layout('led-tcon'), undefined)).toBe('each');
    expect(ribbonsOf(layout('led-tcon-on-main'), other)).toBe('each');
    expect(ribbonsOf(layout('led-tcon'), linked)).toBe('link');
    expect(ribbonsOf(layout('led-tcon-on-panel'), linked)).toBeUndefined();
    expect(ribbonsOf(layout('plasma'), undefined)).toBeUndefined();
  });
  test('a step that takes off one half’s ribbon says so where a link feeds the other half', () => {
    const half = compiled.tests.get('cut.panel-left')!;
    const both = compiled.tests.get('cut.panel-both')!;
    const reseat = compiled.tests.get('reseat')!;
    expect(linkInstead(half, undefined, layout('led-tcon'), linked)).toBe(true);
    expect(linkInstead(half, undefined, layout('led-tcon'), other)).toBe(false);
    expect(linkInstead(both, undefined, layout('led-tcon'), linked)).toBe(false);
    expect(linkInstead(reseat, 'harness.light', layout('led-tcon'), linked)).toBe(false);
  });
  test('a ribbon that the layout hasn’t got is refused', () => {
    const spoilt = structuredClone(pack);
    const first = spoilt.layouts.find(({ id }) => id === 'led-tcon')!;
    first.ribbons = { 'harness.nowhere': 'left' };
    expect(checkPack(spoilt).map(({ value }) => value)).toContain('harness.nowhere');
  });
});
