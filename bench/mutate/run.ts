/**
 * Are the tests' eyes open? A seeded sample of small changes to core's rules, each with the tests of its folder.
 *
 *   npm run mutate -- [--sample 200] [--seed 1] [--workers 2] [--minutes 60]
 *
 * In a work tree of its own, of what is committed. A mutant that no test notices survives; survivors are printed and written to
 * bench/results/mutate.json. Stops drawing after `minutes`; what wasn't tried is said.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import fc from 'fast-check';
import { mutantsOf, type Mutant } from './mutants.ts';

const root = path.resolve(import.meta.dirname, '../..');
const { values } = parseArgs({
  options: {
    sample: { type: 'string', default: '200' },
    seed: { type: 'string', default: '1' },
    workers: { type: 'string', default: '2' },
    minutes: { type: 'string', default: '60' },
  },
});

/** Folders of core, and the tests that speak of each. */
const related: Record<string, string> = {
  diagnosis: 'packages/core/src/(diagnosis|reference/reference)',
  decision: 'packages/core/src/(decision/|diagnosis/(settled|advice))',
  safety: 'packages/core/src/safety/',
  money: 'packages/core/src/money/',
  learning: 'packages/core/src/learning/',
  planner: 'packages/core/src/planner/',
  ledger: 'packages/core/src/(ledger|safety)/',
};

function sourcesOf(folder: string): string[] {
  return readdirSync(path.join(root, 'packages/core/src', folder), { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts') && path.basename(file) !== 'index.ts')
    .sort()
    .map((file) => path.posix.join('packages/core/src', folder, file));
}

const all = Object.keys(related).flatMap((folder) =>
  sourcesOf(folder).flatMap((file) => mutantsOf(file, readFileSync(path.join(root, file), 'utf8')).map((mutant) => ({ folder, mutant }))),
);
const [drawn = []] = fc.sample(
  fc.shuffledSubarray(all, {
    minLength: Math.min(Number(values.sample), all.length),
    maxLength: Math.min(Number(values.sample), all.length),
  }),
  {
    seed: Number(values.seed),
    numRuns: 1,
  },
);

const tree = mkdtempSync(path.join(os.tmpdir(), 'veglia-mutate-'));
const git = (...args: string[]): void => {
  const { status, stderr } = spawnSync('git', args, { cwd: root, encoding: 'utf8' });
  if (status !== 0) throw new Error(stderr);
};
git('worktree', 'add', '--detach', tree, 'HEAD');
symlinkSync(path.join(root, 'node_modules'), path.join(tree, 'node_modules'));

/** A test that hangs on a mutant has noticed it; ms. */
const longest = 240_000;

/** Do the tests that match fail? */
function fail(pattern: string): boolean {
  const { status } = spawnSync(
    process.execPath,
    [
      '--experimental-vm-modules',
      path.join(tree, 'node_modules/jest/bin/jest.js'),
      ...['--selectProjects', 'unit', '--testPathPatterns', pattern],
      ...['--bail', '--silent', '--passWithNoTests', '--maxWorkers', values.workers],
    ],
    { cwd: tree, stdio: 'ignore', timeout: longest, env: { ...process.env, NODE_NO_WARNINGS: '1' } },
  );
  return status !== 0;
}

/** The tests beside the file are asked first: most mutants end there, in seconds. */
function notices(folder: string, { file, start, end, becomes }: Mutant): boolean {
  const target = path.join(tree, file);
  const text = readFileSync(target, 'utf8');
  writeFileSync(target, text.slice(0, start) + becomes + text.slice(end));
  const noticed = fail(`${path.posix.dirname(file)}/[^/]+\\.test`) || fail(related[folder] ?? folder);
  writeFileSync(target, text);
  return noticed;
}

const survivors: Mutant[] = [];
let tried = 0;
const began = Date.now();
try {
  for (const folder of Object.keys(related)) {
    if (notices(folder, { file: 'README.md', line: 1, start: 0, end: 0, was: '', becomes: '', operator: 'none' }))
      throw new Error(`the tests of ${folder} fail as they are`);
  }
  for (const { folder, mutant } of drawn) {
    if (Date.now() - began > Number(values.minutes) * 60_000) break;
    tried += 1;
    const noticed = notices(folder, mutant);
    if (!noticed) survivors.push(mutant);
    console.log(`${tried} ${noticed ? 'noticed ' : 'SURVIVED'} ${mutant.file}:${mutant.line} ${mutant.was} -> ${mutant.becomes}`);
  }
} finally {
  git('worktree', 'remove', '--force', tree);
  rmSync(tree, { recursive: true, force: true });
}
const caught = tried === 0 ? 0 : (tried - survivors.length) / tried;
const minutes = Math.round((Date.now() - began) / 60_000);
console.log(`${all.length} possible, ${drawn.length} drawn, ${tried} tried in ${minutes} min: ${(caught * 100).toFixed(1)} % noticed`);
writeFileSync(
  path.join(root, 'bench/results/mutate.json'),
  `${JSON.stringify({ seed: Number(values.seed), possible: all.length, drawn: drawn.length, tried, minutes, caught, survivors }, null, 2)}\n`,
);
