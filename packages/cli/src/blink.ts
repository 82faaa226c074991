/** `veglia blink`: a filmed light read, and what a family's table makes of it. */
import { readFile } from 'node:fs/promises';
import { text as textOf } from 'node:stream/consumers';
import { readBlinkTableCsv, readTraceCsv } from '@veglia/contract/blink';
import { codeInWords, words } from '@veglia/contract';
import {
  blinkTableProblems,
  InputRefused,
  codesMeant,
  readTrace,
  type BlinkResult,
  type CompiledPack,
  type Family,
  type Problem,
} from '@veglia/core';

/** The text of a file, `-` is standard input; refused as any wrong input where it can't be read. */
export async function readText(file: string): Promise<string> {
  try {
    return file === '-' ? await textOf(process.stdin) : await readFile(file, 'utf8');
  } catch (error) {
    throw new InputRefused([{ code: 'not-readable', where: file, expected: (error as Error).message }]);
  }
}

/** The family with this id. Throws InputRefused where the pack has none. */
export function familyNamed(compiled: CompiledPack, id: string): Family {
  const family = compiled.families.get(compiled.currentId(id));
  if (!family) throw new InputRefused([{ code: 'unknown-id', where: '--family', value: id, expected: 'family' }]);
  return family;
}

/** What the family's table has for it; of a count it doesn't use, the nearest it does. */
const meaningIn = (family: Family, { reading, alternatives, cycles }: BlinkResult): object => {
  const meant = codesMeant(family, { ...reading, groups: reading?.groups ?? [], alternatives, cycles });
  return {
    family: family.id,
    known: meant.some(({ distance }) => distance === 0),
    codes: meant.map(({ code, probability }) => ({ ...code, meaning: code.meaning.en, probability })),
  };
};

/** A light trace (CSV) read as the reader in the app does; JSON-ready. Throws InputRefused on a file that is no trace. */
export async function readBlink(file: string, family: Family | undefined): Promise<object> {
  const read = readTraceCsv(await readText(file), file === '-' ? 'standard input' : file);
  if ('problems' in read) throw new InputRefused(read.problems);
  const result = readTrace(read.trace);
  if ('refused' in result) {
    throw new InputRefused([{ code: 'schema', where: file, value: result.refused, expected: words.en.traceProblem[result.refused] }]);
  }
  const { kind, reading, alternatives, cycles, advice } = result;
  return {
    reading: reading
      ? {
          groups: reading.groups,
          colour: reading.colour ?? null,
          after: reading.after ?? null,
          sure: reading.sure,
          probability: reading.probability,
        }
      : null,
    alternatives: alternatives.map(({ groups, probability }) => ({ groups, probability })),
    cycles,
    advice: words.en.blinkAdvice[advice],
    kind,
    ...(reading ? { words: codeInWords(reading, words.en) } : {}),
    ...(reading && family ? { table: meaningIn(family, result) } : {}),
  };
}

/** A table looked through: how many rows, or every problem by row. JSON where it looks like JSON, else CSV of the family named. */
export function checkTable(text: string, file: string, family: string | undefined, compiled: CompiledPack): object {
  const json = /^\s*[{[]/.test(text);
  let document: unknown;
  let first: readonly Problem[] = [];
  if (json) {
    try {
      document = JSON.parse(text);
    } catch (error) {
      throw new InputRefused([{ code: 'not-json', where: file, expected: (error as Error).message }]);
    }
  } else {
    if (family === undefined)
      throw new InputRefused([{ code: 'schema', where: '--family', expected: 'the family a CSV table belongs to' }]);
    ({ document, problems: first } = readBlinkTableCsv(text, family));
  }
  const { problems, table } = blinkTableProblems(document, compiled.pack);
  if (first.length > 0 || !table) throw new InputRefused([...first, ...problems]);
  return { ok: true, family: table.family, rows: table.codes.length, problems: [] };
}
