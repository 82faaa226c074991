import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { formatQuantity, instruments, runInstrument, substituteReasons } from '@veglia/core';
import { fieldProblemSentence, findingSentence, instrumentWords } from '../index.ts';

const words = instrumentWords.en;
const folder = new URL('../../../core/src/instruments/', import.meta.url);
const sources = readdirSync(folder)
  .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && name !== 'instrument.ts')
  .map((name) => readFileSync(new URL(name, folder), 'utf8'))
  .join('\n');

describe('words of the instruments', () => {
  test('each has a name, help, and an example that it takes and says something of', () => {
    // Pictures come as files: it has words and no fields.
    expect(Object.keys(words.instrument).sort()).toEqual([...instruments.map(({ id }) => id), 'thermal'].sort());
    for (const instrument of instruments) {
      const outcome = runInstrument(instrument, words.instrument[instrument.id]?.example ?? {});
      expect(outcome.ok && outcome.report.needs).toEqual([]);
      if (outcome.ok) expect(outcome.report.figures.length + outcome.report.findings.length).toBeGreaterThan(0);
    }
  });
  test('every field, choice, figure and finding of the sources has words', () => {
    const ids = (pattern: RegExp): string[] => [...new Set([...sources.matchAll(pattern)].map(([, id = '']) => id))];
    const codes = [...ids(/(?:code: |asks\(|bars\()'([a-z-]+)'/g), ...substituteReasons];
    expect(codes.length).toBeGreaterThan(15);
    expect(codes.filter((code) => words.finding[code] === undefined)).toEqual([]);
    const figures = ids(/id: '(\w+)', value:/g);
    expect(figures.length).toBeGreaterThan(10);
    expect(figures.filter((id) => words.figure[id] === undefined)).toEqual([]);
    const fields = instruments.flatMap((one) => one.fields);
    expect(fields.filter(({ id }) => words.field[id] === undefined).map(({ id }) => id)).toEqual([]);
    expect(fields.flatMap(({ choices = [] }) => choices).filter((one) => words.choice[one] === undefined)).toEqual([]);
  });
  test('findings made of a result have words for each', () => {
    const made = [
      'siblings-alike',
      'siblings-unsure',
      'substitute-yes',
      'substitute-no',
      'substitute-doubt',
      'string-open',
      'pairs-too-few',
      'lanes-more',
    ];
    expect(made.filter((code) => words.finding[code] === undefined)).toEqual([]);
  });
  test('no sentence has a gap', () => {
    const said = instruments.flatMap((instrument) => {
      const outcome = runInstrument(instrument, words.instrument[instrument.id]?.example ?? {});
      return outcome.ok ? outcome.report.findings.map((one) => findingSentence(one)) : [];
    });
    expect(said.filter((one) => one.includes('—') || one.includes('{'))).toEqual([]);
    expect(fieldProblemSentence({ field: 'volts', code: 'too-large', typed: '9 MV', bound: formatQuantity(2000, 'V') })).toBe(
      'Voltage, V: “9 MV” is above 2 kV.',
    );
  });
});
