import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import type { Pack } from '@veglia/core';
import { symptomSearch } from './symptomSearch.ts';

const symptoms = JSON.parse(readFileSync(new URL('../../../../../knowledge/symptoms.json', import.meta.url), 'utf8')) as Pack['symptoms'];
const { find } = symptomSearch(symptoms);

describe('symptoms by what people say', () => {
  test.each([
    ['comes on then dies', 'starts-then-stops'],
    ['sound but no picture', 'sound-dark'],
    ['no picture sound', 'sound-dark'],
    ['picture no sound', 'no-sound'],
    ['half the screen', 'half-picture'],
    ['keeps restarting', 'restart-loop'],
    ['completely dead', 'dead'],
    ['won’t turn on', 'dead'],
    ["won't connect", 'app-fault'],
    ['upside down', 'wrong-way-round'],
    ['fan is loud', 'hot-or-fan'],
    ['flashing light', 'blinking'],
    ['thin line', 'single-line'],
    ['wrong colours', 'many-lines'],
    ['third try', 'slow-start'],
    ['red light', 'standby-no-start'],
    ['silent', 'no-sound'],
    ['sount but no pictur', 'sound-dark'],
  ])('“%s” is %s', (typed, id) => {
    expect(find(typed)[0]).toBe(id);
  });

  test('every saying of the pack finds its own symptom first', () => {
    for (const { id, name, said, also } of symptoms) {
      expect(also?.length).toBeGreaterThanOrEqual(4);
      for (const phrase of [name.en, said.en, ...(also ?? [])]) expect([phrase, find(phrase)[0]]).toEqual([phrase, id]);
    }
  });

  test('nothing typed lists all, nonsense finds none', () => {
    expect(find(' ')).toEqual(symptoms.map(({ id }) => id));
    expect(find('zzqx vlorp')).toEqual([]);
  });
});
