import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, jest, test } from '@jest/globals';
import { parseCase } from '@veglia/core';
import { main } from './main.ts';

const folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-simulate-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** One call in process; what it printed as JSON. */
async function veglia(...args: string[]): Promise<{ code: number; out: Record<string, unknown> }> {
  const lines: string[] = [];
  const write = jest.spyOn(process.stdout, 'write').mockImplementation((text) => (lines.push(String(text)), true));
  const code = await main(args).finally(() => write.mockRestore());
  return { code, out: JSON.parse(lines.join('')) as Record<string, unknown> };
}

describe('veglia simulate', () => {
  test('draws a case of a world the pack has not seen, the same for the same seed', async () => {
    const drawn = async (seed: string) => (await veglia('simulate', '--world', 'varied', '--seed', seed)).out;
    const [one, again, other] = [await drawn('3'), await drawn('3'), await drawn('4')];
    expect(one).toEqual(again);
    expect(one).not.toEqual(other);
    const { format, entries } = one as { format: string; entries: { body: { kind: string; text?: string } }[] };
    expect(format).toBe('veglia-case');
    expect(entries[0]?.body.kind).toBe('symptom.reported');
    expect(entries.at(-1)?.body.text).toContain('"faults":["');
  });

  test('plays a case to its end and prints a case file that can be read again', async () => {
    const { code, out } = await veglia(
      'simulate',
      '--layout',
      'plasma',
      '--family',
      'halmont.hp1',
      '--fault',
      'scan-buffers.shorted',
      '--seed',
      '4',
    );
    expect(code).toBe(0);
    const { input } = parseCase(out);
    const kinds = input.entries.map(({ body }) => body.kind);
    expect(kinds[0]).toBe('symptom.reported');
    expect(kinds).toContain('test.answered');
    const last = input.entries.findLast(({ body }) => body.kind === 'repair.done');
    expect(last?.body).toMatchObject({ repair: 'replace.scan-buffers', result: 'cured' });
    // The same seed, the same case.
    expect(
      (await veglia('simulate', '--layout', 'plasma', '--family', 'halmont.hp1', '--fault', 'scan-buffers.shorted', '--seed', '4')).out,
    ).toEqual(out);
  });

  test('answers an outside player one test at a time, and remembers the repairs in the session file', async () => {
    const session = path.join(folder, 'session.json');
    const call = (...args: string[]) => veglia('simulate', '--session', session, ...args);
    const first = await call('--layout', 'led-tcon', '--fault', 'tcon.bias-dead', '--seed', '9', '--do', 'menu');
    expect(first.out).toMatchObject({ complaint: 'lit-blank', test: 'menu', outcome: 'no-menu' });
    expect((await call('--do', 'swap.known-good:tcon')).out).toMatchObject({ of: 'tcon', outcome: 'cured' });
    expect((await call('--repair', 'replace.main')).out).toMatchObject({ result: 'unchanged', complaint: 'lit-blank' });
    expect((await call('--repair', 'replace.tcon')).out).toMatchObject({ result: 'cured', complaint: null });
    expect((JSON.parse(readFileSync(session, 'utf8')) as { repairs: string[] }).repairs).toEqual(['replace.main', 'replace.tcon']);
  });

  test('a session that can’t be read is refused, and left as it is', async () => {
    const session = path.join(folder, 'spoilt.json');
    for (const [text, code] of [
      ['{ "format": ', 'not-json'],
      ['{ "format": "veglia-session" }', 'schema'],
    ] as const) {
      writeFileSync(session, text);
      const { code: exit, out } = await veglia('simulate', '--session', session, '--do', 'menu');
      expect(exit).toBe(1);
      expect(out).toMatchObject({ ok: false, problems: expect.arrayContaining([expect.objectContaining({ code })]) as unknown });
      expect(readFileSync(session, 'utf8')).toBe(text);
    }
  });

  test.each([
    ['a layout nobody knows', ['--layout', 'hologram', '--fault', 'tcon.bias-dead'], '--layout'],
    ['a family of another layout', ['--layout', 'oled', '--family', 'halmont.hp1', '--fault', 'tcon.bias-dead'], '--family'],
    ['a fault the layout can’t have', ['--layout', 'led-tcon', '--fault', 'scan-buffers.bar'], '--fault'],
    ['no fault at all', ['--layout', 'led-tcon'], '--fault'],
    ['a test the layout doesn’t have', ['--layout', 'led-tcon', '--fault', 'tcon.bias-dead', '--do', 'white-selftest'], '--do'],
    ['an object left out', ['--layout', 'led-tcon', '--fault', 'tcon.bias-dead', '--do', 'reseat'], '--do'],
  ])('%s is refused by name', async (_, args, where) => {
    const { code, out } = await veglia('simulate', ...args);
    expect(code).toBe(1);
    expect(out).toMatchObject({ ok: false, problems: [{ where }] });
  });
});

test('veglia bench-model prints probabilities, rows and costs that add up', async () => {
  const { code, out } = await veglia('bench-model', '--faults', '5', '--tests', '4', '--seed', '3');
  expect(code).toBe(0);
  const model = out as {
    faults: { probability: number }[];
    tests: { outcomes: number[][]; cost: number }[];
    repairs: { cures: number[] }[];
  };
  expect(model.faults).toHaveLength(5);
  expect(model.tests).toHaveLength(4);
  expect(model.faults.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9);
  for (const { outcomes, cost } of model.tests) {
    expect(cost).toBeGreaterThan(0);
    model.faults.forEach((_, fault) => expect(outcomes.reduce((sum, row) => sum + row[fault]!, 0)).toBeCloseTo(1, 6));
  }
  for (const { cures } of model.repairs) expect(Math.max(...cures)).toBeGreaterThan(0);
});
