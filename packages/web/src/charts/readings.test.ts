import { describe, expect, test } from '@jest/globals';
import type { Body, Entry } from '@veglia/core';
import { readingLines, readingsOption } from './readings.ts';

const reading = (at: string, value: number, more: Partial<Extract<Body, { kind: 'reading.taken' }>> = {}): Body => ({
  kind: 'reading.taken',
  v: 2,
  quantity: 'volts',
  at,
  value,
  state: 'standby',
  ...more,
});
const ledger = (...bodies: Body[]): Entry[] =>
  bodies.map((body, index) => ({ id: `e${index + 1}`, seq: index + 1, at: '2026-11-29T08:00:00Z', by: 'p', basedOn: index, body }));
const colours = { ink: '#000', soft: '#444', line: '#ccc', accent: '#066', alarm: '#900', surface: '#fff', wash: '#eee' } as never;

describe('readings over a job', () => {
  const entries = ledger(
    reading('bulk', 0.2, { quantity: 'ohms', state: 'verified' }),
    reading('standby', 5.2),
    reading('ps-on', 0.1),
    reading('standby', 3.9, { state: 'starting' }),
    reading('standby', 5.1, { pin: 'CN1 pin 2, 5VSB' }),
    reading('ps-on', 9),
    { kind: 'entry.retracted', v: 1, entry: 'e6', reason: 'slipped' },
    reading('panel', 41, { quantity: 'celsius' }),
  );
  const lines = readingLines(entries);
  test('a line a point and pin, volts before ohms, nothing that was undone', () => {
    expect(lines.map(({ at, pin, quantity, points }) => [quantity, pin ?? at, points.map(({ value }) => value)])).toEqual([
      ['volts', 'standby', [5.2, 3.9]],
      ['volts', 'ps-on', [0.1]],
      ['volts', 'CN1 pin 2, 5VSB', [5.1]],
      ['ohms', 'bulk', [0.2]],
    ]);
  });
  test('where a point was not read, there is a gap; ohms go by decades and have no zero', () => {
    const words = { title: 't', entry: 'e', axis: 'V', unit: 'V', name: ({ at }: { at: string }) => at };
    const series = (quantity: string, own = lines) =>
      readingsOption(
        colours,
        own.filter((one) => one.quantity === quantity),
        words,
      );
    const volts = series('volts') as { series: { data: (number | null)[] }[]; yAxis: { type: string } };
    expect(volts.series[0]?.data).toEqual([5.2, null, 3.9, null]);
    expect(volts.yAxis.type).toBe('value');
    const short = series('ohms', readingLines(ledger(reading('x', 0, { quantity: 'ohms' })))) as typeof volts;
    expect([short.yAxis.type, short.series[0]?.data]).toEqual(['log', [0.01]]);
  });
});
