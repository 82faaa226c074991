import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from '@jest/globals';
import { packSchema, caseFileSchema } from '@veglia/core';
import { z } from 'zod';

const bin = fileURLToPath(new URL('../bin/veglia.js', import.meta.url));
const folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const file = (name: string, content: unknown): string => {
  const full = path.join(folder, name);
  writeFileSync(full, typeof content === 'string' ? content : JSON.stringify(content));
  return full;
};
function veglia(...args: string[]): { code: number | null; out: string; err: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, [bin, ...args], {
    encoding: 'utf8',
    env: { ...process.env, NODE_OPTIONS: '' },
  });
  return { code: status, out: stdout, err: stderr };
}
const json = (out: string): Record<string, unknown> => JSON.parse(out) as Record<string, unknown>;
const dark = {
  format: 'veglia-case',
  version: 1,
  set: { layout: 'led-tcon', family: 'quorvane.qk3' },
  entries: [
    { body: { kind: 'symptom.reported', symptoms: ['sound-dark'] } },
    { body: { kind: 'test.answered', test: 'cut.power-main', outcome: 'lit', sure: 'sure' } },
    { body: { kind: 'test.answered', test: 'no.such-test', outcome: 'lit', sure: 'sure' } },
  ],
};

describe('veglia pack', () => {
  test('check: the shipped pack is fine', () => {
    const { code, out } = veglia('pack', 'check');
    expect(code).toBe(0);
    expect(json(out)).toMatchObject({ ok: true, problems: [], layouts: 7 });
  });

  test('check: a spoilt document lists all its problems, each with a sentence, and ends with 1', () => {
    const { code, out } = veglia('pack', 'check', file('spoilt.json', { format: 'veglia-pack', version: 1, title: { en: 'x' } }));
    expect(code).toBe(1);
    const { problems } = json(out) as { problems: { where: string; sentence: string }[] };
    expect(problems.map((one) => one.where)).toEqual(expect.arrayContaining(['pack.scale', 'pack.tests', 'pack.faults']));
    for (const one of problems) expect(one.sentence).toContain(one.where);
  });

  test('schema: JSON Schema of what check takes', () => {
    expect(json(veglia('pack', 'schema').out)).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(packSchema))));
    expect(json(veglia('case', 'schema').out)).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(caseFileSchema))));
  });
});

describe('veglia case', () => {
  test('fold: odds, verdicts, reasons, state, doubts, next steps and what was not used', () => {
    const { code, out } = veglia('case', 'fold', file('dark.json', dark));
    expect(code).toBe(0);
    expect(json(out)).toMatchObject({
      engine: expect.stringMatching(/^veglia-core/) as unknown,
      pack: expect.stringMatching(/^[0-9a-f]{64}$/) as unknown,
      assemblies: expect.arrayContaining([
        expect.objectContaining({ id: 'main', verdict: 'suspect', because: expect.any(Array) as unknown }),
      ]) as unknown,
      faults: expect.any(Array) as unknown,
      set: { stageId: 'back-off', plugged: false },
      doubts: [],
      unused: [{ code: 'unknown-test', id: 'no.such-test' }],
    });
    const { next } = json(out) as { next: Record<string, unknown>[] };
    expect(next[0]).toMatchObject({
      kind: 'test',
      id: expect.any(String) as unknown,
      minutes: expect.any(Number) as unknown,
      cost: { currency: 'EUR' },
    });
  });

  test('fold reads standard input', () => {
    const out = execFileSync(process.execPath, [bin, 'case', 'fold', '-'], {
      input: JSON.stringify(dark),
      encoding: 'utf8',
      env: { ...process.env, NODE_OPTIONS: '' },
    });
    expect(json(out)).toMatchObject({ set: { stageId: 'back-off' } });
  });

  test('next: the policy and how many', () => {
    const name = file('dark.json', dark);
    const information = json(veglia('case', 'next', name, '--top', '2', '--policy', 'information').out) as {
      next: { because: { code: string; sentence: string } }[];
    };
    expect(information.next).toHaveLength(2);
    expect(information.next[0]?.because.sentence).toMatch(/about \d+ % of the doubt goes in \d+ min/);
    const cost = json(veglia('case', 'next', name).out) as typeof information;
    expect(cost.next[0]?.because.sentence).toMatch(/^Cheapest way on: saves about .* EUR of the .* EUR/);
    const fixed = json(veglia('case', 'next', name, '--policy', 'fixed').out) as { next: { because: { code: string } }[] };
    expect(fixed.next[0]?.because.code).toBe('list-order');
  });

  test.each([
    ['a file that is not there', path.join(folder, 'none.json'), 'not-readable'],
    ['a file that is no JSON', file('half.json', '{"format":'), 'not-json'],
    ['a case for another pack', file('other.json', { ...dark, pack: { hash: 'f'.repeat(64) } }), 'pack-hash-differs'],
  ])('%s ends with 1 and says why', (_, name, problem) => {
    const { code, out } = veglia('case', 'fold', name);
    expect(code).toBe(1);
    expect(json(out)).toMatchObject({ ok: false, problems: [{ code: problem }] });
  });
});

test.each([
  [[]],
  [['pack']],
  [['pack', 'frob']],
  [['case', 'fold']],
  [['case', 'next', 'x.json', '--top', 'many']],
  [['case', 'next', 'x.json', '--policy', 'wild']],
])('a wrong call (%j) ends with 2 and prints no JSON', (args) => {
  const { code, out } = veglia(...args);
  expect(code).toBe(2);
  expect(out).toBe('');
});
