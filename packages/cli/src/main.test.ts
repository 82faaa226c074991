import { execFileSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from '@jest/globals';
import { packSchema, caseFileSchema } from '@veglia/core';
import { z } from 'zod';
import { shippedPackFolder } from './input.ts';
import { run } from './main.ts';

const bin = fileURLToPath(new URL('../bin/veglia.js', import.meta.url));
const folder = mkdtempSync(path.join(os.tmpdir(), 'veglia-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const file = (name: string, content: unknown): string => {
  const full = path.join(folder, name);
  writeFileSync(full, typeof content === 'string' ? content : JSON.stringify(content));
  return full;
};
async function veglia(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  const [out, err]: [string[], string[]] = [[], []];
  const code = await run(args, { out: (text) => void out.push(text), err: (text) => void err.push(text) });
  return { code, out: out.join(''), err: err.join('') };
}
const json = (out: string): Record<string, unknown> => JSON.parse(out) as Record<string, unknown>;
const dark = {
  format: 'veglia-case',
  version: 2,
  set: { layout: 'led-tcon', family: 'quorvane.qk3' },
  entries: [
    { body: { kind: 'symptom.reported', symptoms: ['sound-dark'] } },
    { body: { kind: 'test.answered', test: 'cut.power-main', outcome: 'lit', sure: 'sure' } },
    { body: { kind: 'test.answered', test: 'no.such-test', outcome: 'lit', sure: 'sure' } },
  ],
};

describe('veglia pack', () => {
  test('a folder that was changed is read anew, one that was not gives the same', async () => {
    const copy = path.join(folder, 'knowledge');
    cpSync(shippedPackFolder, copy, { recursive: true });
    const hash = async (): Promise<unknown> => {
      const { out } = await veglia('case', 'fold', file('same.json', dark), '--pack', copy);
      return json(out).pack;
    };
    const before = await hash();
    expect(await hash()).toBe(before);
    const stages = path.join(copy, 'stages.json');
    writeFileSync(stages, readFileSync(stages, 'utf8').replace('"minutes": 8', '"minutes": 9'));
    expect(await hash()).not.toBe(before);
  });

  test('check: the shipped pack is fine', async () => {
    const { code, out } = await veglia('pack', 'check');
    expect(code).toBe(0);
    expect(json(out)).toMatchObject({ ok: true, problems: [], layouts: 7 });
  });

  test('check: a spoilt document lists all its problems, each with a sentence, and ends with 1', async () => {
    const { code, out } = await veglia('pack', 'check', file('spoilt.json', { format: 'veglia-pack', version: 2, title: { en: 'x' } }));
    expect(code).toBe(1);
    const { problems } = json(out) as { problems: { where: string; sentence: string }[] };
    expect(problems.map((one) => one.where)).toEqual(expect.arrayContaining(['pack.scale', 'pack.tests', 'pack.faults']));
    for (const one of problems) expect(one.sentence).toContain(one.where);
  });

  test('schema: JSON Schema of what check takes', async () => {
    expect(json((await veglia('pack', 'schema')).out)).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(packSchema))));
    expect(json((await veglia('case', 'schema')).out)).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(caseFileSchema))));
  });
});

