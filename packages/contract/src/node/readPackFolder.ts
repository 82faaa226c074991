import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { assemblePack, checkPack, InputRefused, type Pack, type PackFile } from '@veglia/core';

/** All JSON files below a folder, as the core's assembler wants them. */
export async function readPackFiles(folder: string): Promise<PackFile[]> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  const files = entries.filter((entry) => entry.isFile() && entry.name.endsWith('.json'));
  return Promise.all(
    files.map(async (entry) => {
      const full = path.join(entry.parentPath, entry.name);
      return { path: path.relative(folder, full).split(path.sep).join('/'), text: await readFile(full, 'utf8') };
    }),
  );
}

/** A folder's pack, checked; throws InputRefused with all its problems. */
export async function readPackFolder(folder: string): Promise<Pack> {
  const pack = assemblePack(await readPackFiles(folder));
  const problems = checkPack(pack);
  if (problems.length > 0) throw new InputRefused(problems);
  return pack;
}
