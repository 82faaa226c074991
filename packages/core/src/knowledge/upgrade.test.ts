import { describe, expect, test } from '@jest/globals';
import { parseCase } from '../ledger/index.ts';
import { InputRefused } from '../problems.ts';
import { caseOf, shipped, shippedFiles, shippedPack } from '../testing/shipped.ts';
import { foldCase } from '../diagnosis/index.ts';
import { assemblePack, compilePack, hashPack, parsePack, type PackFile } from './index.ts';

/** The shipped files as they stood in version 1. */
const firstFiles = (): PackFile[] =>
  shippedFiles().map(({ path, text }) => ({
    path,
    text: path === 'pack.json' ? text.replace('"version": 2', '"version": 1') : text.replaceAll('"likelihoods":', '"odds":'),
  }));

const firstDocument = (): Record<string, unknown> => {
  const text = JSON.stringify(shippedPack()).replaceAll('"likelihoods":', '"odds":');
  return { ...(JSON.parse(text) as Record<string, unknown>), version: 1 };
};

describe('a pack of version 1, whose rows of words were called odds', () => {
  test('is read as the same pack, from its files and as a document', () => {
    expect(firstFiles().some(({ text }) => text.includes('"odds":'))).toBe(true);
    expect(assemblePack(firstFiles())).toEqual(shippedPack());
    expect(parsePack(firstDocument())).toEqual(shippedPack());
  });

  test('a stored one is known by the hash it was imported under, and judges as before', () => {
    const imported = 'a'.repeat(64);
    const compiled = compilePack(parsePack(firstDocument()), imported);
    expect(compiled.hash).toBe(imported);
    const told = caseOf(['sound-dark'], ['torch=faint-picture']);
    expect(foldCase(told, compiled).assemblies).toEqual(foldCase(told, shipped()).assemblies);
    expect(compilePack(shippedPack()).hash).toBe(hashPack(shippedPack()));
  });

  test('a case file may bring one along', () => {
    const file = { format: 'veglia-case', version: 1, pack: { inline: firstDocument() }, set: { layout: 'led-tcon' }, entries: [] };
    expect(parseCase(file).file.pack).toEqual({ inline: shippedPack() });
    expect(parseCase({ ...file, version: 2 }).file.pack).toEqual({ inline: shippedPack() });
  });

  test('version 2 may not say odds, nor version 1 likelihoods and odds at once; versions to come are refused', () => {
    const refused = (document: unknown): unknown => {
      try {
        return parsePack(document);
      } catch (error) {
        return (error as InputRefused).problems[0]?.where;
      }
    };
    expect(refused({ ...firstDocument(), version: 2 })).toContain('looks');
    const [look] = (firstDocument() as { looks: { rows: object[] }[] }).looks;
    const both = { ...look, rows: look?.rows.map((row) => ({ ...row, likelihoods: {} })) };
    expect(refused({ ...firstDocument(), looks: [both] })).toContain('looks');
    expect(refused({ ...shippedPack(), version: 3 })).toBe('pack.version');
    expect(refused('a pack')).toBe('pack');
  });
});