describe('veglia case', () => {
  test('fold: probabilities, verdicts, reasons, state, doubts, next steps and what was not used', async () => {
    const { code, out } = await veglia('case', 'fold', file('dark.json', dark));
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

  test('next: the policy and how many', async () => {
    const name = file('dark.json', dark);
    const information = json((await veglia('case', 'next', name, '--top', '2', '--policy', 'information')).out) as {
      next: { because: { code: string; sentence: string } }[];
    };
    expect(information.next).toHaveLength(2);
    expect(information.next[0]?.because.sentence).toMatch(/removes about \d+ % of the uncertainty in \d+ min/);
    const cost = json((await veglia('case', 'next', name)).out) as typeof information;
    expect(cost.next[0]?.because.sentence).toMatch(/^Lowest expected cost: saves about €[\d.]+ of the €[\d.]+/);
    const fixed = json((await veglia('case', 'next', name, '--policy', 'fixed')).out) as { next: { because: { code: string } }[] };
    expect(fixed.next[0]?.because.code).toBe('list-order');
  });

  test.each([
    ['a file that is not there', path.join(folder, 'none.json'), 'not-readable'],
    ['a file that is no JSON', file('half.json', '{"format":'), 'not-json'],
    ['a case for another pack', file('other.json', { ...dark, pack: { hash: 'f'.repeat(64) } }), 'pack-hash-differs'],
  ])('%s ends with 1 and says why', async (_, name, problem) => {
    const { code, out } = await veglia('case', 'fold', name);
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
])('a wrong call (%j) ends with 2 and prints no JSON', async (args) => {
  const { code, out } = await veglia(...args);
  expect(code).toBe(2);
  expect(out).toBe('');
});

describe('veglia blink', () => {
  /** Three flashes, a gap, two, a pause: times by hand, a level with a little of a sine in it. */
  const trace = (() => {
    const flashes: [number, number][] = [];
    for (let begin = 2; begin < 22; begin += 5.6) for (const at of [0, 0.6, 1.2, 2.4, 3]) flashes.push([begin + at, begin + at + 0.3]);
    const lines = Array.from({ length: 720 }, (_, i) => {
      const t = i / 30;
      const lit = flashes.some(([from, to]) => t >= from && t < to);
      return `${t.toFixed(4)},${(30 + (lit ? 12 : 0) + Math.sin(i)).toFixed(3)}`;
    });
    return `time_s,level\n${lines.join('\n')}\n`;
  })();

  test('prints the reading, what else it may be, how many cycles agree and what to do', async () => {
    const { code, out } = await veglia('blink', file('trace.csv', trace));
    expect(code).toBe(0);
    expect(json(out)).toMatchObject({ reading: { groups: [3, 2], colour: null, after: 'repeats', sure: true }, kind: 'code' });
    const { cycles, advice, alternatives } = json(out) as {
      cycles: number;
      advice: string;
      alternatives: { groups: number[]; probability: number }[];
    };
    expect(cycles).toBeGreaterThanOrEqual(2);
    expect(advice).toMatch(/two matching cycles/);
    for (const one of alternatives) expect(one.probability).toBeLessThan(0.05);
  });

  test('with a family: its row, or the nearest with their probabilities', async () => {
    const table = json((await veglia('blink', file('trace.csv', trace), '--family', 'brunvik.pd')).out).table as {
      known: boolean;
      codes: { probability: number }[];
    };
    expect(table.known).toBe(false);
    expect(table.codes.length).toBeGreaterThan(0);
  });

  test('a light that doesn’t change is no reading and no error; a file that is no trace is refused by row', async () => {
    const still = `time_s,level\n${Array.from({ length: 300 }, (_, i) => `${i / 30},${5 + Math.sin(i * i)}`).join('\n')}\n`;
    expect(json((await veglia('blink', file('still.csv', still))).out)).toMatchObject({ reading: null, cycles: 0 });
    const { code, out } = await veglia('blink', file('bad.csv', 'time_s,level\n0,1\n1,x\n'));
    expect(code).toBe(1);
    expect(json(out).problems).toEqual([expect.objectContaining({ where: expect.stringContaining('row 2') as unknown })]);
    expect((await veglia('blink', file('trace.csv', trace), '--family', 'no.one')).code).toBe(1);
  });

  test('blink-table check: fine ones are counted, spoilt ones told by row', async () => {
    const row = {
      id: 'nine',
      groups: [9],
      meaning: { en: 'x' },
      suspects: { strips: 'often' },
      source: 'cover',
      date: '2026-01-01',
      by: 'me',
    };
    const table = (codes: object[]): object => ({ format: 'veglia-blink-table', version: 1, family: 'quorvane.qk3', codes });
    expect(json((await veglia('blink-table', 'check', file('table.json', table([row])))).out)).toMatchObject({ ok: true, rows: 1 });
    const spoilt = await veglia('blink-table', 'check', file('twice.json', table([row, { ...row, id: 'b' }])));
    expect(spoilt.code).toBe(1);
    expect(json(spoilt.out).problems).toEqual([expect.objectContaining({ code: 'duplicate-id', where: 'row 2 (b)' })]);
    const csv = 'id,groups,meaning,suspects,source,date,by\nnine,9,x,strips=often,cover,2026-01-01,me\n';
    expect(json((await veglia('blink-table', 'check', file('table.csv', csv), '--family', 'quorvane.qk3')).out)).toMatchObject({
      ok: true,
      rows: 1,
    });
    expect((await veglia('blink-table', 'check', file('table.csv', csv))).code).toBe(1);
  });
});

describe('veglia case check', () => {
  const told = (id: string, expectation: object) =>
    file(`${id}.json`, {
      format: 'veglia-told',
      version: 2,
      source: 'ours',
      cases: [{ id, story: 'x', set: dark.set, entries: dark.entries.slice(0, 2), expect: [{ ...expectation, because: 'so' }] }],
    });

  test('holds reference cases against the pack: what holds is counted, what fails is told and ends with 1', async () => {
    const good = await veglia('case', 'check', told('lit', { what: 'probability', of: ['strips'], max: 0.5 }));
    expect(good.code).toBe(0);
    expect(json(good.out)).toMatchObject({ ok: true, cases: 1, expectations: 1, hold: 1, failed: [] });
    const bad = await veglia('case', 'check', told('wrong', { what: 'verdict', of: 'strips', is: 'proven' }));
    expect(bad.code).toBe(1);
    expect(json(bad.out)).toMatchObject({
      ok: false,
      unlisted: 1,
      failed: [{ case: 'wrong', asked: 'verdict strips is proven', known: false }],
    });
  });

  test('a file that holds no cases is refused', async () => {
    expect((await veglia('case', 'check', file('none.json', { format: 'veglia-told', version: 2, source: 'x', cases: [] }))).code).toBe(1);
  });
});

test('the version is the project’s own', async () => {
  const out: string[] = [];
  expect(await run(['--version'], { out: (text) => void out.push(text), err: () => undefined })).toBe(0);
  const manifest = JSON.parse(readFileSync(new URL('../../../package.json', import.meta.url), 'utf8')) as { version: string };
  expect(out.join('').trim()).toBe(manifest.version);
});
