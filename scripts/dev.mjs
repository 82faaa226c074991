/**
 * `npm run dev`: a database of its own with the demo's data, the server restarted at each change, the web app replaced in the page (HMR).
 * PORT names the page's port (5173). Ctrl-C stops all three; the data stays in .veglia/dev.
 */
import { spawn } from 'node:child_process';
import path from 'node:path';
import { Cluster, freePort, stateFolder } from './lib/cluster.mjs';
import { checkNode, ensurePostgres, installPackages } from './lib/install.mjs';
import { inRoot, root } from './lib/paths.mjs';
import { runMain, say } from './lib/say.mjs';

async function main() {
  checkNode();
  await installPackages();
  const cluster = new Cluster({ bin: await ensurePostgres(), folder: path.join(stateFolder(), 'dev') });
  cluster.create();
  await cluster.start();
  cluster.createRoles();
  cluster.createDatabase('veglia');
  const apiPort = await freePort();
  const pagePort = process.env.PORT ?? '5173';
  const env = {
    ...process.env,
    PORT: String(apiPort),
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'info',
    DATABASE_URL: cluster.url('app', 'veglia'),
    VEGLIA_OWNER_DATABASE_URL: cluster.url('owner', 'veglia'),
    VEGLIA_DEMO_DIR: inRoot('demo'),
  };
  const start = (script, args, more, cwd = root) =>
    spawn(process.execPath, [inRoot('node_modules', script), ...args], {
      cwd,
      env: { ...env, ...more },
      stdio: ['ignore', 'inherit', 'inherit'],
    });
  const children = [
    start('tsx/dist/cli.mjs', ['watch', '--clear-screen=false', inRoot('packages/server/src/main.ts')], {}),
    start(
      'vite/bin/vite.js',
      ['--host', '127.0.0.1', '--port', pagePort, '--strictPort'],
      { VEGLIA_API: `http://127.0.0.1:${apiPort}` },
      inRoot('packages/web'),
    ),
  ];
  say(`The page: http://127.0.0.1:${pagePort}/  The server: http://127.0.0.1:${apiPort}/  Ctrl-C stops both and the database.`);
  const ended = new Promise((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.once(signal, () => resolve(0));
    for (const child of children) child.once('exit', (code) => resolve(code ?? 1));
  });
  const code = await ended;
  for (const child of children) child.kill('SIGTERM');
  await Promise.all(
    children.map((child) => (child.exitCode ?? child.signalCode) !== null || new Promise((resolve) => child.once('exit', resolve))),
  );
  cluster.stop();
  return code;
}

await runMain(main);
