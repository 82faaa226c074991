import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped } from '../testing/shipped.ts';
import { readQuick } from './index.ts';

const read = (line: string, set: Record<string, unknown> = { family: 'quorvane.qk3' }) =>
  readQuick(line, caseOf(['sound-dark'], [], set), shipped());
const told = (line: string, set?: Record<string, unknown>): string[] =>
  read(line, set).items.map(({ body }) =>
    body.kind === 'test.answered'
      ? `${body.test}=${body.outcome}${body.sure === 'think-so' ? '?' : ''}`
      : body.kind === 'blink.read'
        ? `blink=${body.groups.join('-')}x${body.cycles}`
        : `stage=${body.stage ?? ''}`,
  );

describe('the quick line', () => {
  test('reads observations in any order; a number is read by what it would have to be seen as', () => {
    const { items, rest } = read('fuse ok, sb 5.1, pson 0.1, key ok, harness out lit');
    expect(rest).toEqual([]);
    expect(items.map(({ body }) => body)).toMatchObject([
      { test: 'fuse', outcome: 'intact', sure: 'sure' },
      { test: 'rail.standby', outcome: 'in-range', raw: '5.1 V' },
      { test: 'ps-on', outcome: 'stays', raw: '0.1 V' },
      { test: 'key-line', outcome: 'moves' },
      { test: 'cut.power-main', outcome: 'lit' },
    ]);
    expect(told('lit harness out; key ok; 0.1 pson; 5.1 sb; ok fuse')).toEqual([
      'cut.power-main=lit',
      'key-line=moves',
      'ps-on=stays',
      'rail.standby=in-range',
      'fuse=intact',
    ]);
  });

  test.each<[string, string[], string[]]>([
    ['fuse ok sb 5.1 pson 2.9', ['fuse=intact', 'rail.standby=in-range', 'ps-on=moves'], []],
    ['fuse blown', ['fuse=open'], []],
    ['sb 0', ['rail.standby=absent'], []],
    ['sb 3.1v', ['rail.standby=low'], []],
    ['standby missing', ['rail.standby=absent'], []],
    ['torch faint picture', ['torch=faint-picture'], []],
    ['torch picture maybe', ['torch=faint-picture?'], []],
    ['glass cracked?', ['look.glass=cracked?'], []],
    ['already open, standby good', ['stage=back-off', 'rail.standby=in-range'], []],
    ['blinks 3-1 twice', ['blink=3-1x2'], []],
    ['6 blinks', ['blink=6x1'], []],
    // Not understood: a note, never a guess.
    ['smells of fish', [], ['smells of fish']],
    ['sb 98', [], ['sb 98']],
    ['sb 4.7k', [], ['sb 4.7k']],
    ['fuse', [], ['fuse']],
    ['fuse purple', [], ['fuse purple']],
    ['reseat ok', [], ['reseat ok']],
    ['blinks 300', [], ['blinks 300']],
    ['', [], []],
    [' , ; ', [], []],
  ])('%p', (line, items, rest) => {
    expect(told(line)).toEqual(items);
    expect(read(line).rest).toEqual(rest);
  });

  test('numbers are held against the family’s own rail, else against what is usual there', () => {
    const rails = shipped().families.get('quorvane.qk3')!.rails;
    const nominal = rails.find(({ point }) => point === 'standby')!.nominalVolts;
    expect(told(`sb ${(nominal * 0.9).toFixed(2)}`)).toEqual(['rail.standby=low']);
    expect(told(`sb ${nominal.toFixed(2)}`)).toEqual(['rail.standby=in-range']);
    expect(told('sb 5', { layout: 'led-tcon' })).toEqual(['rail.standby=in-range']);
  });

  test('knows this set’s tests only: what its layout doesn’t have stays a note', () => {
    expect(told('vsus 190 printed 195', { layout: 'plasma' })).toEqual(['sustain.volts=in-range']);
    expect(told('vsus 190', { layout: 'plasma' })).toEqual([]);
    expect(read('vsus 190', { layout: 'led-tcon' })).toEqual({ items: [], rest: ['vsus 190'] });
  });

  test('every phrase of the pack leads to its own test', () => {
    let tried = 0;
    for (const { id: layout } of shipped().pack.layouts) {
      for (const one of shipped().testsOf.get(layout) ?? []) {
        if (one.of?.required) continue;
        for (const phrase of one.quick ?? []) {
          const [outcome] = one.observe.outcomes;
          const [item] = read(`${phrase} ${outcome!.id.replaceAll('-', ' ')}`, { layout }).items;
          expect([layout, phrase, item?.body.kind === 'test.answered' ? `${item.body.test}=${item.body.outcome}` : 'nothing']).toEqual([
            layout,
            phrase,
            `${one.id}=${outcome!.id}`,
          ]);
          tried += 1;
        }
      }
    }
    expect(tried).toBeGreaterThan(200);
  });
});

test('a line that was made to be slow is read as quickly as any: an end is looked for once', () => {
  const began = performance.now();
  for (const line of [`a${'.'.repeat(80_000)}b`, '-'.repeat(80_000), '5 '.repeat(20_000), `sb${' '.repeat(80_000)}5`]) read(line);
  // Seven seconds and more when each stop was tried as the end.
  expect(performance.now() - began).toBeLessThan(3000);
});
