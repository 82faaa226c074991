/** The instruments as a bench uses them. What is expected was written first: electrical/instrumentCases.ts, panel/panelCases.ts. */
import { describe, expect, test } from '@jest/globals';
import { capacitorCases, dischargeCases, stringCases } from '../electrical/instrumentCases.ts';
import { barCases, linkCases } from '../panel/panelCases.ts';
import { biasCases, plugCases } from './searchCases.ts';
import { gateCases } from './substituteCases.ts';
import { instruments, runInstrument, type Report } from './index.ts';

function run(id: string, typed: Readonly<Record<string, string>>): Report {
  const instrument = instruments.find((one) => one.id === id);
  if (!instrument) throw new Error(`no instrument ${id}`);
  const outcome = runInstrument(instrument, typed);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.problems));
  return outcome.report;
}
const figure = (report: Report, id: string): number | undefined => report.figures.find((one) => one.id === id)?.value;
const codes = (report: Report): string[] => report.findings.map(({ code }) => code);

test.each(dischargeCases)('discharge: $name', ({ input, seconds, joules, watts, says = [] }) => {
  const report = run('discharge', input);
  if (seconds !== undefined) expect(figure(report, 'seconds')).toBeCloseTo(seconds, 1);
  if (joules !== undefined) expect(figure(report, 'joules')).toBeCloseTo(joules, 2);
  if (watts !== undefined) expect(figure(report, 'watts')).toBeCloseTo(watts, 1);
  expect(codes(report)).toEqual(expect.arrayContaining([...says]));
});
test.each(stringCases)('string: $name', ({ input, volts, shorted, says = [] }) => {
  const report = run('string', input);
  if (volts !== undefined) expect(figure(report, 'stringVolts')).toBeCloseTo(volts, 1);
  expect(figure(report, 'shorted')).toBe(shorted);
  expect(codes(report)).toEqual(expect.arrayContaining([...says]));
});
test.each(capacitorCases)('capacitor: $name', ({ input, fits, says = [] }) => {
  expect(codes(run('capacitor', input))).toEqual(expect.arrayContaining([`substitute-${fits}`, ...says]));
});
test.each(linkCases)('link: $name', ({ input, pairs, links, lanes, says = [] }) => {
  const report = run('link', input);
  if (pairs !== undefined) expect(figure(report, 'pairs')).toBe(pairs);
  if (links !== undefined) expect(figure(report, 'links')).toBe(links);
  if (lanes !== undefined) expect(figure(report, 'lanes')).toBe(lanes);
  expect(codes(report)).toEqual(expect.arrayContaining([...says]));
});
test.each(barCases)('bar: $name', ({ input, drivers, barPercent }) => {
  const report = run('bar', input);
  expect(figure(report, 'driverCount')).toBe(drivers);
  expect(figure(report, 'barWidth')).toBeCloseTo(barPercent ?? 0, 1);
});

test.each(plugCases)('plug by plug: $name', ({ input, says, accused }) => {
  const report = run('plugs', input);
  expect(codes(report)).toEqual(says);
  if (accused !== undefined) expect(report.findings[0]?.values.loads).toBe(accused);
});
test('what a load took with it follows from Ohm’s law', () => {
  expect(figure(run('plugs', { all: '1', off: 'left 2; right 500' }), 'ownOhms')).toBeCloseTo(2, 1);
  expect(() => run('plugs', { all: '1', off: 'left' })).toThrow('left');
});
test.each(biasCases)('bias supplies: $name', ({ input, says }) => expect(codes(run('bias', input))).toEqual(says));

test.each(gateCases)('substitute board: $name', ({ input, says, passed }) => {
  const report = run('substitute', input);
  expect(codes(report)).toEqual([says]);
  expect(figure(report, 'gatesPassed')).toBe(passed);
});

