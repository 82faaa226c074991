import { describe, expect, test } from '@jest/globals';
import { misleadingWires, readWires } from './index.ts';

describe('wires of a modification', () => {
  test('a line each: ends, what it carries, colour', () => {
    expect(readWires('J3.1 > CN5.2: 12 V, red\n\nJ3.2→CN5.1: GND, black\n P1 -> driver ')).toEqual([
      { from: 'J3.1', to: 'CN5.2', carries: '12 V', colour: 'red' },
      { from: 'J3.2', to: 'CN5.1', carries: 'GND', colour: 'black' },
      { from: 'P1', to: 'driver' },
    ]);
    expect(readWires('')).toEqual([]);
  });
  test.each(['J3.1', '> CN5', 'A > B > C', 'A > B: 12 V, red, thick', `${'x'.repeat(61)} > B`])('“%s” is refused, naming it', (line) => {
    expect(() => readWires(`A > B\n${line}`)).toThrow(line);
  });
  test('more than a record holds is refused', () => {
    expect(() => readWires(Array.from({ length: 31 }, (_, n) => `A${n} > B`).join('\n'))).toThrow('A30 > B');
  });
  // What the next person takes for ground is not to carry a supply, nor the other way round.
  test.each([
    ['12 V', 'black', true],
    ['12 V', 'green', true],
    ['+24', 'black', true],
    ['3.3V', 'green-yellow', true],
    ['GND', 'red', true],
    ['chassis', 'orange', true],
    ['12 V', 'red', false],
    ['GND', 'black', false],
    ['BL_ON', 'black', false],
    ['0 V', 'black', false],
    ['12 V', 'yellow', false],
  ])('%s on %s misleads: %s', (carries, colour, misleads) => {
    expect(misleadingWires([{ from: 'A', to: 'B', carries, colour }])).toHaveLength(misleads ? 1 : 0);
  });
});
