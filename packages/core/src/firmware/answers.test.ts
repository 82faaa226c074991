import { expect, test } from '@jest/globals';
import { shipped } from '../testing/shipped.ts';
import { flashAnswerCases } from './answerCases.ts';
import { flashMeaning } from './answers.ts';

test.each(flashAnswerCases)('$name', ({ did, answers }) => {
  const compiled = shipped();
  const { tests, repair } = flashMeaning(did, compiled.tests.values(), compiled.repairsOf.get('led-tcon') ?? []);
  const said = [...tests.map(({ test: id, outcome }) => `${id} ${outcome}`), ...(repair ? [`${repair.repair} ${repair.result}`] : [])];
  expect(said).toEqual(answers);
});
