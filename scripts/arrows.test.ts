import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { inRoot } from './lib/paths.mjs';

/** A copy of the sources to break. */
const copy = mkdtempSync(path.join(os.tmpdir(), 'veglia-arrows-'));

beforeAll(() => {
  for (const name of ['core', 'contract', 'simulators', 'server', 'web', 'cli']) {
    cpSync(inRoot('packages', name), path.join(copy, 'packages', name), {
      recursive: true,
      filter: (from) => !/node_modules|dist$/.test(from),
    });
  }
  for (const name of ['.dependency-cruiser.cjs', 'tsconfig.json', 'tsconfig.base.json', 'package.json'])
    cpSync(inRoot(name), path.join(copy, name));
  cpSync(inRoot('scripts/lib'), path.join(copy, 'scripts/lib'), { recursive: true });
  symlinkSync(inRoot('node_modules'), path.join(copy, 'node_modules'));
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));

function cruise(): { code: number | null; out: string } {
  const tool = inRoot('node_modules/dependency-cruiser/bin/dependency-cruise.mjs');
  const { status, stdout, stderr } = spawnSync(process.execPath, [tool, 'packages', '--config', '.dependency-cruiser.cjs'], {
    cwd: copy,
    encoding: 'utf8',
  });
  return { code: status, out: stdout + stderr };
}

describe('the arrows between packages', () => {
  test('hold as they are', () => {
    expect(cruise()).toMatchObject({ code: 0 });
  });

  const broken: [string, string, string, string][] = [
    ['core reaches for the contract', 'packages/core/src/broken.ts', "import '../../contract/src/index.ts';", 'core-stands-alone'],
    ['core reads the disk', 'packages/core/src/broken.ts', "import 'node:fs';", 'core-is-pure'],
    ['contract reaches for the server', 'packages/contract/src/broken.ts', "import '../../server/src/index.ts';", 'contract-on-core'],
    ['the web app reaches into the server', 'packages/web/src/broken.ts', "import '../../server/src/config.ts';", 'faces-apart'],
    ['the web app takes what needs a disk', 'packages/web/src/broken.ts', "import '../../contract/src/node/index.ts';", 'no-node-in-web'],
    [
      'the simulated set looks at likelihoods',
      'packages/simulators/src/set/broken.ts',
      "import '../../../core/src/diagnosis/index.ts';",
      'simulated-set-knows-no-odds',
    ],
  ];
  test.each(broken)('%s: refused by name', (_, file, content, rule) => {
    const full = path.join(copy, file);
    mkdirSync(path.dirname(full), { recursive: true });
    writeFileSync(full, `${content}\n`);
    const { code, out } = cruise();
    rmSync(full);
    expect(code).not.toBe(0);
    expect(out).toContain(rule);
  });
});
