/** `npm run cards:rebuild`: on DATABASE_URL, or on the demo's own database. */
import path from 'node:path';
import { Cluster, stateFolder } from './lib/cluster.mjs';
import { ensurePostgres, installPackages } from './lib/install.mjs';
import { inRoot } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { runMain } from './lib/say.mjs';

await runMain(async () => {
  await installPackages();
  const env = { ...process.env };
  let cluster;
  let ranBefore = true;
  if (!env.DATABASE_URL) {
    cluster = new Cluster({ bin: await ensurePostgres(), folder: path.join(stateFolder(), 'postgres') });
    cluster.create();
    ranBefore = cluster.isRunning();
    await cluster.start();
    cluster.createRoles();
    cluster.createDatabase('veglia');
    env.DATABASE_URL = cluster.url('app', 'veglia');
    env.VEGLIA_OWNER_DATABASE_URL = cluster.url('owner', 'veglia');
  }
  const code = await run(process.execPath, ['--import', 'tsx', inRoot('packages/server/src/rebuildCards.ts')], { env });
  if (cluster && !ranBefore) cluster.stop();
  return code;
});
