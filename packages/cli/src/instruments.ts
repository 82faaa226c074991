/** `veglia <instrument>`: fields as FIELD=VALUE, or as JSON from a file or standard input; figures and findings out. */
import { fieldProblemSentence, findingSentence } from '@veglia/contract';
import { formatQuantity, InputRefused, runInstrument, type Instrument } from '@veglia/core';
import { z } from 'zod';
import { readText } from './blink.ts';

const fieldsSchema = z.record(z.string(), z.union([z.string(), z.number()]));

/** `words`: FIELD=VALUE, or one name of a JSON file, - for standard input. Throws InputRefused with every field that can't be read. */
export async function instrument(one: Instrument, words: readonly string[]): Promise<object> {
  const [only, ...more] = words;
  const typed = only !== undefined && more.length === 0 && !only.includes('=') ? await fromFile(only) : fromWords(words);
  const outcome = runInstrument(one, typed);
  if (!outcome.ok)
    throw new InputRefused(
      outcome.problems.map((problem) => ({
        code: 'schema',
        where: problem.field || one.id,
        value: problem.typed,
        expected: fieldProblemSentence(problem),
      })),
    );
  const { figures, findings, needs } = outcome.report;
  return {
    instrument: one.id,
    read: outcome.read,
    figures: figures.map((figure) => ({ ...figure, text: formatQuantity(figure.value, figure.unit) })),
    findings: findings.map((finding) => ({ ...finding, sentence: findingSentence(finding) })),
    needs,
  };
}

function fromWords(words: readonly string[]): Record<string, string> {
  const wrong = words.filter((word) => !/^\w+=/.test(word));
  if (wrong.length > 0)
    throw new InputRefused(wrong.map((word) => ({ code: 'schema', where: 'field', value: word, expected: 'FIELD=VALUE' })));
  return Object.fromEntries(words.map((word) => [word.slice(0, word.indexOf('=')), word.slice(word.indexOf('=') + 1)]));
}

async function fromFile(file: string): Promise<Record<string, string | number>> {
  const text = await readText(file);
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    throw new InputRefused([{ code: 'not-json', where: file, expected: (error as Error).message }]);
  }
  const read = fieldsSchema.safeParse(document);
  if (!read.success) throw new InputRefused([{ code: 'schema', where: file, expected: 'an object of fields, each a text or a number' }]);
  return read.data;
}
