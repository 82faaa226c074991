import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import {
  accessories,
  comparisonCodes,
  conditions,
  doubtCodes,
  objectionCodes,
  problemCodes,
  reasonCodes,
  unusedCodes,
  verdicts,
  leftOutCodes,
} from '@veglia/core';
import { errorCodes, errorStatus, gearToProve, paperCodes, problemSentence, readJobCards, say, words } from './index.ts';

describe('sentences', () => {
  test.each([
    ['problems', problemCodes, words.en.problem],
    ['reasons', reasonCodes, words.en.reason],
    ['comparisons', comparisonCodes, words.en.comparison],
    ['unused', unusedCodes, words.en.unused],
    ['doubts', doubtCodes, words.en.doubt],
    ['objections', objectionCodes, words.en.objection],
    ['left out', leftOutCodes, words.en.leftOut],
    ['verdicts', verdicts, words.en.verdict],
    ['conditions', conditions, words.en.condition],
    ['accessories', accessories, words.en.accessory],
    ['papers', paperCodes, words.en.paper],
    ['errors', errorCodes, words.en.error],
  ])('%s: one for every code, and none left over', (_, codes, sentences) => {
    expect(codes.length).toBeGreaterThan(3);
    expect(Object.keys(sentences).sort()).toEqual([...codes].sort());
    for (const sentence of Object.values(sentences)) expect(sentence).toMatch(/\S/);
  });

  test('fill their gaps; one that nothing fills shows', () => {
    expect(say('{a} and {b}', { a: 1 })).toBe('1 and —');
    expect(problemSentence({ code: 'row-sum', where: 'tests/torch', value: 1.9, expected: '0.8-1.25' }, words.en)).toBe(
      'tests/torch: the words in this row add up to 1.9, outside 0.8-1.25; check them',
    );
  });
});

describe('errors', () => {
  test('have a status of the 4xx or 5xx kind', () => {
    for (const code of errorCodes) expect([4, 5]).toContain(Math.floor(errorStatus[code] / 100));
  });

  test('are all in docs/formats.md, with their status', () => {
    const document = readFileSync(new URL('../../../docs/formats.md', import.meta.url), 'utf8');
    for (const code of errorCodes) expect(document).toMatch(new RegExp(`\\| \`${code}\` *\\| ${errorStatus[code]} `));
  });
});

test('gear is to be proven again after half a year, and where it never was; told only where it is used', () => {
  const gear = [
    { name: 'meter', provenOn: '2026-05-29', tool: 'meter' },
    { name: 'old meter', provenOn: '2026-05-28', tool: 'meter' },
    { name: 'board', provenOn: null, tool: null },
    { name: 'strips', provenOn: null, tool: 'strip-tester' },
  ];
  expect(gearToProve(gear, ['meter'], '2026-11-25')).toEqual([
    { name: 'old meter', days: 181 },
    { name: 'board', days: null },
  ]);
  expect(gearToProve(gear, ['strip-tester'], '2026-11-25').map(({ name }) => name)).toEqual(['board', 'strips']);
});

test('a card that can’t be read is named, and takes no other with it; one without a number is left', () => {
  const good = {
    jobId: '0190a8c0-0000-7000-8000-000000000001',
    number: 7,
    title: 'x',
    customerName: null,
    openedAt: '2026-03-02T12:00:00.000Z',
    state: 'taken-in',
    symptoms: [],
    top: null,
    next: null,
    outcome: null,
    found: null,
    family: null,
    layout: null,
    code: null,
    condition: [],
    closedAt: null,
    entryCount: 1,
  };
  const bad = { ...good, jobId: '0190a8c0-0000-7000-8000-000000000002', number: 8, state: 'elsewhere' };
  const read = readJobCards({ jobs: [good, bad, null, { number: 'x' }], total: 4, more: false, next: null });
  expect(read.jobs.map(({ number }) => number)).toEqual([7]);
  expect(read.unreadable).toEqual([{ jobId: bad.jobId, number: 8 }]);
});
