import { describe, expect, test } from '@jest/globals';
import { compilePack, parseBoard, placesOf, sheetRows } from '@veglia/core';
import { fileURLToPath } from 'node:url';
import { readPackFolder } from '@veglia/contract/node';
import { onBoard, pinRows, placeOfPoint, pointsApart } from './boardPins.ts';

const compiled = compilePack(await readPackFolder(fileURLToPath(new URL('../../../../../knowledge', import.meta.url))));
const uuid = (n: number): string => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const board = parseBoard({
  format: 'veglia-board',
  version: 1,
  id: uuid(1),
  number: 'PW-1',
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
          name: 'CN1',
          on: 'harness.power-main',
          first: [0.1, 0.1],
          last: [0.5, 0.1],
          pins: [{ label: '5V2SB' }, { label: '5V2SB' }, { label: 'GND' }, { label: 'AMP_18V' }],
        },
        { kind: 'hazard', id: uuid(5), name: 'C1', at: [0.5, 0.5] },
      ],
    },
  ],
});
const places = placesOf(board, compiled);
const standby = sheetRows(compiled, 'led-tcon', 'standby');

describe('pins of boards on the rail sheet', () => {
  test('the first pin of a rail is the point’s row; others follow; ground only for ohms, hazards never', () => {
    expect(placeOfPoint(places, 'standby')?.connector?.number).toBe(1);
    expect(pinRows(places, standby, 'standby', compiled).map(({ id, twin }) => [id, twin?.point])).toEqual([
      ['cn1.2', 'standby'],
      ['cn1.4', undefined],
    ]);
    expect(pinRows(places, [], 'unplugged', compiled).map(({ id }) => id)).toEqual(['cn1.1', 'cn1.2', 'cn1.3', 'cn1.4']);
  });
  test('what its label names belongs there', () => {
    expect(onBoard(placeOfPoint(places, 'standby'), 'standby', compiled)).toEqual({ volts: 5.2 });
    expect(onBoard(undefined, 'standby', compiled)).toEqual({});
  });
  test('pins of one rail that differ are named, and alone none does', () => {
    const read = [
      { point: 'standby', value: 5.2 },
      { point: 'standby', value: 0.1 },
      { point: 'ps-on', value: 3.2 },
    ];
    expect([...pointsApart(read)]).toEqual(['standby']);
  });
});
