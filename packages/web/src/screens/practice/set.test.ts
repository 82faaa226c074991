import { describe, expect, test } from '@jest/globals';
import { compilePack, liveEntries, readBody, type Entry, type NextStep } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { fileURLToPath } from 'node:url';
import { newJobSchema } from '@veglia/contract';
import { canPractise, fieldsShown, practiceRequest, probesAt, shownBy } from './set.ts';

const pack = await readPackFolder(fileURLToPath(new URL('../../../../../knowledge', import.meta.url)));
const compiled = compilePack(pack);
const id = '0190a8f2-0000-7000-8000-00000000000a';
const at = '2026-03-02T12:00:00.000Z';
const step = (kind: NextStep['kind'], of: string): NextStep => ({ kind, id: of, would: [], cautions: [] }) as unknown as NextStep;
const repaired = (result: string): Entry => ({
  id: 'e1',
  seq: 4,
  at,
  by: 'P',
  basedOn: 3,
  body: { kind: 'repair.done', v: 2, repair: 'replace.tcon', result } as Entry['body'],
});

describe('the practice set', () => {
  test('is checked in as any set is: a request the server takes, entries the ledger reads', () => {
    let n = 0;
    const newId = (): string => `${id.slice(0, -2)}${String((n += 1)).padStart(2, '0')}`;
    const request = practiceRequest(compiled, id, at, newId, 'Practice');
    expect(newJobSchema.safeParse(request).success).toBe(true);
    for (const { body } of request.entries) expect(readBody(body, 'entry')).toHaveProperty('body');
    expect(request.customer).toBeNull();
    expect(new Set(request.entries.map((one) => one.id)).size).toBe(3);
  });

  test('shows at a step what its fault does: the T-con’s supply reaches one side of the fuse only', () => {
    const shown = shownBy(step('test', 'tcon.input'), compiled, []);
    expect(shown).toMatchObject({ kind: 'outcome', outcome: 'one-side' });
    const answers = compiled.tests.get('tcon.input')?.observe.outcomes.map((one) => one.id) ?? [];
    expect(shown.kind === 'outcome' && answers[shown.nth]).toBe('one-side');
  });

  test('is cured by that board and by no other, and stays cured: the repairs of the ledger count, one that wasn’t tried doesn’t', () => {
    expect(shownBy(step('repair', 'replace.main'), compiled, [])).toMatchObject({ kind: 'repair', result: 'unchanged', nth: 1 });
    expect(shownBy(step('repair', 'replace.tcon'), compiled, [])).toMatchObject({ kind: 'repair', result: 'cured', nth: 0 });
    const menu = (entries: readonly Entry[]) => shownBy(step('test', 'tcon.input'), compiled, liveEntries(entries));
    expect(menu([repaired('cured')])).not.toMatchObject({ outcome: 'one-side' });
    expect(menu([repaired('not-tried')])).toMatchObject({ outcome: 'one-side' });
  });

  test('has its supply before the fuse at the probes, and none behind it', () => {
    const probes = (at: string) => probesAt(step('test', 'tcon.input'), at, compiled, []);
    expect(probes('tcon-input')).toEqual({ volts: expect.closeTo(12, 0), ohms: null });
    expect(probes('tcon-fuse-out')).toEqual({ volts: expect.closeTo(0, 1), ohms: null });
    expect(probes('standby')).toBeUndefined();
  });

  test('names the layout it has, and no code: it doesn’t blink', () => {
    expect(shownBy(step('layout', 'layout'), compiled, [])).toEqual({ kind: 'layout', layout: 'led-tcon' });
    expect(shownBy(step('blink', 'blink'), compiled, [])).toEqual({ kind: 'code', groups: [] });
    expect(shownBy(step('stop', 'give-up'), compiled, [])).toEqual({ kind: 'nothing' });
  });

  test('is offered only where the pack knows it', () => {
    expect(canPractise(compiled)).toBe(true);
    const without = compilePack({ ...pack, families: pack.families.filter(({ id: family }) => family !== 'quorvane.qk3') });
    expect(canPractise(without)).toBe(false);
  });

  test('is read on an instrument where that asks to be read next; what only calculates stays as it was typed', () => {
    expect(fieldsShown('bias', {}, compiled, [])).toEqual({ vgh: 'missing', vgl: 'missing', avdd: 'missing', vcom: 'missing' });
    const first = fieldsShown('short', {}, compiled, []);
    const second = { ...first, ...fieldsShown('short', first, compiled, []) };
    expect(second.along).toMatch(/^\d+ \d/);
    // Its rail is good: that is read, and no milliohm walk goes on from there.
    expect(Number(second.along?.split(' ')[1])).toBeGreaterThan(1000);
    expect(fieldsShown('mask', { lines: '8' }, compiled, []).trials).toMatch(/^[\d ]+ starts$/);
    expect(fieldsShown('kit', {}, compiled, [])).toEqual({});
  });
});
