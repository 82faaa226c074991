import { describe, expect, test } from '@jest/globals';
import { stockItemSchema, type StockItemInput } from '@veglia/core';
import Papa from 'papaparse';
import {
  formatDonorBoards,
  formatDonorChips,
  formatFits,
  formatOrdersCsv,
  formatStockCsv,
  parseDonorBoards,
  parseDonorChips,
  parseFits,
  parseStockCsv,
  stockColumns,
} from './stockText.ts';

const id = '0193a000-0000-4000-8000-0000000000c1';
const item = (change: Partial<StockItemInput> = {}) =>
  stockItemSchema.parse({ id, what: 'board', number: 'PW-48/A', condition: 'pulled', ...change });

describe('lines', () => {
  test('of what fits, back and forth', () => {
    const text = 'supersedes: number=PW-48A, model=QK3-50\ndoes-not-fit: panel=VL43';
    const { rows, wrong } = parseFits(text);
    expect(wrong).toEqual([]);
    expect(formatFits(rows).join('\n')).toBe(text);
  });
  test.each(['supersedes', 'fits: number=1', 'same: colour=red', 'same: number=', 'same:'])('%p is refused with its line', (line) => {
    expect(parseFits(`same: number=A\n${line}`).wrong).toEqual([{ line: 2, text: line }]);
  });
  test('of a donor: a state that nobody gave is untested', () => {
    const boards = parseDonorBoards('power PW-48/A good\nmain MB 9\n\ntcon TC-1 bad');
    expect(boards.rows.map(({ state }) => state)).toEqual(['good', 'untested', 'bad']);
    expect(formatDonorBoards(boards.rows)).toEqual(['power PW-48/A good', 'main MB 9 untested', 'tcon TC-1 bad']);
    expect(parseDonorBoards('power').wrong).toEqual([{ line: 1, text: 'power' }]);
    expect(formatDonorChips(parseDonorChips('25 Q64 good\n24C32').rows)).toEqual(['25 Q64 good', '24C32 untested']);
    expect(parseDonorChips('good').wrong).toHaveLength(1);
  });
});

describe('CSV', () => {
  const euros = (amountMinor: number) => ({ amountMinor, currency: 'EUR' });
  const items = [
    {
      item: item({ assembly: 'power', cost: euros(1200), price: euros(3950), fits: [{ number: 'PW-47', how: 'supersedes' }], least: 1 }),
      count: 3,
    },
    {
      item: item({ what: 'strips', number: 'KIT "4"', name: 'four, short', strips: { strips: 4, leds: 9, lengthMm: 412.5, ledVolts: 3 } }),
      count: 0,
    },
    { item: item({ number: '-12V relay', note: '=SUM(A1)\nsecond line' }), count: 7 },
  ];

  test('out and in again is the same, whatever stands in a cell', () => {
    const { rows, problems } = parseStockCsv(formatStockCsv(items), 'EUR', () => 'no id was needed');
    expect(problems).toEqual([]);
    expect(rows.map(({ item: read, count }) => ({ item: stockItemSchema.parse(read), count }))).toEqual(items);
  });

  test('no cell is taken for a formula by a spreadsheet', () => {
    const { data } = Papa.parse<string[]>(formatStockCsv(items), { skipEmptyLines: true });
    expect(data).toHaveLength(4);
    for (const cell of data.flat()) expect(cell).not.toMatch(/^[=+\-@]/);
  });

  test('each row that can’t be read is told with its column, and the others are taken', () => {
    const csv = [
      'what,number,condition,price,count,assembly',
      'board,A1,new,12.50,2,power',
      'bord,A2,new,,,',
      'part,,new,,,',
      'part,A4,new,1.234,1.5,',
      'chip,A5,pulled,"3,20",,',
    ];
    const { rows, problems } = parseStockCsv(csv.join('\n'), 'EUR', () => id);
    expect(rows.map(({ row, item: { number, price }, count }) => [row, number, price?.amountMinor, count])).toEqual([
      [2, 'A1', 1250, 2],
      [6, 'A5', 320, undefined],
    ]);
    expect(problems.map(({ row, where }) => [row, where])).toEqual([
      [3, 'what'],
      [4, 'number'],
      [5, 'count'],
      [5, 'price'],
    ]);
  });

  test('a file without the columns it needs says which', () => {
    expect(parseStockCsv('a,b\n1,2', 'EUR', () => id)).toEqual({
      rows: [],
      problems: ['what', 'number', 'condition'].map((where) => expect.objectContaining({ row: 1, where }) as unknown),
    });
  });

  test('a currency without cents takes none', () => {
    const read = (price: string) => parseStockCsv(`what,number,condition,price\npart,X,new,${price}`, 'JPY', () => id);
    expect(read('120').rows[0]?.item.price).toEqual({ amountMinor: 120, currency: 'JPY' });
    expect(read('120.5').problems.map(({ where }) => where)).toEqual(['price']);
  });

  test('orders: a price has its currency’s decimals, and a number that begins like a formula stays text', () => {
    const part = (number: string, amountMinor: number, currency: string) => ({
      want: id,
      assembly: 'power',
      number,
      source: 'new' as const,
      state: 'to-order' as const,
      price: { amountMinor, currency },
      unproven: false,
    });
    const job = {
      jobId: id,
      number: 7,
      title: '',
      lastSeq: 3,
      promisedOn: null,
      parts: [part('=1+2', 1250, 'EUR'), part('PW-1', 1250, 'JPY')],
    };
    const { data } = Papa.parse<string[]>(formatOrdersCsv([job]), { skipEmptyLines: true });
    expect(data.slice(1).map((row) => [row[3], row[5]])).toEqual([
      ["'=1+2", '12.50'],
      ['PW-1', '1250'],
    ]);
  });

  test('every column of the list is written', () => {
    expect(Papa.parse<string[]>(formatStockCsv([])).data[0]).toEqual([...stockColumns]);
  });
});
