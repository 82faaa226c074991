import { describe, expect, test } from '@jest/globals';
import { readVoltsCsv } from './index.ts';

describe('a logged voltage', () => {
  test('as a logger writes it', () => {
    expect(readVoltsCsv('Time_s,Volts\r\n0,0\r\n0.1,12.1\r\n')).toEqual({
      samples: [
        { timeS: 0, volts: 0 },
        { timeS: 0.1, volts: 12.1 },
      ],
    });
  });
  test.each([
    ['no column of volts', 'time_s,level\n0,1\n', 'file'],
    ['a word', 'time_s,volts\n0,much\n', 'file, row 1, volts'],
    ['an empty cell', 'time_s,volts\n0,1\n,2\n', 'file, row 2, time_s'],
    ['a time that runs backwards', 'time_s,volts\n1,1\n0,2\n', 'file, row 2, time_s'],
    ['too many rows', `time_s,volts\n${'0,1\n'.repeat(36_001)}`, 'file'],
  ])('%s is refused by row', (_, text, where) => {
    const read = readVoltsCsv(text);
    expect('problems' in read && read.problems[0]?.where).toBe(where);
  });
});
