/** Files in, or a refusal with every problem. */
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { text as textOf } from 'node:stream/consumers';
import { fileURLToPath } from 'node:url';
import { readPackFiles } from '@veglia/contract/node';
import {
  assemblePack,
  checkPack,
  compilePack,
  InputRefused,
  parseCase,
  parsePack,
  type CompiledPack,
  type Pack,
  type ReadCase,
} from '@veglia/core';

export const shippedPackFolder = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../../../knowledge');

/** A file that can't be read or isn't JSON is wrong input like any other. `-` is standard input. */
async function readJson(file: string): Promise<unknown> {
  let text: string;
  try {
    text = file === '-' ? await textOf(process.stdin) : await readFile(file, 'utf8');
  } catch (error) {
    throw new InputRefused([{ code: 'not-readable', where: file, expected: (error as Error).message }]);
  }
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new InputRefused([{ code: 'not-json', where: file, expected: (error as Error).message }]);
  }
}

/** A pack from its folder or its document, with the schema's word on it; `checkPack` has the rest. */
export async function readPack(source: string): Promise<Pack> {
  const isFolder = await stat(source).then(
    (found) => found.isDirectory(),
    () => false,
  );
  return isFolder ? assemblePack(await readPackFiles(source)) : parsePack(await readJson(source));
}

function checked(pack: Pack): CompiledPack {
  const problems = checkPack(pack);
  if (problems.length > 0) throw new InputRefused(problems);
  return compilePack(pack);
}

/** A checked pack ready for arithmetic. */
export async function readCompiled(source: string): Promise<{ compiled: CompiledPack }> {
  return { compiled: checked(await readPack(source)) };
}

/** A case with the pack it is to be folded with: its own inline one, else `packSource`, whose hash must be the one it names. */
export async function readCase(file: string, packSource: string): Promise<ReadCase & { compiled: CompiledPack }> {
  const read = parseCase(await readJson(file));
  const named = read.file.pack;
  if (named && 'inline' in named) return { ...read, compiled: checked(named.inline) };
  const compiled = checked(await readPack(packSource));
  if (named && named.hash !== compiled.hash) {
    throw new InputRefused([{ code: 'pack-hash-differs', where: 'case.pack.hash', value: named.hash, expected: compiled.hash }]);
  }
  return { ...read, compiled };
}
