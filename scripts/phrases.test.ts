import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, test } from '@jest/globals';

/** Phrases that no text a person reads may have, with what to say instead: `docs/phrases.json`. Case does not matter. */
const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const read = (file: string): string => readFileSync(path.join(root, file), 'utf8');
const phrases = (JSON.parse(read('docs/phrases.json')) as { not: string; say: string }[]).map(({ not, say }) => ({
  pattern: new RegExp(not, 'iu'),
  say,
}));

interface Line {
  readonly where: string;
  readonly text: string;
}

const filesIn = (folder: string, ending: string): string[] =>
  readdirSync(path.join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith(ending))
    .map((name) => path.join(folder, name))
    .sort();

/** Prose of a Markdown file: no code blocks, no code spans, no link targets. */
const prose = (file: string): Line[] =>
  read(file)
    .split('\n')
    .map((text, index) => ({ where: `${file}:${index + 1}`, text }))
    .filter(({ text }) => !text.startsWith('    '))
    .map(({ where, text }) => ({ where, text: text.replace(/`[^`]*`/g, '').replace(/\]\([^)]*\)/g, ']') }));

/** What a file of messages says: the string literals that are values, placeholders left out. */
const literals = (file: string): Line[] =>
  read(file)
    .split('\n')
    .filter((line) => !/^\s*(\*|\/\*|\/\/|import |export type|.*from ')/.test(line))
    .flatMap((line, index) =>
      [...line.matchAll(/(?:: |^\s+|\(|, )'((?:[^'\\]|\\.)*)'/g)].map(([, text = '']) => ({ where: `${file} (${index + 1})`, text })),
    )
    // A word in lower case alone is an id.
    .filter(({ text }) => !/^[a-z0-9.:_-]*$/.test(text))
    .map(({ where, text }) => ({ where, text: text.replace(/\{\w+\}/g, '…') }));

/** Every text of the pack in English, with the file it stands in. */
function packTexts(): Line[] {
  const lines: Line[] = [];
  const walk = (value: unknown, where: string): void => {
    if (Array.isArray(value)) value.forEach((one) => walk(one, where));
    else if (typeof value === 'object' && value !== null)
      for (const [key, inner] of Object.entries(value)) {
        if ((key === 'en' || key === 'source') && typeof inner === 'string') lines.push({ where, text: inner });
        else walk(inner, where);
      }
  };
  for (const file of filesIn('knowledge', '.json')) if (!file.includes('reference-')) walk(JSON.parse(read(file)), file);
  return lines;
}

const found = (lines: readonly Line[]): string[] =>
  lines.flatMap(({ where, text }) =>
    phrases
      .filter(({ pattern }) => pattern.test(text))
      .map(({ pattern, say }) => `${where}: "${text.trim()}" (${pattern.source}: say ${say})`),
  );

const sources: readonly (readonly [string, () => Line[], number])[] = [
  ['screens', () => filesIn('packages/web/src/messages', '.ts').flatMap(literals), 500],
  ['sentences of verdicts, reasons and errors', () => literals('packages/contract/src/words/en.ts'), 200],
  ['the command line', () => ['packages/cli/src/main.ts', 'packages/cli/src/simulate.ts'].flatMap(literals), 20],
  ['the knowledge pack', packTexts, 900],
  ['README and its neighbours', () => ['README.md', 'CONTRIBUTING.md', 'SECURITY.md', 'CHANGELOG.md'].flatMap(prose), 100],
  ['docs', () => filesIn('docs', '.md').flatMap(prose), 300],
];

describe('no phrase of docs/phrases.json stands in', () => {
  test.each(sources)('%s', (_, lines, least) => {
    const all = lines();
    // A scan that finds nothing to scan would pass.
    expect(all.filter(({ text }) => text.trim() !== '').length).toBeGreaterThan(least);
    expect(found(all)).toEqual([]);
  });

  test('and the scan bites', () => {
    expect(found([{ where: 'here', text: 'Odds from the book: the symptom heals.' }])).toHaveLength(3);
    expect(found([{ where: 'here', text: 'A change in log-odds.' }])).toEqual([]);
  });
});
