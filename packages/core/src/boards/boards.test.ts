/** Boards a shop knows. What is expected of labels and pins was written first: boardCases.ts. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { InputRefused } from '../problems.ts';
import type { Body, Entry } from '../ledger/index.ts';
import { shipped } from '../testing/shipped.ts';
import { labelCases, learnedCases, pinCases, rowCases, togetherCases } from './boardCases.ts';
import {
  boardsFound,
  judgePin,
  parseBoardFile,
  pinName,
  withGoodReading,
  learnedFrom,
  parseBoard,
  pinId,
  pinsAgree,
  pinSpot,
  placesOf,
  pointOfLabel,
  readLabel,
  type PinExpectation,
} from './index.ts';

const compiled = shipped();
const uuid = (n: number): string => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;

describe('a printed label', () => {
  test.each(labelCases)('$label on $on', ({ label, on = '', layout = 'led-tcon', point, volts, ground }) => {
    const read = readLabel(label, compiled);
    expect({ point: pointOfLabel(label, on, layout, compiled) ?? null, volts: read.volts, ground: read.entry?.ground }).toEqual({
      point,
      volts,
      ground,
    });
  });
});

describe('a reading at a pin', () => {
  test.each(pinCases)('$name', ({ label, state, expects = [], value, level, deviation }) => {
    const judged = judgePin(
      { label, expects: expects as PinExpectation[] },
      state === 'unplugged' ? 'ohms' : 'volts',
      value,
      state,
      compiled,
    );
    expect(judged.level).toBe(level);
    if (deviation !== undefined) expect(judged.deviationPercent).toBeCloseTo(deviation, 1);
  });
  test.each(togetherCases)('$name', ({ values, together }) => {
    expect(pinsAgree(values)).toBe(together === 'agree');
  });
  test.each(learnedCases)('$name on good boards', ({ readings, value, least, most, n }) => {
    let learned: PinExpectation | undefined;
    for (const reading of readings) learned = learnedFrom(learned, 'volts', 'on', reading);
    expect(learned).toEqual({ quantity: 'volts', state: 'on', source: 'measured', value, least, most, n });
  });
});

describe('a row of pins', () => {
  test.each(rowCases)('$name', ({ first, last, across, count, pin, at }) => {
    const pins = Array.from({ length: count }, () => ({ label: '', expects: [] }));
    const [x, y] = pinSpot({ first: [...first], last: [...last], ...(across ? { across: [...across] } : {}), pins }, pin);
    expect(x).toBeCloseTo(at[0]);
    expect(y).toBeCloseTo(at[1]);
  });
  test('a number it has not got is refused', () => {
    expect(() => pinSpot({ first: [0, 0], last: [1, 1], pins: [{ label: '', expects: [] }] }, 2)).toThrow(RangeError);
  });
  test('every pin of any row is on the picture', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    const spot = fc.tuple(share, share);
    fc.assert(
      fc.property(spot, spot, fc.option(spot, { nil: undefined }), fc.integer({ min: 1, max: 120 }), (first, last, across, count) => {
        const pins = Array.from({ length: count }, () => ({ label: '', expects: [] }));
        for (let number = 1; number <= count; number += 1) {
          const where = pinSpot({ first, last, ...(across ? { across } : {}), pins }, number);
          expect(where.every((one) => one >= 0 && one <= 1)).toBe(true);
        }
      }),
      { numRuns: 60, seed: 14 },
    );
  });
  test.each([
    ['CN201', 3, 'cn201.3'],
    ['1 (left)', 12, 'c1-left.12'],
    ['P801_A', 1, 'p801-a.1'],
  ])('%s pin %s is %s in the ledger', (name, number, id) => expect(pinId(name, number)).toBe(id));
});

const board = {
  format: 'veglia-board',
  version: 1,
  id: uuid(1),
  number: 'PW-7710 R2',
  assembly: 'power',
  layout: 'led-tcon',
  pictures: [
    {
      id: uuid(2),
      photo: uuid(3),
      marks: [
        {
          kind: 'connector',
          id: uuid(4),
          name: 'CN201',
          on: 'harness.power-main',
          first: [0.2, 0.5],
          last: [0.4, 0.5],
          pins: [{ label: '5VSB' }, { label: 'PS-ON' }, { label: 'X7', point: 'dim' }],
        },
        { kind: 'fuse', id: uuid(5), name: 'F801', at: [0.7, 0.1] },
      ],
    },
  ],
};

describe('a board', () => {
  test('its pins and marks, with the points they stand for', () => {
    expect(placesOf(parseBoard(board), compiled).map(({ label, point, spot }) => ({ label, point, spot }))).toEqual([
      { label: '5VSB', point: 'standby', spot: [0.2, 0.5] },
      { label: 'PS-ON', point: 'ps-on', spot: [expect.closeTo(0.3), 0.5] },
      { label: 'X7', point: 'dim', spot: [0.4, 0.5] },
      { label: 'F801', point: undefined, spot: [0.7, 0.1] },
    ]);
  });
  test.each([
    ['no number', { ...board, number: ' ' }, 'board.number'],
    [
      'a mark off the picture',
      { ...board, pictures: [{ ...board.pictures[0], marks: [{ kind: 'part', id: uuid(6), name: 'C1', at: [1.2, 0] }] }] },
      'at.0',
    ],
    [
      'a kind of mark that is none',
      { ...board, pictures: [{ ...board.pictures[0], marks: [{ kind: 'spot', id: uuid(6), name: 'C1', at: [0, 0] }] }] },
      'kind',
    ],
  ])('%s is refused and named', (_, document, where) => {
    let problems: readonly { where: string }[] = [];
    try {
      parseBoard(document);
    } catch (error) {
      problems = (error as InputRefused).problems;
    }
    expect(problems.map((one) => one.where).join(' ')).toContain(where);
  });
  test('a reading of a good one is added to its pin, and to no other', () => {
    const read = parseBoard(board);
    const [standby] = placesOf(read, compiled);
    if (!standby) throw new Error('no pin');
    const once = withGoodReading(read, standby, 'volts', 'standby', 5.1);
    const [again] = placesOf(once, compiled);
    const twice = withGoodReading(once, again ?? standby, 'volts', 'standby', 5.3);
    expect(placesOf(twice, compiled).map(({ expects }) => expects)).toEqual([
      [{ state: 'standby', quantity: 'volts', value: 5.2, least: 5.1, most: 5.3, source: 'measured', n: 2 }],
      [],
      [],
      [],
    ]);
    expect(placesOf(twice, compiled).map(pinName)).toEqual(['CN201 pin 1, 5VSB', 'CN201 pin 2, PS-ON', 'CN201 pin 3, X7', 'F801']);
  });
  test('in a file with its photos; one whose photo is missing is refused and named', () => {
    const file = { format: 'veglia-boards', version: 1, boards: [board], photos: [{ id: uuid(3), base64: 'aGVsbG8=' }] };
    expect(parseBoardFile(file).boards).toEqual([parseBoard(board)]);
    expect(() => parseBoardFile({ ...file, photos: [] })).toThrow(InputRefused);
    expect(() => parseBoardFile({ ...file, photos: [{ id: uuid(3), base64: '!' }] })).toThrow(InputRefused);
  });
  test('of each assembly the last one found counts, and none that was undone', () => {
    const bodies: Body[] = [
      { kind: 'board.found', v: 1, assembly: 'power', number: 'A' },
      { kind: 'board.found', v: 1, assembly: 'power', number: 'B' },
      { kind: 'board.found', v: 1, assembly: 'main', number: 'C' },
      { kind: 'entry.retracted', v: 1, entry: 'e3', reason: 'misread' },
    ];
    const entries = bodies.map((body, index): Entry => ({
      id: `e${index + 1}`,
      seq: index + 1,
      at: '2026-11-29T08:00:00Z',
      by: 'p',
      basedOn: index,
      body,
    }));
    expect(boardsFound(entries).map(({ number }) => number)).toEqual(['B']);
  });
});
