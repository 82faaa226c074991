import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { instruments } from '@veglia/core';
import { exitCodes, run } from './main.ts';

async function veglia(...args: string[]): Promise<{ code: number; out: unknown }> {
  let out = '';
  const code = await run(args, { out: (text) => (out += text), err: () => undefined });
  return { code, out: out === '' ? undefined : (JSON.parse(out) as unknown) };
}

describe('veglia <instrument>', () => {
  test('fields as words: what was understood, figures with units, findings as sentences', async () => {
    const { code, out } = await veglia('discharge', 'farads=150u', 'volts=400', 'ohms=2k2');
    expect(code).toBe(exitCodes.fine);
    expect(out).toMatchObject({
      instrument: 'discharge',
      read: { farads: '150 µF', ohms: '2.2 kΩ' },
      figures: expect.arrayContaining([{ id: 'joules', value: expect.closeTo(12), unit: 'J', text: '12 J' }]),
      findings: [{ code: 'computed-is-no-reading', sentence: 'Computed. Measure below 60 V before touching.' }],
      needs: [],
    });
  });
  test('fields as JSON, numbers in SI', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'veglia-instrument-'));
    try {
      const file = path.join(folder, 'link.json');
      writeFileSync(file, JSON.stringify({ width: 3840, height: 2160, bits: '10' }));
      expect((await veglia('link', file)).out).toMatchObject({
        figures: expect.arrayContaining([{ id: 'lanes', value: 8, unit: '', text: '8' }]),
      });
      writeFileSync(file, '[1]');
      expect((await veglia('link', file)).code).toBe(exitCodes.wrongInput);
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
  test.each([
    ['a word that is no number', ['siblings', 'values=2.7M 3M lots']],
    ['a field that is none', ['string', 'colour=red']],
    ['a word without a field', ['mask', 'lines=4', 'loops']],
    ['a trial that can not be read', ['mask', 'lines=4', 'trials=1 perhaps']],
  ])('%s is refused with a sentence', async (_, args) => {
    const { code, out } = await veglia(...args);
    expect(code).toBe(exitCodes.wrongInput);
    expect(out).toMatchObject({ ok: false, problems: [{ sentence: expect.stringMatching(/./) }] });
  });
  test('every instrument is a verb', async () => {
    for (const { id } of instruments) expect((await veglia(id)).out).toMatchObject({ instrument: id, needs: expect.any(Array) });
  });
});
