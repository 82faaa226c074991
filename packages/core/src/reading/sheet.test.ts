/** Several readings taken together. What is expected of them was written first: sheetCases.ts. */
import { describe, expect, test } from '@jest/globals';
import { foldCase, type CaseFold } from '../diagnosis/index.ts';
import { compilePack, type Pack } from '../knowledge/index.ts';
import { defaultSettings, type Entry } from '../ledger/index.ts';
import { shipped } from '../testing/shipped.ts';
import { judgeRow, sheetBodies, sheetRows, sheetStates, type SheetState, type SheetTaken } from './index.ts';
import { sheetCases, type SheetCase, type SheetInput } from './sheetCases.ts';

const compiled = shipped();

function taken(one: SheetCase, readings: SheetCase['readings']): { state: SheetState; taken: SheetTaken[] }[] {
  const family = compiled.families.get(one.family ?? '');
  return (Object.keys(readings) as SheetState[]).map((state) => ({
    state,
    taken: sheetRows(compiled, one.layout, state).flatMap((row): SheetTaken[] => {
      const input: SheetInput | undefined = readings[state]?.[row.point];
      if (input === undefined) return [];
      const { value, behaves } = typeof input === 'number' ? { value: input, behaves: 'steady' as const } : input;
      const judged = judgeRow(row, value, behaves, compiled, one.layout, { family, printed: one.printed?.[row.point] });
      return [{ row, value, behaves, judged }];
    }),
  }));
}
function foldOf(one: SheetCase, readings: SheetCase['readings'], turned = false): CaseFold {
  const sheets = taken(one, readings).flatMap((sheet) => sheetBodies(sheet.taken, sheet.state, true));
  const bodies = [
    { kind: 'job.opened', v: 3, set: { layout: one.layout, ...(one.family === undefined ? {} : { family: one.family }) } },
    { kind: 'symptom.reported', v: 2, symptoms: [one.symptom] },
    ...(turned ? [...sheets].reverse() : sheets),
  ];
  const entries = bodies.map((body, index) => ({
    id: `e${index + 1}`,
    seq: index + 1,
    at: '2026-03-02T12:00:00.000Z',
    by: 'P',
    basedOn: index,
    body,
  })) as Entry[];
  return foldCase({ set: { layout: one.layout }, settings: defaultSettings, entries }, compiled, 'cost', 'at-once');
}
const shares = (fold: CaseFold): Record<string, number> =>
  Object.fromEntries(fold.assemblies.map(({ id, probability }) => [id, Math.round(probability * 1e6) / 1e6]));

/** The same document, every record's keys the other way round. */
const keysTurned = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(keysTurned)
    : typeof value === 'object' && value !== null
      ? Object.fromEntries(
          Object.entries(value)
            .reverse()
            .map(([key, one]) => [key, keysTurned(one)]),
        )
      : value;

describe.each(sheetCases)('$name', (one) => {
  const all = taken(one, one.readings).flatMap((sheet) => sheet.taken);
  const of = (point: string) => all.find(({ row }) => row.point === point)?.judged;

  test('each reading has its row and its name', () => {
    expect(all.length).toBe(Object.values(one.readings).flatMap((state) => Object.keys(state)).length);
    for (const [point, level] of Object.entries(one.levels ?? {})) expect([point, of(point)?.level]).toEqual([point, level]);
    for (const [point, outcome] of Object.entries(one.outcomes ?? {}))
      expect([point, of(point)?.outcome ?? null]).toEqual([point, outcome]);
    for (const [point, percent] of Object.entries(one.deviations ?? {})) expect(of(point)?.deviationPercent).toBeCloseTo(percent, 1);
  });

  test('and the set is judged by them, in whatever order they are entered', () => {
    const fold = foldOf(one, one.readings);
    const share = shares(fold);
    expect(shares(foldOf(one, one.readings, true))).toEqual(share);
    for (const [more, less] of one.likelier ?? []) expect(share[more] ?? 0).toBeGreaterThan(share[less] ?? 0);
    if (one.sameAs) expect(share).toEqual(shares(foldOf(one, one.sameAs)));
  });
});

