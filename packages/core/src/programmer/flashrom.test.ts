import { describe, expect, test } from '@jest/globals';
import { flashromArguments, readFlashrom } from './flashrom.ts';
import { flashromCases } from './flashromCases.ts';

describe('what flashrom says', () => {
  test.each(flashromCases.map((one) => [one.name, one] as const))('%s', (_, { work, code, text, result }) => {
    expect(readFlashrom(work, code, text)).toEqual(result);
  });
});

describe('how flashrom is called', () => {
  test('each word is an argument of its own: nothing in a name is read by a shell', () => {
    expect(flashromArguments('program', 'serprog:dev=/dev/ttyS0:115200', 'in.bin', 'A; rm -r')).toEqual([
      '-p',
      'serprog:dev=/dev/ttyS0:115200',
      '-c',
      'A; rm -r',
      '--noverify',
      '-w',
      'in.bin',
    ]);
  });
  test('every output is asked for only where the chip is named: without it hundreds of lines belong to other chips', () => {
    expect(flashromArguments('identify', 'dummy', 'x', 'W25Q128.V')).toContain('-V');
    expect(flashromArguments('identify', 'dummy', 'x')).not.toContain('-V');
    expect(flashromArguments('read', 'dummy', 'out.bin')).toEqual(['-p', 'dummy', '-r', 'out.bin']);
    expect(flashromArguments('verify', 'dummy', 'in.bin')).toEqual(['-p', 'dummy', '-v', 'in.bin']);
    expect(flashromArguments('erase', 'dummy', 'x')).toEqual(['-p', 'dummy', '-E']);
  });
});
