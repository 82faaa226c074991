/** What has to be on the machine: npm packages, Debian's PostgreSQL and Chromium. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { inRoot } from './paths.mjs';
import { ask, isRoot, npm, run } from './run.mjs';
import { say, stop } from './say.mjs';

export function checkNode() {
  const major = Number(process.versions.node.split('.')[0]);
  if (major < 20) stop(`Node ${process.versions.node} is too old; Veglia needs Node 20.19 or later.`);
}

const lockHash = () =>
  createHash('sha256')
    .update(readFileSync(inRoot('package-lock.json')))
    .digest('hex');
const stampFile = inRoot('node_modules/.veglia-installed');

/** `npm ci` from the lock file, unless exactly this lock file is installed already. */
export async function installPackages() {
  const wanted = lockHash();
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === wanted) return;
  say('Installing packages from the lock file (npm ci) ...');
  const code = await npm(['ci', '--no-audit', '--no-fund'], { env: { ...process.env, PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1' } });
  if (code !== 0) stop('npm ci failed; see above.');
  mkdirSync(path.dirname(stampFile), { recursive: true });
  writeFileSync(stampFile, wanted);
}

/** Newest PostgreSQL server programs on this machine, or undefined. */
function findPostgres() {
  const debian = '/usr/lib/postgresql';
  const versions = existsSync(debian)
    ? readdirSync(debian)
        .map(Number)
        .filter(Number.isFinite)
        .sort((a, b) => b - a)
    : [];
  for (const version of versions) {
    const bin = path.join(debian, String(version), 'bin');
    if (existsSync(path.join(bin, 'initdb')) && existsSync(path.join(bin, 'postgres'))) return bin;
  }
  const found = ask('sh', ['-c', 'command -v initdb']);
  return found.ok ? path.dirname(found.out.trim()) : undefined;
}

async function aptInstall(packages, why) {
  const command = `apt-get update && apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  if (!isRoot() || !ask('sh', ['-c', 'command -v apt-get']).ok) {
    stop(`${why} is missing and can't be installed from here. Run this as root, then start again:\n\n  ${command}\n`);
  }
  say(`${why} is missing: installing Debian's package (${packages.join(', ')}) ...`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const code = await run('sh', ['-c', command], { env });
  if (code !== 0) stop(`apt-get failed. The command was:\n\n  ${command}\n`);
}

export async function ensurePostgres() {
  const found = findPostgres();
  if (found) return found;
  await aptInstall(['postgresql'], 'PostgreSQL');
  return findPostgres() ?? stop('PostgreSQL was installed, but its programs were not found in /usr/lib/postgresql.');
}

/**
 * Debian's Chromium: `small` is the same engine without windows, which opens a page in a third less of the processor's time; `whole` is
 * for what only a browser with windows has, such as asking whether a page may use the camera.
 */
export async function ensureChromium() {
  const find = (name) => ask('sh', ['-c', `command -v ${name}`]).out.trim();
  const names = ['chromium-headless-shell', 'chromium'];
  const missing = names.filter((name) => find(name) === '');
  if (missing.length > 0) await aptInstall(missing, 'Chromium');
  const [small, whole] = names.map((name) => find(name) || stop(`Chromium was installed, but \`${name}\` is not in the PATH.`));
  return { small, whole };
}

/** For encrypted backups, as the command calls it. */
export async function ensureGnupg() {
  const find = () => ask('sh', ['-c', 'command -v gpg']).out.trim();
  if (find() === '') await aptInstall(['gnupg'], 'gpg');
  return find() || stop('gnupg was installed, but `gpg` is not in the PATH.');
}

/** Boots throw-away machines, for the tests of the deployment; where it can't be installed, they are skipped. */
export async function ensureMachines() {
  const there = () => ask('sh', ['-c', 'command -v systemd-nspawn']).ok;
  if (!there() && isRoot()) await aptInstall(['systemd-container'], 'systemd-nspawn');
}

/** The proxy that measurements put in front of several processes. */
export async function ensureNginx() {
  const find = () => ask('sh', ['-c', 'PATH="$PATH:/usr/sbin:/sbin" command -v nginx']).out.trim();
  if (find() === '') await aptInstall(['nginx'], 'nginx');
  return find() || stop('nginx was installed, but `nginx` is not in /usr/sbin.');
}

/** A library that makes a program see another time; undefined where it can't be installed. */
export async function ensureFaketime() {
  const find = () => ask('sh', ['-c', 'ls /usr/lib/*/faketime/libfaketimeMT.so.1 2>/dev/null']).out.trim().split('\n')[0];
  if (find() === '' && isRoot()) await aptInstall(['libfaketime'], 'libfaketime');
  return find() || undefined;
}

/** For tests that read a PDF as somebody else's program does. */
export async function ensurePoppler() {
  const find = () => ask('sh', ['-c', 'command -v pdftotext']).out.trim();
  if (find() === '') await aptInstall(['poppler-utils'], 'pdftotext');
  const found = find();
  return found === '' ? stop('poppler-utils were installed, but `pdftotext` is not in the PATH.') : found;
}

/**
 * The command that drives chip programmers; it emulates chips of its own for tests and demo. `needed: false`: where it can't be installed, that is said and
 * nothing else.
 */
export async function ensureFlashrom({ needed = true } = {}) {
  const find = () => ask('sh', ['-c', 'PATH="$PATH:/usr/sbin:/sbin" command -v flashrom']).out.trim();
  if (find() === '' && !needed && !isRoot()) {
    say("flashrom is missing: chips can't be read and written from here. Install it as root: apt-get install -y flashrom");
    return undefined;
  }
  if (find() === '') await aptInstall(['flashrom'], 'flashrom');
  const found = find();
  return found === '' ? stop('flashrom was installed, but `flashrom` is not in /usr/sbin.') : found;
}
