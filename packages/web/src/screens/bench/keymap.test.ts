import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { benchWords } from '../../messages/en/bench.ts';
import { benchCommands, benchKeys, cap, caps, pressed } from './keymap.ts';

const folder = 'packages/web/src/screens/bench';
const screens = readdirSync(folder)
  .filter((name) => name.endsWith('.vue'))
  .map((name) => ({ name, text: readFileSync(path.join(folder, name), 'utf8') }));

describe('the keys of the Bench', () => {
  test('no key has two meanings, and each is found again whatever its case', () => {
    const keys = benchCommands.flatMap((command) => [...benchKeys[command]]);
    expect(new Set(keys).size).toBe(keys.length);
    for (const command of benchCommands)
      benchKeys[command].forEach((key, nth) => {
        expect(pressed(key)).toEqual({ command, nth });
        expect(pressed(key.toUpperCase())).toEqual({ command, nth });
      });
    expect(pressed('ArrowUp')).toBeUndefined();
    expect(pressed('constructor')).toBeUndefined();
  });

  test('caps show what is printed on the keys', () => {
    expect(cap('confirm')).toBe('Space');
    expect(cap('back')).toBe('Esc');
    expect(cap('alternative', 1)).toBe('D');
    expect(cap('alternative', 9)).toBe('');
    expect(caps('answer')).toBe('1–9');
    expect(caps('alternative')).toBe('S D F');
  });

  test('each has its line in the list of keys, and no line is left over', () => {
    expect(Object.keys(benchWords.bench.keys.of).sort()).toEqual([...benchCommands].sort());
  });

  test('each is answered to somewhere on the Bench, or opens an instrument', () => {
    const all = screens.map(({ text }) => text).join('\n');
    for (const command of benchCommands) expect(all).toMatch(new RegExp(`'${command}'`));
  });

  test('no screen of the Bench names a key of its own but Enter, which sends a form', () => {
    const own = screens.flatMap(({ name, text }) =>
      [...text.matchAll(/KeyCap[^>]* label="([^"]*)"|\bkey === '([^']*)'/g)].map((found) => `${name}: ${found[1] ?? found[2]}`),
    );
    expect(own.filter((one) => !one.endsWith(': ↵'))).toEqual(
      // Space on a control that has the focus is the browser’s.
      ['BenchView.vue:  ', 'BenchView.vue:  '],
    );
  });
});
