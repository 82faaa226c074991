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

function cruise(): { from: string; rule: string }[] {
  const tool = inRoot('node_modules/dependency-cruiser/bin/dependency-cruise.mjs');
  const { stdout } = spawnSync(process.execPath, [tool, 'packages', '--config', '.dependency-cruiser.cjs', '--output-type', 'json'], {
    cwd: copy,
    encoding: 'utf8',
    maxBuffer: 256 * 1024 * 1024,
  });
  const { summary } = JSON.parse(stdout) as { summary: { violations: { from: string; rule: { name: string } }[] } };
  return summary.violations.map(({ from, rule }) => ({ from, rule: rule.name }));
}

describe('the arrows between packages', () => {
  const broken: [string, string, string, string][] = [
    ['core reaches for the contract', 'packages/core/src/broken1.ts', "import '../../contract/src/index.ts';", 'core-stands-alone'],
    ['core reads the disk', 'packages/core/src/broken2.ts', "import 'node:fs';", 'core-is-pure'],
    ['contract reaches for the server', 'packages/contract/src/broken3.ts', "import '../../server/src/index.ts';", 'contract-on-core'],
    ['the web app reaches into the server', 'packages/web/src/broken4.ts', "import '../../server/src/config.ts';", 'faces-apart'],
    ['the web app takes what needs a disk', 'packages/web/src/broken5.ts', "import '../../contract/src/node/index.ts';", 'no-node-in-web'],
    [
      'evidence asks for advice',
      'packages/core/src/diagnosis/evidence/broken7.ts',
      "import '../advice/compare.ts';",
      'diagnosis-evidence-reads-back',
    ],
    [
      'the simulated set looks at likelihoods',
      'packages/simulators/src/set/broken6.ts',
      "import '../../../core/src/diagnosis/index.ts';",
      'simulated-set-knows-no-probabilities',
    ],
  ];

  // Broken all at once and cruised once: what each rule refuses is told apart by its file.
  let told: { from: string; rule: string }[] = [];
  beforeAll(() => {
    for (const [, file, content] of broken) {
      mkdirSync(path.dirname(path.join(copy, file)), { recursive: true });
      writeFileSync(path.join(copy, file), `${content}\n`);
    }
    told = cruise();
  });

  test.each(broken)('%s: refused by name', (_, file, __, rule) => {
    expect(told).toContainEqual({ from: file, rule });
  });
  // `npm run test:lint` cruises the sources themselves.
  test('and nothing else is', () => {
    const files = new Set(broken.map(([, file]) => file));
    expect(told.filter(({ from }) => !files.has(from))).toEqual([]);
  });
});
