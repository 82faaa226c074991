import { describe, expect, test } from '@jest/globals';
import { blinkTableOf, blinkTableProblems, compilePack } from '@veglia/core';
import { fileURLToPath } from 'node:url';
import { readPackFolder } from '../node/index.ts';
import { readBlinkTableCsv, readTraceCsv, writeBlinkTableCsv, writeTraceCsv } from './csv.ts';

const compiled = compilePack(await readPackFolder(fileURLToPath(new URL('../../../../knowledge', import.meta.url))));

describe('a trace', () => {
  test('is read with and without colours, whatever line ends, blank lines and a byte order mark', () => {
    expect(readTraceCsv('\uFEFFtime_s,level\r\n0,1\r\n0.5,2.5\r\n\r\n')).toEqual({ trace: { timesS: [0, 0.5], levels: [1, 2.5] } });
    expect(readTraceCsv('Time_S, Level ,colour\n0,1,Red\n1,2,')).toEqual({
      trace: { timesS: [0, 1], levels: [1, 2], colours: ['red', undefined] },
    });
  });

  test('other words for amber are amber, and a light that is off has no colour', () => {
    expect(readTraceCsv('time_s,level,colour\n0,1,orange\n1,2,off\n2,3,-')).toEqual({
      trace: { timesS: [0, 1, 2], levels: [1, 2, 3], colours: ['amber', undefined, undefined] },
    });
  });

  test('written and read is the same', () => {
    const trace = { timesS: [0, 0.033, 0.07], levels: [3, 4.25, -1e-7], colours: ['red', undefined, 'amber'] as const };
    expect(readTraceCsv(writeTraceCsv(trace))).toEqual({ trace });
  });

  test.each([
    ['no level', 'time_s,brightness\n0,1', 'file'],
    ['a word for a number', 'time_s,level\n0,1\n1,bright', 'file, row 2, level'],
    ['an empty cell', 'time_s,level\n0,1\n,2', 'file, row 2, time_s'],
    ['a colour nobody knows', 'time_s,level,colour\n0,1,mauve', 'file, row 1, colour'],
    ['nothing at all', '', 'file'],
  ])('refused: %s', (_, text, where) => {
    const read = readTraceCsv(text);
    expect('problems' in read ? read.problems[0]?.where : read).toBe(where);
  });
});

describe('a table', () => {
  test('what a spreadsheet would work out is written so that it doesn’t, and read as it was', () => {
    const code = (meaning: string) => ({
      id: 'one',
      groups: [1],
      meaning: { en: meaning },
      suspects: {},
      source: 'cover',
      date: '2026-01-01',
      by: '@me',
    });
    const table = (meaning: string) => ({ format: 'veglia-blink-table', version: 1, family: 'quorvane.qk3', codes: [code(meaning)] });
    for (const meaning of ['=HYPERLINK("http://x.example")', '+1', '-1', '@SUM(A1)', "'=x", 'plain']) {
      const csv = writeBlinkTableCsv(table(meaning));
      expect(csv.split(/[\n,]/).filter((cell) => /^"?[=+@-]/.test(cell))).toEqual([]);
      expect((readBlinkTableCsv(csv, 'quorvane.qk3').document as { codes: unknown[] }).codes).toEqual([code(meaning)]);
    }
  });

  test.each(compiled.pack.families.map(({ id }) => id))('of %s goes out as CSV and comes in as it was', (family) => {
    const document = blinkTableOf(compiled, family);
    const { document: again, problems } = readBlinkTableCsv(writeBlinkTableCsv(document), family);
    expect(problems).toEqual(document.codes.length === 0 ? [] : []);
    expect(again).toEqual(document);
  });

  test('problems name the row; what can’t be read is told and nothing guessed', () => {
    const text =
      'id,groups,meaning,suspects,source,date,by\nfour,four,Light,strips=often,cover,2026-01-01,Me\nfive,5,"Fan, hot",fans,,2026-01-01,Me\n';
    const { document } = readBlinkTableCsv(text, 'quorvane.qk3');
    expect(blinkTableProblems(document, compiled.pack).problems.map(({ where }) => where)).toEqual([
      'row 1 (four), groups, 0',
      'row 2 (five), suspects, fans',
      'row 2 (five), source',
    ]);
  });
});
