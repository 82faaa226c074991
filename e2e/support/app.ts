/** The real server on a real PostgreSQL, one of each a worker; either can be stopped and started in the middle of a test. */
import { fork, type ChildProcess } from 'node:child_process';
import path from 'node:path';
import { Client } from 'pg';
import { test as base, expect } from '@playwright/test';
import { freePort, temporaryCluster } from '../../scripts/lib/cluster.mjs';
import { ensurePostgres } from '../../scripts/lib/install.mjs';
import { inRoot } from '../../scripts/lib/paths.mjs';
import { codeShownBy, firstOwner, signIn } from '../../scripts/lib/signIn.mjs';

export interface RunningApp {
  readonly address: string;
  stopServer(): Promise<void>;
  startServer(): Promise<void>;
  stopDatabase(): void;
  startDatabase(): Promise<void>;
  /** Cookies of the owner, signed in: what a browser of the shop has. */
  readonly signedIn: { readonly cookies: Awaited<ReturnType<typeof signIn>>['cookies']; readonly origins: [] };
  /** What the console showed the first time: opens the shop to its owner. */
  readonly firstCode: string;
  /** One number from the database itself. */
  count(sql: string): Promise<number>;
}

/** `joined`: the first owner has come in already. */
export async function launch(demo: boolean, joined = true): Promise<RunningApp & { end: () => Promise<void> }> {
  const cluster = await temporaryCluster(await ensurePostgres());
  cluster.createDatabase('veglia');
  const port = await freePort();
  let server: ChildProcess | undefined;
  let code = (): string => '';
  const startServer = async (): Promise<void> => {
    const env: NodeJS.ProcessEnv = {
      ...process.env,
      PORT: String(port),
      LOG_LEVEL: 'fatal',
      DATABASE_URL: cluster.url('app', 'veglia'),
      VEGLIA_OWNER_DATABASE_URL: cluster.url('owner', 'veglia'),
      VEGLIA_STATIC_DIR: inRoot('packages/web/dist'),
      ...(demo ? { VEGLIA_DEMO_DIR: inRoot('demo') } : {}),
    };
    const child = fork(path.join(inRoot('packages/server'), 'src/main.ts'), [], {
      env,
      execArgv: ['--import', 'tsx'],
      cwd: inRoot(),
      silent: true,
    });
    child.stderr?.pipe(process.stderr);
    const shown = codeShownBy(child);
    if (code() === '') code = shown;
    server = child;
    await new Promise<void>((resolve, reject) => {
      child.once('message', () => resolve());
      child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
  };
  const stopServer = async (): Promise<void> => {
    const child = server;
    if (!child) return;
    server = undefined;
    child.removeAllListeners('exit');
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    await gone;
  };
  const count = async (sql: string): Promise<number> => {
    const client = new Client({ connectionString: cluster.url('owner', 'veglia') });
    await client.connect();
    try {
      const { rows } = await client.query<{ count: string }>(sql);
      return Number(rows[0]?.count);
    } finally {
      await client.end();
    }
  };
  await startServer();
  const address = `http://127.0.0.1:${port}`;
  return {
    count,
    address,
    firstCode: code(),
    signedIn: { cookies: joined ? (await signIn(address, code())).cookies : [], origins: [] },
    startServer,
    stopServer,
    stopDatabase: () => cluster.stop('fast'),
    startDatabase: async () => {
      await cluster.start();
    },
    end: async () => {
      await stopServer();
      cluster.remove();
    },
  };
}

export { firstOwner as owner };

export const test = base.extend<object, { app: RunningApp; withDemo: boolean }>({
  withDemo: [false, { option: true, scope: 'worker' }],
  app: [
    async ({ withDemo }, use) => {
      const app = await launch(withDemo);
      await use(app);
      await app.end();
    },
    { scope: 'worker' },
  ],
  storageState: async ({ app }, use) => {
    await use(app.signedIn);
  },
  baseURL: async ({ app }, use) => {
    await use(app.address);
  },
});

export { expect };
