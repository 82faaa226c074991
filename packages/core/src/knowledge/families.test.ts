/** What a pack of many families has to be: each layout with two or more, and no two alike under other names. */
import { expect, test } from '@jest/globals';
import { shipped, shippedPack } from '../testing/shipped.ts';
import type { Family } from './index.ts';

const { layouts, families, tests, faults } = shippedPack();

/** Share of what two families say that they say alike: codes with their suspects, rails with their figures, traits. */
function alike(a: Family, b: Family): number {
  const facts = (one: Family): Set<string> =>
    new Set([
      ...one.blink.map(({ groups, colour, after }) => `code ${groups.join('-')} ${colour ?? ''} ${after ?? ''}`),
      ...one.blink.map(({ groups, suspects }) => `means ${groups.join('-')} ${Object.keys(suspects).sort().join(' ')}`),
      ...one.rails.map(({ name }) => `name ${name}`),
      ...one.rails.map(({ point, nominalVolts }) => `volts ${point} ${nominalVolts}`),
      ...one.rails.map(({ point, ohms }) => `ohms ${point} ${ohms ?? ''}`),
      ...Object.entries(one.traits).map(([trait, value]) => `trait ${trait} ${value}`),
      `healthy ${one.healthy.off.en} ${one.healthy.starting.en} ${one.healthy.on.en}`,
    ]);
  const left = facts(a);
  const right = facts(b);
  const shared = [...left].filter((fact) => right.has(fact)).length;
  return shared / Math.min(left.size, right.size);
}

test.each(layouts.map(({ id }) => [id]))('%s has two families or more, under 80 %% alike', (id) => {
  const own = families.filter((family) => family.layouts.includes(id));
  expect(own.length).toBeGreaterThanOrEqual(2);
  own.forEach((a, index) => {
    for (const b of own.slice(index + 1)) expect(alike(a, b)).toBeLessThan(0.8);
  });
});

test('no two families of any layout are alike, and a family is wholly like itself', () => {
  families.forEach((a, index) => {
    for (const b of families.slice(index + 1))
      expect({ a: a.id, b: b.id, alike: alike(a, b) < 0.8 }).toEqual({ a: a.id, b: b.id, alike: true });
  });
  expect(alike(families[0]!, families[0]!)).toBe(1);
});

test('the pack has the breadth a bench needs: layouts, faults, tests, each layout its own', () => {
  expect(layouts).toHaveLength(7);
  expect(faults.length).toBeGreaterThanOrEqual(60);
  expect(tests.length).toBeGreaterThanOrEqual(90);
  for (const { id, fixedList, assemblies, proof } of layouts) {
    expect(shipped().testsOf.get(id)!.length).toBeGreaterThan(50);
    expect(fixedList.length).toBeGreaterThan(25);
    for (const assembly of assemblies) if (assembly !== 'outside') expect(proof[assembly]!.anyOf.length).toBeGreaterThan(0);
    for (const family of families.filter((one) => one.layouts.includes(id)))
      expect(family.rails.every(({ ohms }) => ohms !== undefined)).toBe(true);
  }
});

test('where a T-con is merged into another board, its faults, their rows and the small repairs go along; the whole swap does not', () => {
  const fuse = shipped()
    .faultsOf.get('led-tcon-on-panel')!
    .find(({ id }) => id === 'tcon.fuse-open');
  expect(fuse).toMatchObject({ home: 'tcon', assembly: 'panel' });
  const ids = shipped()
    .repairsOf.get('led-tcon-on-panel')!
    .map(({ id }) => id);
  expect(ids).toContain('tcon.fuse');
  expect(ids).not.toContain('replace.tcon');
  expect(
    shipped()
      .faultsOf.get('one-board')!
      .find(({ id }) => id === 'main.no-ps-on')?.assembly,
  ).toBe('combo');
  // No backlight: lit and blank is simply black.
  const row = shipped().symptomLikelihoods('oled', 'tcon.bias-dead');
  expect(row[shipped().symptomIds.indexOf('sound-dark')]).toBeGreaterThan(0.7);
  expect(row[shipped().symptomIds.indexOf('lit-blank')]).toBeLessThan(0.01);
});
