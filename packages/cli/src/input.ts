/** Files in, or a refusal with every problem. */
import { readdir, readFile, stat } from 'node:fs/promises';
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
  parseReferenceCases,
  type CompiledPack,
  type Pack,
  type ReadCase,
  type ReferenceCase,
} from '@veglia/core';
import { z } from 'zod';

/** The pack that ships. */
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

const isFolder = (source: string): Promise<boolean> =>
  stat(source).then(
    (found) => found.isDirectory(),
    () => false,
  );

/** A pack from its folder or its document, with the schema's word on it; `checkPack` has the rest. */
export async function readPack(source: string): Promise<Pack> {
  return (await isFolder(source)) ? assemblePack(await readPackFiles(source)) : parsePack(await readJson(source));
}

function checked(pack: Pack): CompiledPack {
  const problems = checkPack(pack);
  if (problems.length > 0) throw new InputRefused(problems);
  return compilePack(pack);
}

/** The folder read last, by what its files say: many cases in one process are folded with one pack, checked and compiled once. */
let last: { readonly said: string; readonly compiled: CompiledPack } | undefined;

/** A checked pack ready for arithmetic. */
export async function readCompiled(source: string): Promise<{ compiled: CompiledPack }> {
  if (!(await isFolder(source))) return { compiled: checked(await readPack(source)) };
  const files = await readPackFiles(source);
  const said = JSON.stringify(files);
  if (last?.said !== said) last = { said, compiled: checked(assemblePack(files)) };
  return { compiled: last.compiled };
}

/** The reference cases that ship. */
export const shippedCasesFolder = path.join(shippedPackFolder, 'reference-cases');
/** Beside a folder's cases: names of the expectations that are known not to hold. */
const missesFile = 'known-misses.json';

/** Reference cases of a file, or of every JSON file in a folder. */
export async function readReferenceCases(source: string): Promise<{ cases: ReferenceCase[]; knownMisses: ReadonlySet<string> }> {
  const names = await readdir(source).catch(() => undefined);
  if (names === undefined)
    return { cases: parseReferenceCases([{ name: source, document: await readJson(source) }]), knownMisses: new Set() };
  const files = names.filter((name) => name.endsWith('.json') && name !== missesFile).sort();
  const documents = await Promise.all(files.map(async (name) => ({ name, document: await readJson(path.join(source, name)) })));
  const misses = names.includes(missesFile) ? z.array(z.string()).safeParse(await readJson(path.join(source, missesFile))).data : [];
  return { cases: parseReferenceCases(documents), knownMisses: new Set(misses?.map((name) => name.replace(/: odds /, ': probability '))) };
}

/** A case with the pack it is to be folded with: its own inline one, else `packSource`, whose hash must be the one it names. */
export async function readCase(file: string, packSource: string): Promise<ReadCase & { compiled: CompiledPack }> {
  const read = parseCase(await readJson(file));
  const named = read.file.pack;
  if (named && 'inline' in named) return { ...read, compiled: checked(named.inline) };
  const { compiled } = await readCompiled(packSource);
  if (named && named.hash !== compiled.hash) {
    throw new InputRefused([{ code: 'pack-hash-differs', where: 'case.pack.hash', value: named.hash, expected: compiled.hash }]);
  }
  return { ...read, compiled };
}
