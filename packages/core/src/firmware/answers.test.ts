import { expect, test } from '@jest/globals';
import { shipped } from '../testing/shipped.ts';
import { flashAnswerCases } from './answerCases.ts';
import { flashAnswering, flashInstruments, flashMeaning } from './answers.ts';

test.each(flashAnswerCases)('$name', ({ did, answers }) => {
  const compiled = shipped();
  const { tests, repair } = flashMeaning(did, compiled.tests.values(), compiled.repairsOf.get('led-tcon') ?? []);
  const said = [...tests.map(({ test: id, outcome }) => `${id} ${outcome}`), ...(repair ? [`${repair.repair} ${repair.result}`] : [])];
  expect(said).toEqual(answers);
});

test('the pack names results that there are, and each kind of memory answers something', () => {
  const named = [...shipped().tests.values()].flatMap(({ observe }) =>
    observe.outcomes.flatMap(({ by }) => (by ?? []).filter(({ instrument }) => instrument.startsWith('flash'))),
  );
  for (const { instrument, finding } of named) {
    expect(flashInstruments).toContain(instrument);
    expect(flashAnswering).toContain(finding);
  }
  for (const one of flashInstruments) expect(named.map(({ instrument }) => instrument)).toContain(one);
  for (const one of flashAnswering) expect(named.map(({ finding }) => finding)).toContain(one);
});
