/**
 * `npm test`: everything, on a machine that has Node and npm only. `npm run test:unit` and the like run one part.
 * The last line is always `N passed, N failed` (`, N skipped` where some were).
 */
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { checkNode, ensureChromium, ensureMachines, ensurePostgres, installPackages } from './lib/install.mjs';
import { inRoot } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { runMain, say, stop } from './lib/say.mjs';

const reports = inRoot('.test-reports');
const totals = { passed: 0, failed: 0, skipped: 0 };
const node = process.execPath;
const tool = (file) => inRoot('node_modules', file);

async function check(name, args, options) {
  say(`\n== ${name}`);
  const started = Date.now();
  const code = await run(node, args, options);
  totals[code === 0 ? 'passed' : 'failed'] += 1;
  say(`== ${name}: ${code === 0 ? 'fine' : 'FAILED'} (${((Date.now() - started) / 1000).toFixed(1)} s)`);
}

const typeChecks = [
  ['types of everything but the web app', [tool('typescript/bin/tsc'), '-p', '.']],
  ['types of core without Node and DOM', [tool('typescript/bin/tsc'), '-p', 'packages/core']],
  ['types of the web app', [tool('vue-tsc/bin/vue-tsc.js'), '-p', 'packages/web']],
];
const lintChecks = [
  ['lint', [tool('eslint/bin/eslint.js'), '.', '--max-warnings', '0']],
  ['format', [tool('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']],
  ['arrows between packages', [tool('dependency-cruiser/bin/dependency-cruise.mjs'), 'packages', '--config', '.dependency-cruiser.cjs']],
];

/** Runs a test runner that leaves a report; a runner that ended badly with nothing failed in its report counts as one failure. */
async function suite(name, file, args, env, read) {
  say(`\n== ${name}`);
  const started = Date.now();
  const report = `${reports}/${file}`;
  const code = await run(node, args(report), { env: { ...process.env, ...env(report) } });
  const counted = existsSync(report) ? read(JSON.parse(readFileSync(report, 'utf8'))) : { passed: 0, failed: 0, skipped: 0 };
  if (code !== 0 && counted.failed === 0) counted.failed = 1;
  if (counted.passed + counted.failed === 0) counted.failed = 1;
  for (const key of Object.keys(totals)) totals[key] += counted[key];
  say(`== ${name}: ${counted.passed} passed, ${counted.failed} failed (${((Date.now() - started) / 1000).toFixed(1)} s)`);
}

const jest = (name, project, ...more) =>
  suite(
    name,
    `${project}.json`,
    (report) => [
      '--experimental-vm-modules',
      tool('jest/bin/jest.js'),
      '--selectProjects',
      project,
      // Jest's own choice leaves one core of two idle.
      '--maxWorkers=100%',
      '--json',
      `--outputFile=${report}`,
      ...more,
    ],
    () => ({ NODE_NO_WARNINGS: '1' }),
    (report) => ({
      passed: report.numPassedTests,
      failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
      skipped: report.numPendingTests,
    }),
  );

const build = () =>
  check('build of the web app', [tool('vite/bin/vite.js'), 'build', '--logLevel', 'warn'], { cwd: inRoot('packages/web') });

const unsteady = (suites) =>
  suites.flatMap((suite) => [
    ...(suite.specs ?? [])
      .filter((spec) => spec.tests.some(({ status }) => status === 'flaky'))
      .map((spec) => `${spec.file}: ${spec.title}`),
    ...unsteady(suite.suites ?? []),
  ]);

/** Chromium and the built app are there; `projects` of playwright.config.ts. */
async function playwright(name, file, args) {
  await ensurePostgres();
  const chromium = await ensureChromium();
  await suite(
    name,
    file,
    () => [tool('@playwright/test/cli.js'), 'test', ...args],
    (report) => ({ PLAYWRIGHT_JSON_OUTPUT_NAME: report, VEGLIA_CHROMIUM: chromium.small, VEGLIA_WHOLE_CHROMIUM: chromium.whole }),
    ({ stats, suites }) => {
      for (const title of unsteady(suites)) say(`UNSTEADY, passed at a second or third try: ${title}`);
      return { passed: stats.expected + stats.flaky, failed: stats.unexpected, skipped: stats.skipped };
    },
  );
}

async function checks(list) {
  for (const [name, args] of list) await check(name, args);
}
async function server(...more) {
  await ensurePostgres();
  await jest('server tests', 'server', ...more);
}
async function crash() {
  await ensurePostgres();
  await check('crash test, 5 kills', [inRoot('scripts/crash.mjs'), '--times', '5']);
}

/** In a machine of its own, where one can be made: installs, upgrades, breaks and restores as an operator does. */
async function deploy() {
  await ensureMachines();
  await jest('deployment', 'deploy', '--maxWorkers=1');
}

const parts = {
  /** The build writes the list of components that the web app's types are checked with. */
  types: async () => (await build(), await checks(typeChecks)),
  lint: () => checks(lintChecks),
  unit: () => jest('unit tests', 'unit'),
  server: () => server(),
  /** Part of the server tests, to be run alone while something of the server is changed. */
  attacks: () => server('attacks'),
  /** The fuzz of the API in full: `npm run bench:fuzz -- [REQUESTS] [SEED]`. */
  fuzz: () => server('test/fuzz.test'),
  crash,
  deploy,
  e2e: async () => (await build(), await playwright('end-to-end tests', 'e2e.json', [])),
  /** Each part on both cores, one after the other but for what mostly waits: others beside each other take longer, and screens then miss their time. */
  async all() {
    await build();
    // A deployment waits for units, proxies and timers most of the time.
    await Promise.all([checks(typeChecks), checks(lintChecks), deploy()]);
    await jest('unit tests', 'unit');
    await server();
    await crash();
    await playwright('end-to-end tests', 'e2e.json', []);
  },
};

await runMain(async () => {
  checkNode();
  const [first, ...numbers] = process.argv.slice(2);
  if (first === 'fuzz') process.env.VEGLIA_FUZZ = `${numbers[0] ?? 2000} ${numbers[1] ?? 1}`;
  const wanted = first === 'fuzz' ? [first] : process.argv.slice(2);
  for (const name of wanted) if (!Object.hasOwn(parts, name)) stop(`There is no part "${name}". Parts: ${Object.keys(parts).join(', ')}`);
  try {
    await installPackages();
    rmSync(reports, { recursive: true, force: true });
    mkdirSync(reports, { recursive: true });
    for (const name of wanted.length > 0 ? wanted : ['all']) await parts[name]();
  } catch (error) {
    console.error(error instanceof Error ? error.message : error);
    totals.failed += 1;
  }
  say(`${totals.passed} passed, ${totals.failed} failed${totals.skipped > 0 ? `, ${totals.skipped} skipped` : ''}`);
  return totals.failed === 0 ? 0 : 1;
});
