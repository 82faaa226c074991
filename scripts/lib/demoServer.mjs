/** The real server on a database of its own with the demo's data, for pictures and measurements. The web app must be built. */
import { fork } from 'node:child_process';
import { freePort, temporaryCluster } from './cluster.mjs';
import { ensurePostgres } from './install.mjs';
import { inRoot } from './paths.mjs';

export async function demoServer() {
  const cluster = await temporaryCluster(await ensurePostgres());
  cluster.createDatabase('veglia');
  const port = await freePort();
  const env = {
    ...process.env,
    PORT: String(port),
    LOG_LEVEL: 'fatal',
    DATABASE_URL: cluster.url('app', 'veglia'),
    VEGLIA_OWNER_DATABASE_URL: cluster.url('owner', 'veglia'),
    VEGLIA_STATIC_DIR: inRoot('packages/web/dist'),
    VEGLIA_DEMO_DIR: inRoot('demo'),
  };
  const server = fork(inRoot('packages/server/src/main.ts'), [], { env, execArgv: ['--import', 'tsx'], cwd: inRoot() });
  await new Promise((resolve, reject) => {
    server.once('message', resolve);
    server.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
  return {
    address: `http://127.0.0.1:${port}`,
    ownerUrl: env.VEGLIA_OWNER_DATABASE_URL,
    async stop() {
      server.removeAllListeners('exit');
      const gone = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGTERM');
      await gone;
      cluster.remove();
    },
  };
}
