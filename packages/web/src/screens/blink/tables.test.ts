import { describe, expect, test } from '@jest/globals';
import { blinkTableOf, blinkTableProblems, compilePack } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { fileURLToPath } from 'node:url';
import { codesSeen, tableOf, typedRow } from './tables.ts';

const compiled = compilePack(await readPackFolder(fileURLToPath(new URL('../../../../../knowledge', import.meta.url))));

describe('rows as typed', () => {
  test('of every family make the table they came from', () => {
    for (const { id, blink } of compiled.pack.families) {
      expect(tableOf(id, blink.map(typedRow))).toEqual(JSON.parse(JSON.stringify(blinkTableOf(compiled, id))));
    }
  });

  test('a new one gets an id of its code; what can’t be read is refused with its row', () => {
    const row = {
      id: '',
      groups: '3 long 2',
      colour: 'red',
      after: '',
      meaning: 'x',
      suspects: 'strips=often; power = seldom',
      firstCheck: '',
      source: 'cover',
      date: '2026-01-01',
      by: 'Me',
      notices: '',
    };
    const { codes } = tableOf('quorvane.qk3', [row]);
    expect(codes).toEqual([
      expect.objectContaining({ id: 'code-3-2-red', groups: [3, 2], suspects: { strips: 'often', power: 'seldom' } }),
    ]);
    const spoilt = tableOf('quorvane.qk3', [
      { ...row, id: 'a', groups: 'often' },
      { ...row, id: 'b', groups: '', suspects: 'strips' },
    ]);
    expect(blinkTableProblems(spoilt, compiled.pack).problems.map(({ where }) => where)).toEqual([
      'row 1 (a), groups, 0',
      'row 2 (b), suspects, strips',
    ]);
  });
});

test('codes seen: by code, with what they were', () => {
  expect(
    codesSeen([
      { code: '4', found: 'x', n: 2 },
      { code: '3-1', found: 'z', n: 1 },
      { code: '4', found: 'y', n: 1 },
      { code: '4', found: null, n: 1 },
    ]),
  ).toEqual([
    {
      code: '4',
      n: 4,
      found: [
        { what: 'x', n: 2 },
        { what: 'y', n: 1 },
        { what: undefined, n: 1 },
      ],
    },
    { code: '3-1', n: 1, found: [{ what: 'z', n: 1 }] },
  ]);
});
