import { expect, test } from '@jest/globals';
import { readBootConfig, sameBoot } from './bootConfig.ts';
import { registerCases } from './bootConfigCases.ts';

test.each(registerCases)('%s %s %s', (partition, bus, reset, wanted) => {
  expect(readBootConfig({ partition, bus, reset })).toEqual(wanted);
});
test('alike but for the area that was last accessed', () => {
  const old = { partition: '48', bus: '00', reset: '01' };
  expect(sameBoot(old, { ...old, partition: '49' })).toBe(true);
  for (const other of [{ partition: '08' }, { partition: '50' }, { bus: '02' }, { reset: '00' }])
    expect(sameBoot(old, { ...old, ...other })).toBe(false);
});
