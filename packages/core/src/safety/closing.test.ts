import { describe, expect, test } from '@jest/globals';
import { outcomesOfAJob } from '../ledger/index.ts';
import { leftBeforeClosing } from './index.ts';

const asDelivered = { out: [], bridged: [], taped: [] };
const opened = { out: ['keys'], bridged: [['standby', 'ps-on']] as [string, string][], taped: ['clock-lines'] };
const all = ['bridge ps-on standby', 'keys', 'tape clock-lines'];

describe('before a set is closed', () => {
  test.each(['repaired', 'repaired-with-known-flaw', 'workaround'] as const)('%s: every plug, bridge and tape is named', (outcome) => {
    expect(leftBeforeClosing({ outcome }, opened)).toEqual(all);
    expect(leftBeforeClosing({ outcome }, asDelivered)).toEqual([]);
  });
  test('what is recorded as a modification stays, and only that', () => {
    expect(leftBeforeClosing({ outcome: 'workaround', modified: ['tape clock-lines'] }, opened)).toEqual(['bridge ps-on standby', 'keys']);
    expect(leftBeforeClosing({ outcome: 'workaround', modified: all }, opened)).toEqual([]);
  });
  test('a set that is not used again may leave as it is', () => {
    const others = outcomesOfAJob.filter((one) => !['repaired', 'repaired-with-known-flaw', 'workaround'].includes(one));
    expect(others.length).toBeGreaterThan(1);
    for (const outcome of others) expect(leftBeforeClosing({ outcome }, opened)).toEqual([]);
  });
});