describe('the milliohm walk', () => {
  const along = '1 0.291; 2 262m; 3 218m; 4 187m; 5 214m; 6 0R246; 7 0.268';
  test('the turning point is taken off; what then stays is walked again', () => {
    const report = run('short', { capacitors: '7', along });
    expect(figure(report, 'likeliest')).toBe(4);
    expect(codes(run('short', { capacitors: '7', along, noisePercent: '1', driftOhms: '1m' }))).toEqual(['short-found']);
    expect(codes(run('short', { capacitors: '7', along, takenOff: 'stays' }))).toEqual(['short-not-gone']);
    expect(codes(run('short', { capacitors: '7', along, takenOff: 'gone' }))).toEqual(['short-gone']);
  });
  test('before anything is read it says where to begin, the same each time', () => {
    const first = run('short', { capacitors: '24' });
    expect(codes(first)).toEqual(['short-read-next']);
    expect(run('short', { capacitors: '24' })).toEqual(first);
  });
  test('a point that was read and tells most all the same is to be read once more, and named so', () => {
    const report = run('short', { capacitors: '8', along: '1 0.31; 8 0.27; 5 0.19; 4 0.176; 3 0.201' });
    expect(codes(report)[0]).toBe('short-read-again');
    expect(report.findings[0]?.values).toMatchObject({ capacitor: 4 });
  });
  test('what can’t be read is refused', () => {
    expect(() => run('short', { capacitors: '7', along: '3' })).toThrow('3');
    expect(() => run('short', { capacitors: '7', along: '9 0.2' })).toThrow('capacitor 9 of 7');
  });
});

describe('fields', () => {
  const discharge = instruments.find(({ id }) => id === 'discharge');
  if (!discharge) throw new Error('no instrument');
  test('what was understood is said, in one way', () => {
    const outcome = runInstrument(discharge, { farads: '150uF', volts: '0.4kV', ohms: '2k2' });
    expect(outcome.ok && outcome.read).toEqual({ farads: '150 µF', volts: '400 V', ohms: '2.2 kΩ', limitVolts: '60 V' });
  });
  test.each([
    [{ farads: 'much' }, 'farads', 'not-a-number'],
    [{ volts: '-5' }, 'volts', 'too-small'],
    [{ volts: '90000' }, 'volts', 'too-large'],
    [{ colour: 'red' }, 'colour', 'unknown-field'],
  ])('%j is refused', (typed, field, code) => {
    const outcome = runInstrument(discharge, typed);
    expect(!outcome.ok && outcome.problems).toEqual([expect.objectContaining({ field, code })]);
  });
  test('what is missing is named, and nothing is guessed', () =>
    expect(run('discharge', { farads: '150u' }).needs).toEqual(['volts', 'ohms']));
  test('an own property is no field', () => {
    const outcome = runInstrument(discharge, { constructor: '1' });
    expect(outcome.ok).toBe(false);
  });
});

describe('masking', () => {
  test('the first trial uncovers half, and the last says what stays covered', () => {
    expect(codes(run('mask', { lines: '8' }))).toEqual(['mask-next']);
    const done = run('mask', { lines: '4', trials: '1 2 starts; 3 loops; 4 starts' });
    expect(done.findings).toEqual([{ code: 'mask-done', tone: 'good', values: { cover: '3' } }]);
  });
  test('trials that can not all be right are named; what can’t be read is refused', () => {
    expect(codes(run('mask', { lines: '4', trials: '1 2 loops; 1 starts; 2 starts' }))).toEqual(['mask-contradiction']);
    expect(() => run('mask', { lines: '4', trials: '1 2 perhaps' })).toThrow('1 2 perhaps');
    expect(() => run('mask', { lines: '4', trials: '7 loops' })).toThrow('line 7 of 4');
  });
});
test.each([
  ['siblings', '2.7M 3M 2.5M 60k', 'siblings-odd'],
  ['siblings', '2.7M 60k', 'siblings-too-few'],
  ['siblings-volts', '3.05; 3,02; 3.07', 'siblings-alike'],
  ['siblings-celsius', '34 35 34.5 45 34.8 35.1', 'siblings-odd'],
])('%s: %s', (id, values, code) => expect(codes(run(id, { values }))).toEqual([code]));
test('every id once', () => expect(new Set(instruments.map(({ id }) => id)).size).toBe(instruments.length));
