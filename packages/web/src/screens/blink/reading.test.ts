import { describe, expect, test } from '@jest/globals';
import { parseSeen, readBody, readTaps, readTrace, type BlinkResult, type LightTrace, type Seen } from '@veglia/core';
import { filmedLight } from '@veglia/simulators';
import { afterClickOf, blinkBody, comparedWith, correctedTo, keptTrace, takenOf, takenOfSeen } from './reading.ts';

const film = (groups: number[], after?: string): { trace: LightTrace; result: BlinkResult } => {
  const { timesS, levels } = filmedLight({ groups, after }, 7);
  const trace = { timesS, levels };
  const result = readTrace(trace);
  if ('refused' in result) throw new Error(result.refused);
  return { trace, result };
};
const seen = (text: string): Seen => {
  const read = parseSeen(text);
  if (!read) throw new Error(text);
  return read;
};

describe('the simulated light', () => {
  test.each([[[5]], [[3, 2]], [[1, 4]], [[12]]])('blinks %j so that it is read', (groups) => {
    expect(film(groups).result.reading).toMatchObject({ groups, sure: true });
  });
  test.each(['steady', 'dark'])('once, then %s', (after) => {
    expect(film([4], after).result.reading).toMatchObject({ groups: [4], after });
  });
});

describe('a reading becomes an entry', () => {
  test('that the ledger takes, with its probability, its clicks and its recording in little', () => {
    const { trace, result } = film([3, 2]);
    const taken = {
      ...takenOf(result, 'camera')!,
      clicks: [2.5],
      afterClick: afterClickOf(result, [2.5]),
      trace: keptTrace(trace, result),
    };
    const body = blinkBody(taken, 'tcon');
    expect(readBody(body, 'entry')).toEqual({ body });
    expect(body).toMatchObject({ groups: [3, 2], how: 'camera', out: 'tcon', clicks: [2.5], afterClick: 'blinking' });
    expect(body.trace?.flashes.length).toBe(result.pulses.length);
    expect(Math.max(...(body.trace?.levels ?? []))).toBe(99);
    expect(JSON.stringify(body).length).toBeLessThan(12_000);
  });

  test('of the eye: once or twice; corrected: says so and lets the probabilities go', () => {
    expect(takenOfSeen(seen('3 long 2 short'), true)).toEqual({ groups: [3, 2], cycles: 2, how: 'eye' });
    const { result } = film([5]);
    const put = correctedTo(takenOf(result, 'taps')!, seen('6 red'), false);
    expect(blinkBody(put)).toEqual({ kind: 'blink.read', v: 3, groups: [6], colour: 'red', cycles: 1, how: 'taps', corrected: true });
  });

  test('a light that is no code is told as what it was; taps alone can’t tell a steady light', () => {
    const still = readTrace({ timesS: Array.from({ length: 300 }, (_, i) => i / 30), levels: Array<number>(300).fill(4) });
    expect('refused' in still ? still : takenOf(still, 'camera')).toEqual({ groups: [], light: 'steady', cycles: 0, how: 'camera' });
    expect(takenOf(readTaps([]), 'taps')).toBeUndefined();
    expect(blinkBody(takenOfSeen(seen('no light'), false))).toMatchObject({ groups: [], light: 'no-light', cycles: 0 });
  });
});

describe('with a board out', () => {
  test('same, changed, gone; a flicker can’t be told', () => {
    const now = (text: string) => comparedWith([4], takenOfSeen(seen(text), true));
    expect([now('4'), now('5'), now('no light'), now('steady'), now('no pattern')]).toEqual(['same', 'changed', 'gone', 'gone', undefined]);
  });
});

test('after the last click: still blinking, steady, or dark', () => {
  const { result } = film([4]);
  const last = result.pulses.at(-1)?.offS ?? 0;
  expect(afterClickOf(result, [])).toBeUndefined();
  expect(afterClickOf(result, [1, 3])).toBe('blinking');
  expect(afterClickOf(result, [last + 0.1])).toBe('dark');
});