describe('the rows of a sheet', () => {
  test('every layout has some in each state, each point once, and each answers a test of its own', () => {
    for (const { id } of compiled.pack.layouts)
      for (const state of sheetStates) {
        const rows = sheetRows(compiled, id, state);
        expect([id, state, rows.length > 0]).toEqual([id, state, true]);
        expect(new Set(rows.map(({ point, quantity }) => `${point} ${quantity}`)).size).toBe(rows.length);
        for (const row of rows) {
          expect(compiled.fits(compiled.tests.get(row.test)!, id)).toBe(true);
          if (!row.answers) expect(state).toBe('standby');
        }
      }
  });

  test('nothing that needs a plug out, a bridge or a load is read on them', () => {
    const tests = sheetStates.flatMap((state) => sheetRows(compiled, 'led-tcon', state).map((row) => row.test));
    for (const id of ['standby-unloaded', 'standby.loaded', 'forced-start', 'bias.ribbons-out', 'key-line'])
      expect(tests).not.toContain(id);
    expect(tests).toEqual(expect.arrayContaining(['rail.standby', 'ps-on', 'rail.main', 'bl-on', 'led.output']));
  });

  test('they come plug by plug, supply before what it supplies', () => {
    const points = (state: SheetState, of = compiled): string[] => sheetRows(of, 'led-tcon', state).map(({ point }) => point);
    expect(points('standby').slice(0, 2)).toEqual(['standby', 'ps-on']);
    const starting = points('starting');
    expect(starting.indexOf('ps-on')).toBeLessThan(starting.indexOf('main-rail'));
    // A database keeps no order of keys.
    const turned = compilePack(keysTurned(compiled.pack) as Pack);
    for (const state of sheetStates) {
      expect(points(state, turned)).toEqual(points(state));
      const places = sheetRows(compiled, 'led-tcon', state).map(({ on }) => on);
      expect(places.filter((on, index) => on !== places[index - 1]).length).toBe(new Set(places).size);
    }
  });

  test('one of many that is short is an answer, one that isn’t tells nothing of the others; a single part answers both ways', () => {
    const rows = sheetRows(compiled, 'led-tcon', 'unplugged');
    const outcome = (point: string, value: number) =>
      judgeRow(
        rows.find((row) => row.point === point)!,
        value,
        'steady',
        compiled,
        'led-tcon',
      ).outcome;
    expect([outcome('bias', 3), outcome('bias', 600)]).toEqual(['short', undefined]);
    expect([outcome('main-converters', 2), outcome('main-converters', 90)]).toEqual(['one-low', undefined]);
    expect([outcome('line-fuse', 0.2), outcome('line-fuse', 5e6)]).toEqual(['intact', 'open']);
    const pairs = sheetRows(compiled, 'led-tcon', 'on').find(({ point }) => point === 'picture-pairs');
    expect(judgeRow(pairs!, 1.2, 'steady', compiled, 'led-tcon').outcome).toBeUndefined();
  });

  test('what is read before the key is kept and answers nothing', () => {
    const row = sheetRows(compiled, 'led-tcon', 'standby').find(({ point }) => point === 'ps-on');
    expect([row?.test, row?.answers]).toEqual(['ps-on', false]);
    const judged = judgeRow(row!, 0.1, 'steady', compiled, 'led-tcon');
    expect(sheetBodies([{ row: row!, value: 0.1, behaves: 'steady', judged }], 'standby', false).map(({ kind }) => kind)).toEqual([
      'reading.taken',
    ]);
  });

  test('a family’s own rail is held against its own value and tolerance', () => {
    const family = compiled.families.get('quorvane.qk3');
    const [standby] = sheetRows(compiled, 'led-tcon', 'standby');
    const read = (value: number) => judgeRow(standby!, value, 'steady', compiled, 'led-tcon', { family });
    // 5.2 V and 5 %: 4.94 to 5.46 V.
    expect([4.93, 4.95, 5.45, 5.47].map((value) => read(value).level)).toEqual(['low', 'in', 'in', 'high']);
    expect(read(4.94).deviationPercent).toBeCloseTo(-5, 6);
    // Just outside it is no good rail, and far from a missing one: no answer by itself.
    expect([4.5, 4.93, 4.95, 5.45, 5.47].map((value) => read(value).outcome)).toEqual([
      'low',
      undefined,
      'in-range',
      'in-range',
      undefined,
    ]);
  });
});
