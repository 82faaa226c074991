/** `npm run demo`: everything from a fresh machine to a running app with demo data. `-- --reset` starts anew. */
import { fork } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, statSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { Cluster, freePort, isFree, ownFolder, stateFolder } from './lib/cluster.mjs';
import { checkNode, ensureFlashrom, ensurePostgres, installPackages } from './lib/install.mjs';
import { inRoot, root } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { runMain, say, stop } from './lib/say.mjs';

const usualPort = 4390;
const loopback = ['127.0.0.1', '::1', 'localhost'];

/** Newest change below the folders the built app is made from, milliseconds. */
function newestSource(folder) {
  let newest = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.name === 'node_modules' || entry.name === 'dist' || entry.name === 'components.d.ts') continue;
    const full = path.join(folder, entry.name);
    newest = Math.max(newest, entry.isDirectory() ? newestSource(full) : statSync(full).mtimeMs);
  }
  return newest;
}

export async function buildWeb() {
  const built = inRoot('packages/web/dist/index.html');
  const sources = ['packages/web', 'packages/core', 'packages/contract'].map((folder) => newestSource(inRoot(folder)));
  const lock = statSync(inRoot('package-lock.json')).mtimeMs;
  if (existsSync(built) && statSync(built).mtimeMs > Math.max(...sources, lock)) return;
  say('Building the app ...');
  const vite = inRoot('node_modules/vite/bin/vite.js');
  const code = await run(process.execPath, [vite, 'build', '--logLevel', 'warn'], { cwd: inRoot('packages/web') });
  if (code !== 0) stop('The build failed; see above.');
}

function alive(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('demo.mjs');
  } catch {
    return false;
  }
}

/** One demo per folder: a second start says where the first one listens. */
function claim(file) {
  if (existsSync(file)) {
    try {
      const other = JSON.parse(readFileSync(file, 'utf8'));
      if (other.pid !== process.pid && alive(other.pid)) {
        stop(other.address ? `Veglia runs already: ${other.address}` : 'Veglia is being started by another process already.');
      }
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error;
    }
  }
  writeFileSync(file, JSON.stringify({ pid: process.pid }));
}

const choosePort = async () => process.env.PORT ?? String((await isFree(usualPort)) ? usualPort : await freePort());

async function main() {
  checkNode();
  const reset = process.argv.includes('--reset');
  const host = process.env.HOST ?? '127.0.0.1';
  if (!loopback.includes(host)) {
    stop(
      `HOST is "${host}", but Veglia speaks no TLS itself and so listens on this machine only, behind a proxy that does. Use 127.0.0.1, ::1 or localhost.`,
    );
  }
  mkdirSync(ownFolder(), { recursive: true });
  const claimFile = path.join(ownFolder(), 'demo.json');
  claim(claimFile);

  let cluster;
  let server;
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    if (server?.connected || server?.exitCode === null) {
      server.kill('SIGTERM');
      await Promise.race([new Promise((resolve) => server.once('exit', resolve)), pause(8000)]);
    }
    cluster?.stop();
    rmSync(claimFile, { force: true });
    say('Stopped.');
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));

  await installPackages();
  const env = {
    ...process.env,
    HOST: host,
    VEGLIA_STATIC_DIR: inRoot('packages/web/dist'),
    VEGLIA_DEMO_DIR: inRoot('demo'),
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
  };
  if (process.env.DATABASE_URL) {
    if (reset) stop('--reset only empties the database that the demo makes itself; with DATABASE_URL, empty yours by hand.');
    say('Using the PostgreSQL named by DATABASE_URL.');
    await buildWeb();
  } else {
    await ensureFlashrom({ needed: false });
    const bin = await ensurePostgres();
    await buildWeb();
    cluster = new Cluster({ bin, folder: path.join(stateFolder(), 'postgres') });
    if (reset) {
      say('Starting anew: the old data is removed.');
      cluster.remove();
    }
    cluster.create();
    await cluster.start();
    cluster.createRoles();
    cluster.createDatabase('veglia');
    env.DATABASE_URL = cluster.url('app', 'veglia');
    env.VEGLIA_OWNER_DATABASE_URL = cluster.url('owner', 'veglia');
  }
  env.PORT = await choosePort();

  // A database that was killed under the running app is started again, on its port; the app finds it by itself.
  let mending = false;
  const watch = setInterval(async () => {
    if (!cluster || ending || mending || cluster.isRunning()) return;
    mending = true;
    say('The database ended; starting it again ...');
    try {
      await cluster.start();
      say('The database is back.');
    } catch (error) {
      console.error(error instanceof Error ? error.message : error);
    }
    mending = false;
  }, 2000);
  watch.unref();

  for (;;) {
    server = fork(inRoot('packages/server/src/main.ts'), [], {
      cwd: root,
      env,
      execArgv: ['--import', 'tsx'],
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    const outcome = await new Promise((resolve) => {
      server.on('message', (message) => {
        if (message?.listening === undefined) return;
        const address = `http://${host === '::1' ? '[::1]' : host}:${message.listening}/`;
        writeFileSync(claimFile, JSON.stringify({ pid: process.pid, address }));
        say(
          `\nVeglia is ready: ${address}\nCtrl-C stops the app and its database; the data stays. \`npm run demo -- --reset\` starts anew.\n`,
        );
        server.ready = true;
      });
      server.once('exit', (code) => resolve(code));
    });
    if (ending) return 0;
    // A server that ran and was killed is started again; one that never came up has said why.
    if (!server.ready) {
      cluster?.stop();
      rmSync(claimFile, { force: true });
      stop('The server did not start; see above.');
    }
    say(`The server ended (${outcome ?? 'killed'}); starting it again ...`);
    if (cluster) {
      await cluster.start();
      env.DATABASE_URL = cluster.url('app', 'veglia');
      env.VEGLIA_OWNER_DATABASE_URL = cluster.url('owner', 'veglia');
    }
  }
}

await runMain(main);
