/** What a bench knows of the contacts by heart; values from memory of data sheets. */
import { expect, test } from '@jest/globals';
import { contactsOf } from './pins.ts';

test('25-series flash: select 1, data out 2, ground 4, data in 5, clock 6, supply 8; protect and hold are pulled up', () => {
  const { numbered, contacts } = contactsOf('spi-nor');
  expect(numbered).toBe(true);
  expect(contacts.map(({ name }, index) => `${index + 1} ${name}`)).toEqual([
    '1 CS#',
    '2 DO',
    '3 WP#',
    '4 GND',
    '5 DI',
    '6 CLK',
    '7 HOLD#',
    '8 VCC',
  ]);
  expect(contacts.filter(({ wants }) => wants === 'high').map(({ name }) => name)).toEqual(['WP#', 'HOLD#']);
});
test('24-series EEPROM: three addresses, ground 4, data 5, clock 6, write protect 7 low to be written, supply 8', () => {
  const { contacts } = contactsOf('eeprom');
  expect(contacts.map(({ name }) => name)).toEqual(['A0', 'A1', 'A2', 'GND', 'SDA', 'SCL', 'WP', 'VCC']);
  expect(contacts[6]).toMatchObject({ wants: 'low' });
});
test('ground and supply stand across from each other on both: a clip turned round by half swaps them', () => {
  for (const memory of ['spi-nor', 'eeprom'] as const) {
    const { contacts } = contactsOf(memory);
    expect([contacts[3]?.does, contacts[7]?.does]).toEqual(['ground', 'supply']);
  }
});
test('an eMMC in place: command, clock, data 0, ground, and its two supplies', () => {
  const { numbered, contacts } = contactsOf('emmc');
  expect([numbered, contacts.map(({ name }) => name)]).toEqual([false, ['CMD', 'CLK', 'DAT0', 'GND', 'VCC', 'VCCQ']]);
});
