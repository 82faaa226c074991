import { expect, test } from '@jest/globals';
import { shipped } from '../testing/shipped.ts';
import { notSold } from './sold.ts';

// Common practice, no source: COFs, bonded T-cons and mostly panels are not to be had; boards and strips are.
test.each<[string, string, string | undefined, string, string | null]>([
  ['a power board', 'power', 'power.standby-dead', 'led-tcon', null],
  ['strips', 'strips', 'strips.led-open', 'led-tcon', null],
  ['a T-con board', 'tcon', 'tcon.fuse-open', 'led-tcon', null],
  ['a T-con bonded to the panel', 'tcon', 'tcon.fuse-open', 'led-tcon-on-panel', 'part-of'],
  ['a panel', 'panel', 'panel.glass-cracked', 'led-tcon', 'rarely'],
  ['a COF', 'panel', 'panel.film-left', 'led-tcon', 'never'],
  ['a panel of which nobody knows what is wrong with it', 'panel', undefined, 'led-tcon', 'rarely'],
  ['a fault of another assembly says nothing of this one', 'power', 'panel.film-left', 'led-tcon', null],
])('%s', (_, assembly, fault, layout, how) => {
  expect(notSold(assembly, fault, layout, shipped())?.how ?? null).toBe(how);
});
