/**
 * `npm run package [-- --out FOLDER]`: Debian's package of this version, with the built app and what the server needs of npm's packages, for machines of this
 * kind (it holds native code). Prints its path. docs/deployment.md says how it is installed.
 */
import { chmodSync, cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import ts from 'typescript';
import { checkNode, installPackages } from './lib/install.mjs';
import { inRoot } from './lib/paths.mjs';
import { ask, npm, run } from './lib/run.mjs';
import { runMain, say, stop } from './lib/say.mjs';

/** What runs on a server; the web app goes in as it was built. */
const workspaces = ['core', 'contract', 'simulators', 'server', 'cli'];
const noTests = (source) => !/[.]test[.]ts$|[/]testing$|[/]test$/.test(source);
const compilerOptions = {
  module: ts.ModuleKind.ESNext,
  target: ts.ScriptTarget.ES2022,
  verbatimModuleSyntax: true,
  rewriteRelativeImportExtensions: true,
};

function bytesBelow(folder) {
  let sum = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true, recursive: true }))
    if (entry.isFile()) sum += statSync(path.join(entry.parentPath, entry.name)).size;
  return sum;
}
function write(file, text, mode = 0o644) {
  mkdirSync(path.dirname(file), { recursive: true });
  writeFileSync(file, text);
  chmodSync(file, mode);
}

/** Every `.ts` below becomes a `.js` beside what is no source: nothing is compiled when a process starts. */
function compile(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true, recursive: true })) {
    if (!entry.isFile() || !entry.name.endsWith('.ts')) continue;
    const file = path.join(entry.parentPath, entry.name);
    if (!entry.name.endsWith('.d.ts'))
      writeFileSync(file.replace(/[.]ts$/, '.js'), ts.transpileModule(readFileSync(file, 'utf8'), { compilerOptions }).outputText);
    rmSync(file);
  }
}

/** Fills `stage` as the root of a machine: what the package holds. */
export async function fill(stage) {
  const lib = path.join(stage, 'usr/lib/veglia');
  mkdirSync(lib, { recursive: true });
  for (const file of ['package.json', 'package-lock.json', '.npmrc', 'LICENSE']) cpSync(inRoot(file), path.join(lib, file));
  for (const name of [...workspaces, 'web'])
    write(
      path.join(lib, 'packages', name, 'package.json'),
      readFileSync(inRoot('packages', name, 'package.json'), 'utf8').replace(/([.]\/src\/[\w/]+)[.]ts"/g, '$1.js"'),
    );
  const wanted = ['server', 'cli'].flatMap((name) => ['--workspace', `packages/${name}`]);
  const code = await npm(['ci', '--omit=dev', '--ignore-scripts', '--no-audit', '--no-fund', '--loglevel=error', ...wanted], { cwd: lib });
  if (code !== 0) stop('npm ci failed; see above.');
  for (const name of workspaces) {
    const src = path.join(lib, 'packages', name, 'src');
    cpSync(inRoot('packages', name, 'src'), src, { recursive: true, filter: noTests });
    compile(src);
  }
  // Sources are compiled here: the command needs no loader.
  write(
    path.join(lib, 'packages/cli/bin/veglia.js'),
    "#!/usr/bin/env node\nimport { main } from '../src/main.js';\n\nprocess.exitCode = await main(process.argv.slice(2));\n",
    0o755,
  );
  cpSync(inRoot('packages/web/dist'), path.join(lib, 'packages/web/dist'), { recursive: true });
  cpSync(inRoot('knowledge'), path.join(lib, 'knowledge'), { recursive: true });
  write(path.join(stage, 'usr/bin/veglia'), '#!/bin/sh\nexec /usr/bin/node /usr/lib/veglia/packages/cli/bin/veglia.js "$@"\n', 0o755);
  write(path.join(stage, 'usr/sbin/veglia-admin'), readFileSync(inRoot('deploy/veglia-admin')), 0o755);
  for (const unit of readdirSync(inRoot('deploy/systemd')))
    write(path.join(stage, 'lib/systemd/system', unit), readFileSync(inRoot('deploy/systemd', unit)));
  for (const file of ['veglia.env', 'owner.env'])
    write(path.join(stage, 'etc/veglia', file), readFileSync(inRoot('deploy/etc', file)), 0o640);
  write(path.join(stage, 'etc/systemd/journald@veglia.conf'), readFileSync(inRoot('deploy/etc/journald@veglia.conf')));
  const doc = path.join(stage, 'usr/share/doc/veglia');
  for (const file of [
    'docs/deployment.md',
    'docs/configuration.md',
    'docs/security.md',
    'deploy/proxy/nginx.conf',
    'deploy/proxy/Caddyfile',
  ])
    write(path.join(doc, path.basename(file)), readFileSync(inRoot(file)));
  write(path.join(doc, 'copyright'), readFileSync(inRoot('LICENSE')));
}

/** Makes the package from a filled root; returns its path. */
export async function pack(stage, version, out) {
  const arch = ask('dpkg', ['--print-architecture']).out.trim();
  const control = readFileSync(inRoot('deploy/debian/control'), 'utf8')
    .replace('@VERSION@', version)
    .replace('@ARCH@', arch)
    .replace('@SIZE@', String(Math.ceil(bytesBelow(stage) / 1024)));
  write(path.join(stage, 'DEBIAN/control'), control);
  write(path.join(stage, 'DEBIAN/conffiles'), readFileSync(inRoot('deploy/debian/conffiles')));
  for (const script of ['postinst', 'prerm', 'postrm'])
    write(path.join(stage, 'DEBIAN', script), readFileSync(inRoot('deploy/debian', script)), 0o755);
  mkdirSync(out, { recursive: true });
  const file = path.join(out, `veglia_${version}_${arch}.deb`);
  const code = await run('dpkg-deb', ['--root-owner-group', '-Zzstd', '-z3', '--build', stage, file], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (code !== 0) stop('dpkg-deb failed; see above.');
  return file;
}

/**
 * The whole way. `change` gets the folder of the program and makes a later version of it, whose number it gives back: tests upgrade to that.
 *
 * @param {{ out: string, version: string, change?: (lib: string) => string | undefined }} what
 * @returns {Promise<string[]>}
 */
export async function makePackage({ out, version, change = () => undefined }) {
  if (!existsSync(inRoot('packages/web/dist/index.html'))) {
    const code = await run(process.execPath, [inRoot('node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'], {
      cwd: inRoot('packages/web'),
    });
    if (code !== 0) stop('The build failed; see above.');
  }
  const stage = mkdtempSync(path.join(os.tmpdir(), 'veglia-package-'));
  chmodSync(stage, 0o755);
  try {
    await fill(stage);
    const files = [await pack(stage, version, out)];
    const next = await change(path.join(stage, 'usr/lib/veglia'));
    if (next !== undefined) files.push(await pack(stage, next, out));
    return files;
  } finally {
    rmSync(stage, { recursive: true, force: true });
  }
}

if (process.argv[1] === inRoot('scripts/package.mjs'))
  await runMain(async () => {
    checkNode();
    await installPackages();
    const at = process.argv.indexOf('--out');
    const out = path.resolve(at < 0 ? inRoot('.packages') : process.argv[at + 1]);
    const { version } = JSON.parse(readFileSync(inRoot('package.json'), 'utf8'));
    rmSync(inRoot('packages/web/dist'), { recursive: true, force: true });
    const [file] = await makePackage({ out, version });
    say(file);
    return 0;
  });
