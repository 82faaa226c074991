import { beforeEach, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { useTypedInstruments } from './typedInstruments.ts';

beforeEach(() => void setActivePinia(createPinia()));

test('what the ledger has stands in the fields until something is typed, also where it comes later', () => {
  const store = useTypedInstruments();
  expect(store.of('j', 'string')).toEqual({});
  expect(store.of('j', 'string', () => ({ strips: '6' }))).toEqual({ strips: '6' });
  const fields = store.of('j', 'string', () => ({ strips: '6', leds: '10' }));
  expect(fields).toEqual({ strips: '6', leds: '10' });
  fields.leds = '8';
  expect(store.of('j', 'string', () => ({ strips: '4' }))).toEqual({ strips: '6', leds: '8' });
  // Of another job, or of none, nothing is known by that.
  expect(store.of('k', 'string')).toEqual({});
  expect(store.of('', 'string')).toEqual({});
});
test('fields that were emptied stay so', () => {
  const store = useTypedInstruments();
  const fields = store.of('e', 'string', () => ({ strips: '6' }));
  fields.strips = '';
  expect(store.of('e', 'string', () => ({ strips: '6' }))).toEqual({ strips: '' });
});
