/** Settings after a flash, as a bench goes about them, written before the rules: common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import type { FlashDid } from '../ledger/index.ts';
import { nextValue, settingFor, triedValues } from './settings.ts';

const set = (name: string, to: string, shows?: Extract<FlashDid, { step: 'setting' }>['shows']): FlashDid => ({
  step: 'setting',
  name,
  to,
  ...(shows === undefined ? {} : { shows }),
});

describe('which setting a picture asks for', () => {
  test.each([
    ['upside-down', 'mirror'],
    ['mirrored', 'mirror'],
    ['wrong-colours', 'mapping'],
    ['striped', 'mapping'],
    ['doubled', 'panel-id'],
    ['no-picture', 'panel-id'],
    ['too-dark', 'backlight'],
    ['right', undefined],
  ] as const)('%s: %s', (shows, wanted) => {
    expect(settingFor(shows)).toBe(wanted);
  });
});

describe('values tried', () => {
  const did = [set('Panel id', '3', 'no-picture'), set('mirror', 'on'), set('panel ID', '4', 'upside-down'), set('Panel id', '3')];
  test('of one setting, whoever wrote its name how, the last look at each value', () => {
    expect(triedValues(did, 'panel id')).toEqual([{ to: '4', shows: 'upside-down' }, { to: '3' }]);
  });
  test('the next one is the first number nobody tried; hexadecimal stays hexadecimal', () => {
    expect(nextValue(['0', '1', '3'])).toBe('2');
    expect(nextValue([])).toBe('0');
    expect(nextValue(['0x00', '0x01', '0x09'])).toBe('0x02');
    expect(nextValue(['on', 'off'])).toBeUndefined();
  });
});
