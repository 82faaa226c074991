import { beforeEach, describe, expect, test } from '@jest/globals';
import { LineMeter } from '@veglia/core';
import { createPinia, setActivePinia } from 'pinia';
import { linesOf, textOfReading, useMeter } from './meter.ts';

const port = (...chunks: string[]): ReadableStream<Uint8Array> =>
  new ReadableStream({
    start(controller) {
      for (const chunk of chunks) controller.enqueue(new TextEncoder().encode(chunk));
      controller.close();
    },
  });
const never = (): Promise<void> => new Promise(() => undefined);

describe('a hand meter on a serial port', () => {
  test('lines cut anywhere are put together, and of several the newest counts', async () => {
    const lines = linesOf('serial', port('DC 1', '2.3 V\r\nDC 12.4 V\r\nDC', ' 12.5 V\n', '\n'));
    expect([await lines.next(), await lines.next(), await lines.next()]).toEqual(['DC 12.4 V', 'DC 12.5 V', undefined]);
  });
  test('noise without an end fills no memory', async () => {
    const lines = linesOf('serial', port('x'.repeat(5000), 'y'.repeat(300), '\n4.7 kOhm\n'));
    expect(await lines.next()).toBe('4.7 kOhm');
  });
});

describe('a reading goes into the field that had the focus last', () => {
  beforeEach(() => void setActivePinia(createPinia()));
  const withLines = (...lines: string[]) => {
    const meter = useMeter();
    meter.hand = new LineMeter(linesOf('serial', port(...lines.map((line) => `${line}\n`))), 1000, never);
    return meter;
  };
  test('volts, and ohms that are none', async () => {
    const meter = withLines('DC 5.18 V', 'OL MOhm');
    const put: string[] = [];
    meter.target = { what: 'dc-volts', put: (text) => put.push(text) };
    await meter.read();
    meter.target = { what: 'ohms', put: (text) => put.push(text) };
    await meter.read();
    expect(put).toEqual(['5.18', 'OL']);
    expect(meter.said).toBeUndefined();
  });
  test('set to something else: told, and nothing typed', async () => {
    const meter = withLines('4.7 kOhm');
    const put: string[] = [];
    meter.target = { what: 'dc-volts', put: (text) => put.push(text) };
    await meter.read();
    expect([meter.said, put]).toEqual([{ kind: 'wrong-function', detail: '4.7 kOhm' }, []]);
  });
  test('more volts than it shows is no reading to be typed', async () => {
    const meter = withLines('OL V');
    const put: string[] = [];
    meter.target = { what: 'dc-volts', put: (text) => put.push(text) };
    await meter.read();
    expect([meter.said, put]).toEqual([{ kind: 'over-volts' }, []]);
  });
  test('no field: told', async () => {
    const meter = withLines('1 V');
    await meter.read();
    expect(meter.said).toEqual({ kind: 'no-target' });
  });
  test('seven digits at most', () => expect(textOfReading({ kind: 'value', function: 'ohms', value: 4700.000123 })).toBe('4700'));
});
