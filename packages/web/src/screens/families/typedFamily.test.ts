import { describe, expect, test } from '@jest/globals';
import { familyProblems } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { fileURLToPath } from 'node:url';
import { blankFamily, blankRail, familyIdOf, familyOf, typedFamily } from './typedFamily.ts';

const pack = await readPackFolder(fileURLToPath(new URL('../../../../../knowledge', import.meta.url)));

describe('a family in the form', () => {
  test.each(pack.families.map((one) => [one.id, one] as const))('%s comes out as it went in', (_, family) => {
    expect(familyOf(typedFamily(family), family.blink)).toEqual(JSON.parse(JSON.stringify(family)));
  });
  test('numbers as a bench writes them', () => {
    const rail = { ...blankRail(), name: '3V3', point: 'standby', volts: '3V3', ohms: '1k2', tolerance: '5 %' };
    const typed = {
      ...blankFamily('a.b', 'A B', 'A'),
      seconds: '11',
      longest: '19',
      source: 'cover',
      layouts: ['led-tcon'],
      rails: [rail],
    };
    const document = familyOf({ ...typed, off: 'x', starting: 'x', on: 'x' }, []);
    const { family, problems } = familyProblems(document, pack);
    expect(problems).toEqual([]);
    expect(family?.rails[0]).toMatchObject({ id: 'standby', nominalVolts: 3.3, ohms: 1200, tolerancePercent: 5, source: 'cover' });
  });
  test('what is no number is refused by its place, and not lost', () => {
    const typed = { ...blankFamily('a.b', 'A B', 'A'), seconds: 'soon', years: 'since 2014' };
    const { problems } = familyProblems(familyOf(typed, []), pack);
    expect(problems.map(({ where }) => where)).toEqual(
      expect.arrayContaining(['family.healthy.secondsToPicture', 'family.scope.years', 'family.layouts', 'family.source']),
    );
  });
  test.each([
    ['Quorvane', 'Quorvane QK3', 'quorvane.qk3'],
    ['Ald Wén', 'T1 / 32', 'ald-wen.t1-32'],
    ['Aldwen', 'Aldwen', 'aldwen'],
  ])('id of %s, %s', (maker, name, id) => expect(familyIdOf(maker, name)).toBe(id));
});
